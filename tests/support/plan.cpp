#include "support/plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

namespace corvex::test {
namespace {

using Kind = PlanLoad::Kind;
constexpr double quarter = 1.5707963267948966;

class Maker {
 public:
  Maker(unsigned seed, bool plane) : random_(seed) { p_.plane = plane; }

  Plan make() {
    p_.up = p_.plane || chance(0.3) ? Up::y : Up::z;
    p_.shear = chance(0.7);
    p_.sections = {SquareTube{Length::si(0.06), Length::si(0.004)},
                   RectangularTube{Length::si(0.1), Length::si(0.05), Length::si(0.005)},
                   RoundTube{Length::si(0.0603), Length::si(0.0036)},
                   RectangularBar{Length::si(0.05), Length::si(0.03)}, RoundBar{Length::si(0.045)}};
    grow();
    brace();
    hold();
    for (int c = 0; c < 3; ++c) p_.cases.push_back(loads());
    return p_;
  }

 private:
  double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }
  std::size_t below(std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random_); }
  bool chance(double share) { return between(0, 1) < share; }

  Vector up() const { return p_.up == Up::y ? Vector{0, 1, 0} : Vector{0, 0, 1}; }
  Vector place() { return {between(0, 5), between(0, 4), p_.plane ? 0 : between(0, 4)}; }
  Vector size_of(double s) { return {between(-s, s), between(-s, s), p_.plane ? 0 : between(-s, s)}; }

  // Not too near to any other, and not almost vertically above one (the local axes swing round there).
  bool fits(const Vector& v) const {
    return std::all_of(p_.points.begin(), p_.points.end(), [&](const Vector& o) {
      const Vector d = v - o;
      const double across = length(d - up() * dot(d, up()));
      return length(d) > 0.5 && (across == 0 || across > 0.05 * length(d));
    });
  }

  void grow() {
    p_.points.push_back(place());
    const std::size_t count = 4 + below(5);
    while (p_.points.size() < count) {
      const std::size_t from = below(p_.points.size());
      const Vector v = chance(0.3) ? p_.points[from] + up() * between(1, 3) : place();
      if (!fits(v)) continue;
      p_.points.push_back(v);
      member(from, p_.points.size() - 1);
      if (chance(0.3)) go_through(p_.members.back());
    }
  }

  // A third point on the line of a member.
  void go_through(PlanMember& m) {
    const Vector a = p_.points[m.through[0]], b = p_.points[m.through[1]];
    const Vector between_them = a + (b - a) * between(0.3, 0.7);
    if (!fits(between_them)) return;
    m.through.insert(m.through.begin() + 1, p_.points.size());
    p_.points.push_back(between_them);
  }

  void member(std::size_t a, std::size_t b) {
    PlanMember m{{a, b}, below(p_.sections.size()), false, Hinge::none, 0};
    if (!p_.plane) m.roll = between(-3, 3);
    if (p_.plane && chance(0.4)) m.roll = quarter * static_cast<double>(below(4));
    p_.members.push_back(m);
  }

  void brace() {
    for (std::size_t tries = 1 + below(4); tries > 0; --tries) {
      const std::size_t a = below(p_.points.size()), b = below(p_.points.size());
      if (a == b) continue;
      member(a, b);
      if (chance(0.5))
        p_.members.back().link = true;
      else
        p_.members.back().hinge = std::array{Hinge::none, Hinge::start, Hinge::end, Hinge::both}[below(4)];
    }
  }

  void hold() {
    p_.supports.push_back({0, {true, true, true, true, true, true}});
    const std::size_t other = 1 + below(p_.points.size() - 1);
    std::array<bool, 6> held{};
    const std::size_t kind = below(4);
    if (kind == 0) return;
    if (kind == 1) held[p_.up == Up::y ? 1 : 2] = true;
    if (kind == 2) held = {true, true, true, false, false, false};
    if (kind == 3) held.fill(true);
    p_.supports.push_back({other, held});
  }

  std::vector<PlanLoad> loads() {
    std::vector<PlanLoad> all;
    for (std::size_t n = 3 + below(4); n > 0; --n) {
      const auto kind = static_cast<Kind>(below(6));
      PlanLoad l{kind, 0, 0, 0, {}, {}};
      if (kind == Kind::point_force || kind == Kind::point_moment) l.on = below(p_.points.size());
      if (kind == Kind::member_force || kind == Kind::member_moment || kind == Kind::line) {
        l.on = below(p_.members.size());
        const double L = p_.length_of(p_.members[l.on]);
        l.from = chance(0.2) ? 0 : between(0, 0.6) * L;
        l.to = chance(0.2) ? L : between(0.65, 1) * L;
        // A link can take no torsion.
        if (kind == Kind::member_moment && p_.members[l.on].link && !p_.plane) continue;
      }
      const bool moment = kind == Kind::point_moment || kind == Kind::member_moment;
      l.first = size_of(kind == Kind::gravity ? 10 : 3000);
      l.last = size_of(3000);
      if (moment && p_.plane) l.first = {0, 0, between(-2000, 2000)};
      all.push_back(l);
    }
    return all;
  }

  std::mt19937 random_;
  Plan p_;
};

Force force(const Vector& v) {
  return {ForceSize::si(v.x), ForceSize::si(v.y), ForceSize::si(v.z)};
}
Moment moment(const Vector& v) {
  return {MomentSize::si(v.x), MomentSize::si(v.y), MomentSize::si(v.z)};
}
LineForce line(const Vector& v) {
  return {LineForceSize::si(v.x), LineForceSize::si(v.y), LineForceSize::si(v.z)};
}

void add(LoadCase& loads, const PlanLoad& l) {
  const PointId point{l.on};
  const MemberId member{l.on};
  switch (l.kind) {
    case Kind::point_force: loads.at(point, force(l.first)); break;
    case Kind::point_moment: loads.at(point, moment(l.first)); break;
    case Kind::member_force: loads.on(member, Length::si(l.from), force(l.first)); break;
    case Kind::member_moment: loads.on(member, Length::si(l.from), moment(l.first)); break;
    case Kind::line: loads.line(member, line(l.first), line(l.last), Length::si(l.from), Length::si(l.to)); break;
    case Kind::gravity:
      loads.gravity(
          {AccelerationSize::si(l.first.x), AccelerationSize::si(l.first.y), AccelerationSize::si(l.first.z)});
      break;
  }
}

bool on_member(const PlanLoad& l) {
  return l.kind == Kind::member_force || l.kind == Kind::member_moment || l.kind == Kind::line;
}

}  // namespace

double Plan::length_of(const PlanMember& m) const {
  return length(points[m.through.back()] - points[m.through.front()]);
}

Plan random_plan(unsigned seed, bool plane) {
  return Maker(seed, plane).make();
}

Structure build(const Plan& plan) {
  Structure s = plan.plane ? Structure::plane("random frame") : Structure::space("random frame", plan.up);
  s.analysis().shear = plan.shear;
  for (std::size_t i = 0; i < plan.points.size(); ++i) {
    const Vector& v = plan.points[i];
    s.point(fmt::format("P{}", i), Length::si(v.x), Length::si(v.y), Length::si(v.z));
  }
  for (std::size_t i = 0; i < plan.sections.size(); ++i) s.section(fmt::format("S{}", i), plan.sections[i]);
  for (std::size_t i = 0; i < plan.members.size(); ++i) {
    const PlanMember& m = plan.members[i];
    std::vector<PointId> through;
    for (const std::size_t p : m.through) through.push_back({p});
    s.member(fmt::format("M{}", i), through,
             {.section = {m.section},
              .material = material("S235"),
              .kind = m.link ? MemberKind::link : MemberKind::beam,
              .hinge = m.hinge,
              .roll = Angle::si(m.roll)});
  }
  for (const auto& [point, held] : plan.supports) {
    std::vector<Freedom> freedoms;
    for (std::size_t k = 0; k < 6; ++k)
      if (held[k]) freedoms.push_back(static_cast<Freedom>(k));
    s.support({point}, Support::hold(freedoms));
  }
  for (std::size_t c = 0; c < plan.cases.size(); ++c)
    for (const PlanLoad& l : plan.cases[c]) add(s.load_case(fmt::format("C{}", c)), l);
  return s;
}

Vector turn_about_up(const Plan& plan, const Vector& v, double angle) {
  const double c = std::cos(angle), s = std::sin(angle);
  if (plan.up == Up::z) return {c * v.x - s * v.y, s * v.x + c * v.y, v.z};
  return {c * v.x + s * v.z, v.y, -s * v.x + c * v.z};
}

Plan turned(const Plan& plan, double angle) {
  Plan t = plan;
  const Vector up = plan.up == Up::y ? Vector{0, 1, 0} : Vector{0, 0, 1};
  for (Vector& v : t.points) v = turn_about_up(plan, v, angle);
  for (std::size_t i = 0; i < t.members.size(); ++i) {
    // The local y of a vertical member is global x, which does not turn with the frame: roll makes up for it.
    const auto& through = plan.members[i].through;
    const Vector d = plan.points[through.back()] - plan.points[through.front()];
    const double along = dot(d, up) / length(d);
    if (std::abs(along) > 0.9999) t.members[i].roll += along > 0 ? angle : -angle;
  }
  for (auto& loads : t.cases)
    for (PlanLoad& l : loads) {
      l.first = turn_about_up(plan, l.first, angle);
      l.last = turn_about_up(plan, l.last, angle);
    }
  return t;
}

Shuffled shuffled(const Plan& plan, unsigned seed) {
  std::mt19937 random(seed);
  const auto places = [&](std::size_t n) {
    std::vector<std::size_t> where(n);
    std::iota(where.begin(), where.end(), 0);
    std::shuffle(where.begin(), where.end(), random);
    return where;
  };
  Shuffled s{plan, places(plan.points.size()), places(plan.members.size())};
  for (std::size_t i = 0; i < plan.points.size(); ++i) s.plan.points[s.point[i]] = plan.points[i];
  for (std::size_t i = 0; i < plan.members.size(); ++i) {
    PlanMember m = plan.members[i];
    for (std::size_t& p : m.through) p = s.point[p];
    s.plan.members[s.member[i]] = m;
  }
  for (auto& support : s.plan.supports) support.first = s.point[support.first];
  for (auto& loads : s.plan.cases)
    for (PlanLoad& l : loads)
      if (l.kind != Kind::gravity) l.on = on_member(l) ? s.member[l.on] : s.point[l.on];
  return s;
}

namespace {

// A point of its own at this share of each beam, before its other points in between.
constexpr double cut_share = 0.23;

std::size_t cut_point(Plan& plan, const PlanMember& m) {
  const Vector a = plan.points[m.through.front()], b = plan.points[m.through.back()];
  plan.points.push_back(a + (b - a) * cut_share);
  return plan.points.size() - 1;
}

}  // namespace

Plan with_points_between(const Plan& plan) {
  Plan t = plan;
  for (PlanMember& m : t.members)
    if (!m.link) m.through.insert(m.through.begin() + 1, cut_point(t, m));
  return t;
}

Halved halved(const Plan& plan) {
  Halved h{plan, std::vector<std::size_t>(plan.members.size(), 0), std::vector<double>(plan.members.size(), 1e300)};
  Plan& t = h.plan;
  for (std::size_t i = 0; i < plan.members.size(); ++i) {
    if (plan.members[i].link) continue;
    h.at[i] = cut_share * plan.length_of(plan.members[i]);
    h.second[i] = t.members.size();
    PlanMember second = t.members[i];
    PlanMember& first = t.members[i];
    const std::size_t p = cut_point(t, first);
    second.through.front() = p;
    first.through = {first.through.front(), p};
    const Hinge hinge = first.hinge;
    first.hinge = hinge == Hinge::start || hinge == Hinge::both ? Hinge::start : Hinge::none;
    second.hinge = hinge == Hinge::end || hinge == Hinge::both ? Hinge::end : Hinge::none;
    t.members.push_back(second);
  }
  for (auto& loads : t.cases) {
    std::vector<PlanLoad> all;
    for (const PlanLoad& l : loads) {
      const double at = on_member(l) ? h.at[l.on] : 0;
      const auto put = [&](double from, double to, const Vector& first, const Vector& last, bool second) {
        all.push_back(
            {l.kind, second ? h.second[l.on] : l.on, second ? from - at : from, second ? to - at : to, first, last});
      };
      if (!on_member(l)) {
        all.push_back(l);
      } else if (l.kind != Kind::line) {
        put(l.from, l.to, l.first, l.last, l.from >= at);
      } else if (l.from >= at || l.to <= at) {
        put(l.from, l.to, l.first, l.last, l.from >= at);
      } else {
        const Vector middle = l.first + (l.last - l.first) * ((at - l.from) / (l.to - l.from));
        put(l.from, at, l.first, middle, false);
        put(at, l.to, middle, l.last, true);
      }
    }
    loads = all;
  }
  return h;
}

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
        return fmt::format("{{on: M{}, at: {}, force: {}}}", l.on, l.from / length_, vector(l.first, force_));
      case Kind::member_moment:
        return fmt::format("{{on: M{}, at: {}, moment: {}}}", l.on, l.from / length_, moment(l.first));
      case Kind::line:
        return fmt::format("{{on: M{}, line: [{}, {}], from: {}, to: {}}}", l.on, vector(l.first, q), vector(l.last, q),
                           l.from / length_, l.to / length_);
      case Kind::gravity: {
        std::string parts = fmt::format("{} m/s^2, {} m/s^2", l.first.x, l.first.y);
        if (!p_.plane) parts += fmt::format(", {} m/s^2", l.first.z);
        return fmt::format("{{gravity: [{}]}}", parts);
      }
    }
    return {};
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
    return fmt::format("{{shape: round bar, diameter: {} m}}", std::get<RoundBar>(shape).diameter.si());
  }

 private:
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
  std::string t = fmt::format("corvex: 1\ntitle: random frame\nunits: {{length: {}, force: {}, moment: {}}}\n", length,
                              force, moment);
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
    if (m.link) t += ", kind: link";
    if (m.hinge != Hinge::none)
      t += fmt::format(", hinge: {}", m.hinge == Hinge::start ? "start" : m.hinge == Hinge::end ? "end" : "both");
    if (m.roll != 0) t += fmt::format(", roll: {} deg", m.roll * 180 / 3.14159265358979323846);
    t += "}\n";
  }
  t += "supports:\n";
  static constexpr const char* freedom[] = {"x", "y", "z", "rx", "ry", "rz"};
  for (const auto& [point, held] : plan.supports) {
    std::vector<std::string> hold;
    for (std::size_t k = 0; k < 6; ++k)
      if (held[k]) hold.emplace_back(freedom[k]);
    t += fmt::format("  P{}: {{hold: [{}]}}\n", point, fmt::join(hold, ", "));
  }
  t += "loads:\n";
  for (std::size_t c = 0; c < plan.cases.size(); ++c) {
    t += fmt::format("  C{}:\n", c);
    for (const PlanLoad& l : plan.cases[c]) t += "    - " + w.load(l) + "\n";
  }
  return t;
}

}  // namespace corvex::test
