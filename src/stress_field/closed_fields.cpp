#include "stress_field/closed_fields.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "stress_field/thinned.hpp"

namespace corvex::section {
namespace {

using std::numbers::pi;
constexpr Complex i(0, 1);

// Twice round by a step, so that every place has neighbours on both sides.
std::vector<EdgeSample> circle(double radius, double R, double r, double J) {
  constexpr int steps = 120;
  std::vector<EdgeSample> samples;
  const double g = 3 * (R * R + r * r) / 8 + 3 * R * R * r * r / (8 * radius * radius) - radius * radius / 8;
  for (int k = -1; k <= steps + 1; ++k) {
    // Exact on the axes.
    const int quarter = k * 4 / steps;
    const bool on_axis = k * 4 % steps == 0;
    const double angle = 2 * pi * k / steps;
    const double c = on_axis ? (quarter % 2 ? 0 : (quarter % 4 ? -1 : 1)) : std::cos(angle);
    const double s = on_axis ? (quarter % 2 ? (quarter % 4 == 1 ? 1 : -1) : 0) : std::sin(angle);
    samples.push_back({Complex(radius * s, radius * c), Complex(c, -s), -s * g, c * g, radius / J});
  }
  return samples;
}

}  // namespace

StressField round_field(double R, double r, double J) {
  StressField field;
  field.add(circle(R, R, r, J), true);
  if (r > 0) field.add(circle(r, R, r, J), true);
  const auto inside = [&](double rho, int count) {
    // A square about the place that stays inside.
    const double reach = 0.7 * std::min(R - rho, r > 0 ? rho - r : R);
    for (int k = 0; k < count; ++k) {
      const Complex p = rho * std::polar(1.0, 2 * pi * k / count);
      InnerSample s{.at = p, .reach = Complex(1, 1) * reach, .up = {}, .right = {}, .twist = {}};
      const double lift = 3 * (R * R + r * r) / 8, bore = 3 * R * R * r * r / 8;
      // W′ of −i·lift·p + i·bore/p + i·p³/24, and of lift·p + bore/p + p³/24.
      const Complex p2 = p * p, b0 = r > 0 ? bore / p2 : 0, b1 = r > 0 ? bore / (p2 * p) : 0,
                    b2 = r > 0 ? bore / (p2 * p2) : 0;
      s.up[0] = -i * lift - i * b0 + i * p2 / 8.0;
      s.up[1] = 2.0 * i * b1 + i * p / 4.0;
      s.up[2] = -6.0 * i * b2 + i / 4.0;
      s.right[0] = lift - b0 + p2 / 8.0;
      s.right[1] = 2.0 * b1 + p / 4.0;
      s.right[2] = -6.0 * b2 + 0.25;
      field.add(s);
    }
  };
  if (r == 0) {
    inside(0, 1);
    inside(R / 3, 6);
    inside(2 * R / 3, 12);
  } else {
    const double wall = R - r;
    const int layers = wall > 0.3 * R ? 3 : 1;
    for (int k = 1; k <= layers; ++k) inside(r + wall * k / (layers + 1), 24);
  }
  field.finish(J);
  return field;
}

namespace {

// A rectangle that stands: a half its width, b half its height, b ≥ a. Fields in its local axes.
class Standing {
 public:
  Standing(double a, double b, double J) : a_(a), b_(b), J_(J) {}

  // On the side z = a, upwards.
  EdgeSample side(double y) const {
    double sum = 0;
    for (int n = 1; n < 4000; n += 2) {
      const double k = n * pi / (2 * a_), fall = std::exp(-k * (b_ - std::abs(y)));
      const double ratio = fall * (1 + std::exp(-2 * k * std::abs(y))) / (1 + std::exp(-2 * k * b_));
      sum += ratio / (static_cast<double>(n) * n);
      if (ratio < 1e-12) break;
    }
    const double torsion = std::abs(y) == b_ ? 0 : 2 * a_ - 16 * a_ / (pi * pi) * sum;
    return {{a_, y}, i, (b_ * b_ - y * y) / 2, 0, -torsion / J_};
  }
  // On the side y = b, to the left.
  EdgeSample top(double z) const {
    double sum = 0, sign = 1;
    for (int n = 1; n < 4000; n += 2, sign = -sign) {
      const double k = n * pi / (2 * a_);
      sum += sign * std::tanh(k * b_) * std::cos(k * z) / (static_cast<double>(n) * n);
    }
    const double torsion = std::abs(z) == a_ ? 0 : 16 * a_ / (pi * pi) * sum;
    return {{z, b_}, -1, 0, -(a_ * a_ - z * z) / 2, -torsion / J_};
  }
  InnerSample inside(Complex p, Complex reach) const {
    InnerSample s{.at = p, .reach = reach, .up = {}, .right = {}, .twist = {}};
    s.up[0] = -i * (b_ * b_ / 2);
    s.right[0] = a_ * a_ / 2;
    // ω′ = −i·p − i·H′, H = (32 a²/π³) Σ (−1)^m/n³ cos(k p)/cosh(k b)
    Complex h1 = 0, h2 = 0, h3 = 0;
    double sign = 1;
    for (int n = 1; n < 2000; n += 2, sign = -sign) {
      const double k = n * pi / (2 * a_), y = p.imag();
      const double scale = std::exp(k * (std::abs(y) - b_)) / (1 + std::exp(-2 * k * b_));  // over e^{k|y|}/cosh(kb)
      if (scale < 1e-13) break;
      const double e = std::exp(-2 * k * std::abs(y)), cosh = 1 + e, sinh = (y < 0 ? -1 : 1) * (1 - e);
      const double c = std::cos(k * p.real()), sn = std::sin(k * p.real());
      const Complex cosine(c * cosh, -sn * sinh), sine(sn * cosh, c * sinh);
      const double weight = 32 * a_ * a_ / (pi * pi * pi) * sign / (static_cast<double>(n) * n * n) * scale;
      h1 -= weight * k * sine;
      h2 -= weight * k * k * cosine;
      h3 += weight * k * k * k * sine;
    }
    s.twist[0] = -i * p - i * h1;
    s.twist[1] = -i - i * h2;
    s.twist[2] = -i * h3;
    return s;
  }

 private:
  double a_, b_, J_;
};

// From the standing rectangle to one that lies: a quarter turn, z to y.
EdgeSample turned(const EdgeSample& s) {
  return {i * s.at, i * s.tangent, s.right, -s.up, s.twist};
}
InnerSample turned(InnerSample s) {
  Complex factor = -i;
  s.at *= i;
  s.reach = {s.reach.imag(), s.reach.real()};
  for (int k = 0; k < 3; ++k, factor *= -i) {
    const Complex up = s.up[k];
    s.up[k] = s.right[k] * factor;
    s.right[k] = -up * factor;
    s.twist[k] *= factor;
  }
  return s;
}

EdgeSample opposite(const EdgeSample& s) {
  return {-s.at, -s.tangent, -s.up, -s.right, s.twist};
}

// Places of half a side, from its middle to its end: even, and closer near the end, where torsion falls to zero.
std::vector<double> places(double half, double across) {
  std::vector<double> x;
  for (int k = 0; k <= 40; ++k) x.push_back(half * k / 40);
  for (const double d : {8.0, 6.5,  5.5,  4.8,  4.2, 3.7,  3.2,  2.8,  2.5,  2.2,  2.0,   1.8,   1.6,  1.3,  1.05, 0.85,
                         0.7, 0.57, 0.46, 0.37, 0.3, 0.24, 0.19, 0.15, 0.11, 0.08, 0.055, 0.035, 0.02, 0.01, 0.004})
    if (d * across < half) x.push_back(half - d * across);
  std::sort(x.begin(), x.end());
  return x;
}

}  // namespace

StressField rectangle_field(double height, double width, double J) {
  const bool stands = height >= width;
  const double a = std::min(height, width) / 2, b = std::max(height, width) / 2;
  const Standing standing(a, b, J);
  StressField field;
  std::vector<EdgeSample> side, top;
  const std::vector<double> along = places(b, a), across = places(a, a);
  for (std::size_t k = along.size(); k-- > 1;) side.push_back(standing.side(-along[k]));
  for (const double y : along) side.push_back(standing.side(y));
  for (std::size_t k = across.size(); k-- > 1;) top.push_back(standing.top(across[k]));
  for (const double z : across) top.push_back(standing.top(-z));
  FieldScale scale;
  for (const auto* samples : {&side, &top})
    for (const EdgeSample& s : *samples) scale.include(s);
  for (const auto* samples : {&side, &top}) {
    std::vector<EdgeSample> kept = thinned(*samples, scale), other;
    for (EdgeSample& s : kept) {
      if (!stands) s = turned(s);
      other.push_back(opposite(s));
    }
    field.add(kept);
    field.add(other);
  }
  constexpr int rows = 4;
  std::vector<double> heights{0};
  for (int j = 1; j <= rows; ++j) heights.push_back(b * j / (rows + 1));
  for (const double from_end : {1.6, 1.0, 0.6, 0.3})
    if (b - from_end * a > heights.back()) heights.push_back(b - from_end * a);
  for (const double height : heights)
    for (const double y : {height, -height})
      for (int k = -rows; k <= rows; ++k) {
        if (y == 0 && std::signbit(y)) continue;
        // Far from the short sides the fields hardly change along the long ones.
        const double far = std::min(b / (rows + 1), b - height - a), own = std::min(a / (rows + 1), b - height);
        const InnerSample s = standing.inside({a * k / (rows + 1), y}, {a / (rows + 1), std::max(own, far)});
        field.add(stands ? s : turned(s));
      }
  field.finish(J);
  return field;
}

}  // namespace corvex::section
