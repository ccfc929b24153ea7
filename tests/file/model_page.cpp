// Every example of docs/model-file.md is a model that is read and solved.
#include <filesystem>
#include <fstream>
#include <sstream>

#include "support/text.hpp"

namespace tests_of_file_model_page {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

struct Block {
  std::string language, text;  // "yaml", "csv points.csv"
  int line = 0;
};

std::vector<Block> blocks() {
  std::ifstream in(std::string(CORVEX_SOURCE) + "/docs/model-file.md");
  REQUIRE(in);
  std::vector<Block> all;
  std::string line;
  bool inside = false;
  for (int number = 1; std::getline(in, line); ++number) {
    if (line.rfind("```", 0) == 0) {
      if (!inside) all.push_back({line.substr(3), "", number});
      inside = !inside;
    } else if (inside) {
      all.back().text += line + "\n";
    }
  }
  return all;
}

void check_solves(const Model& model) {
  const Solution s = solve(model.structure);
  for (const Problem& p : model.located(s.problems())) UNSCOPED_INFO(describe(p));
  REQUIRE(s.ok());
  for (std::size_t c = 0; c < s.size(); ++c) CHECK(s[c].balance().error < 1e-10);
  const auto hand = verify(s, model.hand);
  REQUIRE(hand.ok());
  for (const Comparison& c : hand->comparisons) {
    INFO(c.what << " " << c.load_case << ": " << c.hand.si << " against " << c.computed.si);
    CHECK(c.agrees);
  }
}

}  // namespace

TEST_CASE("Every example of the model-file page is read, solves, and keeps its hand calculation") {
  const auto folder = std::filesystem::temp_directory_path() / ("corvex-page-" + std::to_string(getpid()));
  std::filesystem::create_directories(folder);
  int models = 0;
  for (const Block& b : blocks()) {
    INFO("docs/model-file.md:" << b.line);
    if (b.language.rfind("csv ", 0) == 0) {
      std::ofstream(folder / b.language.substr(4)) << b.text;
      continue;
    }
    CHECK(b.language == "yaml");
    const auto model = read_model_text(b.text, (folder / "model.yaml").string());
    if (!model)
      for (const Problem& p : model.error()) UNSCOPED_INFO(describe(p));
    REQUIRE(model.ok());
    check_solves(model.value());
    ++models;
  }
  std::filesystem::remove_all(folder);
  CHECK(models >= 10);
}

TEST_CASE("A model that holds every part of the format is read and solved") {
  const Model model = read(R"(corvex: 1
title: Bottling line, conveyor trestle
units: {length: mm, force: kN}

parameters:
  span: 2.4 m
  load: 3.2 kN

materials:
  frame steel: {like: S235, yield: 225 MPa}

sections:
  leg:  {shape: square tube, width: 60 mm, wall: 4 mm}
  rail: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}

points:
  A: [0, 0]
  B: [0, 900]
  C: [span/2, 900]
  D: [span, 900]
  E: [span, 0]

members:
  left leg:  {through: [A, B], section: leg, material: frame steel}
  rail:      {through: [B, C, D], section: rail, material: frame steel}
  right leg: {through: [E, D], section: leg, material: frame steel}

supports:
  A: fixed
  E: fixed

loads:
  product:
    - {at: C, force: {down: load}}
    - {on: rail, line: {down: 0.8 kN/m}}
  weight:
    - {gravity: down}

combinations:
  service: {product: 1, weight: 1}

limits:
  - {safety: 1.5}
  - {sag: 1/300, on: rail}

hand:
  let: {P: load, q: 0.8 kN/m, L: span}
  expect:
    - {reaction: A, part: y, case: product, is: P/2 + q*L/2, note: symmetry}

variants:
  slim legs: {sections: {leg: {wall: 2.5 mm}}}
)");
  CHECK(model.notes.empty());
  const auto limits = check_limits(solve(model.structure), model.limits);
  REQUIRE(limits.ok());
  CHECK(limits->verdicts.size() == 4);
  CHECK(limits->all_met());
  check_solves(model);
}

}  // namespace tests_of_file_model_page
