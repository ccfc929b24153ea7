#include "solve/accuracy.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>

namespace corvex::solver {
namespace {

// Rounding as a share of the forces that meet at a point: of a double, several times over; less where there are many
// points, for in long chains that of neighbours is much alike and cancels. Calibrated on tests/solve/digits.cpp.
double rounding(std::size_t points) {
  constexpr double times = 5, few = 32;
  const double share = std::min(1.0, std::sqrt(few / static_cast<double>(points)));
  return times * share * std::numeric_limits<double>::epsilon() / 2;
}

// +1 and -1 in no order, the same every time.
class Signs {
 public:
  double operator()() {
    state_ ^= state_ << 13;
    state_ ^= state_ >> 7;
    state_ ^= state_ << 17;
    return state_ >> 63 ? 1 : -1;
  }

 private:
  std::uint64_t state_ = 88172645463325252u;
};

double size_of(const Structure& s) {
  Vector low = s.points().front().position, high = low;
  for (const Point& p : s.points()) {
    low = {std::min(low.x, p.position.x), std::min(low.y, p.position.y), std::min(low.z, p.position.z)};
    high = {std::max(high.x, p.position.x), std::max(high.y, p.position.y), std::max(high.z, p.position.z)};
  }
  return length(high - low);
}

// The largest of movements, and of rotations by the size of the structure.
double largest(const Six& six, double size) {
  double most = 0;
  for (std::size_t k = 0; k < 6; ++k) most = std::max(most, std::abs(six[k]) * (k < 3 ? 1 : size));
  return most;
}

// How many tries are made for so many cases: several for one case, as signs at random may cancel; one for several
// where there are many, as each costs a solution.
std::size_t tries_for(std::size_t cases) {
  constexpr std::size_t least = 4, cases_each = 16;
  return least + cases / cases_each;
}

}  // namespace

double largest_movement(const Structure& s, const CaseAnalysis& result) {
  const double size = size_of(s);
  double most = 0;
  for (const Movement& m : result.movement) most = std::max(most, largest(m.value, size));
  return most;
}

std::vector<double> movement_errors(const Structure& s, const Analysis& a, Cases cases, const std::vector<Need>& needs,
                                    const Eigen::MatrixXd& lack, const Factor& factor) {
  const Freedoms& f = a.freedoms;
  const double size = size_of(s);
  const std::size_t tries = tries_for(cases.size());
  Eigen::MatrixXd block = Eigen::MatrixXd::Zero(lack.rows(), static_cast<Eigen::Index>(tries));
  Signs sign;
  const double share = rounding(s.points().size());
  for (std::size_t i = 0; i < std::max(cases.size(), tries); ++i) {
    const std::size_t c = i % cases.size();
    const double moved = largest_movement(s, a.cases[cases[c]]);
    if (moved == 0) continue;
    auto column = block.col(static_cast<Eigen::Index>(i % tries));
    column += lack.col(static_cast<Eigen::Index>(c)) * (sign() / moved);
    for (std::size_t p = 0; p < f.equation.size(); ++p)
      for (std::size_t k = 0; k < 6; ++k)
        if (const int e = f.equation[p][k]; e >= 0) column[e] += sign() * share * needs[c].gross[p][k] / moved;
  }
  const Eigen::MatrixXd off = factor.solve(block);
  // Where little of it is chance the estimate is the error itself.
  constexpr double margin = 1.3;
  std::vector<double> error(cases.size(), 0);
  for (std::size_t i = 0; i < std::max(cases.size(), tries); ++i) {
    const double* column = off.col(static_cast<Eigen::Index>(i % tries)).data();
    double& most = error[i % cases.size()];
    for (std::size_t p = 0; p < f.equation.size(); ++p)
      most = std::max(most, margin * largest(f.of_point(p, column), size));
  }
  return error;
}

}  // namespace corvex::solver
