#include <algorithm>
#include <cmath>

#include "picture/deformed.hpp"

namespace corvex::picture {
namespace {

// 1, 2 or 5 times a power of ten, not above `v`.
double round_below(double v) {
  const double power = std::pow(10, std::floor(std::log10(v)));
  for (const double step : {5.0, 2.0, 1.0})
    if (step * power <= v * (1 + 1e-9)) return step * power;
  return power;
}

double largest_movement(const CaseResult& result, const std::vector<bool>& shown) {
  double most = 0;
  for (std::size_t i = 0; i < shown.size(); ++i)
    if (shown[i]) most = std::max(most, result[MemberId{i}].movement().value.si);
  return most;
}

// How many straight pieces show a curve of this length smoothly.
int pieces_for(double pixels) {
  return std::clamp(static_cast<int>(pixels / 6), 2, 60);
}

}  // namespace

double exaggeration(const Scene& scene) {
  double move = largest_movement(scene.result(), scene.shown());
  for (const Beside& other : scene.beside()) move = std::max(move, largest_movement(other.result, other.shown));
  // Large rotations keep their shape at true scale only.
  if (scene.structure().analysis().order == Order::large) return scene.options().scale.value_or(1);
  return scene.options().scale.value_or(move > 0 ? round_below(7 * scene.letter() / (move * scene.scale())) : 1);
}

DeformedLine deformed_line(const Scene& scene, const Structure& s, const MemberResult& m, double times) {
  DeformedLine line;
  const Member& member = m.member();
  double before = 0;
  // Between its points a member bends smoothly; at them it may have a kink (a hinge of others, never of its own).
  for (std::size_t k = 1; k < member.through.size(); ++k) {
    const double to = s.place_of(member, k);
    const int n = pieces_for((to - before) * scene.scale());
    for (int p = k == 1 ? 0 : 1; p <= n; ++p) {
      const double along = before + (to - before) * p / n;
      const SectionState t = m.at(Length::si(along));
      const Vector here = Scene::place(s, member, along);
      line.rest.push_back(scene.at(here));
      line.moved.push_back(scene.at(here + Vector{t.x.si(), t.y.si(), t.z.si()} * times));
    }
    before = to;
  }
  return line;
}

std::string movement_words(const Structure& s, const ModelUnits& units, const Member& m, double along) {
  const std::string where = place_words(s, units, m, along);
  // A place without a point is described with its member.
  const bool at_point = std::any_of(m.through.begin(), m.through.end(), [&](PointId p) { return s[p].name == where; });
  return (at_point ? "" : "in " + m.name + " ") + "at " + where;
}

}  // namespace corvex::picture
