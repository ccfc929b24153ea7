#include "support/plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

#include "support/cases.hpp"

namespace corvex::test {
namespace {

using Kind = PlanLoad::Kind;
constexpr double quarter = 1.5707963267948966;

class Maker {
 public:
  Maker(unsigned seed, bool plane, bool rich) : random_(seed), rich_(rich) { p_.plane = plane; }

  Plan make() {
    p_.up = p_.plane || chance(0.3) ? Up::y : Up::z;
    p_.shear = chance(0.7);
    p_.sections = {SquareTube{Length::si(0.06), Length::si(0.004)},
                   RectangularTube{Length::si(0.1), Length::si(0.05), Length::si(0.005)},
                   RoundTube{Length::si(0.0603), Length::si(0.0036)},
                   RectangularBar{Length::si(0.05), Length::si(0.03)}, RoundBar{Length::si(0.045)}};
    if (rich_ && !p_.plane) p_.sections.push_back(AngleProfile{Length::si(0.09), Length::si(0.06), Length::si(0.008)});
    grow();
    brace();
    if (rich_) {
      pin();
      shift();
      for (std::size_t p = 0; p < p_.points.size(); ++p)
        if (chance(0.15)) p_.masses.emplace_back(p, between(5, 200));
    }
    hold();
    if (rich_) hold_more();
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
    PlanMember m;
    m.through = {a, b};
    m.section = below(p_.sections.size());
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
      if (rich_ && !p_.members.back().link && p_.members.back().hinge == Hinge::none) release(p_.members.back());
    }
  }

  // Any components at either end that leave the member held by itself: `sound` of a try tells.
  void release(PlanMember& m) {
    const auto some = [&] {
      std::array<bool, 6> freed{};
      for (bool& f : freed) f = chance(0.3);
      return freed;
    };
    do {
      m.release_start = some();
      m.release_end = chance(0.5) ? some() : std::array<bool, 6>{};
      if (!p_.plane) continue;
      const bool about_y = std::fmod(std::round(std::abs(m.roll) / quarter), 2) == 1;
      for (auto* freed : {&m.release_start, &m.release_end})
        for (const std::size_t k : {std::size_t{3}, std::size_t(about_y ? 1 : 2), std::size_t(about_y ? 5 : 4)})
          (*freed)[k] = false;
    } while (moves(m));
  }
  static bool moves(const PlanMember& m) {
    const auto &a = m.release_start, &b = m.release_end;
    const auto loose = [&](std::size_t shear, std::size_t moment) {
      return (a[shear] && b[shear]) || a[shear] + b[shear] + a[moment] + b[moment] > 2;
    };
    return (a[0] && b[0]) || (a[3] && b[3]) || loose(1, 5) || loose(2, 4);
  }

  // Points that links alone hold: two in the plane, three in space.
  void pin() {
    for (std::size_t tries = below(3); tries > 0; --tries) {
      const Vector v = place();
      const std::size_t n = p_.points.size(), needed = p_.plane ? 2 : 3;
      if (!fits(v) || n < needed) continue;
      std::vector<std::size_t> to;
      std::vector<Vector> ways;
      while (to.size() < needed) {
        to.push_back(below(n));
        ways.push_back((p_.points[to.back()] - v) / length(p_.points[to.back()] - v));
      }
      const double apart = p_.plane ? length(cross(ways[0], ways[1])) : std::abs(dot(ways[0], cross(ways[1], ways[2])));
      if (apart < 0.2) continue;
      p_.points.push_back(v);
      pinned_.push_back(n);
      for (const std::size_t o : to) {
        member(n, o);
        p_.members.back().link = true;
      }
    }
  }

  // Rigid arms, where the points turn with something.
  void shift() {
    for (PlanMember& m : p_.members) {
      const auto pinned = [&](std::size_t p) { return std::find(pinned_.begin(), pinned_.end(), p) != pinned_.end(); };
      if (!chance(0.3)) continue;
      const PlanMember before = m;
      if (!pinned(m.through.front())) m.arm_start = size_of(0.15);
      if (!pinned(m.through.back()) && chance(0.7)) m.arm_end = size_of(0.15);
      // Not into the zone where the local axes swing round.
      const Vector d = p_.axis(m);
      const double across = length(d - up() * dot(d, up()));
      if (across < 0.05 * length(d)) m = before;
    }
  }

  void hold_more() {
    for (std::size_t n = below(3); n > 0; --n) {
      PlanSupport s;
      s.point = below(p_.points.size());
      if (std::any_of(p_.supports.begin(), p_.supports.end(), [&](const PlanSupport& o) { return o.point == s.point; }))
        continue;
      const bool pinned = std::find(pinned_.begin(), pinned_.end(), s.point) != pinned_.end();
      if (chance(0.6)) s.along.push_back(size_of(1));
      if (!p_.plane && chance(0.3)) s.along.push_back(size_of(1));
      if (chance(0.2)) s.held[0] = true;
      for (std::size_t k = 0; k < 6; ++k) {
        const bool exists = !p_.plane || k == 0 || k == 1 || k == 5;
        if (exists && !s.held[k] && !(pinned && k > 2) && chance(0.4))
          s.spring[k] = k < 3 ? between(1e5, 1e7) : between(1e3, 1e6);
      }
      if (s.along.empty() && !s.held[0] && s.spring == std::array<double, 6>{}) s.held[1] = true;
      p_.supports.push_back(s);
    }
  }

  void hold() {
    PlanSupport first;
    first.held.fill(true);
    p_.supports.push_back(first);
    const std::size_t other = 1 + below(p_.points.size() - 1 - pinned_.size());
    std::array<bool, 6> held{};
    const std::size_t kind = below(4);
    if (kind == 0) return;
    if (kind == 1) held[p_.up == Up::y ? 1 : 2] = true;
    if (kind == 2) held = {true, true, true, false, false, false};
    if (kind == 3) held.fill(true);
    PlanSupport second;
    second.point = other;
    second.held = held;
    p_.supports.push_back(second);
  }

  bool bends_about_y(const PlanMember& m) const { return std::fmod(std::round(std::abs(m.roll) / quarter), 2) == 1; }

  std::vector<PlanLoad> rich_loads() {
    std::vector<PlanLoad> all;
    for (std::size_t n = 2 + below(4); n > 0; --n) {
      PlanLoad l;
      l.kind = std::array{Kind::spread,
                          Kind::heat,
                          Kind::temperature_gradient_y,
                          Kind::temperature_gradient_z,
                          Kind::shorten,
                          Kind::settle,
                          Kind::line,
                          Kind::member_force}[below(8)];
      l.on = below(p_.members.size());
      const PlanMember& m = p_.members[l.on];
      const double L = length(p_.axis(m));
      switch (l.kind) {
        case Kind::spread:
          l.first = size_of(3000);
          for (std::size_t i = 0; i < p_.members.size(); ++i)
            if (i != l.on && chance(0.3)) l.also.push_back(i);
          break;
        case Kind::heat: l.from = l.to = between(-60, 60); break;
        case Kind::temperature_gradient_y:
        case Kind::temperature_gradient_z: {
          const bool y = l.kind == Kind::temperature_gradient_y;
          if (m.link || (p_.plane && bends_about_y(m) == y)) continue;
          l.from = between(-60, 60), l.to = between(-60, 60);
          break;
        }
        case Kind::shorten: l.from = between(-0.003, 0.003); break;
        case Kind::settle: {
          const PlanSupport& s = p_.supports[below(p_.supports.size())];
          l.on = s.point;
          const double by[] = {between(-0.005, 0.005), between(-0.005, 0.005), between(-0.005, 0.005)};
          const Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
          for (std::size_t k = 0; k < (p_.plane ? 2u : 3u); ++k)
            if (s.held[k] || s.spring[k] != 0) l.first += axes[k] * by[k];
          for (const Vector& v : s.along) l.first += v * (by[0] / length(v));
          for (std::size_t k = p_.plane ? 5 : 3; k < 6; ++k)
            if (s.held[k] || s.spring[k] != 0) l.last += axes[k - 3] * by[k - 3];
          break;
        }
        default:
          l.from = between(0, 0.5) * L, l.to = between(0.6, 1) * L;
          l.first = size_of(3000), l.last = size_of(3000);
          if (chance(0.5) && !(p_.plane && m.roll != 0))
            l.axes = LoadAxes::member;
          else if (l.kind == Kind::line && p_.plan_share(m) > 1e-3)
            l.per = Per::plan;
      }
      all.push_back(l);
    }
    return all;
  }

  std::vector<PlanLoad> loads() {
    std::vector<PlanLoad> all;
    for (std::size_t n = 3 + below(4); n > 0; --n) {
      const auto kind = static_cast<Kind>(below(6));
      PlanLoad l;
      l.kind = kind;
      if (kind == Kind::point_force || kind == Kind::point_moment) l.on = below(p_.points.size());
      if (kind == Kind::member_force || kind == Kind::member_moment || kind == Kind::line) {
        l.on = below(p_.members.size());
        const double L = length(p_.axis(p_.members[l.on]));
        l.from = chance(0.2) ? 0 : between(0, 0.6) * L;
        l.to = chance(0.2) ? L : between(0.65, 1) * L;
        // A link can take no torsion.
        if (kind == Kind::member_moment && p_.members[l.on].link && !p_.plane) continue;
      }
      const bool moment = kind == Kind::point_moment || kind == Kind::member_moment;
      l.first = size_of(kind == Kind::gravity ? 10 : 3000);
      l.last = size_of(3000);
      if (moment && p_.plane) l.first = {0, 0, between(-2000, 2000)};
      if (kind == Kind::point_moment && std::find(pinned_.begin(), pinned_.end(), l.on) != pinned_.end()) continue;
      all.push_back(l);
    }
    if (rich_)
      for (const PlanLoad& l : rich_loads()) all.push_back(l);
    return all;
  }

  std::mt19937 random_;
  bool rich_;
  Plan p_;
  std::vector<std::size_t> pinned_;
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

RigidArm arm(const Vector& v) {
  return {Length::si(v.x), Length::si(v.y), Length::si(v.z)};
}

std::vector<Component> components(const std::array<bool, 6>& freed) {
  std::vector<Component> all;
  for (std::size_t k = 0; k < 6; ++k)
    if (freed[k]) all.push_back(static_cast<Component>(k));
  return all;
}

Support support(const PlanSupport& p) {
  std::vector<Dof> dofs;
  for (std::size_t k = 0; k < 6; ++k)
    if (p.held[k]) dofs.push_back(static_cast<Dof>(k));
  Support s = Support::hold(dofs);
  for (const Vector& v : p.along) s = s.along(v);
  const auto& k = p.spring;
  return s.spring({Stiffness::si(k[0]), Stiffness::si(k[1]), Stiffness::si(k[2]), TurningStiffness::si(k[3]),
                   TurningStiffness::si(k[4]), TurningStiffness::si(k[5])});
}

void add(LoadsOf loads, const PlanLoad& l) {
  const PointId point{l.on};
  const MemberId member{l.on};
  switch (l.kind) {
    case Kind::point_force: loads.at(point, force(l.first)); break;
    case Kind::point_moment: loads.at(point, moment(l.first)); break;
    case Kind::member_force: loads.on(member, Length::si(l.from), force(l.first), l.axes); break;
    case Kind::member_moment: loads.on(member, Length::si(l.from), moment(l.first)); break;
    case Kind::line:
      loads.line(member, line(l.first), line(l.last),
                 {.from = Length::si(l.from), .to = Length::si(l.to), .axes = l.axes, .per = l.per});
      break;
    case Kind::gravity:
      loads.gravity(
          {AccelerationSize::si(l.first.x), AccelerationSize::si(l.first.y), AccelerationSize::si(l.first.z)});
      break;
    case Kind::spread: {
      std::vector<MemberId> on{member};
      for (const std::size_t m : l.also) on.emplace_back(m);
      loads.spread(on, force(l.first));
      break;
    }
    case Kind::heat: loads.heat(member, Temperature::si(l.from)); break;
    case Kind::temperature_gradient_y:
      loads.temperature_gradient_y(member, Temperature::si(l.from), Temperature::si(l.to));
      break;
    case Kind::temperature_gradient_z:
      loads.temperature_gradient_z(member, Temperature::si(l.from), Temperature::si(l.to));
      break;
    case Kind::shorten: loads.shorten(member, Length::si(l.from)); break;
    case Kind::settle:
      loads.settle(point, {Length::si(l.first.x), Length::si(l.first.y), Length::si(l.first.z), Angle::si(l.last.x),
                           Angle::si(l.last.y), Angle::si(l.last.z)});
      break;
  }
}

bool on_member(const PlanLoad& l) {
  return l.kind != Kind::point_force && l.kind != Kind::point_moment && l.kind != Kind::gravity &&
         l.kind != Kind::settle;
}

}  // namespace

double Plan::length_of(const PlanMember& m) const {
  return length(points[m.through.back()] - points[m.through.front()]);
}

Vector Plan::axis(const PlanMember& m) const {
  return points[m.through.back()] + m.arm_end - (points[m.through.front()] + m.arm_start);
}

double Plan::plan_share(const PlanMember& m) const {
  const Vector d = axis(m), up_direction = up == Up::y ? Vector{0, 1, 0} : Vector{0, 0, 1};
  return length(cross(d, up_direction)) / length(d);
}

Plan random_plan(unsigned seed, bool plane) {
  return Maker(seed, plane, false).make();
}

Plan rich_plan(unsigned seed, bool plane) {
  return Maker(seed, plane, true).make();
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
    for (const std::size_t p : m.through) through.emplace_back(p);
    s.member(fmt::format("M{}", i), through,
             {.section = SectionId(m.section),
              .material = material("S235"),
              .kind = m.link ? MemberKind::link : MemberKind::beam,
              .hinge = m.hinge,
              .roll = Angle::si(m.roll),
              .release = {components(m.release_start), components(m.release_end)},
              .offset = {arm(m.arm_start), arm(m.arm_end)},
              .acts = m.acts});
  }
  for (const PlanSupport& p : plan.supports) s.support(PointId(p.point), support(p));
  for (const auto& [point, mass] : plan.masses) s.point_mass(PointId(point), Mass::si(mass));
  for (std::size_t c = 0; c < plan.cases.size(); ++c)
    for (const PlanLoad& l : plan.cases[c]) add(loads_in(s, fmt::format("C{}", c)), l);
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
    for (Vector* arm : {&t.members[i].arm_start, &t.members[i].arm_end}) *arm = turn_about_up(plan, *arm, angle);
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
  for (PlanSupport& support : s.plan.supports) support.point = s.point[support.point];
  for (auto& mass : s.plan.masses) mass.first = s.point[mass.first];
  for (auto& loads : s.plan.cases)
    for (PlanLoad& l : loads)
      if (l.kind != Kind::gravity) {
        l.on = on_member(l) ? s.member[l.on] : s.point[l.on];
        for (std::size_t& m : l.also) m = s.member[m];
      }
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
        PlanLoad part = l;
        part.on = second ? h.second[l.on] : l.on;
        part.from = second ? from - at : from;
        part.to = second ? to - at : to;
        part.first = first;
        part.last = last;
        all.push_back(part);
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

}  // namespace corvex::test
