// What a verdict covers: the cases in which it once said "met" although a part was not computed.
#include <cmath>
#include <corvex/corvex.hpp>
#include <corvex/file.hpp>
#include <numbers>
#include <random>

#include "oracle/fine_modes.hpp"
#include "support/models.hpp"
#include "support/near.hpp"

namespace tests_of_stability_verdicts {

using namespace corvex;
using namespace corvex::test;
using namespace corvex::literals;
using namespace corvex::units;
using std::numbers::pi;
using State = Verdict::State;

namespace {

using Random = std::mt19937;
double between(Random& random, double a, double b) {
  return a + (b - a) * (static_cast<double>(random()) / 4294967296.0);
}

Model model_of(const std::string& text) {
  const auto model = read_model_text("corvex: 1\nunits: {length: mm, force: kN}\n" + text, "model.yaml");
  INFO((model ? "" : describe(model.error().front())));
  REQUIRE(model.ok());
  return *model;
}

Verdict verdict_of(const Model& m) {
  const Solution solution = solve(m.structure);
  INFO((solution.ok() ? "" : describe(solution.problems().front())));
  REQUIRE(solution.ok());
  const auto check = check_limits(solution, m.limits);
  INFO((check ? "" : describe(check.error().front())));
  REQUIRE(check.ok());
  return check->verdicts.front();
}

const std::string portal = R"(
points: {A: [0, 0], B: [0, 3500], D: [4000, 3500], E: [4000, 0]}
members:
  legs: {each: [[A, B], [E, D]], section: leg, material: S235}
  rail: {through: [B, D], section: leg, material: S235}
  tie: {through: [A, E], section: tie, material: S235, kind: link}
supports: {A: pinned, E: roller}
loads: {press: [{at: [B, D], force: {down: 20}}, {on: rail, line: {down: 1 kN/m}}]}
limits: [{buckling: 3}]
)";

}  // namespace

TEST_CASE("A link given by its area is a straight bar in the search for load factors") {
  const Verdict by_area =
      verdict_of(model_of("sections: {leg: SHS 60x60x4, tie: {shape: properties, A: 201.0619 mm^2}}" + portal));
  const Verdict rod = verdict_of(model_of("sections: {leg: SHS 60x60x4, tie: ROUND 16}" + portal));
  CHECK(by_area.state == State::exceeded);
  CHECK(by_area.value->si == Approx(rod.value->si).epsilon(1e-5));
  CHECK(rod.value->si == Approx(0.594).epsilon(1e-3));
}

TEST_CASE("A link in compression without a second moment of area is not checked, with its name") {
  const Verdict v = verdict_of(model_of(R"(
sections: {leg: SHS 60x60x4, st: {shape: properties, A: 200 mm^2}}
points: {A: [0, 0], B: [3000, 0], C: [0, -3000]}
members: {beam: {through: [A, B], section: leg, material: S235}, strut: {through: [C, B], section: st, material: S235, kind: link}}
supports: {A: pinned, C: pinned}
bracing: [{on: all, at: B}]
loads: {press: [{at: B, force: {down: 20}}]}
limits: [{buckling: 3}]
)"));
  CHECK(v.state == State::not_checked);
  CHECK_FALSE(v.value);
  CHECK(v.note.find("'strut': its section has no second moment of area") != std::string::npos);
}

TEST_CASE("Tightened slender stays hide no load factor") {
  // Own calculation: 1.476 and 1.408.
  CHECK(verdict_of(model_of(R"(
sections: {mast: CHS 139.7x5, rope: ROUND 3}
points: {A: [0, 0], T: [0, 40000], L: [-40000, 0], R: [40000, 0]}
members:
  mast: {through: [A, T], section: mast, material: S235}
  guys: {each: [[L, T], [R, T]], section: rope, material: S355, kind: link, acts: tension}
supports: {A: pinned, L: pinned, R: pinned}
loads: {service: [{on: guys, shorten: 60 mm}, {at: T, force: {down: 2}}]}
limits: [{buckling: 3}]
)"))
            .value->si == Approx(1.476).epsilon(1e-3));
  CHECK(verdict_of(model_of(R"(
materials: {rope: {E: 110 GPa, density: 7850 kg/m^3, yield: 1000 MPa, poisson: 0.3}}
sections: {mast: CHS 114.3x5, stay: {shape: properties, A: 45 mm^2, Iy: 5 mm^4, Iz: 5 mm^4, J: 10 mm^4}}
points: {A: [0, 0], T: [0, 12000], L: [-12000, 0], R: [12000, 0]}
members:
  mast: {through: [A, T], section: mast, material: S235}
  stays: {each: [[L, T], [R, T]], section: stay, material: rope, kind: link, acts: tension}
supports: {A: pinned, L: pinned, R: pinned}
loads: {service: [{on: stays, shorten: 40 mm}, {at: T, force: {down: 10}}]}
limits: [{buckling: 3}]
)"))
            .value->si == Approx(1.408).epsilon(1e-3));
}

TEST_CASE("Random frames with area-only links and tightened stays against dense models") {
  Random random(7);
  for (int i = 0; i < 200; ++i) {
    INFO("frame " << i);
    // A mast with a cross bar, stayed by links whose stiffness lies up to 1e9 below that of the mast.
    Structure s = Structure::plane("mast");
    const double slender = std::pow(10, between(random, -9, -1));
    const Section bar = RoundBar{.diameter = 60_mm};
    const AreaProperties p = bar.area_properties();
    const bool area_only = i % 2 == 0;
    GivenProperties stay{.A = Area::si(p.A.si() * between(random, 0.01, 1))};
    if (!area_only)
      stay.Iy = stay.Iz = SecondMoment::si(p.Iz.si() * slender), stay.J = SecondMoment::si(2 * p.Iz.si() * slender);
    const auto mast = s.section("mast", bar), rope = s.section("rope", Section(Shape(stay)));
    const double H = between(random, 2, 6);
    const auto a = s.point("A", 0_m, 0_m), m = s.point("M", 0_m, Length::si(H * between(random, 0.3, 0.7))),
               t = s.point("T", 0_m, Length::si(H)), l = s.point("L", Length::si(-between(random, 1, H)), 0_m),
               r = s.point("R", Length::si(between(random, 1, H)), 0_m);
    s.member("mast", {a, m, t}, {.section = mast, .material = material("S235")});
    const MemberOptions link{.section = rope, .material = material("S235"), .kind = MemberKind::link};
    s.member("left", {l, t}, link);
    s.member("right", {r, t}, link);
    s.member("low", {l, m}, link);
    for (const PointId at : {a, l, r}) s.support(at, Support::pinned());
    s.analysis().shear = false;
    LoadsOf loads = s.load_case("case");
    loads.at(t, Force{.y = ForceSize::si(-between(random, 5e3, 20e3))});
    for (const std::size_t k : {1U, 2U, 3U}) loads.shorten(MemberId(k), Length::si(between(random, 0.002, 0.008)));
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    const auto found = modes(solution, {.buckling = {{"case", 1}}});
    REQUIRE(found.ok());
    // Links that are in compression buckle by themselves, which a straight bar of the dense model does not show.
    bool tension = true;
    for (const std::size_t k : {1U, 2U, 3U}) tension = tension && solution[0][MemberId(k)].axial().min().value.si() > 0;
    if (!tension) continue;
    const std::vector<double> dense = fine_factors(solution, 0, 8, 1);
    const auto& modes_found = found->buckling.front().modes;
    REQUIRE(dense.size() == 1);
    REQUIRE(modes_found.size() == 1);
    CHECK(modes_found.front().factor == Approx(dense.front()).epsilon(1e-3));
  }
}

TEST_CASE("Frames without mass have as many frequencies as their masses give") {
  Random random(11);
  for (int i = 0; i < 200; ++i) {
    INFO("frame " << i);
    Structure s = Structure::plane("frame");
    Material weightless = material("S235");
    weightless.name = "weightless", weightless.density = Density();
    const auto bar = s.section("bar", Section(SquareTube{.width = 60_mm, .wall = 4_mm}));
    std::vector<PointId> line;
    const std::size_t n = 3 + random() % 3;
    for (std::size_t k = 0; k < n; ++k)
      line.push_back(
          s.point("P" + std::to_string(k), Length::si(static_cast<double>(k) * between(random, 1, 1.05)), 0_m));
    s.member("beam", line, {.section = bar, .material = weightless});
    s.support(line.front(), Support::fixed());
    s.support(line.back(), Support::roller());
    std::size_t wanted = 0;
    for (std::size_t k = 1; k + 1 < n; ++k)
      if (random() % 2) {
        const bool turns = random() % 2;
        MassBody body;
        if (turns) body.about_z = MassInertia::si(between(random, 0.1, 2));
        s.point_mass(line[k], Mass::si(between(random, 5, 50)), body);
        wanted += turns ? 3 : 2;
      }
    const auto found = modes(s, {.vibration = 12});
    REQUIRE(found.ok());
    REQUIRE(found->possible);
    CHECK(*found->possible == wanted);
    CHECK(found->vibration.size() == wanted);
    // The product of the squares is det K / det M of the condensed problem: no figure is out of bounds.
    for (const VibrationMode& m : found->vibration) CHECK((m.frequency.si() > 1 && m.frequency.si() < 1e5));
  }
}

TEST_CASE("One-way members without force do not resist: the factor is 0, and that with them is reported beside") {
  const Model m = model_of(R"(
sections: {col: SHS 60x60x4, rod: ROUND 2}
points: {A: [0, 0], B: [0, 2000], L: [-16000, 2000], R: [8000, 2000]}
members:
  col: {through: [A, B], section: col, material: S235}
  ropes: {each: [[L, B], [R, B]], section: rod, material: S235, kind: link, acts: tension}
supports: {A: pinned, L: pinned, R: pinned}
loads: {press: [{at: B, force: {down: 60}}]}
limits: [{buckling: 1.5}]
)");
  const Verdict v = verdict_of(m);
  CHECK(v.state == State::exceeded);
  CHECK(v.value->si == 0);
  CHECK(v.note.find("3.73") != std::string::npos);
  // Tightened, they resist.
  Model tight = m;
  tight.structure.loads_of("press").shorten(MemberId(1), 5_mm).shorten(MemberId(2), 5_mm);
  CHECK(verdict_of(tight).value->si > 1);
}

TEST_CASE("Frequencies without a case leave out members that act one way only, and report both") {
  const Model m = model_of(R"(
materials: {wire: {like: S355, density: 0}}
sections: {col: SHS 80x80x4, rod: ROUND 6}
points: {A: [0, 0], B: [0, 1500], D: [1500, 1500], E: [1500, 0]}
members:
  legs: {each: [[A, B], [E, D]], section: col, material: S235}
  rail: {through: [B, D], section: col, material: S235, hinge: both}
  x: {each: [[A, D], [E, B]], section: rod, material: wire, kind: link, acts: tension}
supports: {A: pinned, E: pinned}
masses: {B: 1500 kg, D: 1500 kg}
loads: {push: [{at: B, force: {x: 1}}]}
)");
  const auto found = modes(m.structure, {.vibration = 1});
  REQUIRE(found.ok());
  CHECK(found->untensioned.size() == 2);
  CHECK(found->vibration.front().is_free);
  REQUIRE(found->if_all_acted);
  CHECK(found->if_all_acted->si() == Approx(4.822).epsilon(1e-3));
  // Under the push one of them acts.
  const auto under = modes(m.structure, {.vibration = 1, .under = "push"});
  CHECK(under->vibration.front().frequency.si() == Approx(3.44).epsilon(0.01));
}

TEST_CASE("The state of one-way members that nothing decides is reported") {
  const Model m = model_of(R"(
sections: {col: HEA 100, beam: IPE 160, rod: ROUND 16}
defaults: {material: S235}
points: {A: [0, 0], B: [0, 3000], C: [4000, 3000], D: [4000, 0]}
members:
  left: {through: [A, B], section: col}
  right: {through: [D, C], section: col}
  beam: {through: [B, C], section: beam, hinge: both}
  rod: {each: [[A, C], [D, B]], section: rod, kind: link, acts: tension}
supports: {A: pinned, D: pinned}
loads: {vertical: [{at: [B, C], force: {down: 60}}], wind: [{at: B, force: {x: 5}}]}
)");
  const Problems notes = solve(m.structure).notes();
  const auto about = [&](const std::string& load_case) {
    return std::count_if(notes.begin(), notes.end(), [&](const Problem& p) {
      return p.finding == "ambiguous-slack" && p.subject.name == load_case;
    });
  };
  CHECK(about("vertical") == 1);
  CHECK(about("wind") == 0);
}

TEST_CASE("A critical load factor below 10 is reported with every solution, of every order") {
  const auto column = [](double kN, Order order) {
    Structure s = Structure::plane("column");
    const auto id = s.section("col", Section(SquareTube{.width = 60_mm, .wall = 4_mm}));
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 4_m);
    s.member("col", {a, b}, {.section = id, .material = material("S235")});
    s.support(a, Support::fixed());
    s.analysis().order = order, s.analysis().shear = false;
    s.load_case("press").at(b, Force{.y = ForceSize::si(-kN * 1e3)});
    return s;
  };
  const Structure s = column(1, Order::first);
  const double EI = 210e9 * s.sections()[0].section.properties().Iz.si(), critical = pi * pi * EI / 64;
  for (const Order order : {Order::first, Order::second, Order::large})
    for (const double share : {0.05, 0.2, 0.9}) {
      const Solution solution = solve(column(critical * share / 1e3, order));
      REQUIRE(solution.ok());
      const auto found = solution[0].critical_load();
      REQUIRE(found);
      CHECK(found->examined);
      CHECK(found->factor.has_value() == (share > 0.1));
      if (found->factor) CHECK(*found->factor == Approx(1 / share).epsilon(1e-6));
      const bool noted = std::any_of(solution.notes().begin(), solution.notes().end(),
                                     [](const Problem& p) { return p.finding == "low-critical-load"; });
      CHECK(noted == (share > 0.1));
    }
  const Solution beyond = solve(column(critical * 3.5 / 1e3, Order::first));
  CHECK(beyond[0].critical_load()->description == "sway of 'B' along x");
}

TEST_CASE("Shallow frames: not met beyond the limit point of large displacements, met below") {
  // Two bars of length l at a height h over their feet: equilibrium ends at 2 EA (h/l)³/(3 √3) for small h.
  for (const double h : {0.04, 0.06, 0.1})
    for (const bool beams : {false, true}) {
      INFO("height " << h << (beams ? ", beams" : ", links"));
      Structure s = Structure::plane("toggle");
      const auto id = s.section("bar", Section(SquareTube{.width = 40_mm, .wall = 3_mm}));
      const auto a = s.point("A", -1_m, 0_m), t = s.point("T", 0_m, Length::si(h)), b = s.point("B", 1_m, 0_m);
      const MemberOptions bar{
          .section = id, .material = material("S355"), .kind = beams ? MemberKind::beam : MemberKind::link};
      s.member("left", {a, t}, bar);
      s.member("right", {b, t}, bar);
      for (const PointId p : {a, b}) s.support(p, beams ? Support::fixed() : Support::pinned());
      s.brace("left"), s.brace("right");
      s.load_case("press").at(t, Force{.y = -1_kN});
      // The limit point with large displacements: the share of a load beyond it at which equilibrium ends.
      Structure loaded = s;
      loaded.analysis().order = Order::large;
      constexpr double beyond = 3000;
      loaded.loads_of("press").clear().at(t, Force{.y = ForceSize::si(-beyond * 1e3)});
      const Solution refused = solve(loaded);
      // Very flat beams carry by bending and never snap.
      if (refused.ok()) {
        CHECK(beams);
        continue;
      }
      const std::string text = refused.problems().front().text;
      const double low = beyond * std::stod(text.substr(text.find("ends at ") + 8));
      const Solution solution = solve(s);
      const auto state = [&](double required) {
        const auto check = check_limits(solution, {{.kind = Limit::Kind::buckling, .required = required}});
        REQUIRE(check.ok());
        return check->verdicts.front().state;
      };
      CHECK(state(low * 1.01) == State::exceeded);
      // Very flat beams carry by bending: their linear factor lies below, and governs.
      const double linear = modes(solution, {.buckling = {{"press", 1}}})->buckling.front().modes.front().factor;
      CHECK((state(low * 0.97) == State::met) == (low * 0.97 <= linear));
      // A steeper link buckles between its ends before.
      if (!beams && h < 0.08) {
        const double EA = 210e9 * s.sections()[0].section.area().si(), l = std::hypot(1, h);
        CHECK(low * 1e3 == Approx(2 * EA * std::pow(h / l, 3) / (3 * std::sqrt(3.0))).epsilon(0.02));
      }
    }
}

TEST_CASE("Arches of straight beams: not met beyond their limit point") {
#ifdef CORVEX_SHORT_ROWS
  constexpr int arches = 2;
#else
  constexpr int arches = 6;
#endif
  Random random(5);
  for (int i = 0; i < arches; ++i) {
    INFO("arch " << i);
    Structure s = Structure::plane("arch");
    const auto id = s.section("bar", Section(SquareTube{.width = 40_mm, .wall = 3_mm}));
    const int n = 4;
    const double L = between(random, 3, 6), rise = L * between(random, 0.06, 0.15);
    std::vector<PointId> line;
    for (int k = 0; k <= n; ++k) {
      const double x = L * k / n;
      line.push_back(s.point("P" + std::to_string(k), Length::si(x), Length::si(4 * rise * x / L * (1 - x / L))));
    }
    for (std::size_t k = 0; k + 1 < line.size(); ++k) {
      s.member("m" + std::to_string(k), {line[k], line[k + 1]}, {.section = id, .material = material("S355")});
      s.brace(MemberId(k));
    }
    s.support(line.front(), Support::pinned()), s.support(line.back(), Support::pinned());
    LoadsOf loads = s.load_case("press");
    for (std::size_t k = 1; k + 1 < line.size(); ++k)
      loads.at(line[k], Force{.y = ForceSize::si(-between(random, 800, 1200))});
    Structure far = s;
    far.analysis().order = Order::large;
    LoadsOf more = far.loads_of("press");
    constexpr double times = 500;
    for (std::size_t k = 0; k < 3; ++k) {
      PointLoad l = std::get<PointLoad>(more.loads()[k]);
      l.force = l.force * times;
      more.replace(k, l);
    }
    const Solution refused = solve(far);
    if (refused.ok()) continue;
    const std::string text = refused.problems().front().text;
    const double low = times * std::stod(text.substr(text.find("ends at ") + 8));
    const auto check = check_limits(solve(s), {{.kind = Limit::Kind::buckling, .required = low * 1.01}});
    REQUIRE(check.ok());
    CHECK(check->verdicts.front().state == State::exceeded);
  }
}

TEST_CASE("With large displacements a link beyond its Euler force is refused by name, as at second order") {
  for (const Order order : {Order::second, Order::large}) {
    Structure s = Structure::plane("bracket");
    const auto beam = s.section("beam", Section(SquareTube{.width = 60_mm, .wall = 4_mm})),
               rod = s.section("rod", Section(RoundBar{.diameter = 16_mm}));
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 3_m, 0_m), c = s.point("C", 0_m, -3_m);
    s.member("beam", {a, b}, {.section = beam, .material = material("S235")});
    s.member("strut", {c, b}, {.section = rod, .material = material("S235"), .kind = MemberKind::link});
    for (const PointId p : {a, c}) s.support(p, Support::pinned());
    s.analysis().order = order;
    s.load_case("press").at(b, Force{.y = -10_kN});
    const Solution solution = solve(s);
    REQUIRE_FALSE(solution.ok());
    CHECK(solution.problems().front().finding == "buckles");
    CHECK(solution.problems().front().text.find("strut") != std::string::npos);
  }
}

TEST_CASE("Comparisons, sweeps and choices count and list the warnings of each run") {
  Structure s = Structure::space("beam");
  s.section("beam", *profile("IPE 300"));
  const auto a = s.point("A", 0_m, 0_m, 0_m), b = s.point("B", 10_m, 0_m, 0_m);
  s.member("beam", {a, b}, {.section = *s.find_section("beam"), .material = material("S235")});
  s.support(a, Support::hold({Dof::x, Dof::y, Dof::z, Dof::rx}));
  s.support(b, Support::hold({Dof::y, Dof::z, Dof::rx}));
  s.load_case("floor").line(MemberId(0), LineForce{.z = -7_kN_per_m});
  const auto has = [](const Problems& all) {
    return std::any_of(all.begin(), all.end(), [](const Problem& p) { return p.finding == "lateral-buckling"; });
  };
  const std::vector<Candidate> one{{.name = "one", .structure = s},
                                   {.name = "accepted",
                                    .structure = s,
                                    .acceptances = {{.finding = "lateral-buckling", .on = {}, .because = "slab"}}}};
  const auto compared = compare(one);
  CHECK(has(compared[0].warnings()));
  CHECK_FALSE(has(compared[1].warnings()));
  SweptValue value;
  value.words = "1";
  Varied varied;
  varied.name = "n", varied.values = {value, value};
  Sweep vary;
  vary.name = "sizes", vary.vary = {varied};
  const auto runs = sweep(vary, [&](const Picks&) { return Candidate{.structure = s}; });
  REQUIRE(runs.ok());
  for (const SweepRun& run : *runs) CHECK(has(run.warnings));
  // A choice that solve warns about says so; one beyond Euler's force is not proposed.
  const auto choice = choose(s, {.groups = {{.section = "beam", .from = {*profile("IPE 300")}}},
                                 .limits = {{.kind = Limit::Kind::safety, .required = 1.2}}});
  REQUIRE(choice.ok());
  REQUIRE(choice->found.size() == 1);
  CHECK(has(choice->found.front().warnings));
  Structure strut = Structure::plane("strut");
  strut.section("rod", Section(RoundBar{.diameter = 16_mm}));
  const auto p = strut.point("A", 0_m, 0_m), q = strut.point("B", 0_m, 1.5_m);
  strut.member("rod", {p, q}, {.section = *strut.find_section("rod"), .material = material("S235")});
  strut.support(p, Support::pinned()), strut.support(q, Support::hold({Dof::x}));
  strut.load_case("press").at(q, Force{.y = -12_kN});
  const auto thin = choose(strut, {.groups = {{.section = "rod", .from = {*profile("ROUND 16"), *profile("ROUND 40")}}},
                                   .limits = {{.kind = Limit::Kind::safety, .required = 1.5}}});
  REQUIRE(thin.ok());
  REQUIRE_FALSE(thin->found.empty());
  CHECK(thin->found.front().designations.front() == "ROUND 40");
}

TEST_CASE("An imperfection without a direction is computed both ways, and limits use the worse one") {
  const auto column = [](std::optional<Vector> toward) {
    Structure s = Structure::plane("column");
    const auto id = s.section("c", Section(SquareTube{.width = 80_mm, .wall = 4_mm}));
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 3.5_m);
    s.member("c", {a, b}, {.section = id, .material = material("S235")});
    s.support(a, Support::fixed());
    s.analysis().order = Order::second;
    s.analysis().imperfection = Imperfection{.sway = 1.0 / 200, .toward = toward};
    s.load_case("c").at(b, Force{.x = 0.5_kN, .y = -25_kN});
    return s;
  };
  const Limits limits{{.kind = Limit::Kind::safety, .required = 1.5}};
  const auto value = [&](const Structure& s) { return check_limits(solve(s), limits)->verdicts.front().value->si; };
  const double worse = value(column(Vector{1, 0, 0})), better = value(column(Vector{-1, 0, 0}));
  CHECK(worse < better);
  const Structure both = column(std::nullopt);
  CHECK(value(both) == near(worse));
  const Solution solution = solve(both);
  REQUIRE(solution.size() == 2);
  CHECK(solution["c"].direction() == "sway x");
  CHECK(solution[1].name() == "c (sway -x)");
  CHECK(solution.base_of(1) == 0);
  CHECK(solution.assessed().size() == 2);
  // A favourable direction is a warning.
  const auto warned = [](const Structure& s) {
    const Problems notes = solve(s).notes();
    return std::any_of(notes.begin(), notes.end(),
                       [](const Problem& p) { return p.finding == "favourable-imperfection"; });
  };
  CHECK(warned(column(Vector{-1, 0, 0})));
  CHECK_FALSE(warned(column(Vector{1, 0, 0})));
  CHECK_FALSE(warned(both));
}

TEST_CASE("Frequencies of plane structures are met only where bracing covers vibration out of the plane") {
  const std::string beam = R"(
analysis: {shear: off}
sections: {tube: RHS 120x60x4}
points: {A: [0, 0], M: [2000, 0], B: [4000, 0]}
members: {beam: {through: [A, M, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads: {weight: [{gravity: down}]}
limits: [{frequency: 5 Hz}]
)";
  // Between its supports the beam is hinged out of the plane.
  const Verdict open = verdict_of(model_of(beam));
  const SectionProperties p = profile("RHS 120x60x4")->section.properties();
  const double weak = pi / 32 * std::sqrt(210e9 * p.Iy.si() / (7850 * p.A.si()));
  CHECK(open.state == State::met);
  CHECK(open.value->si == Approx(weak).epsilon(1e-6));
  CHECK(open.note.find("out-of-plane") != std::string::npos);
  // A free end is not covered.
  const Verdict tip = verdict_of(model_of(R"(
sections: {tube: RHS 120x60x4}
points: {A: [0, 0], B: [1000, 0]}
members: {beam: {through: [A, B], section: tube, material: S235}}
supports: {A: fixed}
loads: {weight: [{gravity: down}]}
limits: [{frequency: 5 Hz}]
)"));
  CHECK(tip.state == State::not_checked);
  CHECK_FALSE(tip.value);
  const Verdict braced = verdict_of(model_of(beam + "bracing: [{on: all}]\n"));
  CHECK(braced.value->si > weak * 1.5);
}

TEST_CASE("In space bracing acts in load factors and frequencies: at points, and along a member in one direction") {
  const auto column = [](int bracing) {
    Structure s = Structure::space("column");
    const auto id = s.section("c", profile("IPE 120")->section);
    const auto a = s.point("A", 0_m, 0_m, 0_m), m = s.point("M", 0_m, 0_m, 2_m), b = s.point("B", 0_m, 0_m, 4_m);
    s.member("c", {a, m, b}, {.section = id, .material = material("S235")});
    s.support(a, Support::hold({Dof::x, Dof::y, Dof::z, Dof::rz}));
    s.support(b, Support::hold({Dof::x, Dof::y, Dof::rz}));
    if (bracing == 1) s.brace("c", {m});
    if (bracing == 2) s.brace("c", {}, Against::z);
    if (bracing == 3) s.brace("c", {}, Against::lateral);
    s.analysis().shear = false;
    s.load_case("press").at(b, Force{.z = -10_kN});
    return modes(s, {.vibration = 1, .buckling = {{"press", 1}}});
  };
  const SectionProperties p = profile("IPE 120")->section.properties();
  const auto euler = [&](double I, double L) { return pi * pi * 210e9 * I / (L * L) / 10e3; };
  const auto factor = [&](int bracing) { return column(bracing)->buckling.front().modes.front().factor; };
  CHECK(factor(0) == Approx(euler(p.Iy.si(), 4)).epsilon(1e-6));
  CHECK(factor(1) == Approx(euler(p.Iy.si(), 2)).epsilon(1e-6));
  CHECK(factor(2) == Approx(euler(p.Iz.si(), 4)).epsilon(1e-6));
  CHECK(column(3)->buckling.front().modes.empty());
  CHECK(column(1)->vibration.front().frequency.si() > 3.5 * column(0)->vibration.front().frequency.si());
}

TEST_CASE("The effective length is about the axis about which a member buckles") {
  // Braced against its weak direction at two points, the column buckles about its strong axis.
  Structure s = Structure::space("column");
  const auto id = s.section("c", profile("IPE 120")->section);
  const auto a = s.point("A", 0_m, 0_m, 0_m), m = s.point("M", 0_m, 0_m, 0.75_m), n = s.point("N", 0_m, 0_m, 1.5_m),
             o = s.point("O", 0_m, 0_m, 2.25_m), b = s.point("B", 0_m, 0_m, 3_m);
  s.member("c", {a, m, n, o, b}, {.section = id, .material = material("S235")});
  s.support(a, Support::hold({Dof::x, Dof::y, Dof::z, Dof::rz}));
  s.support(b, Support::hold({Dof::x, Dof::y, Dof::rz}));
  // The member's y axis lies along global x.
  for (const PointId p : {m, n, o}) s.support(p, Support::hold({Dof::y}));
  s.analysis().shear = false;
  s.load_case("press").at(b, Force{.z = -50_kN});
  const auto found = modes(s, {.buckling = {{"press", 1}}});
  REQUIRE(found.ok());
  const BuckledMember& one = found->buckling.front().modes.front().members.front();
  CHECK(one.axis == 'z');
  CHECK(one.effective_length.si() == Approx(3).epsilon(1e-4));
}

}  // namespace tests_of_stability_verdicts
