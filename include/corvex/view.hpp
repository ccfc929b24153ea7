// Corvex: a structure to be turned and asked: a page for a browser. (Target corvex::pictures.)
//
//     const auto model = corvex::read_model("trestle.yaml");
//     const auto page = corvex::view_page({{"", *model, corvex::evaluate(*model)}});
//     fmt::print("{}\n", page ? page->substr(0, 15) : page.error().text);   // <!DOCTYPE html>
//
// The page draws the structure as lines or as solid profiles, its loads, deformed shapes and diagrams, and shows the
// value of every quantity at the pointer. Values at the pointer are those that `trace` prints: the page has the pieces
// of the diagrams, and stresses at places along each member. It needs no network, and nothing in a model can be script
// in it.
//
// Threads: `view_page` may be called from several threads at once.
#pragma once

#include <string>
#include <vector>

#include "corvex/evaluation.hpp"
#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A model with its evaluation, whose solution must be ok. Of several, the first has no name and is the original, the
// others are its variants; or they are other models, under names of their own.
struct Viewed {
  std::string name{};
  Model model;
  Evaluation evaluation;
};

// One file of HTML with every assessed case; or an error: none is given, or together they would be larger than
// `most_bytes`.
Expected<std::string, Problem> view_page(const std::vector<Viewed>& viewed, int digits = 4,
                                         std::size_t most_bytes = 64'000'000);

// For programs that load the library only when they need it.
inline constexpr const char* view_page_entry = "corvex_view_page";
using ViewPageEntry = void (*)(const std::vector<Viewed>&, int digits, Expected<std::string, Problem>& page);

}  // namespace corvex

#pragma GCC visibility pop
