// A small web server for pages of this machine: HTTP/1.1, GET and HEAD. It knows nothing of models.
//
// One thread accepts, reads and writes; it never waits for an answer. What a client may cost is bounded in size, number
// and time (WebBounds). Where more connect than are allowed, the oldest one that has not shown the secret is closed.
#pragma once

#include <chrono>
#include <functional>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/problem.hpp"

namespace corvex::serve {

struct WebBounds {
  std::size_t header_bytes = 8 << 10;  // request line and headers together
  std::size_t connections = 200;
  std::size_t answers_under_way = 100;       // beyond these a request is answered with 503
  std::size_t requests_of_connection = 500;  // then it is closed
  // A request is complete within this time of its first chance, however slowly it comes.
  std::chrono::milliseconds request{5'000};
  // An answer is taken within this time.
  std::chrono::milliseconds answer{30'000};
};

struct WebRequest {
  std::string path{};  // behind the secret, decoded: "/model"
  std::map<std::string, std::string> query{};

  // Empty where the request has none of this name.
  std::string value(const std::string& name) const;
};

struct WebAnswer {
  int status = 200;
  std::string type{};
  std::shared_ptr<const std::string> body{};
  std::string location{};  // of a redirection
};
WebAnswer web_text(int status, std::string text, std::string type = "text/plain");
WebAnswer web_redirect(std::string location);

// Gives the answer to one request, from any thread; the first call counts. Where all copies are gone without a call the
// answer is 503.
using WebReply = std::function<void(WebAnswer)>;

class WebServer {
 public:
  // The path of every request begins with "/" and this.
  explicit WebServer(std::string secret, WebBounds bounds = {});
  ~WebServer();

  // On 127.0.0.1 alone; the port, a free one if 0 is asked for.
  Expected<int, Problem> listen(int port);
  // Sent with every answer.
  void header(std::string name, std::string value);

  // Serves on this thread until end() is called; `handle` and `tick` are called on it, `tick` ten times a second.
  void run(const std::function<void(WebRequest, WebReply)>& handle, const std::function<void()>& tick);
  // From any thread: calls `tick` soon.
  void wake();
  // From any thread. Replies that are given later are dropped.
  void end();

 private:
  struct Shared;
  std::shared_ptr<Shared> shared_;
};

// The parts of a request's target: "/secret/model?case=a%20b". False where it is malformed.
bool parse_target(std::string_view target, std::string& path, std::map<std::string, std::string>& query);
// In a time that does not depend on where they differ.
bool same_secret(std::string_view a, std::string_view b);

}  // namespace corvex::serve
