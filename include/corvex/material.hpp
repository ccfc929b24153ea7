// Corvex: materials, linear elastic and isotropic.
//
//     corvex::Material frame_steel = corvex::material("S235");
//     frame_steel.yield = 225_MPa;
//     fmt::print("{:.0f} MPa\n", frame_steel.strength()->in(corvex::MPa));   // 225 MPa
//
// Built-in values: structural steels of EN 10025-2, yield strength for nominal thickness up to 16 mm (table
// 7); E, Poisson's ratio, density and expansion from EN 1993-1-1, 3.2.6.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/quantity.hpp"

namespace corvex {

struct Material {
  std::string name{};
  Stress E{};
  double poisson = 0.3;
  // The shear modulus; E/(2(1 + poisson)) where it is not given.
  std::optional<Stress> G{};
  Density density{};
  Expansion expansion{};
  std::optional<Stress> yield{};
  // Where given, safety is counted against it instead of the yield strength.
  std::optional<Stress> allowable{};

  Stress shear_modulus() const { return G ? *G : E / (2 * (1 + poisson)); }
  // What safety is counted against, if anything is known.
  std::optional<Stress> strength() const { return allowable ? allowable : yield; }
  bool operator==(const Material&) const = default;
};

// A built-in material; nothing if there is none of that name.
std::optional<Material> find_material(std::string_view name);
std::vector<std::string> material_names();

// The same for names written in code: an unknown name throws std::invalid_argument with the nearest right
// one.
Material material(std::string_view name);

}  // namespace corvex
