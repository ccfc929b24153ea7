#include "corvex/derive.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "hand/derived_figures.hpp"
#include "hand/write_chapters.hpp"
#include "structure/combined.hpp"

namespace corvex {
namespace {

// The loads of the case or combination of this name; the only case if it is empty.
Expected<LoadCase, Problem> loads_of(const Structure& s, std::string_view name) {
  std::vector<std::string> known;
  for (const LoadCase& c : s.load_cases()) known.push_back(c.name());
  for (const Combination& c : s.combinations()) known.push_back(c.name);
  if (name.empty() && known.size() == 1) return s.load_cases().front();
  for (const LoadCase& c : s.load_cases())
    if (c.name() == name) return c;
  for (const Combination& c : s.combinations())
    if (c.name == name) return combined(s, c);
  if (name.empty())
    return Problem{known.empty() ? std::string("the structure has no load case")
                                 : fmt::format("name the case to be derived: {}", fmt::join(known, ", "))};
  return Problem{fmt::format("there is no load case or combination '{}'{}", name, did_you_mean(name, known))};
}

}  // namespace

Expected<Derivation, Problem> derive(const Structure& structure, std::string_view load_case,
                                     const DeriveOptions& options) {
  for (const Problem& p : structure.validate())
    if (p.severity == Problem::Severity::error) return p;
  if (structure.analysis().order != Order::first)
    return Problem{"a derivation is of first order, but this model is not: set analysis: {order: first}"};
  const auto loads = loads_of(structure, load_case);
  if (!loads) return loads.error();
  const auto method = hand::force_method(structure, *loads, most_redundants);
  if (!method) return method.error();
  Derivation d{.title = structure.title(), .load_case = loads->name(), .count = method->statics->count()};
  d.reactions = hand::reactions_of(*method);
  d.members = hand::members_of(*method);
  d.chapters.push_back(hand::given_chapter(*method));
  d.chapters.push_back(hand::count_chapter(*method, d.redundants));
  d.chapters.push_back(hand::forces_chapter(*method));
  for (DerivationChapter& chapter : hand::force_method_chapters(*method)) d.chapters.push_back(std::move(chapter));
  if (auto bars = hand::bars_table(*method)) d.chapters.back().items.emplace_back(std::move(*bars));
  if (auto chapter = hand::one_way_chapter(*method); !chapter.items.empty()) d.chapters.push_back(std::move(chapter));
  if (auto chapter = hand::members_chapter(*method, options.members); !chapter.items.empty())
    d.chapters.push_back(std::move(chapter));
  const hand::Ledger final(*method, method->acting, method->final, dimension::number);
  d.chapters.push_back(hand::joints_chapter(final));
  auto [displacement, displacements] = hand::displacement_chapter(*method, options.points);
  d.chapters.push_back(std::move(displacement));
  d.displacements = std::move(displacements);
  auto [stress, worst] = hand::stress_chapter(*method, options.members);
  d.chapters.push_back(std::move(stress));
  d.stress = worst;
  return d;
}

Expected<Derivation, Problem> derive(const Solution& solution, std::size_t load_case, const DeriveOptions& options) {
  if (!solution.ok())
    return solution.problems().empty() ? Problem{"there is no solution"} : solution.problems().front();
  auto derived = derive(solution.structure(), solution[load_case].name(), options);
  if (derived || derived.error().key != too_long) return derived;
  Derivation d = check_joints(solution, load_case);
  d.chapters.front().items.insert(
      d.chapters.front().items.begin(),
      hand::sentence(
          "This is not a derivation: " + derived.error().text +
          ". The forces below are those of the solution; that they balance at every joint is checked instead."));
  return d;
}

}  // namespace corvex
