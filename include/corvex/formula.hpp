// Corvex: formulas with units, evaluated at run time.
//
// A formula is made of numbers, units, named values, + - * / ^, brackets, functions (sqrt sin cos tan asin acos atan
// atan2 hypot abs min max), pi and gn.
// `^` binds tightest, then a number or a bracket with its unit, then `*` and `/`: `4.2 cm^2` is 4.2 square centimetres,
// `(1/4) in` a quarter of an inch, `10 kN/2 m` is 5 kN/m, `-2^2` is -4. A unit is a constant with a dimension, so
// dimensions are checked and an error names both sides. Units have their exact values; a formula is evaluated in double
// precision.
//
//     corvex::Scope scope;
//     scope.set("L", corvex::Quantity(2.4_m));
//     auto q = corvex::evaluate("3.2 kN*L/4", scope);
//     if (q) fmt::print("{:.0f} N·m\n", q->quantity.in(corvex::units::N_m));   // 1920 N·m
#pragma once

#include <atomic>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/quantity.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct Evaluated {
  Quantity quantity;
  // A `%` was written in the formula, or in one that it uses: a position is a share only then.
  bool percent = false;
  // A unit had a part in it: a ratio of two lengths is a number for good, a bare `2.4` may still be given a unit.
  bool units = false;
  // The largest plain number beyond a full turn that sin, cos or tan was asked for, as in sin(30): it counts in
  // radians, where degrees may have been meant. Else 0.
  double plain_turn = 0;

  // A note on a part of the formula applies to the whole.
  void adopt_marks(const Evaluated& part) {
    percent |= part.percent;
    units |= part.units;
    plain_turn = part.plain_turn > plain_turn ? part.plain_turn : plain_turn;
  }
};

// A name in a formula, and the value that it stood for.
struct Use {
  std::size_t offset = 0, length = 0;  // bytes of the formula
  Quantity value;
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
  // Whether a mistake gets such a hint: looking for the nearest of many names takes time.
  virtual bool gives_hints() const { return true; }
  // Words that ask for a figure of something named in brackets, as Iz(rail); and their values.
  virtual std::vector<std::string> figures() const { return {}; }
  virtual Expected<Evaluated, FormulaError> figure(std::string_view word, std::string_view of) const;
};

// The plain kind: names and values.
class Scope : public Names {
 public:
  void set(std::string name, const Quantity& value) {
    values_[std::move(name)] = {value, false, !value.dimension.none(), 0};
  }
  std::optional<Expected<Evaluated, FormulaError>> find(std::string_view name) const override;
  std::vector<std::string> names() const override;

 private:
  std::map<std::string, Evaluated, std::less<>> values_;
};

// Names whose values are formulas of each other, evaluated when first used, in any order; circular definitions are
// reported. May be read from several threads at once. Not copied: `Definitions inner(outer)` would be a copy where it
// looks like a scope.
class Definitions : public Names {
 public:
  Definitions() = default;
  // Looks up what it does not define itself in `outer`, which must outlive it.
  struct Within {
    const Names& outer;
  };
  explicit Definitions(Within outer) : outer_(&outer.outer) {}
  Definitions(const Definitions&) = delete;
  Definitions& operator=(const Definitions&) = delete;

  // False if the name is defined already.
  bool add(std::string name, std::string formula);
  bool add(std::string name, const Quantity& value);
  std::optional<Expected<Evaluated, FormulaError>> find(std::string_view name) const override;
  std::vector<std::string> names() const override;
  // For the first 25 mistakes.
  bool gives_hints() const override { return hints_++ < 25; }
  std::vector<std::string> figures() const override;
  Expected<Evaluated, FormulaError> figure(std::string_view word, std::string_view of) const override;
  // Error in a definition itself; empty if it only uses another that is wrong. A formula that uses
  // a wrong one gets an error with an empty text, since the mistake is reported once, at the definition.
  std::optional<FormulaError> own_error(std::string_view name) const;

 private:
  struct Entry {
    std::string formula;
    std::optional<Expected<Evaluated, FormulaError>> result;
    bool begun = false;  // evaluated, or waiting for what it uses
  };
  void evaluate_with_needs(Entry& wanted) const;

  const Names* outer_ = nullptr;
  mutable std::atomic<int> hints_ = 0;
  mutable std::recursive_mutex evaluating_;
  mutable std::map<std::string, Entry, std::less<>> all_;
};

Expected<Evaluated, FormulaError> evaluate(std::string_view formula, const Names& names);
// The same, with every name that it uses.
Expected<Evaluated, FormulaError> evaluate(std::string_view formula, const Names& names, std::vector<Use>& uses);

// Why `name` cannot be given to a parameter: it is a unit, a function or a constant, or no name at all. Empty
// if it can.
std::string why_not_a_parameter(std::string_view name);

// The SI value and dimension of a unit symbol (`mm`, `kN`, `°`), if it is one.
std::optional<Quantity> unit(std::string_view symbol);

// The word of `known` that is nearest to `word` by keystrokes (insertions, deletions, exchanges, swaps);
// empty if none is near enough to be what was meant.
std::string nearest(std::string_view word, const std::vector<std::string>& known);
// "; did you mean 'wall'?", or nothing where none is near enough.
std::string did_you_mean(std::string_view word, const std::vector<std::string>& known);

}  // namespace corvex

#pragma GCC visibility pop
