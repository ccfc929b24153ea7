// Real polynomials of small degree on an interval: products, and all their real roots.
#pragma once

#include <span>
#include <vector>

#include "solve/course.hpp"

namespace corvex::result {

using Coefficients = std::vector<double>;  // of rising powers

double value(std::span<const double> c, double x);
Coefficients derivative(std::span<const double> c);
Coefficients product(std::span<const double> a, std::span<const double> b);
Coefficients sum(std::span<const double> a, std::span<const double> b, double factor_b = 1);

// Where the polynomial changes its sign inside (0, end), ascending. Between the roots of its derivative a
// polynomial is monotone: each such interval with a change of sign is closed in on to the last digits.
std::vector<double> sign_changes(std::span<const double> c, double end);

}  // namespace corvex::result
