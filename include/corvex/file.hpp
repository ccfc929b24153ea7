// Corvex: model files in, results out. (Target corvex::files.)
//
// A model file describes one structure, its loads and the units of its numbers; docs/model-file.md tells the
// format. Reading builds a Structure through the same calls that a program would make, and finds many
// mistakes in one go, each with file, line, column and what was expected.
//
//     const auto model = corvex::read_model("trestle.yaml");
//     if (!model) { for (const auto& p : model.error()) puts(describe(p).c_str()); return 2; }
//     const corvex::Solution solution = corvex::solve(model->structure);
//     std::string json = corvex::results_json(solution, {.stations = 11});
#pragma once

#include <memory>
#include <string>

#include "corvex/expected.hpp"
#include "corvex/solution.hpp"

namespace corvex {

// A unit for numbers without one, and for print.
struct NamedUnit {
  std::string text;  // as printed: "kN·m"
  double si = 1;     // its value in SI units
};

// Units of a model for print: those that it names, the usual ones for the rest.
struct ModelUnits {
  NamedUnit length{"m", 1}, force{"kN", 1e3}, moment{"kN·m", 1e3}, stress{"MPa", 1e6}, deflection{"mm", 1e-3},
      angle{"mrad", 1e-3}, mass{"kg", 1};
};

namespace file {
class Tree;
}

struct Model {
  Structure structure;
  ModelUnits units;

  // Fills in the lines of problems that `solve` finds in this model.
  Problems located(Problems problems) const;

  std::string file;
  std::shared_ptr<const file::Tree> tree;
  // For each load case the entries of the file that its loads came from.
  std::vector<std::vector<std::size_t>> load_entries;
};

// From a file; "-" is standard input.
Expected<Model, Problems> read_model(const std::string& path);
// From text; `file` is its name in messages.
Expected<Model, Problems> read_model_text(std::string_view text, const std::string& file);

struct JsonOptions {
  // Evenly spaced stations a member, ends included; none if 0.
  int stations = 0;
};
// All results in SI units at full precision, as the commands page of docs/ tells.
std::string results_json(const Solution& solution, const JsonOptions& options = {});

}  // namespace corvex
