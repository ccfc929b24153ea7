// A span: the piece of a member between two of its points. Only `solve` and `result` know about spans.
#pragma once

#include <array>
#include <vector>

#include "structure/rigidity.hpp"

namespace corvex::solver {

using Six = std::array<double, 6>;  // x y z, then about x y z

// How a point moves, in global axes, to twice the digits of a double: in short stiff spans the difference of
// two large movements is what counts.
struct Movement {
  Six value{};
  Six rest{};  // the rounding error of `value`

  void add(std::size_t k, double step) {
    const double sum = value[k] + step, taken = sum - value[k];
    rest[k] += (value[k] - (sum - taken)) + (step - taken);
    value[k] = sum;
  }
};

struct Span {
  std::size_t member = 0;
  std::size_t a = 0, b = 0;  // points
  double start = 0;          // of the member, in metres
  double length = 0;
  bool beam = true;
  // Released components of an end, in the member's local axes.
  std::array<bool, 6> freed_a{}, freed_b{};
  // Rigid arms from the points to the ends of the span, in global axes.
  bool armed = false;
  Vector arm_a{}, arm_b{};
};

// All members cut at the points that they name; the spans of a member stand together, in order.
struct Spans {
  std::vector<Span> all;
  std::vector<std::size_t> first;  // of each member; one more entry at the end
  // Of each member: its local axes, turned to the principal axes of its section where these lie askew in space.
  std::vector<Axes> axes;
};
Spans cut(const Structure& structure);

}  // namespace corvex::solver
