// The shape of a mode over the structure at rest.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

void draw_shape(Scene& scene, const ModeShape& shape, const std::string& what) {
  const Structure& s = scene.structure();
  scene.members({scene.colours().faint, 1.4, {5, 3}});
  // The largest movement is seven letters wide.
  const double times = scene.options().scale.value_or(7 * scene.letter() / scene.scale());
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const Member& member = s.members()[i];
    std::vector<Spot> spots, rest;
    for (const ModeShape::Place& p : shape.members[i]) {
      const Vector here = Scene::place(s, member, p.at);
      rest.push_back(scene.at(here));
      spots.push_back(scene.at(here + p.by * times));
    }
    for (std::size_t k = 1; k < spots.size(); ++k) scene.keep_clear(spots[k - 1], spots[k]);
    Path path{.lines = {std::move(spots)},
              .stroke = Stroke{scene.colours().deformed, member.kind == MemberKind::link ? 1.6 : 2.6},
              .meaning = {what, member.name}};
    if (scene.options().moving) path.rest = {std::move(rest)};
    scene.path(std::move(path));
  }
  add_supports(scene);
  add_names(scene, false);
}

}  // namespace

void draw_vibration(Scene& scene, const VibrationMode& mode, std::size_t number) {
  draw_shape(scene, mode.shape, "vibration");
  scene.heading(mode.is_free ? fmt::format("Mode {} of vibration: rigid-body motion", number)
                             : fmt::format("Mode {} of vibration: {} Hz", number,
                                           figure(mode.frequency.si(), {"", 1}, scene.options().digits)));
  scene.explain("The amplitude of the shape is arbitrary");
}

void draw_buckling(Scene& scene, const BucklingMode& mode, std::size_t number) {
  draw_shape(scene, mode.shape, "buckling");
  scene.heading(fmt::format("Buckling in {}, mode {}: load factor {}", scene.result().name(), number,
                            figure(mode.factor, {"", 1}, scene.options().digits)));
  scene.explain("The amplitude of the shape is arbitrary");
}

}  // namespace corvex::picture
