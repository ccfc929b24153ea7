// Typeset tables.
#pragma once

#include "report/paper.hpp"
#include "report/rows.hpp"

namespace corvex::reporting {

// At the paper's place. The head stands again on each page; rows stay whole; what is too wide is broken into parts
// below each other that begin with the names.
void add_table(Paper& paper, const ReadTable& table);
// How much room it needs to begin on a page: its head and some rows.
double beginning_of(Paper& paper, const ReadTable& table);

}  // namespace corvex::reporting
