#include "hand/statics.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"

namespace corvex::hand {

// Where the equations of each joint and of each end release begin.
struct Rows {
  std::vector<std::ptrdiff_t> joint;
  std::vector<std::pair<std::size_t, std::size_t>> released;  // piece, component
  std::ptrdiff_t first_release = 0, count = 0;
};

namespace {

using Matrix = Eigen::MatrixXd;
using Column = Eigen::VectorXd;

double largest_of(const Column& c) {
  double most = 0;
  for (const double v : c) most = std::max(most, std::abs(v));
  return most;
}

bool is_moment(std::size_t component) {
  return component >= T;
}
bool is_moment(const Skeleton& k, const Unknown& u) {
  return u.reaction ? k.holds[u.index].turning : is_moment(u.component);
}

// Rows of a joint: x, y and the moment about z in the plane, else all six.
std::size_t rows_of_joint(const Skeleton& k) {
  return k.plane ? 3 : 6;
}

Rows rows(const Skeleton& k) {
  Rows r;
  r.joint.assign(k.used.size(), -1);
  for (std::size_t p = 0; p < k.used.size(); ++p)
    if (k.used[p]) r.joint[p] = r.count, r.count += static_cast<std::ptrdiff_t>(rows_of_joint(k));
  r.first_release = r.count;
  for (std::size_t i = 0; i < k.pieces.size(); ++i)
    for (const std::size_t c : k.components(k.pieces[i]))
      if (k.pieces[i].freed_b[c]) r.released.emplace_back(i, c), ++r.count;
  return r;
}

// Adds forces on a joint, moments counted by the size of the structure.
class OnJoints {
 public:
  OnJoints(const Skeleton& k, const Rows& rows) : k_(k), rows_(rows) {}

  void add(Column& column, std::size_t point, const Vector& force, const Vector& moment) const {
    const std::ptrdiff_t r = rows_.joint[point];
    column(r) += force.x, column(r + 1) += force.y;
    const Vector m = moment / k_.size;
    if (k_.plane) {
      column(r + 2) += m.z;
      return;
    }
    column(r + 2) += force.z, column(r + 3) += m.x, column(r + 4) += m.y, column(r + 5) += m.z;
  }
  // Forces of a piece on its joint at this end.
  void add_end(Column& column, const Piece& p, bool at_a, const Forces& f) const {
    Vector force, moment;
    for (std::size_t c = 0; c < 6; ++c) {
      if (f[c] == 0) continue;
      const UnitWrench w = on_joint(p, c, at_a);
      force += w.force * f[c], moment += w.moment * f[c];
    }
    const std::size_t point = at_a ? p.a : p.b;
    const Vector arm = (at_a ? p.at_a : p.at_b) - k_.structure->points()[point].position;
    add(column, point, force, moment + cross(arm, force));
  }
  void add_course(Column& column, std::size_t piece, const Forces& start, const Forces& end) const {
    const Piece& p = k_.pieces[piece];
    add_end(column, p, true, start);
    add_end(column, p, false, end);
    for (std::size_t i = 0; i < rows_.released.size(); ++i)
      if (const auto& [at, c] = rows_.released[i]; at == piece)
        column(rows_.first_release + static_cast<std::ptrdiff_t>(i)) += end[c] / (is_moment(c) ? k_.size : 1);
  }

 private:
  const Skeleton& k_;
  const Rows& rows_;
};

// The forces at the start of a piece that are known beforehand: of a bar its loads go to both ends as on a simple beam.
Forces known_start(const Skeleton& k, const Acting& acting, std::size_t piece, bool slack) {
  const Piece& p = k.pieces[piece];
  Forces f{};
  if (p.beam && !slack) return f;
  const PieceCourse c = course_of(k, acting, piece, f);
  if (!p.beam) f[Vy] = -c.end[Mz] / p.length, f[Vz] = -c.end[My] / p.length;
  if (slack) f[N] = resting_force(k, p, c.stretches);
  return f;
}

double weight(const Skeleton& k, const Unknown& u) {
  constexpr double reaction = 1e-4, bar = 1e-3, bending = 1e-2;
  if (u.reaction) return reaction;
  if (!k.pieces[u.index].beam) return bar;
  return is_moment(u.component) ? bending : 1;
}

}  // namespace

struct Statics::Equations {
  Rows rows;
  Matrix all;                         // a column for each unknown
  std::vector<std::ptrdiff_t> basis;  // columns that are solved for
  Matrix of_basis;
  std::vector<std::ptrdiff_t> others;  // the redundants
  std::optional<algebra::PivotedQr> solved;
};

namespace {

std::vector<Unknown> unknowns_of(const Skeleton& k, const std::vector<bool>& slack) {
  std::vector<Unknown> all;
  for (std::size_t i = 0; i < k.holds.size(); ++i) all.push_back({true, i, 0});
  for (std::size_t i = 0; i < k.pieces.size(); ++i)
    for (const std::size_t c : k.components(k.pieces[i]))
      if (!k.pieces[i].freed_a[c] && !(slack[i] && c == N)) all.push_back({false, i, c});
  return all;
}

Matrix equations_of(const Skeleton& k, const Rows& rows, const std::vector<Unknown>& unknowns) {
  const OnJoints on(k, rows);
  Matrix A(rows.count, static_cast<std::ptrdiff_t>(unknowns.size()));
  for (std::size_t i = 0; i < unknowns.size(); ++i) {
    const Unknown& u = unknowns[i];
    Column column = Column::Zero(rows.count);
    if (u.reaction) {
      const Hold& h = k.holds[u.index];
      on.add(column, h.point, h.turning ? Vector{} : h.direction, h.turning ? h.direction * k.size : Vector{});
    } else {
      Forces start{};
      start[u.component] = is_moment(u.component) ? k.size : 1;
      Forces end = start;
      end[My] += start[Vz] * k.pieces[u.index].length, end[Mz] += start[Vy] * k.pieces[u.index].length;
      on.add_course(column, u.index, start, end);
    }
    A.col(static_cast<std::ptrdiff_t>(i)) = column;
  }
  return A;
}

// The joint that moves most in a motion that no force resists; nothing where only joints turn.
std::optional<std::size_t> what_moves(const Skeleton& k, const Rows& rows, const Matrix& motions) {
  std::optional<std::size_t> most;
  double largest = 1e-7;
  for (std::size_t p = 0; p < rows.joint.size(); ++p) {
    if (rows.joint[p] < 0) continue;
    const std::ptrdiff_t n = k.plane ? 2 : 3;
    if (const double size = motions.middleRows(rows.joint[p], n).norm(); size > largest) largest = size, most = p;
  }
  return most;
}

}  // namespace

Expected<Statics, Problem> Statics::of(std::shared_ptr<const Skeleton> skeleton, const std::vector<bool>& slack) {
  const Skeleton& k = *skeleton;
  Statics s(std::move(skeleton), slack);
  s.unknowns_ = unknowns_of(k, slack);
  auto e = std::make_shared<Equations>();
  e->rows = rows(k);
  e->all = equations_of(k, e->rows, s.unknowns_);
  const algebra::PivotedQr qr(e->all);
  const std::ptrdiff_t rank = qr.rank(1e-10), lines = e->all.rows();
  if (rank < lines) {
    if (const auto point = what_moves(k, e->rows, qr.across(rank)))
      return Problem{fmt::format("point '{}' is not restrained; only a stable structure can be "
                                 "derived",
                                 k.structure->points()[*point].name),
                     {Subject::Kind::point, k.structure->points()[*point].name}};
  }
  // The columns that are solved for: forces in members before reactions, as far as they are independent.
  for (const double power : {1.0, 0.5, 0.0}) {
    Matrix weighted = e->all;
    for (std::size_t i = 0; i < s.unknowns_.size(); ++i)
      weighted.col(static_cast<std::ptrdiff_t>(i)) *= std::pow(weight(k, s.unknowns_[i]), power);
    const algebra::PivotedQr order(weighted);
    e->basis.resize(static_cast<std::size_t>(rank));
    e->of_basis.resize(lines, rank);
    for (std::ptrdiff_t i = 0; i < rank; ++i) {
      e->basis[static_cast<std::size_t>(i)] = order.column(i);
      e->of_basis.col(i) = e->all.col(order.column(i));
    }
    e->solved.emplace(e->of_basis);
    if (power == 0 || e->solved->rank(1e-4) == rank) break;
  }
  std::vector<bool> in_basis(s.unknowns_.size(), false);
  for (const std::ptrdiff_t i : e->basis) in_basis[static_cast<std::size_t>(i)] = true;
  for (std::size_t i = 0; i < in_basis.size(); ++i)
    if (!in_basis[i]) e->others.push_back(static_cast<std::ptrdiff_t>(i)), s.redundants_.push_back(s.unknowns_[i]);
  StaticCount& n = s.count_;
  for (const Piece& p : k.pieces) {
    ++(p.beam ? n.members : n.bars);
    for (const std::size_t c : k.components(p)) n.releases += p.freed_a[c] + p.freed_b[c];
  }
  n.joints = static_cast<std::size_t>(std::count(k.used.begin(), k.used.end(), true));
  n.reactions = k.holds.size();
  // An end that passes less on is an unknown less, not an equation more.
  const std::size_t released = e->rows.released.size();
  n.unknowns = s.unknowns_.size() - released;
  n.equations = static_cast<std::size_t>(rank) - released;
  n.degree = s.redundants_.size();
  s.equations_ = std::move(e);
  return s;
}

std::optional<State> Statics::state(const Acting& acting, const std::vector<double>& redundants) const {
  const Skeleton& k = *k_;
  const Equations& e = *equations_;
  const OnJoints on(k, e.rows);
  Column need = Column::Zero(e.all.rows());
  for (const JointOn& l : acting.joints) on.add(need, l.point, l.force, l.moment);
  State s;
  s.start.resize(k.pieces.size());
  double largest = largest_of(need);
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    s.start[i] = known_start(k, acting, i, slack_[i]);
    Column part = Column::Zero(e.all.rows());
    on.add_course(part, i, s.start[i], course_of(k, acting, i, s.start[i]).end);
    largest = std::max(largest, largest_of(part));
    need += part;
  }
  for (std::size_t i = 0; i < redundants.size(); ++i) {
    const Column part = e.all.col(e.others[i]) * (redundants[i] / (is_moment(k, redundants_[i]) ? k.size : 1));
    largest = std::max(largest, largest_of(part));
    need += part;
  }
  const auto rank = static_cast<std::ptrdiff_t>(e.basis.size());
  Column found = Column::Zero(rank);
  if (rank > 0) {
    found = e.solved->nearest(-need);
    // Once more for what rounding left.
    found += e.solved->nearest(-need - algebra::times(e.of_basis, found));
    largest = std::max(largest, largest_of(found));
    need += algebra::times(e.of_basis, found);
  }
  if (largest_of(need) > 1e-8 * largest) return std::nullopt;
  // Rounding error of zero forces.
  constexpr double rounding = 1e-12;
  s.reaction.assign(k.holds.size(), 0);
  const auto enter = [&](const Unknown& u, double value) {
    if (std::abs(value) <= rounding * largest) value = 0;
    value *= is_moment(k, u) ? k.size : 1;
    (u.reaction ? s.reaction[u.index] : s.start[u.index][u.component]) += value;
  };
  for (std::ptrdiff_t i = 0; i < rank; ++i)
    enter(unknowns_[static_cast<std::size_t>(e.basis[static_cast<std::size_t>(i)])], found(i));
  for (std::size_t i = 0; i < redundants.size(); ++i) {
    const Unknown& u = redundants_[i];
    (u.reaction ? s.reaction[u.index] : s.start[u.index][u.component]) += redundants[i];
  }
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    PieceCourse c = course_of(k, acting, i, s.start[i]);
    for (std::size_t f = 0; f < 6; ++f)
      if (std::abs(c.end[f]) <= rounding * largest * (is_moment(f) ? k.size : 1)) c.end[f] = 0;
    s.course.push_back(std::move(c));
  }
  return s;
}

}  // namespace corvex::hand
