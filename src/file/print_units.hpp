// The units in which results are printed.
#pragma once

#include <array>
#include <map>
#include <string>
#include <string_view>

#include "corvex/file.hpp"

namespace corvex::file {

// Kinds of quantity for which a unit can be named.
struct UnitKind {
  std::string_view name;
  Dimension dimension;
};
inline const std::array<UnitKind, 10> unit_kinds = {{{"length", dimension::length},
                                                     {"force", dimension::force},
                                                     {"moment", dimension::moment},
                                                     {"line", dimension::line_force},
                                                     {"stress", dimension::stress},
                                                     {"deflection", dimension::length},
                                                     {"section", dimension::length},
                                                     {"angle", dimension::angle},
                                                     {"temperature", dimension::temperature},
                                                     {"mass", dimension::mass}}};

// By the names of their kinds.
using NamedUnits = std::map<std::string_view, NamedUnit>;

// "kN*m" as "kN·m", "cm^2" as "cm²".
std::string unit_as_printed(std::string_view written);
// Other kinds use the default units: metric, or lbf, in and psi with inches and feet. Moments and line loads
// follow the force: N·m and N/m, kN·m and kN/m, lbf·in and lbf/in.
ModelUnits units_for_print(const NamedUnits& named);

}  // namespace corvex::file
