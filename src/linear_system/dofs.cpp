#include "linear_system/dofs.hpp"

#include <algorithm>
#include <cmath>

#include "structure/held.hpp"

namespace corvex::solver {

int Dofs::free_count(std::size_t point) const {
  int n = 0;
  for (const Status s : status[point]) n += s == Status::free;
  return n;
}

Six Dofs::in_frame(std::size_t point, const Six& g) const {
  const Axes* f = frame(point);
  if (!f) return g;
  const Vector v = f->local({g[0], g[1], g[2]});
  return {v.x, v.y, v.z, g[3], g[4], g[5]};
}

Six Dofs::in_global(std::size_t point, const Six& own) const {
  const Axes* f = frame(point);
  if (!f) return own;
  const Vector v = f->global({own[0], own[1], own[2]});
  return {v.x, v.y, v.z, own[3], own[4], own[5]};
}

Six Dofs::of_point(std::size_t point, const double* equations_vector) const {
  Six own{};
  for (std::size_t k = 0; k < 6; ++k)
    if (const int e = equation[point][k]; e >= 0) own[k] = equations_vector[e];
  return in_global(point, own);
}

namespace {

// How the end of a span turns with its point.
enum class Hold { none, partly, wholly };

Hold hold(const Structure& structure, const Span& s, bool at_a) {
  if (s.armed && !zero(at_a ? s.arm_a : s.arm_b)) return Hold::wholly;
  if (!s.beam) return Hold::none;
  const std::array<bool, 6>& freed = at_a ? s.freed_a : s.freed_b;
  if (structure.is_plane()) {
    // Only the moment about the plane's normal counts; a hinge frees both.
    const bool about_z = bending_axes(structure, structure.members()[s.member]).z;
    return freed[about_z ? 5 : 4] ? Hold::none : Hold::wholly;
  }
  const int n = freed[3] + freed[4] + freed[5];
  return n == 0 ? Hold::wholly : n == 3 ? Hold::none : Hold::partly;
}

void apply(const Structure& structure, const PointSupport& support, Dofs& f) {
  const std::size_t p = support.at.index;
  auto& s = f.status[p];
  const bool plane = structure.is_plane();
  const auto exists = [&](std::size_t k) { return !plane || k == 0 || k == 1 || k == 5; };
  for (std::size_t k = 0; k < 6; ++k)
    if (support.spring[k] != 0 && exists(k)) s[k] = Status::free;
  const HeldAxes own = held_axes(structure, support);
  if (!support.along.empty() && own.skew) {
    f.frame_index.resize(f.status.size(), -1);
    f.frame_index[p] = static_cast<int>(f.frames.size());
    f.frames.push_back(own.axes);
    for (int k = 0; k < own.count; ++k) s[k] = Status::held;
  } else {
    for (std::size_t k = 0; k < 3; ++k) {
      const auto along_global = [&](const Vector& v) {
        const double parts[] = {v.x, v.y, v.z};
        return parts[k] != 0;
      };
      const bool named = std::any_of(support.along.begin(), support.along.end(), along_global);
      if ((support.held[k] || named) && exists(k)) s[k] = Status::held;
    }
  }
  for (std::size_t k = 3; k < 6; ++k)
    if (support.held[k] && exists(k)) s[k] = Status::held;
}

}  // namespace

Dofs dofs(const Structure& structure, const Spans& spans) {
  const std::size_t n = structure.points().size();
  Dofs f;
  f.used.assign(n, false);
  f.rigid.assign(n, false);
  std::vector<bool> partly(n, false);
  for (const Span& s : spans.all) {
    f.used[s.a] = f.used[s.b] = true;
    for (const bool at_a : {true, false}) {
      const Hold h = hold(structure, s, at_a);
      if (h != Hold::none) (h == Hold::wholly ? f.rigid : partly)[at_a ? s.a : s.b] = true;
    }
  }
  f.status.assign(n, {});
  const bool plane = structure.is_plane();
  for (std::size_t i = 0; i < n; ++i) {
    if (!f.used[i]) continue;
    auto& s = f.status[i];
    s[0] = s[1] = Status::free;
    if (!plane) s[2] = Status::free;
    if (f.rigid[i]) s[5] = Status::free;
    if (!plane && (f.rigid[i] || partly[i])) s[3] = s[4] = s[5] = Status::free;
  }
  for (std::size_t i = 0; i < structure.supports().size(); ++i) {
    const PointSupport& support = structure.supports()[i];
    if (!f.used[support.at.index]) continue;
    apply(structure, support, f);
    if (std::any_of(support.spring.begin(), support.spring.end(), [](double k) { return k != 0; }))
      f.springs.push_back({support.at.index, i, support.spring});
  }
  return f;
}

void number(Dofs& f, const std::vector<std::size_t>& order) {
  f.equation.assign(f.status.size(), {-1, -1, -1, -1, -1, -1});
  f.equations = 0;
  f.first_equation.clear();
  for (const std::size_t p : order) {
    f.first_equation.push_back(f.equations);
    for (std::size_t k = 0; k < 6; ++k)
      if (f.status[p][k] == Status::free) f.equation[p][k] = f.equations++;
  }
  f.first_equation.push_back(f.equations);
}

}  // namespace corvex::solver
