// All model files that ship: examples, starters, those in docs/model-file.md.
#pragma once

#include <corvex/file.hpp>
#include <string>
#include <vector>

namespace corvex::test {

struct NamedModel {
  std::string name, text;
};
// Those that are solved; parts of models and mistakes shown in the documents are left out.
std::vector<NamedModel> shipped_models();

// Everything that the program tells of a model: without and, where it is solved, with results.
Problems told(const Model& model);

}  // namespace corvex::test
