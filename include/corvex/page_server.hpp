// Corvex: the page of a model file, served to a browser on this machine. (Target corvex::server.)
//
//     corvex::ViewServer server{.path = "trestle.yaml"};
//     bool open = false;
//     server.ready = [&](const std::string& address) {
//       fmt::print("{}\n", address.substr(0, 17));   // http://127.0.0.1:
//       open = true;
//     };
//     server.stop = [&] { return open; };
//     if (const auto problem = corvex::serve_view(server)) fmt::print("{}\n", describe(*problem));
//
// Threads: `serve_view` uses threads of its own and may be called from several threads at once, each for a server.
#pragma once

#include <functional>
#include <optional>
#include <string>

#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/problem.hpp"

#pragma GCC visibility push(default)

namespace corvex {

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
inline constexpr const char* view_server_entry = "corvex_serve_view";
using ViewServerEntry = void (*)(const ViewServer&, Expected<std::string, Problem>& done);

}  // namespace corvex

#pragma GCC visibility pop
