// The stress field of any outline, sampled from the solution of its boundary integral equation.
//
// Along the outline every side, arc and fillet is sampled. What lies within a wall's thickness (2A over the length of
// the outline, but no more than a third of the sides that meet there) of a sharp re-entrant corner is left out: the
// shear stress of the theory has no bound there. Corners that turn by less than 0.35 rad one after another are taken
// for a curve that was drawn by straight lines: there the mean from the middle of one side to that of the next counts,
// so that a finer drawing of the same curve has the same stress.
#pragma once

#include "stress_field/stress_field.hpp"
#include "stress_field/warping.hpp"

namespace corvex::section {

struct OutlineField {
  StressField field;
  // Sharp re-entrant corners about which the field was left out.
  bool notched = false;
};
// The field keeps a reference to the warping.
OutlineField outline_field(const Warping& warping);

}  // namespace corvex::section
