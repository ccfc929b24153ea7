// docs/bounds.md says what the messages say.
#include "file/bounds.hpp"

#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <fstream>
#include <sstream>

#include "file/file_text.hpp"
#include "file/tree.hpp"
#include "hand/force_method.hpp"
#include "structure/checks.hpp"

namespace tests_of_file_bounds {

using Catch::Matchers::Contains;

namespace {

std::string page() {
  std::ifstream in(CORVEX_SOURCE "/docs/bounds.md");
  std::stringstream text;
  text << in.rdbuf();
  return text.str();
}

std::string with_commas(std::size_t n) {
  std::string digits = std::to_string(n);
  for (int at = static_cast<int>(digits.size()) - 3; at > 0; at -= 3) digits.insert(static_cast<std::size_t>(at), ",");
  return digits;
}

}  // namespace

TEST_CASE("The page of bounds has those that are checked") {
  using namespace corvex;
  const std::string text = page();
  CHECK_THAT(text, Contains("| points of a model | " + with_commas(file::most_points) + " |"));
  CHECK_THAT(text, Contains("| members of a model | " + with_commas(file::most_members) + " |"));
  CHECK_THAT(text, Contains("| points of one member | " + with_commas(file::most_points_of_member) + " |"));
  CHECK_THAT(text, Contains("| loads | " + with_commas(file::most_loads) + " |"));
  CHECK_THAT(text, Contains("| errors reported | " + with_commas(file::most_problems) + " |"));
  CHECK_THAT(text, Contains(fmt::format("| a name | {} bytes, one line |", longest_name)));
  CHECK_THAT(text, Contains(fmt::format("{} MiB |", file::largest_file >> 20)));
  CHECK_THAT(text, Contains("| one text in a model file | " + with_commas(file::Tree::scalar_limit) + " bytes |"));
  CHECK_THAT(text, Contains(fmt::format("| redundants of a derivation | {} |", most_redundants)));
  CHECK_THAT(text, Contains(fmt::format("| unknown forces of a derivation | {} |", hand::most_unknowns)));
  CHECK_THAT(text, Contains(fmt::format("| nested lists and maps | {} |", file::Tree::depth_limit)));
}

}  // namespace tests_of_file_bounds
