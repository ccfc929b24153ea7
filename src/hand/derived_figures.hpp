// Results of a derivation as figures that can be compared.
#pragma once

#include "hand/force_method.hpp"

namespace corvex::hand {

std::vector<DerivedReaction> reactions_of(const ForceMethod& method);
std::vector<DerivedMember> members_of(const ForceMethod& method);

}  // namespace corvex::hand
