// Corvex: formulas with units, evaluated at run time.
//
// A formula is made of numbers, units, named values, + - * / ^, brackets, sqrt sin cos tan abs min max, pi
// and gn.
// `^` binds tightest, then a number with its unit, then `*` and `/`: `4.2 cm^2` is 4.2 square centimetres,
// `10 kN/2 m` is 5 kN/m, `-2^2` is -4. A unit is a constant with a dimension, so dimensions are checked and
// an error names both sides.
//
//     corvex::Scope scope;
//     scope.set("L", corvex::Quantity(2.4_m));
//     auto q = corvex::evaluate("3.2 kN*L/4", scope);
//     if (q) fmt::print("{} N·m\n", q->quantity.in(corvex::N_m));   // 1920
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/quantity.hpp"

namespace corvex {

struct Evaluated {
  Quantity quantity;
  // A `%` was written in the formula, or in one that it uses: a position is a share only then.
  bool percent = false;
};

struct FormulaError {
  std::size_t offset = 0;  // bytes from the start of the formula
  std::string text;
};

// Where a formula looks up its names.
class Names {
 public:
  virtual ~Names() = default;
  // The value of a name; nothing if there is none. An error is passed on to who evaluates.
  virtual std::optional<Expected<Evaluated, FormulaError>> find(std::string_view name) const = 0;
  // For the hint at the nearest right word.
  virtual std::vector<std::string> names() const = 0;
};

// The plain kind: names and values.
class Scope : public Names {
 public:
  void set(std::string name, const Quantity& value) { values_[std::move(name)] = {value, false}; }
  std::optional<Expected<Evaluated, FormulaError>> find(std::string_view name) const override;
  std::vector<std::string> names() const override;

 private:
  std::map<std::string, Evaluated, std::less<>> values_;
};

Expected<Evaluated, FormulaError> evaluate(std::string_view formula, const Names& names);

// Why `name` cannot be given to a parameter: it is a unit, a function or a constant, or no name at all. Empty
// if it can.
std::string why_not_a_parameter(std::string_view name);

// The SI value and dimension of a unit symbol (`mm`, `kN`, `°`), if it is one.
std::optional<Quantity> unit(std::string_view symbol);

// The word of `known` that is nearest to `word` by keystrokes (insertions, deletions, exchanges, swaps);
// empty if none is near enough to be what was meant.
std::string nearest(std::string_view word, const std::vector<std::string>& known);

}  // namespace corvex
