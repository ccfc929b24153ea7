// The loads of a case as they act on joints and members, each with a name.
#include "structure/acting_loads.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "hand/skeleton.hpp"

namespace corvex::hand {
namespace {

class Gathering {
 public:
  Gathering(const Skeleton& k, Acting& acting) : k_(k), s_(*k.structure), a_(acting) {}

  // Names count the loads of a kind as the file has them.
  void take(const ActingLoads& loads, const LoadCase& given) {
    const Vector up = s_.up_direction();
    for (const Load& load : given.loads()) kinds_.push_back(kind_of(load, up));
    auto mass = loads.masses.begin();
    for (const ActingForce& f : loads.forces) {
      for (; mass != loads.masses.end() && mass->load < f.load; ++mass) add(*mass);
      add(f);
    }
    for (; mass != loads.masses.end(); ++mass) add(*mass);
    std::string name;
    for (std::size_t i = 0; i < loads.lines.size(); ++i) {
      const ActingLine& l = loads.lines[i];
      const LoadKind kind = kinds_[l.load];
      const bool gravity = kind == LoadKind::self_weight || kind == LoadKind::acceleration;
      if (i == 0 || l.load != loads.lines[i - 1].load) name = next(gravity ? 'g' : 'q');
      a_.lines.push_back({l.on.index, l.from, l.to, l.first, l.last, l.first_moment, l.last_moment, name, kind});
    }
    for (const ActingStrain& free : loads.strains) add(free);
    for (const ActingMovement& l : loads.movements) add(l);
    for (const Load& load : given.loads()) {
      if (const auto* l = std::get_if<TemperatureLoad>(&load))
        a_.changes.push_back({LoadKind::temperature_change, l->on.index, l->plus,
                              l->across == TemperatureLoad::Across::nothing ? l->plus : l->minus, 0});
      if (const auto* l = std::get_if<LackOfFitLoad>(&load))
        a_.changes.push_back({LoadKind::lack_of_fit, l->on.index, 0, 0, l->by});
    }
  }

 private:
  std::string next(char letter) { return fmt::format("{}{}", letter, ++count_[letter - 'A']); }

  void add(const ActingForce& l) {
    std::string name = zero(l.force) ? next('M') : next('P');
    if (l.point) {
      a_.joints.push_back({l.point->index, l.force, l.whole_moment(), std::move(name), kinds_[l.load]});
      return;
    }
    const std::size_t begin = k_.first[l.on.index], end = k_.first[l.on.index + 1];
    // At a point in between the load belongs to the piece behind it.
    const double snap = 1e-9 * s_.length_of(s_[l.on]);
    std::size_t i = begin;
    while (i + 1 < end && l.at >= k_.pieces[i + 1].start - snap) ++i;
    const Piece& p = k_.pieces[i];
    double at = std::clamp(l.at - p.start, 0.0, p.length);
    if (at < snap) at = 0;
    if (at > p.length - snap) at = p.length;
    a_.places.push_back({i, at, l.force, l.whole_moment(), std::move(name), kinds_[l.load]});
  }
  void add(const ActingMass& m) {
    a_.joints.push_back({m.at.index, m.force, cross(m.arm, m.force), next('W'), kinds_[m.load]});
  }
  void add(const ActingMovement& l) {
    a_.ground.resize(k_.holds.size(), 0);
    for (std::size_t i = 0; i < k_.holds.size(); ++i)
      if (const Hold& h = k_.holds[i]; h.point == l.at.index)
        a_.ground[i] += dot(h.direction, h.turning ? l.turn : l.move);
  }
  void add(const ActingStrain& free) {
    a_.strains.resize(s_.members().size());
    Strain& sum = a_.strains[free.on.index];
    // Curvatures turn with the axes as forces across do.
    const Axes& axes = k_.pieces[k_.first[free.on.index]].axes;
    const Vector curve = axes.local(local_axes(s_, s_[free.on]).global({0, free.curve_y, free.curve_z}));
    sum.along += free.along, sum.curve_y += curve.y, sum.curve_z += curve.z;
  }

  const Skeleton& k_;
  const Structure& s_;
  Acting& a_;
  std::vector<LoadKind> kinds_;  // of each load of the case
  std::array<int, 64> count_{};
};

}  // namespace

Acting acting_on(const Skeleton& skeleton, const LoadCase& loads) {
  Acting all;
  Gathering(skeleton, all).take(acting_loads(*skeleton.structure, loads), loads);
  all.index(skeleton);
  return all;
}

}  // namespace corvex::hand
