// Corvex: materials, linear elastic and isotropic.
//
//     corvex::Material frame_steel = corvex::material("S235");
//     frame_steel.yield = 225_MPa;
//     fmt::print("{:.0f} MPa\n", frame_steel.strength()->in(corvex::units::MPa));   // 225 MPa
//
// Built-in materials carry their source and, where the standard has it, strengths by thickness. E, Poisson's ratio,
// density and expansion: steels EN 1993-1-1, 3.2.6; stainless EN 10088-1; aluminium EN 1999-1-1, 3.2.5; others as
// named.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Yield and tensile strength up to this thickness.
struct Strength {
  Length up_to{};
  std::optional<Stress> yield{}, tensile{};
  bool operator==(const Strength&) const = default;
};

struct Material {
  std::string name{};
  Stress E{};
  double poisson = 0.3;
  // The shear modulus; E/(2(1 + poisson)) where it is not given.
  std::optional<Stress> G{};
  // Not given is not zero: gravity on a member without one is refused, and no mass is given.
  std::optional<Density> density{};
  Expansion expansion{};
  std::optional<Stress> yield{};
  // Where given, safety is counted against it instead of the yield strength.
  std::optional<Stress> allowable{};
  std::optional<Stress> tensile{};
  // The yield strength next to welds, where welding softens the material; safety does not count with it.
  std::optional<Stress> weld_yield{};
  // From thin to thick; the first has the values of `yield` and `tensile`. A `yield` that was changed holds for every
  // thickness.
  std::vector<Strength> by_thickness{};
  std::string source{};
  // Further remarks: strength in heat-affected zones, grain, brittleness.
  std::string note{};

  Stress shear_modulus() const { return G ? *G : E / (2 * (1 + poisson)); }
  // The yield strength of a wall of this thickness; nothing where the standard has none so thick.
  std::optional<Stress> yield_at(Length thickness) const;
  // Strength for the safety factor, if known; for the thinnest walls, or for one of this thickness.
  std::optional<Stress> strength() const { return allowable ? allowable : yield; }
  std::optional<Stress> strength(Length thickness) const { return allowable ? allowable : yield_at(thickness); }
  bool operator==(const Material&) const = default;
};

// A built-in material; nothing if there is none of that name.
std::optional<Material> find_material(std::string_view name);
std::vector<std::string> material_names();

// The same for names written in code: an unknown name throws std::invalid_argument with the nearest right
// one.
Material material(std::string_view name);

}  // namespace corvex

#pragma GCC visibility pop
