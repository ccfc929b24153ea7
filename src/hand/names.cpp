#include "hand/names.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace corvex::hand {
namespace {

using Outcome = Expected<Evaluated, FormulaError>;
using Value = std::optional<Quantity>;  // empty: not defined by the material or section

struct MaterialFigure {
  const char* word;
  Value (*value)(const Material&);
};
const MaterialFigure of_material[] = {
    {"E", [](const Material& m) { return Value(m.E); }},
    {"G", [](const Material& m) { return Value(m.shear_modulus()); }},
    {"density", [](const Material& m) { return Value(m.density); }},
    {"expansion", [](const Material& m) { return Value(m.expansion); }},
    {"yield", [](const Material& m) { return m.yield ? Value(*m.yield) : Value(); }},
};

// A section that leaves a figure out has zero there.
template <int L>
Value known(Measure<L, 0, 0> m) {
  return m.si() != 0 ? Value(m) : Value();
}

struct SectionFigure {
  const char* word;
  Value (*value)(const SectionProperties&);
};
const SectionFigure of_section[] = {
    {"A", [](const SectionProperties& p) { return known(p.A); }},
    {"Ay", [](const SectionProperties& p) { return known(p.Ay); }},
    {"Az", [](const SectionProperties& p) { return known(p.Az); }},
    {"Iy", [](const SectionProperties& p) { return known(p.Iy); }},
    {"Iz", [](const SectionProperties& p) { return known(p.Iz); }},
    {"J", [](const SectionProperties& p) { return known(p.J); }},
    {"Wy", [](const SectionProperties& p) { return known(p.Wy); }},
    {"Wz", [](const SectionProperties& p) { return known(p.Wz); }},
    {"Iyz", [](const SectionProperties& p) { return Value(p.Iyz); }},
    {"Wt", [](const SectionProperties& p) { return known(p.Wt); }},
};

// A member's material, with the yield strength that its wall has.
Material of_wall(const Structure& s, const Member& m) {
  Material material = s.material_of(m);
  material.yield = material.yield_at(s.section_of(m).thickness());
  return material;
}

template <class Figures>
auto entry_of(const Figures& figures, std::string_view word) {
  return std::find_if(std::begin(figures), std::end(figures), [&](const auto& f) { return f.word == word; });
}

Outcome no_such(std::string_view kinds, std::string_view name, const std::vector<std::string>& known) {
  return FormulaError{0, fmt::format("there is no {} '{}'{}", kinds, name, did_you_mean(name, known))};
}

// Of the object with this name and of a member of the same name, if they agree.
Outcome one_of(std::string_view word, std::string_view of, const std::optional<Value>& own, const char* kind,
               const std::optional<Value>& members) {
  if (own && members && *own != *members)
    return FormulaError{0, fmt::format("a {} and a member are both named '{}', and their {} differ", kind, of, word)};
  const Value value = own ? *own : *members;
  if (!value) return FormulaError{0, fmt::format("{} of '{}' is not known", word, of)};
  return Evaluated{*value, false, true};
}

}  // namespace

std::vector<std::string> StructureNames::figures() const {
  std::vector<std::string> words{"length"};
  for (const auto& f : of_material) words.emplace_back(f.word);
  for (const auto& f : of_section) words.emplace_back(f.word);
  return words;
}

std::vector<std::string> StructureNames::member_names() const {
  std::vector<std::string> names;
  for (const Member& m : s_.members()) names.push_back(m.name);
  return names;
}

Outcome StructureNames::figure(std::string_view word, std::string_view of) const {
  const auto member = s_.find_member(of);
  if (word == "length") {
    if (!member) return no_such("member", of, member_names());
    return Evaluated{Quantity(s_.length_of(s_[*member]), dimension::length), false, true};
  }
  if (const auto f = entry_of(of_material, word); f != std::end(of_material)) {
    std::optional<Value> own, members;
    const auto& all = s_.materials();
    const auto used = std::find_if(all.begin(), all.end(), [&](const Material& m) { return m.name == of; });
    if (used != all.end())
      own = f->value(*used);
    else if (const auto built_in = find_material(of))
      own = f->value(*built_in);
    if (member) members = f->value(of_wall(s_, s_[*member]));
    if (own || members) return one_of(word, of, own, "material", members);
    std::vector<std::string> names = member_names();
    for (const Material& m : all) names.push_back(m.name);
    for (const std::string& name : material_names()) names.push_back(name);
    return no_such("material or member", of, names);
  }
  const auto f = entry_of(of_section, word);
  if (f == std::end(of_section)) return Names::figure(word, of);
  std::optional<Value> own, members;
  if (const auto section = s_.find_section(of)) own = f->value(s_.sections()[section->index].section.properties());
  if (member) members = f->value(s_.section_of(s_[*member]).properties());
  if (own || members) return one_of(word, of, own, "section", members);
  std::vector<std::string> names = member_names();
  for (const NamedSection& n : s_.sections()) names.push_back(n.name);
  return no_such("section or member", of, names);
}

}  // namespace corvex::hand
