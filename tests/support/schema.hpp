// The published schemas, and what they say of a document.
#pragma once

#include <memory>
#include <nlohmann/json.hpp>
#include <string>

namespace corvex::test {

class Schema {
 public:
  // A file in share/corvex.
  explicit Schema(const std::string& file);
  ~Schema();

  // What is wrong with a document; empty if it is accepted.
  std::string refusal(const nlohmann::json& document) const;
  const nlohmann::json& json() const;

 private:
  struct Parsed;
  std::unique_ptr<Parsed> parsed_;
};

// Results and traces as JSON are what their schema says; fails the test where they are not. Other text is left alone.
void check_results(const std::string& printed);

}  // namespace corvex::test
