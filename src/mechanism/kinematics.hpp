// Whether a structure can move without straining anything, from its geometry alone.
#pragma once

#include <optional>

#include "beam/element.hpp"
#include "linear_system/dofs.hpp"

namespace corvex::solver {

// True if every motion of the degrees of freedom strains some span or spring: the matrix from displacements to
// deformations, each deformation as a length of its own span, has full column rank. Stiffness does not enter, so
// members that differ in it by any power of ten do not look like a mechanism. The rank is found by a Gaussian
// elimination with complete pivoting; pivots below 1e-13 of the largest count as zero. Nothing where the structure is
// too large to be looked at in this way.
std::optional<bool> every_motion_strains(const Spans& spans, const std::vector<Element>& elements, const Dofs& f);

}  // namespace corvex::solver
