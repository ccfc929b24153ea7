// Where formulas look up their names.
#include <fmt/format.h>

#include "corvex/formula.hpp"
#include "quantity/words_of.hpp"

namespace corvex {

using Outcome = Expected<Evaluated, FormulaError>;

Outcome Names::figure(std::string_view word, std::string_view) const {
  return FormulaError{0, fmt::format("'{}' cannot be used here", word)};
}

std::optional<Outcome> Scope::find(std::string_view name) const {
  const auto it = values_.find(name);
  if (it == values_.end()) return std::nullopt;
  return Outcome(it->second);
}

std::vector<std::string> Scope::names() const {
  std::vector<std::string> all;
  for (const auto& [name, value] : values_) all.push_back(name);
  return all;
}

bool Definitions::add(std::string name, std::string formula) {
  return all_.try_emplace(std::move(name), Entry{std::move(formula), std::nullopt}).second;
}

bool Definitions::add(std::string name, const Quantity& value) {
  const Evaluated known{value, false, !value.dimension.none(), 0};
  return all_.try_emplace(std::move(name), Entry{"", Outcome(known)}).second;
}

std::optional<Outcome> Definitions::find(std::string_view name) const {
  const std::lock_guard lock(evaluating_);
  const auto it = all_.find(name);
  if (it == all_.end()) return outer_ ? outer_->find(name) : std::nullopt;
  Entry& entry = it->second;
  if (!entry.result && entry.begun) return Outcome(FormulaError{0, fmt::format("circular definition of '{}'", name)});
  if (!entry.result) evaluate_with_needs(entry);
  // Told once, where the definition stands; not again at every use.
  if (!entry.result->ok()) return Outcome(FormulaError{0, ""});
  return entry.result;
}

// The names used by a formula are evaluated before it, one after the other: a chain of definitions does not fill the
// stack.
void Definitions::evaluate_with_needs(Entry& wanted) const {
  std::vector<Entry*> open{&wanted};
  while (!open.empty()) {
    Entry& entry = *open.back();
    if (!entry.result && !entry.begun) {
      entry.begun = true;
      for (const std::string_view word : words_of(entry.formula, figures()))
        if (const auto it = all_.find(word); it != all_.end() && !it->second.result && !it->second.begun)
          open.push_back(&it->second);
      if (open.back() != &entry) continue;
    }
    open.pop_back();
    if (!entry.result) entry.result = evaluate(entry.formula, *this);
  }
}

std::vector<std::string> Definitions::names() const {
  std::vector<std::string> names;
  if (outer_) names = outer_->names();
  for (const auto& [name, entry] : all_) names.push_back(name);
  return names;
}

std::vector<std::string> Definitions::figures() const {
  return outer_ ? outer_->figures() : std::vector<std::string>();
}

Outcome Definitions::figure(std::string_view word, std::string_view of) const {
  return outer_ ? outer_->figure(word, of) : Names::figure(word, of);
}

std::optional<FormulaError> Definitions::own_error(std::string_view name) const {
  const std::lock_guard lock(evaluating_);
  const auto it = all_.find(name);
  if (it == all_.end() || !find(name) || it->second.result->ok() || it->second.result->error().text.empty())
    return std::nullopt;
  return it->second.result->error();
}

}  // namespace corvex
