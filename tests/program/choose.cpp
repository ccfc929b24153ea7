// `choose`: the lightest listed sections, held against an exhaustive search; what cannot be chosen; the model that it
// writes.
#include <algorithm>
#include <catch2/catch.hpp>
#include <corvex/export.hpp>
#include <corvex/file.hpp>

#include "support/models.hpp"
#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_choose {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::test;
using Catch::Matchers::Contains;
using Json = nlohmann::json;

namespace {

const std::string limited_trestle = trestle + "limits: [{safety: 1.5}, {sag: 1/300}, {movement: 8 mm, at: C}]\n";
const std::string choosing = R"(choose:
  leg:  {from: SHS, height: at most 80 mm}
  rail: {from: [RHS, SHS], height: 40 mm to 100 mm}
)";

// The masses of all choices that meet every limit, each solved alone.
std::vector<double> exhaustive(const Structure& s, const Choosing& wanted) {
  std::vector<double> masses;
  std::vector<std::size_t> pick(wanted.groups.size(), 0);
  for (bool more = true; more;) {
    Structure other = s;
    for (std::size_t g = 0; g < pick.size(); ++g)
      other.replace_section(wanted.groups[g].section, wanted.groups[g].from[pick[g]]);
    const Solution solution = solve(other);
    const auto check = check_limits(solution, wanted.limits);
    REQUIRE(check.ok());
    if (check->all_met()) masses.push_back(other.mass()->si());
    more = false;
    for (std::size_t g = 0; g < pick.size() && !more; ++g) {
      more = ++pick[g] < wanted.groups[g].from.size();
      if (!more) pick[g] = 0;
    }
  }
  std::sort(masses.begin(), masses.end());
  return masses;
}

std::vector<Profile> some(const char* series, std::size_t first, std::size_t step, std::size_t count) {
  const std::vector<Profile> all = profiles_of(series);
  std::vector<Profile> chosen;
  for (std::size_t i = first; i < all.size() && chosen.size() < count; i += step) chosen.push_back(all[i]);
  return chosen;
}

}  // namespace

TEST_CASE("The lightest choice is that of an exhaustive search, and so are the runners-up") {
  const auto model = read_model_text(limited_trestle, "trestle.yaml");
  REQUIRE(model);
  for (const auto& [first, step] : {std::pair<std::size_t, std::size_t>{0, 5}, {3, 7}, {1, 11}}) {
    Choosing wanted{.groups = {{"leg", some("SHS", first, step, 9)}, {"rail", some("RHS", first, step, 12)}},
                    .limits = model->limits};
    const std::vector<double> masses = exhaustive(model->structure, wanted);
    for (const unsigned threads : {1u, 2u, 5u}) {
      wanted.threads = threads;
      const auto choice = choose(model->structure, wanted);
      REQUIRE(choice.ok());
      CHECK(choice->proven);
      CHECK(choice->possible == 9 * wanted.groups[1].from.size());
      REQUIRE(choice->found.size() == std::min<std::size_t>(4, masses.size()));
      for (std::size_t i = 0; i < choice->found.size(); ++i)
        CHECK(choice->found[i].mass.si() == Approx(masses[i]).epsilon(1e-12));
    }
  }
}

TEST_CASE("The result does not depend on the number of threads") {
  const auto model = read_model_text(limited_trestle + choosing, "trestle.yaml");
  REQUIRE(model);
  std::vector<std::string> first;
  for (const unsigned threads : {1u, 3u, 8u}) {
    Choosing wanted{.groups = model->choose, .limits = model->limits, .threads = threads};
    const auto choice = choose(model->structure, wanted);
    REQUIRE(choice.ok());
    if (first.empty()) first = choice->found.front().designations;
    CHECK(choice->found.front().designations == first);
  }
}

TEST_CASE("A search that is stopped says that nothing is proven") {
  const auto model = read_model_text(limited_trestle + choosing, "trestle.yaml");
  REQUIRE(model);
  Choosing wanted{.groups = model->choose, .limits = model->limits};
  wanted.most_tried = 20;
  auto choice = choose(model->structure, wanted);
  REQUIRE(choice.ok());
  CHECK(choice->found.empty());
  CHECK_FALSE(choice->proven);
  CHECK(choice->tried == 20);
  wanted.most_tried = 200000;
  wanted.stop = [] { return true; };
  choice = choose(model->structure, wanted);
  CHECK_FALSE(choice->proven);
  CHECK(choice->tried == 0);
}

TEST_CASE("choose prints what it found, and writes the model with it") {
  const Folder folder;
  folder.write("model.yaml", limited_trestle + choosing);
  const Outcome o = folder.run("choose model.yaml -o chosen.yaml");
  CHECK(o.status == 0);
  CHECK_THAT(o.out, Contains("The lightest of") && Contains("lightest") && Contains("runner-up"));
  const Json j = Json::parse(folder.run("choose model.yaml --json").out);
  CHECK(j["format"] == "corvex-choice");
  CHECK(j["proven"] == true);
  const std::string rail = j["lightest"]["sections"]["rail"];
  CHECK_THAT(folder.content("chosen.yaml"), Contains("rail: " + rail));
  const Outcome solved = folder.run("solve chosen.yaml --json");
  CHECK(solved.status == 0);
  CHECK(Json::parse(solved.out)["model"]["mass"].get<double>() == Approx(j["lightest"]["mass"].get<double>()));
  // Written once more, nothing changes.
  CHECK(folder.run("choose chosen.yaml -o again.yaml").status == 0);
  CHECK(folder.content("again.yaml") == folder.content("chosen.yaml"));
  // Standard input is read once.
  CHECK(folder.run("choose - -o piped.yaml", folder.content("model.yaml")).status == 0);
  CHECK(folder.content("piped.yaml") == folder.content("chosen.yaml"));
  CHECK(folder.run("choose model.yaml --runners-up 0 --format csv").out.find("runner-up") == std::string::npos);
}

TEST_CASE("Every model that ships is written again with its values, and answers the same") {
  for (const NamedModel& m : shipped_models()) {
    const auto document = read_document_text(m.text, m.name);
    REQUIRE(document);
    const auto text = changed_text(*document, {});
    REQUIRE(text.ok());
    const auto again = read_model_text(*text, m.name);
    INFO(m.name << "\n" << *text << (again ? "" : describe(again.error().front())));
    REQUIRE(again);
    const Solution a = solve(build(*document)->structure), b = solve(again->structure);
    CHECK(results_json({.solution = a}) == results_json({.solution = b}));
  }
}

TEST_CASE("What cannot be chosen is refused") {
  const Folder folder;
  const auto refused = [&](const std::string& model, const std::string& words) {
    folder.write("model.yaml", model);
    const Outcome o = folder.run("choose model.yaml -o chosen.yaml");
    INFO(o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(words));
    CHECK_FALSE(folder.has("chosen.yaml"));
  };
  refused(limited_trestle, "the model has nothing to choose");
  refused(limited_trestle + "choose: {lag: {from: SHS}}\n", "there is no section 'lag'; did you mean 'leg'?");
  refused(limited_trestle + "choose: {leg: {from: SSH}}\n", "did you mean 'SHS'?");
  refused(limited_trestle + "choose: {leg: {from: SHS, height: 500 mm to 600 mm}}\n",
          "no listed profile of these series lies within these bounds");
  refused(limited_trestle + "choose: {leg: {from: SHS, height: 60 mm}}\n",
          "a range was expected, for example 60 mm to 100 mm");
  refused(limited_trestle + "choose: {leg: {from: SHS, height: 2 kg to 3 kg}}\n", "is a mass");
  refused(limited_trestle + "choose: {leg: {height: at most 60 mm}}\n", "'from'");
  refused(limited_trestle + "choose: {leg: {from: []}}\n", "the name of a series was expected");
  std::string three =
      limited_trestle +
      "choose: {leg: {from: [SHS, RHS, CHS]}, rail: {from: [SHS, RHS, CHS]}, other: {from: [SHS, RHS, CHS]}}\n";
  three.replace(three.find("  rail: RHS 80x40x4"), 19, "  rail: RHS 80x40x4\n  other: SHS 60x60x4");
  three.replace(three.find("[E, D], section: leg"), 20, "[E, D], section: other");
  refused(three, "are more than can be tried");
  std::string without = limited_trestle + choosing;
  without.erase(without.find("limits:"), without.find("choose:") - without.find("limits:"));
  refused(without, "the model has no limits to be met");
  // Nothing holds: all were tried.
  std::string hard = limited_trestle + "choose: {leg: {from: SHS, height: at most 30 mm}}\n";
  hard.replace(hard.find("safety: 1.5"), 11, "safety: 90");
  folder.write("hard.yaml", hard);
  const Outcome o = folder.run("choose hard.yaml -o chosen.yaml");
  CHECK(o.status == 1);
  CHECK_THAT(o.out, Contains("No choice meets all limits"));
  CHECK_FALSE(folder.has("chosen.yaml"));
}

TEST_CASE("Three groups of thirty sections: the choice is that of an exhaustive search of all 27,000") {
  std::string three = limited_trestle;
  three.replace(three.find("  rail: RHS 80x40x4"), 19, "  rail: RHS 80x40x4\n  other: SHS 60x60x4");
  three.replace(three.find("[E, D], section: leg"), 20, "[E, D], section: other");
  const auto model = read_model_text(three, "three.yaml");
  REQUIRE(model.ok());
  const Choosing wanted{
      .groups = {{"leg", some("SHS", 2, 3, 30)}, {"rail", some("RHS", 1, 4, 30)}, {"other", some("SHS", 3, 4, 30)}},
      .limits = model->limits};
  const auto choice = choose(model->structure, wanted);
  REQUIRE(choice.ok());
  CHECK(choice->proven);
  CHECK(choice->possible == 27000);
  CHECK(choice->tried < 27000);
  const std::vector<double> masses = exhaustive(model->structure, wanted);
  REQUIRE(choice->found.size() == 4);
  for (std::size_t i = 0; i < 4; ++i) CHECK(choice->found[i].mass.si() == Approx(masses[i]).epsilon(1e-12));
}

}  // namespace tests_of_program_choose
