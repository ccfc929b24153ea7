// The loads of one case, assigned to the spans that carry them, in local axes.
#pragma once

#include <span>
#include <vector>

#include "beam/span.hpp"
#include "structure/acting_loads.hpp"

namespace corvex::solver {

// Initial strain of a span (ActingStrain), in the principal axes of its member.
struct FreeStrain {
  double along = 0, curve_y = 0, curve_z = 0;
};

// Along [from, to] of a span: a force at `from`, then a force per length that changes linearly to `to`, and what the
// piece would do by itself if it were free: heat, lack of fit.
struct LoadPiece {
  double from = 0, to = 0;
  Vector jump_force, jump_moment;  // N, N·m, at `from`
  Vector q0, slope;                // N/m at `from`, N/m²
  Vector m0, m_slope;              // moment per length: N·m/m at `from`, N/m
  FreeStrain free{};
};

class SpanLoads {
 public:
  SpanLoads(const Structure& structure, const Spans& spans, const ActingLoads& loads);

  // Covers the span from 0 to its length; a jump at the very end has a last piece of length zero.
  // Empty if the span has no load.
  std::span<const LoadPiece> on(std::size_t span) const {
    return {pieces_.data() + first_[span], first_[span + 1] - first_[span]};
  }

 private:
  std::vector<LoadPiece> pieces_;
  std::vector<std::size_t> first_;
};

}  // namespace corvex::solver
