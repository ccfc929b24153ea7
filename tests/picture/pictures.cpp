// Pictures read back: extremes stand at their place, on the right side and to scale; every name is there; labels keep
// clear of each other.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <corvex/number.hpp>
#include <corvex/picture.hpp>
#include <filesystem>
#include <fstream>
#include <pugixml.hpp>
#include <set>
#include <sstream>

#include "support/near.hpp"

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Contains;

namespace {

const std::filesystem::path examples = std::filesystem::path(CORVEX_SOURCE) / "examples/cider-works";

struct Solved {
  Model model;
  Solution solution;
};
Solved example(const std::string& name) {
  auto model = read_model((examples / (name + ".yaml")).string());
  REQUIRE(model.ok());
  Solution solution = solve(model->structure);
  REQUIRE(solution.ok());
  return {model.value(), solution};
}

class Svg {
 public:
  Svg(const Solved& s, PictureOptions o) {
    o.units = s.model.units;
    const auto bytes = draw(s.solution, o, ImageFormat::svg);
    REQUIRE(bytes.ok());
    REQUIRE(xml_.load_string(bytes->c_str()));
  }

  using Line = std::vector<std::pair<double, double>>;
  // The lines of all paths of this class that belong to a name (of all, where it is empty).
  std::vector<Line> lines(const std::string& what, const std::string& of = {}) const {
    std::vector<Line> all;
    for (const auto& p : xml_.child("svg").children("path")) {
      if (p.attribute("class").value() != what || (!of.empty() && p.attribute("data-of").value() != of)) continue;
      std::string d = p.attribute("d").value();
      for (char& c : d)
        if (c == 'L' || c == 'Z') c = ' ';
      std::istringstream in(d);
      for (std::string word; in >> word;) {
        if (word[0] == 'M') all.emplace_back(), word.erase(0, 1);
        double y;
        in >> y;
        all.back().emplace_back(std::stod(word), y);
      }
    }
    return all;
  }
  std::vector<double> stroke_widths(const std::string& what, const std::string& of) const {
    std::vector<double> all;
    for (const auto& p : xml_.child("svg").children("path"))
      if (p.attribute("class").value() == what && p.attribute("data-of").value() == of)
        all.push_back(p.attribute("stroke-width").as_double());
    return all;
  }
  struct Words {
    std::string text, what;
    double x, y, size;
    std::string anchor;
  };
  std::vector<Words> words(const std::string& what = {}) const {
    std::vector<Words> all;
    for (const auto& t : xml_.child("svg").children("text"))
      if (what.empty() || t.attribute("class").value() == what)
        all.push_back({t.child_value(), t.attribute("class").value(), t.attribute("x").as_double(),
                       t.attribute("y").as_double(), t.attribute("font-size").as_double(),
                       t.attribute("text-anchor").value()});
    return all;
  }
  bool says(const std::string& what, const std::string& text) const {
    const auto all = words(what);
    return std::any_of(all.begin(), all.end(), [&](const Words& w) { return w.text == text; });
  }

 private:
  pugi::xml_document xml_;
};

// Where the line of a member lies: its first and last spot.
std::pair<std::pair<double, double>, std::pair<double, double>> axis(const Svg& svg, const std::string& member) {
  const auto lines = svg.lines("member", member);
  REQUIRE(!lines.empty());
  return {lines[0].front(), lines[0].back()};
}

}  // namespace

TEST_CASE("A moment that vanishes at a round share of the span has a colour for each sign") {
  // An overhang with M = 0 at a given share of the first span: P·e = q·L²/2·(1 − share).
  for (const double share : {0.5, 0.6, 0.75, 0.8, 0.3711}) {
    INFO(share);
    Structure s = Structure::plane("overhang");
    const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 5_m, 0_m), c = s.point("C", 6_m, 0_m);
    const MemberId beam = s.member(
        "beam", {a, b, c}, {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = "S235"});
    s.support(a, Support::pinned());
    s.support(b, Support::roller());
    const double q = 2e3, L = 5;
    s.load_case("l")
        .line(beam, LineForce{.y = LineForceSize::si(-q)}, LineForce{.y = LineForceSize::si(-q)}, 0_m, 5_m)
        .at(c, Force{.y = ForceSize::si(-q * L * L / 2 * (1 - share))});
    const Solution solution = solve(s);
    REQUIRE(solution.ok());
    CHECK(std::abs(solution["l"]["beam"].moment_z().at(Length::si(share * L)).si()) < 1e-6 * q);
    const auto svg = draw(solution, {.of = PictureOf::moment}, ImageFormat::svg);
    REQUIRE(svg.ok());
    // Each area with the colour of its sign: the sagging part ends where the moment vanishes.
    std::set<std::string> colours;
    for (std::size_t at = 0; (at = svg->find("class=\"moment\"", at)) != std::string::npos; ++at)
      colours.insert(svg->substr(svg->find("fill=\"", at), 14));
    CHECK(colours.size() == 2);
    const auto areas = [&](const std::string& colour) {
      std::size_t n = 0;
      for (std::size_t at = 0; (at = svg->find("class=\"moment\"", at)) != std::string::npos; ++at)
        n += svg->substr(svg->find("fill=\"", at), 14) == colour;
      return n;
    };
    // One sagging area; the hogging one goes on over the support, in two pieces.
    CHECK(areas(*colours.begin()) + areas(*colours.rbegin()) == 3);
  }
}

TEST_CASE("Moments stand on the side that they pull, at their places, all at one scale") {
  const Solved s = example("conveyor-trestle");
  const Svg svg(s, {.of = PictureOf::moment, .load_case = "product"});
  const auto rail = axis(svg, "rail");
  const double length = rail.second.first - rail.first.first, base = rail.first.second;
  double lowest = base, highest = base, at_lowest = 0;
  for (const auto& line : svg.lines("moment-line", "rail"))
    for (const auto& [x, y] : line) {
      if (y > lowest) lowest = y, at_lowest = x;
      highest = std::min(highest, y);
    }
  const Diagram m = s.solution["product"]["rail"].moment_z();
  // The sagging moment hangs below, its place as it should be; the hogging one above, in proportion.
  CHECK((at_lowest - rail.first.first) / length == Approx(m.max().at.si() / 2.4).margin(0.001));
  CHECK((lowest - base) / (base - highest) == Approx(m.max().value.si / -m.min().value.si).epsilon(1e-3));
  // The left leg at the same scale: it is pulled on its outer side at the top.
  const auto leg = axis(svg, "left leg");
  double leftmost = 1e9;
  for (const auto& line : svg.lines("moment-line", "left leg"))
    for (const auto& [x, y] : line) leftmost = std::min(leftmost, x);
  const double outside = s.solution["product"]["left leg"].moment_z().max().value.si();
  CHECK((leg.first.first - leftmost) / (lowest - base) == Approx(outside / m.max().value.si).epsilon(1e-3));
  CHECK(svg.says("moment-value", "1.458 kN·m"));
  CHECK(svg.says("moment-value", "-1.038 kN·m"));
}

TEST_CASE("Shear is positive on the +y side and jumps where a force stands") {
  const Solved s = example("walkway-beam");
  const Svg svg(s, {.of = PictureOf::shear});
  const auto beam = axis(svg, "walkway");
  const double scale = (beam.second.first - beam.first.first) / 4;
  double top = 1e9, bottom = -1e9, at_bottom = 0;
  for (const auto& line : svg.lines("shear-line", "walkway"))
    for (const auto& [x, y] : line) {
      top = std::min(top, y);
      if (y > bottom) bottom = y, at_bottom = x;
    }
  CHECK((at_bottom - beam.first.first) / scale == Approx(3).margin(0.002));
  CHECK((bottom - beam.first.second) / (beam.first.second - top) == Approx(4.1667 / 3.3333).epsilon(2e-3));
  for (const char* value : {"3.333 kN", "-4.167 kN", "2.500 kN"}) CHECK(svg.says("shear-value", value));
}

TEST_CASE("The deformed shape is exact, at the scale that is told") {
  const Solved s = example("walkway-beam");
  const double times = GENERATE(1.0, 25.0, 80.0);
  const Svg svg(s, {.of = PictureOf::deformed, .scale = times});
  const auto beam = axis(svg, "walkway");
  const double scale = (beam.second.first - beam.first.first) / 4;
  const MemberResult m = s.solution[0]["walkway"];
  const auto lines = svg.lines("deformed", "walkway");
  for (const auto& [x, y] : lines.front()) {
    // Spots move along too, a little: the place is found from where it was.
    const double along = std::clamp((x - beam.first.first) / scale, 0.0, 4.0);
    CHECK((beam.first.second - y) / scale ==
          Approx(m.at(Length::si(along)).y.si() * times).margin(1e-2 / scale + 1e-9));
  }
  const auto legend = svg.words("legend");
  const std::string told = times == 1 ? "Displacements at true scale"
                                      : "Displacements magnified " + std::to_string(int(times)) + " times";
  CHECK(std::any_of(legend.begin(), legend.end(), [&](const auto& w) { return w.text == told; }));
  CHECK(svg.words("most-value").size() == 1);
}

TEST_CASE("Structures are to scale, and every name is there") {
  for (const std::string name : {"conveyor-trestle", "press-frame", "pipe-rack", "tank-skid", "agitator-bracket"}) {
    INFO(name);
    const Solved s = example(name);
    const Svg svg(s, {});
    std::set<std::string> points, members;
    for (const auto& w : svg.words("point-name")) points.insert(w.text);
    for (const auto& w : svg.words("member-name")) members.insert(w.text);
    const Structure& st = s.model.structure;
    for (const Point& p : st.points()) CHECK(points.count(p.name) == 1);
    for (const Member& m : st.members()) CHECK(members.count(m.name) == 1);
    CHECK(svg.lines("support").size() >= st.supports().size());
    if (!st.is_plane()) continue;
    // Lengths on the page against those of the structure.
    double ratio = 0;
    for (const Member& m : st.members()) {
      const auto [a, b] = axis(svg, m.name);
      const double r = std::hypot(b.first - a.first, b.second - a.second) / st.length_of(m);
      if (ratio == 0) ratio = r;
      CHECK(r == Approx(ratio).epsilon(1e-3));
    }
  }
}

TEST_CASE("Loads are drawn by size with their values") {
  const Solved s = example("pipe-rack");
  const Svg svg(s, {.load_case = "winter"});
  const auto values = svg.words("force-value");
  CHECK(values.size() == 5);
  for (const auto& v : values) CHECK(v.text == "3.84 kN");
  CHECK(svg.says("line-value", "1.65 kN/m"));
  CHECK(svg.lines("gravity").size() == 2);
  const Svg heat(s, {.load_case = "sun"});
  CHECK(heat.words("sign-words").size() == 1);
  CHECK_THAT(heat.words("sign-words").front().text, Contains("temperature change +25 K"));
}

TEST_CASE("Links tell their force and whether it pulls or pushes") {
  const Solved s = example("pipe-rack");
  const Svg svg(s, {.of = PictureOf::axial, .load_case = "winter"});
  CHECK(svg.says("axial-value", "27.24 kN tension"));
  CHECK(svg.says("axial-value", "-13.00 kN compression"));
}

TEST_CASE("The worst stress is marked, and what is used of the strength is a share of it") {
  const Solved s = example("conveyor-trestle");
  const Svg stress(s, {.of = PictureOf::stress, .load_case = "product"});
  CHECK_THAT(stress.words("most-value").front().text, Contains("-83.91 MPa in rail at C"));
  const Svg use(s, {.of = PictureOf::utilisation, .load_case = "product"});
  const double share = 1 / *s.solution["product"]["rail"].safety();
  CHECK_THAT(use.words("most-value").front().text, Contains(number(share * 100, 3) + " % in rail"));
}

TEST_CASE("A sheet has the courses of one member with their extremes and places") {
  const Solved s = example("walkway-beam");
  const Svg svg(s, {.of = PictureOf::sheet, .only = {MemberId{0}}});
  CHECK(svg.says("shear-value", "-4.167 at 3"));
  CHECK(svg.says("moment-value", "2.222 at 1.333"));
  CHECK(svg.says("moment-value", "-1.250 at 3"));
  CHECK(svg.words("panel").size() == 5);
  CHECK(svg.lines("rotation").size() >= 1);
  CHECK(svg.lines("deflection").size() >= 1);
}

TEST_CASE("A section shows its shape to scale, its figures and the stress across it") {
  const Solved s = example("conveyor-trestle");
  const Svg svg(s,
                {.of = PictureOf::section, .load_case = "product", .only = {*s.model.structure.find_member("rail")}});
  for (const char* value : {"80.11 MPa", "-83.91 MPa"}) CHECK(svg.says("stress-value", value));
  for (const char* value : {"40 mm", "80 mm"}) CHECK(svg.says("dimension-value", value));
  CHECK(svg.says("figure-value", "71.13 cm⁴"));
  const auto outline = svg.lines("outline");
  REQUIRE(outline.size() == 2);  // and the hole
  const auto extent = [](const Svg::Line& line) {
    double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
    for (const auto& [x, y] : line)
      left = std::min(left, x), right = std::max(right, x), top = std::min(top, y), bottom = std::max(bottom, y);
    return std::pair(right - left, bottom - top);
  };
  const auto [wide, high] = extent(outline[0]);
  CHECK(high / wide == Approx(2).epsilon(1e-3));
  CHECK(extent(outline[1]).first / wide == Approx(32.0 / 40).epsilon(2e-3));
  // The line without stress lies where N and M cancel: below the middle, as N presses.
  const double centre = svg.lines("centroid")[0][0].second, neutral = svg.lines("neutral-axis")[0][0].second;
  const double sum = 80.11 + 83.91, expected = high / 2 - high * 80.11 / sum;
  CHECK(neutral - centre == Approx(expected).margin(0.5));
  // An angle has principal axes and a shear centre of its own.
  const Solved bracket = example("agitator-bracket");
  const Svg angle(bracket, {.of = PictureOf::section,
                            .load_case = "cables",
                            .only = {*bracket.model.structure.find_member("cable support")}});
  CHECK(angle.lines("principal").size() == 2);
  CHECK(angle.words("shear-centre-name").size() == 1);
  CHECK(angle.says("stress-value", "52.67 MPa"));
}

TEST_CASE("The section of an angle held in a plane shows the stress that solve tells") {
  Structure s = Structure::plane("bracket");
  const auto a = s.point("A", Length(), Length()), b = s.point("B", Length::si(1), Length());
  const auto m =
      s.member("arm", {a, b}, {.section = s.section("angle", *profile("L 100x50x8")), .material = material("S235")});
  s.support(a, Support::fixed());
  s.load_case("push").at(b, Force{.y = ForceSize::si(-500)});
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  const auto bytes = draw(solution, {.of = PictureOf::section, .only = {m}}, ImageFormat::svg);
  REQUIRE(bytes.ok());
  const std::string svg(bytes.value());
  const auto mpa = [](const StressExtreme& e) { return fmt::format("{:.2f} MPa", e.value.si() / 1e6); };
  const MemberResult r = solution[0]["arm"];
  CHECK(mpa(*r.max_stress()) == "27.54 MPa");
  CHECK_THAT(svg, Catch::Contains(mpa(*r.max_stress())));
  CHECK_THAT(svg, Catch::Contains(mpa(*r.min_stress())));
}

TEST_CASE("Distances and widths of a structure") {
  const Solved s = example("conveyor-trestle");
  const Svg svg(s, {.dimensions = true, .real_width = true});
  std::vector<std::string> distances;
  for (const auto& w : svg.words("dimension-value")) distances.push_back(w.text);
  std::sort(distances.begin(), distances.end());
  CHECK(distances == std::vector<std::string>{"1200", "1200", "900"});
  const auto [a, b] = axis(svg, "rail");
  const double scale = (b.first - a.first) / 2.4;
  const auto widths = svg.stroke_widths("width", "rail");
  REQUIRE(widths.size() == 1);
  CHECK(widths[0] == Approx(0.08 * scale).epsilon(1e-3));
}

TEST_CASE("Moving pictures swing between rest and what is drawn") {
  const Solved s = example("press-frame");
  const PictureOptions o{.of = PictureOf::deformed, .width = 400, .height = 300, .moving = true};
  const auto svg = draw(s.solution, o, ImageFormat::svg);
  REQUIRE(svg.ok());
  pugi::xml_document xml;
  REQUIRE(xml.load_string(svg->c_str()));
  std::size_t moving = 0;
  for (const auto& p : xml.child("svg").children("path")) {
    if (std::string(p.attribute("class").value()) != "deformed") continue;
    ++moving;
    const std::string values = p.child("animate").attribute("values").value(), d = p.attribute("d").value();
    CHECK_THAT(values, Contains(";" + d + ";"));
    CHECK(values.substr(0, values.find(';')) == values.substr(values.rfind(';') + 1));
  }
  CHECK(moving == s.model.structure.members().size());
  const auto gif = draw(s.solution, o, ImageFormat::gif), again = draw(s.solution, o, ImageFormat::gif);
  REQUIRE(gif.ok());
  CHECK(*gif == *again);
  CHECK(gif->substr(0, 6) == "GIF89a");
  CHECK_THAT(*gif, Contains("NETSCAPE2.0"));
  std::size_t frames = 0;
  for (std::size_t at = gif->find("\x21\xF9\x04"); at != std::string::npos; at = gif->find("\x21\xF9\x04", at + 3))
    ++frames;
  CHECK(frames >= 20);
  CHECK_FALSE(draw(s.solution, o, ImageFormat::png).ok());
  CHECK_FALSE(draw(s.solution, {.of = PictureOf::moment}, ImageFormat::gif).ok());
}

TEST_CASE("Labels stand clear of each other and on the page, in every picture of every example") {
  for (const std::string name :
       {"conveyor-trestle", "walkway-beam", "press-frame", "pipe-rack", "tank-skid", "agitator-bracket"})
    for (int of = 0; of <= static_cast<int>(PictureOf::sheet); ++of) {
      INFO(name << ", picture " << of);
      const Solved s = example(name);
      const Svg svg(s, {.of = static_cast<PictureOf>(of),
                        .only = of >= static_cast<int>(PictureOf::section) ? std::vector<MemberRef>{MemberId(0)}
                                                                           : std::vector<MemberRef>{}});
      struct Box {
        double left, top, right, bottom;
      };
      std::vector<Box> boxes;
      double area = 0, shared = 0;
      for (const auto& w : svg.words()) {
        // Letters of this font are some 0.6 of their size wide.
        double letters = 0;
        for (const char c : w.text) letters += (static_cast<unsigned char>(c) & 0xC0) != 0x80;
        const double wide = 0.6 * w.size * letters;
        const double left = w.anchor == "middle" ? w.x - wide / 2 : w.anchor == "end" ? w.x - wide : w.x;
        boxes.push_back({left, w.y - 0.74 * w.size, left + wide, w.y});
        CHECK(left >= -0.1 * wide);
        CHECK(left + wide <= 1280 + 0.1 * wide);
      }
      for (std::size_t i = 0; i < boxes.size(); ++i) {
        const Box& a = boxes[i];
        area += (a.right - a.left) * (a.bottom - a.top);
        for (std::size_t k = 0; k < i; ++k) {
          const Box& b = boxes[k];
          const double x = std::min(a.right, b.right) - std::max(a.left, b.left);
          const double y = std::min(a.bottom, b.bottom) - std::max(a.top, b.top);
          if (x > 0 && y > 0) shared += x * y;
        }
      }
      CHECK(shared <= 0.02 * area);
    }
}

TEST_CASE("The same picture has the same bytes, in every format") {
  const Solved s = example("tank-skid");
  for (const ImageFormat format : {ImageFormat::svg, ImageFormat::png, ImageFormat::pdf}) {
    const PictureOptions o{.of = PictureOf::moment, .width = 900, .height = 600, .units = s.model.units};
    const auto a = draw(s.solution, o, format), b = draw(s.solution, o, format);
    REQUIRE(a.ok());
    CHECK(*a == *b);
    const std::string begin = format == ImageFormat::svg ? "<svg" : format == ImageFormat::png ? "\x89PNG" : "%PDF";
    CHECK(a->substr(0, begin.size()) == begin);
    // Width and height of a PNG stand in its head.
    if (format != ImageFormat::png) continue;
    const auto byte = [&](std::size_t i) { return static_cast<unsigned char>((*a)[i]); };
    CHECK(byte(18) * 256 + byte(19) == 900);
    CHECK(byte(22) * 256 + byte(23) == 600);
  }
}

TEST_CASE("Pictures go into files, whole or not at all") {
  const Solved s = example("walkway-beam");
  const auto folder = std::filesystem::temp_directory_path() / "corvex-pictures";
  std::filesystem::create_directories(folder);
  for (const std::string name : {"a.svg", "a.png", "a.pdf"}) {
    CHECK_FALSE(draw(s.solution, {}, (folder / name).string()));
    std::ifstream in(folder / name, std::ios::binary);
    std::stringstream text;
    text << in.rdbuf();
    CHECK(text.str() == *draw(s.solution, {}, *image_format(name)));
  }
  CHECK(std::distance(std::filesystem::directory_iterator(folder), {}) == 3);
  CHECK_THAT(draw(s.solution, {}, "/nowhere/a.svg")->text, Contains("cannot be written"));
  CHECK_THAT(draw(s.solution, {}, "a.bmp")->text, Contains("ends with .svg"));
  std::filesystem::remove_all(folder);
}

TEST_CASE("Views of a space structure") {
  const Solved s = example("tank-skid");
  // From the front x runs to the right and z up; from the top y runs up.
  const Svg front(s, {.view = View::front}), top(s, {.view = View::top});
  const Structure& st = s.model.structure;
  const Member& m = st[*st.find_member("cross.2")];
  const Vector across = st[m.through.back()].position - st[m.through.front()].position;
  CHECK(across.x == Approx(0).margin(1e-9));
  const auto seen_front = axis(front, "cross.2"), seen_top = axis(top, "cross.2");
  CHECK(std::abs(seen_front.first.first - seen_front.second.first) < 0.1);
  CHECK((seen_top.first.second - seen_top.second.second > 0) == (across.y > 0));
}

TEST_CASE("What cannot be drawn is refused in words") {
  const Solved s = example("conveyor-trestle");
  const auto refusal = [&](const PictureOptions& o) {
    const auto bytes = draw(s.solution, o, ImageFormat::svg);
    REQUIRE_FALSE(bytes.ok());
    return bytes.error().text;
  };
  CHECK_THAT(refusal({.load_case = "storm"}), Contains("there is no load case or combination 'storm'"));
  CHECK_THAT(refusal({.width = 10}), Contains("from 200 to 10000"));
  CHECK_THAT(refusal({.height = 1e9}), Contains("from 200 to 10000"));
  CHECK_THAT(refusal({.only = {MemberId{99}}}), Contains("no such member"));
  auto model = read_model_text(
      "corvex: 1\nsections: {given: {shape: properties, A: 10 cm^2, Iz: 100 cm^4}}\npoints: {A: [0 m, 0 m], B: [1 m, 0 m]}\n"
      "members: {arm: {through: [A, B], section: given, material: S235}}\nsupports: {A: fixed}\n"
      "loads: {tip: [{at: B, force: {down: 1 kN}}]}\n",
      "given.yaml");
  REQUIRE(model.ok());
  const auto bytes = draw(solve(model->structure), {.of = PictureOf::section}, ImageFormat::svg);
  REQUIRE_FALSE(bytes.ok());
  CHECK_THAT(bytes.error().text, Contains("no shape to draw"));
}
