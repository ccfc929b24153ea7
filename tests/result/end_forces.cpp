// The forces of members on their points keep every joint in equilibrium, at every order of analysis.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/corvex.hpp>
#include <string>
#include <vector>

namespace tests_of_end_forces {

namespace {

using namespace corvex;
using namespace corvex::literals;

const Force push{.x = 1.2_kN, .y = 0.9_kN, .z = -4_kN};
const Moment turn{.y = 0.3_kN_m};

// A frame in space with a hinge, rigid arms, a member through three points and a rope, which moves far.
Structure frame(Order order) {
  Structure s = Structure::space("press");
  const SectionId tube = s.section("tube", *profile("SHS 60x60x3")), rod = s.section("rod", *profile("ROUND 12"));
  const PointId a = s.point("A", 0_mm, 0_mm, 0_mm), b = s.point("B", 0_mm, 0_mm, 3000_mm),
                c = s.point("C", 2000_mm, 300_mm, 3200_mm), d = s.point("D", 4000_mm, 600_mm, 3400_mm),
                e = s.point("E", 4000_mm, 0_mm, 0_mm), f = s.point("F", -2000_mm, -500_mm, 0_mm);
  s.member("column", {a, b},
           {.section = tube, .material = "S355", .offset = {.end = {.x = 60_mm, .y = 40_mm, .z = 50_mm}}});
  s.member("beam", {b, c, d}, {.section = tube, .material = "S355"});
  s.member("post", {e, d}, {.section = tube, .material = "S355", .hinge = Hinge::end});
  s.member("rope", {f, b}, {.section = rod, .material = "S355", .kind = MemberKind::link, .acts = Acts::tension});
  for (const PointId p : {a, e, f}) s.support(p, Support::fixed());
  s.load_case("push").at(c, push).at(d, turn);
  s.analysis().order = order;
  return s;
}

struct Sum {
  Vector force{}, moment{};
};

}  // namespace

TEST_CASE("Forces of members on their points cancel loads and reactions, also where members turn") {
  for (const Order order : {Order::first, Order::large}) {
    INFO("order " << static_cast<int>(order));
    const Structure s = frame(order);
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    const CaseResult r = solution["push"];
    // The structure moves far enough that its displaced position matters.
    CHECK(r.displacement("C").z.si() < -0.02);
    std::vector<Sum> sums(s.points().size());
    double size = 0;
    for (std::size_t m = 0; m < s.members().size(); ++m)
      for (const EndForces& e : r[MemberId(m)].end_forces()) {
        const Vector f{e.force.x.si(), e.force.y.si(), e.force.z.si()},
            n{e.moment.x.si(), e.moment.y.si(), e.moment.z.si()};
        sums[e.point.index].force += f;
        sums[e.point.index].moment += n;
        size = std::max(size, length(f));
      }
    for (const char* name : {"A", "E", "F"}) {
      const PointId p = s.find_point(name).value();
      const Reaction g = r.reaction(p);
      sums[p.index].force += {g.x.si(), g.y.si(), g.z.si()};
      sums[p.index].moment += {g.mx.si(), g.my.si(), g.mz.si()};
    }
    sums[s.find_point("C")->index].force += {push.x.si(), push.y.si(), push.z.si()};
    sums[s.find_point("D")->index].moment += {turn.x.si(), turn.y.si(), turn.z.si()};
    for (std::size_t p = 0; p < sums.size(); ++p) {
      INFO(s.points()[p].name);
      CHECK(length(sums[p].force) < 1e-9 * size);
      CHECK(length(sums[p].moment) < 1e-8 * size);
    }
  }
}

TEST_CASE("A member lists its points in their order, and what it is there") {
  const Solution solution = solve(frame(Order::first));
  const auto ends = solution["push"]["beam"].end_forces();
  REQUIRE(ends.size() == 3);
  CHECK(ends[0].end == EndForces::End::start);
  CHECK(ends[1].end == EndForces::End::through);
  CHECK(ends[2].end == EndForces::End::end);
  CHECK(solution.structure()[ends[1].point].name == "C");
}

}  // namespace tests_of_end_forces
