#include "beam/bent_span.hpp"

#include <Eigen/LU>
#include <algorithm>
#include <cmath>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "beam/quintic.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;

// An interval turns by one radian at most: so many terms reach the last digit, 1/26! being 2e-27.
constexpr int terms = 26;
// Without an axial force d is of the fifth degree.
constexpr int terms_without = 6;

// Forces that belong to d and s are T and −M at the start, −T and M at the end.
const Eigen::Vector4d at_start(1, 1, -1, -1), at_end(-1, -1, 1, 1);

// The inverse of a symmetric matrix, with the number of its negative eigenvalues. Where it resists nothing the inverse
// is none either.
Eigen::MatrixXd symmetric_inverse(const Eigen::MatrixXd& m, int& negative) {
  const Index n = m.rows();
  if (n == 0) return m;
  Eigen::VectorXd scale = m.diagonal().cwiseAbs();
  for (Index i = 0; i < n; ++i) scale(i) = scale(i) > 0 ? 1 / std::sqrt(scale(i)) : 0;
  const Eigen::MatrixXd scaled = scale.asDiagonal() * m * scale.asDiagonal();
  const Eigensystem eigen = symmetric_eigensystem((scaled + scaled.transpose()) / 2);
  constexpr double nothing = 1e-14;
  Eigen::VectorXd reciprocal = eigen.values;
  for (Index i = 0; i < n; ++i) {
    if (reciprocal(i) < -nothing) ++negative;
    reciprocal(i) = std::abs(reciprocal(i)) > nothing ? 1 / reciprocal(i) : 0;
  }
  const Eigen::MatrixXd& v = eigen.vectors;
  return scale.asDiagonal() * times_transposed(v * reciprocal.asDiagonal(), v) * scale.asDiagonal();
}

// d and s of an end among the twelve movements; θy counts against the slope in the x–z plane.
constexpr int entry[] = {1, 2, 5, 4};
constexpr double sense[] = {1, 1, 1, -1};

template <class Eight>
Vector12 as_twelve(const Eight& v) {
  Vector12 all = Vector12::Zero();
  for (int end = 0; end < 2; ++end)
    for (int k = 0; k < 4; ++k) all(6 * end + entry[k]) = sense[k] * v(4 * end + k);
  return all;
}

double sum_at(const std::array<double, terms + 1>& c, int count, double t) {
  double v = 0;
  for (int k = count - 1; k >= 0; --k) v = v * t + c[static_cast<std::size_t>(k)];
  return v;
}

// A power series of `count` terms in t, from t0 to t1 over a length. One that ends with the fifth power is kept as it
// is.
Polynomial fifth_degree(const Quintic& quintic, const std::array<double, terms + 1>& c, int count, double t0, double t1,
                        double length) {
  if (count <= terms_without && t0 == 0 && t1 == 1) {
    Polynomial p;
    double power = 1;
    for (std::size_t k = 0; k < static_cast<std::size_t>(count); ++k, power *= length) p.c[k] = c[k] / power;
    return p;
  }
  std::array<double, 6> value{};
  for (std::size_t i = 0; i < 6; ++i) value[i] = sum_at(c, count, t0 + (t1 - t0) * quintic.place(i));
  return quintic(value, length);
}

}  // namespace

BentSpan::BentSpan(const Rigidity& r, const Span& span, double turn, const AxialCourse& axial,
                   std::span<const LoadPiece> loads, const InitialSlope& initial)
    : r_(r), length_(span.length) {
  cut_into_intervals(axial, loads, initial);
  join();
  release(span, turn);
  // A turn of the chord as a whole deforms nothing, but turns the axial force.
  Eigen::Matrix<double, 8, 12> bends = Eigen::Matrix<double, 8, 12>::Zero();
  Eigen::Matrix<double, 2, 12> chord = Eigen::Matrix<double, 2, 12>::Zero();
  for (int plane = 0; plane < 2; ++plane) {
    chord(plane, 1 + plane) = -1 / length_;
    chord(plane, 7 + plane) = 1 / length_;
    for (int end = 0; end < 2; ++end) {
      bends.row(4 * end + 2 + plane) = -chord.row(plane);
      bends(4 * end + 2 + plane, 6 * end + entry[2 + plane]) += sense[2 + plane];
    }
  }
  const Eigen::Matrix<double, 8, 12> eight =
      times(released_.stiffness, bends) + times(released_.given.rightCols<2>(), chord);
  for (int j = 0; j < 12; ++j) stiffness_.col(j) = as_twelve(eight.col(j));
  stiffness_ = ((stiffness_ + stiffness_.transpose()) / 2).eval();
}

void BentSpan::cut_into_intervals(const AxialCourse& axial, std::span<const LoadPiece> loads,
                                  const InitialSlope& initial) {
  const LoadPiece nothing{
      .from = 0, .to = length_, .jump_force = {}, .jump_moment = {}, .q0 = {}, .slope = {}, .m0 = {}, .m_slope = {}};
  if (loads.empty()) loads = {&nothing, 1};
  const double EI = std::min(r_.EIy, r_.EIz);
  for (std::size_t i = 0; i < loads.size(); ++i) {
    const LoadPiece& l = loads[i];
    if (!(l.to > l.from)) {
      end_jump_ << l.jump_force.y, l.jump_force.z, -l.jump_moment.z, l.jump_moment.y;
      continue;
    }
    const AxialCourse::Piece& n = axial.pieces[std::min(i, axial.pieces.size() - 1)];
    double most = 0, GA = std::numeric_limits<double>::infinity();
    for (const double x : {l.from, (l.from + l.to) / 2, l.to}) most = std::max(most, std::abs(n.at(x)));
    if (r_.GAy > 0) GA = std::min(r_.GAy, r_.GAz);
    // Shear softens what the axial force turns.
    const double turning = std::sqrt(most / EI / std::max(1 - most / GA, 0.1));
    double turns = turning * (l.to - l.from);
    // Clamped at both ends a span buckles at ε = 2π: larger compression need not be followed.
    constexpr double surely_buckled = 13, most_turns = 1000;
    if (n.at((l.from + l.to) / 2) < 0 && turns > surely_buckled) turns = surely_buckled, ++negative_;
    if (turns > most_turns) turns = most_turns, follows_ = false;
    const auto parts = static_cast<int>(std::max(1.0, std::ceil(turns)));
    for (int k = 0; k < parts; ++k) {
      const double from = l.from + (l.to - l.from) * k / parts, to = l.from + (l.to - l.from) * (k + 1) / parts;
      intervals_.push_back(series(n, l, from, to, k == 0, initial));
      intervals_.back().turning = turning * (to - from);
    }
  }
}

BentSpan::Interval BentSpan::series(const AxialCourse::Piece& axial, const LoadPiece& load, double from, double to,
                                    bool jumps, const InitialSlope& initial) const {
  Interval in;
  in.from = from, in.length = to - from;
  const double h = in.length, along = from - load.from;
  const double n[3] = {axial.at(from), h * (axial.n[1] + 2 * axial.n[2] * from), h * h * axial.n[2]};
  in.straight_forward = n[0] == 0 && n[1] == 0 && n[2] == 0;
  const int count = in.straight_forward ? terms_without : terms;
  const Eigen::Vector2d C(1 / r_.EIz, 1 / r_.EIy);
  Eigen::Matrix2d F;
  F << (r_.GAy > 0 ? 1 / r_.GAy : 0), r_.coupling, r_.coupling, (r_.GAz > 0 ? 1 / r_.GAz : 0);
  const Eigen::Matrix2d softened = (Eigen::Matrix2d::Identity() + n[0] * F).inverse();
  const Columns none = Columns::Zero();
  in.d.assign(static_cast<std::size_t>(count) + 1, none);
  in.s = in.T = in.M = in.d;
  in.V.assign(static_cast<std::size_t>(count), none);
  // Units in which all that follows is of one size: h, 1, EI/h², EI/h.
  for (int plane = 0; plane < 2; ++plane) {
    const double EI = plane == 0 ? r_.EIz : r_.EIy;
    in.d[0](plane, plane) = h;
    in.s[0](plane, 2 + plane) = 1;
    in.T[0](plane, 4 + plane) = EI / (h * h);
    in.M[0](plane, 6 + plane) = EI / h;
  }
  if (jumps) {
    in.T[0].col(8) << load.jump_force.y, load.jump_force.z;
    in.M[0].col(8) << -load.jump_moment.z, load.jump_moment.y;
  }
  // Given functions along the interval, by powers of t.
  const Vector q = load.q0 + load.slope * along, m = load.m0 + load.m_slope * along;
  const Eigen::Vector2d q_at[] = {{q.y, q.z}, {h * load.slope.y, h * load.slope.z}};
  const Eigen::Vector2d m_at[] = {{-m.z, m.y}, {-h * load.m_slope.z, h * load.m_slope.y}};
  Columns slope_at[] = {none, none};
  slope_at[0].col(8) << initial.y_at + initial.y_growth * from, initial.z_at + initial.z_growth * from;
  slope_at[1].col(8) << initial.y_growth * h, initial.z_growth * h;
  slope_at[0](0, 9) = slope_at[0](1, 10) = 1;
  std::vector<Columns> turn;  // d'
  for (int k = 0; k < count; ++k) {
    const auto i = static_cast<std::size_t>(k);
    Columns pull = none, known = none;  // N (d' + d0') without what is sought, and N d' of it
    for (int j = 0; j < 3 && j <= k; ++j) {
      if (k - j < 2) pull += n[j] * slope_at[k - j];
      if (j > 0) known += n[j] * turn[i - static_cast<std::size_t>(j)];
    }
    turn.push_back(softened * (in.s[i] - F * (in.T[i] + pull + known)));
    in.V[i] = in.T[i] + pull + known + n[0] * turn[i];
    Columns moment = in.V[i], curve = C.asDiagonal() * in.M[i];
    if (k == 0) curve.col(8) += Eigen::Vector2d(load.free.curve_y, load.free.curve_z);
    if (k < 2) moment.col(8) += m_at[k];
    const double by = h / (k + 1);
    in.d[i + 1] = by * turn[i];
    in.M[i + 1] = by * moment;
    in.s[i + 1] = by * curve;
    if (k < 2) in.T[i + 1].col(8) = by * q_at[k];
  }
  return in;
}

BentSpan::Chain BentSpan::ends_of(Interval& in) const {
  Eigen::Matrix<double, 4, 11> place, force;
  place.setZero(), force.setZero();
  for (std::size_t k = in.d.size(); k-- > 0;) {
    place.topRows<2>() += in.d[k], place.bottomRows<2>() += in.s[k];
    force.topRows<2>() += in.T[k], force.bottomRows<2>() += in.M[k];
  }
  const double h = in.length;
  const Eigen::Vector4d place_unit(h, h, 1, 1), force_unit(r_.EIz / (h * h), r_.EIy / (h * h), r_.EIz / h, r_.EIy / h);
  place = place_unit.cwiseInverse().asDiagonal() * place;
  force = force_unit.cwiseInverse().asDiagonal() * force;
  const Matrix4 by_force = place.block<4, 4>(0, 4).inverse(), of_force = force.block<4, 4>(0, 4);
  // The forces at the start that bring the end to its place.
  in.start.block<4, 4>(0, 0) = -(by_force * Matrix4(place.block<4, 4>(0, 0)));
  in.start.block<4, 4>(0, 4) = by_force;
  in.start.rightCols<3>() = -(by_force * Matrix43(place.rightCols<3>()));
  Eigen::Matrix<double, 4, 11> end = of_force * in.start;
  end.block<4, 4>(0, 0) += force.block<4, 4>(0, 0);
  end.rightCols<3>() += force.rightCols<3>();
  Eigen::Matrix<double, 8, 11> all;
  all.topRows<4>() = at_start.asDiagonal() * (force_unit.asDiagonal() * in.start);
  all.bottomRows<4>() = at_end.asDiagonal() * (force_unit.asDiagonal() * end);
  Vector8 per_place;
  per_place << place_unit.cwiseInverse(), place_unit.cwiseInverse();
  Chain chain;
  chain.stiffness = all.leftCols<8>() * per_place.asDiagonal();
  chain.stiffness = ((chain.stiffness + chain.stiffness.transpose()) / 2).eval();
  chain.given = all.rightCols<3>();
  return chain;
}

// Interval after interval; the place between two of them is in equilibrium.
void BentSpan::join() {
  for (std::size_t i = 0; i < intervals_.size(); ++i) {
    const Chain next = ends_of(intervals_[i]);
    if (i == 0) {
      whole_ = next;
      continue;
    }
    const Matrix8 &k = whole_.stiffness, &n = next.stiffness;
    const Matrix4 meeting = k.bottomRightCorner<4, 4>() + n.topLeftCorner<4, 4>();
    const Matrix4 free = -symmetric_inverse(meeting, negative_);
    Between b;
    b.by_start = free * Matrix4(k.bottomLeftCorner<4, 4>());
    b.by_next = free * Matrix4(n.topRightCorner<4, 4>());
    b.by_given = free * Matrix43(whole_.given.bottomRows<4>() + next.given.topRows<4>());
    Chain joined;
    const Matrix4 beyond = k.topRightCorner<4, 4>(), behind = n.bottomLeftCorner<4, 4>();
    joined.stiffness.topLeftCorner<4, 4>() = k.topLeftCorner<4, 4>() + beyond * b.by_start;
    joined.stiffness.topRightCorner<4, 4>() = beyond * b.by_next;
    joined.stiffness.bottomLeftCorner<4, 4>() = joined.stiffness.topRightCorner<4, 4>().transpose();
    joined.stiffness.bottomRightCorner<4, 4>() = n.bottomRightCorner<4, 4>() + behind * b.by_next;
    joined.given.topRows<4>() = whole_.given.topRows<4>() + beyond * b.by_given;
    joined.given.bottomRows<4>() = next.given.bottomRows<4>() + behind * b.by_given;
    between_.push_back(b);
    whole_ = joined;
  }
  whole_.given.col(0).tail<4>() += at_end.asDiagonal() * end_jump_;
}

void BentSpan::release(const Span& span, double turn) {
  // The member's local y and z in its principal axes, as d and as s.
  const double c = std::cos(turn), s = std::sin(turn);
  const auto free = [&](int end, const Eigen::Vector4d& along) {
    directions_.conservativeResize(8, directions_.cols() + 1);
    directions_.rightCols<1>().setZero();
    directions_.col(directions_.cols() - 1).segment<4>(4 * end) = along;
  };
  directions_.resize(8, 0);
  for (int end = 0; end < 2; ++end) {
    const std::array<bool, 6>& freed = end == 0 ? span.freed_a : span.freed_b;
    if (freed[1]) free(end, {c, -s, 0, 0});
    if (freed[2]) free(end, {s, c, 0, 0});
    if (freed[4]) free(end, {0, 0, -s, -c});
    if (freed[5]) free(end, {0, 0, c, -s});
  }
  released_ = whole_;
  if (directions_.cols() == 0) return;
  const Eigen::MatrixXd pull = times(whole_.stiffness, directions_);
  jump_flexibility_ = symmetric_inverse(transposed_times(directions_, pull), negative_);
  const Eigen::MatrixXd jumps = times(pull, jump_flexibility_);
  released_.stiffness -= times_transposed(jumps, pull);
  released_.given -= times(jumps, transposed_times(directions_, whole_.given));
}

// The displacements relative to the chord.
BentSpan::Vector8 BentSpan::chord_free(const Vector12& bent) const {
  Vector8 v;
  v << 0, 0, bent(5), -bent(4), 0, 0, bent(11), -bent(10);
  return v;
}

BentSpan::Given BentSpan::given(const Vector12& m) const {
  return {1, (m(7) - m(1)) / length_, (m(8) - m(2)) / length_};
}

Vector12 BentSpan::forces(const Vector12& movement, const Vector12& bent) const {
  return as_twelve(Vector8(released_.stiffness * chord_free(bent) + released_.given * given(movement)));
}

BentSpan::Vector8 BentSpan::jumps(const Vector8& ends, const Given& g) const {
  if (directions_.cols() == 0) return Vector8::Zero();
  const Vector8 forces = whole_.stiffness * ends + whole_.given * g;
  return -times(directions_, times(jump_flexibility_, transposed_times(directions_, forces)));
}

Vector12 BentSpan::own_movement(const Vector12& movement, const Vector12& bent) const {
  return movement + as_twelve(jumps(chord_free(bent), given(movement)));
}

// Of all borders of intervals, both ends included.
std::vector<BentSpan::Vector4> BentSpan::places(const Vector8& ends, const Given& g) const {
  std::vector<Vector4> all(intervals_.size() + 1);
  all.front() = ends.head<4>();
  all.back() = ends.tail<4>();
  for (std::size_t i = between_.size(); i-- > 0;)
    all[i + 1] = between_[i].by_start * all.front() + between_[i].by_next * all[i + 2] + between_[i].by_given * g;
  return all;
}

std::vector<CoursePiece> BentSpan::course(const Vector12& movement, const Vector12& bent) const {
  static const Quintic quintic;
  // The sixth derivative of what a quintic leaves out goes with the sixth power of the turning along a piece, and where
  // loads act with its square at least.
  constexpr double turning_of_a_piece = 0.1;
  constexpr int least_pieces = 4;
  const Given g = given(movement);
  Vector8 ends = chord_free(bent);
  ends += jumps(ends, g);
  const std::vector<Vector4> at = places(ends, g);
  std::vector<CoursePiece> course;
  for (std::size_t i = 0; i < intervals_.size(); ++i) {
    const Interval& in = intervals_[i];
    const double h = in.length;
    const Eigen::Vector4d place_unit(h, h, 1, 1);
    Eigen::Matrix<double, 11, 1> amount;
    amount.head<4>() = at[i].cwiseQuotient(place_unit);
    amount.tail<3>() = g;
    Eigen::Matrix<double, 11, 1> both_ends;
    both_ends << amount.head<4>(), at[i + 1].cwiseQuotient(place_unit), g;
    amount.segment<4>(4) = in.start * both_ends;
    const int count = static_cast<int>(in.V.size());
    // By powers of t: d, s, M, V of both planes.
    std::array<std::array<double, terms + 1>, 8> c{};
    for (int k = 0; k <= count; ++k) {
      const auto n = static_cast<std::size_t>(k);
      const Eigen::Vector2d d = in.d[n] * amount, s = in.s[n] * amount, M = in.M[n] * amount;
      const Eigen::Vector2d V = k < count ? Eigen::Vector2d(in.V[n] * amount) : Eigen::Vector2d::Zero().eval();
      for (std::size_t p = 0; p < 2; ++p) {
        const auto row = static_cast<Index>(p);
        c[p][n] = d(row), c[2 + p][n] = s(row), c[4 + p][n] = M(row), c[6 + p][n] = V(row);
      }
    }
    for (std::size_t p = 0; p < 2; ++p) {
      const double turn = g(static_cast<Index>(1 + p));
      c[p][0] += movement(static_cast<Index>(1 + p)) + turn * in.from, c[p][1] += turn * h;
      c[2 + p][0] += turn;
    }
    const bool bends = std::any_of(c.begin() + 4, c.end(), [](const auto& all) {
      return std::any_of(all.begin(), all.end(), [](double v) { return v != 0; });
    });
    const int used = in.straight_forward ? terms_without : count + 1;
    const int parts = in.straight_forward || !bends
                          ? 1
                          : std::max(least_pieces, static_cast<int>(std::ceil(in.turning / turning_of_a_piece)));
    for (int k = 0; k < parts; ++k) {
      const double t0 = static_cast<double>(k) / parts, t1 = static_cast<double>(k + 1) / parts;
      CoursePiece piece;
      piece.from = in.from + h * t0, piece.to = k + 1 < parts ? in.from + h * t1 : in.from + h;
      const auto fit = [&](std::size_t row) {
        return fifth_degree(quintic, c[row], used, t0, t1, piece.to - piece.from);
      };
      piece.v = fit(0), piece.w = fit(1), piece.slope_y = fit(2), piece.slope_z = fit(3);
      piece.Mz = fit(4), piece.My = fit(5), piece.Vy = fit(6), piece.Vz = fit(7);
      course.push_back(piece);
    }
  }
  course.back().to = length_;
  return course;
}

}  // namespace corvex::solver
