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
// A model that was read, its units chosen. Nothing where it is refused; the reason has been told then. Its document is
// put into `document` if that is wanted: standard input can be read once only.
std::optional<Model> read(const ModelOptions& options, OutputOptions& output, Progress& progress,
                          std::optional<ModelDocument>* document = nullptr);
// Nothing where it is refused; the reason has been told then. Files that are read are noted in `output`.
std::optional<Solved> read_and_solve(const ModelOptions& options, OutputOptions& output, Progress& progress,
                                     std::optional<ModelDocument>* document = nullptr);

}  // namespace corvex::cli
