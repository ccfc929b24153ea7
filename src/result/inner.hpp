// The exact course of everything inside one member, in one case.
#pragma once

#include <algorithm>
#include <vector>

#include "analysis/analysis.hpp"
#include "beam/course.hpp"
#include "corvex/diagram.hpp"

namespace corvex::result {

struct Inner {
  double length = 0;
  std::vector<solver::CoursePiece> pieces;  // from and to along the member
  // Sizes below which force, moment and movement are rounding.
  double force_noise = 0, moment_noise = 0, movement_noise = 0;
};

Inner inner(const Structure& structure, const solver::Analysis& analysis, std::size_t load_case, std::size_t member);

// One cross-section of a piece, as a course without length.
Inner cross_section(const solver::CoursePiece& piece, double along);

// The piece that counts at a place.
template <class Pieces>
std::size_t piece_at(const Pieces& pieces, double x, Side side) {
  const double snap = 1e-12 * pieces.back().to;
  std::size_t i = 0;
  while (i + 1 < pieces.size() &&
         (side == Side::after ? pieces[i + 1].from <= x + snap : pieces[i + 1].from < x - snap))
    ++i;
  return i;
}

struct Candidate {
  double at = 0, value = 0;
};

// Finds the largest of what is offered in ascending order of place; of equal ones the first.
class Best {
 public:
  void offer(double at, double value) {
    largest_ = candidates_.empty() ? value : std::max(largest_, value);
    candidates_.push_back({at, value});
  }
  Candidate take(double noise) const {
    const double equal = std::max(noise, 1e-11 * std::abs(largest_));
    for (const Candidate& c : candidates_)
      if (c.value >= largest_ - equal) return c;
    return {};
  }

 private:
  std::vector<Candidate> candidates_;
  double largest_ = 0;
};

}  // namespace corvex::result
