// Mistakes as the user meets them: `inspect` in every form, findings beside results, acceptance, what holds a structure
// that can move, marks in pictures.
#include <catch2/catch.hpp>
#include <pugixml.hpp>

#include "support/program.hpp"

namespace tests_of_program_inspect {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;
using Json = nlohmann::json;

namespace {

// A post under a rail that does not name its head; a force that is there twice.
const std::string touching = R"(corvex: 1
title: Touching post
units: {length: mm, force: kN}
sections: {tube: SHS 60x60x4}
points: {A: [0, 0], B: [0, 900], C: [1200, 900], D: [2400, 900], E: [2400, 0], F: [1200, 0]}
members:
  left leg:  {through: [A, B], section: tube, material: S235}
  rail:      {through: [B, D], section: tube, material: S235}
  right leg: {through: [E, D], section: tube, material: S235}
  post:      {through: [F, C], section: tube, material: S235}
supports: {A: fixed, E: fixed, F: fixed}
loads:
  product:
    - {on: rail, line: {down: 0.8 kN/m}}
    - {at: B, force: {x: 0.3}}
    - {at: B, force: {x: 0.3}}
)";

std::string with(std::string model, const std::string& from, const std::string& to) {
  const std::size_t at = model.find(from);
  REQUIRE(at != std::string::npos);
  return model.replace(at, from.size(), to);
}

const std::string beam_head = "corvex: 1\nunits: {length: mm, force: kN}\nsections: {tube: SHS 60x60x4}\n";

}  // namespace

TEST_CASE("inspect tells what was found with line and remedy, and the model as it was read") {
  const Folder folder;
  folder.write("model.yaml", touching);
  const Outcome o = folder.run("inspect model.yaml");
  CHECK(o.status == 1);
  CHECK(o.err.empty());
  for (const char* words :
       {"1 error, 1 warning", "unjoined-point", "point 'C' lies on 'rail', which does not include it: they are not joined",
        "remedy: include 'C' in 'rail': through: [B, C, D]", "double-load", "statically indeterminate to the 3rd degree",
        "Sums of the loads", "Bill of materials"})
    CHECK_THAT(o.out, Contains(words));
  CHECK_THAT(folder.run("inspect model.yaml --format markdown").out,
             Contains("| error    |    8 | unjoined-point | rail, C    |"));
  CHECK_THAT(folder.run("inspect model.yaml --format csv --table findings").out,
             Contains("error,8,unjoined-point,\"rail, C\",\"point 'C' lies on 'rail'"));
  const Json j = Json::parse(folder.run("inspect model.yaml --json").out);
  CHECK(j["format"] == "corvex-findings");
  CHECK(j["model"]["indeterminacy"] == 3);
  REQUIRE(j["findings"].size() == 2);
  CHECK(j["findings"][0]["finding"] == "unjoined-point");
  CHECK(j["findings"][0]["on"] == Json::array({"rail", "C"}));
  CHECK(j["findings"][0]["accepted"] == false);
  CHECK(j["cases"]["product"]["force"]["y"].get<double>() == Approx(-1920));
  CHECK(j["members"]["rail"]["length"].get<double>() == Approx(2.4));
}

TEST_CASE("The line of action of the loads of a case is where their moment vanishes") {
  const Folder folder;
  folder.write("model.yaml",
               beam_head +
                   "points: {A: [0, 0], B: [3000, 0]}\n"
                   "members: {beam: {through: [A, B], section: tube, material: S235}}\n"
                   "supports: {A: pinned, B: roller}\n"
                   "loads:\n  two: [{on: beam, at: 1 m, force: {down: 2}}, {on: beam, at: 2.5 m, force: {down: 1}}]\n"
                   "  ramp: [{on: beam, line: {down: [0, 2 kN/m]}}]\n");
  const Json j = Json::parse(folder.run("inspect model.yaml --json").out);
  CHECK(j["cases"]["two"]["through"]["x"].get<double>() == Approx(1.5));
  CHECK(j["cases"]["ramp"]["through"]["x"].get<double>() == Approx(2));
  CHECK_THAT(folder.run("inspect model.yaml").out, Contains("x = 1500") && Contains("x = 2000"));
}

TEST_CASE("A mended or accepted model ends with 0, and an acceptance that matches nothing is told") {
  const Folder folder;
  const std::string once = with(touching, "    - {at: B, force: {x: 0.3}}\n", "");
  folder.write("mended.yaml", with(once, "through: [B, D]", "through: [B, C, D]"));
  CHECK(folder.run("inspect mended.yaml").status == 0);
  const std::string reason = "accept: [{finding: unjoined-point, on: [rail, C], because: the post only bears}]\n";
  folder.write("accepted.yaml", once + reason);
  const Outcome o = folder.run("inspect accepted.yaml");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("1 accepted") && Contains("accepted: the post only bears"));
  CHECK(folder.run("solve accepted.yaml").err.empty());
  const Json j = Json::parse(folder.run("solve accepted.yaml --json").out);
  REQUIRE(j["findings"].size() == 1);
  CHECK(j["findings"][0]["accepted"] == true);
  CHECK(j["findings"][0]["because"] == "the post only bears");
  folder.write("idle.yaml", with(once, "through: [B, D]", "through: [B, C, D]") + reason);
  const Outcome idle = folder.run("inspect idle.yaml");
  CHECK(idle.status == 1);
  CHECK_THAT(idle.out, Contains("there is no finding unjoined-point about 'rail' and 'C' to accept"));
}

TEST_CASE("An acceptance needs a known finding and a reason") {
  const Folder folder;
  for (const auto& [entry, words] :
       {std::pair("{finding: unjoined-points, because: so}", "did you mean 'unjoined-point'"),
        {"{finding: crossing}", "because"},
        {"{finding: crossing, because: ''}", "a reason was expected"},
        {"{finding: crossing, because: so, at: C}", "'at'"},
        {"crossing", "an acceptance"}}) {
    folder.write("model.yaml", touching + "accept: [" + entry + "]\n");
    const Outcome o = folder.run("inspect model.yaml");
    INFO(o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("model.yaml:17:") && Contains(words));
  }
}

TEST_CASE("Findings are told briefly beside results and pictures") {
  const Folder folder;
  folder.write("model.yaml", touching + "hand: {expect: [{reaction: A, part: x, is: 1 N, within: 1 kN}]}\n");
  for (const char* verb : {"solve model.yaml", "verify model.yaml", "draw model.yaml -o p.svg"}) {
    const Outcome o = folder.run(verb);
    INFO(verb << "\n" << o.err);
    CHECK(o.status == 0);
    CHECK_THAT(o.err,
               Contains("model.yaml:8:24: error: point 'C' lies on 'rail', which does not include it: they are not joined "
                        "[unjoined-point]"));
    CHECK_THAT(o.err, Contains("[double-load]"));
  }
  const Json j = Json::parse(folder.run("solve model.yaml --json").out);
  CHECK(j["findings"].size() == 2);
}

TEST_CASE("A structure that can move is refused with what would hold it") {
  const Folder folder;
  const std::string beam = beam_head +
                           "points: {A: [0, 0], B: [3000, 0]}\n"
                           "members: {beam: {through: [A, B], section: tube, material: S235}}\n"
                           "supports: {A: roller, B: roller}\nloads: {people: [{on: beam, line: {down: 0.6 kN/m}}]}\n";
  folder.write("rollers.yaml", beam);
  const Outcome rollers = folder.run("solve rollers.yaml");
  CHECK(rollers.status == 2);
  CHECK_THAT(rollers.err, Contains("the structure slides along x: nothing restrains it [free-to-move]"));
  CHECK_THAT(rollers.err, Contains("remedy: restrain x of 'A' or restrain x of 'B'; each alone is enough"));
  // Hinges and links that let it move are named, each with the change that would do.
  folder.write("links.yaml", beam_head +
                                 "points: {A: [0, 0], B: [0, 1000], D: [1000, 1000], E: [1000, 0]}\n"
                                 "members:\n  left leg: {through: [A, B], section: tube, material: S235, kind: link}\n"
                                 "  rail: {through: [B, D], section: tube, material: S235}\n"
                                 "  right leg: {through: [E, D], section: tube, material: S235, hinge: end}\n"
                                 "supports: {A: pinned, E: pinned}\nloads: {push: [{at: B, force: {x: 1}}]}\n");
  const Outcome links = folder.run("inspect links.yaml");
  CHECK(links.status == 1);
  CHECK_THAT(links.out, Contains("free-to-move") && Contains("restrain rz of 'E'") &&
                            Contains("join 'right leg' rigidly, without its hinge"));
  // A post that only touches its rail is named as the cause.
  folder.write("loose.yaml",
               with(touching, "supports: {A: fixed, E: fixed, F: fixed}", "supports: {A: fixed, E: fixed}"));
  const Outcome loose = folder.run("solve loose.yaml");
  CHECK(loose.status == 2);
  CHECK_THAT(loose.err, Contains("add a fixed support at 'F' or add a fixed support at 'C'; each alone is enough"));
  CHECK_THAT(loose.err, Contains("[unjoined-point]") && Contains("[unheld-foot]"));
}

TEST_CASE("A coordinate in another unit is named beside the refusal that it causes") {
  const Folder folder;
  folder.write("model.yaml", with(touching, "D: [2400, 900]", "D: [2400, 0.9]"));
  const Outcome o = folder.run("solve model.yaml");
  INFO(o.err);
  CHECK_THAT(o.err, Contains("y = 0.9 mm of point D is a thousandth of the others [unit-suspect]"));
}

TEST_CASE("Pictures mark what was found, and show a point that only touches as an open one") {
  const Folder folder;
  folder.write("model.yaml", touching);
  REQUIRE(folder.run("draw model.yaml -o p.svg").status == 0);
  pugi::xml_document picture;
  REQUIRE(picture.load_file((folder.path() / "p.svg").c_str()));
  const auto count = [&](const char* cls, const char* of) {
    return picture.select_nodes((std::string("//*[@class='") + cls + "' and @data-of='" + of + "']").c_str()).size();
  };
  CHECK(count("finding", "C") == 2);  // two rings: an error
  CHECK(count("finding", "B") == 1);
  CHECK(count("open-point", "C") == 2);
  CHECK(count("open-point", "B") == 0);
  CHECK_THAT(folder.content("p.svg"), Contains("unjoined-point") && Contains("double-load"));
  folder.write("sound.yaml",
               with(with(touching, "    - {at: B, force: {x: 0.3}}\n", ""), "through: [B, D]", "through: [B, C, D]"));
  REQUIRE(folder.run("draw sound.yaml -o s.svg").status == 0);
  CHECK_THAT(folder.content("s.svg"), !Contains("\"finding"));
}

TEST_CASE("A hand value that differs says why where a simple reason fits") {
  const Folder folder;
  const std::string model =
      beam_head +
      "points: {A: [0, 0], B: [3000, 0]}\n"
      "members: {beam: {through: [A, B], section: tube, material: S235}}\n"
      "supports: {A: fixed, B: roller}\n"
      "loads:\n  people: [{on: beam, line: {down: 0.6 kN/m}}]\n  cart: [{on: beam, at: 1 m, force: {down: 1}}]\n"
      "hand:\n  let: {q: 0.6 kN/m, L: 3 m}\n  expect:\n    - {";
  for (const auto& [entry, words] :
       {std::pair("reaction: B, part: y, case: people, is: 3*q*L/4", "just half the hand value"),
        {"reaction: B, part: y, case: people, is: 3*q*L/8*pi", "just one over π times"},
        {"reaction: B, part: y, case: people, is: 3*q*L/8*1000", "just a thousandth of the hand value (units?)"},
        {"reaction: B, part: y, case: people, is: -3*q*L/8", "same magnitude, opposite sign"},
        {"reaction: B, part: y, case: cart, is: 3*q*L/8", "it agrees with case 'people'"},
        {"moment: beam, take: end, case: people, is: -q*L^2/8", "it agrees with the value at the start of the member"},
        {"moment: beam, take: max, case: people, is: -q*L^2/8",
         "it agrees with the value at the start of the member"}}) {
    folder.write("model.yaml", model + entry + "}\n");
    const Outcome o = folder.run("verify model.yaml");
    INFO(entry << "\n" << o.out << o.err);
    CHECK(o.status == 1);
    CHECK_THAT(o.out, Contains(words));
    const Json j = Json::parse(folder.run("solve model.yaml --json").out);
    bool told = false;
    for (const Json& f : j["findings"]) told = told || f["finding"] == "hand-factor";
    CHECK(told);
  }
}

TEST_CASE("A load that no member carries is told with what may be the cause") {
  const Folder folder;
  const std::string loaded =
      with(touching, "{at: B, force: {x: 0.3}}\n    - {at: B, force: {x: 0.3}}", "{at: C, force: {down: 1}}");
  folder.write("model.yaml", with(with(loaded, "  post:      {through: [F, C], section: tube, material: S235}\n", ""),
                                  ", F: fixed}", "}"));
  const Outcome solved = folder.run("solve model.yaml");
  CHECK(solved.status == 2);
  CHECK_THAT(solved.err, Contains("no member has point 'C': nothing carries this load [unheld-load]"));
  CHECK_THAT(solved.err, Contains("remedy: include 'C' in a member, or move the load") && Contains("[unjoined-point]"));
  const Outcome inspected = folder.run("inspect model.yaml");
  CHECK(inspected.status == 1);
  CHECK_THAT(inspected.out, Contains("unheld-load") && Contains("unjoined-point"));
}

TEST_CASE("Feet among inches are found where several points have the same coordinate") {
  const Folder folder;
  const std::string stand =
      "corvex: 1\nunits: {length: in, force: lbf}\nsections: {leg: SHS 2x2x1/4 in A500}\n"
      "points: {a: [0, 0, 0], b: [48, 0, 0], c: [48, 30, 0], d: [0, 30, 0],\n"
      "         A: [0, 0, 36], B: [48, 0, 36], C: [48, 30, 36], D: [0, 30, 36]}\n"
      "members:\n  legs: {each: [[a, A], [b, B], [c, C], [d, D]], section: leg, material: A36}\n"
      "  rails: {each: [[A, B], [B, C], [C, D], [D, A]], section: leg, material: A36}\n"
      "supports: {'a, b, c, d': pinned}\nloads: {tank: [{at: [A, B, C, D], force: {down: 100}}]}\n";
  folder.write("sound.yaml", stand);
  CHECK(folder.run("inspect sound.yaml").status == 0);
  folder.write("feet.yaml", with(stand, "B: [48, 0, 36]", "B: [48, 0, 36 ft]"));
  const Outcome o = folder.run("inspect feet.yaml");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("point B is 12 times the value of 3 other points"));
  // One foot of four is forgotten.
  folder.write("three.yaml", with(stand, "'a, b, c, d': pinned", "'a, b, c': pinned"));
  CHECK_THAT(folder.run("inspect three.yaml").out, Contains("'d' is the foot of 'legs.4'"));
}

}  // namespace tests_of_program_inspect
