#include "studies.hpp"

#include <fmt/format.h>

#include <chrono>
#include <corvex/corvex.hpp>
#include <string>

namespace bench {
namespace {

using namespace corvex;
using namespace corvex::literals;

// A girder of 49 members.
Structure girder(double wall) {
  Structure s = Structure::plane("girder");
  const SectionId tube = s.section("tube", SquareTube{.width = 60_mm, .wall = Length::si(wall)});
  const MemberOptions o{.section = tube, .material = "S235"};
  constexpr int bays = 12;
  std::vector<PointId> lower, upper;
  for (int i = 0; i <= bays; ++i) {
    lower.push_back(s.point("l" + std::to_string(i), Length::si(i), 0_m));
    upper.push_back(s.point("u" + std::to_string(i), Length::si(i), 1_m));
    s.member("p" + std::to_string(i), {lower.back(), upper.back()}, o);
    if (i == 0) continue;
    s.member("a" + std::to_string(i), {lower[i - 1], lower.back()}, o);
    s.member("b" + std::to_string(i), {upper[i - 1], upper.back()}, o);
    s.member("d" + std::to_string(i), {lower[i - 1], upper.back()}, o);
  }
  s.support(lower.front(), Support::pinned());
  s.support(lower.back(), Support::roller());
  LoadsOf loads = s.load_case("weight and product");
  for (int i = 1; i < bays; ++i) loads.at(upper[i], Force{.y = -2_kN});
  loads.gravity();
  return s;
}

template <class Work>
double seconds(const Work& work) {
  const auto start = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

}  // namespace

void studies() {
  fmt::print(
      "\n## Studies\n\nA girder of 49 members, described and solved again and again; and what limits cost once it is "
      "solved.\n\n| work | time |\n|---|--:|\n");
  double sum = 0;
  const auto solved = [&](double wall) { sum += solve(girder(wall))[0].displacement("l6").y.si(); };
  fmt::print("| 1,000 times with a wall that was never there before | {:.2f} s |\n", seconds([&] {
               for (int i = 0; i < 1000; ++i) solved(0.003 + i * 1e-6);
             }));
  fmt::print("| 1,000 times with 20 walls in turns | {:.2f} s |\n", seconds([&] {
               for (int i = 0; i < 1000; ++i) solved(0.0031 + (i % 20) * 1e-4);
             }));
  const Structure one = girder(0.003);
  const Solution solution = solve(one);
  constexpr int times = 100;
  const auto each = [&](const auto& work) {
    return 1e3 / times * seconds([&] {
             for (int i = 0; i < times; ++i) work();
           });
  };
  fmt::print("| solve | {:.3f} ms |\n", each([&] { sum += static_cast<double>(solve(one).size()); }));
  fmt::print("| a limit of safety for all members | {:.3f} ms |\n", each([&] {
               sum += static_cast<double>(
                   check_limits(solution, {{.kind = Limit::Kind::safety, .required = 1.5}})->verdicts.size());
             }));
  fmt::print("| a limit of sag for all members | {:.3f} ms |\n", each([&] {
               sum += static_cast<double>(
                   check_limits(solution, {{.kind = Limit::Kind::sag, .required = 1.0 / 300}})->verdicts.size());
             }));
  const SweepOptions options;
  const auto variants = [&](const char* what, const auto& make) {
    std::vector<SweptValue> values;
    for (int i = 0; i < 1000; ++i) values.emplace_back(Quantity(i, dimension::number));
    const Sweep s{.name = "variants",
                  .vary = {{.name = "number", .values = values}},
                  .show = {{.figure = {.kind = Figure::Kind::safety, .of = "all"}},
                           {.figure = {.kind = Figure::Kind::displacement, .of = "l6", .part = Part::y}}}};
    fmt::print("| 1,000 variants {}, with limits of safety and sag, on all threads | {:.2f} s |\n", what, seconds([&] {
                 const auto runs = sweep(
                     s,
                     [&](const Picks& picks) {
                       return Candidate{.structure = make(static_cast<int>(picks[0])),
                                        .limits = {{.kind = Limit::Kind::safety, .required = 1.5},
                                                   {.kind = Limit::Kind::sag, .required = 1.0 / 300}}};
                     },
                     options);
                 sum += static_cast<double>(runs->size());
               }));
  };
  variants("with 20 walls and 50 loads", [](int i) {
    Structure s = girder(0.0032 + (i % 20) * 1e-4);
    s.loads_of("weight and product").clear();
    s.loads_of("weight and product").at(*s.find_point("u6"), Force{.y = (i / 20) * -0.1_kN}).gravity();
    return s;
  });
  variants("each with a wall that was never there before", [](int i) { return girder(0.0062 + i * 1e-6); });
  if (sum == 0.123) fmt::print("\n");
}

}  // namespace bench
