// Notes under tables of results: axes and signs of the values.
#pragma once

#include "corvex/page.hpp"
#include "corvex/structure.hpp"

namespace corvex::document {

// Adds its note to the first table of each kind: reactions, displacements, internal forces, stress.
void add_table_notes(Page& page, const Structure& structure);

// The strength in the safety factor of these members: "yield strength", "allowable stress", or both.
const char* strength_in_words(const Structure& structure);

}  // namespace corvex::document
