#include "stress_field/stress_field.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace corvex::section {

void StressField::add(const std::vector<EdgeSample>& samples, bool arc, Complex centre) {
  if (samples.empty()) return;
  chains_.push_back({edge_.size(), samples.size(), arc, centre});
  edge_.insert(edge_.end(), samples.begin(), samples.end());
}

void StressField::finish(double J) {
  J_ = J;
  chain_of_.resize(edge_.size());
  for (std::size_t c = 0; c < chains_.size(); ++c)
    std::fill_n(chain_of_.begin() + static_cast<std::ptrdiff_t>(chains_[c].first), chains_[c].count, c);
  for (const EdgeSample& s : edge_) {
    largest_up_ = std::max(largest_up_, std::abs(s.up));
    largest_right_ = std::max(largest_right_, std::abs(s.right));
    largest_twist_ = std::max(largest_twist_, std::abs(s.twist));
    furthest_y_ = std::max(furthest_y_, std::abs(s.at.imag()));
    furthest_z_ = std::max(furthest_z_, std::abs(s.at.real()));
  }
  for (const Chain& chain : chains_)
    for (std::size_t first = chain.first, end = chain.first + chain.count; first < end; first += most_in_run) {
      const std::size_t count = std::min(most_in_run, end - first);
      Block& block = blocks_.emplace_back();
      for (std::size_t k = 0; k < most_in_run; ++k) {
        const EdgeSample& s = edge_[first + std::min(k, count - 1)];
        block.y[k] = s.at.imag(), block.z[k] = s.at.real();
        block.up[k] = s.up, block.right[k] = s.right, block.twist[k] = s.twist;
      }
      const auto range = [](const Figure& v) {
        const auto [low, high] = std::minmax_element(v.begin(), v.end());
        return Around::between(*low, *high);
      };
      runs_.push_back(
          {first, count, range(block.y), range(block.z), range(block.up), range(block.right), range(block.twist)});
    }
  for (std::size_t first = 0; first < runs_.size(); first += runs_together) {
    RangeBlock& block = ranges_.emplace_back();
    for (std::size_t k = 0; k < runs_together; ++k) {
      const Run& r = runs_[std::min(first + k, runs_.size() - 1)];
      block.y[k] = r.y.middle, block.z[k] = r.z.middle, block.up[k] = r.up.middle, block.right[k] = r.right.middle;
      block.twist[k] = r.twist.middle;
      block.y_radius[k] = r.y.radius, block.z_radius[k] = r.z.radius, block.up_radius[k] = r.up.radius;
      block.right_radius[k] = r.right.radius, block.twist_radius[k] = r.twist.radius;
    }
  }
  if (!inside_ && !given_.empty()) inside_by([given = given_] { return given; });
}

void StressField::inside_by(InnerSource source) {
  inside_ = std::make_shared<WorkedInside>();
  inside_->source = std::move(source);
}

const StressField::Inside& StressField::inside() const {
  std::call_once(inside_->once, [&] {
    Inside& all = inside_->inside;
    all.samples = inside_->source();
    for (std::size_t i = 0; i < all.samples.size(); i += samples_together) {
      InnerBlock& block = all.blocks.emplace_back();
      for (std::size_t k = 0; k < samples_together; ++k) {
        const InnerSample& s = all.samples[std::min(i + k, all.samples.size() - 1)];
        const Unit u = unit(s, 0);
        const Sizes most = largest_within_reach(s);
        block.y[k] = s.at.imag(), block.z[k] = s.at.real();
        block.up_y[k] = u.up.imag(), block.up_z[k] = u.up.real();
        block.right_y[k] = u.right.imag(), block.right_z[k] = u.right.real();
        block.twist_y[k] = u.twist.imag(), block.twist_z[k] = u.twist.real();
        block.y_reach[k] = s.reach.imag(), block.z_reach[k] = s.reach.real();
        block.most_up[k] = most.up, block.most_right[k] = most.right, block.most_twist[k] = most.twist;
      }
    }
  });
  return inside_->inside;
}

// By the triangle inequality: the fields at the place of the sample, and how much each can change within its reach.
StressField::Sizes StressField::largest_within_reach(const InnerSample& s) const {
  const double reach = std::abs(s.reach);
  const auto change = [&](const Complex(&w)[3]) { return reach * (std::abs(w[1]) + reach * std::abs(w[2]) / 2); };
  const double y = std::abs(s.at.imag()) + s.reach.imag(), z = std::abs(s.at.real()) + s.reach.real();
  const Unit own = unit(s, 0);
  return {std::abs(own.up) + change(s.up) + s.reach.imag() * y,
          std::abs(own.right) + change(s.right) + s.reach.real() * z,
          std::abs(own.twist) + (change(s.twist) + reach) / J_};
}

namespace {

double square_of(const EdgeSample& s, const Actions& f) {
  const double sigma = s.normal(f), tau = s.shear(f);
  return sigma * sigma + 3 * tau * tau;
}

// The largest value of f between two parameters, by golden section until a hundred thousandth of the way is left, which
// leaves the value off by the square of that; `x` is where.
template <class F>
double largest_between(double a, double b, const F& f, double& x) {
  constexpr double golden = 0.6180339887498949;
  double left = b - golden * (b - a), right = a + golden * (b - a), f_left = f(left), f_right = f(right);
  for (int i = 0; i < 24; ++i) {
    if (f_left > f_right) {
      b = right, right = left, f_right = f_left;
      left = b - golden * (b - a), f_left = f(left);
    } else {
      a = left, left = right, f_left = f_right;
      right = a + golden * (b - a), f_right = f(right);
    }
  }
  x = (a + b) / 2;
  return f(x);
}

// Half the derivative of σ² + 3τ² along a straight line, on which σ is linear and τ a parabola: a cubic.
struct HalfSlope {
  double sigma, rise;         // σ = sigma + rise·s
  double tau, slope, second;  // τ = tau + slope·s + second·s²

  double normal(double s) const { return sigma + rise * s; }
  double shear(double s) const { return tau + s * (slope + s * second); }
  double square(double s) const { return normal(s) * normal(s) + 3 * shear(s) * shear(s); }
  double operator()(double s) const { return normal(s) * rise + 3 * shear(s) * (slope + 2 * s * second); }
  double derivative(double s) const {
    const double along = slope + 2 * s * second;
    return rise * rise + 3 * (along * along + 2 * second * shear(s));
  }
  // How often its coefficients in Bernstein's form on [0, end] change sign: at least as often as the cubic itself.
  int sign_changes(double end) const {
    const double s1 = sigma + rise * end, t1 = tau + slope * end / 2, t2 = tau + end * (slope + end * second);
    const double d1 = slope + 2 * second * end;
    const double c[] = {sigma * rise + 3 * tau * slope, ((2 * sigma + s1) * rise + 3 * (tau * d1 + 2 * t1 * slope)) / 3,
                        ((sigma + 2 * s1) * rise + 3 * (2 * t1 * d1 + t2 * slope)) / 3, s1 * rise + 3 * t2 * d1};
    int changes = 0;
    double last = 0;
    for (const double x : c) {
      if (x * last < 0) ++changes;
      if (x != 0) last = x;
    }
    return changes;
  }
  // The only zero on [0, end], by Newton's steps, and by halving where they leave it.
  double zero(double end) const {
    double low = 0, high = end, s = end / 2;
    const bool falls = (*this)(0) > 0;
    for (int i = 0; i < 60; ++i) {
      const double value = (*this)(s);
      ((value > 0) == falls ? low : high) = s;
      double next = s - value / derivative(s);
      if (!((next - low) * (next - high) < 0)) next = (low + high) / 2;
      const double step = std::abs(next - s);
      s = next;
      if (step <= 1e-9 * std::abs(end)) break;
    }
    return s;
  }
};

// Through three samples of one chain: shear by the parabola through their values, places on the line or the arc.
class Between {
 public:
  Between(const EdgeSample& a, const EdgeSample& b, const EdgeSample& c, const StressField::Chain& chain)
      : samples_{a, b, c}, arc_(chain.arc), centre_(chain.centre) {
    if (arc_) {
      parameter_[0] = std::arg((a.at - centre_) / (b.at - centre_));
      parameter_[2] = std::arg((c.at - centre_) / (b.at - centre_));
    } else {
      parameter_[0] = -std::abs(a.at - b.at);
      parameter_[2] = std::abs(c.at - b.at);
    }
  }
  double from() const { return parameter_[0]; }
  double to() const { return parameter_[2]; }
  // Where between two parameters on either side of the middle sample σ² + 3τ² is largest, and how large.
  std::pair<double, double> largest(const Actions& f, double from, double to) const {
    const HalfSlope along = half_slope(f);
    if (arc_) {
      const Complex off = samples_[1].at - centre_, slope(f.gz, f.gy);
      const double middle = f.n + f.gy * centre_.imag() + f.gz * centre_.real();
      const auto square = [&](double s) {
        const double normal = middle + (std::conj(slope) * (off * std::polar(1.0, s))).real(), shear = along.shear(s);
        return normal * normal + 3 * shear * shear;
      };
      double x = 0;
      const double most = largest_between(from, to, square, x);
      return {x, most};
    }
    std::pair<double, double> best{0, along.square(0)};
    for (const double end : {from, to}) {
      HalfSlope side = along;
      const std::size_t other = end < 0 ? 0 : 2;
      side.rise = (samples_[other].normal(f) - side.sigma) / parameter_[other];
      const auto square = [&](double s) { return side.square(s); };
      const int changes = side.sign_changes(end);
      const bool falls_at_end = end * side(end) < 0;
      // Monotonic, or a minimum between: largest at an end.
      double x = end, most = 0;
      if (changes > 1) {
        most = largest_between(std::min(end, 0.0), std::max(end, 0.0), square, x);
      } else {
        if (changes == 1 && falls_at_end) x = side.zero(end);
        most = square(x);
      }
      if (most > best.second) best = {x, most};
    }
    return best;
  }
  EdgeSample at(double s) const {
    double share[3];
    for (int i = 0; i < 3; ++i) {
      share[i] = 1;
      for (int k = 0; k < 3; ++k)
        if (k != i) share[i] *= (s - parameter_[k]) / (parameter_[i] - parameter_[k]);
    }
    EdgeSample e;
    for (int i = 0; i < 3; ++i) {
      e.up += share[i] * samples_[i].up;
      e.right += share[i] * samples_[i].right;
      e.twist += share[i] * samples_[i].twist;
    }
    const EdgeSample& b = samples_[1];
    if (arc_) {
      e.at = centre_ + (b.at - centre_) * std::polar(1.0, s);
    } else {
      const EdgeSample& other = s < 0 ? samples_[0] : samples_[2];
      const double whole = s < 0 ? parameter_[0] : parameter_[2];
      e.at = b.at + (other.at - b.at) * (s / whole);
    }
    return e;
  }

 private:
  HalfSlope half_slope(const Actions& f) const {
    const double tau[3] = {samples_[0].shear(f), samples_[1].shear(f), samples_[2].shear(f)};
    const double a = parameter_[0], c = parameter_[2];
    // Newton's form of the parabola through (a, τ0), (0, τ1), (c, τ2).
    const double first = (tau[1] - tau[0]) / -a, second = ((tau[2] - tau[1]) / c - first) / (c - a);
    return {samples_[1].normal(f), 0, tau[1], first - second * a, second};
  }

  EdgeSample samples_[3];
  bool arc_;
  Complex centre_;
  double parameter_[3] = {0, 0, 0};
};

}  // namespace

StressField::Place StressField::near_edge(std::size_t sample, const Actions& f) const {
  const EdgeSample& s = edge_[sample];
  const double own = square_of(s, f);
  Place place{std::sqrt(own), s.at.imag(), s.at.real(), s};
  const Chain& chain = chains_[chain_of_[sample]];
  if (chain.count < 3) return place;
  const std::size_t middle = std::clamp(sample, chain.first + 1, chain.first + chain.count - 2);
  const Between between(edge_[middle - 1], edge_[middle], edge_[middle + 1], chain);
  // A parabola through three places of which two are much nearer to each other would oscillate on the longer interval.
  constexpr double even = 1.5;
  const double back = std::abs(between.from()), forth = std::abs(between.to());
  const double from = between.from() * std::min(1.0, even * forth / back),
               to = between.to() * std::min(1.0, even * back / forth);
  const auto [x, square] = between.largest(f, from, to);
  // A sample that is as good is where an engineer looks: a corner, an axis.
  if (square > own * (1 + 1e-9)) {
    const EdgeSample e = between.at(x);
    place = {std::sqrt(square), e.at.imag(), e.at.real(), e};
  }
  return place;
}

// Without shear forces √(σ² + 3τ²) has no maximum inside: it is subharmonic, since σ is linear and each component of a
// torsion's τ is harmonic. Shear forces can lift the inside above the outline by about their own share.
bool StressField::inner_matters(const Actions& f, double best_square) const {
  const double shear = std::abs(f.a) * largest_up_ + std::abs(f.b) * largest_right_;
  return inside_ && 3 * shear * shear > 1e-4 * best_square;
}

Complex StressField::shear_at(const InnerSample& s, Complex off, const Actions& f) const {
  const Unit u = unit(s, off);
  return f.t * u.twist - f.a * u.up - f.b * u.right;
}

StressField::Unit StressField::unit(const InnerSample& s, Complex off) const {
  const auto gradient = [&](const Complex(&w)[3]) { return std::conj(w[0] + off * (w[1] + off * w[2] / 2.0)); };
  const Complex p = s.at + off;
  const double y = p.imag(), z = p.real();
  return {gradient(s.up) - Complex(0, y * y / 2), gradient(s.right) - z * z / 2,
          -(gradient(s.twist) + Complex(-y, z)) / J_};
}

EdgeSample StressField::along_shear(const InnerSample& s, Complex off, const Actions& f) const {
  const Unit u = unit(s, off);
  const Complex tau = f.t * u.twist - f.a * u.up - f.b * u.right;
  const Complex way = std::abs(tau) > 0 ? tau / std::abs(tau) : Complex(1);
  const auto along = [&](Complex v) { return (std::conj(way) * v).real(); };
  return {s.at + off, way, along(u.up), along(u.right), along(u.twist)};
}

namespace {

// The first and second derivatives of f = σ² + 3|τ|² along z and y, by the derivatives of σ and τ.
struct SecondOrder {
  double value, gz, gy, zz, zy, yy;
};

}  // namespace

// Newton's steps towards a maximum inside, where the function is dome-shaped about the sample.
void StressField::climb(const InnerSample& s, const Actions& f, Place& best) const {
  const Complex w1 = -f.a * s.up[1] - f.b * s.right[1] - f.t / J_ * s.twist[1];
  const Complex w2 = -f.a * s.up[2] - f.b * s.right[2] - f.t / J_ * s.twist[2];
  const auto shape = [&](Complex off) {
    const Complex p = s.at + off, tau = shear_at(s, off, f);
    const double y = p.imag(), z = p.real(), sigma = f.n + f.gy * y + f.gz * z;
    // d conj(W′)/dz = conj(W″), /dy = −i·conj(W″) … with the polynomial and the rotating parts.
    const Complex d = std::conj(w1 + off * w2), dd = std::conj(w2), i(0, 1);
    const Complex tau_z = d + f.b * z - f.t / J_ * i, tau_y = -i * d + f.a * i * y + f.t / J_;
    const Complex tau_zz = dd + f.b, tau_zy = -i * dd, tau_yy = -dd + f.a * i;
    const auto dot = [](Complex u, Complex v) { return u.real() * v.real() + u.imag() * v.imag(); };
    return SecondOrder{sigma * sigma + 3 * std::norm(tau),
                       2 * sigma * f.gz + 6 * dot(tau, tau_z),
                       2 * sigma * f.gy + 6 * dot(tau, tau_y),
                       2 * f.gz * f.gz + 6 * (std::norm(tau_z) + dot(tau, tau_zz)),
                       2 * f.gz * f.gy + 6 * (dot(tau_z, tau_y) + dot(tau, tau_zy)),
                       2 * f.gy * f.gy + 6 * (std::norm(tau_y) + dot(tau, tau_yy))};
  };
  Complex off = 0;
  const auto offer = [&](double square) {
    if (square > best.von_mises * best.von_mises * (1 + 1e-9))
      best = {std::sqrt(square), s.at.imag() + off.imag(), s.at.real() + off.real(), along_shear(s, off, f)};
  };
  for (int step = 0; step < 8; ++step) {
    const SecondOrder h = shape(off);
    offer(h.value);
    // No place within reach comes near what was found already.
    const double z = s.reach.real(), y = s.reach.imag();
    const double most = h.value + std::abs(h.gz) * z + std::abs(h.gy) * y + std::abs(h.zy) * z * y +
                        (std::max(h.zz, 0.0) * z * z + std::max(h.yy, 0.0) * y * y) / 2;
    if (step == 0 && most * 1.1 < best.von_mises * best.von_mises) return;
    // Along the axes of the second derivative, so that a ridge is climbed across only.
    const double angle = std::atan2(2 * h.zy, h.zz - h.yy) / 2, c = std::cos(angle), n = std::sin(angle);
    const double middle = (h.zz + h.yy) / 2, radius = std::hypot((h.zz - h.yy) / 2, h.zy);
    const double upper = middle + radius, lower = middle - radius;
    if (!(lower < 0) || upper > 1e-3 * -lower) return;
    Complex move = 0;
    for (const auto& [curve, z, y] : {std::tuple(upper, c, n), {lower, -n, c}})
      if (curve < 1e-6 * lower) move += Complex(z, y) * (-(h.gz * z + h.gy * y) / curve);
    off += move;
    const double beyond = std::max(std::abs(off.real()) / s.reach.real(), std::abs(off.imag()) / s.reach.imag());
    if (beyond > 1) {
      off /= beyond;
      break;
    }
    if (std::abs(move) < 1e-9 * std::abs(s.reach)) break;
  }
  offer(shape(off).value);
}

StressField::InnerBlock::Figures StressField::InnerBlock::here(const Actions& f) const {
  Figures square;
  for (std::size_t k = 0; k < samples_together; ++k) {
    const double sigma = f.n + f.gy * y[k] + f.gz * z[k];
    const double tau_y = f.t * twist_y[k] - f.a * up_y[k] - f.b * right_y[k];
    const double tau_z = f.t * twist_z[k] - f.a * up_z[k] - f.b * right_z[k];
    square[k] = sigma * sigma + 3 * (tau_y * tau_y + tau_z * tau_z);
  }
  return square;
}

StressField::InnerBlock::Figures StressField::InnerBlock::most(const Actions& f) const {
  const double gy = std::abs(f.gy), gz = std::abs(f.gz), a = std::abs(f.a), b = std::abs(f.b), t = std::abs(f.t);
  Figures square;
  for (std::size_t k = 0; k < samples_together; ++k) {
    const double sigma = f.n + f.gy * y[k] + f.gz * z[k];
    const double normal = std::abs(sigma) + gy * y_reach[k] + gz * z_reach[k];
    const double shear = t * most_twist[k] + a * most_up[k] + b * most_right[k];
    square[k] = normal * normal + 3 * shear * shear;
  }
  return square;
}

StressField::RangeBlock::Figures StressField::RangeBlock::most(const Actions& f) const {
  const double gy = std::abs(f.gy), gz = std::abs(f.gz), a = std::abs(f.a), b = std::abs(f.b), t = std::abs(f.t);
  Figures square;
  for (std::size_t k = 0; k < runs_together; ++k) {
    const double sigma = std::abs(f.n + f.gy * y[k] + f.gz * z[k]) + gy * y_radius[k] + gz * z_radius[k];
    const double tau = std::abs(f.t * twist[k] - f.a * up[k] - f.b * right[k]) + t * twist_radius[k] +
                       a * up_radius[k] + b * right_radius[k];
    square[k] = sigma * sigma + 3 * tau * tau;
  }
  return square;
}

// Of equal samples the first. The run that could have the largest stress is looked at first; then those that could
// still exceed what it has.
// The worst sample of the run with the largest bound shows which of the others must be examined.
StressField::Sampled StressField::worst_sample(const Actions& f) const {
  constexpr double rounding = 1e-12;
  // The bounds of so many runs are kept; those of further ones are worked out again.
  std::array<RangeBlock::Figures, 16> kept;
  double most = -1, square = -1;
  std::size_t likely = 0, best = 0;
  for (std::size_t i = 0; i < ranges_.size(); ++i) {
    const RangeBlock::Figures bounds = ranges_[i].most(f);
    if (i < kept.size()) kept[i] = bounds;
    for (std::size_t k = 0; k < runs_together; ++k)
      if (bounds[k] > most) most = bounds[k], likely = i * runs_together + k;
  }
  const auto look = [&](std::size_t run, double& value, std::size_t& place) {
    const Block& b = blocks_[run];
    Figure s;
    for (std::size_t k = 0; k < most_in_run; ++k) {
      const double sigma = f.n + f.gy * b.y[k] + f.gz * b.z[k];
      const double tau = f.t * b.twist[k] - f.a * b.up[k] - f.b * b.right[k];
      s[k] = sigma * sigma + 3 * tau * tau;
    }
    for (std::size_t k = 0; k < most_in_run; ++k)
      if (s[k] > value * (1 + rounding)) value = s[k], place = runs_[run].first + k;
  };
  double least = -1;
  std::size_t of_likely = 0;
  if (!runs_.empty()) look(likely, least, of_likely);
  for (std::size_t i = 0; i < ranges_.size(); ++i) {
    const RangeBlock::Figures bounds = i < kept.size() ? kept[i] : ranges_[i].most(f);
    for (std::size_t k = 0; k < runs_together && i * runs_together + k < runs_.size(); ++k) {
      const std::size_t run = i * runs_together + k;
      if (run != likely && bounds[k] >= least * (1 - rounding)) look(run, square, best);
      if (run == likely && least > square * (1 + rounding)) square = least, best = of_likely;
    }
  }
  return {best, std::sqrt(std::max(square, 0.0))};
}

// On the outline √(σ² + 3τ²) is convex in the fields, which lie within 0.05 % of the chords between samples. Inside,
// the normal stress is less than on the outline, and so is the shear stress of torsion; what shear forces bring is
// counted in full, with a margin for the inside of wide sections.
double StressField::with_inside(double outline, double a, double b, bool twisted) const {
  constexpr double inside = 1.6, beside = 1.001, margin = 1.3;
  const double shear = margin * (std::abs(a) * largest_up_ + std::abs(b) * largest_right_);
  if (!inside_) return beside * outline;
  const double both = twisted ? 2 * std::sqrt(3.0) * outline * shear : 0;
  return std::min(inside * outline, beside * std::sqrt(outline * outline + 3 * shear * shear + both));
}

double StressField::most(const Actions& f, const Sampled& sampled) const {
  return with_inside(sampled.von_mises, f.a, f.b, f.t != 0);
}

// The margin is that of with_inside.
double StressField::bound(const Actions& f) const {
  constexpr double margin = 1.3;
  const double sigma = std::abs(f.n) + std::abs(f.gy) * furthest_y_ + std::abs(f.gz) * furthest_z_;
  const double tau =
      margin * (std::abs(f.a) * largest_up_ + std::abs(f.b) * largest_right_) + std::abs(f.t) * largest_twist_;
  return std::sqrt(sigma * sigma + 3 * tau * tau);
}

double StressField::most(const ActionRanges& f) const {
  double square = 0;
  for (const Run& run : runs_) square = std::max(square, run.most(f));
  return with_inside(std::sqrt(square), f.a.largest(), f.b.largest(), f.t.largest() > 0);
}

StressField::Place StressField::worst(const Actions& f, const Sampled& sampled) const {
  if (edge_.empty()) return {};
  const double square = sampled.von_mises * sampled.von_mises;
  Place place = near_edge(sampled.sample, f);
  if (!inner_matters(f, square)) return place;
  // An expansion reaches far enough that a maximum next to it is seen at 70 % of its value or more.
  constexpr double seen = 0.7;
  const double enough = seen * seen * square;
  const Inside& all = inside();
  for (std::size_t i = 0; i < all.blocks.size(); ++i) {
    const InnerBlock::Figures most = all.blocks[i].most(f);
    if (*std::max_element(most.begin(), most.end()) <= place.von_mises * place.von_mises) continue;
    const InnerBlock::Figures here = all.blocks[i].here(f);
    for (std::size_t k = 0, first = i * samples_together; k < samples_together && first + k < all.samples.size(); ++k)
      if (here[k] > enough && most[k] > place.von_mises * place.von_mises) climb(all.samples[first + k], f, place);
  }
  return place;
}

}  // namespace corvex::section
