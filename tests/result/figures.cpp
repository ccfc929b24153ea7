// The table of figures: what each row gets is what the results say by their own names.
#include <catch2/catch.hpp>
#include <set>

#include "support/beam.hpp"
#include "support/near.hpp"

namespace tests_of_result_figures {

using namespace corvex;
using namespace corvex::literals;
using corvex::test::near;

namespace {

Structure cranked(bool plane) {
  Structure s = plane ? Structure::plane("arm") : Structure::space("arm");
  const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 1.2_m, 0_m), c = s.point("C", 1.2_m, 0.5_m);
  const MemberOptions tube{.section = s.section("tube", RectangularTube{.height = 80_mm, .width = 50_mm, .wall = 4_mm}),
                           .material = "S235"};
  s.member("arm", {a, b}, tube);
  s.member("tip", {b, c}, tube);
  s.member("tie", {a, c}, {.section = tube.section, .material = "S235", .kind = MemberKind::link});
  s.support(a, Support::fixed());
  auto loads = s.load_case("pull");
  loads.at(c, plane ? Force{.x = 2_kN, .y = -1_kN} : Force{.x = 2_kN, .y = -1_kN, .z = -3_kN});
  loads.line(*s.find_member("arm"), LineForce{.y = LineForceSize::si(-400)});
  return s;
}

}  // namespace

TEST_CASE("Every figure of the table is the diagram, the value at a place and the envelope of its name") {
  const bool plane = GENERATE(true, false);
  const Structure s = cranked(plane);
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  std::set<std::string> names;
  for (const MemberFigure& f : member_figures()) {
    INFO(f.name);
    CHECK(names.insert(f.name).second);
    CHECK(find_member_figure(f.name) == &f);
    for (const char* member : {"arm", "tip"}) {
      const MemberResult m = solution["pull"][member];
      if (f.diagram) {
        const Diagram d = f.diagram(m);
        CHECK(d.dimension() == f.dimension());
        CHECK(d.largest().si == std::max(std::abs(d.max().value.si), std::abs(d.min().value.si)));
        for (const double share : {0.0, 0.31, 1.0}) {
          const Length at = m.length() * share;
          CHECK(f.at(m.at(at)).si == near(d.at(at).si, d.largest().si));
        }
      }
      if (f.envelope) {
        const MemberEnvelope of_member = envelope(solution, member);
        const Range& range = of_member.*f.envelope;
        CHECK(range.max.value.si == f.diagram(m).max().value.si);
        CHECK(range.min.value.si == f.diagram(m).min().value.si);
      }
      if (f.envelope_at) {
        const Length at = m.length() * 0.4;
        CHECK((envelope_at(solution, member, at).*f.envelope_at).max.value.si == f.at(m.at(at)).si);
      }
    }
  }
  CHECK(find_member_figure("mass") == nullptr);
}

TEST_CASE("A plane structure has no torsion, a link no bending") {
  const Structure plane = cranked(true), space = cranked(false);
  const auto exist = [](const Structure& s, const char* member) {
    std::string all;
    for (const MemberFigure& f : member_figures())
      if (f.exists_in(s, member)) all += std::string(f.symbol) + " ";
    return all;
  };
  CHECK(exist(plane, "arm") == "N Vy Mz defl. y x y rot. z ");
  CHECK(exist(plane, "tie") == "N defl. y x y ");
  CHECK(exist(space, "arm") == "N Vy Vz T My Mz defl. y defl. z x y z twist rot. y rot. z ");
  CHECK(exist(space, "tie") == "N defl. y defl. z x y z ");
}

TEST_CASE("Every figure of the table that a model file can ask for is asked for by its word") {
  for (const MemberFigure& f : member_figures()) {
    if (!f.word) continue;
    const auto& kinds = figure_kinds();
    CHECK(std::any_of(kinds.begin(), kinds.end(), [&](const FigureKind& k) {
      return std::string(k.name) == f.word && k.of == FigureKind::Of::member;
    }));
  }
}

TEST_CASE("The box around a structure holds its points") {
  const Box box = cranked(false).bounds();
  CHECK(box.high.x - box.low.x == 1.2);
  CHECK(box.diagonal() == near(1.3));
  CHECK(Structure::plane("nothing").bounds().diagonal() == 0);
}

}  // namespace tests_of_result_figures
