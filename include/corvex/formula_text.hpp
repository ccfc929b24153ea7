// Corvex: formulas with their numbers put in, as text.
//
//     const corvex::Quantity moment{1920, corvex::dimension::moment};
//     fmt::print("{}\n", corvex::derived_value(moment, {}));   // 1.92 kN·m
//
// Threads: every function may be called from several threads at once.
#pragma once

#include <string>

#include "corvex/derive.hpp"
#include "corvex/formula.hpp"
#include "corvex/model_units.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A hand formula with its numbers put in, in these units: "3.2 kN/2 + 0.8 kN/m*2400 mm/2". It can be read again, and
// then has the same value to the digits shown.
std::string numbers_put_in(const WorkedFormula& formula, const ModelUnits& units, int digits = 5);

// The same of the lines of a derivation (derive.hpp): lengths below 10 mm in the unit of deflections.
std::string derived_text(const WorkedFormula& line, const ModelUnits& units, int digits = 5);
std::string derived_value(const Quantity& value, const ModelUnits& units, int digits = 5);

}  // namespace corvex

#pragma GCC visibility pop
