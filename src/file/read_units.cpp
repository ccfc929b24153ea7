#include <array>

#include "file/reader.hpp"

namespace corvex::file {
namespace {

std::string printed(std::string_view unit) {
  std::string text;
  for (std::size_t i = 0; i < unit.size(); ++i) {
    if (unit[i] == ' ') continue;
    if (unit[i] == '*')
      text += "·";
    else if (unit.substr(i).starts_with("^2"))
      text += "²", ++i;
    else if (unit.substr(i).starts_with("^3"))
      text += "³", ++i;
    else
      text += unit[i];
  }
  return text;
}

}  // namespace

void Reader::read_units(const Node& n) {
  static const std::array<std::pair<std::string_view, Dimension>, 9> kinds = {{{"length", dimension::length},
                                                                               {"force", dimension::force},
                                                                               {"moment", dimension::moment},
                                                                               {"stress", dimension::stress},
                                                                               {"deflection", dimension::length},
                                                                               {"section", dimension::length},
                                                                               {"angle", dimension::angle},
                                                                               {"temperature", dimension::temperature},
                                                                               {"mass", dimension::mass}}};
  if (!is_map(n, "units")) return;
  Keys keys;
  for (const auto& kind : kinds) keys.push_back({kind.first});
  check_keys(n, "units", keys);
  std::map<std::string_view, NamedUnit> named;
  const Scope nothing;
  for (const auto& [kind, dim] : kinds) {
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
      named[kind] = {printed(value->text), unit->quantity.si};
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

  // What is printed.
  const bool inches = has("length") && (named["length"].text == "in" || named["length"].text == "ft");
  if (inches) {
    const Quantity lbf = *unit("lbf"), kip = *unit("kip"), psi = *unit("psi");
    const bool kips = has("force") && named["force"].text == "kip";
    print_.force = {"lbf", lbf.si};
    print_.moment = kips ? NamedUnit{"kip·in", kip.si * 0.0254} : NamedUnit{"lbf·in", lbf.si * 0.0254};
    print_.deflection = {"in", 0.0254};
    print_.stress = {"psi", psi.si};
    print_.mass = {"lb", unit("lb")->si};
    print_.section = {"in", 0.0254};
  }
  for (const auto& [kind, target] : {std::pair<std::string_view, NamedUnit*>{"length", &print_.length},
                                     {"force", &print_.force},
                                     {"moment", &print_.moment},
                                     {"stress", &print_.stress},
                                     {"deflection", &print_.deflection},
                                     {"angle", &print_.angle},
                                     {"mass", &print_.mass},
                                     {"section", &print_.section}})
    if (has(kind)) *target = named[kind];
}

}  // namespace corvex::file
