// `compare`: every figure is that of the changed model solved alone; verdicts, refusals, forms.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <corvex/file.hpp>
#include <random>

#include "support/models.hpp"
#include "support/program.hpp"

namespace tests_of_program_compare {

using Catch::Matchers::Contains;
using namespace corvex;
using namespace corvex::test;
using Json = nlohmann::json;

namespace {

const std::string trestle = R"(corvex: 1
title: Trestle
units: {length: mm, force: kN}
parameters: {wall: 4 mm}
sections:
  leg:  {shape: square tube, width: 60 mm, wall: wall}
  rail: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: wall}
points: {A: [0, 0], B: [0, 900], C: [1200, 900], D: [2400, 900], E: [2400, 0]}
members:
  left leg:  {through: [A, B], section: leg, material: S235}
  rail:      {through: [B, C, D], section: rail, material: S235}
  right leg: {through: [E, D], section: leg, material: S235}
supports: {A: fixed, E: fixed}
loads:
  product: [{at: C, force: {down: 3.2}}, {on: rail, line: {down: 0.8 kN/m}}]
  push: [{at: B, force: {x: 0.3}}]
combinations: {full: {product: 1.5, push: 1.5}, empty: {push: 1.5}}
limits: [{safety: 1.5}]
hand: {let: {P: 3.2 kN, q: 0.8 kN/m, L: 2.4 m}, expect: [{reaction: A, part: y, case: product, is: P/2 + q*L/2}]}
variants:
  pinned rail: {members: {rail: {hinge: both}}}
  aluminium: {members: {left leg: {material: 6082-T6}, rail: {material: 6082-T6}, right leg: {material: 6082-T6}}}
  thick: {parameters: {wall: 6 mm}}
  half load: {loads: {product: [{at: C, force: {down: 1.6}}]}}
)";

// The worst of an envelope by JSON: largest von Mises stress, least safety.
double worst(const Json& results, const char* figure) {
  double value = 0;
  for (const Json& m : results["cases"]["envelope"]["members"])
    if (!m[figure]["max"]["value"].is_null()) value = std::max(value, m[figure]["max"]["value"].get<double>());
  return value;
}
double least_safety(const Json& results) {
  double value = 1e300;
  for (const Json& m : results["cases"]["envelope"]["members"])
    if (!m["safety"].is_null()) value = std::min(value, m["safety"].get<double>());
  return value;
}

}  // namespace

TEST_CASE("Every figure of a comparison is that of the changed model solved alone") {
  const Folder folder;
  folder.write("model.yaml", trestle);
  const Outcome o = folder.run(
      "compare model.yaml --json --show 'moment: rail, take: max' --show 'reaction: A, part: x, case: push'");
  CHECK(o.status == 1);  // the hand value of half the load differs
  const Json all = Json::parse(o.out);
  CHECK(all["format"] == "corvex-comparison");
  REQUIRE(all["variants"].size() == 5);
  for (const auto& [name, c] : all["variants"].items()) {
    const std::string call = name == "original" ? "" : " --variant '" + name + "'";
    const Json alone = Json::parse(folder.run("solve model.yaml --json" + call).out);
    INFO(name);
    CHECK(c["mass"] == alone["model"]["mass"]);
    CHECK(c["stress"]["value"].get<double>() == worst(alone, "von_mises"));
    CHECK(c["sag"]["value"].get<double>() == worst(alone, "sag"));
    CHECK(c["safety"]["value"].get<double>() == least_safety(alone));
    const std::string in = c["stress"]["case"], on = c["stress"]["on"];
    CHECK(alone["cases"][in]["members"][on]["von_mises"]["max"]["value"] == c["stress"]["value"]);
    double moment = -1e300;
    for (const char* assessed : {"full", "empty"})
      moment = std::max(moment, alone["cases"][assessed]["members"]["rail"]["moment_z"]["max"]["value"].get<double>());
    CHECK(c["shown"]["moment rail max"].get<double>() == moment);
    CHECK(c["shown"]["reaction A x in push"] == alone["cases"]["push"]["reactions"]["A"]["x"]);
    bool met = true, agrees = true;
    for (const Json& l : alone["limits"]) met = met && l["met"] == true;
    for (const Json& h : alone["hand"]) agrees = agrees && h["agrees"] == true;
    CHECK(c["limits_met"] == met);
    CHECK(c["hand_agrees"] == agrees);
    CHECK(c["refused"].is_null());
  }
}

TEST_CASE("A comparison of files, in every form") {
  const Folder folder;
  folder.write("thin.yaml", trestle);
  folder.write("thick.yaml", [] {
    std::string t = trestle;
    return t.replace(t.find("wall: 4 mm"), 10, "wall: 6 mm");
  }());
  const Outcome text = folder.run("compare thin.yaml thick.yaml --show 'moment: rail, at: 50 %, case: full'");
  CHECK(text.status == 0);
  for (const char* words : {"Largest values side by side", "thin", "thick", "+44.6", "Figures shown", "moment rail at 50 % in full",
                            "Places of the largest values"})
    CHECK_THAT(text.out, Contains(words));
  CHECK_THAT(folder.run("compare thin.yaml thick.yaml --format markdown").out, Contains("| thick"));
  CHECK_THAT(folder.run("compare thin.yaml thick.yaml --format csv --table comparison").out,
             Contains("variant,mass [kg],mass change [%]"));
  CHECK(folder.run("compare thin.yaml thick.yaml -o both.xlsx").status == 0);
  CHECK(folder.has("both.xlsx"));
  CHECK_THAT(folder.run("compare thin.yaml thick.yaml --variants 'pinned rail'").out, Contains("thick, pinned rail"));
  // Values for this call are those of all.
  CHECK(Json::parse(folder.run("compare thin.yaml thick.yaml --set 'wall=5 mm' --json").out)["variants"]["thin"] ==
        Json::parse(folder.run("compare thin.yaml thick.yaml --set 'wall=5 mm' --json").out)["variants"]["thick"]);
}

TEST_CASE("A variant that cannot be solved says why, and the others stand") {
  const Folder folder;
  folder.write("model.yaml",
               trestle + "  loose: {supports: {A: roller, E: roller}}\n  wrong: {sections: {leg: {wal: 3 mm}}}\n");
  const Outcome o = folder.run("compare model.yaml --variants loose,wrong,thick");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("cannot be solved: the structure slides along x: nothing restrains it"));
  CHECK_THAT(o.out, Contains("cannot be solved: variant 'wrong': 'wal' is not a key"));
  CHECK_THAT(o.err, Contains("loose: the structure slides along x") &&
                        Contains("variant 'wrong': 'wal' is not a key of a square tube; did you mean 'wall'?"));
  const Json j = Json::parse(folder.run("compare model.yaml --variants loose,wrong,thick --json").out);
  CHECK(j["variants"]["loose"]["mass"].is_null());
  CHECK(j["variants"]["thick"]["mass"].get<double>() == Approx(42.73).epsilon(1e-3));
}

TEST_CASE("A comparison that asks for what is not there is refused") {
  const Folder folder;
  folder.write("model.yaml", trestle);
  folder.write("alone.yaml", trestle.substr(0, trestle.find("variants:")));
  for (const auto& [call, words] :
       {std::pair("compare alone.yaml", "there is nothing to compare with"),
        {"compare model.yaml --variants thik", "there is no variant 'thik'; did you mean 'thick'?"},
        {"compare model.yaml --show 'momen: rail'", "did you mean 'moment'?"},
        {"compare model.yaml --show 'moment rail'", "a figure to show"},
        {"compare none.yaml", "none.yaml"},
        {"compare model.yaml -o model.yaml", "cannot be written"}}) {
    const Outcome o = folder.run(call);
    INFO(call << "\n" << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(words));
  }
  // Of a name that no model has, each says so.
  const Outcome o = folder.run("compare model.yaml --show 'moment: rial'");
  CHECK_THAT(o.err, Contains("there is no member 'rial'; did you mean 'rail'?"));
}

TEST_CASE("So it is over every model that ships, with random changes, on any number of threads") {
  std::mt19937 random(11);
  std::size_t compared = 0;
  for (const NamedModel& shipped : shipped_models()) {
    const auto document = read_document_text(shipped.text, shipped.name);
    REQUIRE(document.ok());
    std::vector<Candidate> candidates;
    for (int patch = 0; patch < 3; ++patch) {
      Overrides with;
      for (const auto& [name, formula] : document->parameters())
        with.parameters[name] = fmt::format("{}*({})", std::uniform_real_distribution(0.9, 1.1)(random), formula);
      const auto model = build(*document, with);
      // Some values suit no joint of their model.
      if (!model || !solve(model->structure).ok()) continue;
      candidates.push_back({.name = fmt::format("patch {}", patch),
                            .structure = model->structure,
                            .limits = model->limits,
                            .hand = model->hand});
    }
    INFO(shipped.name);
    for (const unsigned threads : {1u, 4u}) {
      const auto all = compare(candidates, {}, threads);
      for (std::size_t i = 0; i < all.size(); ++i) {
        const Solution solution = solve(candidates[i].structure);
        double moved = 0, stress = 0, safety = 1e300, sag = 0;
        for (const std::size_t c : solution.assessed())
          for (const Member& member : solution.structure().members()) {
            const MemberResult m = solution[c][member.name];
            moved = std::max(moved, m.movement().value.si);
            sag = std::max(sag, m.sag().value.si);
            if (const auto s = m.von_mises()) stress = std::max(stress, s->value.si());
            if (const auto s = m.safety()) safety = std::min(safety, *s);
          }
        REQUIRE(all[i].refused.empty());
        CHECK(all[i].displacement->value.si == moved);
        CHECK(all[i].sag->value.si == sag);
        if (all[i].stress) CHECK(all[i].stress->value.si == stress);
        CHECK(all[i].safety.has_value() == (safety < 1e300));
        if (all[i].safety) CHECK(all[i].safety->value.si == safety);
        const auto limits = check_limits(solution, candidates[i].limits);
        if (!candidates[i].limits.empty()) CHECK(all[i].limits_met() == limits->all_met());
        ++compared;
      }
    }
  }
  CHECK(compared > 100);
}

}  // namespace tests_of_program_compare
