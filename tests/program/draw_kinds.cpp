// Pictures read back from their SVG: reactions, stress by face, envelopes, moments on either side, sheets of paper,
// words along bars.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/envelope.hpp>
#include <corvex/file.hpp>
#include <corvex/number.hpp>
#include <pugixml.hpp>

#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_draw_kinds {

using namespace corvex;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

const std::string examples = CORVEX_EXAMPLES "/cider-works/";

pugi::xml_document drawn(const std::string& call) {
  const Folder folder;
  const Outcome o = folder.run(call);
  INFO(call << ": " << o.err);
  REQUIRE(o.status == 0);
  pugi::xml_document svg;
  REQUIRE(svg.load_string(o.out.c_str()));
  return svg;
}

std::vector<std::pair<std::string, std::string>> texts(const pugi::xml_document& svg, const std::string& what) {
  std::vector<std::pair<std::string, std::string>> all;
  for (const auto& t : svg.select_nodes(("//text[@class='" + what + "']").c_str()))
    all.emplace_back(t.node().attribute("data-of").value(), t.node().text().get());
  return all;
}
bool says(const pugi::xml_document& svg, const std::string& what, const std::string& words) {
  const auto all = texts(svg, what);
  return std::any_of(all.begin(), all.end(), [&](const auto& t) { return t.second == words; });
}

// The points of the paths of one kind and one member.
std::vector<std::pair<double, double>> spots(const pugi::xml_document& svg, const std::string& what,
                                             const std::string& of) {
  std::vector<std::pair<double, double>> all;
  for (const auto& p : svg.select_nodes(("//path[@class='" + what + "'][@data-of='" + of + "']").c_str())) {
    std::string d = p.node().attribute("d").value();
    std::replace_if(
        d.begin(), d.end(), [](char c) { return c == 'M' || c == 'L' || c == 'Z'; }, ' ');
    const char* at = d.c_str();
    for (char* end = nullptr;; at = end) {
      const double x = std::strtod(at, &end);
      if (end == at) break;
      at = end;
      const double y = std::strtod(at, &end);
      all.emplace_back(x, y);
    }
  }
  return all;
}

struct Solved {
  Model model;
  Solution solution;
};
Solved example(const std::string& name) {
  auto model = read_model(examples + name + ".yaml");
  REQUIRE(model);
  Solution solution = solve(model->structure);
  return {std::move(model.value()), std::move(solution)};
}

}  // namespace

TEST_CASE("Reactions are drawn as arrows with their components, and both sums") {
  for (const char* name : {"conveyor-trestle", "tank-skid", "pipe-rack"}) {
    const Solved s = example(name);
    for (const std::size_t i : s.solution.assessed()) {
      const CaseResult c = s.solution[i];
      const auto svg = drawn("draw '" + examples + name + ".yaml' --what reactions --case '" + c.name() + "'");
      double most = 0;
      for (const PointSupport& p : s.model.structure.supports()) {
        const Reaction r = c.reaction(p.at);
        most = std::max({most, std::abs(r.x.si()), std::abs(r.y.si()), std::abs(r.z.si())});
      }
      const auto values = texts(svg, "reaction-value");
      std::size_t told = 0;
      for (const PointSupport& p : s.model.structure.supports()) {
        const Reaction r = c.reaction(p.at);
        const std::string point = s.model.structure[p.at].name;
        for (const auto& [axis, value] : {std::pair("x ", r.x.si()), {"y ", r.y.si()}, {"z ", r.z.si()}}) {
          if (std::abs(value) <= 1e-6 * most) continue;
          const std::string words = axis + number(value / s.model.units.force.si, 4);
          INFO(name << " " << c.name() << " " << point << ": " << words);
          CHECK(std::any_of(values.begin(), values.end(), [&](const auto& v) {
            return v.first == point && v.second.find(words) != std::string::npos;
          }));
          ++told;
        }
      }
      CHECK((told > 0 || most < 1e-6));
      const Reaction sum = c.balance().reacted;
      const auto legend = texts(svg, "legend");
      if (most > 1e-6 && std::abs(sum.y.si()) > 1e-6 * most)
        CHECK(std::any_of(legend.begin(), legend.end(), [&](const auto& t) {
          return t.second.find("y " + number(sum.y.si() / s.model.units.force.si, 4)) != std::string::npos;
        }));
    }
  }
}

TEST_CASE("An arrow of a reaction points where the support pushes") {
  const auto svg = drawn("draw '" + examples + "conveyor-trestle.yaml' --what reactions --case product");
  // The left foot pushes up and to the right: the tail stands below and left of the head.
  const auto left = spots(svg, "reaction", "A");
  REQUIRE(left.size() >= 5);
  CHECK(left[0].first < left[1].first);
  CHECK(left[0].second > left[1].second);
  const auto right = spots(svg, "reaction", "E");
  CHECK(right[0].first > right[1].first);
  CHECK(right[0].second > right[1].second);
}

TEST_CASE("Stress by face: the worst of both signs are those of the tables") {
  for (const char* name : {"conveyor-trestle", "press-frame", "walkway-beam"}) {
    const Solved s = example(name);
    const std::size_t i = governing_case(s.solution);
    const CaseResult c = s.solution[i];
    double tension = 0, compression = 0;
    for (std::size_t k = 0; k < s.model.structure.members().size(); ++k) {
      const MemberResult m = c[MemberId(k)];
      tension = std::max(tension, m.max_stress()->value.si());
      compression = std::min(compression, m.min_stress()->value.si());
    }
    const auto svg = drawn("draw '" + examples + name + ".yaml' --what faces");
    const auto values = texts(svg, "most-value");
    REQUIRE(values.size() == 2);
    INFO(name << " " << values[0].second << " " << values[1].second);
    for (const double wanted : {tension, compression})
      CHECK(std::any_of(values.begin(), values.end(), [&](const auto& v) {
        return v.second.starts_with(number(wanted / s.model.units.stress.si, 4) + " " + s.model.units.stress.text +
                                    " in ");
      }));
  }
}

TEST_CASE("Stress by face: each face has the colour of its sign, and compression is stroked") {
  // A cantilever with its load down: tension above, compression below.
  const Folder folder;
  folder.write("m.yaml",
               "units: {length: m, force: kN}\npoints: {A: [0, 0], B: [2, 0]}\nmembers: {arm: {through: [A, B], "
               "section: SHS 60x60x4, material: S235}}\nsupports: {A: fixed}\nloads: {tip: [{at: B, force: "
               "{down: 1}}]}\n");
  const Outcome o = folder.run("draw m.yaml --what faces");
  REQUIRE(o.status == 0);
  pugi::xml_document svg;
  REQUIRE(svg.load_string(o.out.c_str()));
  const auto axis = spots(svg, "member", "arm");
  const double y = axis.front().second;
  std::size_t above = 0, below = 0;
  for (const auto& p : svg.select_nodes("//path[@class='face']")) {
    const std::string fill = p.node().attribute("fill").value();
    const int red = std::stoi(fill.substr(1, 2), nullptr, 16), blue = std::stoi(fill.substr(5, 2), nullptr, 16);
    const std::string d = p.node().attribute("d").value();
    // The third corner lies on the outer edge.
    pugi::xml_document one;
    double low = 1e9, high = -1e9;
    for (std::size_t at = 1; at < d.size();) {
      char* end = nullptr;
      std::strtod(d.c_str() + at, &end);
      const double v = std::strtod(end, &end);
      low = std::min(low, v), high = std::max(high, v);
      at = d.find_first_of("0123456789", static_cast<std::size_t>(end - d.c_str()));
      if (at == std::string::npos) break;
    }
    const bool upper = low < y - 2;
    upper ? ++above : ++below;
    // Near the tip there is hardly any colour.
    if (std::abs(blue - red) > 16) CHECK((upper ? blue > red : red > blue));
  }
  CHECK(above > 3);
  CHECK(above == below);
  for (const auto& [x, at] : spots(svg, "compression", "arm")) CHECK(at >= y - 0.01);
  CHECK(spots(svg, "compression", "arm").size() > 4);
}

TEST_CASE("The envelope is drawn with the case that governs each extreme") {
  const Solved s = example("conveyor-trestle");
  for (const auto& [what, range] :
       {std::pair<const char*, Range MemberEnvelope::*>{"moment", &MemberEnvelope::moment_z},
        {"shear", &MemberEnvelope::shear_y},
        {"axial", &MemberEnvelope::axial}}) {
    const auto svg = drawn("draw '" + examples + "conveyor-trestle.yaml' --case envelope --what " + what);
    const MemberEnvelope rail = envelope(s.solution, "rail");
    const auto values = texts(svg, "envelope-value");
    const NamedUnit& unit = std::string(what) == "moment" ? s.model.units.moment : s.model.units.force;
    double most = 0;
    for (const char* member : {"rail", "left leg", "right leg"}) {
      const MemberEnvelope e = envelope(s.solution, member);
      most = std::max({most, std::abs((e.*range).max.value.si), std::abs((e.*range).min.value.si)});
    }
    for (const GoverningExtreme& e : {(rail.*range).max, (rail.*range).min}) {
      if (std::abs(e.value.si) < 0.06 * most) continue;
      const std::string words = number(e.value.si / unit.si, 4) + " " + unit.text + " (" + e.load_case + ")";
      INFO(what << ": " << words);
      CHECK(std::any_of(values.begin(), values.end(),
                        [&](const auto& v) { return v.first == "rail" && v.second == words; }));
    }
    // One line above the other, seen from the member.
    CHECK(spots(svg, "envelope-max", "rail").size() == spots(svg, "envelope-min", "rail").size());
  }
  // Of stress the worst of all cases, and which it is.
  const auto use = drawn("draw '" + examples + "conveyor-trestle.yaml' --case envelope --what utilisation");
  const auto worst = texts(use, "most-value");
  REQUIRE(worst.size() == 1);
  const MemberEnvelope rail = envelope(s.solution, "rail");
  CHECK_THAT(worst[0].second, Contains(number(100 / *rail.safety, 3) + " %") && Contains(" in product"));
  const Folder folder;
  for (const char* what :
       {"structure", "deformed", "section --member rail", "sheet --member rail", "reactions", "faces"}) {
    const Outcome o =
        folder.run("draw '" + examples + "conveyor-trestle.yaml' --case envelope --what " + std::string(what));
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains("an envelope has no such picture"));
  }
}

TEST_CASE("Moments stand on the side of tension, or of compression") {
  const std::string call = "draw '" + examples + "conveyor-trestle.yaml' --what moment --case product";
  const auto pulled = spots(drawn(call), "moment-line", "rail");
  const auto pressed = spots(drawn(call + " --moment-side compression"), "moment-line", "rail");
  REQUIRE(pulled.size() == pressed.size());
  const double axis = spots(drawn(call), "member", "rail").front().second;
  double most = 0;
  for (std::size_t i = 0; i < pulled.size(); ++i) {
    CHECK(pulled[i].first == Approx(pressed[i].first).margin(0.02));
    CHECK(pulled[i].second - axis == Approx(axis - pressed[i].second).margin(0.02));
    most = std::max(most, std::abs(pulled[i].second - axis));
  }
  CHECK(most > 10);
  CHECK(says(drawn(call + " --moment-side compression"), "legend",
             "On the compression side; positive blue, negative orange"));
  const Folder folder;
  CHECK(folder.run(call + " --moment-side left").status == 2);
}

TEST_CASE("Pictures are as large as sheets of paper, with the letters of a drawing office") {
  for (const auto& [size, width, height] :
       {std::tuple("a3", 420.0, 297.0), {"a4", 297.0, 210.0}, {"a5", 210.0, 148.0}}) {
    const auto svg = drawn("draw '" + examples + "conveyor-trestle.yaml' --size " + size);
    const double pixel = 25.4 / 96;
    CHECK(svg.child("svg").attribute("width").as_double() * pixel == Approx(width).margin(0.01));
    CHECK(svg.child("svg").attribute("height").as_double() * pixel == Approx(height).margin(0.01));
    // Capitals of DejaVu Sans are 0.729 of the size: 2.5 mm.
    const pugi::xml_node name = svg.select_node("//text[@class='point-name']").node();
    CHECK(name.attribute("font-size").as_double() * 0.729 * pixel == Approx(2.5).margin(0.01));
  }
}

TEST_CASE("The force of a bar is written along it") {
  const auto svg = drawn("draw '" + examples + "pipe-rack.yaml' --what axial --case pipes");
  const Solved s = example("pipe-rack");
  std::size_t along = 0;
  for (const auto& t : svg.select_nodes("//text[@class='axial-value'][@transform]")) {
    const std::string of = t.node().attribute("data-of").value(), turn = t.node().attribute("transform").value();
    const Structure& structure = s.model.structure;
    const Member& m = structure[*structure.find_member(of)];
    const Vector d = structure.axis_end(m) - structure.axis_start(m);
    const double angle = std::strtod(turn.c_str() + turn.find('(') + 1, nullptr);
    // Downwards on the page is clockwise; words are read from the left.
    double wanted = std::atan2(-d.y, d.x) * 180 / 3.14159265358979;
    if (wanted > 90.001) wanted -= 180;
    if (wanted < -90.001) wanted += 180;
    INFO(of);
    CHECK(angle == Approx(wanted).margin(0.01));
    const double force = s.solution["pipes"][of].axial().max().value.si();
    CHECK_THAT(t.node().text().get(), Contains(force > 0 ? "tension" : "compression"));
    ++along;
  }
  CHECK(along >= 4);
}

}  // namespace tests_of_program_draw_kinds
