// Studies of the demo for a model: its variants, its sweeps, its choice of sections.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/file.hpp"

namespace corvex::cli {

// Contents of files by what is put behind the name of the model: "-compare.txt", "-sweep-wall.svg".
using DemoFiles = std::vector<std::pair<std::string, std::string>>;
// Else the reason.
Expected<DemoFiles, std::string> demo_studies(const ModelDocument& document, const Model& model,
                                              const Solution& solution);

}  // namespace corvex::cli
