#pragma once

#include "corvex/file.hpp"
#include "page.hpp"
#include "selection.hpp"

namespace corvex::cli {

// Results as an engineer likes to read them; the hand calculation at the end, where there is one.
Page solve_page(const Model& model, const Solution& solution, const Verification& hand, const LimitCheck& limits,
                const Selection& shown, const Style& style);

// The title, and what is worth knowing before the figures.
void add_head(Page& page, const Model& model, const Structure& structure, const Problems& notes, int digits);

}  // namespace corvex::cli
