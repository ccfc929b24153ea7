#pragma once

#include "corvex/file.hpp"
#include "page.hpp"

namespace corvex::cli {

// The hand calculation beside the computed values, with its formulas broken to fit a terminal of that many columns (0:
// a page), and the values of `let` that it uses.
void add_hand(Page& page, const Verification& hand, const ModelUnits& units, std::size_t terminal);

// "hand value differs: reaction A y in product: 1.5 kN by hand, 0.75 kN computed"
std::string comparison_in_words(const Comparison& comparison, const ModelUnits& units);

}  // namespace corvex::cli
