// The parameters of a model, as the file has them or as they are overridden.
#pragma once

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "file/errors.hpp"

namespace corvex::file {

class Parameters {
 public:
  Parameters(const Tree& tree, Errors& errors, Overrides overrides);

  void read();
  const Definitions& definitions() const { return definitions_; }
  // Their names and formulas, without those that were refused.
  std::vector<std::pair<std::string, std::string>> all() const;

 private:
  void read_all(const Node& n);
  std::string text(const Node& name, const Node& value) const;

  const Tree* tree_;
  Errors& errors_;
  Overrides overrides_;
  Definitions definitions_;
};

}  // namespace corvex::file
