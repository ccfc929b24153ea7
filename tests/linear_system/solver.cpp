// One solver for structure after structure: what it keeps never shows in the answers.
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_linear_system_solver {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;

namespace {

// A space frame of square bays and storeys, of a size for each way of factorising.
struct Frame {
  int bays = 2, storeys = 2;
  double wall = 4, height = 3;
  bool hinged = false, braced = false, held = true;
  int cases = 2;
};

Structure built(const Frame& f) {
  Structure s = Structure::space("frame");
  const auto post = s.section("post", SquareTube{.width = 60_mm, .wall = f.wall * mm});
  const auto rod = s.section("rod", RoundBar{.diameter = 16_mm});
  const MemberOptions beam{.section = post, .material = material("S235"), .hinge = f.hinged ? Hinge::end : Hinge::none};
  const MemberOptions column{.section = post, .material = material("S235")};
  const auto at = [&](int x, int y, int z) {
    return PointId{static_cast<std::size_t>((z * (f.bays + 1) + y) * (f.bays + 1) + x)};
  };
  for (int z = 0; z <= f.storeys; ++z)
    for (int y = 0; y <= f.bays; ++y)
      for (int x = 0; x <= f.bays; ++x)
        s.point("P" + std::to_string(s.points().size()), 2_m * x, 2.5_m * y, f.height * m * z);
  const auto join = [&](PointId a, PointId b, const MemberOptions& o) {
    s.member("M" + std::to_string(s.members().size()), {a, b}, o);
  };
  for (int z = 0; z <= f.storeys; ++z)
    for (int y = 0; y <= f.bays; ++y)
      for (int x = 0; x <= f.bays; ++x) {
        if (z > 0 && x < f.bays) join(at(x, y, z), at(x + 1, y, z), beam);
        if (z > 0 && y < f.bays) join(at(x, y, z), at(x, y + 1, z), beam);
        if (z < f.storeys) join(at(x, y, z), at(x, y, z + 1), column);
      }
  if (f.braced)
    join(at(0, 0, 0), at(1, 0, 1), {.section = rod, .material = material("S235"), .kind = MemberKind::link});
  for (int y = 0; y <= f.bays; ++y)
    for (int x = 0; x <= f.bays; ++x)
      if (f.held) s.support(at(x, y, 0), Support::fixed());
  for (int c = 0; c < f.cases; ++c)
    s.load_case("case " + std::to_string(c))
        .gravity()
        .at(at(c % 2, 0, f.storeys), Force{.x = 1_kN * (1 + c), .y = 500_N});
  return s;
}

void same(const Solution& a, const Solution& b) {
  REQUIRE(a.ok());
  REQUIRE(b.ok());
  REQUIRE(a.size() == b.size());
  for (std::size_t c = 0; c < a.size(); ++c) {
    double largest = 0;
    for (std::size_t p = 0; p < a.structure().points().size(); ++p)
      largest = std::max(largest, std::abs(b[c].displacement(PointId{p}).x.si()));
    for (std::size_t p = 0; p < a.structure().points().size(); p += 3) {
      const Displacement u = a[c].displacement(PointId{p}), v = b[c].displacement(PointId{p});
      CHECK(u.x.si() == near(v.x.si(), largest));
      CHECK(u.z.si() == near(v.z.si(), largest));
      CHECK(u.ry.si() == near(v.ry.si(), largest));
    }
    for (const PointSupport& p : a.structure().supports())
      CHECK(a[c].reaction(p.at).z.si() == near(b[c].reaction(p.at).z.si(), 1000));
  }
}

}  // namespace

TEST_CASE("Other values in the same topology, solved by what was kept") {
  // 36, 144 and 1,800 degrees of freedom: dense, simplicial, multifrontal.
  const auto [bays, storeys] = GENERATE(table<int, int>({{1, 2}, {1, 6}, {4, 12}}));
  Solver solver;
  for (const Frame& f : {Frame{.bays = bays, .storeys = storeys}, Frame{.bays = bays, .storeys = storeys, .wall = 2.5},
                         Frame{.bays = bays, .storeys = storeys, .wall = 6, .height = 2.7, .cases = 5},
                         Frame{.bays = bays, .storeys = storeys, .cases = 1}})
    same(solver.solve(built(f)), solve(built(f)));
}

TEST_CASE("Another topology is found anew") {
  Solver solver;
  for (const Frame& f : {Frame{}, Frame{.braced = true}, Frame{.hinged = true}, Frame{.bays = 3}, Frame{.storeys = 5},
                         Frame{.hinged = true, .braced = true}, Frame{}})
    same(solver.solve(built(f)), solve(built(f)));
}

TEST_CASE("A refused structure leaves nothing behind") {
  Solver solver;
  same(solver.solve(built({})), solve(built({})));
  CHECK_FALSE(solver.solve(built({.held = false})).ok());
  same(solver.solve(built({})), solve(built({})));
  // One that can move inside: refused after its matrix was made.
  Structure chain = Structure::plane("chain");
  const auto bar = chain.section("bar", RoundBar{.diameter = 10_mm});
  const MemberOptions hinged{.section = bar, .material = material("S235"), .hinge = Hinge::both};
  const auto a = chain.point("A", 0_m, 0_m), b = chain.point("B", 1_m, 0_m), c = chain.point("C", 2_m, 0_m);
  chain.member("left", {a, b}, hinged);
  chain.member("right", {b, c}, hinged);
  chain.support(a, Support::pinned());
  chain.support(c, Support::pinned());
  chain.load_case("pull").at(b, Force{.y = -1_N});
  CHECK_FALSE(solver.solve(chain).ok());
  CHECK_FALSE(solver.solve(chain).ok());
  same(solver.solve(built({})), solve(built({})));
}

TEST_CASE("A solver may be handed on") {
  Solver first;
  (void)first.solve(built({}));
  Solver second = std::move(first);
  same(second.solve(built({.wall = 3})), solve(built({.wall = 3})));
}

TEST_CASE("A kept solver follows skew supports, springs, arms and members that act one way") {
  const auto frame = [](int i) {
    Structure s = Structure::plane("frame");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 2_m), c = s.point("C", 3_m, 2_m);
    const auto section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
    const Material steel = material("S235");
    s.member("post", {a, b}, {.section = section, .material = steel});
    s.member("rail", {b, c}, {.section = section, .material = steel, .offset = {.start = {.y = Length::si(0.02 * i)}}});
    s.member("tie", {a, c}, {.section = section, .material = steel, .kind = MemberKind::link, .acts = Acts::tension});
    s.support(a, Support::pinned().spring({.rz = TurningStiffness::si(1e4 * (1 + i))}));
    s.support(c, Support().along({std::sin(0.3 * i), std::cos(0.3 * i), 0}));
    s.load_case("push").at(b, Force{.x = ForceSize::si(i % 2 ? 2000 : -2000)});
    s.load_case("settled").settle(
        c, {.x = Length::si(0.001 * std::sin(0.3 * i)), .y = Length::si(0.001 * std::cos(0.3 * i))});
    return s;
  };
  Solver kept;
  for (int i = 0; i < 6; ++i) {
    const Structure s = frame(i);
    const Solution a = kept.solve(s), b = solve(s);
    REQUIRE(a.ok());
    REQUIRE(b.ok());
    for (std::size_t c = 0; c < 2; ++c) {
      CHECK(a[c].displacement("B").x.si() == test::near(b[c].displacement("B").x.si()));
      CHECK(a[c].reaction("C").y.si() == test::near(b[c].reaction("C").y.si(), 1000));
      CHECK(a[c]["tie"].is_slack() == b[c]["tie"].is_slack());
    }
  }
}

}  // namespace tests_of_linear_system_solver
