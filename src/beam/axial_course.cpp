#include "beam/axial_course.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::solver {

bool AxialCourse::none() const {
  return std::all_of(pieces.begin(), pieces.end(),
                     [](const Piece& p) { return p.n[0] == 0 && p.n[1] == 0 && p.n[2] == 0; });
}

double AxialCourse::largest() const {
  double most = 0;
  for (const Piece& p : pieces)
    for (const double x : {p.from, (p.from + p.to) / 2, p.to}) most = std::max(most, std::abs(p.at(x)));
  return most;
}

double AxialCourse::largest_compression() const {
  double most = 0;
  for (const Piece& p : pieces)
    for (const double x : {p.from, (p.from + p.to) / 2, p.to}) most = std::max(most, -p.at(x));
  return most;
}

double AxialCourse::mean() const {
  double sum = 0, length = 0;
  for (const Piece& p : pieces) {
    // Simpson's rule is exact for a square.
    const double h = p.to - p.from;
    sum += h / 6 * (p.at(p.from) + 4 * p.at((p.from + p.to) / 2) + p.at(p.to));
    length += h;
  }
  return length > 0 ? sum / length : 0;
}

}  // namespace corvex::solver
