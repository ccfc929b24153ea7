// The manual page and the completion know every verb and every option that the program itself tells.
#include <regex>
#include <set>

#include "support.hpp"

using corvex::test::content;
using corvex::test::Workshop;

namespace {

const std::string program = std::string("'") + CORVEX_PROGRAM + "' ";

std::set<std::string> found(const std::string& text, const std::string& pattern) {
  std::set<std::string> all;
  const std::regex expression(pattern);
  for (std::sregex_iterator it(text.begin(), text.end(), expression), end; it != end; ++it) all.insert((*it)[1]);
  return all;
}

// The words after "Verbs:".
std::set<std::string> verbs(const Workshop& shop) {
  const std::string help = shop.run(program + "--help");
  return found(help.substr(help.find("Verbs:")), "\n  ([a-z]+) ");
}

}  // namespace

TEST_CASE("The manual page has every verb and option") {
  const Workshop shop;
  std::string page = content(CORVEX_SOURCE "/packaging/corvex.1");
  page = std::regex_replace(page, std::regex("\\\\-"), "-");
  REQUIRE(verbs(shop).size() >= 3);
  for (const std::string& verb : verbs(shop)) {
    CHECK_THAT(page, Catch::Contains(".B " + verb + "\n"));
    for (const std::string& option : found(shop.run(program + verb + " --help"), "(--[a-z]+)"))
      CHECK_THAT(page, Catch::Contains(option));
  }
}

TEST_CASE("The manual page is sound to the formatter") {
  const Workshop shop;
  const std::string warnings = shop.run("groff -man -Tutf8 -ww -z '" CORVEX_SOURCE "/packaging/corvex.1'");
  CHECK(warnings.empty());
}

TEST_CASE("The shell completes verbs, options and models") {
  const Workshop shop;
  shop.write("trestle.yaml", "");
  shop.write("notes.txt", "");
  shop.run("mkdir models");
  const auto completed = [&](const std::string& words, int at) {
    shop.write("ask.sh", "shopt -s extglob\n. '" CORVEX_SOURCE "/packaging/corvex.bash-completion'\nCOMP_WORDS=(" +
                             words + ")\nCOMP_CWORD=" + std::to_string(at) +
                             "\n_corvex\nprintf '%s\\n' \"${COMPREPLY[@]}\"\n");
    return found(shop.run("bash ask.sh"), "([^\n]+)");
  };
  std::set<std::string> first = verbs(shop);
  first.insert({"--help", "--version"});
  CHECK(completed("corvex ''", 1) == first);
  CHECK(completed("corvex so", 1) == std::set<std::string>{"solve"});
  CHECK(completed("corvex solve t", 2) == std::set<std::string>{"trestle.yaml"});
  CHECK(completed("corvex solve ''", 2) == std::set<std::string>{"trestle.yaml", "models"});
  CHECK(completed("corvex demo ''", 2) == std::set<std::string>{"--help", "models"});
  // Names of the model that the line has.
  shop.write("rack.yaml",
             "corvex: 1\npoints: {A: [0, 0], B: [2 m, 0], far end: [3 m, 0]}\nmembers:\n  rail: {through: [A, B]}\n"
             "  # a comment\n  right leg:\n    through: [B, far end]\nloads:\n  dead: [{gravity: down}]\n  snow: []\n"
             "combinations: {service: {dead: 1, snow: 1.5}}\n");
  CHECK(completed("corvex solve rack.yaml --case ''", 4) ==
        std::set<std::string>{"dead", "snow", "service", "envelope"});
  CHECK(completed("corvex solve rack.yaml --member r", 4) == std::set<std::string>{"rail", "right\\ leg"});
  CHECK(completed("corvex solve rack.yaml --point ''", 4) == std::set<std::string>{"A", "B", "far\\ end"});
  CHECK(completed("corvex trace rack.yaml ''", 3) == std::set<std::string>{"rail", "right\\ leg"});
  shop.run("rm rack.yaml");
  for (const std::string& verb : verbs(shop)) {
    std::set<std::string> options = found(shop.run(program + verb + " --help"), "(--[a-z]+(?:-[A-Za-z]+)*)");
    if (verb == "solve") CHECK(options.count("--places") == 1);
    CHECK(completed("corvex " + verb + " --", 2) == options);
  }
}
