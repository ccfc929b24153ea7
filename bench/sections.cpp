// What one section costs, and how its errors shrink: the tables of docs/speed.md and docs/theory.md.
#include "sections.hpp"

#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <corvex/catalogue.hpp>
#include <numbers>

namespace bench {
namespace {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;

// Shapes are remembered: a fineness that was never asked for is one that has to be computed. The best of so many runs
// as fit into a third of a second, five at least.
double seconds_of(const Shape& shape, double fineness) {
  double least = 1e300, all = 0;
  for (int i = 1; i <= 5 || all < 0.33; ++i) {
    const auto start = std::chrono::steady_clock::now();
    (void)Section(shape, fineness * (1 + i * 1e-12)).properties();
    const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    least = std::min(least, took);
    all += took;
  }
  return least;
}

Outline polygon(double a, double b, int corners) {
  Outline o;
  for (int i = 0; i < corners; ++i) {
    const double angle = 2 * std::numbers::pi * i / corners;
    o.points.push_back({Length::si(a * std::cos(angle)), Length::si(b * std::sin(angle))});
  }
  return o;
}

std::string percent(double share) {
  return fmt::format("{:.1e}", std::abs(share));
}

void convergence() {
  fmt::print(
      "\nRelative error of J (and of the shear area Ay) by fineness; against the closed form, or where there is none\n"
      "against fineness 8.\n\n| outline | against | 1 | 2 | 4 |\n|---|---|--:|--:|--:|\n");
  struct Case {
    const char* name;
    Shape shape;
    double exact;
  };
  const double a = 0.08, root3 = std::sqrt(3.0);
  const Outline square{{{0_mm, 0_mm}, {60_mm, 0_mm}, {60_mm, 60_mm}, {0_mm, 60_mm}}, {}};
  const Outline flat{{{0_mm, 0_mm}, {20_mm, 0_mm}, {20_mm, 100_mm}, {0_mm, 100_mm}}, {}};
  const Outline triangle{{{0_m, 0_m}, {Length::si(a), 0_m}, {Length::si(a / 2), Length::si(a * root3 / 2)}}, {}};
  const std::vector<Case> cases = {
      {"square", square, Section(RectangularBar{60_mm, 60_mm}).properties().J.si()},
      {"rectangle 5 : 1", flat, Section(RectangularBar{100_mm, 20_mm}).properties().J.si()},
      {"equilateral triangle", triangle, root3 * std::pow(a, 4) / 80},
      {"square tube 60x4, sharp", SquareTube{60_mm, 4_mm}, 0},
      {"square tube 60x4, corner 8", SquareTube{60_mm, 4_mm, 8_mm}, 0},
      {"I 200x100, root 12", IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm, 12_mm}, 0},
      {"I 200x100, sharp", IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm}, 0},
      {"channel 200x80, root 13", Channel{200_mm, 80_mm, 6_mm, 11_mm, 13_mm}, 0},
      {"angle 100x50x8", AngleProfile{100_mm, 50_mm, 8_mm, 8_mm, 4_mm}, 0}};
  for (const Case& c : cases) {
    const SectionProperties fine = Section(c.shape, 8).properties();
    std::string row = fmt::format("| {} | {} |", c.name, c.exact > 0 ? "closed form" : "fineness 8");
    for (const double fineness : {1.0, 2.0, 4.0}) {
      const SectionProperties p = Section(c.shape, fineness).properties();
      row += fmt::format(" {} ({}) |", percent(p.J.si() / (c.exact > 0 ? c.exact : fine.J.si()) - 1),
                         percent(p.Ay / fine.Ay - 1));
    }
    fmt::print("{}\n", row);
  }
  fmt::print(
      "\nAn ellipse of half axes 50 and 20 mm, drawn with straight sides: the error of J is that of the drawing.\n\n"
      "| corners | 12 | 24 | 48 | 96 |\n|---|--:|--:|--:|--:|\n| error |");
  const double exact = std::numbers::pi * std::pow(0.05 * 0.02, 3) / (0.05 * 0.05 + 0.02 * 0.02);
  for (const int corners : {12, 24, 48, 96})
    fmt::print(" {} |", percent(Section(polygon(0.05, 0.02, corners)).properties().J.si() / exact - 1));
  fmt::print("\n");
}

}  // namespace

void sections() {
  fmt::print(
      "\n## Sections\n\nAll of one section (area, inertia, torsion, shear, shear centre, the fields of stress on its outline and inside). A\n"
      "shape is computed once, for all structures and threads; a plane structure that asks for no stress takes a third of it.\n\n| section | time |\n|---|--:|\n");
  const std::vector<std::pair<const char*, Shape>> shapes = {
      {"round tube 48.3x3.2", RoundTube{48.3_mm, 3.2_mm}},
      {"square tube 60x4, sharp", SquareTube{60_mm, 4_mm}},
      {"SHS 60x60x4", profile("SHS 60x60x4")->section.shape()},
      {"SHS 300x300x6", profile("SHS 300x300x6")->section.shape()},
      {"IPE 200", profile("IPE 200")->section.shape()},
      {"UPN 200", profile("UPN 200")->section.shape()},
      {"L 100x50x8", profile("L 100x50x8")->section.shape()},
      {"angle 100x100x2, sharp", AngleProfile{100_mm, 100_mm, 2_mm}},
      {"drawn, 48 corners", polygon(0.05, 0.02, 48)},
      {"drawn, 200 corners", polygon(0.05, 0.02, 200)}};
  for (const auto& [name, shape] : shapes) fmt::print("| {} | {:.2f} ms |\n", name, seconds_of(shape, 1) * 1e3);
  convergence();
}

}  // namespace bench
