// The verb `report`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct ReportCommand {
  ModelOptions model;
  std::vector<std::string> parts{};
  std::string output{}, units{};
  int digits = 4;
  std::vector<std::string> cases{};
  bool all = false;
};

// The calculation as a document. The exit status.
int report(const ReportCommand& command);

// The original model and its variants; empty if it has none.
std::vector<Compared> compared_variants(const ModelDocument& document, const Model& model, const Overrides& overrides);

}  // namespace corvex::cli
