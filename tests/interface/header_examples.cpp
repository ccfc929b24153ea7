// The examples in the public headers' comments, compiled as they stand; what they print is what the comment says.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <corvex/corvex.hpp>
#include <corvex/document.hpp>
#include <corvex/export.hpp>
#include <corvex/file.hpp>
#include <corvex/formula_text.hpp>
#include <corvex/number.hpp>
#include <corvex/page_server.hpp>
#include <corvex/picture.hpp>
#include <corvex/printable.hpp>
#include <corvex/report.hpp>
#include <corvex/view.hpp>
#include <corvex/writing.hpp>
#include <filesystem>
#include <fstream>
#include <string>

// Examples name what a reader would go on with.
#pragma GCC diagnostic ignored "-Wunused-variable"

using namespace corvex::literals;
using namespace corvex::units;

namespace examples {
namespace {

std::string printed;

// In the examples `fmt::print` is this one.
struct fmt {
  template <class... Values>
  static void print(::fmt::format_string<Values...> text, Values&&... values) {
    printed += ::fmt::format(text, std::forward<Values>(values)...);
  }
};

// What the comments say is printed: "fmt::print(…);   // this".
std::string promised(const std::string& header) {
  std::ifstream in(std::string(CORVEX_EXTRACTED) + "/" + header + ".inc");
  std::string all, line;
  while (std::getline(in, line))
    if (const std::size_t at = line.find("   // ");
        line.find("fmt::print") != std::string::npos && at != std::string::npos)
      all += line.substr(at + 6) + "\n";
  return all;
}

void check(const std::string& header) {
  INFO(header);
  CHECK_FALSE(promised(header).empty());
  // A comment has no blanks at its end.
  while (printed.find(" \n") != std::string::npos) printed.erase(printed.find(" \n"), 1);
  CHECK(printed == promised(header));
  printed.clear();
}

// The trestle that the examples speak of: as examples/cider-works/conveyor_trestle.cpp.
struct Context {
  corvex::Structure trestle = corvex::Structure::plane("conveyor trestle");
  corvex::PointId a = trestle.point("A", 0_m, 0_m), b = trestle.point("B", 0_m, 0.9_m),
                  c = trestle.point("C", 1.2_m, 0.9_m), d = trestle.point("D", 2.4_m, 0.9_m),
                  e = trestle.point("E", 2.4_m, 0_m);
  corvex::MemberId rail;

  explicit Context(bool loaded) {
    const auto leg = trestle.section("leg", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
    const auto tube = trestle.section("rail", corvex::RectangularTube{.height = 80_mm, .width = 40_mm, .wall = 4_mm});
    const corvex::Material steel = corvex::material("S235");
    trestle.member("left leg", {a, b}, {.section = leg, .material = steel});
    rail = trestle.member("rail", {b, c, d}, {.section = tube, .material = steel});
    trestle.member("right leg", {e, d}, {.section = leg, .material = steel});
    trestle.support(a, corvex::Support::fixed());
    trestle.support(e, corvex::Support::fixed());
    if (loaded)
      trestle.load_case("product").at(c, corvex::Force{.y = -3.2_kN}).line(rail, corvex::LineForce{.y = -0.8_kN_per_m});
  }
};

corvex::Structure walkway(corvex::Length wall) {
  corvex::Structure s = corvex::Structure::plane("walkway");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 3_m, 0_m), c = s.point("C", 4_m, 0_m);
  const auto tube = s.section("tube", corvex::RectangularTube{.height = 100_mm, .width = 50_mm, .wall = wall});
  const auto beam = s.member("beam", {a, b, c}, {.section = tube, .material = corvex::material("S235")});
  s.support(a, corvex::Support::pinned());
  s.support(b, corvex::Support::roller());
  s.load_case("people").line(beam, corvex::LineForce{.y = -2.5_kN_per_m});
  return s;
}

}  // namespace

TEST_CASE("Examples of dimension.hpp, expected.hpp, problem.hpp, vector.hpp") {
  {
#include "dimension.inc"
  } check("dimension");
  {
#include "expected.inc"
  } check("expected");
  {
#include "problem.inc"
  } check("problem");
  {
#include "vector.inc"
  } check("vector");
}

TEST_CASE("Examples of quantity.hpp and formula.hpp") {
  {
#include "quantity.inc"
  } check("quantity");
  {
#include "formula.inc"
  } check("formula");
}

TEST_CASE("Examples of material.hpp, section.hpp, catalogue.hpp, structure.hpp, load_case.hpp") {
  {
#include "catalogue.inc"
  } check("catalogue");
  {
#include "material.inc"
  } check("material");
  {
#include "section.inc"
  } check("section");
  {
#include "structure.inc"
  } check("structure");
  {
#include "placement.inc"
  } check("placement");
  Context context(false);
  auto& [trestle, a, b, c, d, e, rail] = context;
  {
#include "load_case.inc"
  } check("load_case");
}

TEST_CASE("Examples of solution.hpp, diagram.hpp, hand.hpp") {
  Context context(true);
  auto& [trestle, a, b, c, d, e, rail] = context;
  {
#include "solution.inc"
  } check("solution");
  {
#include "stop.inc"
  } check("stop");
  const corvex::Solution solution = corvex::solve(trestle);
  {
#include "acting.inc"
  } check("acting");
  {
#include "displacement.inc"
  } check("displacement");
  {
#include "finding.inc"
  } check("finding");
  {
#include "load_words.inc"
  } check("load_words");
  {
#include "model_units.inc"
  } check("model_units");
  {
#include "version.inc"
  } check("version");
  {
#include "diagram.inc"
  } check("diagram");
  {
#include "hand.inc"
  } check("hand");
  {
#include "derive.inc"
  } check("derive");
  {
#include "modes.inc"
  } check("modes");
  {
#include "trace.inc"
  } check("trace");
  {
#include "envelope.inc"
  } check("envelope");
  {
#include "evaluation.inc"
  } check("evaluation");
  {
#include "limits.inc"
  } check("limits");
  {
#include "picture.inc"
  } check("picture");
  {
#include "number.inc"
  } check("number");
  {
#include "page.inc"
  } check("page");
  {
#include "document.inc"
  } check("document");
}

TEST_CASE("Examples of findings.hpp, figures.hpp, compare.hpp, choose.hpp, sweep.hpp") {
  Context context(true);
  corvex::Structure& trestle = context.trestle;
  const corvex::MemberId rail = context.rail;
  const corvex::Solution solution = corvex::solve(trestle);
  {
#include "findings.inc"
  } check("findings");
  {
#include "figures.inc"
  } check("figures");
  {
#include "compare.inc"
  } check("compare");
  {
#include "choose.inc"
  } check("choose");
  {
#include "sweep.inc"
  } check("sweep");
}

TEST_CASE("Examples of printable.hpp and writing.hpp") {
  {
#include "printable.inc"
  } check("printable");
  {
#include "writing.inc"
  } check("writing");
}

namespace {

// In a folder of its own with trestle.yaml in it.
class BesideTrestle {
 public:
  BesideTrestle() : before_(std::filesystem::current_path()) {
    namespace fs = std::filesystem;
    folder_ = (fs::temp_directory_path() / "corvex-header-XXXXXX").string();
    REQUIRE(mkdtemp(folder_.data()));
    fs::copy(CORVEX_SOURCE "/examples/cider-works/conveyor-trestle.yaml", folder_ + "/trestle.yaml");
    fs::current_path(folder_);
  }
  ~BesideTrestle() {
    std::filesystem::current_path(before_);
    std::filesystem::remove_all(folder_);
  }
  BesideTrestle(const BesideTrestle&) = delete;
  BesideTrestle& operator=(const BesideTrestle&) = delete;

 private:
  std::filesystem::path before_;
  std::string folder_;
};

}  // namespace

TEST_CASE("The example of file.hpp") {
  const BesideTrestle folder;
#include "file.inc"
  check("file");
}

TEST_CASE("The example of export.hpp") {
  const BesideTrestle folder;
#include "export.inc"
  check("export");
}

TEST_CASE("The example of formula_text.hpp") {
#include "formula_text.inc"
  check("formula_text");
}

TEST_CASE("The example of report.hpp") {
  const BesideTrestle folder;
#include "report.inc"
  check("report");
}

TEST_CASE("The example of stability.hpp") {
  const Context context(true);
  const corvex::Structure& trestle = context.trestle;
#include "stability.inc"
  check("stability");
}

TEST_CASE("The example of page_server.hpp") {
  const BesideTrestle folder;
#include "page_server.inc"
  check("page_server");
}

TEST_CASE("The example of view.hpp") {
  const BesideTrestle folder;
#include "view.inc"
  check("view");
}

TEST_CASE("Every public header but the one that gathers them has an example, which is compiled here") {
  std::ifstream in(CORVEX_SOURCE "/tests/interface/header_examples.cpp");
  const std::string here(std::istreambuf_iterator<char>(in), {});
  for (const auto& entry : std::filesystem::directory_iterator(CORVEX_SOURCE "/include/corvex")) {
    const std::string name = entry.path().stem().string();
    if (name == "corvex") continue;
    INFO(name);
    CHECK_FALSE(promised(name).empty());
    CHECK_THAT(here, Catch::Contains("check(\"" + name + "\")"));
  }
}

}  // namespace examples
