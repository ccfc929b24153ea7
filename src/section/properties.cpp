#include <algorithm>
#include <cmath>
#include <numbers>

#include "outline/area.hpp"
#include "section/region.hpp"
#include "section/remembered.hpp"
#include "section/worked.hpp"
#include "stress_field/closed_fields.hpp"
#include "stress_field/outline_field.hpp"
#include "stress_field/series.hpp"
#include "stress_field/warping.hpp"

namespace corvex {
namespace section {
namespace {

using std::numbers::pi;

// Principal axes, from Iy, Iz, Iyz and the shear energies.
void principal(SectionProperties& p, double e_yy, double e_yz, double e_zz) {
  const double Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si();
  double angle = Iy > Iz * (1 + 1e-9) ? pi / 2 : 0;
  if (Iyz != 0) angle = std::atan2(2 * Iyz, Iz - Iy) / 2;
  const double c = std::cos(angle), s = std::sin(angle), middle = (Iy + Iz) / 2,
               radius = std::hypot((Iz - Iy) / 2, Iyz);
  const double I1 = middle + radius, I2 = (Iy * Iz - Iyz * Iyz) / I1;
  p.I1 = SecondMoment::si(I1);
  p.I2 = SecondMoment::si(I2);
  p.principal = Angle::si(angle);
  const double e_1 = c * c * e_yy + 2 * c * s * e_yz + s * s * e_zz,
               e_2 = s * s * e_yy - 2 * c * s * e_yz + c * c * e_zz;
  p.A1 = e_1 > 0 ? Area::si(I1 * I1 / e_1) : Area();
  p.A2 = e_2 > 0 ? Area::si(I2 * I2 / e_2) : Area();
  const double e_12 = c * s * (e_zz - e_yy) + (c * c - s * s) * e_yz;
  if (std::abs(e_12) > 1e-9 * std::sqrt(e_1 * e_2)) p.A12 = Area::si(I1 * I2 / e_12);
}

void shear_areas(SectionProperties& p, double e_yy, double e_yz, double e_zz) {
  p.Ay = Area::si(p.Iz.si() * p.Iz.si() / e_yy);
  p.Az = Area::si(p.Iy.si() * p.Iy.si() / e_zz);
  principal(p, e_yy, e_yz, e_zz);
}

AreaProperties from_outline(const Region& region) {
  const AreaMoments m = area_moments(region);
  const Extent x = extent(region);
  AreaProperties p;
  p.A = Area::si(m.A);
  p.Iy = SecondMoment::si(m.Iy);
  p.Iz = SecondMoment::si(m.Iz);
  // Rounding error would rotate the principal axes of a symmetric outline.
  const bool symmetric = region.left_right || region.up_down || std::abs(m.Iyz) < 1e-12 * (m.Iy + m.Iz);
  p.Iyz = SecondMoment::si(symmetric ? 0 : m.Iyz);
  p.Wy = SectionModulus::si(m.Iy / std::max(x.right, -x.left));
  p.Wz = SectionModulus::si(m.Iz / std::max(x.top, -x.bottom));
  p.height = Length::si(x.top - x.bottom);
  p.width = Length::si(x.right - x.left);
  p.centroid_y = Length::si(-x.bottom);
  p.centroid_z = Length::si(-x.left);
  return p;
}

// ∫|∇φ|² of a ring under the unit shear function φ = k cos θ (3 (R² + r²) ρ/8 + 3 R² r²/(8ρ) − ρ³/8), which solves
// ∇²φ = −y with no flow across both circles.
double ring_shear_energy(double R, double r) {
  const double R2 = R * R, r2 = r * r, gap = (R - r) * (R + r);
  return pi * gap * (3 * (R2 + r2) * (R2 + r2) / 32 + 3 * R2 * r2 / 16 - (R2 * R2 + R2 * r2 + r2 * r2) / 48);
}

// Stiffness properties of shapes with a closed form.
void ring(double R, double r, SectionProperties& p) {
  p.J = SecondMoment::si(2 * p.Iz.si());
  p.Wt = SectionModulus::si(2 * p.Iz.si() / R);
  const double energy = ring_shear_energy(R, r);
  shear_areas(p, energy, 0, energy);
}

void bar(double h, double w, SectionProperties& p) {
  p.J = SecondMoment::si(rectangle_torsion(h, w).J);
  const double shear = h * w * 5 / 6;
  shear_areas(p, p.Iz.si() * p.Iz.si() / shear, 0, p.Iy.si() * p.Iy.si() / shear);
}

void given(const GivenProperties& g, SectionProperties& p) {
  p.J = g.J.value_or(SecondMoment());
  p.Ay = g.Ay.value_or(Area());
  p.Az = g.Az.value_or(Area());
  const bool upright = p.Iz >= p.Iy;
  p.principal = Angle::si(upright ? 0 : pi / 2);
  p.I1 = upright ? p.Iz : p.Iy, p.I2 = upright ? p.Iy : p.Iz;
  p.A1 = upright ? p.Ay : p.Az, p.A2 = upright ? p.Az : p.Ay;
}

// Of any other outline.
void outline(const Shape& shape, const Warping& warping, SectionProperties& p) {
  p.J = SecondMoment::si(warping.J());
  shear_areas(p, warping.energy_yy(), warping.energy_yz(), warping.energy_zz());
  p.shear_centre_y = Length::si(warping.shear_centre().imag());
  p.shear_centre_z = Length::si(warping.shear_centre().real());
  if (std::holds_alternative<Outline>(shape)) p.inscribed = Length::si(warping.thickness());
}

}  // namespace

bool has_closed_form(const Shape& shape) {
  return std::holds_alternative<RoundTube>(shape) || std::holds_alternative<RoundBar>(shape) ||
         std::holds_alternative<RectangularBar>(shape) || std::holds_alternative<GivenProperties>(shape);
}

namespace {

// The wall that standards of materials go by.
struct Wall {
  double operator()(const SquareTube& s) const { return s.wall.si(); }
  double operator()(const RectangularTube& s) const { return s.wall.si(); }
  double operator()(const RoundTube& s) const { return s.wall.si(); }
  double operator()(const RoundBar& s) const { return s.diameter.si(); }
  double operator()(const RectangularBar& s) const { return std::min(s.height.si(), s.width.si()); }
  double operator()(const IProfile& s) const { return std::max(s.web.si(), s.flange.si()); }
  double operator()(const Channel& s) const { return std::max(s.web.si(), s.flange.si()); }
  double operator()(const AngleProfile& s) const { return s.wall.si(); }
  double operator()(const Tee& s) const { return std::max(s.web.si(), s.flange.si()); }
  double operator()(const Outline&) const { return 0; }
  double operator()(const GivenProperties&) const { return 0; }
};

// `open_perimeter` as Worked has it.
AreaProperties area_of(const Shape& shape, double& open_perimeter) {
  if (!check(shape).empty()) return {};
  if (const auto* g = std::get_if<GivenProperties>(&shape)) {
    AreaProperties p;
    p.A = g->A;
    p.Iy = g->Iy.value_or(SecondMoment());
    p.Iz = g->Iz.value_or(SecondMoment());
    p.Wy = g->Wy.value_or(SectionModulus());
    p.Wz = g->Wz.value_or(SectionModulus());
    return p;
  }
  const Region outline = *region(shape);
  if (outline.contours.size() == 1)
    for (const Edge& e : outline.contours.front()) open_perimeter += e.length();
  AreaProperties p = from_outline(outline);
  // Round ones are the same in every direction, to the last digit.
  if (std::holds_alternative<RoundBar>(shape) || std::holds_alternative<RoundTube>(shape)) p.Iy = p.Iz, p.Wy = p.Wz;
  return p;
}

SectionDetails details_of(const Shape& shape, double fineness, const Warping* warping) {
  SectionDetails d;
  const std::optional<Region> outline = region(shape);
  if (!outline) return d;
  const Plastic w = plastic(*outline);
  d.plastic_y = SectionModulus::si(w.Wy);
  d.plastic_z = SectionModulus::si(w.Wz);
  // Round sections stay plane.
  if (std::holds_alternative<RoundBar>(shape) || std::holds_alternative<RoundTube>(shape)) return d;
  const Warping own = warping ? *warping : Warping(*outline, fineness);
  const Warping::Sectorial s = own.sectorial();
  d.Cw = WarpingConstant::si(s.constant);
  d.warping = Area::si(s.largest);
  return d;
}

}  // namespace

Worked::Worked(const Shape& s, double f, std::optional<SecondMoment> J)
    : shape(s), fineness(f), given_J(J), area(area_of(s, open_perimeter)) {}
Worked::~Worked() = default;

const Warping& Worked::warping() const {
  std::call_once(once_warping_, [&] { warping_ = std::make_unique<const Warping>(*region(shape), fineness); });
  return *warping_;
}

const SectionProperties& Worked::stiffness() const {
  std::call_once(once_stiffness_, [&] {
    if (!(area.A.si() > 0)) return;
    SectionProperties& p = stiffness_;
    p.A = area.A, p.Iy = area.Iy, p.Iz = area.Iz, p.Iyz = area.Iyz, p.Wy = area.Wy, p.Wz = area.Wz;
    if (const auto* tube = std::get_if<RoundTube>(&shape))
      ring(tube->diameter.si() / 2, tube->diameter.si() / 2 - tube->wall.si(), p);
    else if (const auto* round = std::get_if<RoundBar>(&shape))
      ring(round->diameter.si() / 2, 0, p);
    else if (const auto* flat = std::get_if<RectangularBar>(&shape))
      bar(flat->height.si(), flat->width.si(), p);
    else if (const auto* properties = std::get_if<GivenProperties>(&shape))
      given(*properties, p);
    else
      outline(shape, warping(), p);
    if (given_J) p.J = *given_J;
    stiffness_known_ = true;
  });
  return stiffness_;
}

Area Worked::plane_shear_area() const {
  if (stiffness_known_ || has_closed_form(shape)) return stiffness().Ay;
  std::call_once(once_plane_, [&] {
    if (!(area.A.si() > 0)) return;
    plane_shear_ = Area::si(area.Iz.si() * area.Iz.si() / shear_energy_up(*region(shape), fineness));
  });
  return plane_shear_;
}

const Solved& Worked::solved() const {
  std::call_once(once_solved_, [&] {
    Solved& s = solved_;
    s.properties = stiffness();
    if (!(area.A.si() > 0)) return;
    SectionProperties& p = s.properties;
    // The field is that of the shape, whatever J its torsion was given.
    const double J = 2 * area.Iz.si();
    bool notched = false;
    if (const auto* g = std::get_if<GivenProperties>(&shape)) {
      s.stress_map.kind = g->Wz || g->Wy ? StressMap::Kind::moduli : StressMap::Kind::unknown;
      return;
    }
    if (const auto* tube = std::get_if<RoundTube>(&shape)) {
      s.field = round_field(tube->diameter.si() / 2, tube->diameter.si() / 2 - tube->wall.si(), J);
    } else if (const auto* round = std::get_if<RoundBar>(&shape)) {
      s.field = round_field(round->diameter.si() / 2, 0, J);
    } else if (const auto* flat = std::get_if<RectangularBar>(&shape)) {
      s.field = rectangle_field(flat->height.si(), flat->width.si(),
                                rectangle_torsion(flat->height.si(), flat->width.si()).J);
    } else {
      OutlineField sampled = outline_field(warping());
      s.field = std::move(sampled.field);
      notched = sampled.notched;
    }
    if (!(p.Wt.si() > 0)) p.Wt = torsion_modulus(s.field);
    s.stress_map = section::stress_map(s.field, p, notched);
    s.fibres = section::fibres(*region(shape));
  });
  return solved_;
}

const SectionDetails& Worked::details() const {
  std::call_once(once_details_, [&] {
    if (area.A.si() > 0) details_ = details_of(shape, fineness, has_closed_form(shape) ? nullptr : &warping());
  });
  return details_;
}

}  // namespace section

const section::Worked& section::worked(const Section& section) {
  return *section.worked_;
}
bool section::doubly_symmetric(const Section& section) {
  const Shape& shape = section.shape();
  return std::holds_alternative<SquareTube>(shape) || std::holds_alternative<RectangularTube>(shape) ||
         std::holds_alternative<IProfile>(shape) || section::has_closed_form(shape);
}

Section::Section() : Section(Shape()) {}
Section::Section(const Shape& shape, double fineness) : worked_(section::remembered(shape, fineness)) {}

const Shape& Section::shape() const& {
  return worked_->shape;
}
Length Section::thickness() const {
  const Length wall = Length::si(std::visit(section::Wall(), shape()));
  return wall.si() > 0 ? wall : properties().inscribed;
}
Section Section::with_torsion_constant(SecondMoment J) const {
  Section s = *this;
  s.worked_ = section::remembered(worked_->shape, worked_->fineness, J);
  return s;
}
const AreaProperties& Section::area_properties() const& {
  return worked_->area;
}
const SectionProperties& Section::properties() const& {
  return worked_->solved().properties;
}
const StressMap& Section::stress_map() const& {
  return section::solved(*this).stress_map;
}
const SectionDetails& Section::details() const& {
  return worked_->details();
}

}  // namespace corvex
