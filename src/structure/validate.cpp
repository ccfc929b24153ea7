#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "corvex/printable.hpp"
#include "structure/checks.hpp"

namespace corvex {
namespace {

class PartChecks : Checks {
 public:
  using Checks::Checks;

  void run() {
    check_names();
    for (const Point& p : s_.points()) check(p);
    for (const NamedSection& n : s_.sections())
      for (const ShapeFault& f : corvex::check(n.section.shape())) add(f.text, {Kind::section, n.name}, f.dimension);
    for (const Material& m : s_.materials()) check(m);
    if (s_.members().empty()) add("there is no member", {}, "members");
    if (s_.load_cases().empty()) add("there is no load case: nothing to solve", {}, "loads");
  }

 private:
  void check_names() {
    check_name(s_.title(), {Kind::structure, ""}, "title");
    for (const Point& p : s_.points()) check_name(p.name, {Kind::point, p.name});
    for (const Member& m : s_.members()) check_name(m.name, {Kind::member, m.name});
    for (const NamedSection& n : s_.sections()) check_name(n.name, {Kind::section, n.name});
    for (const Material& m : s_.materials()) check_name(m.name, {Kind::material, m.name});
    for (const LoadCase& c : s_.load_cases()) check_name(c.name(), {Kind::load_case, c.name()});
    for (const Combination& c : s_.combinations()) check_name(c.name, {Kind::combination, c.name});
  }

  // The name itself is not repeated in the message, which is printed.
  void check_name(const std::string& name, const Subject& subject, const std::string& key = {}) {
    if (name.size() > longest_name) add(fmt::format("the name is longer than {} bytes", longest_name), subject, key);
    if (const std::string why = why_not_printable(name, true); !why.empty())
      add(fmt::format("this name cannot be printed: {}", why), subject, key);
  }

  void check(const Point& p) {
    const Vector& v = p.position;
    if (!finite(v))
      add("the position is not finite", {Kind::point, p.name});
    else if (std::max({std::abs(v.x), std::abs(v.y), std::abs(v.z)}) > longest)
      add(fmt::format("a coordinate lies beyond {:g} m", longest), {Kind::point, p.name});
    if (s_.is_plane() && p.position.z != 0)
      add("a point of a plane structure has two coordinates", {Kind::point, p.name});
  }

  void check(const Material& m) {
    const Subject subject{Kind::material, m.name};
    if (!(m.E.si() > 0)) add(fmt::format("material '{}' needs E, greater than zero", m.name), subject, "E");
    for (const auto& [modulus, key] : {std::pair(m.E, "E"), {m.shear_modulus(), "G"}})
      if (modulus.si() > 0 && (modulus.si() > stiffest || modulus.si() < softest))
        add(fmt::format("{} Pa is out of range: between {:g} and {:g} Pa", short_number(modulus.si(), 4), softest,
                        stiffest),
            subject, key);
    if (!m.G && !(m.poisson > -1 && m.poisson <= 0.5))
      add("Poisson's ratio lies between -1 and 0.5", subject, "poisson");
    if (m.G && !(m.G->si() > 0)) add("G must be greater than zero", subject, "G");
    if (m.density && m.density->si() < 0)
      add("the density cannot be negative", subject, "density");
    else if (m.density && !(m.density->si() <= densest))
      add(fmt::format("the density is out of range: at most {:g} kg/m^3", densest), subject, "density");
    if (!(std::abs(m.expansion.si()) <= most_expansion))
      add(fmt::format("the coefficient of expansion is out of range: at most {:g} 1/K", most_expansion), subject,
          "expansion");
    for (const auto& [strength, key] : {std::pair(m.yield, "yield"), {m.allowable, "allowable"}})
      if (strength && (!std::isfinite(strength->si()) || strength->si() > stiffest))
        add(fmt::format("the strength is out of range: at most {:g} Pa", stiffest), subject, key);
    if (m.yield && !(m.yield->si() > 0)) add("the yield strength must be greater than zero", subject, "yield");
    if (m.allowable && !(m.allowable->si() > 0))
      add("the allowable stress must be greater than zero", subject, "allowable");
  }
};

}  // namespace

Problems Structure::validate() const {
  Problems problems = while_building_;
  PartChecks(*this, problems).run();
  check_members(*this, problems);
  check_supports(*this, problems);
  // Loads are checked on members whose sections and points are there.
  if (is_whole(*this)) check_loads(*this, problems);
  return problems;
}

bool is_whole(const Structure& s) {
  return std::all_of(s.members().begin(), s.members().end(), [&](const Member& m) {
    return s.has(m.section) && std::all_of(m.through.begin(), m.through.end(), [&](PointId p) { return s.has(p); });
  });
}

bool has_errors(const Problems& problems) {
  return std::any_of(problems.begin(), problems.end(),
                     [](const Problem& p) { return p.severity == Problem::Severity::error; });
}

Problems errors_of(const Structure& structure) {
  Problems problems = structure.validate();
  std::erase_if(problems, [](const Problem& p) { return p.severity != Problem::Severity::error; });
  return problems;
}

}  // namespace corvex
