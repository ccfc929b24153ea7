#pragma once

#include "corvex/page.hpp"
#include "view/data.hpp"

namespace corvex::view {

// A table as people read it, cell by cell.
Json table_data(const document::Table& table, int digits);

}  // namespace corvex::view
