#include "file/print_units.hpp"
#include "file/reader.hpp"

namespace corvex::file {
void Reader::read_units(const Node& n) {
  if (!is_map(n, "units")) return;
  Keys keys;
  for (const UnitKind& kind : unit_kinds) keys.push_back({kind.name});
  check_keys(n, "units", keys);
  NamedUnits named;
  const Scope nothing;
  for (const auto& [kind, dim] : unit_kinds) {
    const Node* value = tree_->find(n, kind);
    if (!value || !is_text(*value, fmt::format("a unit of {}", kind))) continue;
    const auto unit = evaluate(value->text, nothing);
    if (!unit) {
      fail(*value, unit.error().text, unit.error().offset);
    } else if (!(unit->quantity.dimension == dim)) {
      const bool raised = kind == "section" && unit->quantity.dimension == power(dimension::length, 2);
      fail(*value, fmt::format("'{}' is {}, not a unit of {}{}", value->text, name(unit->quantity.dimension), kind,
                               raised ? "; write the unit of their lengths, as section: cm" : ""));
    } else if (!(unit->quantity.si > 0)) {
      fail(*value, fmt::format("'{}' is not a unit", value->text));
    } else {
      named[kind] = {unit_as_printed(value->text), unit->quantity.si};
    }
  }
  const auto has = [&](std::string_view kind) { return named.contains(kind); };
  // What a bare number means.
  if (has("length")) length_.bare = named["length"].si;
  if (has("force")) force_.bare = named["force"].si;
  // Readers agree on what a bare moment means beside m, in and ft; beside mm, N·mm and N·m are both usual.
  const std::string length = has("length") ? named["length"].text : "";
  if (has("force") && (length == "m" || length == "in" || length == "ft")) {
    line_.bare = *force_.bare / *length_.bare;
    moment_.bare = *force_.bare * *length_.bare;
  } else if (has("force") && has("length")) {
    moment_.bare_refused = "with lengths in mm or cm readers disagree: write N*m or N*mm, or name moment under units:";
    line_.bare_refused = "with lengths in mm or cm readers disagree: write N/m or N/mm, or name line under units:";
  }
  if (has("moment")) moment_.bare = named["moment"].si, moment_.bare_refused = nullptr;
  if (has("line")) line_.bare = named["line"].si, line_.bare_refused = nullptr;
  if (has("stress")) stress_.bare = named["stress"].si;
  // A tube of 60 in a model in metres is a slip, or a decimal point that was forgotten.
  if (length == "mm" || length == "in") dimension_.bare = length_.bare;
  if (length == "m" || length == "ft" || length == "cm")
    dimension_.bare_refused = "sections are not read in the unit of length here: name section under units:";
  if (has("section")) section_unit_ = dimension_.bare = named["section"].si, dimension_.bare_refused = nullptr;
  if (has("angle")) angle_.bare = named["angle"].si;
  if (has("deflection")) movement_bare_ = named["deflection"].si;
  if (has("mass")) mass_bare_ = mass_.bare = named["mass"].si;
  if (has("temperature")) temperature_.bare = named["temperature"].si;
  print_ = units_for_print(named);
}

}  // namespace corvex::file
