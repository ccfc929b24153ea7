// The documents: links and headings, contents, and one reference place for each option.
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include "support/program.hpp"

namespace tests_of_examples_documents {

using namespace corvex;
using namespace corvex::test;
namespace fs = std::filesystem;

namespace {

const fs::path source(CORVEX_SOURCE);

std::vector<fs::path> documents() {
  std::vector<fs::path> all;
  for (const char* name : {"README.md", "CONTRIBUTING.md", "SECURITY.md", "CHANGELOG.md"}) all.push_back(source / name);
  for (const auto& entry : fs::directory_iterator(source / "docs"))
    if (entry.path().extension() == ".md") all.push_back(entry.path());
  REQUIRE(all.size() > 15);
  return all;
}

// Without blocks of code.
std::string prose(const std::string& page) {
  std::istringstream in(page);
  std::string text;
  bool code = false;
  for (std::string line; std::getline(in, line);) {
    if (line.rfind("```", 0) == 0) code = !code;
    text += (code ? "" : line) + "\n";
  }
  return text;
}

// As hosts of Markdown make it: lower case, letters, digits and hyphens.
std::string anchor(const std::string& heading) {
  std::string text;
  for (const char c : heading) {
    if (std::isalnum(static_cast<unsigned char>(c)) || c == '-' || c == '_')
      text += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    else if (c == ' ')
      text += '-';
  }
  return text;
}

std::vector<std::string> headings(const std::string& page, const std::string& level) {
  std::vector<std::string> all;
  std::istringstream in(prose(page));
  for (std::string line; std::getline(in, line);)
    if (line.rfind(level + " ", 0) == 0) all.push_back(line.substr(level.size() + 1));
  return all;
}

std::set<std::string> anchors(const std::string& page) {
  std::set<std::string> all;
  for (const char* level : {"#", "##", "###", "####"})
    for (const std::string& heading : headings(page, level)) {
      CAPTURE(heading);
      CHECK(all.insert(anchor(heading)).second);
    }
  return all;
}

struct Link {
  std::string file, anchor;
};
std::vector<Link> links(const std::string& page) {
  std::vector<Link> all;
  const std::string text = prose(page);
  static const std::regex link(R"(\]\(([^)\s]+)\))");
  for (auto it = std::sregex_iterator(text.begin(), text.end(), link); it != std::sregex_iterator(); ++it) {
    const std::string target = (*it)[1];
    if (target.find("://") != std::string::npos || target.rfind("mailto:", 0) == 0) continue;
    const std::size_t hash = target.find('#');
    all.push_back({target.substr(0, hash), hash == std::string::npos ? "" : target.substr(hash + 1)});
  }
  return all;
}

}  // namespace

TEST_CASE("Every link of the documents leads to a file and a heading that exist") {
  std::map<std::string, std::set<std::string>> known;
  std::size_t count = 0;
  for (const fs::path& document : documents()) {
    for (const Link& link : links(content_of(document))) {
      const fs::path target = link.file.empty() ? document : (document.parent_path() / link.file).lexically_normal();
      INFO(document.filename().string() << " -> " << link.file << "#" << link.anchor);
      CHECK(fs::exists(target));
      ++count;
      if (link.anchor.empty() || target.extension() != ".md" || !fs::exists(target)) continue;
      auto [it, fresh] = known.try_emplace(target.string());
      if (fresh) it->second = anchors(content_of(target));
      CHECK(it->second.count(link.anchor) == 1);
    }
  }
  CHECK(count > 250);
}

TEST_CASE("Long documents have contents with all of their sections") {
  std::size_t with = 0;
  for (const fs::path& document : documents()) {
    const std::string page = content_of(document);
    const std::size_t begin = page.find("**Contents:**");
    const bool is_long = std::count(page.begin(), page.end(), '\n') > 120;
    const bool needs = is_long && document.filename() != "README.md" && document.filename() != "trust.md";
    INFO(document.filename().string());
    CHECK((begin != std::string::npos || !needs));
    if (begin == std::string::npos) continue;
    ++with;
    const std::string contents = page.substr(begin, page.find("\n\n", begin) - begin);
    for (const std::string& heading : headings(page, "##")) {
      INFO(heading);
      CHECK(contents.find("(#" + anchor(heading) + ")") != std::string::npos);
    }
  }
  CHECK(with >= 8);
}

namespace {

// The long names of the options that the help of a command lists, `-o` for the output file.
std::set<std::string> options_of(const Folder& folder, const std::string& command) {
  const std::string help = folder.run(command + " --help").out;
  std::set<std::string> all;
  static const std::regex option(R"((^|\n)  (-o,)?(--[a-zA-Z-]+))");
  for (auto it = std::sregex_iterator(help.begin(), help.end(), option); it != std::sregex_iterator(); ++it)
    all.insert((*it)[2].matched ? "-o" : std::string((*it)[3]));
  return all;
}

// The options in the first column of the tables of a section of docs/commands.md.
std::multiset<std::string> documented(const std::string& page, const std::string& heading) {
  const std::size_t begin = page.find("\n## " + heading + "\n");
  REQUIRE(begin != std::string::npos);
  std::istringstream in(page.substr(begin, page.find("\n## ", begin + 5) - begin));
  std::multiset<std::string> all;
  static const std::regex option(R"(`(--?[a-zA-Z-]+))");
  for (std::string line; std::getline(in, line);) {
    if (line.rfind("| `-", 0) != 0) continue;
    const std::string cell = line.substr(1, line.find(" | ", 2));
    for (auto it = std::sregex_iterator(cell.begin(), cell.end(), option); it != std::sregex_iterator(); ++it)
      all.insert((*it)[1]);
  }
  return all;
}

}  // namespace

TEST_CASE("Every option of the program stands in one place of docs/commands.md") {
  const Folder folder;
  const std::string page = content_of(source / "docs/commands.md");
  const std::multiset<std::string> common = documented(page, "Common options");
  for (const std::string& option : common) CHECK(common.count(option) == 1);
  std::size_t count = 0;
  for (const char* command : {"new", "inspect", "solve", "trace", "modes", "verify", "derive", "compare", "sweep",
                              "choose", "draw", "view", "report", "catalogue", "demo"}) {
    INFO(command);
    const std::multiset<std::string> own = documented(page, command);
    const std::set<std::string> options = options_of(folder, command);
    for (const std::string& option : options) {
      if (option == "--help") continue;
      INFO(option);
      CHECK(own.count(option) <= 1);
      CHECK(own.count(option) + common.count(option) >= 1);
      ++count;
    }
    // No option that the command does not have.
    for (const std::string& option : own) {
      INFO(option);
      CHECK((options.count(option) == 1 || options.count("--output") + (option == "-o") == 2));
    }
  }
  CHECK(count > 120);
}

TEST_CASE("Every limit, unit and analysis key stands in docs/model-file.md") {
  const std::string page = content_of(source / "docs/model-file.md");
  for (const char* limit : {"safety", "sag", "drift", "movement", "buckling", "frequency", "range", "most", "least",
                            "outside", "between"}) {
    INFO(limit);
    const std::size_t begin = page.find("\n## Limits\n"), end = page.find("\n## Requested modes");
    REQUIRE(begin < end);
    CHECK(page.substr(begin, end - begin).find(limit) != std::string::npos);
  }
  for (const char* unit : {"m g N Pa rad s Hz", "K tonne in ft lb lbf kip psi ksi kgf deg degC degF rpm %"})
    CHECK(page.find(unit) != std::string::npos);
  for (const char* order : {"`first`", "`second`", "`large`", "`sway`", "`bow`", "toward"})
    CHECK(page.find(order) != std::string::npos);
}

}  // namespace tests_of_examples_documents
