// Values that a hand formula can use by name in brackets: figures of materials, sections and members.
#pragma once

#include "corvex/formula.hpp"
#include "corvex/structure.hpp"

namespace corvex::hand {

class StructureNames : public Names {
 public:
  explicit StructureNames(const Structure& structure) : s_(structure) {}

  std::optional<Expected<Evaluated, FormulaError>> find(std::string_view) const override { return std::nullopt; }
  std::vector<std::string> names() const override { return {}; }
  std::vector<std::string> figures() const override;
  Expected<Evaluated, FormulaError> figure(std::string_view word, std::string_view of) const override;

 private:
  std::vector<std::string> member_names() const;

  const Structure& s_;
};

}  // namespace corvex::hand
