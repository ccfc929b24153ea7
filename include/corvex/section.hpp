// Corvex: cross-sections.
//
// Seen along the member's x axis, y is up and the section's width runs along z; the height lies along y. The
// origin is the centroid. Iz = ∫y² dA is the strong axis of an upright tube, Iy = ∫z² dA.
//
// Figures and their sources; the tests hold them to 1e-9 against closed forms, but where another figure is named:
//   A, Iy, Iz  exact, from the rectangles and circles that make up the shape.
//   J          round shapes: polar moment, exact. Rectangle: Saint-Venant's series (Timoshenko and Goodier, Theory of
//   Elasticity, art. 109), summed to machine precision. Square and rectangular tubes: Bredt's closed tube plus the
//   wall's own part, 4 Am² t/u + u t³/3 along the middle line (EN 10219-2, annex B), for thin walls.
//   Ay, Az     shear areas from the energy of the shear stress V·S/(I·b): Ay = Iz²/∫(S²/b) dy, b the whole width at
//   that height (Gere and Timoshenko, Mechanics of Materials, ch. 12); without Poisson's ratio: rectangle 5/6 A,
//   circle 9/10 A.
//
//     const corvex::Section leg = corvex::SquareTube{.width = 60_mm, .wall = 4_mm};
//     fmt::print("{:.2f} cm4\n", leg.properties().Iz.in(corvex::cm4));   // 47.07 cm4
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "corvex/quantity.hpp"

namespace corvex {

// Every dimension has an initialiser, so that naming only some of them is no warning under -Wextra.
struct SquareTube {
  Length width{}, wall{};
};
struct RectangularTube {
  Length height{}, width{}, wall{};
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
// Figures from a table or a data sheet. What is not given is not computed: without Ay and Az there is no
// shear deformation, without Wy and Wz no bending stress, and shear stress is never known.
struct GivenProperties {
  Area A{};
  std::optional<SecondMoment> Iy{}, Iz{}, J{};
  std::optional<SectionModulus> Wy{}, Wz{};
  std::optional<Area> Ay{}, Az{};
};

using Shape = std::variant<SquareTube, RectangularTube, RoundTube, RoundBar, RectangularBar, GivenProperties>;

struct SectionProperties {
  Area A;
  SecondMoment Iy, Iz, J;
  // Shear areas for Vy and Vz; zero where shear deformation is not known.
  Area Ay, Az;
  // Elastic section moduli for My and Mz, by the outermost fibre; zero where not known.
  SectionModulus Wy, Wz;
};

// A point of the section at which stress is evaluated. With the signs of docs/theory.md
//   sigma  = N/A − Mz·y/Iz − My·z/Iy
//   tau_xy = −(vy·Vy + ty·T),   tau_xz = −(vz·Vz + tz·T)
struct StressPoint {
  double y = 0, z = 0;    // m
  double vy = 0, vz = 0;  // 1/m²
  double ty = 0, tz = 0;  // 1/m³
};

// How stress is found from the inner forces.
struct StressMap {
  enum class Kind {
    points,   // at each of `points`
    rim,      // on the circle of `radius`, exactly
    moduli,   // N/A ± Mz/Wz ± My/Wy only; shear is not known
    unknown,  // no bending stress can be given
  };
  Kind kind = Kind::unknown;
  std::vector<StressPoint> points;
  double radius = 0;       // m
  double shear_peak = 0;   // 1/m²: shear stress at the neutral axis of a round section over the shear force
  double torsion_rim = 0;  // 1/m³: shear stress at the rim over the torsion
};

// What is wrong with a shape's dimensions: which one, and why. Empty if the shape can exist.
struct ShapeFault {
  std::string dimension;  // the key of the model file: "wall", "diameter", …
  std::string text;
};
std::vector<ShapeFault> check(const Shape& shape);

class Section {
 public:
  Section() = default;
  Section(const Shape& shape);  // NOLINT: a shape is a section
  template <class S>
  requires std::is_constructible_v<Shape, S> Section(const S& shape) : Section(Shape(shape)) {}  // NOLINT

  const Shape& shape() const { return shape_; }
  // All zero if the shape cannot exist.
  const SectionProperties& properties() const { return properties_; }
  const StressMap& stress_map() const { return stress_map_; }

 private:
  Shape shape_;
  SectionProperties properties_;
  StressMap stress_map_;
};

// The name that the model file gives to a shape: "square tube".
std::string name(const Shape& shape);

}  // namespace corvex
