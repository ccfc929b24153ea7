// `--variant`, `--set` and `--tables-from` on every verb that reads a model.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_variants {

using Catch::Matchers::Contains;
using corvex::test::Folder;
using corvex::test::Outcome;
using Json = nlohmann::json;

namespace {

const std::string model = R"(corvex: 1
units: {length: mm, force: kN}
parameters: {L: 3 m}
sections: {tube: SHS 60x60x4}
points: {A: [0, 0], B: [L, 0]}
members: {beam: {through: [A, B], section: tube, material: S235}}
supports: {A: pinned, B: roller}
loads: {people: [{on: beam, line: {down: 0.6 kN/m}}]}
hand: {let: {q: 0.6 kN/m}, expect: [{moment: beam, take: max, is: q*L^2/8}]}
variants:
  longer: {parameters: {L: 4 m}}
  stiffer: {sections: {tube: SHS 80x80x4}}
)";

}  // namespace

TEST_CASE("Every verb takes a variant and values of its own") {
  const Folder folder;
  folder.write("model.yaml", model);
  CHECK(Json::parse(folder.run("solve model.yaml --variant longer --json")
                        .out)["cases"]["people"]["members"]["beam"]["length"] == 4.0);
  CHECK(Json::parse(
            folder.run("solve model.yaml --set 'L=5 m' --json").out)["cases"]["people"]["members"]["beam"]["length"] ==
        5.0);
  CHECK_THAT(folder.run("verify model.yaml --variant longer").out, Contains("1.200"));
  CHECK_THAT(folder.run("trace model.yaml beam --set 'L=6 m' --at '50 %'").out, Contains("3000"));
  CHECK_THAT(folder.run("inspect model.yaml --variant stiffer").out, Contains("SHS 80x80x4"));
  CHECK_THAT(folder.run("catalogue model.yaml --variant stiffer").out, Contains("80x80x4"));
  CHECK_THAT(folder.run("catalogue model.yaml --set /sections/tube='IPE 100'").out, Contains("IPE 100"));
  CHECK(folder.run("draw model.yaml --dimensions --variant stiffer").out !=
        folder.run("draw model.yaml --dimensions --variant longer").out);
  CHECK_THAT(folder.run("solve model.yaml --variant longer --set 'L=5 m' --record").out,
             Contains("model.yaml, variant longer, L=5 m"));
}

TEST_CASE("A wrong variant or value ends with 2 and says what is there") {
  const Folder folder;
  folder.write("model.yaml", model);
  for (const auto& [call, words] :
       {std::pair("--variant long", "there is no variant 'long'; there are: longer, stiffer"),
        {"--set l='3 m'", "there is no parameter 'l'"},
        {"--set L", "--set 'L': a name and a value were expected"},
        {"--set L='3 kg'", "'L' is a mass; a length was expected"},
        {"--set /sections/tub=x", "there is no 'tub' in /sections; did you mean 'tube'?"}}) {
    const Outcome o = folder.run(std::string("solve model.yaml -o r.txt ") + call);
    INFO(call << "\n" << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(words));
    CHECK_FALSE(folder.has("r.txt"));
  }
}

TEST_CASE("Tables stand beside the model, or in folders that the user names") {
  const Folder folder;
  std::filesystem::create_directories(folder.path() / "models");
  std::filesystem::create_directories(folder.path() / "tables");
  folder.write("tables/points.csv", "name,x,y\nA,0,0\nB,3000,0\n");
  std::string far = model;
  far.replace(far.find("points: {A: [0, 0], B: [L, 0]}"), 30, "tables: {points: ../tables/points.csv}");
  folder.write("models/model.yaml", far);
  const Outcome refused = folder.run("solve models/model.yaml");
  CHECK(refused.status == 2);
  CHECK_THAT(refused.err, Contains("is outside the folder of the model") && Contains("--tables-from"));
  CHECK(folder.run("solve models/model.yaml --tables-from tables").status == 0);
  CHECK(folder.run("solve models/model.yaml --tables-from models").status == 2);
}

}  // namespace tests_of_program_variants
