#include "models.hpp"

#include <fmt/format.h>

#include <iterator>

namespace bench {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

SectionId tube(Structure& s) {
  return s.section("tube", RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm});
}

void load(Structure& s, int cases, Weight weight) {
  for (int c = 0; c < cases; ++c) {
    LoadsOf loads = s.load_case(fmt::format("case {}", c + 1));
    if (c == 0 || weight == Weight::every_case) loads.gravity();
    for (std::size_t p = static_cast<std::size_t>(c) % 7; p < s.points().size(); p += 7)
      loads.at(PointId{p}, Force{.x = 100_N * (c + 1), .y = -1_kN});
  }
}

}  // namespace

Structure lattice(int n, int cases, Weight weight) {
  Structure s = Structure::space("lattice");
  const SectionId section = tube(s);
  const MemberOptions options{.section = section, .material = material("S235")};
  const auto index = [n](int x, int y, int z) { return PointId{static_cast<std::size_t>((z * n + y) * n + x)}; };
  for (int z = 0; z < n; ++z)
    for (int y = 0; y < n; ++y)
      for (int x = 0; x < n; ++x) s.point(fmt::format("P{}.{}.{}", x, y, z), 1_m * x, 1_m * y, 1_m * z);
  int count = 0;
  const auto beam = [&](PointId a, PointId b) { s.member(fmt::format("M{}", ++count), {a, b}, options); };
  for (int z = 0; z < n; ++z)
    for (int y = 0; y < n; ++y)
      for (int x = 0; x < n; ++x) {
        if (x + 1 < n) beam(index(x, y, z), index(x + 1, y, z));
        if (y + 1 < n) beam(index(x, y, z), index(x, y + 1, z));
        if (z + 1 < n) beam(index(x, y, z), index(x, y, z + 1));
      }
  for (int y = 0; y < n; ++y)
    for (int x = 0; x < n; ++x) s.support(index(x, y, 0), Support::fixed());
  load(s, cases, weight);
  return s;
}

Structure chain(int points, int cases, Weight weight) {
  Structure s = Structure::space("chain");
  const SectionId section = tube(s);
  for (int i = 0; i < points; ++i) s.point(fmt::format("P{}", i), 0.5_m * i, 0_m, 0_m);
  for (int i = 0; i + 1 < points; ++i)
    s.member(fmt::format("M{}", i + 1),
             {PointId{static_cast<std::size_t>(i)}, PointId{static_cast<std::size_t>(i) + 1}},
             {.section = section, .material = material("S235")});
  for (int i = 0; i < points; i += 10) s.support(PointId{static_cast<std::size_t>(i)}, Support::fixed());
  load(s, cases, weight);
  return s;
}

Structure flat_frame(int bays, int storeys, int cases, Weight weight) {
  Structure s = Structure::plane("flat frame");
  const SectionId section = tube(s);
  const MemberOptions options{.section = section, .material = material("S235")};
  const auto index = [bays](int x, int y) { return PointId{static_cast<std::size_t>(y * (bays + 1) + x)}; };
  for (int y = 0; y <= storeys; ++y)
    for (int x = 0; x <= bays; ++x) s.point(fmt::format("P{}.{}", x, y), 1_m * x, 1_m * y);
  int count = 0;
  for (int y = 0; y <= storeys; ++y)
    for (int x = 0; x <= bays; ++x) {
      if (y > 0 && x < bays) s.member(fmt::format("M{}", ++count), {index(x, y), index(x + 1, y)}, options);
      if (y < storeys) s.member(fmt::format("M{}", ++count), {index(x, y), index(x, y + 1)}, options);
    }
  for (int x = 0; x <= bays; ++x) s.support(index(x, 0), Support::fixed());
  load(s, cases, weight);
  return s;
}

std::string as_model_file(const Structure& s) {
  std::string text = "corvex: 1\ntitle: " + s.title() +
                     "\nunits: {length: m, force: kN}\nsections:\n"
                     "  tube: {shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm}\npoints:\n";
  const auto out = std::back_inserter(text);
  for (const Point& p : s.points()) {
    if (s.is_plane())
      fmt::format_to(out, "  {}: [{}, {}]\n", p.name, p.position.x, p.position.y);
    else
      fmt::format_to(out, "  {}: [{}, {}, {}]\n", p.name, p.position.x, p.position.y, p.position.z);
  }
  text += "members:\n";
  for (const Member& m : s.members())
    fmt::format_to(out, "  {}: {{through: [{}, {}], section: tube, material: S235}}\n", m.name,
                   s[m.through.front()].name, s[m.through.back()].name);
  text += "supports:\n";
  for (const PointSupport& p : s.supports()) fmt::format_to(out, "  {}: fixed\n", s[p.at].name);
  text += "loads:\n";
  for (const LoadCase& c : s.load_cases()) {
    fmt::format_to(out, "  {}:\n    - {{gravity: down}}\n", c.name());
    for (const Load& l : c.loads())
      if (const auto* p = std::get_if<PointLoad>(&l))
        fmt::format_to(out, "    - {{at: {}, force: {{x: {}, y: {}}}}}\n", s[p->at].name, p->force.x / 1e3,
                       p->force.y / 1e3);
  }
  return text;
}

}  // namespace bench
