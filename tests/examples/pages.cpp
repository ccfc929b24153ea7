// The tutorial and the cookbook: their models are sound and agree with their hand calculations, variants too, and their
// commands print what the pages show.
#include <algorithm>
#include <catch2/catch.hpp>
#include <corvex/file.hpp>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "support/models.hpp"
#include "support/program.hpp"

namespace tests_of_examples_pages {

using namespace corvex;
using namespace corvex::test;
namespace fs = std::filesystem;

namespace {

// Runs of blanks are one: a page may be narrower than a terminal.
std::string squeezed(const std::string& text) {
  std::string out;
  for (const char c : text)
    if (c != ' ' || (!out.empty() && out.back() != ' ')) out += c == '\n' ? ' ' : c;
  std::string once;
  for (const char c : out)
    if (c != ' ' || (!once.empty() && once.back() != ' ')) once += c;
  return once;
}

// The commands of a page, each with the lines that it shows.
struct Shown {
  std::string command;
  std::vector<std::string> lines;
};
std::vector<Shown> consoles(const std::string& page) {
  std::istringstream in(page);
  std::vector<Shown> all;
  bool inside = false;
  for (std::string line; std::getline(in, line);) {
    if (line == "```console") {
      inside = true;
    } else if (line == "```") {
      inside = false;
    } else if (inside && line.starts_with("$ corvex ")) {
      all.push_back({line.substr(9), {}});
    } else if (inside && !line.empty()) {
      REQUIRE(!all.empty());
      all.back().lines.push_back(line);
    }
  }
  return all;
}

// `complete`: every model of the folder is on the page.
void check_page(const std::string& page, const std::string& models, std::size_t least, bool complete = true) {
  const std::string text = content_of(fs::path(CORVEX_SOURCE) / "docs" / page);
  const Folder folder;
  for (const auto& entry : fs::directory_iterator(fs::path(CORVEX_SOURCE) / "examples" / models)) {
    const std::string name = entry.path().filename().string();
    folder.write(name, content_of(entry.path()));
    INFO(name << " is not on the page");
    CHECK((!complete || text.find("examples/" + models + "/" + name) != std::string::npos));
  }
  const std::vector<Shown> all = consoles(text);
  CHECK(all.size() >= least);
  for (const Shown& shown : all) {
    const Outcome o = folder.run(shown.command, "", "export COLUMNS=100;");
    INFO(shown.command << "\n" << o.out << o.err);
    CHECK(o.status == 0);
    for (const std::string& line : shown.lines) {
      INFO(line);
      CHECK(squeezed(o.out).find(squeezed(line)) != std::string::npos);
    }
  }
}

}  // namespace

TEST_CASE("The commands of the tutorial print what it shows") {
  check_page("tutorial.md", "tutorial", 7);
}

TEST_CASE("The commands of the cookbook print what it shows") {
  check_page("cookbook.md", "cookbook", 9);
}

TEST_CASE("The commands of the comparison with a hand calculation print what it shows") {
  check_page("hand-calculation.md", "cookbook", 3, false);
}

TEST_CASE("What the tutorial builds up is the model that it names") {
  const std::string page = content_of(fs::path(CORVEX_SOURCE) / "docs/tutorial.md");
  const std::string model = squeezed(content_of(fs::path(CORVEX_SOURCE) / "examples/tutorial/stand.yaml"));
  std::istringstream in(page);
  bool inside = false;
  std::size_t lines = 0;
  for (std::string line; std::getline(in, line);) {
    if (line.starts_with("```")) {
      inside = line == "```yaml";
      continue;
    }
    if (!inside || line.empty()) continue;
    ++lines;
    // A remark may be left out, and a note.
    std::string wanted = squeezed(line);
    if (wanted.ends_with("}") && wanted.find("within: 2 %") != std::string::npos) wanted.pop_back();
    INFO(line);
    CHECK(model.find(wanted) != std::string::npos);
  }
  CHECK(lines > 30);
}

TEST_CASE("Models of the tutorial and the cookbook and of stability are sound, and agree by hand with every variant") {
  std::size_t models = 0, values = 0;
  for (const char* part : {"tutorial", "cookbook", "stability"})
    for (const auto& entry : fs::directory_iterator(fs::path(CORVEX_SOURCE) / "examples" / part)) {
      const auto document = read_document(entry.path().string());
      REQUIRE(document);
      std::vector<std::string> variants = document->variants();
      variants.insert(variants.begin(), "");
      for (const std::string& variant : variants) {
        INFO(entry.path().filename().string() << " " << variant);
        const auto model = build(*document, {.variant = variant});
        REQUIRE(model);
        const Solution solution = solve(model->structure);
        REQUIRE(solution.ok());
        const auto hand = verify(solution, model->hand);
        REQUIRE(hand);
        for (const Comparison& c : hand->comparisons) {
          INFO(c.what);
          CHECK(c.agrees);
          ++values;
        }
        const auto limits = check_limits(solution, model->limits);
        REQUIRE(limits);
        // One variant shows a limit that is exceeded, one a limit that is not checked.
        const std::string of = entry.path().stem().string() + ", " + variant;
        if (of == "slender-prop, fuller bin")
          CHECK(limits->count(Verdict::State::exceeded) == 1);
        else if (of == "slender-prop, without the wall")
          CHECK(limits->count(Verdict::State::not_checked) == 1);
        else
          CHECK(limits->all_met());
        if (!variant.empty()) continue;
        CHECK(!hand->comparisons.empty());
        for (const Problem& p : told(*model)) {
          INFO(describe(p));
          CHECK((p.severity == Problem::Severity::note || p.is_accepted()));
        }
      }
      ++models;
    }
  CHECK(models >= 10);
  CHECK(values >= 35);
}

}  // namespace tests_of_examples_pages
