#include "modes/span_shapes.hpp"

#include <cmath>
#include <map>
#include <mutex>
#include <numbers>
#include <vector>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

// Σ c[k] P_k(2ξ − 1) for ξ from 0 to 1.
using Series = VectorXd;

Series zero_series(Eigen::Index size) {
  return Series::Zero(size);
}

// From 0 on: ∫ P_k dξ = (P_{k+1} − P_{k−1})/(2(2k + 1)), and (P_1 + P_0)/2 for k = 0.
Series integral(const Series& c) {
  Series r = zero_series(c.size());
  r(0) += c(0) / 2, r(1) += c(0) / 2;
  for (Eigen::Index k = 1; k + 1 < c.size(); ++k) {
    const double part = c(k) / (2 * (2 * static_cast<double>(k) + 1));
    r(k + 1) += part, r(k - 1) -= part;
  }
  return r;
}

// P_0 to P_{n−1} at ξ.
VectorXd legendre(double xi, Eigen::Index n) {
  const double t = 2 * xi - 1;
  VectorXd p(n);
  p(0) = 1;
  if (n > 1) p(1) = t;
  for (Eigen::Index k = 1; k + 1 < n; ++k) {
    const auto d = static_cast<double>(k);
    p(k + 1) = ((2 * d + 1) * t * p(k) - d * p(k - 1)) / (d + 1);
  }
  return p;
}

// Nodes and weights of Gauss's rule on 0 to 1 (Newton's method on P_n).
struct Gauss {
  VectorXd node, weight;

  explicit Gauss(Eigen::Index n) : node(n), weight(n) {
    for (Eigen::Index i = 0; i < n; ++i) {
      const auto size = static_cast<double>(n);
      double t = std::cos(std::numbers::pi * (static_cast<double>(i) + 0.75) / (size + 0.5)), slope = 1;
      for (int step = 0; step < 100; ++step) {
        double before = 1, p = t;
        for (Eigen::Index k = 1; k < n; ++k) {
          const auto d = static_cast<double>(k);
          const double next = ((2 * d + 1) * t * p - d * before) / (d + 1);
          before = p, p = next;
        }
        slope = size * (t * p - before) / (t * t - 1);
        const double by = p / slope;
        t -= by;
        if (std::abs(by) < 1e-16) break;
      }
      node(i) = (1 + t) / 2;
      weight(i) = 1 / ((1 - t * t) * slope * slope);
    }
  }
};

// w, s and what deforms: the curvature s′ and the shear force V.
struct Field {
  Series w, s, curvature, shear, slope;  // slope: w′
};

// M = M0 + V0 ξ + given courses, clamped at the start; the two constants are found from what the end must do.
class Clamped {
 public:
  Clamped(double shear, Eigen::Index size) : shear_(shear), size_(size) {
    one_ = zero_series(size), one_(0) = 1;
    line_ = integral(one_);
  }

  // Distributions of V and M in addition to the constants; displacement and rotation of both ends.
  Field field(const Series& V, const Series& M, double w_a, double s_a, double w_b, double s_b) const {
    const Series turn = integral(M), bend = integral(turn), slide = integral(V);
    // s(1) = s_a + M0 + V0/2 + turn(1); w(1) = w_a + s_a + M0/2 + V0/6 + bend(1) − shear (V0 + slide(1)).
    const double s_rest = s_b - s_a - turn.sum(), w_rest = w_b - w_a - s_a - bend.sum() + shear_ * slide.sum();
    // M0 + V0/2 = s_rest, M0/2 + (1/6 − shear) V0 = w_rest.
    const double V0 = (w_rest - s_rest / 2) / (1.0 / 6 - shear_ - 0.25), M0 = s_rest - V0 / 2;
    Field f;
    f.shear = V + V0 * one_;
    f.curvature = M + M0 * one_ + V0 * line_;
    f.s = s_a * one_ + integral(f.curvature);
    f.slope = f.s - shear_ * f.shear;
    f.w = w_a * one_ + integral(f.slope);
    return f;
  }
  Series polynomial(Eigen::Index degree) const {
    Series p = zero_series(size_);
    p(degree) = 1;
    return p;
  }

 private:
  double shear_;
  Eigen::Index size_;
  Series one_, line_;
};

std::vector<Field> fields_of(double shear, int inner) {
  const Eigen::Index size = inner + 8;
  const Clamped clamped(shear, size);
  const Series none = zero_series(size);
  std::vector<Field> all;
  for (const auto& [w_a, s_a, w_b, s_b] : {std::tuple{1, 0, 0, 0}, {0, 1, 0, 0}, {0, 0, 1, 0}, {0, 0, 0, 1}})
    all.push_back(clamped.field(none, none, w_a, s_a, w_b, s_b));
  for (int j = 0; j < inner; ++j) {
    const Series q = clamped.polynomial(j), V = integral(q);
    all.push_back(clamped.field(V, integral(V), 0, 0, 0, 0));
  }
  // Moments along the span: they matter where sections turn against each other.
  if (shear > 0)
    for (int j = 0; j < inner; ++j) all.push_back(clamped.field(none, -integral(clamped.polynomial(j)), 0, 0, 0, 0));
  return all;
}

MatrixXd columns(const std::vector<Field>& fields, Series Field::*part) {
  MatrixXd c(fields.front().w.size(), static_cast<Eigen::Index>(fields.size()));
  for (std::size_t i = 0; i < fields.size(); ++i) c.col(static_cast<Eigen::Index>(i)) = fields[i].*part;
  return c;
}

MatrixXd values(const MatrixXd& series, const VectorXd& places) {
  MatrixXd at(places.size(), series.rows());
  for (Eigen::Index i = 0; i < places.size(); ++i) at.row(i) = legendre(places(i), series.rows()).transpose();
  return times(at, series);
}

// The inner shapes made orthogonal with energy 1; linearly dependent ones are left out.
MatrixXd independent(const MatrixXd& energy) {
  const VectorXd scale = energy.diagonal().cwiseSqrt().cwiseInverse();
  const Eigensystem solved = symmetric_eigensystem(scale.asDiagonal() * energy * scale.asDiagonal());
  constexpr double least = 1e-10;
  Eigen::Index first = 0;
  while (first < energy.rows() && solved.values(first) < least) ++first;
  const Eigen::Index n = energy.rows() - first;
  return scale.asDiagonal() * solved.vectors.rightCols(n) *
         solved.values.tail(n).cwiseSqrt().cwiseInverse().asDiagonal();
}

BendingShapes made(double shear, int inner) {
  const std::vector<Field> fields = fields_of(shear, inner);
  const Gauss rule(inner + 8);
  MatrixXd w = columns(fields, &Field::w), s = columns(fields, &Field::s), bent = columns(fields, &Field::curvature),
           V = columns(fields, &Field::shear), slope = columns(fields, &Field::slope);
  const auto at = [&](const MatrixXd& series) { return values(series, rule.node); };
  const auto product = [&](const MatrixXd& a, const VectorXd& weight) { return weighted_products(a, weight, a); };
  const Eigen::Index rest = w.cols() - 4;
  const MatrixXd energy = product(at(bent), rule.weight) + shear * product(at(V), rule.weight);
  MatrixXd to = MatrixXd::Zero(w.cols(), 4);
  to.topLeftCorner(4, 4).setIdentity();
  if (rest > 0) {
    const MatrixXd inside = independent(energy.bottomRightCorner(rest, rest));
    to = MatrixXd::Zero(w.cols(), 4 + inside.cols());
    to.topLeftCorner(4, 4).setIdentity();
    to.bottomRightCorner(rest, inside.cols()) = inside;
  }
  w = times(w, to), s = times(s, to), slope = times(slope, to);
  BendingShapes b;
  b.stiffness = MatrixXd::Identity(to.cols(), to.cols());
  b.stiffness.topLeftCorner(4, 4) = energy.topLeftCorner(4, 4);
  const MatrixXd at_w = at(w), at_s = at(s), at_slope = at(slope);
  b.mass = product(at_w, rule.weight);
  b.rotary = product(at_s, rule.weight);
  VectorXd weight = rule.weight;
  for (MatrixXd& g : b.slope) {
    g = product(at_slope, weight);
    weight = weight.cwiseProduct(rule.node);
  }
  b.slope_series = slope, b.slide_series = s - slope;
  b.movement_series = w;
  return b;
}

AxialShapes made(int inner) {
  const Eigen::Index size = inner + 4;
  MatrixXd u = MatrixXd::Zero(size, 2 + inner), strain = MatrixXd::Zero(size, 2 + inner);
  // 1 − ξ and ξ.
  u(0, 0) = 0.5, u(1, 0) = -0.5, u(0, 1) = 0.5, u(1, 1) = 0.5;
  strain(0, 0) = -1, strain(0, 1) = 1;
  for (int j = 0; j < inner; ++j) {
    Series p = zero_series(size);
    // Legendre polynomials of mean 0 as strains: their movements vanish at both ends.
    p(j + 1) = 1;
    strain.col(2 + j) = p;
    u.col(2 + j) = integral(p);
  }
  const Gauss rule(inner + 4);
  const MatrixXd at_u = values(u, rule.node), at_strain = values(strain, rule.node);
  AxialShapes a;
  a.stiffness = weighted_products(at_strain, rule.weight, at_strain);
  a.mass = weighted_products(at_u, rule.weight, at_u);
  a.movement_series = u;
  return a;
}

}  // namespace

Eigen::MatrixXd BendingShapes::slope_between(double from, double to, const double (&n)[3]) const {
  const Gauss rule(slope_series.rows() + 2);
  VectorXd place = VectorXd::Constant(rule.node.size(), from) + (to - from) * rule.node;
  VectorXd weight = (to - from) * rule.weight;
  for (Eigen::Index i = 0; i < place.size(); ++i) weight(i) *= n[0] + place(i) * (n[1] + place(i) * n[2]);
  const MatrixXd at = values(slope_series, place);
  return weighted_products(at, weight, at);
}

MatrixXd BendingShapes::movement_at(const VectorXd& places) const {
  return values(movement_series, places);
}
MatrixXd BendingShapes::rotation_at(const VectorXd& places) const {
  return values(slope_series + slide_series, places);
}
MatrixXd AxialShapes::movement_at(const VectorXd& places) const {
  return values(movement_series, places);
}

MatrixXd BendingShapes::slide_with(const BendingShapes& other) const {
  // Over 0 to 1 the square of the k-th polynomial is 1/(2k + 1), and different ones have nothing in common.
  const Eigen::Index n = std::min(slide_series.rows(), other.slide_series.rows());
  VectorXd weight(n);
  for (Eigen::Index k = 0; k < n; ++k) weight(k) = 1 / (2 * static_cast<double>(k) + 1);
  return weighted_products(slide_series.topRows(n), weight, other.slide_series.topRows(n));
}

std::shared_ptr<const BendingShapes> bending_shapes(double shear, int inner) {
  static std::mutex guard;
  static std::map<std::pair<double, int>, std::shared_ptr<const BendingShapes>> known;
  constexpr std::size_t most = 512;
  const std::lock_guard lock(guard);
  if (const auto it = known.find({shear, inner}); it != known.end()) return it->second;
  if (known.size() >= most) known.clear();
  return known[{shear, inner}] = std::make_shared<const BendingShapes>(made(shear, inner));
}

std::shared_ptr<const AxialShapes> axial_shapes(int inner) {
  static std::mutex guard;
  static std::map<int, std::shared_ptr<const AxialShapes>> known;
  const std::lock_guard lock(guard);
  std::shared_ptr<const AxialShapes>& shapes = known[inner];
  if (!shapes) shapes = std::make_shared<const AxialShapes>(made(inner));
  return shapes;
}

}  // namespace corvex::solver
