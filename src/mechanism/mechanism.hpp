// A structure that can move is refused by naming what moves and how.
#pragma once

#include "linear_system/factor.hpp"

namespace corvex::solver {

// Parts of the structure that can move as a whole because their supports do not hold them.
Problems rigid_motions(const Structure& structure, const Spans& spans, const Dofs& f);

// Whether weak pivots are motions without resistance (told in words), or only soft (empty). A pivot cannot
// say which; the energy of the motion that belongs to it can: it is computed from what deforms each span, and
// lies ten powers of ten below that of the softest practical structure if nothing resists.
Problems inner_motions(const Structure& structure, const Spans& spans, const std::vector<Element>& elements,
                       const Dofs& f, const LowerMatrix& K, const std::vector<int>& weak);

}  // namespace corvex::solver
