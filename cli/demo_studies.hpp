// What the demo tries out with a model: its variants, its sweeps, its choice of sections.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/file.hpp"

namespace corvex::cli {

// Files by what is put behind the name of the model: "-compare.txt", "-sweep-wall.svg". Else the reason.
Expected<std::vector<std::pair<std::string, std::string>>, std::string> demo_studies(const ModelDocument& document,
                                                                                     const Model& model,
                                                                                     const Solution& solution);

}  // namespace corvex::cli
