// Plans as model files.
#include <fmt/format.h>

#include "support/plan.hpp"

namespace corvex::test {

using Kind = PlanLoad::Kind;

namespace {

class Writer {
 public:
  Writer(const Plan& plan, double length, double force, double moment)
      : p_(plan), length_(length), force_(force), moment_(moment) {}

  std::string vector(const Vector& v, double unit, bool in_plane_only = true) const {
    if (p_.plane && in_plane_only) return fmt::format("[{}, {}]", v.x / unit, v.y / unit);
    return fmt::format("[{}, {}, {}]", v.x / unit, v.y / unit, v.z / unit);
  }
  std::string moment(const Vector& v) const { return p_.plane ? fmt::format("{}", v.z / moment_) : vector(v, moment_); }

  std::string load(const PlanLoad& l) const {
    const double q = force_ / length_;
    switch (l.kind) {
      case Kind::point_force: return fmt::format("{{at: P{}, force: {}}}", l.on, vector(l.first, force_));
      case Kind::point_moment: return fmt::format("{{at: P{}, moment: {}}}", l.on, moment(l.first));
      case Kind::member_force:
        return fmt::format("{{on: M{}, at: {}, force: {}{}}}", l.on, l.from / length_, vector(l.first, force_),
                           axes(l));
      case Kind::member_moment:
        return fmt::format("{{on: M{}, at: {}, moment: {}}}", l.on, l.from / length_, moment(l.first));
      case Kind::line:
        return fmt::format("{{on: M{}, line: [{}, {}], from: {}, to: {}{}{}}}", l.on, vector(l.first, q),
                           vector(l.last, q), l.from / length_, l.to / length_, axes(l),
                           l.per == Per::plan ? ", per: plan" : "");
      case Kind::gravity: {
        std::string parts = fmt::format("{} m/s^2, {} m/s^2", l.first.x, l.first.y);
        if (!p_.plane) parts += fmt::format(", {} m/s^2", l.first.z);
        return fmt::format("{{gravity: [{}]}}", parts);
      }
      case Kind::spread: {
        std::string on = fmt::format("M{}", l.on);
        for (const std::size_t m : l.also) on += fmt::format(", M{}", m);
        return fmt::format("{{on: [{}], spread: {}}}", on, vector(l.first, force_));
      }
      case Kind::heat: return fmt::format("{{on: M{}, heat: {} K}}", l.on, l.from);
      case Kind::temperature_gradient_y:
        return fmt::format("{{on: M{}, heat: {{plus-y: {} K, minus-y: {} K}}}}", l.on, l.from, l.to);
      case Kind::temperature_gradient_z:
        return fmt::format("{{on: M{}, heat: {{plus-z: {} K, minus-z: {} K}}}}", l.on, l.from, l.to);
      case Kind::shorten: return fmt::format("{{on: M{}, shorten: {}}}", l.on, l.from / length_);
      case Kind::settle: {
        std::string parts = fmt::format("x: {}, y: {}", l.first.x / length_, l.first.y / length_);
        if (!p_.plane) parts += fmt::format(", z: {}, rx: {} rad, ry: {} rad", l.first.z / length_, l.last.x, l.last.y);
        return fmt::format("{{at: P{}, settle: {{{}, rz: {} rad}}}}", l.on, parts, l.last.z);
      }
    }
    return {};
  }

  std::string member(const PlanMember& m) const {
    std::string t;
    if (m.link) t += ", kind: link";
    if (m.hinge != Hinge::none)
      t += fmt::format(", hinge: {}", m.hinge == Hinge::start ? "start" : m.hinge == Hinge::end ? "end" : "both");
    if (m.roll != 0) t += fmt::format(", roll: {} rad", m.roll);
    const std::string at_start = released(m.release_start), at_end = released(m.release_end);
    if (!at_start.empty() || !at_end.empty())
      t += fmt::format(", release: {{start: [{}], end: [{}]}}", at_start, at_end);
    if (!zero(m.arm_start) || !zero(m.arm_end))
      t += fmt::format(", offset: {{start: {}, end: {}}}", vector(m.arm_start, length_), vector(m.arm_end, length_));
    return t;
  }

  std::string support(const PlanSupport& s) const {
    std::vector<std::string> hold, spring;
    for (std::size_t k = 0; k < 6; ++k) {
      if (s.held[k]) hold.emplace_back(freedom[k]);
      if (s.spring[k] != 0)
        spring.push_back(fmt::format("{}: {} {}", freedom[k], s.spring[k], k < 3 ? "N/m" : "N*m/rad"));
    }
    for (const Vector& v : s.along) hold.push_back(vector(v, 1));
    std::vector<std::string> parts;
    if (!hold.empty()) parts.push_back(fmt::format("hold: [{}]", fmt::join(hold, ", ")));
    if (!spring.empty()) parts.push_back(fmt::format("spring: {{{}}}", fmt::join(spring, ", ")));
    return fmt::format("{{{}}}", fmt::join(parts, ", "));
  }

  std::string section(const Shape& shape) const {
    if (const auto* s = std::get_if<SquareTube>(&shape))
      return fmt::format("{{shape: square tube, width: {} m, wall: {} m}}", s->width.si(), s->wall.si());
    if (const auto* s = std::get_if<RectangularTube>(&shape))
      return fmt::format("{{shape: rectangular tube, height: {} m, width: {} m, wall: {} m}}", s->height.si(),
                         s->width.si(), s->wall.si());
    if (const auto* s = std::get_if<RoundTube>(&shape))
      return fmt::format("{{shape: round tube, diameter: {} m, wall: {} m}}", s->diameter.si(), s->wall.si());
    if (const auto* s = std::get_if<RectangularBar>(&shape))
      return fmt::format("{{shape: rectangular bar, height: {} m, width: {} m}}", s->height.si(), s->width.si());
    if (const auto* s = std::get_if<AngleProfile>(&shape))
      return fmt::format("{{shape: angle, height: {} m, width: {} m, wall: {} m}}", s->height.si(), s->width.si(),
                         s->wall.si());
    return fmt::format("{{shape: round bar, diameter: {} m}}", std::get<RoundBar>(shape).diameter.si());
  }

 private:
  static constexpr const char* freedom[] = {"x", "y", "z", "rx", "ry", "rz"};

  static std::string axes(const PlanLoad& l) { return l.axes == LoadAxes::member ? ", axes: member" : ""; }
  static std::string released(const std::array<bool, 6>& freed) {
    static constexpr const char* names[] = {"axial", "shear-y", "shear-z", "torsion", "moment-y", "moment-z"};
    std::vector<std::string> all;
    for (std::size_t k = 0; k < 6; ++k)
      if (freed[k]) all.emplace_back(names[k]);
    return fmt::format("{}", fmt::join(all, ", "));
  }

  const Plan& p_;
  double length_, force_, moment_;
};

double si(const std::string& unit_text) {
  return evaluate(unit_text, Scope())->quantity.si;
}

}  // namespace

std::string model_file(const Plan& plan, const std::string& length, const std::string& force,
                       const std::string& moment) {
  const Writer w(plan, si(length), si(force), si(moment));
  std::string t =
      fmt::format("corvex: 1\ntitle: random frame\nunits: {{length: {0}, force: {1}, moment: {2}, line: {1}/{0}}}\n",
                  length, force, moment);
  if (!plan.plane && plan.up == Up::y) t += "up: y\n";
  if (!plan.shear) t += "analysis: {shear: off}\n";
  t += "points:\n";
  for (std::size_t i = 0; i < plan.points.size(); ++i)
    t += fmt::format("  P{}: {}\n", i, w.vector(plan.points[i], si(length)));
  t += "sections:\n";
  for (std::size_t i = 0; i < plan.sections.size(); ++i)
    t += fmt::format("  S{}: {}\n", i, w.section(plan.sections[i]));
  t += "members:\n";
  for (std::size_t i = 0; i < plan.members.size(); ++i) {
    const PlanMember& m = plan.members[i];
    std::vector<std::string> through;
    for (const std::size_t p : m.through) through.push_back(fmt::format("P{}", p));
    t += fmt::format("  M{}: {{through: [{}], section: S{}, material: S235", i, fmt::join(through, ", "), m.section);
    t += w.member(m) + "}\n";
  }
  t += "supports:\n";
  for (const PlanSupport& s : plan.supports) t += fmt::format("  P{}: {}\n", s.point, w.support(s));
  if (!plan.masses.empty()) t += "masses:\n";
  for (const auto& [point, mass] : plan.masses) t += fmt::format("  P{}: {} kg\n", point, mass);
  t += "loads:\n";
  for (std::size_t c = 0; c < plan.cases.size(); ++c) {
    t += fmt::format("  C{}:\n", c);
    for (const PlanLoad& l : plan.cases[c]) t += "    - " + w.load(l) + "\n";
  }
  return t;
}

}  // namespace corvex::test
