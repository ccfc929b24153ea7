#include "file/parts.hpp"
#include "file/print_units.hpp"

namespace corvex::file {
void read_units(const Tree& tree, Errors& errors, const Node& n, WantedUnits& units, ModelUnits& print) {
  if (!errors.is_map(n, "units")) return;
  Keys keys;
  for (const UnitKind& kind : unit_kinds) keys.push_back({kind.name});
  errors.check_keys(n, "units", keys);
  NamedUnits named;
  const Scope nothing;
  for (const auto& [kind, dim] : unit_kinds) {
    const Node* value = tree.find(n, kind);
    if (!value || !errors.is_text(*value, fmt::format("a unit of {}", kind))) continue;
    const auto unit = evaluate(value->text, nothing);
    if (!unit) {
      errors.fail(*value, unit.error().text, unit.error().offset);
    } else if (!(unit->quantity.dimension == dim)) {
      const bool raised = kind == "section" && unit->quantity.dimension == power(dimension::length, 2);
      errors.fail(*value, fmt::format("'{}' is {}, not a unit of {}{}", value->text, name(unit->quantity.dimension),
                                      kind, raised ? "; write the unit of their lengths, as section: cm" : ""));
    } else if (!(unit->quantity.si > 0)) {
      errors.fail(*value, fmt::format("'{}' is not a unit", value->text));
    } else {
      named[kind] = {unit_as_printed(value->text), unit->quantity.si};
    }
  }
  const auto has = [&](std::string_view kind) { return named.contains(kind); };
  // Unit of a number without unit.
  if (has("length")) units.length.bare = named["length"].si;
  if (has("force")) units.force.bare = named["force"].si;
  // With m, in and ft the unit of a moment is unambiguous; with mm, both N·mm and N·m are usual.
  const std::string length = has("length") ? named["length"].text : "";
  if (has("force") && (length == "m" || length == "in" || length == "ft")) {
    units.line.bare = *units.force.bare / *units.length.bare;
    units.moment.bare = *units.force.bare * *units.length.bare;
  } else if (has("force") && has("length")) {
    units.moment.bare_refused =
        "with lengths in mm or cm readers disagree: write N*m or N*mm, or name moment under units:";
    units.line.bare_refused = "with lengths in mm or cm readers disagree: write N/m or N/mm, or name line under units:";
  }
  if (has("moment")) units.moment.bare = named["moment"].si, units.moment.bare_refused = nullptr;
  if (has("line")) units.line.bare = named["line"].si, units.line.bare_refused = nullptr;
  if (has("stress")) units.stress.bare = named["stress"].si;
  // A tube of 60 in a model in metres is a slip, or a decimal point that was forgotten.
  if (length == "mm" || length == "in") units.section.bare = units.length.bare;
  if (length == "m" || length == "ft" || length == "cm")
    units.section.bare_refused = "sections are not read in the unit of length here: name section under units:";
  if (has("section"))
    units.section_length = units.section.bare = named["section"].si, units.section.bare_refused = nullptr;
  if (has("angle")) units.angle.bare = named["angle"].si;
  units.movement = units.length;
  if (has("deflection")) units.deflection = units.movement.bare = named["deflection"].si;
  if (has("mass")) units.mass.bare = named["mass"].si;
  if (has("temperature")) units.temperature.bare = named["temperature"].si;
  print = units_for_print(named);
}

}  // namespace corvex::file
