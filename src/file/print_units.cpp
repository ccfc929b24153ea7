#include "file/print_units.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "corvex/formula.hpp"

namespace corvex {
namespace file {
namespace {

void set_named(ModelUnits& units, const NamedUnits& named) {
  for (const auto& [kind, target] : {std::pair<std::string_view, NamedUnit*>{"length", &units.length},
                                     {"force", &units.force},
                                     {"moment", &units.moment},
                                     {"line", &units.line},
                                     {"stress", &units.stress},
                                     {"deflection", &units.deflection},
                                     {"angle", &units.angle},
                                     {"mass", &units.mass},
                                     {"section", &units.section}})
    if (const auto it = named.find(kind); it != named.end()) *target = it->second;
}

bool is_one_of(const std::string& text, std::initializer_list<std::string_view> some) {
  return std::find(some.begin(), some.end(), text) != some.end();
}

// Moments and line loads are made of the force.
void follow_force(ModelUnits& u) {
  const bool american = is_one_of(u.force.text, {"lbf", "kip"});
  const NamedUnit lever = american ? NamedUnit{"in", 0.0254} : NamedUnit{"m", 1};
  u.moment = {u.force.text + "·" + lever.text, u.force.si * lever.si};
  u.line = {u.force.text + "/" + lever.text, u.force.si / lever.si};
}

ModelUnits usual_with_inches(bool kips) {
  const Quantity lbf = *unit("lbf"), kip = *unit("kip"), psi = *unit("psi");
  ModelUnits u;
  u.force = {"lbf", lbf.si};
  if (kips) u.force = {"kip", kip.si};
  follow_force(u);
  u.length = u.deflection = u.section = {"in", 0.0254};
  u.stress = {"psi", psi.si};
  u.mass = {"lb", unit("lb")->si};
  return u;
}

bool names_kips(const NamedUnits& named) {
  const auto force = named.find("force");
  return force != named.end() && force->second.text == "kip";
}

bool in_inches(const ModelUnits& u) {
  return is_one_of(u.length.text, {"in", "ft"}) || is_one_of(u.force.text, {"lbf", "kip"});
}

std::string_view trimmed(std::string_view text) {
  const std::size_t from = text.find_first_not_of(" \t"), to = text.find_last_not_of(" \t");
  return from == std::string_view::npos ? std::string_view() : text.substr(from, to - from + 1);
}

// One item of a list: "mm", or "deflection: um". An empty answer means success.
std::string take(std::string_view item, NamedUnits& named) {
  std::vector<std::string> kinds;
  for (const UnitKind& k : unit_kinds) kinds.emplace_back(k.name);
  std::string_view kind, written = trimmed(item);
  if (const std::size_t colon = written.find(':'); colon != std::string_view::npos) {
    const std::string wanted(trimmed(written.substr(0, colon)));
    const auto it = std::find(kinds.begin(), kinds.end(), wanted);
    if (it == kinds.end()) return fmt::format("'{}' is not a kind of unit{}", wanted, did_you_mean(wanted, kinds));
    kind = unit_kinds[static_cast<std::size_t>(it - kinds.begin())].name;
    written = trimmed(written.substr(colon + 1));
  }
  const std::string text(written);
  if (text.empty()) return "a unit is missing";
  if (text.find_first_of("0123456789") == 0) return fmt::format("'{}': a unit was expected, without a number", text);
  const auto unit = evaluate(text, Scope());
  if (!unit) return fmt::format("'{}': {}", text, unit.error().text);
  const Quantity& q = unit->quantity;
  if (kind.empty()) {
    const auto it = std::find_if(unit_kinds.begin(), unit_kinds.end(),
                                 [&](const UnitKind& k) { return k.dimension == q.dimension; });
    if (it == unit_kinds.end() || !(q.si > 0))
      return fmt::format("'{}' is not a unit of a length, force, moment, stress, angle or mass", text);
    kind = it->name;
  }
  for (const UnitKind& k : unit_kinds)
    if (k.name == kind && !(k.dimension == q.dimension && q.si > 0))
      return fmt::format("'{}' is {}, not a unit of {}", text, name(q.dimension), kind);
  if (!named.emplace(kind, NamedUnit{unit_as_printed(text), q.si}).second)
    return kind == "length" ? "two units of length: state the use of each, for example 'm, deflection: mm'"
                            : fmt::format("two units of {}", kind);
  return {};
}

}  // namespace

std::string unit_as_printed(std::string_view unit) {
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

ModelUnits units_for_print(const NamedUnits& named) {
  const auto length = named.find("length");
  const bool inches = length != named.end() && is_one_of(length->second.text, {"in", "ft"});
  ModelUnits u = inches ? usual_with_inches(names_kips(named)) : ModelUnits();
  if (const auto force = named.find("force"); force != named.end()) {
    u.force = force->second;
    follow_force(u);
  }
  set_named(u, named);
  return u;
}

}  // namespace file

Expected<ModelUnits, std::string> units_for_print(std::string_view list, const ModelUnits& of_model) {
  file::NamedUnits named;
  for (std::size_t at = 0; at <= list.size();) {
    const std::size_t end = std::min(list.find(',', at), list.size());
    if (std::string why = file::take(list.substr(at, end - at), named); !why.empty()) return why;
    at = end + 1;
  }
  bool metric = false, inches = false;
  for (const auto& [kind, unit] : named) {
    const bool american = file::is_one_of(unit.text, {"in", "ft", "lbf", "kip", "psi", "ksi", "lb", "lbf·in", "lbf·ft",
                                                      "kip·in", "kip·ft", "lbf/in", "lbf/ft", "kip/in", "kip/ft"});
    (american ? inches : metric) = true;
  }
  ModelUnits u = of_model;
  // From inches to millimetres, or back, all of them change.
  if (metric && !inches && file::in_inches(of_model)) u = ModelUnits();
  if (inches && !metric && !file::in_inches(of_model)) u = file::usual_with_inches(file::names_kips(named));
  if (const auto force = named.find("force"); force != named.end()) {
    u.force = force->second;
    file::follow_force(u);
  }
  file::set_named(u, named);
  return u;
}

}  // namespace corvex
