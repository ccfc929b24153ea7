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
// Nothing where it is refused; the reason has been told then. Files that are read are noted in `output`.
std::optional<Solved> read_and_solve(const std::string& path, OutputOptions& output, Progress& progress);

}  // namespace corvex::cli
