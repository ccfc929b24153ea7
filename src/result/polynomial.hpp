// Real polynomials of small degree on an interval: products, and all their real roots.
#pragma once

#include <array>
#include <cstddef>
#include <span>
#include <vector>

namespace corvex::result {

// Coefficients of rising powers. Of fixed room, since thousands are made for every structure: the largest
// here is the condition for the worst stress on a round rim, a product of four polynomials of degree five.
class Coefficients {
 public:
  static constexpr std::size_t room = 24;

  Coefficients() = default;
  explicit Coefficients(std::size_t size) : size_(size) {}
  explicit Coefficients(std::span<const double> c) : size_(c.size()) {
    for (std::size_t i = 0; i < size_; ++i) c_[i] = c[i];
  }

  std::size_t size() const { return size_; }
  double& operator[](std::size_t i) { return c_[i]; }
  double operator[](std::size_t i) const { return c_[i]; }
  double* begin() { return c_.data(); }
  double* end() { return c_.data() + size_; }
  const double* begin() const { return c_.data(); }
  const double* end() const { return c_.data() + size_; }
  // Without what vanishes at its end.
  void drop_last() { c_[--size_] = 0; }

 private:
  std::array<double, room> c_{};
  std::size_t size_ = 0;
};

double value(std::span<const double> c, double x);
Coefficients derivative(std::span<const double> c);
Coefficients product(std::span<const double> a, std::span<const double> b);
Coefficients sum(std::span<const double> a, std::span<const double> b, double factor_b = 1);

// Where the polynomial changes its sign inside (0, end), ascending. Between the roots of its derivative a
// polynomial is monotone: each such interval with a change of sign is closed in on to the last digits.
std::vector<double> sign_changes(std::span<const double> c, double end);

}  // namespace corvex::result
