// Deflection: every reading that may be meant is evaluated, and the worst ratio counts.
#include <cmath>
#include <corvex/corvex.hpp>

#include "support/near.hpp"

namespace tests_of_result_sag {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

const Section tube = RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm};
using Reading = Stretch::Reading;
using Between = std::pair<std::string, std::string>;

Solution solved(const Structure& s) {
  Solution solution = solve(s);
  INFO((solution.ok() ? "" : solution.problems().front().text));
  REQUIRE(solution.ok());
  return solution;
}

Verdict verdict(const Structure& s, const std::string& member, Limit::Kind kind = Limit::Kind::sag,
                Required required = 1.0 / 300) {
  const auto check = check_limits(solved(s), {{.kind = kind, .required = required, .on = {member}}});
  REQUIRE(check.ok());
  REQUIRE(check->verdicts.size() == 1);
  return check->verdicts.front();
}

// A beam of 6 m on two rigid supports, with a spring (N/m) or a rigid support at its middle.
Structure with_middle(double stiffness, bool rigid = false) {
  Structure s = Structure::plane("beam");
  const auto section = s.section("tube", tube);
  const auto a = s.point("A", 0_m, 0_m), m = s.point("M", 3_m, 0_m), b = s.point("B", 6_m, 0_m);
  s.member("beam", {a, m, b}, {.section = section, .material = material("S235")});
  s.support(a, Support::pinned());
  s.support(b, Support::roller());
  if (rigid) s.support(m, Support::roller());
  if (stiffness > 0) s.support(m, Support().spring({.y = Stiffness::si(stiffness)}));
  s.load_case("load").line(MemberId(0), LineForce{.y = -1_kN_per_m});
  return s;
}

double chord_ratio(const Structure& s, Length from, Length to) {
  return solved(s)[0]["beam"].sag_between(from, to).value.si / (to - from).si();
}

}  // namespace

TEST_CASE("A soft spring is no support of a deflection, a rigid support is one") {
  const double without = verdict(with_middle(0), "beam").value->si;
  CHECK(verdict(with_middle(1), "beam").value->si == Approx(without).epsilon(1e-4));
  const Verdict rigid = verdict(with_middle(0, true), "beam");
  CHECK(rigid.value->si < without / 10);
  // With a rigid support the long pair is harmless by itself.
  CHECK(rigid.between->first + rigid.between->second != "AB");
  CHECK(verdict(with_middle(1e12), "beam").value->si == Approx(rigid.value->si).epsilon(1e-4));
}

TEST_CASE("The verdict falls as a spring becomes stiffer, and is never better than the worse of both readings") {
  double before = 1;
  for (double stiffness = 1; stiffness <= 1e12; stiffness *= 3) {
    const Structure s = with_middle(stiffness);
    const double value = verdict(s, "beam").value->si;
    CHECK(value <= before * (1 + 1e-9));
    before = value;
    const double whole = chord_ratio(s, 0_m, 6_m), half = chord_ratio(s, 0_m, 3_m);
    CHECK(value >= std::max(whole, half) * (1 - 1e-9));
  }
}

TEST_CASE("What hangs from a beam does not change its reading: a load on a stub, and the same load on the beam") {
  const auto beam_of = [](bool stub) {
    Structure s = Structure::plane("beam");
    const auto section = s.section("tube", tube);
    const Material steel = material("S235");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m), c = s.point("C", 4_m, 0_m),
               d = s.point("D", 2_m, -0.5_m);
    s.member("beam", {a, b, c}, {.section = section, .material = steel});
    if (stub) s.member("stub", {b, d}, {.section = section, .material = steel});
    s.support(a, Support::pinned());
    s.support(c, Support::roller());
    s.load_case("load").at(stub ? d : b, Force{.y = -2_kN});
    return s;
  };
  const Verdict hanging = verdict(beam_of(true), "beam"), direct = verdict(beam_of(false), "beam");
  CHECK(hanging.between == Between("A", "C"));
  CHECK(hanging.value->si == near(direct.value->si));
  CHECK(hanging.state == Verdict::State::exceeded);
  // The result says the same.
  const Solution solution = solved(beam_of(true));
  const MemberResult beam = solution[0]["beam"];
  CHECK(beam.sag().value.si == near(hanging.value->si * 4));
  CHECK(beam.sag_at(2_m).si() == near(beam.sag().value.si));
  CHECK(beam.governing_stretch().reading == Reading::chord);
}

TEST_CASE("A free end is read against every candidate: the overhang over its length") {
  Structure s = Structure::plane("rail");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  const auto a = s.point("A", 0_m, 0_m), c = s.point("C", 4_m, 0_m), tip = s.point("T", 4.8_m, 0_m),
             hook = s.point("H", 4.8_m, -0.2_m);
  s.member("rail", {a, c, tip}, {.section = section, .material = steel});
  s.member("hook", {tip, hook}, {.section = section, .material = steel});
  s.support(a, Support::pinned());
  s.support(c, Support::roller());
  s.load_case("load").at(hook, Force{.y = -3_kN});
  const Verdict v = verdict(s, "rail");
  // A hook at the tip leaves it free.
  CHECK(v.note == "overhang");
  CHECK(v.between == Between("C", "T"));
  const CaseResult r = solved(s)[0];
  CHECK(v.value->si == near(std::abs(r.displacement("T").y.si() - r.displacement("C").y.si()) / 0.8));
}

TEST_CASE("Two cantilevers tied at their tips: the light tie does not hide how far the loaded tip falls") {
  const auto balcony = [](bool tied) {
    Structure s = Structure::space("balcony");
    const auto arm = s.section("arm", tube),
               light = s.section("light", Section(SquareTube{.width = 30_mm, .wall = 2.5_mm}));
    const Material steel = material("S235");
    const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 1.5_m, 0_m, 0_m), c = s.point("C", 0_m, 0.8_m, 0_m),
               d = s.point("D", 1.5_m, 0.8_m, 0_m);
    s.member("front", {a, b}, {.section = arm, .material = steel});
    s.member("back", {c, d}, {.section = arm, .material = steel});
    if (tied) s.member("tie", {b, d}, {.section = light, .material = steel});
    s.support(a, Support::fixed());
    s.support(c, Support::fixed());
    s.load_case("load").line(MemberId(0), LineForce{.z = -4_kN_per_m});
    return s;
  };
  const Verdict tied = verdict(balcony(true), "front"), alone = verdict(balcony(false), "front");
  const CaseResult r = solved(balcony(true))[0];
  CHECK(tied.value->si == near(std::abs(r.displacement("B").z.si()) / 1.5));
  CHECK(tied.note == "difference of the ends");
  CHECK(tied.value->si > 0.4 * alone.value->si);
}

TEST_CASE("A grillage: the main beams are read over their whole length, the cross beams between them") {
  Structure s = Structure::space("grillage");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  std::vector<PointId> left, right;
  for (int i = 0; i <= 4; ++i) {
    left.push_back(s.point("L" + std::to_string(i), Length::si(i), 0_m, 0_m));
    right.push_back(s.point("R" + std::to_string(i), Length::si(i), 2_m, 0_m));
  }
  s.member("main", left, {.section = section, .material = steel});
  s.member("other main", right, {.section = section, .material = steel});
  for (std::size_t i = 1; i <= 3; ++i)
    s.member("cross" + std::to_string(i), {left[i], right[i]}, {.section = section, .material = steel});
  for (const PointId p : {left.front(), left.back(), right.front(), right.back()}) s.support(p, Support::fixed());
  LoadsOf floor = s.load_case("floor");
  for (std::size_t i = 2; i < 5; ++i) floor.line(MemberId(i), LineForce{.z = -4_kN_per_m});
  const Verdict main = verdict(s, "main"), cross = verdict(s, "cross2");
  CHECK(main.between == Between("L0", "L4"));
  const double whole = solved(s)[0]["main"].sag_between(0_m, 4_m).value.si / 4;
  CHECK(main.value->si >= whole * (1 - 1e-9));
  CHECK(cross.between == Between("L2", "R2"));
}

TEST_CASE("Both legs of a symmetric portal are read alike, and the sway of a leg is its drift") {
  Structure s = Structure::plane("portal");
  const auto section = s.section("tube", tube);
  const Material steel = material("S235");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 3_m), c = s.point("C", 4_m, 3_m),
             d = s.point("D", 4_m, 0_m);
  s.member("left", {a, b}, {.section = section, .material = steel});
  s.member("right", {d, c}, {.section = section, .material = steel});
  s.member("rail", {b, c}, {.section = section, .material = steel});
  s.support(a, Support::fixed());
  s.support(d, Support::fixed());
  s.load_case("wind").at(b, Force{.x = 1_kN}).at(c, Force{.x = 1_kN});
  CHECK(verdict(s, "left").value->si == near(verdict(s, "right").value->si));
  const Verdict drift = verdict(s, "left", Limit::Kind::drift, 1.0 / 150);
  const CaseResult r = solved(s)[0];
  CHECK(drift.value->si == near(std::abs(r.displacement("B").x.si()) / 3));
  // As a length too.
  const Verdict length = verdict(s, "left", Limit::Kind::drift, Length::si(0.01));
  CHECK(length.value->si == near(std::abs(r.displacement("B").x.si())));
}

TEST_CASE("Of many supports the worst pair is found as by evaluating all of them") {
  unsigned state = 7;
  const auto random = [&] { return static_cast<double>((state = state * 1664525u + 1013904223u) >> 8) / 16777216.0; };
  for (int round = 0; round < 20; ++round) {
    Structure s = Structure::plane("beam");
    const auto section = s.section("tube", tube);
    std::vector<PointId> line;
    for (int i = 0; i < 12; ++i) line.push_back(s.point("P" + std::to_string(i), Length::si(i), 0_m));
    s.member("beam", line, {.section = section, .material = material("S235")});
    s.support(line.front(), Support::pinned());
    for (std::size_t i = 1; i < line.size(); ++i)
      s.support(line[i], Support().spring({.y = Stiffness::si(std::pow(10, 3 + 6 * random()))}));
    s.load_case("load").line(MemberId(0), LineForce{.y = -2_kN_per_m}).at(line[5], Force{.y = -3_kN});
    const Solution solution = solved(s);
    const MemberResult beam = solution[0]["beam"];
    double worst = 0;
    for (const Stretch& one : beam.stretches()) worst = std::max(worst, one.ratio());
    CHECK(beam.governing_stretch().ratio() == near(worst));
  }
}

TEST_CASE("A limit of sag may be a length") {
  const Structure s = with_middle(0);
  const Verdict v = verdict(s, "beam", Limit::Kind::sag, 5_mm);
  CHECK(v.value->dimension == dimension::length);
  CHECK(v.value->si == near(solved(s)[0]["beam"].sag().value.si));
  CHECK(v.state == Verdict::State::exceeded);
}

}  // namespace tests_of_result_sag
