// Runs commands of the shell in tests of what is installed.
#pragma once

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>

namespace corvex::test {

inline std::string content(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::stringstream all;
  all << in.rdbuf();
  return all.str();
}

// A folder that is gone with this object, and commands run in it.
class Workshop {
 public:
  Workshop() {
    std::string name = (std::filesystem::temp_directory_path() / "corvex-install-XXXXXX").string();
    REQUIRE(mkdtemp(name.data()));
    path_ = name;
  }
  ~Workshop() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
  }
  Workshop(const Workshop&) = delete;
  Workshop& operator=(const Workshop&) = delete;

  const std::filesystem::path& path() const { return path_; }
  void write(const std::string& name, const std::string& text) const { std::ofstream(path_ / name) << text; }
  // What it printed; the test fails where the command does.
  std::string run(const std::string& command) const {
    const int status = std::system(("cd '" + path_.string() + "' && { " + command + "; } >.out 2>&1").c_str());
    std::string said = content(path_ / ".out");
    INFO(command << "\n" << said);
    REQUIRE(status == 0);
    return said;
  }

 private:
  std::filesystem::path path_;
};

}  // namespace corvex::test
