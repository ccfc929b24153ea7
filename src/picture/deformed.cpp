#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// 1, 2 or 5 times a power of ten, not above `v`.
double round_below(double v) {
  const double power = std::pow(10, std::floor(std::log10(v)));
  for (const double step : {5.0, 2.0, 1.0})
    if (step * power <= v * (1 + 1e-9)) return step * power;
  return power;
}

// How many straight pieces show a curve of this length smoothly.
int pieces_for(double pixels) {
  return std::clamp(static_cast<int>(pixels / 6), 2, 60);
}

}  // namespace

void draw_deformed(Scene& scene) {
  const Structure& s = scene.structure();
  const CaseResult& c = scene.result();
  struct Most {
    Extreme extreme{};
    std::size_t member = 0;
  } most;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const Extreme e = c[MemberId{i}].movement();
    if (e.value.si > most.extreme.value.si * (1 + 1e-9)) most = {e, i};
  }
  const double move = most.extreme.value.si;
  // The largest movement no wider than seven letters.
  const double fit = move > 0 ? 7 * scene.letter() / (move * scene.scale()) : 1;
  const double times = scene.options().scale.value_or(move > 0 ? round_below(fit) : 1);
  scene.members({scene.colours().faint, 1.4, {5, 3}});
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const MemberResult m = c[MemberId{i}];
    const Member& member = s.members()[i];
    std::vector<Spot> spots, rest;
    double before = 0;
    // Between its points a member bends smoothly; at them it may have a kink (a hinge of others, never of its own).
    for (std::size_t k = 1; k < member.through.size(); ++k) {
      const double to = s.place_of(member, k);
      const int n = pieces_for((to - before) * scene.scale());
      for (int p = k == 1 ? 0 : 1; p <= n; ++p) {
        const double along = before + (to - before) * p / n;
        const SectionState t = m.at(Length::si(along));
        const Vector here = scene.place(member, along);
        rest.push_back(scene.at(here));
        spots.push_back(scene.at(here + Vector{t.x.si(), t.y.si(), t.z.si()} * times));
      }
      before = to;
    }
    for (std::size_t k = 1; k < spots.size(); ++k) scene.keep_clear(spots[k - 1], spots[k]);
    Path path{.lines = {std::move(spots)},
              .stroke = Stroke{scene.colours().deformed, member.kind == MemberKind::link ? 1.6 : 2.6},
              .meaning = {"deformed", member.name}};
    if (scene.options().moving) path.rest = {std::move(rest)};
    scene.path(std::move(path));
  }
  add_supports(scene);
  add_names(scene, false);
  if (move > 0) {
    const MemberResult m = c[MemberId{most.member}];
    const SectionState t = m.at(most.extreme.at);
    const Vector by = Vector{t.x.si(), t.y.si(), t.z.si()} * times;
    const Vector from = scene.place(m.member(), most.extreme.at.si());
    const Spot here = scene.at(from + by);
    scene.line({scene.at(from), here}, {scene.colours().mark, 1.2, {2, 2}}, {"movement"});
    scene.dot(here, 0.32 * scene.letter(), scene.colours().mark, {"most", m.member().name});
    const std::string where = place_words(scene.structure(), scene.units(), m.member(), most.extreme.at.si());
    // A place that no point marks is told with its member.
    const auto& through = m.member().through;
    const bool at_point =
        std::any_of(through.begin(), through.end(), [&](PointId p) { return scene.structure()[p].name == where; });
    const std::string of = at_point ? "" : "in " + m.member().name + " ";
    scene.label(fmt::format("{} {}at {}", figure(move, scene.units().deflection, scene.options().digits), of, where),
                here, unit(here - scene.at(from)), scene.colours().mark, 100, {"most-value", m.member().name}, true);
  }
  scene.heading(fmt::format("Deformed shape in {}", c.name()));
  scene.explain(times == 1 ? std::string("Displacements in true scale")
                           : fmt::format("Displacements drawn {} times as large", short_number(times, 4)));
}

}  // namespace corvex::picture
