#pragma once

#include "corvex/file.hpp"
#include "table.hpp"

namespace corvex::cli {

// The limits with a verdict for each: what is not kept first, then of each limit the worst that is kept; or all.
Table limits_table(const LimitCheck& check, const ModelUnits& units, int digits, bool all);
// Every verdict, for other programs.
Table limits_data(const LimitCheck& check, const ModelUnits& units);

}  // namespace corvex::cli
