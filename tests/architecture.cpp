// The rooms of the library: each includes only rooms above it, and the core has no files, no terminal, no
// drawing.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>
#include <string>
#include <vector>

namespace tests_of_architecture {

namespace {

namespace fs = std::filesystem;

// Lowest first. The solver (beam to analysis), inspect and hand do not know each other.
const std::vector<std::string> rooms = {
    "quantity",      "algebra",   "outline", "stress_field", "section", "structure", "inspect", "beam",
    "linear_system", "mechanism", "modes",   "analysis",     "result",  "stability", "hand",    "judge",
    "study",         "format",    "file",    "document",     "picture", "report",    "view",    "serve"};
const std::size_t core_ends = 18;
const std::set<std::string> solver = {"beam", "linear_system", "mechanism", "modes", "analysis"};

// The folder to which each public header belongs: the one that implements what it declares.
const std::map<std::string, std::string> public_headers = {{"dimension", "quantity"},  {"expected", "quantity"},
                                                           {"formula", "quantity"},    {"model_units", "quantity"},
                                                           {"number", "quantity"},     {"printable", "quantity"},
                                                           {"quantity", "quantity"},   {"stop", "quantity"},
                                                           {"vector", "quantity"},     {"version", "quantity"},
                                                           {"catalogue", "section"},   {"section", "section"},
                                                           {"acting", "structure"},    {"displacement", "structure"},
                                                           {"load_case", "structure"}, {"load_words", "structure"},
                                                           {"material", "structure"},  {"placement", "structure"},
                                                           {"problem", "structure"},   {"structure", "structure"},
                                                           {"finding", "inspect"},     {"diagram", "result"},
                                                           {"envelope", "result"},     {"figures", "result"},
                                                           {"solution", "result"},     {"trace", "result"},
                                                           {"modes", "stability"},     {"stability", "stability"},
                                                           {"derive", "hand"},         {"hand", "hand"},
                                                           {"evaluation", "judge"},    {"findings", "judge"},
                                                           {"limits", "judge"},        {"choose", "study"},
                                                           {"compare", "study"},       {"sweep", "study"},
                                                           {"export", "file"},         {"formula_text", "format"},
                                                           {"file", "file"},           {"writing", "file"},
                                                           {"document", "document"},   {"page", "document"},
                                                           {"picture", "picture"},     {"report", "report"},
                                                           {"view", "view"},           {"page_server", "serve"}};

std::size_t room_of(const std::string& name) {
  return static_cast<std::size_t>(std::find(rooms.begin(), rooms.end(), name) - rooms.begin());
}

// What is included, as written: "beam/span.hpp" with its quotes, <fstream> with its brackets.
std::vector<std::string> includes(const fs::path& file) {
  std::ifstream in(file);
  std::vector<std::string> all;
  for (std::string line; std::getline(in, line);)
    if (line.rfind("#include ", 0) == 0) all.push_back(line.substr(9, line.find_first_of(">\"", 10) - 8));
  return all;
}

template <class Check>
void for_sources(const fs::path& folder, const Check& check) {
  std::size_t seen = 0;
  for (const auto& entry : fs::recursive_directory_iterator(folder)) {
    const std::string end = entry.path().extension().string();
    if (end != ".cpp" && end != ".hpp") continue;
    ++seen;
    check(entry.path());
  }
  CHECK(seen > 10);
}

}  // namespace

TEST_CASE("A room includes only rooms above it") {
  for_sources(fs::path(CORVEX_SOURCE) / "src", [](const fs::path& file) {
    const std::string own = file.parent_path().filename().string();
    REQUIRE(room_of(own) < rooms.size());
    for (const std::string& name : includes(file)) {
      if (name.front() != '"') continue;
      INFO(file << " includes " << name);
      std::string other = name.substr(1, name.find('/') - 1);
      if (other == "corvex") other = public_headers.at(fs::path(name.substr(1, name.size() - 2)).stem().string());
      REQUIRE(room_of(other) < rooms.size());
      CHECK(room_of(other) <= room_of(own));
      const auto part = [](const std::string& r) { return solver.contains(r) ? std::string("solver") : r; };
      const auto apart = [&](const std::string& r) { return r == "inspect" || part(r) == "solver" || r == "hand"; };
      CHECK((part(own) == part(other) || !apart(own) || !apart(other)));
    }
  });
}

TEST_CASE("A public header includes only those of folders above its own") {
  std::size_t seen = 0;
  for (const auto& entry : fs::directory_iterator(fs::path(CORVEX_SOURCE) / "include/corvex")) {
    const std::string header = entry.path().stem().string();
    if (header == "corvex") continue;
    INFO(header);
    REQUIRE(public_headers.contains(header));
    ++seen;
    for (const std::string& name : includes(entry.path())) {
      if (name.rfind("\"corvex/", 0) != 0) continue;
      INFO("includes " << name);
      const std::string other = fs::path(name.substr(1, name.size() - 2)).stem().string();
      CHECK(room_of(public_headers.at(other)) <= room_of(public_headers.at(header)));
    }
  }
  CHECK(seen == public_headers.size());
}

TEST_CASE("The library names no option of the program") {
  for_sources(fs::path(CORVEX_SOURCE) / "src", [](const fs::path& file) {
    std::ifstream in(file);
    std::size_t number = 0;
    for (std::string line; std::getline(in, line);) {
      ++number;
      INFO(file << ":" << number << ": " << line);
      // A text with a word after two minus signs; comments may explain.
      const std::size_t comment = line.find("//"), at = line.find("--");
      if (at == std::string::npos || at > comment || at + 2 >= line.size() || !std::islower(line[at + 2])) continue;
      CHECK(line.rfind('"', at) == std::string::npos);
    }
  });
}

TEST_CASE("The core has no files, no terminal, no drawing") {
  for_sources(fs::path(CORVEX_SOURCE) / "src", [](const fs::path& file) {
    if (room_of(file.parent_path().filename().string()) >= core_ends) return;
    for (const std::string& name : includes(file)) {
      INFO(file << " includes " << name);
      for (const char* outside :
           {"<fstream>", "<iostream>", "<cstdio>", "<filesystem>", "<yaml.h>", "\"corvex/file.hpp\""})
        // The header of Scotch speaks of FILE, which nothing here uses.
        if (file.filename() != "ordering.cpp") CHECK(name != outside);
    }
  });
}

TEST_CASE("Public headers are light, and open with what they are") {
  for_sources(fs::path(CORVEX_SOURCE) / "include", [](const fs::path& file) {
    for (const std::string& name : includes(file)) {
      INFO(file << " includes " << name);
      for (const char* heavy : {"Eigen", "fmt", "nlohmann", "yaml", "iostream", "regex", "dmumps"})
        CHECK(name.find(heavy) == std::string::npos);
    }
    std::ifstream in(file);
    std::string line;
    std::getline(in, line);
    INFO(file << " begins with " << line);
    CHECK(line.rfind("// Corvex: ", 0) == 0);
  });
}

}  // namespace tests_of_architecture
