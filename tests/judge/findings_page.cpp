// docs/findings.md: every finding has a row and an example that raises it.
#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>
#include <map>

#include "support/models.hpp"

namespace tests_of_judge_findings_page {

using namespace corvex;
using namespace corvex::test;

namespace {

struct Page {
  std::map<std::string, std::string> rows, examples;  // by finding
};

Page page() {
  std::ifstream in(std::string(CORVEX_SOURCE) + "/docs/findings.md");
  REQUIRE(in);
  Page page;
  std::string heading;
  bool inside = false;
  for (std::string line; std::getline(in, line);) {
    if (line.rfind("### ", 0) == 0) heading = line.substr(4);
    if (line.rfind("| [", 0) == 0) page.rows[line.substr(3, line.find(']') - 3)] = line;
    if (line == "```") inside = false;
    if (inside && !heading.empty()) page.examples[heading] += line + "\n";
    if (line == "```yaml") inside = true;
  }
  return page;
}

}  // namespace

TEST_CASE("The page of findings lists each with its severity and an example that raises it") {
  static constexpr const char* severities[] = {"error", "warning", "note"};
  const Page p = page();
  CHECK(p.rows.size() == finding_kinds().size());
  std::ifstream schema(std::string(CORVEX_SOURCE) + "/share/corvex/model.schema.json");
  const std::string schema_text{std::istreambuf_iterator<char>(schema), {}};
  for (const FindingKind& k : finding_kinds())
    CHECK(schema_text.find('"' + std::string(k.name) + '"') != std::string::npos);
  for (const FindingKind& k : finding_kinds()) {
    INFO(k.name);
    REQUIRE(p.rows.contains(k.name));
    const std::string& row = p.rows.at(k.name);
    CHECK(row.find(std::string("| ") + severities[static_cast<std::size_t>(k.severity)] + " |") != std::string::npos);
    CHECK((row.find("| results |") != std::string::npos) == k.of_results);
    REQUIRE(p.examples.contains(k.name));
    const auto model = read_model_text(p.examples.at(k.name), "example.yaml");
    if (!model) {
      INFO(describe(model.error().front()));
      FAIL();
    }
    const Problems all = told(*model);
    std::string said;
    for (const Problem& f : all) said += describe(f) + "\n";
    INFO(said);
    const auto it = std::find_if(all.begin(), all.end(),
                                 [&](const Problem& f) { return f.finding == k.name && f.severity == k.severity; });
    REQUIRE(it != all.end());
    CHECK_FALSE(it->text.empty());
    CHECK(it->place.line > 0);
    // No mistake of the example is one that was not meant.
    const auto unmeant = [&](const Problem& f) {
      return f.severity == Problem::Severity::error && f.finding != k.name && k.severity != Problem::Severity::error;
    };
    CHECK(std::none_of(all.begin(), all.end(), unmeant));
  }
}

}  // namespace tests_of_judge_findings_page
