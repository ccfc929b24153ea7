#include "support/program.hpp"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <sstream>

#include "support/schema.hpp"

namespace corvex::test {
namespace {

std::string read(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::stringstream all;
  all << in.rdbuf();
  return all.str();
}

}  // namespace

Folder::Folder() {
  std::string name = (std::filesystem::temp_directory_path() / "corvex-test-XXXXXX").string();
  if (!mkdtemp(name.data())) throw std::runtime_error("no folder for the test");
  path_ = name;
}

Folder::~Folder() {
  std::error_code ignored;
  std::filesystem::remove_all(path_, ignored);
}

std::string Folder::write(const std::string& name, const std::string& content) const {
  std::ofstream(path_ / name, std::ios::binary) << content;
  return name;
}

std::string Folder::content(const std::string& name) const {
  std::string text = read(path_ / name);
  if (name.ends_with(".json")) check_results(text);
  return text;
}

Outcome Folder::run(const std::string& arguments, const std::string& input, const std::string& before) const {
  // Beside the folder, so that it holds only what the program wrote.
  const std::string beside = path_.string();
  std::ofstream(beside + ".in", std::ios::binary) << input;
  // Tables stand as wide as they are, unless a test says how wide the page is.
  const std::string width = before.find("COLUMNS") == std::string::npos ? "export COLUMNS=0; " : "";
  const std::string command = "cd '" + path_.string() + "' && " + width + before + " '" CORVEX_PROGRAM "' " +
                              arguments + " <'" + beside + ".in' >'" + beside + ".out' 2>'" + beside + ".err'";
  const int code = std::system(command.c_str());
  Outcome o{WIFEXITED(code) ? WEXITSTATUS(code) : -1, read(beside + ".out"), read(beside + ".err")};
  for (const char* end : {".in", ".out", ".err"}) std::filesystem::remove(beside + end);
  if (o.status != 2) check_results(o.out);
  return o;
}

std::string content_of(const std::filesystem::path& file) {
  INFO(file.string());
  REQUIRE(std::filesystem::is_regular_file(file));
  return read(file);
}

nlohmann::json solved(const std::string& model, int places) {
  const Folder folder;
  folder.write("model.yaml", model);
  const Outcome o = folder.run("solve model.yaml --json" + (places ? " --places " + std::to_string(places) : ""));
  INFO(o.err);
  REQUIRE(o.status == 0);
  return nlohmann::json::parse(o.out);
}

}  // namespace corvex::test
