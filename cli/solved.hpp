// A model, read and solved for a verb.
#pragma once

#include <optional>

#include "output.hpp"
#include "progress.hpp"

namespace corvex::cli {

struct Solved {
  Model model;  // with the units for print that were asked for
  Solution solution;
};
// A model that was read, its units chosen. Nothing where it is refused; the reason has been told then.
std::optional<Model> read(const ModelOptions& options, OutputOptions& output, Progress& progress);
// Nothing where it is refused; the reason has been told then. Files that are read are noted in `output`.
std::optional<Solved> read_and_solve(const ModelOptions& options, OutputOptions& output, Progress& progress);

}  // namespace corvex::cli
