// Corvex: a structure to be turned and asked: a page for a browser. (Target corvex::pictures.)
//
//     const auto model = corvex::read_model("trestle.yaml");
//     const auto page = corvex::view_page({{"", *model, corvex::evaluate(*model)}});
//     fmt::print("{}\n", page ? page->substr(0, 15) : page.error().text);   // <!DOCTYPE html>
//
// The page draws the structure as lines or as solid profiles, its loads, deformed shapes and diagrams, and tells the
// value of every quantity at the pointer. Values at the pointer are those that `trace` prints: the page has the pieces
// of the diagrams, and stresses at places along each member. It needs no network, and nothing in a model can be script
// in it.
//
// Threads: `view_page` may be called from several threads at once; `serve_view` uses threads of its own.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "corvex/evaluation.hpp"
#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A model with its evaluation, whose solution must be ok. Of several the first has no name and is as it stands, the
// others are its variants; or they are other models, under names of their own.
struct Viewed {
  std::string name{};
  Model model;
  Evaluation evaluation;
};

// One file of HTML with every case that is judged; or the reason: none is given, or together they would be larger than
// `most_bytes`.
Expected<std::string, Problem> view_page(const std::vector<Viewed>& viewed, int digits = 4,
                                         std::size_t most_bytes = 64'000'000);

struct ViewServer {
  std::string path{};  // of the model file
  Overrides overrides{};
  std::string units{};  // figures in these units, as "mm, N"; those of the model if empty
  int port = 0;         // a free one if 0
  int digits = 4;
  // Told when the page can be opened: its address, with a token that nobody else knows. Must not wait.
  std::function<void(const std::string& address)> ready{};
  // Told of each reading of the model: what is wrong with it; nothing where it was solved. Called from another thread,
  // and perhaps while the server ends: what it refers to must outlive the server.
  std::function<void(const Problems& problems)> read{};
  // Asked about ten times a second; the server ends when it answers true. Must not wait.
  std::function<bool()> stop{};
};
// Serves the page of a model file on 127.0.0.1 and follows the file, a regular one, and its tables as they are saved.
// Answers only requests with the token, to this host and from this page; what a client may cost is bounded. The reason
// where it cannot begin.
//
// It ends within half a second of being asked to. What is being solved then is asked to stop (stop.hpp); what does not
// stop in that time goes on in the background on threads of its own, and is dropped.
std::optional<Problem> serve_view(const ViewServer& server);

// For programs that load the library only when they need it.
inline constexpr const char* view_page_entry = "corvex_view_page";
using ViewPageEntry = void (*)(const std::vector<Viewed>&, int digits, Expected<std::string, Problem>& page);
inline constexpr const char* view_server_entry = "corvex_serve_view";
using ViewServerEntry = void (*)(const ViewServer&, Expected<std::string, Problem>& done);

}  // namespace corvex

#pragma GCC visibility pop
