// The verb `catalogue`.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct CatalogueOptions {
  // A model file first, if its sections are meant; then designations, materials, or names of its sections.
  std::vector<std::string> what;
  std::vector<std::string> series;
  // "min-Iz" and its value as written.
  std::map<std::string, std::string> bounds;
  std::string sort, material;
  ModelOptions model;  // changes of the model
  OutputOptions output;
};

// The figures that can be searched and sorted by.
const std::vector<std::string>& searched_figures();

// Prints, and returns the exit status.
int catalogue(const CatalogueOptions& options);

}  // namespace corvex::cli
