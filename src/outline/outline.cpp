#include "outline/outline.hpp"

#include <cmath>

namespace corvex::section {

Complex Edge::at(double t) const {
  if (!is_arc()) return (from + to) / 2.0 + (to - from) * (t / 2);
  return centre + (from - centre) * std::polar(1.0, sweep * (t + 1) / 2);
}

Complex Edge::derivative(double t) const {
  if (!is_arc()) return (to - from) / 2.0;
  return Complex(0, sweep / 2) * (at(t) - centre);
}

Edge::Point Edge::point(double t) const {
  const Complex at = this->at(t), d = is_arc() ? Complex(0, sweep / 2) * (at - centre) : (to - from) / 2.0;
  const double speed = std::sqrt(std::norm(d));
  return {at, d / speed, speed};
}

Edge Edge::part(double ta, double tb) const {
  const Complex a = ta == -1 ? from : at(ta), b = tb == 1 ? to : at(tb);
  if (!is_arc()) return line(a, b);
  return {a, b, centre, sweep * (tb - ta) / 2};
}

void Region::move(Complex by) {
  for (Contour& c : contours)
    for (Edge& e : c) e.from += by, e.to += by, e.centre += by;
}

Contour rounded(const std::vector<Corner>& corners) {
  const std::size_t n = corners.size();
  // Where the arc of each corner begins and ends.
  std::vector<Complex> begin(n), end(n), centre(n);
  std::vector<double> sweep(n, 0.0);
  for (std::size_t i = 0; i < n; ++i) {
    const Corner& c = corners[i];
    begin[i] = end[i] = c.at;
    if (!(c.radius > 0)) continue;
    const Complex in = c.at - corners[(i + n - 1) % n].at, out = corners[(i + 1) % n].at - c.at;
    const Complex u = in / std::abs(in), v = out / std::abs(out);
    sweep[i] = std::arg(v / u);
    const double back = c.radius * std::tan(std::abs(sweep[i]) / 2);
    begin[i] = c.at - u * back;
    end[i] = c.at + v * back;
    centre[i] = begin[i] + u * Complex(0, sweep[i] > 0 ? c.radius : -c.radius);
  }
  Contour contour;
  for (std::size_t i = 0; i < n; ++i) {
    if (sweep[i] != 0) contour.push_back({begin[i], end[i], centre[i], sweep[i]});
    const Complex next = begin[(i + 1) % n];
    // Radii that use up a side leave no line between them.
    if (std::abs(next - end[i]) > 1e-9 * std::abs(corners[(i + 1) % n].at - corners[i].at))
      contour.push_back(Edge::line(end[i], next));
  }
  return contour;
}

double turn(const Edge& before, const Edge& after) {
  return std::arg(after.derivative(-1) / before.derivative(1));
}

}  // namespace corvex::section
