#pragma once

#include "corvex/file.hpp"
#include "page.hpp"
#include "selection.hpp"

namespace corvex::cli {

// Results as an engineer likes to read them; the hand calculation at the end, where there is one.
Page solve_page(const Model& model, const Solution& solution, const Verification& hand, const LimitCheck& limits,
                const Selection& shown, const Style& style);

// The title, and what is worth knowing before the figures.
void add_head(Page& page, const Model& model, const Structure& structure, int digits);

// What is worth knowing of the model, the solution and the limits, with lines; `with_stress`: also where a material is
// stressed beyond its strength and no limit asks for safety.
Problems findings_of(const Model& model, const Solution& solution, const LimitCheck& limits, bool with_stress);

}  // namespace corvex::cli
