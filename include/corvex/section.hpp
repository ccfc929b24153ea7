// Corvex: cross-sections.
//
// Seen along the member's x axis, y is up and the section's width runs along z, to the right; the height lies along y.
// An angle's heel is at −y −z, a channel opens to +z, a tee's flange is at +y. The origin is the centroid. Iz = ∫y² dA
// is the strong axis of an upright tube, Iy = ∫z² dA, Iyz = ∫yz dA.
//
// Figures and their sources (docs/theory.md, "Cross-sections"):
// - A, Iy, Iz, Iyz, W: by integration along the outline; exact.
// - J: round shapes by the polar moment, exact; rectangles by Saint-Venant's series (Timoshenko and Goodier, Theory of
//   Elasticity, art. 109); all others by the warping function of the outline, a boundary integral equation. The tests
//   hold it to 1e-5 of closed forms.
// - Ay, Az: from the energy of the shear stress without Poisson's ratio: rectangle 5/6 A; round bar 6/7 A and round
//   tubes by the exact solution of the ring (1/2 A when thin); all others by the boundary integral equation, to 1e-5.
// - Shear stress: from the same solutions, to 0.1 % of its largest value, on the whole outline and inside.
//
//     const corvex::Section leg = corvex::SquareTube{.width = 60_mm, .wall = 4_mm};
//     fmt::print("{:.2f} cm4\n", leg.properties().Iz.in(corvex::units::cm4));   // 47.07 cm4
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Every dimension has an initialiser, so that naming only some of them causes no warning under -Wextra. A radius of
// zero is a sharp corner.
struct SquareTube {
  Length width{}, wall{};
  Length corner{};  // outside radius
  // Inside radius; corner − wall, not below zero, where it is not given.
  std::optional<Length> inside_corner{};
};
struct RectangularTube {
  Length height{}, width{}, wall{};
  Length corner{};
  std::optional<Length> inside_corner{};
};
struct RoundTube {
  Length diameter{}, wall{};
};
struct RoundBar {
  Length diameter{};
};
struct RectangularBar {
  Length height{}, width{};
};
struct IProfile {
  Length height{}, width{}, web{}, flange{}, root{};
};
// Flanges are parallel where `slope` is zero. Else their inner faces rise by `slope` (8 % is 0.08) towards the web,
// `flange` is their thickness at `flange_at` from the tips, and `toe` rounds the inner edge of the tips.
struct Channel {
  Length height{}, width{}, web{}, flange{}, root{};
  Length toe{};
  double slope = 0;
  Length flange_at{};
};
struct AngleProfile {
  Length height{}, width{}, wall{}, root{}, toe{};
};
struct Tee {
  Length height{}, width{}, web{}, flange{}, root{};
};
// Any outline, its points in either sense of turning, anywhere: it is moved to its centroid.
struct Outline {
  struct Point {
    Length z{}, y{};
  };
  std::vector<Point> points{};
  std::vector<std::vector<Point>> holes{};
};
// Figures from a table or a data sheet. What is not given is not computed: without Ay and Az there is no
// shear deformation, without Wy and Wz no bending stress, and shear stress is never known.
struct GivenProperties {
  Area A{};
  std::optional<SecondMoment> Iy{}, Iz{}, J{};
  std::optional<SectionModulus> Wy{}, Wz{};
  std::optional<Area> Ay{}, Az{};
};

using Shape = std::variant<SquareTube, RectangularTube, RoundTube, RoundBar, RectangularBar, IProfile, Channel,
                           AngleProfile, Tee, Outline, GivenProperties>;

// Properties obtained from the outline by integration, available at once. Zero if not known.
struct AreaProperties {
  Area A;
  SecondMoment Iy, Iz, Iyz;
  // Elastic section moduli for My and Mz, by the outermost fibre.
  SectionModulus Wy, Wz;
  // Height and width over all, and where the centroid stands above the lowest and right of the leftmost place.
  Length height, width, centroid_y, centroid_z;
};

struct SectionProperties {
  Area A;
  SecondMoment Iy, Iz, J;
  // Shear areas for Vy and Vz while the section bends in one plane; zero where shear deformation is not known.
  Area Ay, Az;
  // Elastic section moduli for My and Mz, by the outermost fibre; zero where not known.
  SectionModulus Wy, Wz;
  // Exactly zero for sections that are symmetric about y or z.
  SecondMoment Iyz;
  // Principal second moments, the larger one first: I1 = ∫u² dA along the axis u that lies at `principal` from y
  // towards z; shear areas for forces along u and perpendicular to it.
  SecondMoment I1, I2;
  Angle principal;
  Area A1, A2;
  // In principal axes a force along one of them shears the other direction too: gamma_u = Vu/(G A1) + Vv/(G A12). Zero
  // if this coupling is zero, as in every section with an axis of symmetry.
  Area A12;
  // The shear centre, from the centroid.
  Length shear_centre_y, shear_centre_z;
  // T over the largest shear stress that it brings about at the section's points; zero where not known.
  SectionModulus Wt;
  // The diameter of the largest circle that fits in; only for outlines.
  Length inscribed;
};

// Further figures of section tables; not needed to solve.
struct SectionDetails {
  // Plastic moduli about axes through the middle of the area.
  SectionModulus plastic_y, plastic_z;
  // Warping constant about the shear centre, and the largest size of the warping function on the outline (about the
  // shear centre, its mean made zero): the stress of restrained warping is B·warping/Cw for a bimoment B.
  WarpingConstant Cw;
  Area warping;
};

// A place of the outline and the shear stress there along the outline (the direction is a unit vector). With the signs
// of docs/theory.md tau = vy·Vy + vz·Vz + t·T.
struct StressPoint {
  double y = 0, z = 0;  // m
  double direction_y = 0, direction_z = 0;
  double vy = 0, vz = 0;  // 1/m²
  double t = 0;           // 1/m³
  // The same as vy, vz where bending is held in one plane; they differ only where Iyz is not zero.
  double held_vy = 0, held_vz = 0;
};

// How far the stress in a section is known.
struct StressMap {
  enum class Kind {
    field,    // normal and shear stress everywhere
    moduli,   // N/A ± Mz/Wz ± My/Wy only; shear is not known
    unknown,  // no bending stress can be given
  };
  Kind kind = Kind::unknown;
  // Samples along the outline, so dense that between two of them stress differs from the chord by less than 0.1 % of
  // its largest value. The worst place of a section is looked for between them too, and inside.
  std::vector<StressPoint> points{};
  // The outline has sharp re-entrant corners. The shear stress of the theory has no bound there; what lies within a
  // wall's thickness of them is left out.
  bool leaves_out_notches = false;
};

// Error in the dimensions of a shape: which one, and why. Empty if the shape can exist.
struct ShapeFault {
  std::string dimension;  // the key of the model file: "wall", "diameter", …
  std::string text;
};
std::vector<ShapeFault> check(const Shape& shape);

class Section;

namespace section {
struct Worked;
[[gnu::visibility("hidden")]] const Worked& worked(const Section& section);
}  // namespace section

// A shape with its properties. Expensive ones are computed when first requested, once for all sections of the
// same shape; a section may be read from several threads at once.
class Section {
 public:
  Section();
  // A higher `fineness` takes shorter steps along the outline: what two of them have in common stands. It has no effect
  // on shapes with closed forms.
  Section(const Shape& shape, double fineness = 1);  // NOLINT: a shape is a section
  // With a torsion constant that a standard gives for the shape, where that differs from the exact one.
  [[nodiscard]] Section with_torsion_constant(SecondMoment J) const;
  template <class S>
  requires std::is_constructible_v<Shape, S> Section(const S& shape) : Section(Shape(shape)) {}  // NOLINT

  const Shape& shape() const&;
  Shape shape() && { return static_cast<const Section&>(*this).shape(); }
  // Thickness that determines the strength in material standards: the wall, the thickest flange, the diameter or lesser
  // side of a bar; of an outline the largest circle that fits into it. Zero for given properties.
  Length thickness() const;
  // Zero if the shape cannot exist, as are all properties.
  const AreaProperties& area_properties() const&;
  AreaProperties area_properties() && { return static_cast<const Section&>(*this).area_properties(); }
  Area area() const { return area_properties().A; }
  const SectionProperties& properties() const&;
  SectionProperties properties() && { return static_cast<const Section&>(*this).properties(); }
  const StressMap& stress_map() const&;
  StressMap stress_map() && { return static_cast<const Section&>(*this).stress_map(); }
  // All zero for given properties.
  const SectionDetails& details() const&;
  SectionDetails details() && { return static_cast<const Section&>(*this).details(); }

 private:
  friend const section::Worked& section::worked(const Section& section);
  std::shared_ptr<const section::Worked> worked_;
};

// The name that the model file gives to a shape: "square tube".
std::string name(const Shape& shape);

// The outline of a section and its holes as polygons about the centroid, each arc cut into this many pieces; the outer
// one runs counter-clockwise. Empty for given properties.
std::vector<std::vector<Outline::Point>> outline_polygons(const Section& section, int pieces_of_arc = 16);

}  // namespace corvex

#pragma GCC visibility pop
