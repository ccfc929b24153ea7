// What must hold for every frame, on random ones in the plane and in space.
#include <corvex/corvex.hpp>
#include <corvex/modes.hpp>
#include <random>

#include "support/near.hpp"
#include "support/plan.hpp"
#include "support/rows.hpp"

namespace tests_of_analysis_random_frames {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

constexpr unsigned frames = 60;

struct Sizes {
  double move = 0, turn = 0, force = 0, moment = 0, stress = 0;
};

// The largest figures of a case: differences are held against them.
Sizes sizes(const Solution& s, std::size_t c) {
  Sizes z;
  for (std::size_t p = 0; p < s.structure().points().size(); ++p) {
    const Displacement d = s[c].displacement(PointId{p});
    z.move = std::max({z.move, std::abs(d.x.si()), std::abs(d.y.si()), std::abs(d.z.si())});
    z.turn = std::max({z.turn, std::abs(d.rx.si()), std::abs(d.ry.si()), std::abs(d.rz.si())});
  }
  for (std::size_t i = 0; i < s.structure().members().size(); ++i) {
    const MemberResult m = s[c][MemberId{i}];
    for (const Diagram& d : {m.axial(), m.shear_y(), m.shear_z()})
      z.force = std::max({z.force, std::abs(d.max().value.si), std::abs(d.min().value.si)});
    for (const Diagram& d : {m.torsion(), m.moment_y(), m.moment_z()})
      z.moment = std::max({z.moment, std::abs(d.max().value.si), std::abs(d.min().value.si)});
    z.stress = std::max(z.stress, m.von_mises()->value.si());
  }
  // Where only moments act, forces are rounding beside them: levers here are metres.
  z.force = std::max(z.force, z.moment / 5);
  z.moment = std::max(z.moment, z.force);
  return z;
}

Solution solved(const Plan& plan) {
  const Solution s = solve(build(plan));
  for (const Problem& p : s.problems()) UNSCOPED_INFO(describe(p));
  REQUIRE(s.ok());
  return s;
}

void check_same(const Vector& a, const Vector& b, double size) {
  CHECK(length(a - b) <= promised * size);
}

Vector movement(const Displacement& d) {
  return {d.x.si(), d.y.si(), d.z.si()};
}
Vector rotation(const Displacement& d) {
  return {d.rx.si(), d.ry.si(), d.rz.si()};
}
Vector force(const Reaction& r) {
  return {r.x.si(), r.y.si(), r.z.si()};
}
Vector moment(const Reaction& r) {
  return {r.mx.si(), r.my.si(), r.mz.si()};
}

void check_same(const SectionState& a, const SectionState& b, const Sizes& z) {
  check_same({a.axial.si(), a.shear_y.si(), a.shear_z.si()}, {b.axial.si(), b.shear_y.si(), b.shear_z.si()}, z.force);
  check_same({a.torsion.si(), a.moment_y.si(), a.moment_z.si()}, {b.torsion.si(), b.moment_y.si(), b.moment_z.si()},
             z.moment);
  check_same({a.x.si(), a.y.si(), a.z.si()}, {b.x.si(), b.y.si(), b.z.si()}, z.move);
}

// All frames, plane and in space.
template <class Check>
void for_frames(const Check& check, Plan (*make)(unsigned, bool) = random_plan) {
  for (const bool plane : {true, false})
    for (unsigned seed = 1; seed <= frames; ++seed) {
      INFO((plane ? "plane" : "space") << " frame " << seed);
      check(make(seed, plane), seed);
    }
}

}  // namespace

TEST_CASE("Reactions balance the loads, and the inner forces balance every piece of a member") {
  for_frames([](const Plan& plan, unsigned) {
    const Solution s = solved(plan);
    for (std::size_t c = 0; c < s.size(); ++c) {
      CHECK(s[c].balance().error < 1e-10);
      const Sizes z = sizes(s, c);
      for (std::size_t i = 0; i < plan.members.size(); ++i) {
        const MemberResult m = s[c][MemberId{i}];
        if (m.member().kind == MemberKind::link) continue;
        // dM/dx = V between the breaks: Simpson's rule is exact for a quadratic shear force.
        for (const auto& [V, M] : {std::pair(m.shear_y(), m.moment_z()), {m.shear_z(), m.moment_y()}})
          for (std::size_t k = 0; k < V.pieces().size(); ++k) {
            const auto at = [&](const Diagram& d, double x) {
              const auto& p = d.pieces()[k];
              double v = 0;
              for (std::size_t j = 6; j-- > 0;) v = v * (x - p.from) + p.powers[j];
              return v;
            };
            const double a = V.pieces()[k].from, b = V.pieces()[k].to;
            const double area = (b - a) / 6 * (at(V, a) + 4 * at(V, (a + b) / 2) + at(V, b));
            CHECK(at(M, b) - at(M, a) == near(area, z.moment));
          }
      }
    }
  });
}

TEST_CASE("Members meet at their points: movements agree and inner forces balance there") {
  for_frames([](const Plan& plan, unsigned) {
    const Solution s = solved(plan);
    const std::size_t c = 0;
    const Sizes z = sizes(s, c);
    std::vector<Vector> pull(plan.points.size()), turn(plan.points.size());
    for (const PlanLoad& l : plan.cases[c]) {
      if (l.kind == PlanLoad::Kind::point_force) pull[l.on] += l.first;
      if (l.kind == PlanLoad::Kind::point_moment) turn[l.on] += l.first;
    }
    for (const PlanSupport& support : plan.supports) {
      const std::size_t point = support.point;
      pull[point] += force(s[c].reaction(PointId{point}));
      turn[point] += moment(s[c].reaction(PointId{point}));
    }
    bool loaded_link = false;
    for (std::size_t i = 0; i < plan.members.size(); ++i) {
      const MemberResult m = s[c][MemberId{i}];
      const Axes axes = local_axes(s.structure(), m.member());
      for (const PlanLoad& l : plan.cases[c])
        loaded_link |= plan.members[i].link &&
                       (l.kind == PlanLoad::Kind::gravity || (l.on == i && l.kind >= PlanLoad::Kind::member_force));
      for (const Joint& j : m.joints()) {
        const SectionState& t = j.state;
        check_same(Vector{t.x.si(), t.y.si(), t.z.si()}, movement(s[c].displacement(j.point)), z.move);
        // On the face along +x the member feels N, −Vy, −Vz, T, −My, Mz; the joint feels the opposite.
        const double sign = j.side == Side::before ? -1 : 1;
        pull[j.point.index] += axes.global({t.axial.si(), -t.shear_y.si(), -t.shear_z.si()}) * sign;
        turn[j.point.index] += axes.global({t.torsion.si(), -t.moment_y.si(), t.moment_z.si()}) * sign;
      }
    }
    // What a loaded link sends across to its ends is no inner force of it.
    if (loaded_link) return;
    for (std::size_t p = 0; p < plan.points.size(); ++p) {
      // A load placed exactly at a member's own end jumps there.
      bool at_end = false;
      for (const PlanLoad& l : plan.cases[c])
        at_end |= (l.kind == PlanLoad::Kind::member_force || l.kind == PlanLoad::Kind::member_moment) && l.from == 0;
      if (at_end) continue;
      CHECK(length(pull[p]) <= 1e-9 * z.force);
      CHECK(length(turn[p]) <= 1e-9 * std::max(z.moment, z.force));
    }
  });
}

TEST_CASE("Work is reciprocal") {
  for_frames([](Plan plan, unsigned seed) {
    std::mt19937 random(seed);
    const auto number = [&] { return std::uniform_real_distribution<double>(-1, 1)(random); };
    const auto any = [&](std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(random); };
    plan.cases.assign(2, {});
    for (auto& loads : plan.cases) {
      std::size_t beam = any(plan.members.size());
      while (plan.members[beam].link) beam = any(plan.members.size());
      const double at = 0.37 * plan.length_of(plan.members[beam]);
      loads.push_back(
          {PlanLoad::Kind::member_force, beam, at, at, {number(), number(), plan.plane ? 0 : number()}, {}});
      loads.push_back({PlanLoad::Kind::point_force,
                       any(plan.points.size()),
                       0,
                       0,
                       {number(), number(), plan.plane ? 0 : number()},
                       {}});
      loads.push_back({PlanLoad::Kind::point_moment,
                       any(plan.points.size()),
                       0,
                       0,
                       plan.plane ? Vector{0, 0, number()} : Vector{number(), number(), number()},
                       {}});
    }
    const Solution s = solved(plan);
    double size = 0;
    const auto work = [&](std::size_t loads, std::size_t moved) {
      double sum = 0;
      for (const PlanLoad& l : plan.cases[loads]) {
        Vector d;
        if (l.kind == PlanLoad::Kind::member_force) {
          const SectionState t = s[moved][MemberId{l.on}].at(Length::si(l.from));
          d = {t.x.si(), t.y.si(), t.z.si()};
        } else {
          const Displacement p = s[moved].displacement(PointId{l.on});
          d = l.kind == PlanLoad::Kind::point_force ? movement(p) : rotation(p);
        }
        sum += dot(l.first, d);
        size = std::max(size, length(l.first) * length(d));
      }
      return sum;
    };
    const double ab = work(0, 1), ba = work(1, 0);
    CHECK(ab == near(ba, size));
  });
}

TEST_CASE("Loads superpose") {
  for_frames([](Plan plan, unsigned) {
    std::vector<PlanLoad> both;
    for (const auto& [c, factor] : {std::pair(std::size_t{0}, 2.0), {1, -0.7}})
      for (PlanLoad l : plan.cases[c]) {
        l.first = l.first * factor;
        l.last = l.last * factor;
        both.push_back(l);
      }
    plan.cases.push_back(both);
    const Solution s = solved(plan);
    const std::size_t sum = plan.cases.size() - 1;
    const Sizes a = sizes(s, 0), b = sizes(s, 1);
    const double move = 2 * a.move + b.move, moment_size = 2 * a.moment + b.moment;
    for (std::size_t p = 0; p < plan.points.size(); ++p) {
      const auto at = [&](std::size_t c) { return movement(s[c].displacement(PointId{p})); };
      check_same(at(sum), at(0) * 2 + at(1) * -0.7, move);
    }
    for (std::size_t i = 0; i < plan.members.size(); ++i)
      for (const double share : {0.0, 0.31, 0.5, 0.99}) {
        const Length x = Length::si(share * plan.length_of(plan.members[i]));
        const auto M = [&](std::size_t c) { return s[c][MemberId{i}].moment_z().at(x).si(); };
        CHECK(M(sum) == near(2 * M(0) - 0.7 * M(1), moment_size));
      }
  });
}

TEST_CASE("A frame turned about the up direction answers the same, turned") {
  for (unsigned seed = 1; seed <= frames; ++seed) {
    INFO("space frame " << seed);
    const Plan plan = random_plan(seed, false);
    const double angle = 0.1 + 0.1 * seed;
    const auto turn = [&](const Vector& v) { return turn_about_up(plan, v, angle); };
    const Solution before = solved(plan), after = solved(turned(plan, angle));
    for (std::size_t c = 0; c < before.size(); ++c) {
      const Sizes z = sizes(before, c);
      for (std::size_t p = 0; p < plan.points.size(); ++p) {
        const Displacement a = before[c].displacement(PointId{p}), b = after[c].displacement(PointId{p});
        check_same(movement(b), turn(movement(a)), z.move);
        check_same(rotation(b), turn(rotation(a)), z.turn);
        const Reaction r = before[c].reaction(PointId{p}), t = after[c].reaction(PointId{p});
        check_same(force(t), turn(force(r)), z.force);
        check_same(moment(t), turn(moment(r)), z.moment);
      }
      for (std::size_t i = 0; i < plan.members.size(); ++i) {
        const MemberResult a = before[c][MemberId{i}], b = after[c][MemberId{i}];
        CHECK(b.von_mises()->value.si() == near(a.von_mises()->value.si(), z.stress));
        CHECK(b.sag().value.si == near(a.sag().value.si, z.move));
        CHECK(b.moment_z().max().value.si() == near(a.moment_z().max().value.si(), z.moment));
        CHECK(b.moment_y().max().value.si() == near(a.moment_y().max().value.si(), z.moment));
      }
    }
  }
}

TEST_CASE("The order and the names of points and members change nothing") {
  const auto check = [](const Plan& plan, unsigned seed) {
    const Shuffled other = shuffled(plan, seed);
    const Solution a = solved(plan), b = solved(other.plan);
    for (std::size_t c = 0; c < a.size(); ++c) {
      const Sizes z = sizes(a, c);
      for (std::size_t p = 0; p < plan.points.size(); ++p)
        check_same(movement(a[c].displacement(PointId{p})), movement(b[c].displacement(PointId{other.point[p]})),
                   z.move);
      for (std::size_t i = 0; i < plan.members.size(); ++i)
        for (const double share : {0.0, 0.43, 1.0}) {
          const Length x = Length::si(share * length(plan.axis(plan.members[i])));
          check_same(a[c][MemberId{i}].at(x), b[c][MemberId{other.member[i]}].at(x), z);
        }
    }
  };
  for_frames(check);
  for_frames(check, rich_plan);
}

TEST_CASE("Whichever members act one way only, every sign is kept, and slack ones are no longer than the way between") {
  // Rigid beams hold all points, so that nothing moves whatever goes slack.
  int slack = 0, acting = 0;
  for_frames([&](Plan plan, unsigned seed) {
    std::mt19937 random(seed);
    // As many links again, so that there is something to choose from.
    for (int n = 0; n < 6; ++n) {
      PlanMember m;
      m.link = true;
      m.through = {random() % plan.points.size(), random() % plan.points.size()};
      if (m.through[0] != m.through[1]) plan.members.push_back(m);
    }
    for (PlanMember& m : plan.members)
      if (m.link) m.acts = random() % 2 ? Acts::tension : Acts::compression;
    const Solution s = solved(plan);
    for (std::size_t c = 0; c < s.size(); ++c) {
      const Sizes z = sizes(s, c);
      CHECK(s[c].balance().error < 1e-9);
      for (std::size_t i = 0; i < plan.members.size(); ++i) {
        if (plan.members[i].acts == Acts::always) continue;
        const double sign = plan.members[i].acts == Acts::tension ? 1 : -1;
        const MemberResult m = s[c][MemberId{i}];
        const Diagram N = m.axial();
        CHECK(std::min(sign * N.max().value.si, sign * N.min().value.si) >= -1e-9 * z.force);
        (m.is_slack() ? slack : acting)++;
        if (!m.is_slack()) continue;
        // Slack: no force but that of the loads along it, which is nothing somewhere.
        CHECK(std::min(sign * N.max().value.si, sign * N.min().value.si) == near(0, z.force));
        const double stretch = m.deflection_x().at(m.length()).si() - m.deflection_x().at(Length()).si();
        const double pull = 210e9 * s.structure().section_of(m.member()).area().si() * stretch / m.length().si();
        // Were it to act, its force would have the wrong sign, up to what loads along it make of theirs.
        const double along = std::abs(N.max().value.si - N.min().value.si);
        CHECK(sign * pull <= 1e-9 * z.force + along);
      }
    }
  });
  CHECK(slack > 100);
  CHECK(acting > 100);
}

TEST_CASE("A point more within a member, or a member cut in two, changes nothing") {
  for_frames([](const Plan& plan, unsigned) {
    const Halved parts = halved(plan);
    const Solution whole = solved(plan), more = solved(with_points_between(plan)), cut = solved(parts.plan);
    for (std::size_t c = 0; c < whole.size(); ++c) {
      const Sizes z = sizes(whole, c);
      for (std::size_t p = 0; p < plan.points.size(); ++p) {
        const Vector d = movement(whole[c].displacement(PointId{p}));
        check_same(movement(more[c].displacement(PointId{p})), d, z.move);
        check_same(movement(cut[c].displacement(PointId{p})), d, z.move);
      }
      for (std::size_t i = 0; i < plan.members.size(); ++i) {
        const MemberResult m = whole[c][MemberId{i}], n = more[c][MemberId{i}];
        CHECK(n.moment_z().max().value.si() == near(m.moment_z().max().value.si(), z.moment));
        CHECK(n.von_mises()->value.si() == near(m.von_mises()->value.si(), z.stress));
        CHECK(n.sag().value.si == near(m.sag().value.si, z.move));
        for (const double share : {0.0, 0.11, 0.29, 0.64, 1.0}) {
          const double x = share * plan.length_of(plan.members[i]);
          const SectionState state = m.at(Length::si(x));
          check_same(n.at(Length::si(x)), state, z);
          const bool second = x > parts.at[i];
          check_same(cut[c][MemberId{second ? parts.second[i] : i}].at(Length::si(second ? x - parts.at[i] : x)), state,
                     z);
        }
      }
    }
  });
}

TEST_CASE("Frequencies and load factors do not change by a point more within a member, wherever axial forces jump") {
  const auto values = [](const Plan& plan) {
    const Structure s = build(plan);
    const Solution solution = solve(s);
    std::vector<double> all;
    if (!solution.ok()) return all;
    const auto m = modes(s, {.vibration = 5, .buckling = {{solution[0].name(), 2}}});
    REQUIRE(m.ok());
    for (const VibrationMode& one : m->vibration) all.push_back(one.frequency.si());
    for (const BucklingMode& one : m->buckling.front().modes) all.push_back(one.factor);
    const auto stressed = modes(s, {.vibration = 2, .under = solution[0].name()});
    if (stressed.ok())
      for (const VibrationMode& one : stressed->vibration) all.push_back(one.frequency.si());
    return all;
  };
  const auto same = [&](const std::vector<double>& a, const std::vector<double>& b) {
    REQUIRE(a.size() == b.size());
    for (std::size_t i = 0; i < a.size(); ++i) CHECK(b[i] == Approx(a[i]).epsilon(1e-9));
  };
  for (Plan (*make)(unsigned, bool) : {random_plan, rich_plan})
    for (const bool plane : {true, false})
      for (unsigned seed = 1; seed <= std::min(frames, test::rows(50U, 12U)); ++seed) {
        INFO((plane ? "plane" : "space") << " frame " << seed << (make == rich_plan ? ", rich" : ""));
        const Plan plan = make(seed, plane);
        const std::vector<double> whole = values(plan);
        same(whole, values(with_points_between(plan)));
        if (make == random_plan) same(whole, values(halved(plan).plan));
      }
}

}  // namespace tests_of_analysis_random_frames
