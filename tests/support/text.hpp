// Model texts for tests of the reader.
#pragma once

#include <catch2/catch.hpp>
#include <corvex/file.hpp>
#include <string>

namespace corvex::test {

inline Model read(const std::string& text) {
  auto model = read_model_text(text, "model.yaml");
  if (!model)
    for (const Problem& p : model.error()) UNSCOPED_INFO(describe(p));
  REQUIRE(model.ok());
  return model.value();
}

// What is said of a text that is wrong, by the reader or by the check of what it describes; each on a line of
// its own.
inline std::string refusal(const std::string& text) {
  const auto model = read_model_text(text, "model.yaml");
  const Problems problems = model ? model->located(model->structure.validate()) : model.error();
  REQUIRE(!problems.empty());
  std::string all;
  for (const Problem& p : problems) all += describe(p) + "\n";
  return all;
}

// A sound model to spoil.
inline const std::string sound = R"(corvex: 1
units: {length: mm, force: kN}
sections:
  leg: {shape: square tube, width: 60 mm, wall: 4 mm}
points:
  A: [0, 0]
  B: [0, 900]
members:
  post: {through: [A, B], section: leg, material: S235}
supports:
  A: fixed
loads:
  push:
    - {at: B, force: {x: 2}}
)";

inline std::string replaced(std::string text, const std::string& what, const std::string& by) {
  const std::size_t at = text.find(what);
  REQUIRE(at != std::string::npos);
  return text.replace(at, what.size(), by);
}

// A cantilever of 2 m from A to B with these loads, which begin in line 9.
inline std::string cantilever(const std::string& loads,
                              const std::string& section = "{shape: square tube, width: 60 mm, wall: 4 mm}") {
  return "corvex: 1\n"
         "units: {length: mm, force: kN}\n"
         "sections: {tube: " +
         section +
         "}\n"
         "points: {A: [0, 0], B: [2000, 0]}\n"
         "members: {arm: {through: [A, B], section: tube, material: S235}}\n"
         "supports: {A: fixed}\n"
         "loads:\n"
         "  tip:\n" +
         loads + "\n";
}

}  // namespace corvex::test
