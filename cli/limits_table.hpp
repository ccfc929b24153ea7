#pragma once

#include "corvex/file.hpp"
#include "table.hpp"

namespace corvex::cli {

// The limits with a verdict for each: what is not met first, then of each limit the worst that is met; or all.
Table limits_table(const LimitCheck& check, const ModelUnits& units, int digits, bool all);
// Every verdict, for other programs.
Table limits_data(const LimitCheck& check, const ModelUnits& units);

// "limit exceeded: safety of rail in service: 0.648, at least 1.5 is required"
std::string verdict_in_words(const Verdict& verdict, const ModelUnits& units);

}  // namespace corvex::cli
