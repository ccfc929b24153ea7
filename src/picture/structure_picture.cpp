#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// How important: supports and joints before points in between.
constexpr int name_of_point = 50, name_of_member = 40;

// Near a point, the name of a member would overlap that of the point: the middle of its longest stretch is free.
std::vector<Spot> places_for_name(const Scene& s, const Member& m) {
  const Structure& structure = s.structure();
  double from = 0, widest = 0, before = 0;
  for (std::size_t k = 1; k < m.through.size(); ++k) {
    const double at = structure.place_of(m, k);
    if (at - before > widest * (1 + 1e-9)) widest = at - before, from = before;
    before = at;
  }
  std::vector<Spot> all;
  for (const double share : {0.5, 0.38, 0.62, 0.28, 0.72}) all.push_back(s.at(s.place(m, from + widest * share)));
  return all;
}

}  // namespace

void add_names(Scene& scene, bool members) {
  const Structure& s = scene.structure();
  // Where figures are shown, names that would take more than an eighth of the page are left to the picture of the
  // structure.
  constexpr double letters_of_a_name = 4 * 1.4, eighth = 0.125;
  const double area = static_cast<double>(s.points().size()) * letters_of_a_name * scene.letter() * scene.letter();
  const bool named = members || area <= eighth * scene.width() * scene.height();
  std::vector<bool> there(s.points().size(), false);
  std::vector<Spot> crowd(s.points().size());
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const Member& m = s.members()[i];
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      const Spot here = scene.at(s[m.through[k]].position);
      there[m.through[k].index] = true;
      for (const std::size_t other : {k == 0 ? k : k - 1, k + 1 < m.through.size() ? k + 1 : k})
        if (other != k)
          crowd[m.through[k].index] = crowd[m.through[k].index] + unit(here - scene.at(s[m.through[other]].position));
    }
  }
  for (std::size_t i = 0; i < s.points().size(); ++i) {
    if (!there[i]) continue;
    const Spot here = scene.at(s.points()[i].position);
    scene.dot(here, 0.2 * scene.letter(), scene.colours().ink, {"point", s.points()[i].name});
    if (!named) continue;
    // Away from the members that meet there, and rather above.
    scene.label(s.points()[i].name, {here, unit(crowd[i]) + Spot{0.1, -0.35}}, scene.colours().ink, name_of_point,
                {"point-name", s.points()[i].name}, {true});
  }
  if (!members) return;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const Member& m = s.members()[i];
    const Spot along = unit(scene.at(s.axis_end(m)) - scene.at(s.axis_start(m)));
    Spot side = left_of(along);
    if (side.y > 0 || (side.y == 0 && side.x < 0)) side = side * -1;
    std::vector<Spot> places = places_for_name(scene, m);
    const Spot middle = places.front();
    places.erase(places.begin());
    scene.label(m.name, {middle, side}, scene.colours().member, name_of_member, {"member-name", m.name},
                {false, 4, std::move(places)});
  }
}

namespace {

// Places along one direction of the page, each once, in metres.
std::vector<double> places_along(const Scene& scene, bool across) {
  const Structure& s = scene.structure();
  std::vector<double> all;
  for (std::size_t i = 0; i < s.members().size(); ++i)
    if (scene.shows(i))
      for (const PointId p : s.members()[i].through) {
        const Spot flat = scene.seen(s[p].position);
        all.push_back(across ? flat.x : flat.y);
      }
  std::sort(all.begin(), all.end());
  const double size = all.back() - all.front();
  all.erase(std::unique(all.begin(), all.end(), [&](double a, double b) { return b - a <= 1e-6 * size; }), all.end());
  return all;
}

// A chain of distances beneath, or to the left of, the structure.
void add_dimensions(Scene& scene, bool across) {
  std::vector<double> places = places_along(scene, across);
  constexpr std::size_t most = 24;
  if (places.size() < 2) return;
  if (places.size() > most) places = {places.front(), places.back()};
  const auto other = places_along(scene, !across);
  const Spot origin = scene.at({0, 0, 0}), zero = scene.seen({0, 0, 0});
  const auto edge_of = [&](double place) {
    const double x = across ? place : other.front(), y = across ? other.back() : place;
    return origin + Spot{x - zero.x, y - zero.y} * scene.scale();
  };
  // Beyond the structure and what acts on it, but on the page.
  const Box drawn = scene.drawn();
  const double usual = 4.6 * scene.letter(), beside = 2.2 * scene.letter(), edge = 5 * scene.letter();
  const Spot first = edge_of(places.front());
  const double line = across ? std::min(std::max(first.y + usual, drawn.bottom + beside), scene.options().height - edge)
                             : std::max(std::min(first.x - usual, drawn.left - beside), edge);
  const auto spot = [&](double place) {
    const Spot here = edge_of(place);
    return across ? Spot{here.x, line} : Spot{line, here.y};
  };
  const Colour& c = scene.colours().quiet;
  const Spot tick = Spot{1, -1} * (0.28 * scene.letter());
  scene.line({spot(places.front()), spot(places.back())}, {c, 1}, {"dimension"});
  scene.keep_clear(spot(places.front()), spot(places.back()));
  for (std::size_t i = 0; i < places.size(); ++i) {
    const Spot here = spot(places[i]);
    scene.line({here - tick, here + tick}, {c, 1.4}, {"dimension"});
    if (i == 0) continue;
    const double distance = places[i] - places[i - 1];
    const std::string words = short_number(distance / scene.units().length.si, std::max(scene.options().digits, 4));
    scene.label(words, {(spot(places[i - 1]) + here) * 0.5, across ? Spot{0, 1} : Spot{-1, 0}}, c, 55,
                {"dimension-value"}, {false, 3});
  }
}

// A small cross where bracing restrains a member, several where it does so along its whole length.
void add_bracing(Scene& scene) {
  const Structure& s = scene.structure();
  const double r = 0.38 * scene.letter();
  bool any = false;
  for (const Bracing& b : s.bracing()) {
    if (!scene.shows(b.member.index)) continue;
    const Member& m = s[b.member];
    const auto cross = [&](const Vector& place) {
      const Spot at = scene.at(place);
      for (const Spot& d : {Spot{r, r}, Spot{r, -r}})
        scene.line({at - d, at + d}, {scene.colours().support, 1.6}, {"bracing", m.name});
    };
    constexpr int along = 7;
    if (b.at.empty())
      for (int i = 0; i < along; ++i) cross(scene.place(m, s.length_of(m) * (i + 0.5) / along));
    for (const PointId p : b.at) cross(s[p].position);
    any = true;
  }
  if (any)
    scene.explain(s.is_plane() ? "Crosses: bracing restrains the member out of the plane"
                               : "Crosses: bracing restrains the member");
}

}  // namespace

void draw_structure(Scene& scene) {
  const Structure& s = scene.structure();
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!scene.shows(i)) continue;
    const Member& m = s.members()[i];
    const Spot a = scene.at(s.axis_start(m)), b = scene.at(s.axis_end(m));
    // Rigid arms from the points to the axis.
    const Spot points[] = {scene.at(s[m.through.front()].position), scene.at(s[m.through.back()].position)};
    if (length(points[0] - a) > 0.5) scene.line({points[0], a}, {scene.colours().quiet, 2.5, {2, 2}}, {"arm", m.name});
    if (length(points[1] - b) > 0.5) scene.line({points[1], b}, {scene.colours().quiet, 2.5, {2, 2}}, {"arm", m.name});
    Stroke stroke{scene.colours().member, m.kind == MemberKind::link ? 1.6 : 3.2};
    if (scene.options().real_width) {
      const AreaProperties& section = s.section_of(m).area_properties();
      const double wide = std::max(section.height.si(), s.is_plane() ? 0 : section.width.si()) * scene.scale();
      scene.line({a, b}, {scene.colours().member.with(0.3), wide}, {"width", m.name});
    }
    if (m.acts != Acts::always) stroke.dash = {9, 4};
    scene.line({a, b}, stroke, {"member", m.name});
    scene.keep_clear(a, b);
    // A hinge is a small ring just inside the end that has it.
    const double r = 0.3 * scene.letter();
    for (const auto& [freed, end, along] : {std::tuple(m.freed_start, a, unit(b - a)), {m.freed_end, b, unit(a - b)}}) {
      const bool turns = freed[4] || freed[5];
      if (!turns || m.kind == MemberKind::link) continue;
      Path ring{.lines = {{}},
                .closed = true,
                .fill = scene.colours().page,
                .stroke = Stroke{scene.colours().member, 1.4},
                .meaning = {"hinge", m.name}};
      for (int k = 0; k < 16; ++k)
        ring.lines[0].push_back(end + along * (2.2 * r) + Spot{std::cos(k * 0.3927) * r, std::sin(k * 0.3927) * r});
      scene.path(std::move(ring));
    }
  }
  add_supports(scene);
  add_bracing(scene);
  if (scene.options().loads) add_loads(scene);
  add_names(scene, true);
  add_marks(scene);
  const bool from_corner = !s.is_plane() && scene.options().view.value_or(View::space) == View::space;
  if (scene.options().dimensions && !from_corner) {
    add_dimensions(scene, true);
    add_dimensions(scene, false);
    scene.explain("Distances in " + scene.units().length.text);
  }
  scene.heading(scene.options().loads ? fmt::format("Structure with the loads of {}", scene.result().name())
                                      : "Structure");
  bool links = false, one_way = false, arms = false;
  for (const Member& m : s.members()) {
    links |= m.kind == MemberKind::link, one_way |= m.acts != Acts::always;
    arms |= !zero(m.arm_start) || !zero(m.arm_end);
  }
  if (links || one_way || arms)
    scene.explain(fmt::format("Thick lines are beams{}{}{}", links ? ", thin ones links" : "",
                              one_way ? ", dashed ones act one way only" : "", arms ? ", dotted ones rigid arms" : ""));
}

}  // namespace corvex::picture
