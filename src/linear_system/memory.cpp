#include "linear_system/memory.hpp"

#include <sys/resource.h>
#include <unistd.h>

#include <algorithm>
#include <limits>

namespace corvex::solver {

double memory_limit() {
  double limit = std::numeric_limits<double>::infinity();
  const long pages = sysconf(_SC_PHYS_PAGES), page = sysconf(_SC_PAGESIZE);
  if (pages > 0 && page > 0) limit = static_cast<double>(pages) * static_cast<double>(page);
  for (const auto resource : {RLIMIT_AS, RLIMIT_DATA}) {
    rlimit allowed{};
    if (getrlimit(resource, &allowed) == 0 && allowed.rlim_cur != RLIM_INFINITY)
      limit = std::min(limit, static_cast<double>(allowed.rlim_cur));
  }
  return limit;
}

}  // namespace corvex::solver
