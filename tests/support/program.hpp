// Runs the program as a user does, in a folder of its own.
#pragma once

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>

namespace corvex::test {

struct Outcome {
  int status = -1;
  std::string out, err;
};

// A folder that is gone with this object.
class Folder {
 public:
  Folder();
  ~Folder();
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;

  const std::filesystem::path& path() const { return path_; }
  // Writes a file; its name.
  std::string write(const std::string& name, const std::string& content) const;
  std::string content(const std::string& name) const;
  bool has(const std::string& name) const { return std::filesystem::exists(path_ / name); }
  // `arguments` as for a shell; `before` may set variables.
  Outcome run(const std::string& arguments, const std::string& input = "", const std::string& before = "") const;

 private:
  std::filesystem::path path_;
};

// The whole of a file; fails the test where it cannot be read.
std::string content_of(const std::filesystem::path& file);

// Solves a model and reads the results back; fails the test where the program refuses.
nlohmann::json solved(const std::string& model, int places = 0);

}  // namespace corvex::test
