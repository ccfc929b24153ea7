#include "analysis/equilibrium.hpp"

#include <algorithm>
#include <tuple>

#include "beam/element.hpp"
#include "structure/acting_loads.hpp"

namespace corvex::solver {
namespace {

bool at_rest(const Movement& m) {
  return m.value == Six{} && m.rest == Six{};
}

void take(JointForces& need, std::size_t point, const Vector& force, const Vector& moment) {
  const double six[] = {force.x, force.y, force.z, moment.x, moment.y, moment.z};
  for (std::size_t k = 0; k < 6; ++k) {
    need.at[point][k] -= six[k];
    need.largest = std::max(need.largest, std::abs(six[k]));
  }
}

}  // namespace

JointForces loads_on_points(const Structure& structure, const Acting& acting) {
  JointForces need;
  need.at.assign(structure.points().size(), Six{});
  for (const ActingForce& f : acting.on_points) take(need, f.point->index, f.force, f.whole_moment());
  for (const ActingMass& m : acting.masses) take(need, m.at.index, m.force, cross(m.arm, m.force));
  return need;
}

void add_spring_forces(JointForces& need, const Dofs& f, const Acting& acting, const std::vector<Movement>& movement) {
  for (const PointSpring& s : f.springs) {
    const Six force = spring_force(acting, movement, s);
    for (std::size_t k = 0; k < 6; ++k) {
      need.at[s.point][k] -= force[k];
      need.largest = std::max(need.largest, std::abs(force[k]));
    }
  }
}

void add_span_forces(JointForces& need, const Span& s, const Axes& axes, const Vector12& local) {
  need.largest = std::max(need.largest, local.cwiseAbs().maxCoeff());
  Six &a = need.at[s.a], &b = need.at[s.b];
  for (int i = 0; i < 2; ++i) {
    const Vector at_a = axes.global({local(3 * i), local(3 * i + 1), local(3 * i + 2)});
    const Vector at_b = axes.global({local(6 + 3 * i), local(7 + 3 * i), local(8 + 3 * i)});
    const std::size_t k = 3 * static_cast<std::size_t>(i);
    a[k] += at_a.x, a[k + 1] += at_a.y, a[k + 2] += at_a.z;
    b[k] += at_b.x, b[k + 1] += at_b.y, b[k + 2] += at_b.z;
    if (i > 0 || !s.armed) continue;
    for (const auto& [six, force, arm] : {std::tuple(&a, at_a, s.arm_a), {&b, at_b, s.arm_b}}) {
      const Vector moment = cross(arm, force);
      (*six)[3] += moment.x, (*six)[4] += moment.y, (*six)[5] += moment.z;
    }
  }
}

namespace {

std::vector<JointForces> point_loads(const Block& block) {
  std::vector<JointForces> all;
  for (const LoadedCase& c : block.cases) all.push_back(loads_on_points(block.structure, *c.acting));
  return all;
}

}  // namespace

Six spring_force(const Acting& acting, const std::vector<Movement>& movement, const PointSpring& s) {
  const Movement& m = movement[s.point];
  Six force{};
  for (std::size_t k = 0; k < 6; ++k) {
    if (s.stiffness[k] == 0) continue;
    const double ground = acting.ground.empty() ? 0 : acting.ground[s.support][k];
    force[k] = s.stiffness[k] * ((ground - m.value[k]) - m.rest[k]);
  }
  return force;
}

// Case after case, so that loads, movements and needs are met in the order in which they lie.
std::vector<JointForces> joint_forces_at_rest(const Block& block) {
  const Spans& spans = block.system.spans;
  std::vector<JointForces> all = point_loads(block);
  const Ends rest{Vector12::Zero(), Vector12::Zero()};
  for (std::size_t n = 0; n < all.size(); ++n)
    for (std::size_t i = 0; i < spans.all.size(); ++i)
      if (const auto loads = block.cases[n].acting->loads.on(i); !loads.empty()) {
        const Element& e = block.elements[i];
        add_span_forces(all[n], spans.all[i], spans.axes[spans.all[i].member],
                        e.end_forces(e.own_ends(rest, loads), loads));
      }
  return all;
}

void add_elastic(const Block& block, std::vector<JointForces>& all) {
  const Spans& spans = block.system.spans;
  for (std::size_t n = 0; n < all.size(); ++n) {
    const std::vector<Movement>& movement = block.movement[n];
    for (std::size_t i = 0; i < spans.all.size(); ++i) {
      const Span& s = spans.all[i];
      const Axes& axes = spans.axes[s.member];
      const Ends moved = ends<double>(axes, s, movement[s.a], movement[s.b]);
      add_span_forces(all[n], s, axes, block.elements[i].elastic_forces(moved.bent));
    }
    add_spring_forces(all[n], block.system.dofs, *block.cases[n].acting, block.movement[n]);
  }
}

std::vector<Six> gross_forces(const Block& block, const std::vector<Six>& movement) {
  const Spans& spans = block.system.spans;
  std::vector<Six> gross(movement.size(), Six{});
  const auto meet = [](Six& at, std::size_t k, const Vector& v) {
    at[k] += std::abs(v.x), at[k + 1] += std::abs(v.y), at[k + 2] += std::abs(v.z);
  };
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& s = spans.all[i];
    const Axes& axes = spans.axes[s.member];
    const Vector12 local =
        block.elements[i].elastic_forces(ends<double>(axes, s, {movement[s.a], {}}, {movement[s.b], {}}).bent);
    for (const int k : {0, 3}) {
      meet(gross[s.a], static_cast<std::size_t>(k), axes.global({local(k), local(k + 1), local(k + 2)}));
      meet(gross[s.b], static_cast<std::size_t>(k), axes.global({local(k + 6), local(k + 7), local(k + 8)}));
    }
  }
  for (const PointSpring& s : block.system.dofs.springs)
    for (std::size_t k = 0; k < 6; ++k) gross[s.point][k] += std::abs(s.stiffness[k] * movement[s.point][k]);
  return gross;
}

std::vector<JointForces> joint_forces(const Block& block) {
  const Spans& spans = block.system.spans;
  std::vector<JointForces> all = point_loads(block);
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& s = spans.all[i];
    const Axes& axes = spans.axes[s.member];
    for (std::size_t n = 0; n < all.size(); ++n) {
      const Movement &at_a = block.movement[n][s.a], &at_b = block.movement[n][s.b];
      const auto loads = block.cases[n].acting->loads.on(i);
      if (loads.empty() && at_rest(at_a) && at_rest(at_b)) continue;
      const Element& e = block.elements[i];
      const Ends own = e.own_ends(ends<long double>(axes, s, at_a, at_b), loads);
      add_span_forces(all[n], s, axes, e.end_forces(own, loads));
    }
  }
  for (std::size_t n = 0; n < all.size(); ++n)
    add_spring_forces(all[n], block.system.dofs, *block.cases[n].acting, block.movement[n]);
  return all;
}

}  // namespace corvex::solver
