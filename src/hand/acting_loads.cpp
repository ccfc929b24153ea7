// The loads of a case as they act on joints and members, each with a name.
#include <fmt/format.h>

#include <algorithm>

#include "hand/skeleton.hpp"
#include "structure/acting_load.hpp"

namespace corvex::hand {
namespace {

class Gathering {
 public:
  Gathering(const Skeleton& k, Acting& acting) : k_(k), s_(*k.structure), a_(acting) {}

  void operator()(const PointLoad& l) {
    const bool only_moment = zero(l.force);
    a_.joints.push_back({l.at.index, l.force, acting(s_, l).moment, only_moment ? next('M') : next('P')});
  }
  void operator()(const MemberLoad& given) {
    const MemberLoad l = acting(s_, given);
    const std::size_t begin = k_.first[l.on.index], end = k_.first[l.on.index + 1];
    // At a point in between the load belongs to the piece behind it.
    const double snap = 1e-9 * s_.length_of(s_[l.on]);
    std::size_t i = begin;
    while (i + 1 < end && l.at >= k_.pieces[i + 1].start - snap) ++i;
    const Piece& p = k_.pieces[i];
    double at = std::clamp(l.at - p.start, 0.0, p.length);
    if (at < snap) at = 0;
    if (at > p.length - snap) at = p.length;
    a_.places.push_back({i, at, l.force, l.moment, zero(l.force) ? next('M') : next('P')});
  }
  void operator()(const LineLoad& l) { line(acting(s_, l), next('q')); }
  void operator()(const SpreadLoad& l) {
    const std::string name = next('q');
    for (const ActingLine& one : acting(s_, l)) line(one, name);
  }
  void operator()(const GravityLoad& l) {
    const std::string name = next('g');
    for (const ActingLine& one : acting(s_, l)) line(one, name);
    for (const PointMass& m : s_.point_masses())
      a_.joints.push_back({m.at.index, l.acceleration * m.mass, cross(m.arm, l.acceleration * m.mass), next('W')});
  }
  void operator()(const HeatLoad& l) { strain(l.on, free_strain(s_, l)); }
  void operator()(const ShortenLoad& l) { strain(l.on, free_strain(s_, l)); }
  void operator()(const SettleLoad& l) {
    a_.ground.resize(k_.holds.size(), 0);
    for (std::size_t i = 0; i < k_.holds.size(); ++i)
      if (const Hold& h = k_.holds[i]; h.point == l.at.index)
        a_.ground[i] += dot(h.direction, h.turning ? l.turn : l.move);
  }

 private:
  std::string next(char letter) { return fmt::format("{}{}", letter, ++count_[letter - 'A']); }

  void line(const ActingLine& l, const std::string& name) {
    a_.lines.push_back({l.on.index, l.from, l.to, l.first, l.last, l.first_moment, l.last_moment, name});
  }
  void strain(MemberId on, const FreeStrain& free) {
    a_.strains.resize(s_.members().size());
    Strain& sum = a_.strains[on.index];
    // Curvatures turn with the axes as forces across do.
    const Axes& axes = k_.pieces[k_.first[on.index]].axes;
    const Vector curve = axes.local(local_axes(s_, s_[on]).global({0, free.curve_y, free.curve_z}));
    sum.along += free.along, sum.curve_y += curve.y, sum.curve_z += curve.z;
  }

  const Skeleton& k_;
  const Structure& s_;
  Acting& a_;
  std::array<int, 64> count_{};
};

}  // namespace

Acting acting_on(const Skeleton& skeleton, const LoadCase& loads) {
  Acting all;
  Gathering gather(skeleton, all);
  for (const Load& l : loads.loads()) std::visit(gather, l);
  all.index(skeleton);
  return all;
}

}  // namespace corvex::hand
