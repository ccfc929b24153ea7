// The lightest sections that meet every limit.
#include <fmt/format.h>

#include "corvex/document.hpp"
#include "document/number.hpp"

namespace corvex::document {

Page choice_page(const std::string& title, const ModelUnits& units, const SectionChoice& choice,
                 const std::vector<ChoiceGroup>& groups) {
  Page page{Heading{title}};
  std::string words;
  if (choice.found.empty())
    words = choice.proven ? fmt::format("No choice meets all limits: all {} were tried.", choice.possible)
                          : fmt::format("No result: {} of {} choices were tried.", choice.tried, choice.possible);
  else
    words = fmt::format("The lightest of {} choices that meets all limits; {} were tried, in the order of mass.",
                        choice.possible, choice.tried);
  page.emplace_back(Words{{{"", words, choice.found.empty() ? Tone::bad : Tone::good}}});
  if (choice.found.empty()) return page;
  Table t{.name = "choices", .title = "Choices that meet all limits"};
  t.columns = {words_column("")};
  t.columns.front().data_head = "rank";
  for (const ChoiceGroup& g : groups) t.columns.push_back(words_column(g.section));
  t.columns.push_back(number_column("mass", units.mass.text));
  for (std::size_t i = 0; i < choice.found.size(); ++i) {
    std::vector<Cell> cells{i == 0 ? "lightest" : "runner-up"};
    for (const std::string& d : choice.found[i].designations) cells.emplace_back(d);
    cells.emplace_back(choice.found[i].mass.si() / units.mass.si);
    t.row(std::move(cells));
    for (const Problem& p : choice.found[i].warnings)
      t.say_beneath(fmt::format("! {}: {} [{}]", choice.found[i].designations.front(), p.text, p.finding));
  }
  page.emplace_back(std::move(t));
  return page;
}

}  // namespace corvex::document
