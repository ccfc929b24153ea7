// What is wrong with a description, found without solving: each check one small function.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <unordered_map>

#include "corvex/structure.hpp"

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
    for (const LoadCase& c : s_.load_cases()) check(c);
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
    if (check_line(m, subject) && m.kind == MemberKind::beam) check_beam(m, subject);
  }

  // One straight line, in order, no length of zero.
  bool check_line(const Member& m, const Subject& subject) {
    const Vector a = s_[m.through.front()].position, b = s_[m.through.back()].position;
    const double L = length(b - a);
    if (!finite(a) || !finite(b)) return false;
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
    return true;
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

  bool leans_out(const Member& m) const {
    const double quarters = m.roll / (std::numbers::pi / 2);
    if (std::abs(quarters - std::round(quarters)) < 1e-9) return false;
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
    }
  }

  void check(const LoadCase& c) {
    static constexpr const char* reserved[] = {"all", "envelope", "total"};
    for (const char* r : reserved)
      if (c.name() == r) add(fmt::format("'{}' is a reserved name", r), {Kind::load_case, c.name()});
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

  void check(const MemberLoad& l, const Subject& subject) {
    check_plane(l.force, l.moment, subject);
    if (const auto L = length_on(l.on, subject)) check_position(l.at, *L, l.on, subject, "at");
  }

  void check(const LineLoad& l, const Subject& subject) {
    check_plane(l.first, {}, subject);
    check_plane(l.last, {}, subject);
    const auto L = length_on(l.on, subject);
    if (!L) return;
    check_position(l.from, *L, l.on, subject, "from");
    const double to = l.to.value_or(*L);
    check_position(to, *L, l.on, subject, "to");
    if (!(to > l.from))
      add(fmt::format("the load ends at {:.6g} m, not after its beginning at {:.6g} m", to, l.from), subject, "to");
  }

  void check(const GravityLoad& l, const Subject& subject) {
    check_plane(l.acceleration, {}, subject);
    const auto heavy = [](const Material& m) { return m.density.si() > 0; };
    if (!zero(l.acceleration) && !s_.members().empty() &&
        std::none_of(s_.materials().begin(), s_.materials().end(), heavy))
      add("there is no mass for gravity to act on: the materials have no density", subject, "gravity");
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
