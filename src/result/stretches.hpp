// Where a member is held, and the stretches between: what sag is measured on.
#pragma once

#include "corvex/solution.hpp"
#include "result/data.hpp"
#include "result/inner.hpp"

namespace corvex::result {

// Without their sag.
std::vector<Stretch> held_stretches(const Data& data, MemberId member, const Inner& inner);

// The movement of a place across the member, against that of another.
Quantity overhang(const Inner& inner, double root, double place);

}  // namespace corvex::result
