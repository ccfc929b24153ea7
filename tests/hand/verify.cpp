// Hand calculations held against solutions: every figure, every way to take it, and what is said of slips.
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_hand_verify {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using corvex::test::near;
using Kind = Figure::Kind;

namespace {

// A cranked arm in space, held at A: from A along x to B, and on along y to C, where a force and a moment act.
Structure crank() {
  Structure s = Structure::space("crank");
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 2_m, 0_m, 0_m), c = s.point("C", 2_m, 1_m, 0_m);
  const auto bar = s.section("bar", RectangularBar{.height = 40_mm, .width = 25_mm});
  s.member("arm", {a, b}, {.section = bar, .material = material("S235")});
  s.member("hand", {b, c}, {.section = bar, .material = material("S275")});
  s.support(a, Support::fixed());
  s.load_case("lift").at(c, Force{.x = 300_N, .y = -200_N, .z = 100_N}).at(c, Moment{.y = 50_N_m});
  s.load_case("sag").line(MemberId{0}, LineForce{.z = -60_N_per_m});
  return s;
}

Verification verified(const Structure& s, const HandCalculation& hand) {
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const auto v = verify(solution, hand);
  if (!v)
    for (const Problem& p : v.error()) UNSCOPED_INFO(describe(p));
  REQUIRE(v.ok());
  return *v;
}

std::string told(const Structure& s, const HandCalculation& hand) {
  std::string all;
  for (const Problem& p : check(s, hand)) all += describe(p) + "\n";
  return all;
}

}  // namespace

TEST_CASE("Every figure stands where statics says") {
  Structure s = crank();
  s.analysis().shear = false;
  const HandCalculation hand{
      .let = {{"L", "length(arm)"},
              {"b", "1 m"},
              {"X", 300_N},
              {"Y", "-200 N"},
              {"Z", "X/3"},
              {"M", 50_N_m},
              {"EI", "E(S235)*Iz(bar)"},
              {"q", "60 N/m"}},
      .expect = {
          {{.kind = Kind::reaction, .of = "A", .part = Part::x}, "-X", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A", .part = Part::y}, "-Y", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A", .part = Part::z}, "-Z", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A"}, "sqrt(X^2 + Y^2 + Z^2)", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A", .part = Part::mx}, "-Z*b", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A", .part = Part::my}, "Z*L - M", "1e-9", "lift"},
          {{.kind = Kind::reaction, .of = "A", .part = Part::mz}, "X*b - Y*L", "1e-9", "lift"},
          {{.kind = Kind::axial, .of = "arm"}, "X", "1e-9", "lift"},
          {{.kind = Kind::axial, .of = "hand"}, "-abs(Y)", "1e-9", "lift"},
          {{.kind = Kind::axial, .of = "hand", .take = Take::min}, "Y", "1e-9", "lift"},
          // The face along +x feels −Vy: up is local y on the arm, Z pulls up on it.
          {{.kind = Kind::shear_y, .of = "arm", .take = Take::start}, "-Z", "1e-9", "lift"},
          {{.kind = Kind::shear_z, .of = "arm", .take = Take::end}, "Y", "1e-9", "lift"},
          {{.kind = Kind::torsion, .of = "arm"}, "Z*b", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .take = Take::max}, "Z*L - M", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .at = "25 %"}, "Z*L*3/4 - M", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .at = HandFormula(0.5_m)}, "Z*L*3/4 - M", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .at = "L - b"}, "Z*b - M", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .take = Take::end}, "-M", "1e-9", "lift"},
          {{.kind = Kind::moment_y, .of = "arm"}, "X*b - Y*L", "1e-9", "lift"},
          {{.kind = Kind::moment_z, .of = "arm", .take = Take::min}, "-q*L^2/2", "1e-9", "sag"},
          {{.kind = Kind::displacement, .of = "B", .part = Part::z}, "-q*L^4/(8*EI)", "1e-9", "sag"},
          {{.kind = Kind::displacement, .of = "B"}, "q*L^4/(8*EI)", "1e-9", "sag"},
          {{.kind = Kind::rotation, .of = "B", .part = Part::y}, "q*L^3/(6*EI)", "1e-9", "sag"},
          {{.kind = Kind::deflection_y, .of = "arm", .take = Take::min}, "-q*L^4/(8*EI)", "1e-9", "sag"},
          {{.kind = Kind::deflection_z, .of = "arm"}, "0 mm", "1e-9 mm", "sag"},
          // The arm hangs over its support: v = q x² (6 L² − 4 L x + x²)/24EI against the root, at the middle.
          {{.kind = Kind::sag, .of = "arm", .at = "50 %"}, "17/384*q*L^4/EI", "1e-9", "sag"},
          {{.kind = Kind::stress, .of = "arm", .take = Take::max}, "q*L^2/2/Wz(arm)", "1e-9", "sag"},
          {{.kind = Kind::stress, .of = "arm", .take = Take::min}, "-q*L^2/2/Wz(bar)", "1e-9", "sag"},
          {{.kind = Kind::stress, .of = "arm", .at = "L/2"}, "q*L^2/8/Wz(bar)", "1e-9", "sag"},
          {{.kind = Kind::stress, .of = "arm", .take = Take::min, .at = "L/2"}, "-q*L^2/8/Wz(bar)", "1e-9", "sag"},
          {{.kind = Kind::stress, .of = "arm", .take = Take::start}, "q*L^2/2/Wz(bar)", "1e-9", "sag"},
          {{.kind = Kind::mass}, "density(S235)*A(bar)*(L + length(hand))", "1e-9"},
      }};
  const Verification v = verified(s, hand);
  REQUIRE(v.comparisons.size() == hand.expect.size());
  for (const Comparison& c : v.comparisons) {
    INFO(c.what << " in " << c.load_case << ": " << c.formula.text << " = " << c.hand.si << ", computed "
                << c.computed.si);
    CHECK(c.agrees);
  }
  CHECK(v.all_agree());
}

TEST_CASE("A figure that differs says by how much, and what it makes one think of") {
  const Structure s = crank();
  const auto compare = [&](Figure f, HandFormula is, HandFormula within) {
    return verified(s, {.expect = {{f, is, within, "lift"}}}).comparisons.at(0);
  };
  const Figure up{.kind = Kind::reaction, .of = "A", .part = Part::z}, size{.kind = Kind::reaction, .of = "A"};
  CHECK(compare(up, "-100 N", "1 %").agrees);
  CHECK(compare(up, "-99.2 N", "1 %").deviation == near(0.8 / 99.2));
  CHECK(compare(up, "-99.2 N", "1 %").agrees);
  CHECK_FALSE(compare(up, "-98.9 N", "1 %").agrees);
  CHECK_FALSE(compare(up, "-99 N", "0.5 %").agrees);
  SECTION("against a quantity the difference is one") {
    const Comparison c = compare(up, "-98 N", "2.1 N");
    CHECK(c.absolute);
    CHECK(c.agrees);
    CHECK(c.deviation == near(-2));
    CHECK_FALSE(compare(up, "-98 N", "1.9 N").agrees);
    CHECK(compare({.kind = Kind::reaction, .of = "A", .part = Part::mx}, "0 N*m", "101 N*m").agrees);
  }
  SECTION("a wrong sign") {
    CHECK_THAT(compare(up, "100 N", "1 %").remark, Catch::Contains("opposite sign"));
    CHECK_THAT(compare(size, "-374.17 N", "1 %").remark, Catch::Contains("no sign"));
  }
}

TEST_CASE("A usual slip is named beside the value that it spoils") {
  const Structure s = crank();
  const auto [formula, words] =
      GENERATE(table<const char*, const char*>({{"-50 N", "just twice the hand value"},
                                                {"-200 N", "just half"},
                                                {"-100 kN", "a thousandth of the hand value (units?)"},
                                                {"-10.1972 N", "gn times the hand value (mass instead of weight?)"},
                                                {"-800 N", "an eighth of the hand value (radius instead of diameter"},
                                                {"-73 N", ""}}));
  const Figure up{.kind = Kind::reaction, .of = "A", .part = Part::z};
  const Comparison c = verified(s, {.expect = {{up, formula, "1 %", "lift"}}}).comparisons.at(0);
  CHECK_FALSE(c.agrees);
  CHECK_THAT(c.remark, Catch::Contains(words));
  if (std::string(words).empty()) CHECK(c.remark.empty());
}

TEST_CASE("Where shear deformation alone keeps them apart it is said") {
  Structure s = Structure::plane("stub");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0.3_m, 0_m);
  const auto tube = s.section("tube", SquareTube{.width = 100_mm, .wall = 4_mm});
  s.member("stub", {a, b}, {.section = tube, .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("load").at(b, Force{.y = -10_kN});
  const Figure down{.kind = Kind::displacement, .of = "B", .part = Part::y};
  const HandCalculation hand{.expect = {{down, "-10 kN*length(stub)^3/(3*E(stub)*Iz(stub))"},
                                        {down, "-0.3*10 kN*length(stub)^3/(3*E(stub)*Iz(stub))"}}};
  const Verification v = verified(s, hand);
  CHECK_THAT(v.comparisons[0].remark, Catch::Contains("without shear deformation it would agree"));
  CHECK(v.comparisons[1].remark.empty());
  s.analysis().shear = false;
  CHECK(verified(s, hand).comparisons[0].agrees);
}

TEST_CASE("Formulas ask for figures of materials, sections and members") {
  Structure s = crank();
  const auto tube = s.section("tube (old)", RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm});
  const SectionProperties& p = s.sections()[tube.index].section.properties();
  const auto [formula, expected] = GENERATE_COPY(table<const char*, Quantity>(
      {{"E(S235)", 210_GPa},
       {"E(arm)", 210_GPa},
       {"G(S235)", material("S235").shear_modulus()},
       {"yield(hand)", 265_MPa},                      // thicker than 16 mm
       {"density(S355)", *material("S355").density},  // built in, used nowhere
       {"expansion(S235)", material("S235").expansion},
       {"A(tube (old))", p.A},
       {"Ay( tube (old) )", p.Ay},
       {"Az(tube (old))", p.Az},
       {"Iy(tube (old))", p.Iy},
       {"Iz(tube (old))", p.Iz},
       {"J(tube (old))", p.J},
       {"Wy(tube (old))", p.Wy},
       {"Wz(tube (old))", p.Wz},
       {"A(hand)", 1000_mm2},
       {"length(hand)", 1_m},
       {"2*Wz(bar)*(1 + length(hand)/length(arm))", 3.0 * s.sections()[0].section.properties().Wz}}));
  INFO(formula);
  const Verification v = verified(s, {.let = {{"value", formula}}});
  CHECK(v.values.at(0).value.si == near(expected.si));
  CHECK(v.values.at(0).value.dimension == expected.dimension);
}

TEST_CASE("With its numbers put in a formula is a formula of the same value") {
  const Structure s = crank();
  const auto formula =
      GENERATE("P/2 + q*L/2", "q*L^2/8", "P*L^3/(48*E(S235)*Iz(bar))", "P/q", "P/q/L", "-P", "down - P", "P*-down/P",
               "L²*q", "q^2*L^2/P", "P/(q*L)*q", "2*q", "M/L", "P/M*P", "sqrt(P^2 + down^2)", "max(P, -down)", "M/q",
               "(P)", "k*P", "P*k^2", "L^k*q", "density(S235)*gn*A(bar)", "expansion(S235)*L*20 K", "P/expansion(S235)",
               "E(S235)*Iz(bar)/L^2");
  const Verification v = verified(s, {.let = {{"P", "3.2 kN"},
                                              {"down", "-1.6 kN"},
                                              {"q", "0.8 kN/m"},
                                              {"L", "2400 mm"},
                                              {"M", "1.5 kN*m"},
                                              {"k", "-2"},
                                              {"value", formula}}});
  const WorkedValue& value = v.values.back();
  const auto write = [](const Quantity& q) {
    // Units as a person may write them, some of them quotients and products.
    for (const auto& [unit, name] : {std::pair<Quantity, const char*>{kN, "kN"},
                                     {kN_per_m, "kN/m"},
                                     {kN_m, "kN·m"},
                                     {mm, "mm"},
                                     {MPa, "MPa"},
                                     {cm4, "cm⁴"},
                                     {cm2, "cm²"},
                                     {kg_m3, "kg/m^3"},
                                     {per_K, "/K"}})
      if (unit.dimension == q.dimension) return std::to_string(q.si / unit.si) + " " + name;
    return std::to_string(q.si);
  };
  const std::string numbers = with_numbers(value.formula, write);
  INFO(formula << " became " << numbers);
  const auto again = evaluate(numbers, Scope());
  REQUIRE(again.ok());
  CHECK(again->quantity.dimension == value.value.dimension);
  CHECK(again->quantity.si == Approx(value.value.si).epsilon(2e-2));
}

TEST_CASE("Slips of a hand calculation are told with what was expected") {
  const Structure s = crank();
  const auto [e, message] = GENERATE(table<Expectation, std::string>({
      {{{.kind = Kind::reaction, .of = "a"}, "1 N", "1 %", "lift"},
       "expectation 1: error: there is no point 'a'; did you mean 'A'?"},
      {{{.kind = Kind::reaction, .of = "B"}, "1 N", "1 %", "lift"}, "there is no support at 'B'"},
      {{{.kind = Kind::axial, .of = "arms"}, "1 N", "1 %", "lift"}, "there is no member 'arms'; did you mean 'arm'?"},
      {{{.kind = Kind::axial, .of = "arm"}, "1 N", "1 %", "lif"}, "there is no load case 'lif'; did you mean 'lift'?"},
      {{{.kind = Kind::axial, .of = "arm"}, "1 N"}, "there are 2 load cases; name one, for example case: lift"},
      {{{.kind = Kind::mass}, "1 kg", "1 %", "lift"}, "the same in all load cases"},
      {{{.kind = Kind::axial, .of = "arm"}, "1 N*m", "1 %", "lift"}, "'1 N*m' is a moment; a force was expected"},
      {{{.kind = Kind::axial, .of = "arm"}, "2", "1 %", "lift"},
       "'2' has no unit; a force was expected, for example 3.2 kN"},
      {{{.kind = Kind::axial, .of = "arm"}, "2 N/1 N", "1 %", "lift"},
       "is a dimensionless number, since its units cancel"},
      {{{.kind = Kind::axial, .of = "arm"}, "0 N", "1 %", "lift"}, "give the allowed difference as a force"},
      {{{.kind = Kind::axial, .of = "arm"}, "1 N", "1 mm", "lift"},
       "'1 mm' is a length; a share, for example 1 %, or a force"},
      {{{.kind = Kind::axial, .of = "arm"}, "1 N", "-1 %", "lift"}, "cannot be negative"},
      {{{.kind = Kind::axial, .of = "arm", .at = "2.1 m"}, "1 N", "1 %", "lift"},
       "2.1 m is not on member 'arm', which is 2 m long"},
      {{{.kind = Kind::axial, .of = "arm", .at = "2 kN"}, "1 N", "1 %", "lift"}, "a place on the member was expected"},
      {{{.kind = Kind::axial, .of = "arm", .take = Take::max, .at = "1 m"}, "1 N", "1 %", "lift"},
       "a single place has one value"},
      {{{.kind = Kind::axial, .of = "arm", .take = Take::start, .at = "1 m"}, "1 N", "1 %", "lift"},
       "given by 'at' already"},
      {{{.kind = Kind::rotation, .of = "B", .part = Part::my}, "1 rad", "1 %", "lift"}, "a part of a reaction only"},
      {{{.kind = Kind::axial, .of = "arm"}, "F", "1 %", "lift"}, "'F': 'F' is neither a parameter nor a unit"},
      {{{.kind = Kind::axial, .of = "arm"}, "E(S23)*A(bar)", "1 %", "lift"},
       "there is no material or member 'S23'; did you mean 'S235'?"},
      {{{.kind = Kind::axial, .of = "arm"}, "E()", "1 %", "lift"}, "a name was expected in the brackets of 'E'"},
      {{{.kind = Kind::axial, .of = "arm"}, "E(S235", "1 %", "lift"}, "this bracket is not closed"},
      {{{.kind = Kind::stress, .of = "arm"}, "allowable(S235)", "1 %", "lift"}, "neither a parameter nor a unit"},
  }));
  CHECK_THAT(told(s, {.expect = {e}}), Catch::Contains(message));
}

TEST_CASE("Slips among the names of a hand calculation") {
  const Structure s = crank();
  const auto [values, message] = GENERATE(table<std::vector<HandValue>, std::string>({
      {{{"a", "b"}, {"b", "a"}}, "circular definition of 'a'"},
      {{{"a", "1 m"}, {"a", "2 m"}}, "the name 'a' is used for another value already"},
      {{{"m", "1"}}, "'m' is a unit"},
      {{{"sin", "1"}}, "'sin' is a function"},
      {{{"a", "1 m + 1 N"}}, "hand value a: error: '1 m + 1 N': a length and a force cannot be added"},
  }));
  CHECK_THAT(told(s, {.let = values}), Catch::Contains(message));
  SECTION("a wrong value is told once, not at each use") {
    const Expectation use{{.kind = Kind::mass}, "2*a*1 kg"};
    const Problems problems = check(s, {.let = {{"a", "1 m + 1 N"}}, .expect = {use, use}});
    CHECK(problems.size() == 1);
  }
}

TEST_CASE("A name borne by a section and by a member is told where they differ") {
  Structure s = crank();
  const auto thin = s.section("arm", RectangularBar{.height = 10_mm, .width = 10_mm});
  const auto b = s.find_point("B"), d = s.find_point("C");
  s.member("thin", {*b, *d}, {.section = thin, .material = material("S235")});
  s.member("bar", {*b, *d}, {.section = SectionId{0}, .material = material("S235")});
  CHECK_THAT(told(s, {.let = {{"x", "A(arm)"}}}), Catch::Contains("both named 'arm', and their A differ"));
  CHECK(told(s, {.let = {{"x", "A(bar)"}}}).empty());
}

TEST_CASE("In the plane only what exists there can be compared") {
  Structure s = Structure::plane("post");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 1_m);
  const auto bar = s.section("bar", RoundBar{.diameter = 20_mm});
  s.member("post", {a, b}, {.section = bar, .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("push").at(b, Force{.x = 10_N});
  const auto problem = [&](Kind kind, Part part) {
    return told(s, {.expect = {{{.kind = kind, .of = "A", .part = part}, "0", "1 N"}}});
  };
  CHECK_THAT(problem(Kind::reaction, Part::z), Catch::Contains("a plane structure has no such part"));
  CHECK_THAT(problem(Kind::reaction, Part::mx), Catch::Contains("no such part"));
  CHECK_THAT(problem(Kind::rotation, Part::x), Catch::Contains("a rotation is about z"));
  // One case needs no name; a plain number where an angle is expected means radians.
  const Verification v = verified(
      s, {.expect = {
              {{.kind = Kind::rotation, .of = "B", .part = Part::z}, "-10 N*(1 m)^2/(2*E(S235)*Iz(bar))", "1e-9"}}});
  CHECK(v.all_agree());
}

TEST_CASE("A stress that the section does not tell does not agree, and says so") {
  Structure s = Structure::plane("beam");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m);
  const auto given = s.section("given", GivenProperties{.A = 10_cm2, .Iz = 100_cm4});
  s.member("beam", {a, b}, {.section = given, .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("load").at(b, Force{.y = -1_kN});
  const Comparison c = verified(s, {.expect = {{{.kind = Kind::stress, .of = "beam"}, "10 MPa"}}}).comparisons.at(0);
  CHECK_FALSE(c.agrees);
  CHECK_THAT(c.remark, Catch::Contains("does not define the stress"));
  CHECK_THAT(told(s, {.let = {{"W", "Wz(given)"}}}), Catch::Contains("Wz of 'given' is not known"));
}

}  // namespace tests_of_hand_verify
