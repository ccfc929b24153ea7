#include "picture/drawing.hpp"

#include <cmath>

namespace corvex::picture {

double length(const Spot& s) {
  return std::hypot(s.x, s.y);
}

Spot unit(const Spot& s) {
  const double l = length(s);
  return l > 0 ? s * (1 / l) : Spot{};
}

Spot left_of(const Spot& s) {
  return {s.y, -s.x};
}

}  // namespace corvex::picture
