// Structures that can move are refused in words that name what moves and how; those that only look so are
// solved.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/cases.hpp"
#include "support/near.hpp"

namespace tests_of_mechanism_mechanisms {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;

namespace {

struct Sketch {
  explicit Sketch(bool plane = true) : structure(plane ? Structure::plane("sketch") : Structure::space("sketch")) {
    section = structure.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
  }
  PointId point(const char* name, double x, double y, double z = 0) {
    return structure.point(name, Length::si(x), Length::si(y), Length::si(z));
  }
  MemberId beam(const char* name, std::vector<PointId> through, Hinge hinge = Hinge::none) {
    return structure.member(name, std::move(through),
                            {.section = section, .material = material("S235"), .hinge = hinge});
  }
  MemberId link(const char* name, PointId a, PointId b) {
    return structure.member(name, {a, b}, {.section = section, .material = material("S235"), .kind = MemberKind::link});
  }
  // All that is told.
  std::string refusal() {
    test::loads_in(structure, "load").at(PointId{1}, Force{.y = -1_kN});
    const Solution s = solve(structure);
    REQUIRE(!s.ok());
    std::string text;
    for (const Problem& p : s.problems()) text += p.text + "\n";
    INFO(text);
    CHECK(s.problems().size() <= 4);
    return text;
  }
  bool solved() {
    test::loads_in(structure, "load").at(PointId{1}, Force{.y = -1_kN});
    const Solution s = solve(structure);
    for (const Problem& p : s.problems()) UNSCOPED_INFO(p.text);
    return s.ok() && s[0].balance().error < 1e-9;
  }

  Structure structure;
  SectionId section;
};

}  // namespace

TEST_CASE("A beam on two rollers slides") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 0);
  k.beam("rail", {a, b});
  k.structure.support(a, Support::roller());
  k.structure.support(b, Support::roller());
  CHECK_THAT(k.refusal(), Contains("slides along x") && Contains("nothing restrains it"));
}

TEST_CASE("A beam on one pin turns about it") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 0);
  k.beam("rail", {a, b});
  k.structure.support(a, Support::pinned());
  CHECK_THAT(k.refusal(), Contains("rotates about 'A'"));
}

TEST_CASE("A structure without any support is told every way it can go") {
  const bool plane = GENERATE(true, false);
  Sketch k(plane);
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 0.5);
  k.beam("rail", {a, b});
  const std::string text = k.refusal();
  CHECK_THAT(text, Contains("slides along x") && Contains("slides along y"));
  if (!plane) CHECK_THAT(text, Contains("slides along z"));
  CHECK_THAT(text, Contains("rotates"));
}

TEST_CASE("Two rollers whose forces meet let the structure turn about that place") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 2);
  k.beam("strut", {a, b});
  k.structure.support(a, Support::hold({Dof::y}));
  k.structure.support(b, Support::hold({Dof::x}));
  CHECK_THAT(k.refusal(), Contains("rotates about the place (0 m, 2 m)"));
}

TEST_CASE("A part of its own that nothing restrains is named") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 0), c = k.point("C", 0, 1), d = k.point("D", 2, 1);
  k.beam("held", {a, b});
  k.beam("loose", {c, d});
  k.structure.support(a, Support::fixed());
  k.structure.support(c, Support::roller());
  k.structure.support(d, Support::roller());
  const std::string text = k.refusal();
  CHECK_THAT(text, Contains("'C', 'D' and 'loose' slide along x: nothing restrains them"));
  CHECK_THAT(text, !Contains("held"));
}

TEST_CASE("A portal hinged at all corners sways") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 0, 3), c = k.point("C", 4, 3), d = k.point("D", 4, 0);
  k.link("left", a, b);
  k.link("beam", b, c);
  k.link("right", d, c);
  k.structure.support(a, Support::pinned());
  k.structure.support(d, Support::pinned());
  SECTION("without a brace") {
    CHECK_THAT(k.refusal(), Contains("'B', 'C' and 'beam' slide along x: nothing restrains them"));
  }
  SECTION("a brace holds it") {
    k.link("brace", a, c);
    CHECK(k.solved());
  }
}

TEST_CASE("Two links in one line leave their joint free across, however the line lies") {
  const bool plane = GENERATE(true, false);
  const double angle = GENERATE(0.0, 0.3, 0.7853981633974483, 1.5707963267948966, 2.5);
  Sketch k(plane);
  const double c = std::cos(angle), s = std::sin(angle);
  const auto a = k.point("A", 0, 0), b = k.point("B", 1.1 * c, 1.1 * s), d = k.point("D", 2 * c, 2 * s);
  k.link("left", a, b);
  k.link("right", b, d);
  k.structure.support(a, Support::pinned());
  k.structure.support(d, Support::pinned());
  k.structure.load_case("along").at(b, Force{.x = Length::si(c) * 1_kN / 1_m, .y = Length::si(s) * 1_kN / 1_m});
  CHECK_THAT(k.refusal(), Contains("B") && Contains("slides along"));
}

TEST_CASE("Two links almost in one line do not move, however soft they are") {
  const double lean = GENERATE(1e-2, 1e-4, 1e-6, 1e-7);
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 1, lean), c = k.point("C", 2, 0);
  k.link("left", a, b);
  k.link("right", b, c);
  k.structure.support(a, Support::pinned());
  k.structure.support(c, Support::pinned());
  k.structure.load_case("load").at(b, Force{.y = -1_kN});
  const Solution s = solve(k.structure);
  REQUIRE(s.ok());
  CHECK(s[0]["left"].axial().max().value.si() == Approx(-500 / std::sin(std::atan(lean))).epsilon(1e-6));
}

TEST_CASE("A beam with two hinges in one span is a chain") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 1, 0), c = k.point("C", 2, 0), d = k.point("D", 3, 0);
  k.beam("left", {a, b}, Hinge::end);
  k.beam("middle", {b, c}, Hinge::end);
  k.beam("right", {c, d});
  k.structure.support(a, Support::pinned());
  k.structure.support(d, Support::fixed());
  const std::string text = k.refusal();
  CHECK_THAT(text, Contains("B"));
}

TEST_CASE("A joint where only links and hinged ends meet is no mechanism") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 2), c = k.point("C", 4, 0);
  k.link("tie", a, c);
  k.beam("left", {a, b}, Hinge::both);
  k.beam("right", {b, c}, Hinge::both);
  k.structure.support(a, Support::pinned());
  k.structure.support(c, Support::roller());
  CHECK(k.solved());
}

TEST_CASE("In space links need holding out of their plane") {
  Sketch k(false);
  const auto a = k.point("A", 0, 0, 0), b = k.point("B", 2, 0, 2), c = k.point("C", 4, 0, 0);
  k.link("left", a, b);
  k.link("right", b, c);
  for (const auto p : {a, c}) k.structure.support(p, Support::pinned());
  SECTION("a flat truss falls over") {
    CHECK_THAT(k.refusal(), Contains("rotates about the line through 'A' and 'C'"));
  }
  SECTION("a third link holds it") {
    const auto d = k.point("D", 2, 2, 0);
    k.structure.support(d, Support::pinned());
    k.link("back", b, d);
    CHECK(k.solved());
  }
}

TEST_CASE("A rod between ball joints may not spin where something is fixed to it") {
  // The rod carries a bracket; both ends pinned: it rotates about its axis.
  Sketch k(false);
  const auto a = k.point("A", 0, 0, 0), b = k.point("B", 1, 0, 0), c = k.point("C", 2, 0, 0),
             t = k.point("T", 1, 0.3, 0);
  k.beam("rod", {a, b, c});
  k.beam("bracket", {b, t});
  k.structure.support(a, Support::pinned());
  k.structure.support(c, Support::pinned());
  CHECK_THAT(k.refusal(), Contains("rotates about the line through") && Contains("A"));
}

TEST_CASE("A mechanism inside a large structure is found") {
  Sketch k;
  // A long row of braced bays, one of them without its diagonal.
  const int bays = 60, missing = 37;
  std::vector<PointId> low, high;
  for (int i = 0; i <= bays; ++i) {
    low.push_back(k.point(("L" + std::to_string(i)).c_str(), i, 0));
    high.push_back(k.point(("H" + std::to_string(i)).c_str(), i, 1));
    k.structure.support(low.back(), Support::pinned());
    k.link(("post" + std::to_string(i)).c_str(), low.back(), high.back());
  }
  for (int i = 0; i < bays; ++i) {
    // Bays stand side by side without a common chord.
    if (i % 2 == 0) k.link(("chord" + std::to_string(i)).c_str(), high[i], high[i + 1]);
    if (i % 2 == 0 && i / 2 != missing / 2) k.link(("brace" + std::to_string(i)).c_str(), low[i], high[i + 1]);
  }
  k.link("end", low[bays - 1], high[bays]);
  const std::string text = k.refusal();
  CHECK_THAT(text, Contains("'H36', 'H37' and 'chord36' slide along x"));
}

TEST_CASE("Loads where nothing can carry them are refused") {
  Sketch k;
  const auto a = k.point("A", 0, 0), b = k.point("B", 2, 0), c = k.point("C", 1, 1);
  k.link("base", a, b);
  k.link("left", a, c);
  k.link("right", b, c);
  const auto lone = k.point("L", 5, 5);
  k.structure.support(a, Support::pinned());
  k.structure.support(b, Support::roller());
  SECTION("a moment on a joint of links") {
    k.structure.load_case("load").at(c, Moment{.z = 1_kN_m});
    CHECK_THAT(k.refusal(), Contains("C") && Contains("moment"));
  }
  SECTION("a force on a point without members") {
    k.structure.load_case("load").at(lone, Force{.x = 1_kN});
    CHECK_THAT(k.refusal(), Contains("L") && Contains("no member"));
  }
  SECTION("the lone point by itself is worth a note only") {
    CHECK(k.solved());
  }
}

}  // namespace tests_of_mechanism_mechanisms
