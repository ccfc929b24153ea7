// Limits at a place, of any figure, of a stress range and of a band of frequencies; and how they are read.
#include <cmath>
#include <corvex/corvex.hpp>
#include <corvex/file.hpp>

#include "support/models.hpp"
#include "support/near.hpp"

namespace tests_of_judge_limit_kinds {

using namespace corvex;
using namespace corvex::test;
using State = Verdict::State;

namespace {

const std::string beam = R"(corvex: 1
units: {length: mm, force: kN}
sections: {tube: RHS 120x60x4}
points: {A: [0, 0], M: [2000, 0], B: [4000, 0]}
members: {rail: {through: [A, M, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads:
  full: [{on: rail, line: {down: 4 kN/m}}]
  empty: [{on: rail, line: {down: 1 kN/m}}]
)";

Expected<Model, Problems> read(const std::string& limits) {
  return read_model_text(beam + "limits: [" + limits + "]\n", "model.yaml");
}

Verdict verdict(const std::string& limits) {
  const auto model = read(limits);
  INFO((model ? "" : describe(model.error().front())));
  REQUIRE(model.ok());
  const auto check = check_limits(solve(model->structure), model->limits);
  INFO((check ? "" : describe(check.error().front())));
  REQUIRE(check.ok());
  REQUIRE(check->verdicts.size() == 1);
  return check->verdicts.front();
}

std::string fault(const std::string& limits) {
  const auto model = read(limits);
  if (!model) return describe(model.error().front());
  const auto check = check_limits(solve(model->structure), model->limits);
  REQUIRE_FALSE(check.ok());
  return describe(model->located(check.error()).front());
}

const SectionProperties tube = profile("RHS 120x60x4")->section.properties();
constexpr double moment = 4e3 * 16 / 8;  // of the full load, N·m

}  // namespace

TEST_CASE("A limit of a kind that does not exist is refused, not passed over") {
  const auto model = read_model_text(beam, "model.yaml");
  REQUIRE(model.ok());
  const Limits limits{{.kind = static_cast<Limit::Kind>(99), .required = 1.5}};
  const auto check = check_limits(solve(model->structure), limits);
  REQUIRE_FALSE(check.ok());
  CHECK(check.error().front().text == "no limit has this kind");
}

TEST_CASE("A limit of safety at a place, by length, share and point") {
  const double stress = moment / tube.Wz.si();
  for (const char* at : {"2 m", "50 %", "M"}) {
    const Verdict v = verdict(std::string("{safety: 1.5, at: ") + at + "}");
    CHECK(v.value->si == Approx(235e6 / stress).epsilon(1e-3));
    CHECK(v.at->si() == near(2));
  }
  CHECK(verdict("{safety: 1.5, at: 25 %}").value->si == Approx(235e6 / (0.75 * stress)).epsilon(0.01));
  CHECK(fault("{safety: 1.5, at: 5 m}").find("5000 mm is not on member 'rail'") != std::string::npos);
}

TEST_CASE("A limit of any figure that an expectation names, at most and at least") {
  const Verdict stress = verdict("{stress: rail, at: 2 m, most: 120 MPa}");
  CHECK(stress.value->si == Approx(moment / tube.Wz.si()).epsilon(1e-6));
  CHECK((stress.state == State::exceeded) == (moment / tube.Wz.si() > 120e6));
  CHECK(stress.load_case == "full");
  const Verdict reaction = verdict("{reaction: A, part: y, least: 0 kN}");
  CHECK(reaction.value->si == near(2000));
  CHECK(reaction.load_case == "empty");
  CHECK(reaction.at_least);
  CHECK(reaction.state == State::met);
  CHECK(verdict("{reaction: A, part: y, most: 7 kN, case: full}").state == State::exceeded);
  // A moment by size, whatever its sign.
  CHECK(verdict("{moment: rail, most: 7.9 kN*m}").state == State::exceeded);
  CHECK(verdict("{moment: rail, most: 8.1 kN*m}").state == State::met);
  CHECK(verdict("{mass: total, most: 60 kg}").state == State::met);
  CHECK(fault("{stress: rail, most: 120 kN}").find("a force") != std::string::npos);
  CHECK(fault("{stress: rial, most: 120 MPa}").find("rail") != std::string::npos);
  CHECK(fault("{stress: rail, most: 120 MPa, least: 1 MPa}").find("two limits") != std::string::npos);
  CHECK(fault("{stress: rail, least: 120 MPa}, {stress: rail, most: 60 MPa}").find("contradicts limit 1") !=
        std::string::npos);
  // Load factors and frequencies have limits of their own, which cover more than the figure.
  CHECK(fault("{buckling: 1, least: 3}").find("{buckling: 3}") != std::string::npos);
}

TEST_CASE("A stress range between two cases") {
  const Verdict v = verdict("{range: rail, at: M, between: [full, empty], most: 60 MPa}");
  CHECK(v.value->si == Approx(0.75 * moment / tube.Wz.si()).epsilon(1e-6));
  CHECK(v.what == "stress range");
  CHECK(verdict("{range: rail, at: 0 mm, between: [full, empty], most: 60 MPa}").value->si == near(0, 1e6));
  CHECK(fault("{range: rail, at: M, between: [full, fool], most: 60 MPa}").find("full") != std::string::npos);
}

TEST_CASE("A band in which no natural frequency lies") {
  const auto model = read("{frequency: [0 Hz, 18 Hz], outside: yes}");
  REQUIRE(model.ok());
  Model braced = *model;
  braced.structure.brace("rail");
  const auto found = modes(braced.structure, {.vibration = 2});
  const double first = found->vibration[0].frequency.si(), second = found->vibration[1].frequency.si();
  const auto state = [&](double low, double high) {
    const Limits limits{
        {.kind = Limit::Kind::frequency, .required = Frequency::si(low), .band_end = Quantity(Frequency::si(high))}};
    const auto check = check_limits(solve(braced.structure), limits);
    REQUIRE(check.ok());
    return check->verdicts.front();
  };
  CHECK(state(0, first * 0.9).state == State::met);
  CHECK(state(0, first * 1.1).state == State::exceeded);
  CHECK(state(first * 1.1, second * 0.9).state == State::met);
  CHECK(state(first * 1.1, second * 1.1).value->si == near(second));
  // Without bracing vibration out of the plane is known by its lowest frequency alone.
  CHECK(verdict("{frequency: [1 Hz, 5000 Hz], outside: yes}").state != State::met);
  CHECK(fault("{frequency: [18 Hz, 0 Hz], outside: yes}").find("lower to a higher") != std::string::npos);
  CHECK(fault("{frequency: [0 Hz, 18 Hz]}").find("outside: yes") != std::string::npos);
}

TEST_CASE("Bracing that cannot be read names its line and what was expected") {
  const auto fault_of = [](const std::string& bracing) {
    const auto model = read_model_text(beam + "bracing:\n  - " + bracing + "\n", "model.yaml");
    REQUIRE_FALSE(model.ok());
    return describe(model.error().front());
  };
  CHECK(fault_of("{on: rial}").find("model.yaml:11") == 0);
  CHECK(fault_of("{on: rial}").find("rail") != std::string::npos);
  CHECK(fault_of("{on: rail, at: X}").find("there is no point 'X'") != std::string::npos);
  CHECK(fault_of("{on: rail, against: sway}").find("expected: both, lateral, twist") != std::string::npos);
  CHECK(fault_of("{on: rail, against: y}").find("out of the plane") != std::string::npos);
  CHECK(fault_of("{at: M}").find("'on'") != std::string::npos);
  const auto other = read_model_text(R"(corvex: 1
units: {length: mm, force: kN}
sections: {tube: RHS 120x60x4}
points: {A: [0, 0], M: [2000, 0], B: [4000, 0], C: [0, 2000]}
members: {rail: {through: [A, M, B], section: tube, material: S235}, post: {through: [A, C], section: tube, material: S235}}
supports: {A: fixed, B: roller}
bracing: [{on: rail, at: C}]
loads: {full: [{on: rail, line: {down: 4 kN/m}}]}
)",
                                     "model.yaml");
  REQUIRE_FALSE(other.ok());
  CHECK(describe(other.error().front()).find("model.yaml:7") == 0);
  CHECK(describe(other.error().front()).find("'C' is not a point of member 'rail'") != std::string::npos);
}

TEST_CASE("Bracing written as a model file reads back the same") {
  const auto model = read_model_text(
      beam + "bracing:\n  - {on: rail, at: [M, B], against: lateral}\n  - {on: all, against: twist}\n", "model.yaml");
  REQUIRE(model.ok());
  const auto text = model_text(model->structure);
  REQUIRE(text.ok());
  const auto again = read_model_text(*text, "again.yaml");
  REQUIRE(again.ok());
  REQUIRE(again->structure.bracing().size() == 2);
  for (std::size_t i = 0; i < 2; ++i) {
    CHECK(again->structure.bracing()[i].against == model->structure.bracing()[i].against);
    const auto numbers = [i](const Model& m) {
      std::vector<std::size_t> all;
      for (const PointId p : m.structure.bracing()[i].at) all.push_back(p.index);
      return all;
    };
    CHECK(numbers(*again) == numbers(*model));
  }
}

TEST_CASE("Slips that no error shows are found") {
  const std::string frame = R"(corvex: 1
units: {length: mm, force: kN}
sections: {tube: SHS 60x60x4}
points: {A: [0, 0], B: [0, 900], C: [1200, 900], D: [2400, 900], E: [2400, 0]}
members:
  left leg:  {through: [A, B], section: tube, material: S235}
  rail:      {through: [B, C, D], section: tube, material: S235}
  right leg: {through: [E, D], section: tube, material: S235}
supports: {A: fixed, E: fixed}
)";
  const std::string load = "loads: {dead: [gravity: down], product: [{on: rail, line: {down: 0.8 kN/m}}]}\n";
  const auto found = [&](const std::string& rest, const std::string& base) {
    const auto model = read_model_text(base + rest, "model.yaml");
    INFO((model ? "" : describe(model.error().front())));
    REQUIRE(model.ok());
    std::string all;
    for (const Problem& p : told(*model)) all += p.finding + " ";
    return all;
  };
  const auto has = [&](const std::string& rest, const char* finding) {
    return found(rest, frame).find(finding) != std::string::npos;
  };
  CHECK(has(load + "combinations: {full: {dead: 1.35, product: 0}}\n", "factor-suspect"));
  CHECK(has(load + "combinations: {full: {dead: 0.15, product: 1.5}}\n", "factor-suspect"));
  CHECK(has(load + "combinations: {full: {dead: -1.35, product: 1.5}}\n", "factor-suspect"));
  CHECK_FALSE(has(load + "combinations: {full: {dead: 1.35, product: 1.5}}\n", "factor-suspect"));
  CHECK(has("loads: {floor: [{on: rail, line: {up: 3 kN/m}}]}\n", "load-suspect"));
  CHECK_FALSE(has("loads: {wind suction: [{on: rail, line: {up: 3 kN/m}}]}\n", "load-suspect"));
  CHECK(has("loads: {floor: [{on: rail, line: {down: 3 N/m}}]}\n", "load-suspect"));
  CHECK(has("loads: {press: [{at: C, force: {down: 3}}, {at: D, moment: 1.5 N*m}]}\n", "load-suspect"));
  CHECK_FALSE(has("loads: {press: [{at: C, force: {down: 3}}, {at: D, moment: 1.5 kN*m}]}\n", "load-suspect"));
  CHECK(has("analysis: {order: second, imperfection: {sway: 1/20}}\n" + load, "imperfection-suspect"));
  CHECK(has("masses: {C: 20 kg}\nloads: {product: [{on: rail, line: {down: 0.8 kN/m}}]}\n", "weightless-mass"));
  CHECK(has("masses: {C: {mass: 20 kg, arm: [0, 4 m]}}\n" + load, "unit-suspect"));
  CHECK(has(load + "limits: [{movement: 2 mm, at: A}]\n", "limit-suspect"));
  CHECK(has(load + "limits: [{frequency: 0.04 Hz}]\n", "limit-suspect"));
  CHECK(has("parameters: {width: 60 mm}\n" + load, "unused-parameter"));
  const auto tied = read_model_text(R"(corvex: 1
units: {length: mm, force: kN}
sections: {tube: SHS 60x60x4, rod: ROUND 12}
points: {A: [0, 0], B: [2000, 0], C: [0, 2000]}
members:
  arm: {through: [A, B], section: tube, material: S235}
  tie: {through: [C, B], section: rod, material: S235, kind: link}
supports: {A: pinned, C: pinned}
loads: {press: [{at: B, force: {down: 5}}]}
limits: [{safety: 1.5, on: tie}]
)",
                                    "model.yaml");
  REQUIRE(tied.ok());
  const Problems of_ties = told(*tied);
  CHECK(std::any_of(of_ties.begin(), of_ties.end(), [](const Problem& p) { return p.finding == "limit-suspect"; }));
  const std::string uneven = frame;
  CHECK(found(load, std::string(uneven).replace(uneven.find("E: [2400, 0]"), 12, "E: [2400, 40]"))
            .find("uneven-supports") != std::string::npos);
  CHECK_FALSE(has(load, "uneven-supports"));
}

}  // namespace tests_of_judge_limit_kinds
