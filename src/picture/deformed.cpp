#include "picture/deformed.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
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
  const double times = exaggeration(scene);
  scene.members({scene.colours().faint, 1.4, {5, 3}});
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const MemberResult m = c[MemberId{i}];
    const Member& member = s.members()[i];
    auto [spots, rest] = deformed_line(scene, s, m, times);
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
    const std::string where = movement_words(s, scene.units(), m.member(), most.extreme.at.si());
    scene.label(fmt::format("{} {}", figure(move, scene.units().deflection, scene.options().digits), where),
                {here, unit(here - scene.at(from))}, scene.colours().mark, 100, {"most-value", m.member().name},
                {true});
  }
  scene.heading(fmt::format("Deformed shape in {}", c.name()));
  scene.explain(times == 1 ? std::string("Displacements at true scale")
                           : fmt::format("Displacements magnified {} times", short_number(times, 4)));
}

}  // namespace corvex::picture
