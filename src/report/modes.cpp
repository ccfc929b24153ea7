// The chapter of load factors and natural frequencies that the model asks for.
#include "corvex/modes.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "report/book.hpp"
#include "report/names.hpp"

namespace corvex::reporting {

void add_modes(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  const auto found = modes(source.solution, source.model.modes);
  if (!found) {
    for (const Problem& p : found.error()) chapter.items.emplace_back(Words{{{"Not found", p.text}}});
    return;
  }
  for (auto& item : document::modes_page(s, *found, source.model.units)) {
    if (auto* t = std::get_if<Table>(&item)) chapter.items.emplace_back(std::move(*t));
    if (auto* w = std::get_if<Words>(&item)) chapter.items.emplace_back(std::move(*w));
  }
  for (const Problem& p : found->notes) chapter.items.emplace_back(Words{{{"Note", p.text}}});
  constexpr std::size_t most_pictures = 3;
  for (std::size_t i = 0; i < std::min(most_pictures, found->vibration.size()); ++i)
    add_diagram(chapter, source, {fmt::format("vibration-{}", i + 1), fmt::format("Natural frequency {}", i + 1)},
                {.of = PictureOf::vibration, .mode = i + 1}, *found);
  for (const CaseBuckling& c : found->buckling)
    if (!c.modes.empty())
      add_diagram(chapter, source,
                  {"buckling-" + file_name(c.load_case), "First buckling mode in '" + c.load_case + "'"},
                  {.of = PictureOf::buckling, .load_case = c.load_case}, {.buckling = {c}});
}

}  // namespace corvex::reporting
