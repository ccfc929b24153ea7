#include "corvex/envelope.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/figures.hpp"

namespace corvex {
namespace {

// A value must exceed the one before by more than rounding to govern in its place.
constexpr double rounding = 1e-11;

bool exceeds(double value, double before) {
  return value > before + rounding * std::abs(before);
}

class Gathering {
 public:
  explicit Gathering(Range& range) : range_(range) {}

  void offer(const Extreme& max, const Extreme& min, const std::string& load_case) {
    if (!any_ || exceeds(max.value.si, range_.max.value.si)) range_.max = {max.value, max.at, load_case};
    if (!any_ || exceeds(-min.value.si, -range_.min.value.si)) range_.min = {min.value, min.at, load_case};
    any_ = true;
  }
  void offer(const Quantity& value, const std::string& load_case) { offer({value, {}}, {value, {}}, load_case); }

 private:
  Range& range_;
  bool any_ = false;
};

void offer(GoverningStress& worst, const std::optional<StressExtreme>& s, double sign, const std::string& load_case) {
  if (!s || (worst.stress && !exceeds(sign * s->value.si(), sign * worst.stress->value.si()))) return;
  worst = {s, load_case};
}

template <class Six>
std::array<Range, 6> of_points(const Solution& solution, const Six& six) {
  std::array<Range, 6> all;
  std::vector<Gathering> gatherings(all.begin(), all.end());
  for (const std::size_t c : solution.assessed()) {
    const std::array<Quantity, 6> values = six(solution[c]);
    for (std::size_t k = 0; k < 6; ++k) gatherings[k].offer(values[k], solution[c].name());
  }
  return all;
}

}  // namespace

MemberEnvelope envelope(const Solution& solution, const MemberRef& which) {
  const MemberId member = solution.structure().at(which);
  std::vector<const MemberFigure*> figures;
  for (const MemberFigure& f : member_figures())
    if (f.envelope) figures.push_back(&f);
  MemberEnvelope e;
  std::vector<Gathering> ranges;
  for (const MemberFigure* f : figures) ranges.emplace_back(e.*f->envelope);
  bool first = true;
  for (const std::size_t c : solution.assessed()) {
    const MemberResult m = solution[c][member];
    const std::string& name = solution[c].name();
    for (std::size_t i = 0; i < ranges.size(); ++i) {
      const Diagram d = figures[i]->diagram(m);
      ranges[i].offer(d.max(), d.min(), name);
    }
    const Extreme sag = m.sag();
    if (first || exceeds(sag.value.si, e.sag.value.si)) e.sag = {sag.value, sag.at, name};
    first = false;
    offer(e.max_stress, m.max_stress(), 1, name);
    offer(e.min_stress, m.min_stress(), -1, name);
    offer(e.von_mises, m.von_mises(), 1, name);
    if (e.von_mises.stress) e.safety = m.safety_against(e.von_mises.stress->value);
  }
  return e;
}

bool leaves_out_warping(const Solution& solution, const MemberRef& which) {
  const MemberId member = solution.structure().at(which);
  const std::vector<std::size_t> assessed = solution.assessed();
  return std::any_of(assessed.begin(), assessed.end(),
                     [&](std::size_t c) { return solution[c][member].leaves_out_warping(); });
}

SectionEnvelope envelope_at(const Solution& solution, const MemberRef& which, Length place, Side side) {
  const MemberId member = solution.structure().at(which);
  SectionEnvelope e;
  for (const std::size_t c : solution.assessed()) {
    const MemberResult m = solution[c][member];
    const std::string& name = solution[c].name();
    const SectionState s = m.at(place, side);
    const bool first = c == solution.assessed().front();
    for (const MemberFigure& f : member_figures()) {
      if (!f.envelope_at) continue;
      Range& range = e.*f.envelope_at;
      const Quantity value = f.at(s);
      if (first || exceeds(value.si, range.max.value.si)) range.max = {value, place, name};
      if (first || exceeds(-value.si, -range.min.value.si)) range.min = {value, place, name};
    }
    offer(e.max_stress, m.max_stress_at(place, side), 1, name);
    offer(e.min_stress, m.min_stress_at(place, side), -1, name);
    offer(e.von_mises, m.von_mises_at(place, side), 1, name);
  }
  return e;
}

namespace {

std::size_t governing(const Solution& solution, const std::vector<MemberId>& members) {
  const std::vector<std::size_t> assessed = solution.assessed();
  std::size_t first = assessed.front();
  std::array<double, 3> most{-1, -1, -1};  // use, stress, movement
  for (const std::size_t c : assessed) {
    std::array<double, 3> here{};
    for (const MemberId id : members) {
      const MemberResult m = solution[c][id];
      here[2] = std::max(here[2], m.movement().value.si);
      const auto stress = m.von_mises();
      if (!stress) continue;
      here[1] = std::max(here[1], stress->value.si());
      if (const auto safety = m.safety_against(stress->value)) here[0] = std::max(here[0], 1 / *safety);
    }
    for (std::size_t k = 0; k < 3; ++k) {
      if (exceeds(here[k], most[k])) {
        most = here;
        first = c;
        break;
      }
      if (exceeds(most[k], here[k])) break;
    }
  }
  return first;
}

}  // namespace

std::size_t governing_case(const Solution& solution) {
  std::vector<MemberId> all;
  for (std::size_t i = 0; i < solution.structure().members().size(); ++i) all.emplace_back(i);
  return governing(solution, all);
}
std::size_t governing_case(const Solution& solution, const MemberRef& member) {
  return governing(solution, {solution.structure().at(member)});
}

std::array<Range, 6> displacement_envelope(const Solution& solution, PointId point) {
  return of_points(solution, [&](const CaseResult& c) {
    const Displacement d = c.displacement(point);
    return std::array<Quantity, 6>{d.x, d.y, d.z, d.rx, d.ry, d.rz};
  });
}

std::array<Range, 6> reaction_envelope(const Solution& solution, PointId point) {
  return of_points(solution, [&](const CaseResult& c) {
    const Reaction r = c.reaction(point);
    return std::array<Quantity, 6>{r.x, r.y, r.z, r.mx, r.my, r.mz};
  });
}

}  // namespace corvex
