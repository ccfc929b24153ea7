// The manual page and the completion list every command and every option that the help of the program lists.
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

std::set<std::string> commands(const Workshop& shop) {
  const std::string help = shop.run(program + "--help");
  return found(help.substr(help.find("\nDescribe:")), "\n  ([a-z]+) ");
}

}  // namespace

TEST_CASE("The manual page has every command and option") {
  const Workshop shop;
  std::string page = content(CORVEX_BUILD "/packaging/corvex.1");
  page = std::regex_replace(page, std::regex("\\\\-"), "-");
  REQUIRE(commands(shop).size() >= 3);
  for (const std::string& command : commands(shop)) {
    CHECK_THAT(page, Catch::Contains(".SS " + command + "\n"));
    for (const std::string& option : found(shop.run(program + command + " --help"), "(--[a-z]+)"))
      CHECK_THAT(page, Catch::Contains(option));
  }
}

TEST_CASE("The manual page is sound to the formatter") {
  const Workshop shop;
  const std::string warnings = shop.run("groff -man -Tutf8 -ww -z '" CORVEX_BUILD "/packaging/corvex.1'");
  CHECK(warnings.empty());
}

TEST_CASE("The shell completes commands, options and models") {
  const Workshop shop;
  shop.write("trestle.yaml", "");
  shop.write("notes.txt", "");
  shop.run("mkdir models");
  const auto completed = [&](const std::string& words, int at) {
    shop.write("ask.sh", "shopt -s extglob\n. '" CORVEX_BUILD "/packaging/corvex.bash-completion'\nCOMP_WORDS=(" +
                             words + ")\nCOMP_CWORD=" + std::to_string(at) +
                             "\n_corvex\nprintf '%s\\n' \"${COMPREPLY[@]}\"\n");
    return found(shop.run("bash ask.sh"), "([^\n]+)");
  };
  std::set<std::string> first = commands(shop);
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
  for (const std::string& command : commands(shop)) {
    std::set<std::string> options = found(shop.run(program + command + " --help"), "(--[a-z]+(?:-[A-Za-z]+)*)");
    if (command == "solve") CHECK(options.count("--places") == 1);
    CHECK(completed("corvex " + command + " --", 2) == options);
  }
}
