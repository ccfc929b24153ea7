#include "stability/estimate.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "algebra/dense.hpp"

namespace corvex::stability {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using std::numbers::pi;

// Functions for the twist: sines that vanish at both ends, and a straight line for each end that can turn.
class Twist {
 public:
  explicit Twist(const StretchInput& s) : s_(s), L_(s.length) {
    for (const bool start : {true, false})
      if (std::isfinite(start ? s.twist_start : s.twist_end)) lines_.push_back(start);
    n_ = waves + static_cast<Index>(lines_.size());
    energy_ = MatrixXd::Zero(n_, n_), slope_ = MatrixXd::Zero(n_, n_);
    for (Index i = 0; i < waves; ++i) {
      const double k = static_cast<double>(i + 1) * pi;
      slope_(i, i) = k * k / (2 * L_);
      energy_(i, i) = s.G * s.section.J * slope_(i, i) + s.E * s.section.Cw * k * k * k * k / (2 * L_ * L_ * L_);
    }
    for (std::size_t a = 0; a < lines_.size(); ++a) {
      const Index i = waves + static_cast<Index>(a);
      for (std::size_t b = 0; b < lines_.size(); ++b) {
        const Index j = waves + static_cast<Index>(b);
        slope_(i, j) = (lines_[a] == lines_[b] ? 1 : -1) / L_;
        energy_(i, j) = s.G * s.section.J * slope_(i, j);
      }
      energy_(i, i) += lines_[a] ? s.twist_start : s.twist_end;
    }
  }

  // Whether something resists every twist.
  bool resists() const { return s_.twist_start > 0 || s_.twist_end > 0; }

  // The largest ∫ w φ² dx over the energy of the twist; w at the middle of each of the parts of the stretch.
  double largest_share(const std::vector<double>& weight) const {
    MatrixXd q = MatrixXd::Zero(n_, n_);
    const auto parts = static_cast<Index>(weight.size());
    const double h = L_ / static_cast<double>(parts);
    Eigen::VectorXd at(n_);
    for (Index k = 0; k < parts; ++k) {
      if (weight[static_cast<std::size_t>(k)] == 0) continue;
      const double x = (static_cast<double>(k) + 0.5) / static_cast<double>(parts);
      for (Index i = 0; i < waves; ++i) at(i) = std::sin(static_cast<double>(i + 1) * pi * x);
      for (std::size_t a = 0; a < lines_.size(); ++a) at(waves + static_cast<Index>(a)) = lines_[a] ? 1 - x : x;
      q += h * weight[static_cast<std::size_t>(k)] * at * at.transpose();
    }
    return largest(q);
  }
  // The largest ∫ φ′² dx over the energy of the twist.
  double largest_slope() const { return largest(slope_); }

 private:
  static constexpr Index waves = 10;

  double largest(const MatrixXd& m) const {
    const Eigen::VectorXd scale = energy_.diagonal().cwiseSqrt().cwiseInverse();
    const MatrixXd a = scale.asDiagonal() * m * scale.asDiagonal(),
                   b = scale.asDiagonal() * energy_ * scale.asDiagonal();
    return algebra::generalized_eigensystem(a, b).values(n_ - 1);
  }

  const StretchInput& s_;
  const double L_;
  std::vector<bool> lines_;
  Index n_ = 0;
  MatrixXd energy_, slope_;
};

// Geometric energy of a part of the loads in u, v and φ, at a load factor of 1.
struct Shares {
  Eigen::Matrix3d all = Eigen::Matrix3d::Zero();

  double factor() const {
    const double most = algebra::symmetric_eigensystem(all).values(2);
    return most > 0 ? 1 / most : infinity;
  }
};

EstimatedKind kind_of(const Shares& axial, const Shares& bending, double factor) {
  constexpr double alone = 1.25, same = 1.02;
  const double of_axial = axial.factor(), of_bending = bending.factor();
  if (of_axial <= alone * factor) {
    const double flexural = 1 / std::max(axial.all(0, 0), axial.all(1, 1)), torsional = 1 / axial.all(2, 2);
    if (flexural <= same * of_axial) return EstimatedKind::flexural;
    return torsional <= same * of_axial ? EstimatedKind::torsional : EstimatedKind::flexural_torsional;
  }
  return of_bending <= alone * factor ? EstimatedKind::lateral_torsional : EstimatedKind::combined;
}

}  // namespace

Estimate estimate(const StretchInput& s) {
  const section::StabilityFigures& f = s.section;
  double P = 0, wagner = 0, change = 0, any_moment = 0;
  for (const StretchInput::Sample& at : s.samples) {
    P = std::max(P, at.P);
    const double own = at.M1 * f.wagner_u + at.M2 * f.wagner_v, central = at.M1 * f.central_u + at.M2 * f.central_v;
    wagner = std::max({wagner, own, s.u_along || s.v_along ? central : 0});
    change = std::max(change, at.change);
    any_moment = std::max({any_moment, std::abs(at.M1), std::abs(at.M2)});
  }
  Shares axial, bending;
  if (std::isfinite(s.euler_u)) axial.all(0, 0) = P / s.euler_u;
  if (std::isfinite(s.euler_v)) axial.all(1, 1) = P / s.euler_v;
  if (!s.twist_along) {
    const Twist twist(s);
    if (!twist.resists()) return {.factor = 0, .bounded = P == 0 && any_moment == 0};
    const double slope = twist.largest_slope();
    axial.all(2, 2) = P * f.polar * slope;
    const auto coupled = [&](Shares& shares, Index i, double by) { shares.all(i, 2) = shares.all(2, i) = by; };
    // ∫ P |2 v0 u′ φ′| against the energies of u and φ.
    if (!s.u_along) coupled(axial, 0, P * std::abs(f.centre_v) * std::sqrt(slope / s.euler_u));
    if (!s.v_along) coupled(axial, 1, P * std::abs(f.centre_u) * std::sqrt(slope / s.euler_v));
    const auto weighted = [&](auto weight) {
      std::vector<double> all;
      for (const StretchInput::Sample& at : s.samples) all.push_back(weight(at));
      return twist.largest_share(all);
    };
    // The middle rule for a diagram of third power is off by less than this.
    constexpr double sampled = 1.003;
    if (!s.v_along)
      coupled(bending, 1, std::sqrt(sampled * weighted([&](const auto& at) { return at.M1 * at.M1 / (s.E * f.I2); })));
    if (!s.u_along)
      coupled(bending, 0, std::sqrt(sampled * weighted([&](const auto& at) { return at.M2 * at.M2 / (s.E * f.I1); })));
    bending.all(2, 2) = wagner * slope;
    if (s.lever > 0 && change > 0) {
      const double part = s.length / static_cast<double>(s.samples.size());
      bending.all(2, 2) += weighted([&](const auto& at) { return at.change * s.lever / part; });
    }
  }
  const double factor = Shares{axial.all + bending.all}.factor();
  return {factor, std::isfinite(factor) ? kind_of(axial, bending, factor) : EstimatedKind::none};
}

}  // namespace corvex::stability
