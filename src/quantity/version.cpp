#include "corvex/version.hpp"

namespace corvex {

std::string_view version() noexcept {
  return CORVEX_VERSION;
}

}  // namespace corvex
