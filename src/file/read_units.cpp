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
      fail(*value, fmt::format("'{}' is {}, not a unit of {}", value->text, name(unit->quantity.dimension), kind));
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
  if (has("force") && has("length")) {
    line_.bare = *force_.bare / *length_.bare;
    moment_.bare = *force_.bare * *length_.bare;
  }
  if (has("moment")) moment_.bare = named["moment"].si;
  if (has("stress")) stress_.bare = named["stress"].si;
  if (has("section")) dimension_.bare = named["section"].si;
  if (has("angle")) angle_.bare = named["angle"].si;
  if (has("deflection")) movement_bare_ = named["deflection"].si;
  if (has("mass")) mass_bare_ = mass_.bare = named["mass"].si;
  if (has("temperature")) temperature_.bare = named["temperature"].si;
  print_ = units_for_print(named);
}

}  // namespace corvex::file
