// Spins that nothing resists and nothing needs: a rod hinged at both ends keeps its torsion, so its ends
// bring rotations about its axis to the points; where nothing else turns with them, they are free to spin
// without any inner force. Such spins are not mechanisms. They are found in the rotations of hinged-only points
// alone, whose stiffness is nothing but torsion: a motion without energy there is one without energy in the
// whole structure.
#pragma once

#include "beam/element.hpp"
#include "linear_system/dofs.hpp"

namespace corvex::solver {

// Marks the degrees of freedom to be kept at rest as idle. Their restraint has no force unless a load works on the
// spin, which the caller checks.
void mark_idle_spins(const Structure& structure, const Spans& spans, const std::vector<Element>& elements, Dofs& f);

}  // namespace corvex::solver
