// The data of the page: no text of a model can end the element that it stands in.
#include "view/data.hpp"

#include <catch2/catch.hpp>

namespace tests_of_view_data {

using namespace corvex;

TEST_CASE("Texts of a model cannot leave the data of the page") {
  const std::string text = view::for_script({{"name", "</script><script>alert(1)</script><!--"}});
  CHECK(text.find("</") == std::string::npos);
  CHECK(text.find("<!--") == std::string::npos);
  CHECK(view::Json::parse(text)["name"] == "</script><script>alert(1)</script><!--");
}

TEST_CASE("Findings name the members and points that they are about") {
  Problem p{"a and b cross", {Subject::Kind::member, "a"}};
  p.others.push_back({Subject::Kind::member, "b"});
  p.others.push_back({Subject::Kind::load_case, "wind"});
  p.severity = Problem::Severity::note;
  const view::Json data = view::problems_data({p});
  REQUIRE(data.size() == 1);
  CHECK(data[0]["on"] == view::Json::array({"a", "b"}));
  CHECK(data[0]["severity"] == "note");
  CHECK(data[0]["text"] == "a and b cross");
}

}  // namespace tests_of_view_data
