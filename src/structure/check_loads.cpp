#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "structure/acting_loads.hpp"
#include "structure/checks.hpp"
#include "structure/held.hpp"
#include "structure/words.hpp"

namespace corvex {
namespace {

class LoadChecks : Checks {
 public:
  using Checks::Checks;

  void run() {
    for (const LoadCase& c : s_.load_cases()) check(c);
    for (const Combination& c : s_.combinations()) check(c);
  }

 private:
  static bool is_reserved(const std::string& name) { return name == "all" || name == "envelope" || name == "total"; }

  void check(const Combination& c) {
    const Subject subject{Kind::combination, c.name};
    if (c.name.empty()) add("a combination needs a name", subject);
    if (is_reserved(c.name)) add(fmt::format("'{}' is a reserved name", c.name), subject);
    const auto same = [&](const Combination& other) { return other.name == c.name; };
    if (std::count_if(s_.combinations().begin(), s_.combinations().end(), same) > 1)
      add(fmt::format("the name '{}' is used twice", c.name), subject);
    for (const LoadCase& l : s_.load_cases())
      if (l.name() == c.name) add(fmt::format("'{}' is the name of a load case already", c.name), subject);
    if (c.terms.empty()) add(fmt::format("combination '{}' contains no valid load case", c.name), subject);
    std::vector<bool> named(s_.load_cases().size(), false);
    for (std::size_t i = 0; i < c.terms.size(); ++i) {
      const std::string& name = s_.load_cases()[c.terms[i].load_case].name();
      if (!std::isfinite(c.terms[i].factor) || std::abs(c.terms[i].factor) > 1e6)
        add(fmt::format("the factor of '{}' is out of range", name), subject, name);
      if (named[c.terms[i].load_case]) add(fmt::format("'{}' is listed twice", name), subject, name);
      named[c.terms[i].load_case] = true;
    }
  }

  void check(const LoadCase& c) {
    if (is_reserved(c.name())) add(fmt::format("'{}' is a reserved name", c.name()), {Kind::load_case, c.name()});
    for (std::size_t i = 0; i < c.loads().size(); ++i)
      std::visit([&](const auto& load) { check(load, {Kind::load, c.name(), i}); }, c.loads()[i]);
  }

  // Nothing may push a plane structure out of its plane, or turn it there.
  void check_plane(const Vector& force, const Vector& moment, const Subject& subject) {
    if (!finite(force) || !finite(moment))
      add("the load is not finite", subject);
    else if (std::max(length(force), length(moment)) > heaviest)
      add(fmt::format("the load is out of range: larger than {:g} in SI units", heaviest), subject);
    if (s_.is_plane() && force.z != 0) add("this force leaves the plane of the structure", subject, "force");
    if (s_.is_plane() && (moment.x != 0 || moment.y != 0))
      add("this moment leaves the plane of the structure: only moments about z are possible", subject, "moment");
  }

  void check(const PointLoad& l, const Subject& subject) {
    if (!s_.has(l.at)) return add("the point does not belong to this structure", subject, "at");
    check_plane(l.force, l.moment, subject);
    if (!l.through) return;
    check_through(*l.through, subject);
    const auto beams = std::count_if(s_.members().begin(), s_.members().end(), [&](const Member& m) {
      return m.kind == MemberKind::beam && std::find(m.through.begin(), m.through.end(), l.at) != m.through.end();
    });
    if (beams != 1)
      add(fmt::format(
              "{} beams meet at '{}': give the load on the member whose section is meant, for example {{on: …, at: …}}",
              beams == 0 ? "no" : "several", s_[l.at].name),
          subject, "through");
  }

  void check_through(const Through& t, const Subject& subject) {
    if (!std::isfinite(t.y.si()) || !std::isfinite(t.z.si()) || std::hypot(t.y.si(), t.z.si()) > longest)
      add("the place of the section is out of range", subject, "through");
  }
  void check_through(const std::optional<Through>& t, MemberId on, const Subject& subject) {
    if (!t) return;
    check_through(*t, subject);
    if (s_[on].kind == MemberKind::link)
      add(fmt::format("'{}' is a link and is not twisted: loads on it go to its ends", s_[on].name), subject,
          "through");
  }

  std::optional<double> length_on(MemberId id, const Subject& subject) {
    if (!s_.has(id)) {
      add("the member does not belong to this structure", subject, "on");
      return std::nullopt;
    }
    const Member& m = s_[id];
    for (const PointId p : m.through)
      if (!s_.has(p)) return std::nullopt;
    if (m.through.size() < 2) return std::nullopt;
    return s_.length_of(m);
  }

  void check_position(double at, double L, MemberId id, const Subject& subject, const char* key) {
    if (at >= -1e-9 * L && at <= L * (1 + 1e-9)) return;
    add(fmt::format("{} is not on member '{}', which is {} long", length_words(s_, at), s_[id].name,
                    length_words(s_, L)),
        subject, key);
  }

  // Directions in local axes must stay in the plane too.
  void check_member_force(MemberId on, const Vector& force, const Vector& moment, LoadAxes axes,
                          const Subject& subject) {
    const Member& m = s_[on];
    const bool turned = axes == LoadAxes::member && s_.length_of(m) > 0;
    // Quarter turns leave 1e-17 of a force in the direction out of the plane: nothing.
    const auto in_plane = [&](const Vector& v) {
      if (!turned) return v;
      Vector g = local_axes(s_, m).global(v);
      if (std::abs(g.z) < 1e-12 * length(g)) g.z = 0;
      return g;
    };
    const auto about_z = [&](const Vector& v) {
      if (!turned) return v;
      Vector g = local_axes(s_, m).global(v);
      if (std::hypot(g.x, g.y) < 1e-12 * length(g)) g.x = g.y = 0;
      return g;
    };
    check_plane(in_plane(force), about_z(moment), subject);
  }

  void check(const MemberLoad& l, const Subject& subject) {
    const auto L = length_on(l.on, subject);
    if (!L) return;
    check_member_force(l.on, l.force, l.moment, l.axes, subject);
    check_through(l.through, l.on, subject);
    check_position(l.at, *L, l.on, subject, "at");
  }

  void check(const LineLoad& l, const Subject& subject) {
    const auto L = length_on(l.on, subject);
    if (!L) return;
    check_member_force(l.on, l.first, {}, l.axes, subject);
    check_member_force(l.on, l.last, {}, l.axes, subject);
    check_through(l.through, l.on, subject);
    check_position(l.from, *L, l.on, subject, "from");
    const double to = l.to.value_or(*L);
    check_position(to, *L, l.on, subject, "to");
    if (!(to > l.from))
      add(fmt::format("the load ends at {}, not after its beginning at {}", length_words(s_, to),
                      length_words(s_, l.from)),
          subject, "to");
    if (l.per == Per::plan && *L > 0 && plan_share(s_, s_[l.on]) < 1e-9)
      add(fmt::format("'{}' is vertical and has no horizontal projection: no part of the load acts on it",
                      s_[l.on].name),
          subject, "per");
    if (l.per == Per::plan && l.axes == LoadAxes::member) add("a load per plan has global directions", subject, "per");
  }

  void check(const SpreadLoad& l, const Subject& subject) {
    if (l.on.empty()) add("the load has no member", subject, "on");
    std::vector<bool> seen(s_.members().size(), false);
    for (const MemberId id : l.on) {
      if (!length_on(id, subject)) return;
      check_member_force(id, l.force, {}, l.axes, subject);
      check_through(l.through, id, subject);
      if (seen[id.index]) add(fmt::format("'{}' is listed twice", s_[id].name), subject, "on");
      seen[id.index] = true;
    }
  }

  void check(const TemperatureLoad& l, const Subject& subject) {
    if (!length_on(l.on, subject)) return;
    const Member& m = s_[l.on];
    if (!std::isfinite(l.plus) || !std::isfinite(l.minus) || std::max(std::abs(l.plus), std::abs(l.minus)) > 1e6)
      add("the temperature change is out of range", subject, "heat");
    if (!(s_.material_of(m).expansion.si() != 0))
      add(fmt::format("'{}': the material '{}' has no coefficient of expansion", m.name, s_.material_of(m).name),
          subject, "heat");
    if (l.across == TemperatureLoad::Across::nothing) return;
    const bool y = l.across == TemperatureLoad::Across::y;
    if (m.kind == MemberKind::link)
      add(fmt::format("'{}' is a link and does not bend: give one temperature change for the whole member", m.name),
          subject, "heat");
    const AreaProperties& p = s_.section_of(m).area_properties();
    if (!((y ? p.height : p.width).si() > 0))
      add(fmt::format("how {} section '{}' is, is not known", y ? "high" : "wide", s_.sections()[m.section.index].name),
          subject, "heat");
    if (s_.is_plane() && (leaves_plane(m) || bending_axes(s_, m).y == y))
      add(fmt::format("heat across {} would bend '{}' out of the plane", y ? "y" : "z", m.name), subject, "heat");
  }

  void check(const LackOfFitLoad& l, const Subject& subject) {
    const auto L = length_on(l.on, subject);
    if (!L) return;
    if (!std::isfinite(l.by) || std::abs(l.by) >= *L)
      add(fmt::format("'{}' is {} long and cannot be {} too short", s_[l.on].name, length_words(s_, *L),
                      length_words(s_, l.by)),
          subject, "shorten");
  }

  void check(const SettlementLoad& l, const Subject& subject) {
    if (!s_.has(l.at)) return add("the point does not belong to this structure", subject, "at");
    const std::string& name = s_[l.at].name;
    const auto it =
        std::find_if(s_.supports().begin(), s_.supports().end(), [&](const PointSupport& s) { return s.at == l.at; });
    if (it == s_.supports().end())
      return add(fmt::format("there is no support at '{}': only supports settle", name), subject, "at");
    if (!finite(l.move) || !finite(l.turn) || length(l.move) > longest || length(l.turn) > longest)
      return add("the settlement is out of range", subject, "settle");
    for (const Vector& v : it->along)
      if (!(length(v) > 0)) return;
    if (length(beside_hold(*it, l.move)) > 1e-9 * length(l.move))
      add(fmt::format("the support at '{}' does not restrain this direction: only restrained directions can settle",
                      name),
          subject, "settle");
    const double turn[] = {l.turn.x, l.turn.y, l.turn.z};
    for (std::size_t k = 0; k < 3; ++k)
      if (turn[k] != 0 && !it->held[3 + k] && it->spring[3 + k] == 0)
        add(fmt::format("the support at '{}' does not restrain rotation about {}", name, "xyz"[k]), subject, "settle");
  }

  void check(const GravityLoad& l, const Subject& subject) {
    check_plane(l.acceleration, {}, subject);
    if (l.through) check_through(*l.through, subject);
    if (zero(l.acceleration)) return;
    check_densities(subject);
    const auto heavy = [](const Material& m) { return !m.density || m.density->si() > 0; };
    if (!s_.members().empty() && s_.point_masses().empty() &&
        std::none_of(s_.materials().begin(), s_.materials().end(), heavy))
      add("gravity has no effect: the materials have no density, and the model has no masses", subject, "gravity");
  }

  // A member of unknown density would be weightless without a word.
  void check_densities(const Subject& subject) {
    for (std::size_t i = 0; i < s_.materials().size(); ++i) {
      if (s_.materials()[i].density) continue;
      std::vector<std::string> members;
      for (const Member& m : s_.members())
        if (m.material == i) members.push_back(m.name);
      if (members.empty()) continue;
      const std::size_t others = members.size() - 1;
      add(fmt::format("the material '{}' has no density, so gravity would not act on {}{}; density: 0 says that it "
                      "weighs nothing",
                      s_.materials()[i].name, members.front(),
                      others == 0   ? ""
                      : others == 1 ? " and 1 other member"
                                    : fmt::format(" and {} other members", others)),
          subject, "gravity");
      problems_.back().finding = "no-density";
      problems_.back().others.push_back({Kind::material, s_.materials()[i].name});
      for (const std::string& m : members) problems_.back().others.push_back({Kind::member, m});
    }
  }
};

}  // namespace

void check_loads(const Structure& structure, Problems& problems) {
  LoadChecks(structure, problems).run();
}

}  // namespace corvex
