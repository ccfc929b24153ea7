// Bytes as they come to the web server of `view`, over a connection of this machine: whatever they are, the next client
// is answered.
#include <netinet/in.h>
#include <sys/socket.h>
#include <unistd.h>

#include <cstdint>
#include <cstdlib>
#include <string>
#include <thread>

#include "serve/web_server.hpp"

namespace {

using corvex::serve::WebReply;
using corvex::serve::WebRequest;
using corvex::serve::WebServer;

const std::string secret(32, 'a');

// Served on a thread of its own to the end of the program.
int port() {
  static const int only = [] {
    auto* const server = new WebServer(secret);
    const auto listened = server->listen(0);
    if (!listened) std::abort();
    std::thread([server] {
      server->run(
          [](WebRequest request, WebReply reply) {
            std::string all = request.path;
            for (const auto& [name, value] : request.query) all += name + value;
            reply(corvex::serve::web_text(200, all));
          },
          [] {});
    }).detach();
    return *listened;
  }();
  return only;
}

int connected() {
  const int s = ::socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC, 0);
  sockaddr_in to{};
  to.sin_family = AF_INET;
  to.sin_port = htons(static_cast<std::uint16_t>(port()));
  to.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
  if (s < 0 || ::connect(s, reinterpret_cast<sockaddr*>(&to), sizeof to) != 0) std::abort();
  // No port is kept for a connection that has ended.
  const linger at_once{1, 0};
  ::setsockopt(s, SOL_SOCKET, SO_LINGER, &at_once, sizeof at_once);
  const timeval patience{5, 0};
  ::setsockopt(s, SOL_SOCKET, SO_RCVTIMEO, &patience, sizeof patience);
  return s;
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  std::string path;
  std::map<std::string, std::string> query;
  static_cast<void>(
      corvex::serve::parse_target(std::string_view(reinterpret_cast<const char*>(data), size), path, query));
  const int client = connected();
  static_cast<void>(::send(client, data, size, MSG_NOSIGNAL));
  ::shutdown(client, SHUT_WR);
  char block[4096];
  while (::recv(client, block, sizeof block, 0) > 0) {
  }
  ::close(client);
  // The honest one.
  static unsigned count = 0;
  if (++count % 64 != 0) return 0;
  const int honest = connected();
  const std::string request = "GET /" + secret + "/x?a=b HTTP/1.1\r\nHost: 127.0.0.1:" + std::to_string(port()) +
                              "\r\nConnection: close\r\n\r\n";
  static_cast<void>(::send(honest, request.data(), request.size(), MSG_NOSIGNAL));
  std::string answer;
  for (ssize_t n; (n = ::recv(honest, block, sizeof block, 0)) > 0;) answer.append(block, static_cast<std::size_t>(n));
  ::close(honest);
  if (answer.rfind("HTTP/1.1 200", 0) != 0 || answer.find("/xab") == std::string::npos) std::abort();
  return 0;
}
