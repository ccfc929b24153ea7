// One straight member along x in the plane, from 0 to L, with the figures that hand calculations need.
#pragma once

#include <corvex/corvex.hpp>

#include "support/cases.hpp"

namespace corvex::test {

using namespace literals;

struct Beam {
  explicit Beam(Length length, bool shear = false) : L(length.si()), structure(Structure::plane("beam")) {
    structure.analysis().shear = shear;
    a = structure.point("A", 0_m, 0_m);
    b = structure.point("B", length, 0_m);
    section = structure.section("tube", tube);
    member = structure.member("beam", {a, b}, {.section = section, .material = steel});
  }

  LoadsOf loads() { return loads_in(structure, "loads"); }
  Solution solved() const { return solve(structure); }

  double EI() const { return steel.E.si() * tube.properties().Iz.si(); }
  double EA() const { return steel.E.si() * tube.properties().A.si(); }
  double GA() const { return steel.shear_modulus().si() * tube.properties().Ay.si(); }

  double L;
  Section tube = RectangularTube{.height = 100_mm, .width = 50_mm, .wall = 4_mm};
  Material steel = material("S235");
  Structure structure;
  PointId a, b;
  SectionId section;
  MemberId member;
};

}  // namespace corvex::test
