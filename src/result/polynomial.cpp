#include "result/polynomial.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::result {

double value(std::span<const double> c, double x) {
  double v = 0;
  for (std::size_t i = c.size(); i-- > 0;) v = v * x + c[i];
  return v;
}

namespace {

// Zeros at the end do not count for the degree.
std::size_t length(std::span<const double> c) {
  std::size_t n = c.size();
  while (n > 0 && c[n - 1] == 0) --n;
  return n;
}

}  // namespace

Coefficients derivative(std::span<const double> c) {
  const std::size_t n = length(c);
  Coefficients d(n > 0 ? n - 1 : 0);
  for (std::size_t i = 1; i < n; ++i) d[i - 1] = c[i] * static_cast<double>(i);
  return d;
}

Coefficients product(std::span<const double> a, std::span<const double> b) {
  const std::size_t na = length(a), nb = length(b);
  if (na == 0 || nb == 0) return {};
  Coefficients r(na + nb - 1);
  for (std::size_t i = 0; i < na; ++i)
    for (std::size_t j = 0; j < nb; ++j) r[i + j] += a[i] * b[j];
  return r;
}

Coefficients sum(std::span<const double> a, std::span<const double> b, double factor_b) {
  Coefficients r(std::max(a.size(), b.size()));
  for (std::size_t i = 0; i < a.size(); ++i) r[i] = a[i];
  for (std::size_t i = 0; i < b.size(); ++i) r[i] += factor_b * b[i];
  return r;
}

namespace {

// f changes its sign between a and b and is monotone there: Newton's steps, halved where they leave the
// interval.
double close_in(std::span<const double> c, std::span<const double> slope, double a, double b) {
  const bool rising = value(c, a) < 0;
  double x = (a + b) / 2;
  for (int i = 0; i < 200; ++i) {
    const double f = value(c, x);
    if (f == 0) return x;
    ((f < 0) == rising ? a : b) = x;
    const double step = f / value(slope, x);
    double next = x - step;
    if (!(next > a && next < b)) next = (a + b) / 2;
    if (next == x || b - a <= 1e-16 * std::abs(b) || next == a || next == b) return next;
    x = next;
  }
  return x;
}

// On (0, 1), leading coefficient not negligible.
std::vector<double> unit_roots(Coefficients c) {
  double largest = 0;
  for (const double x : c) largest = std::max(largest, std::abs(x));
  while (c.size() > 0 && std::abs(c[c.size() - 1]) <= 1e-15 * largest) c.drop_last();
  if (c.size() < 2) return {};
  std::vector<double> roots;
  if (c.size() == 2) {
    const double x = -c[0] / c[1];
    if (x > 0 && x < 1) roots.push_back(x);
    return roots;
  }
  const Coefficients slope = derivative(c);
  std::vector<double> turn = unit_roots(slope);
  turn.push_back(1);
  double a = 0;
  for (const double b : turn) {
    const double fa = value(c, a), fb = value(c, b);
    if ((fa < 0 && fb > 0) || (fa > 0 && fb < 0)) {
      roots.push_back(close_in(c, slope, a, b));
    } else if (fb == 0 && b < 1) {
      roots.push_back(b);
    }
    a = b;
  }
  return roots;
}

}  // namespace

std::vector<double> sign_changes(std::span<const double> c, double end) {
  Coefficients scaled(c.first(length(c)));
  double power = 1;
  for (double& x : scaled) {
    x *= power;
    power *= end;
  }
  std::vector<double> roots = unit_roots(scaled);
  for (double& r : roots) r *= end;
  return roots;
}

}  // namespace corvex::result
