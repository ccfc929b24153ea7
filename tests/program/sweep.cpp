// `sweep`: every figure is that of the changed model solved alone; the order of the runs; tables; plots that are read
// back; what cannot be varied.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <corvex/file.hpp>
#include <random>
#include <regex>

#include "support/models.hpp"
#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_sweep {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::test;
using Catch::Matchers::Contains;
using Json = nlohmann::json;

namespace {

const std::string limits = "limits: [{safety: 1.5}, {movement: 6 mm, at: C, part: y}]\n";
const std::string sweeps = R"(sweeps:
  wall:
    vary: {wall: {from: 2 mm, to: 5 mm, count: 4}, span: [2 m, 3 m]}
    show: [{safety: all}, {displacement: C, part: y}, {moment: rail, take: min, case: product}, {mass: total}]
  rail:
    vary: {/sections/rail: [RHS 60x40x3, RHS 80x40x4, SHS 80x80x5]}
    show: [{stress: rail}, {safety: rail, case: push}]
  both:
    vary: {span: [2 m, 2500 mm, 3 m], wall: [2 mm, 3 mm, 4 mm]}
    together: yes
    show: [{sag: left leg}]
)";

// Figures of the model with these values, each asked for alone.
std::vector<std::optional<Quantity>> alone(const ModelDocument& document, const Sweep& sweep, const Picks& picks) {
  Overrides with;
  for (std::size_t i = 0; i < picks.size(); ++i) {
    const Varied& v = sweep.vary[i];
    if (v.name.starts_with('/'))
      with.set.emplace_back(v.name, v.values[picks[i]].words);
    else
      with.parameters[v.name] = v.values[picks[i]].words;
  }
  const auto model = build(document, with);
  REQUIRE(model.ok());
  const Solution solution = solve(model->structure);
  REQUIRE(solution.ok());
  std::vector<std::optional<Quantity>> values;
  for (const ShownFigure& f : sweep.show) {
    if (f.figure.kind == Figure::Kind::mass) {
      values.emplace_back(Quantity(*model->structure.mass()));
      continue;
    }
    std::optional<Quantity> worst;
    const auto take = [&](const Quantity& q, bool before) {
      if (!worst || before) worst = q;
    };
    for (const std::size_t c : solution.assessed()) {
      const CaseResult r = solution[c];
      if (!f.load_case.empty() && r.name() != f.load_case) continue;
      for (const Member& member : model->structure.members()) {
        const MemberResult m = r[member.name];
        if (f.figure.of != "all" && f.figure.of != member.name && f.figure.kind != Figure::Kind::displacement) continue;
        switch (f.figure.kind) {
          case Figure::Kind::safety:
            if (const auto s = m.safety()) take(Quantity(*s, dimension::number), *s < worst.value_or(Quantity{}).si);
            break;
          case Figure::Kind::stress:
            for (const auto& e : {m.max_stress(), m.min_stress()})
              if (e)
                take(Quantity(std::abs(e->value.si()), dimension::stress),
                     std::abs(e->value.si()) > worst.value_or(Quantity{}).si);
            break;
          case Figure::Kind::sag: take(m.sag().value, m.sag().value.si > worst.value_or(Quantity{}).si); break;
          case Figure::Kind::moment_z: {
            const Quantity low = m.moment_z().min().value;
            take(low, low.si < worst.value_or(Quantity{}).si);
            break;
          }
          case Figure::Kind::displacement: {
            const Length y = r.displacement(f.figure.of).y;
            take(y, std::abs(y.si()) > std::abs(worst.value_or(Quantity{}).si));
            break;
          }
          default: FAIL("this figure is not asked for here");
        }
      }
    }
    values.push_back(worst);
  }
  return values;
}

void check_runs(const ModelDocument& document, const Sweep& s, const std::vector<SweepRun>& runs) {
  REQUIRE(runs.size() == run_count(s));
  for (const SweepRun& run : runs) {
    REQUIRE(run.refused.empty());
    const auto expected = alone(document, s, run.picks);
    for (std::size_t i = 0; i < expected.size(); ++i) {
      INFO(words(s.show[i]));
      REQUIRE(run.shown[i].has_value() == expected[i].has_value());
      if (expected[i]) CHECK(run.shown[i]->si == expected[i]->si);
    }
  }
}

// The numbers of a path or line of an SVG, two by two.
std::vector<std::pair<double, double>> spots(const std::string& d) {
  static const std::regex number("-?[0-9.]+(e-?[0-9]+)?");
  std::vector<double> all;
  for (std::sregex_iterator i(d.begin(), d.end(), number), end; i != end; ++i) all.push_back(std::stod(i->str()));
  std::vector<std::pair<double, double>> found;
  for (std::size_t i = 0; i + 1 < all.size(); i += 2) found.emplace_back(all[i], all[i + 1]);
  return found;
}
std::vector<std::string> paths(const std::string& svg, const std::string& what) {
  const std::regex path("<path class=\"" + what + "\"[^>]* d=\"([^\"]*)\"");
  std::vector<std::string> found;
  for (std::sregex_iterator i(svg.begin(), svg.end(), path), end; i != end; ++i) found.push_back((*i)[1]);
  return found;
}

}  // namespace

TEST_CASE("Every figure of a sweep is that of the changed model solved alone, on any number of threads") {
  const auto document = read_document_text(trestle + limits + sweeps, "model.yaml");
  REQUIRE(document.ok());
  const auto model = build(*document);
  REQUIRE(model.ok());
  REQUIRE(model->sweeps.size() == 3);
  for (const Sweep& s : model->sweeps)
    for (const unsigned threads : {1u, 2u, 5u}) {
      const auto runs = sweep(*document, {}, s, {.threads = threads});
      REQUIRE(runs.ok());
      check_runs(*document, s, *runs);
    }
}

TEST_CASE("So it is for every model that ships, whatever is varied") {
  std::mt19937 random(7);
  std::size_t swept = 0;
  for (const NamedModel& shipped : shipped_models()) {
    const auto document = read_document_text(shipped.text, shipped.name);
    REQUIRE(document.ok());
    const auto model = build(*document);
    if (!model || !solve(model->structure).ok() || model->structure.sections().empty()) continue;
    Sweep s{.name = "random"};
    for (const auto& [name, formula] : document->parameters()) {
      if (s.vary.size() == 2) break;
      const auto share = [&] { return std::uniform_real_distribution(0.9, 1.1)(random); };
      s.vary.push_back({.name = name, .values = {formula, fmt::format("{}*({})", share(), formula)}});
    }
    const auto& sections = model->structure.sections();
    const std::string section =
        sections[std::uniform_int_distribution<std::size_t>(0, sections.size() - 1)(random)].name;
    if (section.find_first_of("/~ ") == std::string::npos && shipped.text.find("\nsections:") != std::string::npos)
      s.vary.push_back({.name = "/sections/" + section, .values = {"SHS 60x60x4", "IPE 140"}});
    s.show = {{.figure = {.kind = Figure::Kind::safety, .of = "all"}},
              {.figure = {.kind = Figure::Kind::sag, .of = "all"}}};
    if (s.vary.empty()) continue;
    INFO(shipped.name);
    auto runs = sweep(*document, {}, s);
    REQUIRE(runs.ok());
    // Some values suit no hinge or joint of their model; those runs say so.
    std::erase_if(runs.value(), [](const SweepRun& r) { return !r.refused.empty(); });
    swept += runs->size();
    for (const SweepRun& run : *runs) {
      const auto expected = alone(*document, s, run.picks);
      for (std::size_t i = 0; i < expected.size(); ++i) {
        REQUIRE(run.shown[i].has_value() == expected[i].has_value());
        if (expected[i]) CHECK(run.shown[i]->si == expected[i]->si);
      }
    }
  }
  CHECK(swept > 100);
}

TEST_CASE("The program prints a sweep as a table, as CSV, as JSON, as a spreadsheet") {
  const Folder folder;
  folder.write("model.yaml", trestle + limits + sweeps);
  const Json all = Json::parse(folder.run("sweep model.yaml wall --json").out);
  CHECK(all["format"] == "corvex-sweep");
  REQUIRE(all["runs"].size() == 8);
  // The last thing that is varied changes fastest.
  CHECK(all["runs"][1]["values"] == Json{{"wall", 0.002}, {"span", 3.0}});
  CHECK(all["runs"][2]["values"] == Json{{"wall", 0.003}, {"span", 2.0}});
  for (const Json& run : all["runs"]) {
    const double wall = run["values"]["wall"], span = run["values"]["span"];
    const std::string set = fmt::format(" --set 'wall={} mm' --set 'span={} m'", wall * 1e3, span);
    const Json one = Json::parse(folder.run("solve model.yaml --json" + set).out);
    CHECK(run["shown"]["mass total"] == one["model"]["mass"]);
    double safety = 1e300;
    for (const Json& m : one["cases"]["envelope"]["members"])
      if (!m["safety"].is_null()) safety = std::min(safety, m["safety"].get<double>());
    CHECK(run["shown"]["safety all"].get<double>() == Approx(safety).epsilon(1e-12));
  }
  const Outcome text = folder.run("sweep model.yaml both");
  CHECK(text.status == 0);
  CHECK_THAT(text.out, Contains("Sweep 'both': 3 runs") && Contains("sag left leg"));
  CHECK_THAT(folder.run("sweep model.yaml rail --format csv").out,
             Contains("/sections/rail,stress rail [MPa],safety rail in push") && Contains("SHS 80x80x5,"));
  CHECK(folder.run("sweep model.yaml wall -o wall.xlsx").status == 0);
  CHECK(folder.content("wall.xlsx").substr(0, 2) == "PK");
  CHECK_THAT(folder.run("sweep model.yaml wall --format markdown").out, Contains("| wall"));
}

TEST_CASE("Evenly spaced values are round numbers in the unit of the first") {
  const auto document = read_document_text(
      trestle + "sweeps: {w: {vary: {wall: {from: 2 mm, to: 0.26 cm, count: 7}}, show: [{mass: total}]}}\n",
      "model.yaml");
  REQUIRE(document.ok());
  const auto model = build(*document);
  REQUIRE(model.ok());
  std::vector<std::string> words;
  for (const SweptValue& v : model->sweeps[0].vary[0].values) words.push_back(v.words);
  CHECK(words == std::vector<std::string>{"2 mm", "2.1 mm", "2.2 mm", "2.3 mm", "2.4 mm", "2.5 mm", "2.6 mm"});
}

TEST_CASE("A run that cannot be solved says why, and the others stand") {
  const Folder folder;
  folder.write("model.yaml", trestle + "sweeps: {w: {vary: {wall: [3 mm, 31 mm, 4 mm]}, show: [{safety: all}]}}\n");
  const Outcome o = folder.run("sweep model.yaml");
  CHECK(o.status == 1);
  CHECK_THAT(o.err, Contains("wall = 31 mm"));
  CHECK_THAT(o.out, Contains("cannot be solved: "));
  const Json all = Json::parse(folder.run("sweep model.yaml --json").out);
  CHECK(all["runs"][0]["refused"].is_null());
  CHECK(all["runs"][1]["refused"].is_string());
  CHECK(all["runs"][1]["shown"]["safety all"].is_null());
  CHECK(all["runs"][2]["shown"]["safety all"].is_number());
}

TEST_CASE("In a plot the curves, the limits and the marks stand where the figures say") {
  const Folder folder;
  folder.write("model.yaml", trestle + limits + sweeps);
  const Json all = Json::parse(folder.run("sweep model.yaml wall --json").out);
  const Outcome o = folder.run("sweep model.yaml wall -o wall.svg");
  INFO(o.err);
  REQUIRE(o.status == 0);
  const std::string svg = folder.content("wall.svg");
  CHECK(paths(svg, "curve").size() == 8);  // two spans in four panels
  CHECK(paths(svg, "limit").size() == 2);
  std::size_t unmet = 0;
  for (const Json& run : all["runs"]) unmet += !run["limits_met"];
  CHECK(paths(svg, "run-not-met").size() == 4 * unmet);
  CHECK(paths(svg, "run").size() == 4 * (8 - unmet));
  // The first two curves are those of safety; the limit is a level line between the marks that it divides.
  const double limit = spots(paths(svg, "limit")[0])[0].second;
  for (std::size_t span = 0; span < 2; ++span) {
    const auto curve = spots(paths(svg, "curve")[span]);
    REQUIRE(curve.size() == 4);
    for (std::size_t i = 0; i < 4; ++i) {
      const double safety = all["runs"][2 * i + span]["shown"]["safety all"];
      CHECK((curve[i].second < limit) == (safety > 1.5));
      // Places are in proportion to the values.
      const double first = all["runs"][span]["shown"]["safety all"];
      if (i > 0)
        CHECK((curve[0].second - curve[i].second) / (limit - curve[0].second) ==
              Approx((safety - first) / (first - 1.5)).epsilon(0.02));
    }
  }
  CHECK_THAT(svg, Contains(">wall [mm]<") && Contains(">at least 1.5<") && Contains(">at most 6 mm<") &&
                      Contains(">span = 3 m<"));
  for (const auto& [file, begin] : {std::pair<std::string, std::string>{"a.png", "\x89PNG"}, {"a.pdf", "%PDF"}}) {
    CHECK(folder.run("sweep model.yaml rail --dark --size 640x400 -o " + file).status == 0);
    CHECK(folder.content(file).substr(0, 4) == begin);
  }
}

TEST_CASE("A sweep that cannot be is refused, and nothing is written") {
  struct Case {
    std::string sweep, why;
  };
  const std::string show = ", show: [{safety: all}]}}";
  for (const auto& [text, why] :
       {Case{"{w: {vary: {wal: [2 mm]}" + show, "there is no parameter 'wal'; did you mean 'wall'?"},
        {"{w: {vary: {/sections/rial: [SHS 60x60x4]}" + show, "there is no 'rial' in sections; did you mean 'rail'?"},
        {"{w: {vary: {/sektions/rail: [SHS 60x60x4]}" + show, "did you mean 'sections'?"},
        {"{w: {vary: {wall: []}" + show, "at least one value was expected"},
        {"{w: {vary: {}" + show, "there is nothing to vary"},
        {"{w: {vary: {wall: [2 mm, 3 kN]}" + show, "'3 kN' is a force, but the parameter 'wall' is a length"},
        {"{w: {vary: {wall: [2 mmm]}" + show, "mmm"},
        {"{w: {vary: {wall: {from: 2 mm, to: 3 kN, count: 3}}" + show, "from is a length and to is a force"},
        {"{w: {vary: {wall: {from: 2 mm, to: 3 mm, count: 1}}" + show, "at least two values were expected"},
        {"{w: {vary: {wall: {from: 2 mm, to: 3 mm}}" + show, "count"},
        {"{w: {vary: {wall: {from: 2 mm, to: 3 mm, count: 1000}, span: {from: 2 m, to: 3 m, count: 10000}}" + show,
         "10000000 combinations are more than can be solved (100000)"},
        {"{w: {vary: {wall: [2 mm, 3 mm], span: [2 m]}, together: yes" + show, "'wall' has 2 and 'span' has 1"},
        {"{w: {vary: {wall: [2 mm]}, show: []}}", "shows at least one figure"},
        {"{w: {vary: {wall: [2 mm]}}}", "show"},
        {"{w: {vary: {wall: [2 mm]}, show: [{safty: all}]}}", "did you mean 'safety'?"},
        {"{w: {vary: {wall: [2 mm]}, show: [{safety: rial}]}}", "there is no member 'rial'; did you mean 'rail'?"},
        {"{w: {vary: {wall: [2 mm]}, show: [{safety: all, take: max}]}}", "the safety factor has one value"},
        {"{w: {vary: {wall: [2 mm]}, show: [{moment: all, at: 1 m}]}}", "a place needs one member"},
        {"{w: {vary: {/sections/rail: [IPE 205]}" + show, "IPE 205"}}) {
    const Folder folder;
    folder.write("model.yaml", trestle + limits + "sweeps: " + text + "\n");
    const Outcome o = folder.run("sweep model.yaml -o out.csv");
    INFO(text << "\n" << o.err << o.out);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(why));
    CHECK_FALSE(folder.has("out.csv"));
  }
  const Folder folder;
  folder.write("model.yaml", trestle + limits + sweeps);
  folder.write("none.yaml", trestle + limits);
  for (const auto& [arguments, why] :
       {std::pair<std::string, std::string>{"model.yaml wal", "there is no sweep 'wal'; did you mean 'wall'?"},
        {"model.yaml", "several sweeps; name one: wall, rail, both"},
        {"none.yaml", "the model has no sweeps"},
        {"model.yaml wall --json -o a.svg", "is a picture"},
        {"model.yaml wall --dark", "--dark is for a plot"},
        {"model.yaml wall --size 3 -o a.svg", "width and height in pixels"}}) {
    const Outcome o = folder.run("sweep " + arguments);
    INFO(arguments);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(why));
    CHECK(o.out.empty());
    CHECK_FALSE(folder.has("a.svg"));
  }
}

TEST_CASE("Variants are drawn upon each other as each is drawn alone") {
  const Folder folder;
  folder.write("model.yaml", trestle + limits + R"(variants:
  pinned: {members: {rail: {hinge: both}}}
  short: {parameters: {span: 1.8 m}}
)");
  const std::string both =
      folder.run("draw model.yaml --variants pinned --what deformed --scale 20 --case product").out;
  const std::string alone =
      folder.run("draw model.yaml --variant pinned --what deformed --scale 20 --case product").out;
  const auto layers = paths(both, "layer");
  REQUIRE(layers.size() == 6);
  const auto own = paths(alone, "deformed");
  REQUIRE(own.size() == 3);
  CHECK(std::vector<std::string>(layers.begin() + 3, layers.end()) == own);
  CHECK_THAT(both, Contains("original: ") && Contains("pinned: ") && Contains("stroke-dasharray"));
  // Beside each other at one scale: the same lengths for the same movements and members.
  const Outcome sides =
      folder.run("draw model.yaml --variants all --side-by-side --what moment --case product -o s.svg");
  INFO(sides.err);
  REQUIRE(sides.status == 0);
  std::vector<double> lengths;
  const std::string svg = folder.content("s.svg");
  for (const std::string& d : paths(svg, "member"))
    if (const auto s = spots(d); std::abs(s[0].second - s[1].second) < 0.1) lengths.push_back(s[1].first - s[0].first);
  REQUIRE(lengths.size() == 3);
  CHECK(lengths[1] == Approx(lengths[0]).epsilon(1e-3));
  CHECK(lengths[2] == Approx(lengths[0] * 1.8 / 2.4).epsilon(1e-3));
  for (const auto& [arguments, why] :
       {std::pair<std::string, std::string>{"--variants all", "can be overlaid"},
        {"--variants pined --what moment", "did you mean 'pinned'?"},
        {"--side-by-side", "goes with --variants"},
        {"--variants all --variant pinned --what moment", "several with the original model"},
        {"--variants all --what sheet --member rail --side-by-side", "one member of one model"}}) {
    const Outcome o = folder.run("draw model.yaml " + arguments);
    INFO(arguments);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(why));
  }
}

TEST_CASE("Sweeps over structures of a program") {
  const auto build_frame = [](Length wall) {
    Structure s = Structure::plane("beam");
    const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
    const auto beam = s.member(
        "beam", {a, b}, {.section = s.section("tube", SquareTube{.width = 60_mm, .wall = wall}), .material = "S235"});
    s.support(a, Support::pinned());
    s.support(b, Support::roller());
    s.load_case("people").line(beam, LineForce{.y = -2_kN_per_m});
    return s;
  };
  const Sweep s{.name = "wall",
                .vary = {{.name = "wall", .values = {2_mm, 3_mm, 4_mm}}},
                .show = {{.figure = {.kind = Figure::Kind::sag, .of = "beam"}}}};
  const auto runs = sweep(s, [&](const Picks& picks) {
    return Candidate{.structure = build_frame(Length::si(s.vary[0].values[picks[0]].quantity->si)),
                     .limits = {{.kind = Limit::Kind::sag, .required = 1.0 / 300}}};
  });
  REQUIRE(runs.ok());
  for (std::size_t i = 0; i < 3; ++i) {
    const Structure frame = build_frame(Length::si(s.vary[0].values[i].quantity->si));
    CHECK((*runs)[i].shown[0]->si == solve(frame)["people"]["beam"].sag().value.si);
    CHECK((*runs)[i].required[0]->si == Approx(2.0 / 300));
    CHECK((*runs)[i].limits_met == ((*runs)[i].shown[0]->si <= 2.0 / 300));
  }
  // What is thrown by the calling program comes back to it.
  CHECK_THROWS_AS(sweep(s, [](const Picks&) -> Candidate { throw std::runtime_error("mine"); }), std::runtime_error);
  CHECK_FALSE(
      sweep(Sweep{.name = "none"}, [&](const Picks&) { return Candidate{.structure = build_frame(3_mm)}; }).ok());
}

}  // namespace tests_of_program_sweep
