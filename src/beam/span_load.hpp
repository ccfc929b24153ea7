// The loads of one case, brought to the spans that carry them, in the members' own axes.
#pragma once

#include <span>
#include <vector>

#include "beam/span.hpp"
#include "structure/acting_load.hpp"

namespace corvex::solver {

// Along [from, to] of a span: a force at `from`, then a force per length that changes linearly to `to`, and what the
// piece would do by itself if it were free: heat, lack of fit.
struct LoadPiece {
  double from = 0, to = 0;
  Vector jump_force, jump_moment;  // N, N·m, at `from`
  Vector q0, slope;                // N/m at `from`, N/m²
  Vector m0, m_slope;              // moment per length: N·m/m at `from`, N/m
  FreeStrain free{};               // in the axes in which the member bends
};

class SpanLoads {
 public:
  SpanLoads(const Structure& structure, const Spans& spans, const LoadCase& loads);

  // Covers the span from 0 to its length; a jump at the very end has a last piece of length zero.
  // Empty where the span bears no load.
  std::span<const LoadPiece> on(std::size_t span) const {
    return {pieces_.data() + first_[span], first_[span + 1] - first_[span]};
  }

 private:
  std::vector<LoadPiece> pieces_;
  std::vector<std::size_t> first_;
};

// The sum of all loads of a case and of their moments about the origin, from their description alone.
struct Resultant {
  Vector force, moment;
  double largest_force = 0, largest_moment = 0;  // of the single loads, which may cancel in the sum
};
Resultant resultant(const Structure& structure, const LoadCase& loads);

}  // namespace corvex::solver
