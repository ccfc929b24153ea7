// A small configurator: bottle trestles in several lengths, each with the lightest tubes that will do, and a price from
// metres, kilograms and welded joints. The prices are made up.
#include <fmt/format.h>

#include <corvex/corvex.hpp>

using namespace corvex::literals;
using corvex::units::kg, corvex::units::m;

namespace {

// Prices of the workshop.
struct Prices {
  double kilogram = 1.85, metre_cut = 2.40, joint_welded = 9.50, foot_plate = 6.00;
};

corvex::Structure trestle(corvex::Length span, corvex::Length height) {
  corvex::Structure s = corvex::Structure::plane(fmt::format("trestle of {:.1f} m", span.in(m)));
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, height), c = s.point("C", span, height),
             d = s.point("D", span, 0_m);
  const auto leg = s.section("leg", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
  const auto rail = s.section("rail", corvex::RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm});
  const auto steel = corvex::material("S235");
  s.member("left leg", {a, b}, {.section = leg, .material = steel});
  const auto top = s.member("rail", {b, c}, {.section = rail, .material = steel});
  s.member("right leg", {d, c}, {.section = leg, .material = steel});
  s.support(a, corvex::Support::pinned());
  s.support(d, corvex::Support::pinned());
  s.load_case("bottles and weight").line(top, corvex::LineForce{.y = -2.2_kN_per_m}).gravity();
  s.load_case("push").at(b, corvex::Force{.x = 0.4_kN}).gravity();
  return s;
}

// Stock: light square tubes for the legs, rectangular ones for the rail.
corvex::Choosing stock() {
  using Search = corvex::CatalogueSearch;
  return {.groups = {{"leg", corvex::search(Search{.series = {"SHS"}, .bounds = {{"height", 0.03, 0.08}}})},
                     {"rail", corvex::search(Search{.series = {"RHS"}, .bounds = {{"height", 0.05, 0.12}}})}},
          .limits = {{.kind = corvex::Limit::Kind::safety, .required = 1.5},
                     {.kind = corvex::Limit::Kind::sag, .required = 1.0 / 300}}};
}

}  // namespace

int main() {
  const Prices prices;
  const corvex::Choosing wanted = stock();
  fmt::print("{:<8}{:<14}{:<16}{:>8}{:>10}{:>10}\n", "length", "legs", "rail", "tube", "mass", "price");
  for (const corvex::Length span : {1.8_m, 2.4_m, 3.0_m, 3.6_m, 4.2_m}) {
    corvex::Structure s = trestle(span, 0.9_m);
    const auto choice = corvex::choose(s, wanted);
    if (!choice || choice->found.empty()) {
      fmt::print("{:.1f} m   nothing in stock will do\n", span.in(m));
      continue;
    }
    const corvex::FoundChoice& best = choice->found.front();
    double metres = 0;
    for (const corvex::PartsOfOneKind& part : corvex::bill_of_materials(s)) metres += part.length.in(m);
    const double price = prices.kilogram * best.mass.in(kg) + prices.metre_cut * metres + 2 * prices.joint_welded +
                         2 * prices.foot_plate;
    fmt::print("{:.1f} m   {:<14}{:<16}{:>6.1f} m{:>7.1f} kg{:>10.2f}\n", span.in(m), best.designations[0],
               best.designations[1], metres, best.mass.in(kg), price);
  }
}
