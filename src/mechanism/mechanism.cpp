#include "mechanism/mechanism.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "mechanism/motion_words.hpp"
#include "structure/words.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

// The points that members join into one part, part by part.
std::vector<std::vector<std::size_t>> parts(const Spans& spans, const Dofs& f) {
  std::vector<std::size_t> root(f.used.size());
  std::iota(root.begin(), root.end(), 0);
  const auto find = [&](std::size_t p) {
    while (root[p] != p) p = root[p] = root[root[p]];
    return p;
  };
  for (const Span& s : spans.all) root[find(s.a)] = find(s.b);
  std::vector<std::vector<std::size_t>> all;
  std::vector<std::size_t> part(root.size(), root.size());
  for (std::size_t p = 0; p < root.size(); ++p) {
    if (!f.used[p]) continue;
    const std::size_t r = find(p);
    if (part[r] == root.size()) {
      part[r] = all.size();
      all.emplace_back();
    }
    all[part[r]].push_back(p);
  }
  return all;
}

// One part moved as a rigid body: three translations and three rotations about its middle, the rotations
// scaled to the part's size so that all six compare.
class RigidPart {
 public:
  RigidPart(const Structure& s, const Dofs& f, const std::vector<std::size_t>& points, bool whole)
      : s_(s), f_(f), points_(points), whole_(whole) {
    for (const std::size_t p : points) middle_ += position(p) / static_cast<double>(points.size());
    for (const std::size_t p : points) size_ = std::max(size_, length(position(p) - middle_));
  }

  void tell(Problems& problems) const {
    Eigen::MatrixXd free = free_motions();
    for (int axis = 0; axis < 3 && free.cols() > 0; ++axis) {
      Eigen::VectorXd e = Eigen::VectorXd::Unit(6, axis);
      if ((times(free, transposed_times(free, e)) - e).norm() > 1e-9) continue;
      add(problems, whole_ ? fmt::format("the structure slides along {}: nothing restrains it", "xyz"[axis])
                           : fmt::format("{} slide along {}: nothing restrains them", names(), "xyz"[axis]));
      free = without(free, e);
    }
    if (free.cols() > 0) add(problems, rotation_words(free));
  }

 private:
  Vector position(std::size_t p) const { return s_.points()[p].position; }

  void add(Problems& problems, std::string text) const {
    Problem p = as_finding("free-to-move", {std::move(text), {}, "supports"});
    for (const std::size_t point : points_) p.others.push_back({Subject::Kind::point, s_.points()[point].name});
    problems.push_back(std::move(p));
  }

  // A coordinate without its rounding noise.
  double tidy(double x) const { return std::abs(x) < 1e-9 * size_ ? 0.0 : x; }

  using Row = Eigen::Matrix<double, 1, 6>;

  // Displacement of a point along a direction in the six rigid motions.
  Row along(std::size_t p, const Vector& direction) const {
    const Vector turned = cross((position(p) - middle_) / size_, direction);
    Row r;
    r << direction.x, direction.y, direction.z, turned.x, turned.y, turned.z;
    return r;
  }
  // … and of its degree of freedom k, along global or local axes.
  Row global_row(std::size_t p, std::size_t k) const {
    static constexpr Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    return k < 3 ? along(p, axes[k]) : Row(Row::Unit(static_cast<Eigen::Index>(k)));
  }
  Row own_row(std::size_t p, std::size_t k) const {
    const Axes* frame = f_.frame(p);
    if (!frame || k >= 3) return global_row(p, k);
    return along(p, k == 0 ? frame->x : k == 1 ? frame->y : frame->z);
  }

  // The sum of the squares of all degrees of freedom of this kind, for the six motions.
  template <class Counts>
  Eigen::MatrixXd squares(const Counts& counts) const {
    Eigen::MatrixXd sum = Eigen::MatrixXd::Zero(6, 6);
    for (const std::size_t p : points_)
      for (std::size_t k = 0; k < 6; ++k) {
        // Only what is rigidly joined turns with the part.
        if ((k >= 3 && !f_.rigid[p]) || !counts(f_.status[p][k])) continue;
        const Row r = own_row(p, k);
        sum += transposed_times(r, r);
      }
    // Nothing leaves the plane.
    if (s_.is_plane())
      for (const int k : {2, 3, 4}) sum(k, k) += counts(Status::held);
    return sum;
  }

  // An orthonormal basis of the motions that no support prevents and that move anything at all.
  Eigen::MatrixXd free_motions() const {
    Eigen::MatrixXd held = squares([](Status status) { return status == Status::held; });
    for (const PointSpring& s : f_.springs) {
      if (std::find(points_.begin(), points_.end(), s.point) == points_.end()) continue;
      for (std::size_t k = 0; k < 6; ++k) {
        if (s.stiffness[k] == 0 || (k >= 3 && !f_.rigid[s.point])) continue;
        const Row r = global_row(s.point, k);
        held += transposed_times(r, r);
      }
    }
    const Eigen::MatrixXd free = kernel(held, held.trace());
    if (free.cols() == 0) return free;
    const Eigen::MatrixXd moved = squares([](Status status) { return status != Status::absent; });
    // Of these, those that move something.
    const Eigen::MatrixXd void_ones = times(free, kernel(turned(moved, free), moved.trace()));
    Eigen::MatrixXd rest = free;
    for (Eigen::Index i = 0; i < void_ones.cols(); ++i) rest = without(rest, void_ones.col(i));
    return rest;
  }

  // Values negligible compared with `size`.
  static Eigen::MatrixXd kernel(const Eigen::MatrixXd& square, double size) {
    const Eigensystem eigen = symmetric_eigensystem(square);
    Eigen::Index n = 0;
    while (n < square.rows() && eigen.values(n) <= 1e-13 * size) ++n;
    return eigen.vectors.leftCols(n);
  }

  static Eigen::MatrixXd without(const Eigen::MatrixXd& basis, const Eigen::VectorXd& direction) {
    const Eigen::VectorXd e = direction.normalized();
    return column_space(basis - times(e, transposed_times(e, basis)), 1e-6);
  }

  std::string names() const {
    std::vector<std::string> names;
    std::vector<bool> mine(s_.points().size(), false);
    for (const std::size_t p : points_) {
      names.push_back(s_.points()[p].name);
      mine[p] = true;
    }
    for (std::string& m : whole_members(s_, mine)) names.push_back(std::move(m));
    return list(names);
  }

  std::string rotation_words(const Eigen::MatrixXd& free) const {
    std::vector<std::string> still;
    for (const std::size_t p : points_) {
      double motion = 0;
      for (std::size_t k = 0; k < 3; ++k) motion = std::max(motion, times(global_row(p, k), free).norm());
      if (motion < 1e-9) still.push_back(s_.points()[p].name);
    }
    const std::string who = whole_ ? "the structure rotates" : names() + " rotate";
    const std::string end = whole_ ? ": nothing restrains it" : ": nothing restrains them";
    if (s_.is_plane() && still.size() == 1) return who + " about " + quoted(still[0]) + end;
    if (still.size() > 1) return who + " about the line through " + list(still) + end;
    if (still.size() == 1) return who + " about " + quoted(still[0]) + end;
    if (s_.is_plane()) {
      const double turn = free(5, 0) / size_;
      if (std::abs(turn) * size_ > 1e-9)
        return fmt::format("{} about the place ({}, {}){}", who,
                           length_words(s_, tidy(middle_.x - free(1, 0) / turn), 4),
                           length_words(s_, tidy(middle_.y + free(0, 0) / turn), 4), end);
    }
    const Vector turn{free(3, 0), free(4, 0), free(5, 0)};
    if (free.cols() == 1 && length(turn) > 1e-9)
      return fmt::format("{} about an axis along {}{}", who, direction(s_, turn), end);
    return fmt::format("{} or {} in {} independent ways{}", who, whole_ ? "slides" : "slide", free.cols(), end);
  }

  const Structure& s_;
  const Dofs& f_;
  const std::vector<std::size_t>& points_;
  bool whole_;
  Vector middle_;
  double size_ = 1e-300;
};

}  // namespace

Problems rigid_motions(const Structure& structure, const Spans& spans, const Dofs& f) {
  Problems problems;
  const auto all = parts(spans, f);
  for (const auto& part : all) RigidPart(structure, f, part, all.size() == 1).tell(problems);
  return problems;
}

namespace {

// Below this share of what the stiffness around the moving points would give, a motion meets no resistance.
constexpr double no_energy = 1e-18;
constexpr std::size_t most_told = 3;
constexpr std::size_t most_examined = 200;

Motion motion_of(const Dofs& f, const Eigen::VectorXd& z) {
  Motion m;
  m.move.resize(f.equation.size());
  m.turn.resize(f.equation.size());
  for (std::size_t p = 0; p < f.equation.size(); ++p) {
    const Six at = f.of_point(p, z.data());
    m.move[p] = {at[0], at[1], at[2]};
    m.turn[p] = {at[3], at[4], at[5]};
  }
  return m;
}

Eigen::MatrixXd energies(const Spans& spans, const std::vector<Element>& elements, const Dofs& f,
                         const Eigen::MatrixXd& Z) {
  Eigen::MatrixXd E = Eigen::MatrixXd::Zero(Z.cols(), Z.cols());
  Eigen::Matrix<double, 6, Eigen::Dynamic> D(6, Z.cols());
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& span = spans.all[i];
    bool moves = false;
    for (Eigen::Index c = 0; c < Z.cols(); ++c) {
      const Movement a{f.of_point(span.a, Z.col(c).data()), {}}, b{f.of_point(span.b, Z.col(c).data()), {}};
      const Vector12 bent = ends<long double>(spans.axes[span.member], span, a, b).bent;
      for (int k = 0; k < 6; ++k) D(k, c) = bent(deformation_entry[k]);
      moves |= a.value != Six{} || b.value != Six{};
    }
    if (moves) E += turned(elements[i].deformation_stiffness(), D);
  }
  for (const PointSpring& s : f.springs)
    for (Eigen::Index c = 0; c < Z.cols(); ++c)
      for (Eigen::Index d = 0; d < Z.cols(); ++d) {
        const Six u = f.of_point(s.point, Z.col(c).data()), v = f.of_point(s.point, Z.col(d).data());
        for (std::size_t k = 0; k < 6; ++k) E(c, d) += u[k] * s.stiffness[k] * v[k];
      }
  return E;
}

// Whether some span or spring that moves is strained as one that resists is. The energy of a motion is small compared
// with that of the stiffest parts also where it only bends the softest; the strain of a soft span relative to its own
// displacement is not.
bool strains_a_span(const Spans& spans, const std::vector<Element>& elements, const Dofs& f, const Eigen::VectorXd& z) {
  constexpr double moves_enough = 1e-6, strained = 1e-14;
  struct Strain {
    double moved, energy, reference;
  };
  std::vector<Strain> all;
  double most = 0;
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& span = spans.all[i];
    const Movement a{f.of_point(span.a, z.data()), {}}, b{f.of_point(span.b, z.data()), {}};
    const Vector12 bent = ends<long double>(spans.axes[span.member], span, a, b).bent;
    Eigen::Matrix<double, 6, 1> D;
    for (int k = 0; k < 6; ++k) D(k) = bent(deformation_entry[k]);
    double move = 0, turn = 0;
    for (const Six* six : {&a.value, &b.value})
      for (std::size_t k = 0; k < 3; ++k) {
        move = std::max(move, std::abs((*six)[k]));
        turn = std::max(turn, std::abs((*six)[k + 3]) * span.length);
      }
    // Resistance of the span against this relative displacement of its ends.
    const double moved = std::max(move, turn);
    Eigen::Matrix<double, 6, 1> against = Eigen::Matrix<double, 6, 1>::Constant(moved / span.length);
    for (int k = 0; k < 6; ++k)
      if (deformation_entry[k] % 6 == 0) against(k) = moved;
    const auto& K = elements[i].deformation_stiffness();
    all.push_back({moved, D.dot(K * D), against.cwiseAbs2().dot(K.diagonal())});
    most = std::max(most, moved);
  }
  const bool stretches_a_spring = std::any_of(f.springs.begin(), f.springs.end(), [&](const PointSpring& s) {
    const Six u = f.of_point(s.point, z.data());
    for (std::size_t k = 0; k < 3; ++k)
      if (s.stiffness[k] > 0 && std::abs(u[k]) > moves_enough * most) return true;
    return false;
  });
  return stretches_a_spring || std::any_of(all.begin(), all.end(), [&](const Strain& s) {
           return s.moved > moves_enough * most && s.energy > strained * s.reference;
         });
}

}  // namespace

Problems inner_motions(const Structure& structure, const Spans& spans, const std::vector<Element>& elements,
                       const Dofs& f, const LowerMatrix& K, const std::vector<int>& weak) {
  const LowerMatrix grounded = K.grounded(weak);
  const Factor factor = Factor::tolerant(grounded);
  const auto m = static_cast<Eigen::Index>(std::min(weak.size(), most_examined));
  // Each weak degree of freedom displaced by one, the other weak ones at rest, no loads.
  Eigen::MatrixXd unit = Eigen::MatrixXd::Zero(K.n, m);
  for (Eigen::Index c = 0; c < m; ++c) unit(weak[c], c) = 1;
  Eigen::MatrixXd right = -K.times(unit);
  for (const int j : weak) right.row(j).setZero();
  const Eigen::MatrixXd Z = factor.solve(right) + unit;
  const Eigen::MatrixXd E = energies(spans, elements, f, Z);
  const Eigen::Map<const Eigen::VectorXd> stiffness(K.reference.data(), K.n);
  const Eigen::MatrixXd reference = weighted_products(Z, stiffness, Z);
  const Eigensystem modes = generalized_eigensystem(E, reference);
  Problems problems;
  const bool all_null = modes.values(m - 1) < no_energy;
  Eigen::Index null = 0;
  while (null < m && modes.values(null) < no_energy) ++null;
  // Single columns are the simpler motions; they are free of energy only if all are.
  const auto motion = [&](Eigen::Index c) {
    return all_null ? Eigen::VectorXd(Z.col(c)) : Eigen::VectorXd(times(Z, modes.vectors.col(c)));
  };
  if (null > 0 && strains_a_span(spans, elements, f, motion(0))) return {};
  for (Eigen::Index c = 0; c < null && problems.size() < most_told; ++c) {
    const Eigen::VectorXd z = motion(c);
    const Motion m = motion_of(f, z);
    Problem p = as_finding("free-to-move", {in_words(structure, m), {}, "members"});
    for (const std::string& name : moving_points(structure, m)) p.others.push_back({Subject::Kind::point, name});
    problems.push_back(std::move(p));
  }
  const std::size_t all = static_cast<std::size_t>(null) + (weak.size() - static_cast<std::size_t>(m));
  if (null > 0 && all > problems.size())
    problems.push_back(
        as_finding("free-to-move", {fmt::format("{} more motions are free", all - problems.size()), {}, "members"}));
  return problems;
}

}  // namespace corvex::solver
