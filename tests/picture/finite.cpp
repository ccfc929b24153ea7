// Nothing that is drawn or written has a number that is none, whatever the sizes of loads, lengths and springs.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <cmath>
#include <corvex/export.hpp>
#include <corvex/picture.hpp>
#include <corvex/report.hpp>
#include <corvex/view.hpp>
#include <random>

#include "support/rows.hpp"

namespace tests_of_picture_finite {

using namespace corvex;
using namespace corvex::literals;

namespace {

// "nan" and "inf" as they are printed: not as parts of other words.
std::string not_finite(const std::string& text) {
  const auto is_letter = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0; };
  for (const char* word : {"nan", "inf", "NaN", "Infinity"}) {
    const std::size_t size = std::string(word).size();
    for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
      const bool begins = at == 0 || !is_letter(text[at - 1]) || text[at - 1] == 'e';
      if (begins && (at + size == text.size() || !is_letter(text[at + size])))
        return text.substr(at < 60 ? 0 : at - 60, 140);
    }
  }
  return "";
}

class Frames {
 public:
  explicit Frames(unsigned seed) : random_(seed) {}

  Structure operator()() {
    const bool plane = below(3) != 0;
    Structure s = plane ? Structure::plane("frame") : Structure::space("frame");
    const auto tube = s.section("tube", Section(SquareTube{.width = 60_mm, .wall = 4_mm}));
    static constexpr double sizes[] = {1e-3, 0.02, 1, 3, 500, 5e5};
    const double L = sizes[below(std::size(sizes))], h = below(2) ? L : sizes[below(std::size(sizes))];
    const auto at = [&](double x, double y, double z) {
      return s.point("P" + std::to_string(s.points().size()), Length::si(x), Length::si(plane ? y : z),
                     plane ? 0_m : Length::si(y));
    };
    const PointId a = at(0, 0, 0), b = at(0, h, h), c = at(L, h, h), d = at(L, 0, 0);
    const MemberOptions beam{.section = tube, .material = material("S235")};
    const MemberId left = s.member("left", {a, b}, beam), rail = s.member("rail", {b, c}, beam);
    s.member("right", {d, c}, beam);
    s.support(a, Support::fixed());
    Support held = Support::hold({Dof::y, Dof::z, Dof::rx, Dof::ry, Dof::rz});
    if (plane) held = Support::hold({Dof::y, Dof::rz});
    if (below(2)) {
      static constexpr double springs[] = {1e-300, 1e-9, 1, 1e6, 1e15};
      held = held.spring({.x = Stiffness::si(springs[below(std::size(springs))])});
    }
    s.support(d, held);
    LoadsOf loads = s.load_case("case");
    for (std::size_t i = below(4) + 1; i-- > 0;) switch (below(6)) {
        case 0: loads.at(c, Force{.x = ForceSize::si(size()), .y = ForceSize::si(size())}); break;
        case 1: loads.line(rail, LineForce{.y = LineForceSize::si(size())}); break;
        case 2:
          loads.line(rail, LineForce{.y = LineForceSize::si(size())}, LineForce{.x = LineForceSize::si(size())});
          break;
        case 3: loads.on(left, Length::si(h / 3), Force{.y = ForceSize::si(size())}); break;
        case 4: loads.heat(left, Temperature::si(small())); break;
        default: loads.shorten(rail, Length::si(small() * L / 1e6)); break;
      }
    return s;
  }

 private:
  std::size_t below(std::size_t n) { return random_() % n; }
  double small() {
    static constexpr double all[] = {0, 1e-300, 1e-12, 1, -40};
    return all[below(std::size(all))];
  }
  double size() {
    static constexpr double all[] = {0, 0, -0.0, 1e-310, 1e-300, 1e-160, 1e-30, 1e-9, 1, -1e3, 1e9, 1e30};
    return all[below(std::size(all))];
  }

  std::mt19937 random_;
};

}  // namespace

TEST_CASE("No picture, document or page of 300 frames has a number that is none") {
  const int frames = test::rows(300, 50);
  static constexpr PictureOf pictures[] = {PictureOf::structure, PictureOf::deformed,    PictureOf::axial,
                                           PictureOf::shear,     PictureOf::moment,      PictureOf::torsion,
                                           PictureOf::stress,    PictureOf::utilisation, PictureOf::section,
                                           PictureOf::sheet,     PictureOf::reactions,   PictureOf::faces};
  Frames next(4);
  int solved = 0;
  for (int i = 0; i < frames; ++i) {
    INFO("frame " << i);
    const Structure s = next();
    const Solution solution = solve(s);
    if (!solution.ok()) continue;
    ++solved;
    for (const PictureOf of : pictures) {
      INFO("picture " << static_cast<int>(of));
      PictureOptions options{.of = of};
      if (of == PictureOf::section || of == PictureOf::sheet) options.only = {"rail"};
      const auto svg = draw(solution, options, ImageFormat::svg);
      if (!svg) continue;
      CHECK(not_finite(*svg) == "");
    }
    CHECK(not_finite(results_json({.solution = solution}, {.places = 5})) == "");
    Model model{.structure = s};
    const Evaluation evaluation = evaluate(model, solution);
    const auto page = view_page({{"", model, evaluation}});
    REQUIRE(page.ok());
    // The data alone: the program of the page has such words.
    const std::size_t begin = page->find("id=\"data\"");
    REQUIRE(begin != std::string::npos);
    CHECK(not_finite(page->substr(begin, page->find("</script>", begin) - begin)) == "");
    if (i % 10 == 0) {
      const auto html = report(model, evaluation, {}, ReportFormat::html);
      REQUIRE(html.ok());
      CHECK(not_finite(html->text) == "");
      // The page of a PDF is that of the same picture: it is written, and not empty.
      const auto pdf = draw(solution, {}, ImageFormat::pdf);
      REQUIRE(pdf.ok());
      CHECK(pdf->size() > 1000);
    }
  }
  CHECK(solved > frames / 2);
}

}  // namespace tests_of_picture_finite
