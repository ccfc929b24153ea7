// The lightest sections as JSON.
#include "corvex/export.hpp"
#include "file/findings_json.hpp"
#include "file/json.hpp"

namespace corvex {

std::string choice_json(const SectionChoice& choice, const std::vector<ChoiceGroup>& groups) {
  using file::Json;
  const auto one = [&](const FoundChoice& found) {
    Json sections = Json::object();
    for (std::size_t g = 0; g < groups.size(); ++g) sections[groups[g].section] = found.designations[g];
    return Json{{"sections", std::move(sections)},
                {"mass", found.mass.si()},
                {"warnings", file::findings_list(found.warnings)}};
  };
  Json j = {{"format", "corvex-choice"}, {"version", 1}};
  j["lightest"] = choice.found.empty() ? Json(nullptr) : one(choice.found.front());
  j["runners_up"] = Json::array();
  for (std::size_t i = 1; i < choice.found.size(); ++i) j["runners_up"].push_back(one(choice.found[i]));
  j["proven"] = choice.proven;
  j["tried"] = choice.tried;
  j["possible"] = choice.possible;
  return file::json_text(j);
}

}  // namespace corvex
