// What is wrong with a description, found without solving: each check one small function.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <unordered_map>

#include "structure/acting_load.hpp"
#include "structure/held.hpp"

namespace corvex {
namespace {

using Kind = Subject::Kind;

// Beyond these a figure is a slip of a unit or an exponent, and products of several would leave the range of
// numbers.
constexpr double longest = 1e9, shortest = 1e-9;  // m
constexpr double stiffest = 1e20, softest = 1;    // Pa
constexpr double heaviest = 1e30;                 // N, N·m, N/m, m/s²

class Checker {
 public:
  Checker(const Structure& s, Problems& problems) : s_(s), problems_(problems) {}

  void run() {
    for (const Point& p : s_.points()) check(p);
    for (const NamedSection& n : s_.sections())
      for (const ShapeFault& f : corvex::check(n.section.shape())) add(f.text, {Kind::section, n.name}, f.dimension);
    for (const Material& m : s_.materials()) check(m);
    for (const Member& m : s_.members()) check(m);
    check_supports();
    check_masses();
    for (const LoadCase& c : s_.load_cases()) check(c);
    for (const Combination& c : s_.combinations()) check(c);
    if (s_.members().empty()) add("there is no member", {}, "members");
    if (s_.load_cases().empty()) add("there is no load case: nothing to solve", {}, "loads");
  }

 private:
  void add(std::string text, Subject subject, std::string key = {}) {
    problems_.push_back({std::move(text), std::move(subject), std::move(key)});
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
        add(fmt::format("{:.4g} Pa is out of range: between {:g} and {:g} Pa", modulus.si(), softest, stiffest),
            subject, key);
    if (!m.G && !(m.poisson > -1 && m.poisson <= 0.5))
      add("Poisson's ratio lies between -1 and 0.5", subject, "poisson");
    if (m.G && !(m.G->si() > 0)) add("G must be greater than zero", subject, "G");
    if (m.density.si() < 0) add("the density cannot be negative", subject, "density");
    if (m.yield && !(m.yield->si() > 0)) add("the yield strength must be greater than zero", subject, "yield");
    if (m.allowable && !(m.allowable->si() > 0))
      add("the allowable stress must be greater than zero", subject, "allowable");
  }

  void check(const Member& m) {
    const Subject subject{Kind::member, m.name};
    if (m.section.index >= s_.sections().size())
      return add("the section is not one of this structure", subject, "section");
    for (const PointId p : m.through)
      if (p.index >= s_.points().size()) return add("a point is not one of this structure", subject, "through");
    if (m.through.size() < 2) return add("a member goes through two points or more", subject, "through");
    if (m.kind == MemberKind::link && m.through.size() != 2)
      add("a link goes through two points; a beam may go through more", subject, "through");
    if (m.kind == MemberKind::link && m.hinge != Hinge::none)
      add("a link carries axial force only; it has no hinge to free", subject, "hinge");
    if (m.acts != Acts::always && m.through.size() != 2)
      add("a member that acts one way only goes through two points", subject, "acts");
    if (!check_line(m, subject)) return;
    check_releases(m, subject);
    if (m.kind == MemberKind::beam) check_beam(m, subject);
  }

  static bool any(const std::array<bool, 6>& freed) {
    return std::any_of(freed.begin(), freed.end(), [](bool f) { return f; });
  }

  void check_releases(const Member& m, const Subject& subject) {
    std::array<bool, 6> start = m.freed_start, end = m.freed_end;
    if (!any(start) && !any(end)) return;
    const bool by_hinge = m.hinge != Hinge::none;
    if (m.kind == MemberKind::link) {
      if (!by_hinge) add("a link carries axial force only; it has nothing else to release", subject, "release");
      return;
    }
    if (s_.is_plane()) check_plane_releases(m, subject);
    if (m.acts != Acts::always && (start[0] || end[0]))
      add("a member that acts one way only passes its axial force on at both ends", subject, "release");
    // Within one member the first span and the last may be the same; with points between each has one free end at most.
    if (m.through.size() > 2) {
      check_free_motion(m, start, {}, subject);
      check_free_motion(m, {}, end, subject);
    } else {
      check_free_motion(m, start, end, subject);
    }
  }

  // In the plane there are axial force, one shear force and one moment.
  void check_plane_releases(const Member& m, const Subject& subject) {
    if (leaves_plane(m.roll) && m.hinge == Hinge::none)
      return add("in a plane structure a member with releases can be rolled by quarter turns only", subject, "roll");
    static constexpr const char* names[] = {"axial", "shear-y", "shear-z", "torsion", "moment-y", "moment-z"};
    const bool about_y = bends_about_y(m);
    const bool exists[] = {true, !about_y, about_y, false, about_y, !about_y};
    for (const auto* freed : {&m.freed_start, &m.freed_end}) {
      const bool hinge = (*freed)[4] && (*freed)[5];
      for (std::size_t k = 0; k < 6; ++k)
        if ((*freed)[k] && !exists[k] && !(hinge && k > 3))
          add(fmt::format("in a plane structure this member has no {} to release", names[k]), subject, "release");
    }
  }

  // Whether a span that is held by all that is not freed could still move by itself.
  void check_free_motion(const Member& m, const std::array<bool, 6>& a, const std::array<bool, 6>& b,
                         const Subject& subject) {
    const char* moves = nullptr;
    if (a[0] && b[0]) moves = "slides along its axis";
    if (a[3] && b[3]) moves = "turns about its axis";
    for (const auto& [shear, moment] : {std::pair<std::size_t, std::size_t>{1, 5}, {2, 4}}) {
      const int held = !a[shear] + !b[shear] + !a[moment] + !b[moment];
      if ((a[shear] && b[shear]) || held < 2) moves = "moves sideways or turns";
    }
    if (moves)
      add(fmt::format("with these releases '{}' {} by itself: nothing holds it", m.name, moves), subject,
          m.hinge != Hinge::none ? "hinge" : "release");
  }

  // One straight line, in order, no length of zero.
  bool check_line(const Member& m, const Subject& subject) {
    const Vector a = s_[m.through.front()].position, b = s_[m.through.back()].position;
    const double L = length(b - a);
    if (!finite(a) || !finite(b)) return false;
    if (!finite(m.arm_start) || !finite(m.arm_end)) {
      add("the offset is not finite", subject, "offset");
      return false;
    }
    if (!(L > 0)) {
      add(fmt::format("'{}' begins and ends at the same place", m.name), subject, "through");
      return false;
    }
    if (L < shortest || L > longest) {
      add(fmt::format("'{}' is {:.4g} m long: out of range", m.name, L), subject, "through");
      return false;
    }
    double before = 0;
    for (std::size_t i = 1; i < m.through.size(); ++i) {
      const Vector r = s_[m.through[i]].position - a;
      const double along = dot(r, b - a) / L;
      const double beside = length(cross(r, b - a)) / L;
      const std::string& name = s_[m.through[i]].name;
      if (beside > 1e-6 * L) {
        add(fmt::format("point {} lies {:.4g} m beside the straight line from {} to {}", name, beside,
                        s_[m.through.front()].name, s_[m.through.back()].name),
            subject, "through");
        return false;
      }
      if (along <= before + 1e-9 * L || along > L * (1 + 1e-9)) {
        add(fmt::format("the points are not in order along the member: {} does not come after {}", name,
                        s_[m.through[i - 1]].name),
            subject, "through");
        return false;
      }
      before = along;
    }
    return check_arms(m, subject);
  }

  bool check_arms(const Member& m, const Subject& subject) {
    if (s_.is_plane() && (m.arm_start.z != 0 || m.arm_end.z != 0)) {
      add("this offset leaves the plane of the structure", subject, "offset");
      return false;
    }
    const double moved = length(s_.axis_end(m) - s_.axis_start(m));
    if (moved > shortest && moved < longest) return true;
    add(fmt::format("between its rigid arms '{}' is {:.4g} m long: out of range", m.name, moved), subject, "offset");
    return false;
  }

  void check_beam(const Member& m, const Subject& subject) {
    const Section& section = s_.section_of(m);
    const std::string& section_name = s_.sections()[m.section.index].name;
    if (const auto* given = std::get_if<GivenProperties>(&section.shape())) {
      const bool turned = s_.is_plane() && bends_about_y(m);
      std::string missing;
      const auto need = [&](bool there, const char* key) {
        if (!there) missing += (missing.empty() ? "" : ", ") + std::string(key);
      };
      if (!s_.is_plane() || turned) need(given->Iy.has_value(), "Iy");
      if (!s_.is_plane() || !turned) need(given->Iz.has_value(), "Iz");
      if (!s_.is_plane()) need(given->J.has_value(), "J");
      if (!missing.empty())
        add(fmt::format("beam '{}' bends and needs {} of section '{}' (a link needs only A)", m.name, missing,
                        section_name),
            subject, "section");
    }
    if (s_.is_plane() && leans_out(m)) {
      add(fmt::format("rolled by {:.4g} deg, section '{}' would bend out of the plane: in a plane structure an uneven "
                      "section can be rolled by quarter turns only; describe the structure in space instead",
                      m.roll * 180 / std::numbers::pi, section_name),
          subject, "roll");
    }
  }

  bool bends_about_y(const Member& m) const {
    const double quarters = m.roll / (std::numbers::pi / 2);
    return std::abs(std::fmod(std::round(quarters), 2)) == 1;
  }

  static bool leaves_plane(double roll) {
    const double quarters = roll / (std::numbers::pi / 2);
    return std::abs(quarters - std::round(quarters)) >= 1e-9;
  }

  bool leans_out(const Member& m) const {
    if (!leaves_plane(m.roll)) return false;
    const SectionProperties& p = s_.section_of(m).properties();
    // Shear areas have six digits.
    const auto differ = [](double a, double b) { return std::abs(a - b) > 1e-6 * std::max(a, b); };
    return p.Iyz.si() != 0 || differ(p.Iy.si(), p.Iz.si()) || (s_.analysis().shear && differ(p.Ay.si(), p.Az.si()));
  }

  void check_supports() {
    std::unordered_map<std::size_t, int> seen;
    for (const PointSupport& s : s_.supports()) {
      if (s.at.index >= s_.points().size()) {
        add("a support stands on a point that is not one of this structure", {}, "supports");
        continue;
      }
      const std::string& name = s_[s.at].name;
      if (++seen[s.at.index] == 2) add(fmt::format("point {} has two supports", name), {Kind::support, name});
      check(s, {Kind::support, name});
    }
  }

  void check(const PointSupport& s, const Subject& subject) {
    for (const Vector& v : s.along) {
      if (!finite(v) || !(length(v) > 0)) return add("a direction to hold needs a length", subject, "hold");
      if (s_.is_plane() && v.z != 0) return add("this direction leaves the plane of the structure", subject, "hold");
    }
    static constexpr const char* names[] = {"x", "y", "z", "rx", "ry", "rz"};
    for (std::size_t k = 0; k < 6; ++k) {
      if (s.spring[k] == 0) continue;
      if (!(s.spring[k] > 0))
        add(fmt::format("the spring {} needs a stiffness greater than zero", names[k]), subject, "spring");
      if (s.spring[k] > stiffest)
        add(fmt::format("the spring {} is out of range: stiffer than {:g} N/m", names[k], stiffest), subject, "spring");
      if (s.held[k]) add(fmt::format("{} is held; the spring there would do nothing", names[k]), subject, "spring");
      if (s_.is_plane() && k > 1 && k < 5)
        add(fmt::format("nothing moves along {} in a plane structure: the spring would do nothing", names[k]), subject,
            "spring");
    }
  }

  void check_masses() {
    for (const PointMass& m : s_.point_masses()) {
      if (m.at.index >= s_.points().size()) {
        add("a mass stands on a point that is not one of this structure", {}, "masses");
        continue;
      }
      const Subject subject{Kind::mass, s_[m.at].name};
      if (!(m.mass >= 0)) add("a mass cannot be negative", subject);
      if (m.mass > heaviest) add(fmt::format("the mass is out of range: larger than {:g} kg", heaviest), subject);
    }
  }

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
    if (c.terms.empty()) add(fmt::format("combination '{}' names no load case", c.name), subject);
    for (std::size_t i = 0; i < c.terms.size(); ++i) {
      const std::string& name = s_.load_cases()[c.terms[i].load_case].name();
      if (!std::isfinite(c.terms[i].factor) || std::abs(c.terms[i].factor) > 1e6)
        add(fmt::format("the factor of '{}' is out of range", name), subject, name);
      for (std::size_t k = 0; k < i; ++k)
        if (c.terms[k].load_case == c.terms[i].load_case) add(fmt::format("'{}' is named twice", name), subject, name);
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
      add("this moment leaves the plane of the structure: it turns about z", subject, "moment");
  }

  void check(const PointLoad& l, const Subject& subject) {
    if (l.at.index >= s_.points().size()) return add("the point is not one of this structure", subject, "at");
    check_plane(l.force, l.moment, subject);
  }

  std::optional<double> length_on(MemberId id, const Subject& subject) {
    if (id.index >= s_.members().size()) {
      add("the member is not one of this structure", subject, "on");
      return std::nullopt;
    }
    const Member& m = s_[id];
    for (const PointId p : m.through)
      if (p.index >= s_.points().size()) return std::nullopt;
    if (m.through.size() < 2) return std::nullopt;
    return s_.length_of(m);
  }

  void check_position(double at, double L, MemberId id, const Subject& subject, const char* key) {
    if (at >= -1e-9 * L && at <= L * (1 + 1e-9)) return;
    add(fmt::format("{:.6g} m is not on member '{}', which is {:.6g} m long", at, s_[id].name, L), subject, key);
  }

  // In the member's own axes as well nothing may leave the plane.
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
    check_position(l.at, *L, l.on, subject, "at");
  }

  void check(const LineLoad& l, const Subject& subject) {
    const auto L = length_on(l.on, subject);
    if (!L) return;
    check_member_force(l.on, l.first, {}, l.axes, subject);
    check_member_force(l.on, l.last, {}, l.axes, subject);
    check_position(l.from, *L, l.on, subject, "from");
    const double to = l.to.value_or(*L);
    check_position(to, *L, l.on, subject, "to");
    if (!(to > l.from))
      add(fmt::format("the load ends at {:.6g} m, not after its beginning at {:.6g} m", to, l.from), subject, "to");
    if (l.per == Per::plan && *L > 0 && plan_share(s_, s_[l.on]) < 1e-9)
      add(fmt::format("'{}' stands upright and has no ground plan: nothing of the load acts on it", s_[l.on].name),
          subject, "per");
    if (l.per == Per::plan && l.axes == LoadAxes::member) add("a load per plan has global directions", subject, "per");
  }

  void check(const SpreadLoad& l, const Subject& subject) {
    if (l.on.empty()) add("the load names no member", subject, "on");
    std::vector<bool> seen(s_.members().size(), false);
    for (const MemberId id : l.on) {
      if (!length_on(id, subject)) return;
      check_member_force(id, l.force, {}, l.axes, subject);
      if (seen[id.index]) add(fmt::format("'{}' is named twice", s_[id].name), subject, "on");
      seen[id.index] = true;
    }
  }

  void check(const HeatLoad& l, const Subject& subject) {
    if (!length_on(l.on, subject)) return;
    const Member& m = s_[l.on];
    if (!std::isfinite(l.plus) || !std::isfinite(l.minus) || std::max(std::abs(l.plus), std::abs(l.minus)) > 1e6)
      add("the change of temperature is out of range", subject, "heat");
    if (!(s_.material_of(m).expansion.si() != 0))
      add(fmt::format("'{}': the material '{}' has no coefficient of expansion", m.name, s_.material_of(m).name),
          subject, "heat");
    if (l.across == HeatLoad::Across::nothing) return;
    const bool y = l.across == HeatLoad::Across::y;
    if (m.kind == MemberKind::link)
      add(fmt::format("'{}' is a link and does not bend: give one change of temperature for all of it", m.name),
          subject, "heat");
    const AreaProperties& p = s_.section_of(m).area_properties();
    if (!((y ? p.height : p.width).si() > 0))
      add(fmt::format("how {} section '{}' is, is not known", y ? "high" : "wide", s_.sections()[m.section.index].name),
          subject, "heat");
    if (s_.is_plane() && (leaves_plane(m.roll) || bends_about_y(m) == y))
      add(fmt::format("heat across {} would bend '{}' out of the plane", y ? "y" : "z", m.name), subject, "heat");
  }

  void check(const ShortenLoad& l, const Subject& subject) {
    const auto L = length_on(l.on, subject);
    if (!L) return;
    if (!std::isfinite(l.by) || std::abs(l.by) >= *L)
      add(fmt::format("'{}' is {:.6g} m long and cannot be shortened by {:.6g} m", s_[l.on].name, *L, l.by), subject,
          "shorten");
  }

  void check(const SettleLoad& l, const Subject& subject) {
    if (l.at.index >= s_.points().size()) return add("the point is not one of this structure", subject, "at");
    const std::string& name = s_[l.at].name;
    const auto it =
        std::find_if(s_.supports().begin(), s_.supports().end(), [&](const PointSupport& s) { return s.at == l.at; });
    if (it == s_.supports().end())
      return add(fmt::format("there is no support at {}: only supports settle", name), subject, "at");
    if (!finite(l.move) || !finite(l.turn) || length(l.move) > longest || length(l.turn) > longest)
      return add("the settlement is out of range", subject, "settle");
    for (const Vector& v : it->along)
      if (!(length(v) > 0)) return;
    if (length(beside_hold(s_, *it, l.move)) > 1e-9 * length(l.move))
      add(fmt::format("the support at {} does not hold this direction: it settles in directions that it holds", name),
          subject, "settle");
    const double turn[] = {l.turn.x, l.turn.y, l.turn.z};
    for (std::size_t k = 0; k < 3; ++k)
      if (turn[k] != 0 && !it->held[3 + k] && it->spring[3 + k] == 0)
        add(fmt::format("the support at {} does not hold rotation about {}", name, "xyz"[k]), subject, "settle");
  }

  void check(const GravityLoad& l, const Subject& subject) {
    check_plane(l.acceleration, {}, subject);
    const auto heavy = [](const Material& m) { return m.density.si() > 0; };
    if (!zero(l.acceleration) && !s_.members().empty() && s_.point_masses().empty() &&
        std::none_of(s_.materials().begin(), s_.materials().end(), heavy))
      add("there is no mass for gravity to act on: the materials have no density, and there are no masses", subject,
          "gravity");
  }

  const Structure& s_;
  Problems& problems_;
};

}  // namespace

Problems Structure::validate() const {
  Problems problems = while_building_;
  Checker(*this, problems).run();
  return problems;
}

}  // namespace corvex
