#include "structure/words.hpp"

#include <fmt/format.h>

#include <cmath>

#include "corvex/number.hpp"

namespace corvex {

std::string list(const std::vector<std::string>& names, std::size_t most) {
  std::string text;
  const std::size_t shown = names.size() <= most ? names.size() : most - 1;
  for (std::size_t i = 0; i < shown; ++i) {
    if (i > 0) text += i + 1 == names.size() ? " and " : ", ";
    text += quoted(names[i]);
  }
  if (shown < names.size()) text += fmt::format(" and {} more", names.size() - shown);
  return text;
}

std::string quoted(const std::string& name) {
  return "'" + name + "'";
}

std::string direction(const Structure& structure, Vector v) {
  v = v / length(v);
  const double parts[] = {v.x, v.y, v.z};
  for (int i = 0; i < 3; ++i)
    if (std::abs(parts[i]) > 1 - 1e-9) return std::string(1, "xyz"[i]);
  const auto clean = [](double c) { return std::abs(c) < 1e-6 ? 0.0 : c; };
  if (structure.is_plane()) return fmt::format("({}, {})", short_number(clean(v.x), 3), short_number(clean(v.y), 3));
  return fmt::format("({}, {}, {})", short_number(clean(v.x), 3), short_number(clean(v.y), 3),
                     short_number(clean(v.z), 3));
}

}  // namespace corvex
