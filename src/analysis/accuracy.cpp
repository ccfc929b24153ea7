#include "analysis/accuracy.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>

namespace corvex::solver {
namespace {

// Rounding as a share of the forces that meet at a point: of a double, several times over; less where there are many
// points, for in long chains that of neighbours is much alike and cancels. Calibrated on
// tests/linear_system/digits.cpp.
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

// The largest of movements, and of rotations by the size of the structure.
double largest(const Six& six, double size) {
  double most = 0;
  for (std::size_t k = 0; k < 6; ++k) most = std::max(most, std::abs(six[k]) * (k < 3 ? 1 : size));
  return most;
}

// The case itself, or a sum of several with signs at random: it is off by as much as the worst of them.
struct Mixture {
  std::vector<Six> movement;
  Eigen::VectorXd lack;
  std::vector<Six> gross;
};

class Estimate {
 public:
  Estimate(const Block& block, const Eigen::MatrixXd& lack)
      : block_(block), lack_(lack), size_(block.structure.bounds().diagonal()) {
    // Few cases are looked at one by one.
    constexpr std::size_t few = 4, mixtures = 2;
    const bool own = block.size() <= few;
    mixtures_.assign(
        own ? block.size() : mixtures,
        {std::vector<Six>(block.structure.points().size(), Six{}), Eigen::VectorXd::Zero(lack.rows()), {}});
    for (std::size_t c = 0; c < block.size(); ++c) {
      moved_.push_back(largest_movement(block.structure, block.movement[c]));
      if (moved_[c] == 0) continue;
      for (std::size_t i = own ? c : 0; i < (own ? c + 1 : mixtures); ++i) add(c, mixtures_[i]);
    }
    for (Mixture& m : mixtures_) m.gross = gross_forces(block, m.movement);
  }

  std::vector<double> errors(const Factor& factor) {
    const Dofs& f = block_.system.dofs;
    const double share = rounding(block_.structure.points().size());
    // Signs at random may cancel, so there are several tries; each costs a solution.
    constexpr Eigen::Index large = 5000;
    const std::size_t tries = std::max<std::size_t>(lack_.rows() > large ? 2 : 4, mixtures_.size());
    Eigen::MatrixXd block(lack_.rows(), static_cast<Eigen::Index>(tries));
    for (std::size_t t = 0; t < tries; ++t) {
      const Mixture& m = mixtures_[t % mixtures_.size()];
      auto column = block.col(static_cast<Eigen::Index>(t));
      column = m.lack;
      for (std::size_t p = 0; p < f.equation.size(); ++p)
        for (std::size_t k = 0; k < 6; ++k)
          if (const int e = f.equation[p][k]; e >= 0) column[e] += sign_() * share * m.gross[p][k];
    }
    const Eigen::MatrixXd off = factor.solve(block);
    // Where little of it is chance the estimate is the error itself.
    constexpr double margin = 1.3;
    std::vector<double> of_mixture(mixtures_.size(), 0), all;
    for (std::size_t t = 0; t < tries; ++t) {
      const double* column = off.col(static_cast<Eigen::Index>(t)).data();
      double& most = of_mixture[t % mixtures_.size()];
      for (std::size_t p = 0; p < f.equation.size(); ++p)
        most = std::max(most, margin * largest(f.of_point(p, column), size_));
    }
    const bool own = mixtures_.size() == block_.size();
    const double worst = *std::max_element(of_mixture.begin(), of_mixture.end());
    for (std::size_t c = 0; c < block_.size(); ++c) all.push_back(moved_[c] == 0 ? 0 : own ? of_mixture[c] : worst);
    return all;
  }

 private:
  void add(std::size_t c, Mixture& m) {
    const double weight = sign_() / moved_[c];
    m.lack += weight * lack_.col(static_cast<Eigen::Index>(c));
    const std::vector<Movement>& movement = block_.movement[c];
    for (std::size_t p = 0; p < movement.size(); ++p)
      for (std::size_t k = 0; k < 6; ++k) m.movement[p][k] += weight * movement[p].value[k];
  }

  const Block& block_;
  const Eigen::MatrixXd& lack_;
  double size_;
  std::vector<double> moved_;
  Signs sign_;
  std::vector<Mixture> mixtures_;
};

}  // namespace

double largest_movement(const Structure& s, const std::vector<Movement>& movement) {
  const double size = s.bounds().diagonal();
  double most = 0;
  for (const Movement& m : movement) most = std::max(most, largest(m.value, size));
  return most;
}

std::vector<double> movement_errors(const Block& block, const Eigen::MatrixXd& lack, const Factor& factor) {
  return Estimate(block, lack).errors(factor);
}

}  // namespace corvex::solver
