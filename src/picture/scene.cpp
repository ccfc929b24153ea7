#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// Room for the title and the legend.
struct Margins {
  double side, top, bottom;
};
Margins margins(double letter, const PictureOptions& o) {
  return {(o.explained ? 10 : 7) * letter,
          (o.titled      ? 9
           : o.explained ? 6
                         : 4.5) *
              letter,
          (o.explained ? 9 : 4.5) * letter};
}

}  // namespace

Sight sight(const Structure& s, std::optional<View> view) {
  const Vector up = s.up_direction();
  if (s.is_plane()) return {{1, 0, 0}, {0, 1, 0}};
  // Right, and away from the eye, on level ground.
  const Vector x{1, 0, 0}, away = cross(up, x);
  switch (view.value_or(View::space)) {
    case View::front: return {x, up};
    case View::side: return {away, up};
    case View::top: return {x, away};
    case View::space: break;
  }
  // From the right, in front and above: angles at which the edges of a cube do not fall together.
  constexpr double turned = 32 * std::numbers::pi / 180, tilted = 24 * std::numbers::pi / 180;
  const Vector right = x * std::cos(turned) + away * std::sin(turned);
  const Vector back = away * std::cos(turned) - x * std::sin(turned);
  return {right, up * std::cos(tilted) + back * std::sin(tilted)};
}

Scene::Scene(const Solution& solution, const PictureOptions& options, const Lettering& lettering,
             const std::vector<PictureSide>& beside)
    : Canvas(solution.structure().title(), options, lettering, 0.62 * margins(1, options).top),
      solution_(solution),
      envelope_(picture::is_envelope(solution, options)),
      s_(solution.structure()),
      case_index_(case_of(solution, options)),
      case_(solution[case_index_]),
      sight_(sight(s_, options.view)),
      shown_(s_.members().size(), options.only.empty()) {
  for (const MemberRef& m : options.only) shown_[s_.at(m).index] = true;
  for (const PictureSide& side : beside) {
    const Structure& s = side.solution.structure();
    std::vector<bool> shown(s.members().size(), options.only.empty());
    for (const MemberRef& m : options.only)
      if (const auto same = s.find_member(s_[s_.at(m)].name)) shown[same->index] = true;
    beside_.push_back({&side.name, &side.solution, side.solution[case_.name()], std::move(shown)});
  }
  fit();
}

// The members that are shown fill the page, to scale.
void Scene::fit() {
  Box b{1e300, 1e300, -1e300, -1e300};
  const auto take = [&](const Vector& v) {
    const Spot p = sight_.flat(v);
    b = {std::min(b.left, p.x), std::min(b.top, p.y), std::max(b.right, p.x), std::max(b.bottom, p.y)};
  };
  const auto take_members = [&](const Structure& s, const std::vector<bool>& shown) {
    for (std::size_t i = 0; i < shown.size(); ++i) {
      if (!shown[i]) continue;
      for (const PointId p : s.members()[i].through) take(s[p].position);
      take(s.axis_start(s.members()[i]));
      take(s.axis_end(s.members()[i]));
    }
  };
  take_members(s_, shown_);
  for (const Beside& other : beside_) take_members(other.solution->structure(), other.shown);
  // A shape in true scale that has moved far, as large displacements do.
  if (options().of == PictureOf::deformed && s_.analysis().order == Order::large)
    for (std::size_t i = 0; i < shown_.size(); ++i) {
      if (!shown_[i]) continue;
      const MemberResult m = case_[MemberId{i}];
      constexpr int places = 16;
      for (int k = 0; k <= places; ++k) {
        const SectionState t = m.at(m.length() * (static_cast<double>(k) / places));
        take(place(s_.members()[i], m.length().si() * k / places) +
             Vector{t.x.si(), t.y.si(), t.z.si()} * options().scale.value_or(1));
      }
    }
  const Margins m = margins(letter(), options());
  const double w = width() - 2 * m.side, h = height() - m.top - m.bottom;
  const double wide = b.right - b.left, tall = b.bottom - b.top;
  // Slender structures leave as much space as diagrams need.
  scale_ = std::min(wide > 0 ? w / wide : 1e300, tall > 0 ? h / tall : 1e300);
  if (scale_ > 1e200) scale_ = w;
  centre_ = {(b.left + b.right) / 2, (b.top + b.bottom) / 2};
  middle_ = {width() / 2, m.top + h / 2};
}

Vector Scene::place(const Structure& s, const Member& m, double along) {
  const Vector from = s.axis_start(m), to = s.axis_end(m);
  return from + (to - from) * (along / s.length_of(m));
}

void Scene::members(const Stroke& stroke) {
  for (std::size_t i = 0; i < s_.members().size(); ++i) {
    if (!shown_[i]) continue;
    const Member& m = s_.members()[i];
    const Spot a = at(s_.axis_start(m)), b = at(s_.axis_end(m));
    line({a, b}, stroke, {"member", m.name});
    keep_clear(a, b);
  }
}

Drawing Scene::finished() {
  if (!s_.is_plane()) axes();
  return Canvas::finished();
}

void Scene::axes() {
  const double reach = 2.6 * letter();
  const Spot origin{width() - 5.5 * letter(), height() - 5.5 * letter()};
  const std::pair<const char*, Vector> all[] = {{"x", {1, 0, 0}}, {"y", {0, 1, 0}}, {"z", {0, 0, 1}}};
  for (const auto& [name, v] : all) {
    const Spot seen = sight_.flat(v);
    // A line along the viewing direction is a dot.
    if (length(seen) < 0.05) continue;
    arrow(origin, origin + seen * reach, colours().quiet, {"global-axis", name}, 1.2);
    words(name, origin + seen * reach + unit(seen) * (0.7 * letter()), colours().quiet, {"global-axis-name", name},
          {.size = 0.92, .anchor = Anchor::middle});
  }
  keep_clear(Box{origin.x - reach, origin.y - reach, origin.x + reach, origin.y + reach}.grown(letter()));
}

std::string place_words(const Structure& s, const ModelUnits& units, const Member& m, double along) {
  for (std::size_t k = 0; k < m.through.size(); ++k)
    if (std::abs(s.place_of(m, k) - along) < 1e-9 * s.length_of(m)) return s[m.through[k]].name;
  return short_number(along / units.length.si, 4) + " " + units.length.text;
}

}  // namespace corvex::picture
