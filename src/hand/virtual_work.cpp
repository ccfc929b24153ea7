#include "hand/virtual_work.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::hand {
namespace {

// The course from a place on, along a stretch.
Course shifted(const Course& c, double by) {
  return {at(c, by), c[1] + 2 * c[2] * by + 3 * c[3] * by * by, c[2] + 3 * c[3] * by, c[3]};
}

const Stretch& stretch_at(const PieceCourse& c, double x) {
  std::size_t i = 0;
  while (i + 1 < c.stretches.size() && x >= c.stretches[i].to - 1e-12 * c.stretches.back().to) ++i;
  return c.stretches[i];
}

// All six courses from `from` on, bending and shear about the principal axes.
std::array<Course, 6> courses(const Piece& p, const PieceCourse& c, double from) {
  const Stretch& s = stretch_at(c, from);
  std::array<Course, 6> f{};
  for (std::size_t i = 0; i < 6; ++i) f[i] = shifted(s.forces[i], from - s.from);
  if (p.turn == 0) return f;
  const double cosine = std::cos(p.turn), sine = std::sin(p.turn);
  for (const auto& [y, z] : {std::pair{Vy, Vz}, {Mz, My}})
    for (std::size_t i = 0; i < 4; ++i) {
      const double along = f[y][i] * cosine + f[z][i] * sine, beside = f[z][i] * cosine - f[y][i] * sine;
      f[y][i] = along, f[z][i] = beside;
    }
  return f;
}

std::size_t degree(const Course& c, double h, double size) {
  std::size_t d = 3;
  while (d > 0 && std::abs(c[d] * std::pow(h, static_cast<double>(d))) <= 1e-14 * size) --d;
  return d;
}

double largest(const Course& c, double h) {
  double most = 0;
  for (std::size_t i = 0; i < 4; ++i) most = std::max(most, std::abs(c[i]) * std::pow(h, static_cast<double>(i)));
  return most;
}

// Rounding error relative to the largest value is zero.
double tidy(double value, double size) {
  return std::abs(value) <= 1e-12 * size ? 0 : value;
}

class Summing {
 public:
  explicit Summing(std::vector<WorkTerm>& terms) : terms_(terms) {}

  // Integrand, and the part of the piece along which it is integrated.
  struct Part {
    WorkTerm::Kind kind;
    std::size_t piece;
    double from, to;
  };

  void product(const Part& part, const Course& a, const Course& b, double flexibility) {
    const auto& [kind, piece, from, to] = part;
    const double h = to - from, size_a = largest(a, h), size_b = largest(b, h);
    if (flexibility == 0 || size_a == 0 || size_b == 0) return;
    // Exact to degree three with three places, to degree five with five.
    const std::size_t n = degree(a, h, size_a) + degree(b, h, size_b) <= 3 ? 3 : 5;
    static constexpr double simpson[] = {1, 4, 1}, boole[] = {7, 32, 12, 32, 7};
    WorkTerm t{.kind = kind, .index = piece, .from = from, .to = to, .flexibility = flexibility};
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const double x = h * static_cast<double>(i) / static_cast<double>(n - 1);
      t.a.push_back(tidy(at(a, x), size_a)), t.b.push_back(tidy(at(b, x), size_b));
      sum += (n == 3 ? simpson : boole)[i] * t.a.back() * t.b.back();
    }
    t.value = h / (n == 3 ? 6 : 90) * sum * flexibility;
    terms_.push_back(std::move(t));
  }
  // A strain that is the same all along a stretch.
  void strained(const Part& part, double strain, const Course& b) {
    const auto& [kind, piece, from, to] = part;
    const double h = to - from;
    if (strain == 0 || largest(b, h) == 0) return;
    WorkTerm t{.kind = kind, .index = piece, .from = from, .to = to, .flexibility = 1};
    for (const double x : {0.0, h / 2, h}) t.a.push_back(strain), t.b.push_back(tidy(at(b, x), largest(b, h)));
    t.value = h / 6 * strain * (t.b[0] + 4 * t.b[1] + t.b[2]);
    terms_.push_back(std::move(t));
  }
  void single(WorkTerm::Kind kind, std::size_t hold, double a, double b, double flexibility, double sign) {
    if (a == 0 || b == 0) return;
    terms_.push_back({kind, hold, 0, 0, {a}, {b}, flexibility, sign * a * b * flexibility});
  }

 private:
  std::vector<WorkTerm>& terms_;
};

}  // namespace

std::vector<WorkTerm> virtual_work(const Skeleton& k, const State& real, const Acting& acting, const State& other) {
  std::vector<WorkTerm> terms;
  Summing sum(terms);
  using Kind = WorkTerm::Kind;
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    std::vector<double> breaks;
    for (const PieceCourse* c : {&real.course[i], &other.course[i]})
      for (const Stretch& s : c->stretches) breaks.push_back(s.from);
    breaks.push_back(p.length);
    std::sort(breaks.begin(), breaks.end());
    breaks.erase(
        std::unique(breaks.begin(), breaks.end(), [&](double a, double b) { return b - a <= 1e-9 * p.length; }),
        breaks.end());
    breaks.back() = p.length;
    for (std::size_t j = 0; j + 1 < breaks.size(); ++j) {
      const double from = breaks[j], to = breaks[j + 1];
      const auto a = courses(p, real.course[i], from), b = courses(p, other.course[i], from);
      const Flexibility& f = p.flexible;
      sum.product({Kind::axial, i, from, to}, a[N], b[N], f.EA);
      sum.product({Kind::bending_z, i, from, to}, a[Mz], b[Mz], f.EIz);
      sum.product({Kind::bending_y, i, from, to}, a[My], b[My], f.EIy);
      sum.product({Kind::shear_y, i, from, to}, a[Vy], b[Vy], f.GAy);
      sum.product({Kind::shear_z, i, from, to}, a[Vz], b[Vz], f.GAz);
      sum.product({Kind::torsion, i, from, to}, a[T], b[T], f.GJ);
      sum.product({Kind::coupled, i, from, to}, a[Vy], b[Vz], f.coupling);
      sum.product({Kind::coupled, i, from, to}, a[Vz], b[Vy], f.coupling);
      if (acting.strains.empty()) continue;
      const Strain& e = acting.strains[p.member];
      if (e.none()) continue;
      const auto own = courses({.turn = 0}, other.course[i], from);
      sum.strained({Kind::elongation, i, from, to}, e.along, own[N]);
      sum.strained({Kind::curvature_z, i, from, to}, e.curve_y, own[Mz]);
      sum.strained({Kind::curvature_y, i, from, to}, e.curve_z, own[My]);
    }
  }
  for (std::size_t i = 0; i < k.holds.size(); ++i) {
    const double stiffness = k.holds[i].stiffness;
    if (stiffness > 0) sum.single(Kind::spring, i, real.reaction[i], other.reaction[i], 1 / stiffness, 1);
    if (!acting.ground.empty()) sum.single(Kind::settlement, i, acting.ground[i], other.reaction[i], 1, -1);
  }
  return terms;
}

double sum(const std::vector<WorkTerm>& terms) {
  double s = 0;
  for (const WorkTerm& t : terms) s += t.value;
  return s;
}

}  // namespace corvex::hand
