#include "stress_field/warping.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "outline/arcs.hpp"

namespace corvex::section {
namespace {

// How each function looks in a mirror: the twist's warping turns its sign, shear upwards only up and down.
constexpr Parity twist_parity{-1, -1}, up_parity{1, -1}, right_parity{-1, 1};

// The normal derivative of each on the outline.
double flow_twist(Complex at, Complex tangent) {
  return at.real() * tangent.real() + at.imag() * tangent.imag();
}
double flow_up(Complex at, Complex tangent) {
  return -at.imag() * at.imag() / 2 * tangent.real();
}
double flow_right(Complex at, Complex tangent) {
  return at.real() * at.real() / 2 * tangent.imag();
}

std::size_t edges(const Region& r) {
  std::size_t n = 0;
  for (const Contour& c : r.contours) n += c.size();
  return n;
}

// Drawn curves of many short lines need fewer nodes on each; but a thin open wall hides its torsion behind a polar
// moment that is thousands of times larger, and any error in the warping shows.
int order_for(const Region& region, const AreaMoments& m) {
  double perimeter = 0;
  for (const Contour& c : region.contours)
    for (const Edge& e : c) perimeter += e.length();
  const double wall = 2 * m.A / perimeter;
  const bool thin = !is_tube(region) && m.A * wall * wall / 3 < 1e-2 * (m.Iy + m.Iz);
  const std::size_t n = edges(region);
  // A tube's torsion is the area that it encloses, whatever its corners do.
  if (n <= 40) return 5;
  if (thin) return n <= 160 ? 5 : n <= 300 ? 4 : 3;
  return n <= 120 ? 3 : 2;
}

Potential potential_of(const Region& region, const AreaMoments& moments, double fineness) {
  return {region, fineness, order_for(region, moments) + (fineness > 2.5 ? 1 : 0)};
}

constexpr Potential::Wanted of_twist{flow_twist, twist_parity}, of_up{flow_up, up_parity},
    of_right{flow_right, right_parity};

double cube_of_height(const Node& n) {
  return n.at.imag() * n.at.imag() * n.at.imag() / 6;
}
double cube_of_width(const Node& n) {
  return n.at.real() * n.at.real() * n.at.real() / 6;
}

Values at_nodes(const Potential& potential, double (*f)(const Node&)) {
  Values v(static_cast<Eigen::Index>(potential.nodes().size()));
  for (Eigen::Index i = 0; i < v.size(); ++i) v(i) = f(potential.nodes()[static_cast<std::size_t>(i)]);
  return v;
}

// ∫|∇φ|² over the section, from φ + cube on the outline.
double energy(const Potential& potential, const Values& u, const Values& cube, const Values& q, double fourth_moment) {
  return potential.integral((u - cube).cwiseProduct(q)) - fourth_moment / 6;
}

}  // namespace

double shear_energy_up(const Region& drawn, double fineness) {
  const Region region = with_arcs(drawn);
  Potential potential = potential_of(region, area_moments(region), fineness);
  const std::vector<Values> up = potential.solve({of_up});
  return energy(potential, up[0], at_nodes(potential, cube_of_height), potential.at_nodes(of_up),
                fourth_moments(region).yyyy);
}

Warping::Warping(const Region& region, double fineness)
    : region_(with_arcs(region)),
      moments_(area_moments(region_)),
      potential_(potential_of(region_, moments_, fineness)) {
  q_twist_ = potential_.at_nodes(of_twist);
  const Values q_up = potential_.at_nodes(of_up), q_right = potential_.at_nodes(of_right);
  const Values cube_y = at_nodes(potential_, cube_of_height), cube_z = at_nodes(potential_, cube_of_width);
  std::vector<Potential::Wanted> wanted{of_twist, of_up, of_right};
  // In the diagonal of a square shear to the right is shear upwards.
  if (potential_.has_diagonal()) wanted.pop_back();
  std::vector<Values> solved = potential_.solve(wanted);
  twist_ = std::move(solved[0]), up_ = std::move(solved[1]);
  right_ = potential_.has_diagonal() ? potential_.in_the_diagonal(up_) : std::move(solved[2]);
  on_twist_ = potential_.differences(twist_);
  on_up_ = potential_.differences(up_);
  on_right_ = potential_.differences(right_);
  J_ = moments_.Iy + moments_.Iz - potential_.integral(twist_.cwiseProduct(q_twist_));
  const FourthMoments fourth = fourth_moments(region_);
  e_yy_ = energy(potential_, up_, cube_y, q_up, fourth.yyyy);
  e_zz_ = energy(potential_, right_, cube_z, q_right, fourth.zzzz);
  const bool even = !region_.left_right && !region_.up_down;
  if (even) e_yz_ = potential_.integral(up_.cwiseProduct(q_right) - cube_z.cwiseProduct(q_up)) - fourth.yyyz / 6;
  // Torques of the unit shear functions about the centroid; a mirror in which the integrand is odd makes them vanish.
  const double torque_up = region_.left_right ? 0 : potential_.integral((up_ - cube_y).cwiseProduct(q_twist_));
  const double torque_right = region_.up_down ? 0 : potential_.integral((right_ - cube_z).cwiseProduct(q_twist_));
  // A line of symmetry leaves no product of inertia, to the last digit.
  if (!even) moments_.Iyz = 0;
  const double D = moments_.Iy * moments_.Iz - moments_.Iyz * moments_.Iyz;
  shear_centre_ = {-(moments_.Iy * torque_up - moments_.Iyz * torque_right) / D,
                   (moments_.Iz * torque_right - moments_.Iyz * torque_up) / D};
}

EdgeShear Warping::along(std::size_t panel, double t) const {
  EdgeShear s{.there = panels()[panel].edge.point(t)};
  const double y = s.there.at.imag(), z = s.there.at.real(), ty = s.there.tangent.imag(), tz = s.there.tangent.real();
  // T counts from y towards z, the other way round than angles here.
  s.torsion = -(potential_.on(panel, t, on_twist_).second - y * tz + z * ty) / J_;
  s.up = potential_.on(panel, t, on_up_).second - y * y / 2 * ty;
  s.right = potential_.on(panel, t, on_right_).second - z * z / 2 * tz;
  return s;
}

EdgePotentials Warping::potentials(std::size_t panel, double t) const {
  const Complex at = panels()[panel].edge.at(t);
  return {potential_.on(panel, t, on_twist_).first, potential_.on(panel, t, on_up_).first - std::pow(at.imag(), 3) / 6,
          potential_.on(panel, t, on_right_).first - std::pow(at.real(), 3) / 6};
}

// The derivatives of the analytic function whose real part is a harmonic u, from u and q = ∂u/∂n on the outline:
//   2π W′(p) = −i ∮ u dz/(z − p)² + ∮ q ds/(z − p)
// and its derivatives (Cauchy's formula for Green's identity in potential.hpp). Not in the unnamed namespace, since
// Warping::Inner has members of this type.
struct Derivatives {
  Complex w[3] = {};
};

namespace {

Complex product(Complex a, Complex b) {
  return {a.real() * b.real() - a.imag() * b.imag(), a.real() * b.imag() + a.imag() * b.real()};
}

// Contribution of one place of the outline to W′, W″ and W‴, of u and of q.
struct Kernel {
  Kernel(Complex dz, double ds, Complex inverse) {
    const Complex second = product(inverse, inverse), third = product(second, inverse),
                  turned(dz.imag(), -dz.real());  // −i·dz
    of_u[0] = product(turned, second);
    of_u[1] = 2.0 * product(turned, third);
    of_u[2] = 6.0 * product(turned, product(second, second));
    of_q[0] = ds * inverse, of_q[1] = ds * second, of_q[2] = 2 * ds * third;
  }
  void add(double u, double q, Derivatives& to) const {
    for (int k = 0; k < 3; ++k) to.w[k] += u * of_u[k] + q * of_q[k];
  }

 private:
  Complex of_u[3], of_q[3];
};

}  // namespace

// The three functions at a place inside, from what they and their derivatives are on the outline and its images.
class Warping::Inner {
 public:
  Inner(const Warping& w, Complex place) : w_(w), place_(place) {}

  Derivatives twist, up, right;

  void add(const Edge::Point& on, double ds, const std::array<double, 3>& u) {
    const double q_twist = flow_twist(on.at, on.tangent), q_up = flow_up(on.at, on.tangent),
                 q_right = flow_right(on.at, on.tangent);
    for (const bool mirror_z : {false, true})
      for (const bool mirror_y : {false, true}) {
        if ((mirror_z && !w_.region_.left_right) || (mirror_y && !w_.region_.up_down)) continue;
        Complex there = on.at, along = on.tangent;
        double s_twist = 1, s_up = 1, s_right = 1;
        if (mirror_z) there = -std::conj(there), along = std::conj(along), s_twist = -s_twist, s_right = -s_right;
        if (mirror_y) there = std::conj(there), along = -std::conj(along), s_twist = -s_twist, s_up = -s_up;
        const Complex dz = along * ds, apart = there - place_, inverse = std::conj(apart) / std::norm(apart);
        const Kernel kernel(dz, ds, inverse);
        kernel.add(s_twist * u[0], s_twist * q_twist, twist);
        kernel.add(s_up * u[1], s_up * q_up, up);
        kernel.add(s_right * u[2], s_right * q_right, right);
      }
  }
  double nearest_image(Complex middle) const {
    double least = std::abs(middle - place_);
    if (w_.region_.left_right) least = std::min(least, std::abs(-std::conj(middle) - place_));
    if (w_.region_.up_down) least = std::min(least, std::abs(std::conj(middle) - place_));
    if (w_.region_.left_right && w_.region_.up_down) least = std::min(least, std::abs(-middle - place_));
    return least;
  }

 private:
  const Warping& w_;
  Complex place_;
};

InnerSample Warping::inside(Complex place, double reach) const {
  Inner inner(*this, place);
  static const Gauss rule(6);
  const auto p = static_cast<std::size_t>(potential_.order());
  for (std::size_t i = 0; i < panels().size(); ++i) {
    const Edge& e = panels()[i].edge;
    // Pieces that are shorter than their distance suffice for Gauss's rule.
    const auto pieces = [&](const auto& self, double from, double to) -> void {
      const double length = e.length() * (to - from) / 2;
      if (length > 1.2 * inner.nearest_image(e.at((from + to) / 2))) {
        self(self, from, (from + to) / 2);
        self(self, (from + to) / 2, to);
        return;
      }
      for (std::size_t k = 0; k < rule.node.size(); ++k) {
        const double t = (from + to) / 2 + (to - from) / 2 * rule.node[k];
        const Edge::Point there = e.point(t);
        inner.add(there, there.speed * (to - from) / 2 * rule.weight[k],
                  {potential_.on(i, t, on_twist_).first, potential_.on(i, t, on_up_).first,
                   potential_.on(i, t, on_right_).first});
      }
    };
    if (e.length() > 0.8 * inner.nearest_image(e.at(0))) {
      pieces(pieces, -1, 1);
      continue;
    }
    for (std::size_t j = 0; j < p; ++j) {
      const Node& n = potential_.nodes()[i * p + j];
      const auto k = static_cast<Eigen::Index>(i * p + j);
      inner.add({n.at, n.tangent, 1}, n.weight, {twist_(k), up_(k), right_(k)});
    }
  }
  InnerSample s{.at = place, .reach = {reach, reach}, .up = {}, .right = {}, .twist = {}};
  for (int k = 0; k < 3; ++k) {
    s.twist[k] = inner.twist.w[k] / (2 * std::numbers::pi);
    s.up[k] = inner.up.w[k] / (2 * std::numbers::pi);
    s.right[k] = inner.right.w[k] / (2 * std::numbers::pi);
  }
  return s;
}

double Warping::thickness() const {
  double largest = 0;
  const auto& nodes = potential_.nodes();
  for (const Node& here : nodes) {
    const Complex inward = here.tangent * Complex(0, 1);
    double least = 1e300;
    const auto meet = [&](Complex there) {
      const Complex apart = there - here.at;
      const double depth = (std::conj(inward) * apart).real();
      if (depth > 1e-9 * std::abs(apart)) least = std::min(least, std::norm(apart) / depth);
    };
    for (const Node& there : nodes) {
      meet(there.at);
      if (region_.left_right) meet(-std::conj(there.at));
      if (region_.up_down) meet(std::conj(there.at));
      if (region_.left_right && region_.up_down) meet(-there.at);
    }
    if (least < 1e299) largest = std::max(largest, least);
  }
  return largest;
}

namespace {

// Places and weights that integrate over a region: horizontal strips between the heights of its corners, each cut into
// the lengths that lie inside.
struct Place {
  Complex at;
  double weight;
};

std::vector<double> crossings(const Region& region, double y) {
  std::vector<double> z;
  for (const Contour& c : region.contours)
    for (const Edge& e : c) {
      if (!e.is_arc()) {
        const double a = e.from.imag() - y, b = e.to.imag() - y;
        if ((a < 0) != (b < 0)) z.push_back(e.from.real() + (e.to.real() - e.from.real()) * a / (a - b));
        continue;
      }
      const double reach = (y - e.centre.imag()) / e.radius();
      if (std::abs(reach) >= 1) continue;
      const double start = std::arg(e.from - e.centre), up = std::asin(reach);
      for (const double angle : {up, std::numbers::pi - up})
        for (int round = -2; round <= 2; ++round) {
          const double along = (angle + 2 * std::numbers::pi * round - start) / e.sweep;
          if (along > 0 && along < 1) z.push_back(e.centre.real() + e.radius() * std::cos(angle));
        }
    }
  std::sort(z.begin(), z.end());
  return z;
}

std::vector<Place> places_inside(const Region& region) {
  std::vector<double> heights;
  for (const Contour& c : region.contours)
    for (const Edge& e : c) heights.push_back(e.from.imag());
  const Extent x = extent(region);
  heights.push_back(x.top);
  heights.push_back(x.bottom);
  if (region.up_down) {
    heights.push_back(0);
    std::erase_if(heights, [](double y) { return y < 0; });
  }
  std::sort(heights.begin(), heights.end());
  const double tiny = 1e-9 * (x.top - x.bottom);
  heights.erase(std::unique(heights.begin(), heights.end(), [&](double a, double b) { return b - a < tiny; }),
                heights.end());
  const bool many = heights.size() > 24;
  const Gauss rows(many ? 3 : 12), columns(many ? 8 : 14);
  std::vector<Place> all;
  for (std::size_t i = 0; i + 1 < heights.size(); ++i)
    for (std::size_t r = 0; r < rows.node.size(); ++r) {
      const double half = (heights[i + 1] - heights[i]) / 2, y = heights[i] + half * (1 + rows.node[r]);
      const std::vector<double> z = crossings(region, y);
      for (std::size_t k = 0; k + 1 < z.size(); k += 2) {
        double from = z[k];
        const double to = z[k + 1];
        if (region.left_right) {
          if (to <= 0) continue;
          from = std::max(from, 0.0);
        }
        const double width = (to - from) / 2;
        for (std::size_t j = 0; j < columns.node.size(); ++j)
          all.push_back({{from + width * (1 + columns.node[j]), y}, half * rows.weight[r] * width * columns.weight[j]});
      }
    }
  return all;
}

}  // namespace

Warping::Sectorial Warping::sectorial() const {
  double square = 0, mean = 0, area = 0;
  const double zs = shear_centre_.real(), ys = shear_centre_.imag();
  const auto about_shear_centre = [&](Complex at, double about_centroid) {
    return about_centroid - ys * at.real() + zs * at.imag();
  };
  for (const Place& p : places_inside(region_)) {
    const double w = about_shear_centre(p.at, potential_.inside(p.at, twist_, q_twist_, twist_parity));
    square += p.weight * w * w;
    mean += p.weight * w;
    area += p.weight;
  }
  const int images = (region_.left_right ? 2 : 1) * (region_.up_down ? 2 : 1);
  // Where a mirror turns the sign of the warping its mean vanishes by itself.
  Sectorial s{images * (images > 1 ? square : square - mean * mean / area), 0};
  const double shift = images > 1 ? 0 : mean / area;
  for (std::size_t i = 0; i < panels().size(); ++i)
    for (const double t : {-1.0, 0.0, 1.0})
      s.largest =
          std::max(s.largest,
                   std::abs(about_shear_centre(panels()[i].edge.at(t), potential_.on(i, t, on_twist_).first) - shift));
  return s;
}

}  // namespace corvex::section
