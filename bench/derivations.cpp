#include "derivations.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <corvex/document.hpp>
#include <corvex/report.hpp>
#include <filesystem>

namespace bench {
namespace {

using namespace corvex;
using namespace corvex::literals;

// A parallel girder of links: 4 bars a bay and one.
Structure truss(int bays) {
  Structure s = Structure::plane("girder of bars");
  const MemberOptions bar{.section = s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm}),
                          .material = "S235",
                          .kind = MemberKind::link};
  std::vector<PointId> lower, upper;
  int count = 0;
  const auto add = [&](PointId a, PointId b) { s.member("bar" + std::to_string(++count), {a, b}, bar); };
  for (int i = 0; i <= bays; ++i) {
    lower.push_back(s.point("L" + std::to_string(i), Length::si(1.5 * i), 0_m));
    upper.push_back(s.point("U" + std::to_string(i), Length::si(1.5 * i), 1_m));
    add(lower.back(), upper.back());
    if (i == 0) continue;
    add(lower[i - 1], lower.back());
    add(upper[i - 1], upper.back());
    add(upper[i - 1], lower.back());
  }
  s.support(lower.front(), Support::pinned());
  s.support(lower.back(), Support::roller());
  LoadsOf loads = s.load_case("product");
  for (const PointId p : upper) loads.at(p, Force{.y = -2_kN});
  return s;
}

double milliseconds(const auto& work) {
  double least = 1e300;
  for (int i = 0; i < 5; ++i) {
    const auto start = std::chrono::steady_clock::now();
    work();
    least =
        std::min(least, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
  }
  return least;
}

void row(const Model& model, const std::string& name) {
  const Solution solution = solve(model.structure);
  if (!solution.ok()) return;
  const std::size_t index = governing_case(solution);
  const auto derived = derive(solution, index);
  if (!derived || derive(model.structure, solution[index].name()).ok() == false) return;
  const std::vector<BothWays> both = both_ways(*derived, solution);
  const auto lines = [&](bool brief) {
    const std::string text = document::page_text(document::derivation_page(*derived, both, model.units, 5, brief),
                                                 {.digits = 5, .width = 100});
    return std::count(text.begin(), text.end(), '\n');
  };
  const auto page = derivation_document(model, *derived, both, {}, ReportFormat::html);
  fmt::print("| {} | {} | {} | {:.1f} ms | {} | {} | {} kB |\n", name, model.structure.members().size(),
             derived->count.degree, milliseconds([&] { (void)derive(solution, index); }), lines(false), lines(true),
             page ? page->size() / 1000 : 0);
}

}  // namespace

void derivations() {
  fmt::print(
      "\n## Derivations\n\nOf the case that governs: deriving every figure with its steps; lines of the text, whole and brief; the "
      "page.\n\n| model | members | degree | derive | lines | brief | page |\n|---|--:|--:|--:|--:|--:|--:|\n");
  row({.structure = truss(15)}, "girder of 61 bars");
  for (const char* folder : {"derivations", "cider-works", "cookbook"}) {
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(CORVEX_EXAMPLES) / folder))
      if (entry.path().extension() == ".yaml") files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    for (const std::filesystem::path& file : files)
      if (const auto model = read_model(file.string())) row(*model, file.filename().string());
  }
}

}  // namespace bench
