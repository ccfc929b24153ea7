#include "section/stability_figures.hpp"

#include <cmath>

#include "outline/area.hpp"
#include "section/region.hpp"
#include "section/worked.hpp"

namespace corvex::section {

std::optional<StabilityFigures> stability_figures(const Section& section) {
  const SectionProperties& p = stiffness(section);
  if (!(p.A.si() > 0) || !(p.I1.si() > 0) || !(p.I2.si() > 0) || !(p.J.si() > 0)) return {};
  StabilityFigures f;
  f.A1 = p.A1.si(), f.A2 = p.A2.si();
  f.A = p.A.si(), f.I1 = p.I1.si(), f.I2 = p.I2.si(), f.angle = p.principal.si(), f.J = p.J.si();
  const double c = std::cos(f.angle), s = std::sin(f.angle);
  f.centre_u = c * p.shear_centre_y.si() + s * p.shear_centre_z.si();
  f.centre_v = -s * p.shear_centre_y.si() + c * p.shear_centre_z.si();
  f.Cw = section.details().Cw.si();
  if (const auto outline = region(section.shape()); outline && !doubly_symmetric(section)) {
    const ThirdMoments m = third_moments(*outline);
    // ∫y (y² + z²) dA and ∫z (y² + z²) dA turn as a vector does.
    const double of_y = m.yyy + m.yzz, of_z = m.yyz + m.zzz;
    f.central_u = (c * of_y + s * of_z) / f.I1;
    f.central_v = (-s * of_y + c * of_z) / f.I2;
  } else {
    f.centre_u = f.centre_v = 0;
  }
  f.polar = (f.I1 + f.I2) / f.A + f.centre_u * f.centre_u + f.centre_v * f.centre_v;
  f.wagner_u = f.central_u - 2 * f.centre_u;
  f.wagner_v = f.central_v - 2 * f.centre_v;
  return f;
}

}  // namespace corvex::section
