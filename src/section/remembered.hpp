// Sections are worked out once for each shape, and shared by all structures and threads.
#pragma once

#include "section/worked.hpp"

namespace corvex::section {

// The stored properties of this shape, from an earlier call if still in the cache, which has the 512 used last.
std::shared_ptr<const Worked> remembered(const Shape& shape, double fineness,
                                         const std::optional<SecondMoment>& given_J = std::nullopt);

}  // namespace corvex::section
