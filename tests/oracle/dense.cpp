#include "oracle/dense.hpp"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <cmath>
#include <numbers>

namespace corvex::test {
namespace {

using Real = long double;
using Matrix = Eigen::Matrix<Real, Eigen::Dynamic, Eigen::Dynamic>;
using Column = Eigen::Matrix<Real, Eigen::Dynamic, 1>;
using Three = Eigen::Matrix<Real, 3, 1>;
using Turn = Eigen::Matrix<Real, 3, 3>;

Three three(const Vector& v) {
  return {v.x, v.y, v.z};
}

// Rows: the local axes of the member (docs/theory.md, "Axes and signs").
Turn own_axes(const Structure& s, const Member& m) {
  const Three x = (three(s.axis_end(m)) - three(s.axis_start(m))).normalized(), up = three(s.up_direction());
  const bool upright = std::abs(x.dot(up)) > std::cos(std::numbers::pi_v<Real> / 180);
  const Three towards = upright ? Three(1, 0, 0) : up;
  const Three y = (towards - x * x.dot(towards)).normalized(), z = x.cross(y);
  const Real c = std::cos(static_cast<Real>(m.roll)), n = std::sin(static_cast<Real>(m.roll));
  Turn t;
  t << x.transpose(), (y * c + z * n).transpose(), (z * c - y * n).transpose();
  return t;
}

// <x − a>^n / n!, Macaulay's bracket.
Real bracket(Real x, Real a, int n) {
  if (x < a) return 0;
  Real v = 1;
  for (int i = 1; i <= n; ++i) v *= (x - a) / i;
  return v;
}

// A force and a moment at one place, or a force along a part; in the axes in which the member bends.
struct Acting {
  Real from = 0, to = 0;
  Three force = Three::Zero(), moment = Three::Zero();  // at `from`
  Three first = Three::Zero(), last = Three::Zero();    // per length, from `from` to `to`
  Three first_moment = Three::Zero(), last_moment = Three::Zero();

  // The n-fold integral of the force, or of the moment, per length up to x.
  Three integral(Real x, int n) const { return integral(x, n, first, last); }
  Three moment_integral(Real x, int n) const { return integral(x, n, first_moment, last_moment); }
  Three integral(Real x, int n, const Three& a, const Three& b) const {
    if (!(to > from)) return Three::Zero();
    const Three rise = (b - a) / (to - from);
    return a * bracket(x, from, n) + rise * bracket(x, from, n + 1) - b * bracket(x, to, n) -
           rise * bracket(x, to, n + 1);
  }
};

// N Vy Vz T My Mz, u v w, rotations about x y z.
using State = Eigen::Matrix<Real, 12, 1>;

struct Rod {
  Real length = 0, EA = 0, EIy = 0, EIz = 0, GJ = 0, shear_y = 0, shear_z = 0;  // the last two are 1/GA
  Real coupling = 0;                                                            // of both shear forces: 1/(G A12)
  Turn own, bending;                       // the member's axes, and those in which it bends apart
  std::vector<std::vector<Acting>> loads;  // of each case
  std::vector<Three> strain;               // of each case: elongation, curvature in x–y, in x–z

  // What the start state brings at x.
  Eigen::Matrix<Real, 12, 12> from_start(Real x) const {
    Eigen::Matrix<Real, 12, 12> t = Eigen::Matrix<Real, 12, 12>::Identity();
    t(6, 0) = x / EA;
    t(9, 3) = x / GJ;
    t(5, 1) = x;
    t(4, 2) = x;
    // Slope in x–y is the rotation about z, in x–z minus that about y.
    t(11, 5) = x / EIz;
    t(11, 1) = x * x / (2 * EIz);
    t(7, 11) = x;
    t(7, 5) = x * x / (2 * EIz);
    t(7, 1) = x * x * x / (6 * EIz) - x * shear_y;
    t(10, 4) = -x / EIy;
    t(10, 2) = -x * x / (2 * EIy);
    t(8, 10) = -x;
    t(8, 4) = x * x / (2 * EIy);
    t(8, 2) = x * x * x / (6 * EIy) - x * shear_z;
    t(7, 2) = t(8, 1) = -x * coupling;
    return t;
  }

  // What a force and a moment at a bring at x.
  Eigen::Matrix<Real, 12, 6> from_place(Real x, Real a) const {
    Eigen::Matrix<Real, 12, 6> t = Eigen::Matrix<Real, 12, 6>::Zero();
    constexpr Real rounding = 1e-12L;
    if (x < a - rounding) return t;
    const Real b0 = 1, b1 = bracket(x, a, 1), b2 = bracket(x, a, 2), b3 = bracket(x, a, 3);
    t(0, 0) = -b0;
    t(6, 0) = -b1 / EA;
    t(1, 1) = b0;
    t(5, 1) = b1;
    t(11, 1) = b2 / EIz;
    t(7, 1) = b3 / EIz - b1 * shear_y;
    t(2, 2) = b0;
    t(4, 2) = b1;
    t(10, 2) = -b2 / EIy;
    t(8, 2) = b3 / EIy - b1 * shear_z;
    t(7, 2) = t(8, 1) = -b1 * coupling;
    t(3, 3) = -b0;
    t(9, 3) = -b1 / GJ;
    t(4, 4) = b0;
    t(10, 4) = -b1 / EIy;
    t(8, 4) = b2 / EIy;
    t(5, 5) = -b0;
    t(11, 5) = -b1 / EIz;
    t(7, 5) = -b2 / EIz;
    return t;
  }

  State from_loads(std::size_t load_case, Real x) const {
    State s = State::Zero();
    for (const Acting& l : loads[load_case]) {
      Eigen::Matrix<Real, 6, 1> p;
      p << l.force, l.moment;
      s += from_place(x, l.from) * p;
      const Three q1 = l.integral(x, 1), q2 = l.integral(x, 2), q3 = l.integral(x, 3), q4 = l.integral(x, 4);
      s(0) -= q1(0);
      s(6) -= q2(0) / EA;
      s(1) += q1(1);
      s(5) += q2(1);
      s(11) += q3(1) / EIz;
      s(7) += q4(1) / EIz - q2(1) * shear_y;
      s(2) += q1(2);
      s(4) += q2(2);
      s(10) -= q3(2) / EIy;
      s(8) += q4(2) / EIy - q2(2) * shear_z;
      s(7) -= q2(2) * coupling;
      s(8) -= q2(1) * coupling;
      const Three m1 = l.moment_integral(x, 1), m2 = l.moment_integral(x, 2), m3 = l.moment_integral(x, 3);
      s(3) -= m1(0);
      s(9) -= m2(0) / GJ;
      s(4) += m1(1);
      s(10) -= m2(1) / EIy;
      s(8) += m3(1) / EIy;
      s(5) -= m1(2);
      s(11) -= m2(2) / EIz;
      s(7) -= m3(2) / EIz;
    }
    const Three& free = strain[load_case];
    s(6) += free(0) * x;
    s(11) += free(1) * x;
    s(7) += free(1) * x * x / 2;
    s(10) -= free(2) * x;
    s(8) += free(2) * x * x / 2;
    return s;
  }

  // Between the axes in which the member bends and its own: N, T and what goes along x stay; pairs across turn. Moments
  // My, Mz go with the planes x–z, x–y and turn as Vz, Vy; rotations as vectors.
  Eigen::Matrix<Real, 12, 12> to_own() const {
    const Turn t = own * bending.transpose();
    Eigen::Matrix<Real, 12, 12> m = Eigen::Matrix<Real, 12, 12>::Identity();
    const Real c = t(1, 1), n = t(1, 2);  // own y = c·y + n·z of the bending axes
    m(1, 1) = m(2, 2) = m(4, 4) = m(5, 5) = c;
    m(1, 2) = n, m(2, 1) = -n;
    m(5, 4) = n, m(4, 5) = -n;
    m.block<3, 3>(6, 6) = t;
    m.block<3, 3>(9, 9) = t;
    return m;
  }
};

Rod rod_of(const Structure& s, const Member& m) {
  const Material& material = s.material_of(m);
  const Section& section = s.section_of(m);
  const SectionProperties& p = section.properties();
  const Real E = material.E.si(), G = material.shear_modulus().si();
  Rod r;
  r.length = (three(s.axis_end(m)) - three(s.axis_start(m))).norm();
  r.own = r.bending = own_axes(s, m);
  const bool askew = !s.is_plane() && p.Iyz.si() != 0;
  if (askew) {
    const Real c = std::cos(static_cast<Real>(p.principal.si())), n = std::sin(static_cast<Real>(p.principal.si()));
    r.bending.row(1) = r.own.row(1) * c + r.own.row(2) * n;
    r.bending.row(2) = r.own.row(2) * c - r.own.row(1) * n;
  }
  r.EA = E * section.area().si();
  r.EIz = E * (askew ? p.I1 : p.Iz).si();
  r.EIy = E * (askew ? p.I2 : p.Iy).si();
  r.GJ = G * p.J.si();
  if (s.analysis().shear) {
    r.shear_y = 1 / (G * (askew ? p.A1 : p.Ay).si());
    r.shear_z = 1 / (G * (askew ? p.A2 : p.Az).si());
    if (askew && p.A12.si() != 0) r.coupling = 1 / (G * p.A12.si());
  }
  r.loads.resize(s.load_cases().size());
  r.strain.assign(s.load_cases().size(), Three::Zero());
  return r;
}

class LoadReader {
 public:
  LoadReader(const Structure& s, std::vector<Rod>& rods, std::size_t load_case, std::vector<Column>& on_point)
      : s_(s), rods_(rods), case_(load_case), on_point_(on_point) {}

  void operator()(const PointLoad& l) {
    push(l.at, l.force, l.moment);
    // The moment of its lever goes to the only beam at the point.
    std::vector<std::size_t> beams;
    for (std::size_t i = 0; i < rods_.size(); ++i)
      for (const PointId p : s_.members()[i].through)
        if (p == l.at && s_.members()[i].kind == MemberKind::beam) beams.push_back(i);
    if (beams.size() != 1) return;
    const Three moment = rods_[beams[0]].bending.transpose() *
                         lever(MemberId(beams[0]), bending(MemberId(beams[0]), l.force, LoadAxes::global), l.through);
    push(l.at, {}, {static_cast<double>(moment(0)), static_cast<double>(moment(1)), static_cast<double>(moment(2))});
  }
  void operator()(const MemberLoad& l) {
    Acting a;
    a.from = a.to = l.at;
    a.force = bending(l.on, l.force, l.axes);
    a.moment = bending(l.on, l.moment, l.axes) + lever(l.on, a.force, l.through);
    rods_[l.on.index].loads[case_].push_back(a);
  }
  void operator()(const LineLoad& l) {
    const Rod& r = rods_[l.on.index];
    Real share = 1;
    if (l.per == Per::plan) {
      const Three x = r.own.row(0).transpose();
      share = std::sqrt(std::max<Real>(0, 1 - std::pow(x.dot(three(s_.up_direction())), 2)));
    }
    line(l.on, l.from, l.to.value_or(static_cast<double>(r.length)), bending(l.on, l.first, l.axes) * share,
         bending(l.on, l.last, l.axes) * share, l.through);
  }
  void operator()(const SpreadLoad& l) {
    Real total = 0;
    for (const MemberId m : l.on) total += rods_[m.index].length;
    for (const MemberId m : l.on) {
      const Three q = bending(m, l.force, l.axes) / total;
      line(m, 0, rods_[m.index].length, q, q, l.through);
    }
  }
  void operator()(const GravityLoad& l) {
    for (std::size_t i = 0; i < rods_.size(); ++i) {
      const Member& m = s_.members()[i];
      const Real mass = static_cast<Real>(s_.section_of(m).area().si()) * s_.material_of(m).density->si();
      const Three q = bending(MemberId(i), l.acceleration, LoadAxes::global) * mass;
      line(MemberId(i), 0, rods_[i].length, q, q, l.through);
    }
    for (const PointMass& m : s_.point_masses()) push(m.at, l.acceleration * m.mass, {});
  }
  void operator()(const TemperatureLoad& l) {
    const Member& m = s_[l.on];
    const AreaProperties& p = s_.section_of(m).area_properties();
    const Real expansion = s_.material_of(m).expansion.si();
    if (l.across == TemperatureLoad::Across::nothing) return strain(l.on, {expansion * l.plus, 0, 0});
    const bool y = l.across == TemperatureLoad::Across::y;
    const Real height = (y ? p.height : p.width).si(), below = (y ? p.centroid_y : p.centroid_z).si();
    const Real rise = (static_cast<Real>(l.plus) - l.minus) / height;
    const Real curve = -expansion * rise;
    strain(l.on, {expansion * (l.minus + rise * below), y ? curve : 0, y ? 0 : curve});
  }
  void operator()(const LackOfFitLoad& l) { strain(l.on, {-l.by / rods_[l.on.index].length, 0, 0}); }
  void operator()(const SettlementLoad&) {}

 private:
  void push(PointId at, const Vector& force, const Vector& moment) {
    on_point_[case_].segment<3>(6 * static_cast<Eigen::Index>(at.index)) += three(force);
    on_point_[case_].segment<3>(6 * static_cast<Eigen::Index>(at.index) + 3) += three(moment);
  }
  Three bending(MemberId on, const Vector& v, LoadAxes axes) const {
    const Rod& r = rods_[on.index];
    const Three global = axes == LoadAxes::member ? Three(r.own.transpose() * three(v)) : three(v);
    return r.bending * global;
  }
  // The moment of a force about the axis on which it only bends: across about the shear centre, along about the
  // centroid.
  Three lever(MemberId on, const Three& force, const std::optional<Through>& through) const {
    const Through& t = through ? *through : s_.analysis().through;
    const Member& m = s_[on];
    if (t.place == Through::Place::shear_centre || m.kind == MemberKind::link) return Three::Zero();
    const Rod& r = rods_[on.index];
    const SectionProperties& p = s_.section_of(m).properties();
    const Three f = r.own * (r.bending.transpose() * force);
    Three at = Three::Zero(), from_shear_centre(0, -p.shear_centre_y.si(), -p.shear_centre_z.si());
    if (t.place == Through::Place::at) at = Three(0, t.y.si(), t.z.si());
    from_shear_centre += at;
    Three global = r.own.transpose() * (from_shear_centre.cross(Three(0, f(1), f(2))) + at.cross(Three(f(0), 0, 0)));
    if (s_.is_plane()) global = Three(0, 0, global(2));
    return r.bending * global;
  }
  void line(MemberId on, Real from, Real to, const Three& first, const Three& last,
            const std::optional<Through>& through) {
    Acting a;
    a.from = from, a.to = to;
    a.first = first, a.last = last;
    a.first_moment = lever(on, first, through), a.last_moment = lever(on, last, through);
    rods_[on.index].loads[case_].push_back(a);
  }
  void strain(MemberId on, const Three& own) {
    Rod& r = rods_[on.index];
    const Three curve = r.bending * r.own.transpose() * Three(0, own(1), own(2));
    r.strain[case_] += Three(own(0), curve(1), curve(2));
  }

  const Structure& s_;
  std::vector<Rod>& rods_;
  std::size_t case_;
  std::vector<Column>& on_point_;
};

std::vector<Rod> rods_of(const Structure& s, std::vector<Column>& on_point) {
  std::vector<Rod> rods;
  for (const Member& m : s.members()) rods.push_back(rod_of(s, m));
  const auto dofs = 6 * static_cast<Eigen::Index>(s.points().size());
  on_point.assign(s.load_cases().size(), Column::Zero(dofs));
  for (std::size_t c = 0; c < s.load_cases().size(); ++c)
    for (const Load& l : s.load_cases()[c].loads()) std::visit(LoadReader(s, rods, c, on_point), l);
  return rods;
}

// The directions that a support holds: six components each.
std::vector<Column> held_directions(const Structure& s, const PointSupport& support) {
  std::vector<Column> all;
  const auto add = [&](Column d) {
    // Square to those before; what they span already is no further equation.
    for (const Column& o : all) d -= o * o.dot(d);
    if (d.norm() > 1e-9L) all.push_back(d.normalized());
  };
  for (Eigen::Index k = 0; k < 6; ++k)
    if (support.held[static_cast<std::size_t>(k)] || (s.is_plane() && k >= 2 && k <= 4)) add(Column::Unit(6, k));
  for (const Vector& v : support.along) {
    Column d = Column::Zero(6);
    d.head<3>() = three(v).normalized();
    add(d);
  }
  return all;
}

// Whether the point turns with anything: else it has no rotation.
bool turns(const Structure& s, std::size_t point) {
  for (const PointSupport& p : s.supports())
    if (p.at.index == point)
      for (std::size_t k = 3; k < 6; ++k)
        if (p.spring[k] != 0) return true;
  for (const Member& m : s.members())
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      if (m.through[k].index != point) continue;
      if (m.kind == MemberKind::beam || !zero(k == 0 ? m.arm_start : m.arm_end)) return true;
    }
  return false;
}

// How the ground under a support moves in a case.
Column ground_of(const Structure& s, std::size_t load_case, const PointSupport& support) {
  Column g = Column::Zero(6);
  for (const Load& load : s.load_cases()[load_case].loads())
    if (const auto* l = std::get_if<SettlementLoad>(&load); l && l->at == support.at) {
      g.head<3>() += three(l->move);
      g.tail<3>() += three(l->turn);
    }
  return g;
}

Turn lever(const Three& arm) {
  Turn t;
  t << 0, arm(2), -arm(1), -arm(2), 0, arm(0), arm(1), -arm(0), 0;
  return t;
}

}  // namespace

class Dense {
 public:
  explicit Dense(const Structure& s) : s_(s), rods_(rods_of(s_, on_point_)) { solve(); }

  const Structure& structure() const { return s_; }
  Real unknown(std::size_t load_case, std::size_t i) const {
    return x_(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(load_case));
  }
  std::size_t first_held(std::size_t support) const { return held_[support]; }

  State state(std::size_t load_case, std::size_t i, Real x) const {
    Matrix loads;
    const Matrix rows = state_rows(i, x, loads);
    return rows * x_.col(static_cast<Eigen::Index>(load_case)) + loads.col(static_cast<Eigen::Index>(load_case));
  }

 private:
  void solve() {
    count();
    A_ = Matrix::Zero(size(), size());
    b_ = Matrix::Zero(size(), static_cast<Eigen::Index>(s_.load_cases().size()));
    for (std::size_t i = 0; i < rods_.size(); ++i) member_equations(i);
    point_equations();
    // Rows and columns brought to one size.
    Column columns = Column::Ones(size());
    for (int round = 0; round < 3; ++round) {
      for (Eigen::Index i = 0; i < size(); ++i) {
        const Real most = A_.row(i).cwiseAbs().maxCoeff();
        A_.row(i) /= most;
        b_.row(i) /= most;
      }
      for (Eigen::Index j = 0; j < size(); ++j) {
        const Real most = A_.col(j).cwiseAbs().maxCoeff();
        A_.col(j) /= most;
        columns(j) /= most;
      }
    }
    const Eigen::PartialPivLU<Matrix> lu(A_);
    x_ = lu.solve(b_);
    x_ += lu.solve(b_ - A_ * x_);
    x_ = columns.asDiagonal() * x_;
  }

  Eigen::Index size() const { return static_cast<Eigen::Index>(count_); }

  void count() {
    count_ = 6 * s_.points().size();
    for (const Member& m : s_.members()) {
      start_.push_back(count_);
      count_ += 12 + 6 * (m.through.size() - 2);
    }
    for (const PointSupport& p : s_.supports()) {
      held_.push_back(count_);
      count_ += held_directions(s_, p).size();
    }
    row_ = static_cast<Eigen::Index>(6 * s_.points().size());
  }

  Eigen::Index point(std::size_t p) const { return static_cast<Eigen::Index>(6 * p); }

  // The state at x in the member's own axes as rows over all unknowns, and what the loads bring.
  Matrix state_rows(std::size_t i, Real x, Matrix& loads) const {
    const Rod& r = rods_[i];
    const Member& m = s_.members()[i];
    Matrix rows = Matrix::Zero(12, size());
    rows.middleCols(start(i), 12) = r.to_own() * r.from_start(x);
    for (std::size_t k = 1; k + 1 < m.through.size(); ++k)
      rows.middleCols(inner(i, k), 6) = r.to_own() * r.from_place(x, place(i, k));
    loads = Matrix::Zero(12, b_.cols());
    for (Eigen::Index c = 0; c < b_.cols(); ++c)
      loads.col(c) = r.to_own() * r.from_loads(static_cast<std::size_t>(c), x);
    return rows;
  }
  Eigen::Index start(std::size_t i) const { return static_cast<Eigen::Index>(start_[i]); }
  Eigen::Index inner(std::size_t i, std::size_t k) const {
    return static_cast<Eigen::Index>(start_[i] + 12 + 6 * (k - 1));
  }
  // Points in between share the arms in the same measure as the way.
  Real share(std::size_t i, std::size_t k) const {
    const Member& m = s_.members()[i];
    const Three a = three(s_[m.through.front()].position), way = three(s_[m.through.back()].position) - a;
    return (three(s_[m.through[k]].position) - a).dot(way) / way.squaredNorm();
  }
  Real place(std::size_t i, std::size_t k) const {
    const std::size_t last = s_.members()[i].through.size() - 1;
    return k == last ? rods_[i].length : share(i, k) * rods_[i].length;
  }

  void member_equations(std::size_t i) {
    const Member& m = s_.members()[i];
    const std::size_t last = m.through.size() - 1;
    for (std::size_t k = 0; k <= last; ++k) {
      const bool end = k == 0 || k == last;
      const Three arm = three(m.arm_start) + (three(m.arm_end) - three(m.arm_start)) * share(i, k);
      std::array<bool, 6> freed{};
      if (k == 0) freed = m.freed_start;
      if (k == last) freed = m.freed_end;
      // A link passes no moment on; to turn about its own axis it needs one hold.
      if (m.kind == MemberKind::link) freed = {false, false, false, k == 0, true, true};
      Matrix loads;
      // At the very start nothing that acts there has happened yet: the state is the unknown itself.
      Matrix rows = state_rows(i, k == 0 ? Real(-1) : place(i, k), loads);
      if (k == 0) {
        rows.setZero();
        rows.middleCols(start(i), 12) = rods_[i].to_own();
        loads.setZero();
      }
      // How the end of the arm moves, in the member's own axes.
      Matrix moves = Matrix::Zero(6, size());
      const Turn& own = rods_[i].own;
      const Eigen::Index p = point(m.through[k].index);
      moves.block<3, 3>(0, p) = own;
      moves.block<3, 3>(0, p + 3) = own * lever(arm);
      moves.block<3, 3>(3, p + 3) = own;
      if (m.kind == MemberKind::link && zero(k == 0 ? m.arm_start : m.arm_end) && !turns(s_, m.through[k].index))
        moves.middleCols(p + 3, 3).setZero();
      for (int c = 0; c < 6; ++c) {
        const bool force = end && freed[static_cast<std::size_t>(c)];
        const int of_state = force ? c : 6 + c;
        A_.row(row_) = rows.row(of_state);
        if (!force) A_.row(row_) -= moves.row(c);
        b_.row(row_) = -loads.row(of_state);
        ++row_;
      }
      // What the point puts on the member here: the face at the start looks along −x.
      Matrix forces = Matrix::Zero(6, size()), known = Matrix::Zero(6, b_.cols());
      if (end) {
        static constexpr int sign[] = {1, -1, -1, 1, -1, 1};
        for (int c = 0; c < 6; ++c) {
          forces.row(c) = rows.row(c) * static_cast<Real>(k == 0 ? -sign[c] : sign[c]);
          known.row(c) = loads.row(c) * static_cast<Real>(k == 0 ? -sign[c] : sign[c]);
        }
      } else {
        const Turn t = own * rods_[i].bending.transpose();
        forces.block<3, 3>(0, inner(i, k)) = t;
        forces.block<3, 3>(3, inner(i, k) + 3) = t;
      }
      Matrix on_point(6, size()), known_on_point(6, b_.cols());
      const Turn back = own.transpose();
      on_point << -back * forces.topRows(3), -back * forces.bottomRows(3) + lever(arm) * back * forces.topRows(3);
      known_on_point << -back * known.topRows(3), -back * known.bottomRows(3) + lever(arm) * back * known.topRows(3);
      A_.middleRows(p, 6) += on_point;
      b_.middleRows(p, 6) -= known_on_point;
    }
  }

  void point_equations() {
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      for (Eigen::Index c = 0; c < b_.cols(); ++c)
        b_.col(c).segment(point(p), 6) -= on_point_[static_cast<std::size_t>(c)].segment(point(p), 6);
    for (std::size_t i = 0; i < s_.supports().size(); ++i) {
      const PointSupport& support = s_.supports()[i];
      const Eigen::Index p = point(support.at.index);
      const std::vector<Column> held = held_directions(s_, support);
      for (std::size_t h = 0; h < held.size(); ++h) {
        const auto unknown = static_cast<Eigen::Index>(held_[i] + h);
        A_.block(p, unknown, 6, 1) += held[h];
        A_.block(row_, p, 1, 6) = held[h].transpose();
        for (Eigen::Index c = 0; c < b_.cols(); ++c)
          b_(row_, c) = held[h].dot(ground(static_cast<std::size_t>(c), support));
        ++row_;
      }
      for (Eigen::Index k = 0; k < 6; ++k) {
        const Real stiffness = support.spring[static_cast<std::size_t>(k)];
        A_(p + k, p + k) -= stiffness;
        for (Eigen::Index c = 0; c < b_.cols(); ++c)
          b_(p + k, c) -= stiffness * ground(static_cast<std::size_t>(c), support)(k);
      }
    }
    // A plane structure stays in its plane; what is not held has no equation there, and what does not turn no rotation.
    for (std::size_t p = 0; p < s_.points().size(); ++p) {
      const bool turning = turns(s_, p);
      bool supported = false;
      for (const PointSupport& support : s_.supports()) supported |= support.at.index == p;
      for (Eigen::Index k = 0; k < 6; ++k) {
        const bool out_of_plane = s_.is_plane() && k >= 2 && k <= 4;
        if ((out_of_plane && !supported) || (k >= 3 && !turning && !out_of_plane)) {
          A_.row(point(p) + k).setZero();
          b_.row(point(p) + k).setZero();
          A_(point(p) + k, point(p) + k) = 1;
        }
      }
    }
  }

  Column ground(std::size_t load_case, const PointSupport& support) const { return ground_of(s_, load_case, support); }

  const Structure s_;
  std::vector<Column> on_point_;
  std::vector<Rod> rods_;
  std::size_t count_ = 0;
  std::vector<std::size_t> start_, held_;  // the first unknown of each member, of each support
  Matrix A_, b_, x_;
  Eigen::Index row_ = 0;
};

DenseSolution::DenseSolution(const Structure& structure) : dense_(std::make_shared<const Dense>(structure)) {}

std::array<double, 6> DenseSolution::displacement(std::size_t load_case, PointId point) const {
  std::array<double, 6> d{};
  for (std::size_t k = 0; k < 6; ++k) d[k] = static_cast<double>(dense_->unknown(load_case, 6 * point.index + k));
  return d;
}

std::array<double, 6> DenseSolution::reaction(std::size_t load_case, std::size_t support) const {
  const Structure& s = dense_->structure();
  const PointSupport& p = s.supports()[support];
  const std::vector<Column> held = held_directions(s, p);
  Column r = Column::Zero(6);
  for (std::size_t h = 0; h < held.size(); ++h)
    r += held[h] * dense_->unknown(load_case, dense_->first_held(support) + h);
  const Column ground = ground_of(s, load_case, p);
  std::array<double, 6> six{};
  for (std::size_t k = 0; k < 6; ++k) {
    const auto i = static_cast<Eigen::Index>(k);
    six[k] = static_cast<double>(r(i) + p.spring[k] * (ground(i) - dense_->unknown(load_case, 6 * p.at.index + k)));
  }
  return six;
}

std::array<double, 9> DenseSolution::at(std::size_t load_case, MemberId member, double place) const {
  const State s = dense_->state(load_case, member.index, place);
  std::array<double, 9> nine{};
  for (std::size_t k = 0; k < 9; ++k) nine[k] = static_cast<double>(s(static_cast<Eigen::Index>(k)));
  return nine;
}

}  // namespace corvex::test
