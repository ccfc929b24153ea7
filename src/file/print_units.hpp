// The units in which results are printed.
#pragma once

#include <array>
#include <map>
#include <string>
#include <string_view>

#include "corvex/file.hpp"

namespace corvex::file {

// What units may be named for.
struct UnitKind {
  std::string_view name;
  Dimension dimension;
};
inline const std::array<UnitKind, 9> unit_kinds = {{{"length", dimension::length},
                                                    {"force", dimension::force},
                                                    {"moment", dimension::moment},
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
// What is not named prints as is usual: metric, or lbf, lbf·in, in and psi beside inches and feet.
ModelUnits units_for_print(const NamedUnits& named);

}  // namespace corvex::file
