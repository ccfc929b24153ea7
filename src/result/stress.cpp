#include "result/stress.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "result/polynomial.hpp"

namespace corvex::result {
namespace {

using solver::CoursePiece;
using solver::Polynomial;

// The best of several lines or pieces: larger wins, then the smaller place, then who came first.
class BestStress {
 public:
  void offer(double at, double value, std::optional<Length> y, std::optional<Length> z) {
    const double equal = any_ ? 1e-11 * std::abs(best_.value) : 0;
    const bool larger = !any_ || value > best_.value + equal;
    const bool sooner = any_ && value >= best_.value - equal && at < best_.at - 1e-12;
    if (!larger && !sooner) return;
    any_ = true;
    best_ = {at, value};
    y_ = y;
    z_ = z;
  }
  bool could_beat(double bound) const { return !any_ || bound > best_.value; }
  StressExtreme take(double sign) const { return {Stress::si(sign * best_.value), Length::si(best_.at), y_, z_}; }

 private:
  bool any_ = false;
  Candidate best_;
  std::optional<Length> y_, z_;
};

Polynomial combine(std::initializer_list<std::pair<double, const Polynomial*>> terms) {
  Polynomial r;
  for (const auto& [factor, p] : terms)
    for (std::size_t i = 0; i < 6; ++i) r.c[i] += factor * p->c[i];
  return r;
}

// Between which values a polynomial stays on [0, h]: the least and the largest of its coefficients in Bernstein's form.
std::pair<double, double> range(const Polynomial& p, double h) {
  // binomial(i, k)/binomial(5, k)
  static constexpr double share[6][6] = {{1, 0, 0, 0, 0, 0},       {1, 0.2, 0, 0, 0, 0},       {1, 0.4, 0.1, 0, 0, 0},
                                         {1, 0.6, 0.3, 0.1, 0, 0}, {1, 0.8, 0.6, 0.4, 0.2, 0}, {1, 1, 1, 1, 1, 1}};
  double power[6], low = p.c[0], high = p.c[0];
  power[0] = p.c[0];
  double x = 1;
  for (std::size_t k = 1; k < 6; ++k) power[k] = p.c[k] * (x *= h);
  for (const auto& row : share) {
    double b = 0;
    for (std::size_t k = 0; k < 6; ++k) b += row[k] * power[k];
    low = std::min(low, b);
    high = std::max(high, b);
  }
  return {low, high};
}

// No more than this in size.
double bound(const Polynomial& p, double h) {
  const auto [low, high] = range(p, h);
  return std::max(high, -low);
}

// Unloaded: stresses are affine along the piece, so any stress measure that is convex is largest at an end.
bool unloaded(const CoursePiece& p) {
  return p.N.c[1] == 0 && p.N.c[2] == 0 && p.Vy.c[1] == 0 && p.Vy.c[2] == 0 && p.Vz.c[1] == 0 && p.Vz.c[2] == 0;
}

// Normal and shear stress around the rim at one place along the member; the angle counts from y towards z.
struct Rim {
  double n, a, b;  // sigma = n + a cos + b sin
  double t, c, d;  // tau = t + c cos + d sin
  double radius;

  double mises_squared(double angle) const {
    const double cs = std::cos(angle), sn = std::sin(angle);
    const double sigma = n + a * cs + b * sn, tau = t + c * cs + d * sn;
    return sigma * sigma + 3 * tau * tau;
  }

  // The angle of the worst von Mises stress: the square is a trigonometric polynomial of degree two, so its
  // best sample of 24 lies in the right valley; Newton's method finishes.
  double worst_angle() const {
    constexpr int samples = 24;
    double best = 0, angle = 0;
    for (int i = 0; i < samples; ++i) {
      const double phi = 2 * std::numbers::pi * i / samples;
      if (const double f = mises_squared(phi); f > best * (1 + 1e-12)) best = f, angle = phi;
    }
    for (int i = 0; i < 30; ++i) {
      const double cs = std::cos(angle), sn = std::sin(angle);
      const double s0 = n + a * cs + b * sn, s1 = -a * sn + b * cs, s2 = n - s0;
      const double t0 = t + c * cs + d * sn, t1 = -c * sn + d * cs, t2 = t - t0;
      const double first = s0 * s1 + 3 * t0 * t1, second = s1 * s1 + s0 * s2 + 3 * (t1 * t1 + t0 * t2);
      if (!(second < 0)) break;
      const double step = -first / second;
      if (std::abs(step) > 0.3) break;
      angle += step;
      if (std::abs(step) < 1e-14) break;
    }
    return mises_squared(angle) >= best ? angle : 0;
  }
};

}  // namespace

StressCourse::StressCourse(const Structure& structure, const Member& member, const Inner& inner) : inner_(inner) {
  const Section& section = structure.section_of(member);
  area_ = section.area().si();
  if (member.kind == MemberKind::link) {
    lines_.push_back({.n = 1 / area_, .y = Length(), .z = Length()});
    return;
  }
  const SectionProperties& p = section.properties();
  inertia_ = p.Iz.si();
  const StressMap& map = section.stress_map();
  switch (map.kind) {
    case StressMap::Kind::rim: rim_ = &map; break;
    case StressMap::Kind::points: add_points(map, p, structure.is_plane()); break;
    case StressMap::Kind::moduli: {
      const bool turned = std::abs(local_axes(structure, member).y.z) > 0.5;
      add_moduli(std::get<GivenProperties>(section.shape()), structure.is_plane(), turned);
      break;
    }
    case StressMap::Kind::unknown: shear_known_ = false; break;
  }
}

// Held in its plane a section bends as if its product of inertia were none; the plane's other half of the stress stays
// with what holds it.
void StressCourse::add_points(const StressMap& map, const SectionProperties& p, bool held) {
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = held ? 0 : p.Iyz.si(), D = Iy * Iz - Iyz * Iyz;
  for (const StressPoint& s : map.points)
    lines_.push_back({1 / area_, -(Iz * s.z - Iyz * s.y) / D, -(Iy * s.y - Iyz * s.z) / D, held ? s.held_vy : s.vy,
                      held ? s.held_vz : s.vz, s.t, Length::si(s.y), Length::si(s.z)});
}

void StressCourse::add_moduli(const GivenProperties& given, bool plane, bool turned) {
  shear_known_ = false;
  const bool need_y = !plane || turned, need_z = !plane || !turned;
  if ((need_y && !given.Wy) || (need_z && !given.Wz)) return;
  for (const double sy : {1.0, -1.0})
    for (const double sz : {1.0, -1.0})
      lines_.push_back(
          {.n = 1 / area_, .my = need_y ? sy / given.Wy->si() : 0, .mz = need_z ? sz / given.Wz->si() : 0});
}

// Ends first, of all lines: what they reach tells which lines need their roots found.
std::optional<StressExtreme> StressCourse::normal(double sign) const {
  if (rim_) return rim_normal(sign);
  if (lines_.empty()) return std::nullopt;
  BestStress best;
  const auto stress = [&](const Line& l, const CoursePiece& p) {
    return combine({{sign * l.n, &p.N}, {sign * l.my, &p.My}, {sign * l.mz, &p.Mz}});
  };
  for (const CoursePiece& p : inner_.pieces)
    for (const Line& l : lines_) {
      const Polynomial s = stress(l, p);
      best.offer(p.from, s(0), l.y, l.z);
      best.offer(p.to, s(p.to - p.from), l.y, l.z);
    }
  for (const CoursePiece& p : inner_.pieces) {
    if (unloaded(p)) continue;
    const double h = p.to - p.from;
    for (const Line& l : lines_) {
      const Polynomial s = stress(l, p);
      if (!best.could_beat(range(s, h).second)) continue;
      for (const double x : sign_changes(derivative(s.c), h)) best.offer(p.from + x, s(x), l.y, l.z);
    }
  }
  return best.take(sign);
}

std::optional<StressExtreme> StressCourse::von_mises() const {
  if (rim_) return rim_von_mises();
  if (lines_.empty() || !shear_known_) return std::nullopt;
  BestStress best;
  const auto parts = [](const Line& l, const CoursePiece& p) {
    return std::pair(combine({{l.n, &p.N}, {l.my, &p.My}, {l.mz, &p.Mz}}),
                     combine({{l.vy, &p.Vy}, {l.vz, &p.Vz}, {l.t, &p.T}}));
  };
  const auto mises = [](double sigma, double tau) { return std::sqrt(sigma * sigma + 3 * tau * tau); };
  for (const CoursePiece& p : inner_.pieces)
    for (const Line& l : lines_) {
      const auto [s, tau] = parts(l, p);
      const double h = p.to - p.from;
      best.offer(p.from, mises(s(0), tau(0)), l.y, l.z);
      best.offer(p.to, mises(s(h), tau(h)), l.y, l.z);
    }
  for (const CoursePiece& p : inner_.pieces) {
    if (unloaded(p)) continue;
    const double h = p.to - p.from;
    for (const Line& l : lines_) {
      const auto [s, tau] = parts(l, p);
      if (!best.could_beat(mises(bound(s, h), bound(tau, h)))) continue;
      const Coefficients square = sum(product(s.c, s.c), product(tau.c, tau.c), 3);
      for (const double x : sign_changes(derivative(square), h)) best.offer(p.from + x, mises(s(x), tau(x)), l.y, l.z);
    }
  }
  return best.take(1);
}

// N/A ± √(My² + Mz²)·r/I, exactly: where its derivative vanishes, 4 n'² Q = k² Q'² with Q = My² + Mz².
StressExtreme StressCourse::rim_normal(double sign) const {
  BestStress best;
  const double k = rim_->radius / inertia_;
  for (const CoursePiece& p : inner_.pieces) {
    const double h = p.to - p.from;
    const auto offer = [&](double x) {
      const double my = p.My(x), mz = p.Mz(x), m = std::hypot(my, mz);
      const double value = sign * p.N(x) / area_ + k * m;
      const double toward = m > inner_.moment_noise ? -sign * rim_->radius / m : 0;
      const Length y = Length::si(toward != 0 ? toward * mz : rim_->radius), z = Length::si(toward * my);
      best.offer(p.from + x, value, y, z);
    };
    offer(0);
    offer(h);
    if (unloaded(p)) continue;
    const Coefficients Q = sum(product(p.My.c, p.My.c), product(p.Mz.c, p.Mz.c));
    const Coefficients dQ = derivative(Q), dn = derivative(p.N.c);
    for (const double x : sign_changes(dQ, h)) offer(x);
    Coefficients condition = product(product(dn, dn), Q);
    for (double& c : condition) c *= 4 / (area_ * area_);
    condition = sum(condition, product(dQ, dQ), -k * k);
    for (const double x : sign_changes(condition, h)) offer(x);
  }
  return best.take(sign);
}

StressExtreme StressCourse::rim_von_mises() const {
  BestStress best;
  const double k = rim_->radius / inertia_;
  for (const CoursePiece& p : inner_.pieces) {
    const double h = p.to - p.from;
    const auto rim = [&](double x) {
      const double peak = rim_->shear_peak;
      return Rim{p.N(x) / area_,  -k * p.Mz(x),   -k * p.My(x), rim_->torsion_rim * p.T(x),
                 -peak * p.Vz(x), peak * p.Vy(x), rim_->radius};
    };
    const auto mises = [&](double x) {
      const Rim r = rim(x);
      return std::sqrt(r.mises_squared(r.worst_angle()));
    };
    const auto offer = [&](double x) {
      const Rim r = rim(x);
      const double angle = r.worst_angle();
      best.offer(p.from + x, std::sqrt(r.mises_squared(angle)), Length::si(r.radius * std::cos(angle)),
                 Length::si(r.radius * std::sin(angle)));
    };
    offer(0);
    offer(h);
    if (unloaded(p)) continue;
    // Not a polynomial: the best of 32 samples, then golden section between its neighbours.
    constexpr int samples = 32;
    int top = 0;
    double top_value = 0;
    for (int i = 0; i <= samples; ++i)
      if (const double v = mises(h * i / samples); v > top_value) top = i, top_value = v;
    double a = h * std::max(top - 1, 0) / samples, b = h * std::min(top + 1, samples) / samples;
    const double golden = (std::sqrt(5.0) - 1) / 2;
    for (int i = 0; i < 60 && b - a > 1e-9 * h; ++i) {
      const double left = b - golden * (b - a), right = a + golden * (b - a);
      (mises(left) > mises(right) ? b : a) = mises(left) > mises(right) ? right : left;
    }
    offer((a + b) / 2);
  }
  return best.take(1);
}

}  // namespace corvex::result
