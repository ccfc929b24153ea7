// Clients that mean harm: whatever they send, in whatever pieces, the page is served to the one that has its address.
#include <fmt/format.h>
#include <sys/resource.h>

#include <algorithm>
#include <atomic>
#include <catch2/catch.hpp>
#include <csignal>
#include <mutex>
#include <random>
#include <thread>

#include "page_server.hpp"
#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_hostile_clients {

using namespace corvex::test;
using Catch::Matchers::Contains;
using Clock = std::chrono::steady_clock;

namespace {

// One request from parts that are right, wrong, too long or no text at all.
class Mutations {
 public:
  Mutations(unsigned seed, int port, std::string token) : random_(seed), port_(port), token_(std::move(token)) {}

  std::string request() {
    std::string all = method() + separator() + target() + separator() + version() + line_end();
    const std::size_t headers = below(9);
    for (std::size_t i = 0; i < headers; ++i) all += header() + line_end();
    if (below(8) != 0) all += line_end();
    all += body();
    // Bytes that are changed, left out or doubled anywhere.
    for (std::size_t i = below(4); i > 0 && !all.empty() && below(2) == 0; --i) {
      const std::size_t at = below(all.size());
      switch (below(3)) {
        case 0: all[at] = static_cast<char>(below(256)); break;
        case 1: all.erase(at, below(20)); break;
        default: all.insert(at, all.substr(at, below(40)));
      }
    }
    return all;
  }
  std::size_t below(std::size_t n) { return random_() % n; }

 private:
  template <std::size_t N>
  std::string one_of(const char* const (&all)[N]) {
    return all[below(N)];
  }
  std::string many() { return std::string(below(12) == 0 ? below(40000) : below(60), "aA0%\xff/.\t"[below(8)]); }
  std::string method() {
    static constexpr const char* const all[] = {"GET",   "GET", "GET", "HEAD",   "POST",   "PUT", "OPTIONS", "CONNECT",
                                                "TRACE", "get", "",    "G\x01T", "DELETE", "PRI", "M-SEARCH"};
    return below(40) == 0 ? many() : one_of(all);
  }
  std::string separator() {
    static constexpr const char* const all[] = {" ", " ", " ", " ", " ", "  ", "\t", ""};
    return one_of(all);
  }
  std::string line_end() {
    static constexpr const char* const all[] = {"\r\n", "\r\n", "\r\n", "\r\n", "\r\n", "\n", "\r", "\r\r\n"};
    return one_of(all);
  }
  std::string version() {
    static constexpr const char* const all[] = {"HTTP/1.1", "HTTP/1.1", "HTTP/1.0", "HTTP/2.0",
                                                "HTTP/9",   "http/1.1", "",         "X"};
    return one_of(all);
  }
  std::string target() {
    static constexpr const char* const paths[] = {"",
                                                  "/",
                                                  "/model",
                                                  "/case?index=0",
                                                  "/stress?index=0",
                                                  "/news?version=1",
                                                  "/none",
                                                  "/%2e%2e/%2e%2e/etc/passwd",
                                                  "/model?variant=%00%ff",
                                                  "/case?index=-1",
                                                  "/case?index=99999999999999999999",
                                                  "/model?variant=%",
                                                  "/model?&&==&a"};
    switch (below(6)) {
      case 0: return many();
      case 1: return "http://127.0.0.1/" + token_;
      case 2: return "/" + std::string(32, '0') + one_of(paths);
      default: return "/" + token_ + one_of(paths);
    }
  }
  std::string header() {
    static constexpr const char* const names[] = {"Host",
                                                  "Origin",
                                                  "Range",
                                                  "Connection",
                                                  "Content-Length",
                                                  "Transfer-Encoding",
                                                  "Expect",
                                                  "Upgrade",
                                                  "Accept",
                                                  "Keep-Alive",
                                                  "X",
                                                  "Cookie",
                                                  "TE",
                                                  "Trailer"};
    static constexpr const char* const values[] = {"",
                                                   "0",
                                                   "-1",
                                                   "99999999999999999999",
                                                   "chunked",
                                                   "close",
                                                   "keep-alive",
                                                   "gzip, chunked",
                                                   "100-continue",
                                                   "websocket",
                                                   "null",
                                                   "bytes=0-,0-,0-",
                                                   "http://evil.invalid",
                                                   "a;q=0.1"};
    if (below(3) == 0) return fmt::format("Host: 127.0.0.1:{}", port_);
    if (below(30) == 0) return many() + ":" + many();
    return one_of(names) + (below(20) == 0 ? "" : ": ") + (below(10) == 0 ? many() : one_of(values));
  }
  std::string body() {
    switch (below(8)) {
      case 0: return many();
      case 1: return "5\r\nabcde\r\n0\r\n\r\n";
      case 2: return "ffffffffffffffff\r\n" + many();
      case 3: return "GET /" + token_ + "/ HTTP/1.1\r\nHost: x\r\n\r\n";
      default: return "";
    }
  }

  std::mt19937 random_;
  int port_;
  std::string token_;
};

// Asks for the page again and again; the longest that it took, and how often it failed.
class HonestClient {
 public:
  explicit HonestClient(const PageServer& server)
      : thread_([this, &server] {
          while (!ended_) {
            const auto begun = Clock::now();
            const bool good = server.get("model", 10s).starts_with("HTTP/1.1 200");
            const Seconds taken = Clock::now() - begun;
            longest_ = std::max(longest_, taken);
            failed_ += !good, ++asked_;
            std::this_thread::sleep_for(20ms);
          }
        }) {}
  ~HonestClient() { end(); }
  void end() {
    ended_ = true;
    if (thread_.joinable()) thread_.join();
  }
  Seconds longest() const { return longest_; }
  int failed() const { return failed_; }
  int asked() const { return asked_; }

 private:
  std::atomic<bool> ended_{false};
  Seconds longest_{};
  int failed_ = 0, asked_ = 0;
  std::thread thread_;
};

struct Model : Folder {
  Model() { write("m.yaml", corvex::test::trestle); }
};

void allow_many_files() {
  rlimit files{};
  getrlimit(RLIMIT_NOFILE, &files);
  files.rlim_cur = std::min<rlim_t>(8192, files.rlim_max);
  setrlimit(RLIMIT_NOFILE, &files);
}

}  // namespace

TEST_CASE("100000 hostile requests among 2000 silent and slow connections: an honest client is served at once") {
  allow_many_files();
  const Model folder;
  PageServer server(folder.path(), "m.yaml");
  REQUIRE(server.model());
  const double before = server.highest_memory();
  HonestClient honest(server);
  // They are silent, or send a byte now and then.
  std::vector<Client> idle;
  for (int i = 0; i < 2000; ++i) idle.emplace_back(server.port());
  std::atomic<bool> ended{false};
  std::thread slow([&] {
    for (std::size_t k = 0; !ended; ++k) {
      Client& one = idle[k % idle.size()];
      if (!one.send(k % 3 ? "a" : "GET / HTTP/1.1\r\nX: ")) one = Client(server.port());
      if (k % 50 == 0) std::this_thread::sleep_for(5ms);
    }
  });
  constexpr int requests = 100000, threads = 4;
  std::vector<std::thread> attackers;
  for (unsigned t = 0; t < threads; ++t)
    attackers.emplace_back([&, t] {
      Mutations mutations(t + 1, server.port(), server.token());
      for (int i = 0; i < requests / threads; ++i) {
        Client client(server.port());
        const std::string request = mutations.request();
        // In pieces, and several on one connection.
        const std::size_t cut = mutations.below(request.size() + 1);
        client.send(request.substr(0, cut));
        client.send(request.substr(cut));
        if (mutations.below(4) == 0) client.send(mutations.request());
        if (mutations.below(50) == 0) client.receive(20ms);
      }
    });
  for (std::thread& a : attackers) a.join();
  ended = true;
  slow.join();
  honest.end();
  INFO("asked " << honest.asked() << " times, longest " << honest.longest().count() << " s; memory " << before << " to "
                << server.highest_memory() << " MB");
  CHECK(server.is_running());
  CHECK(honest.asked() > 50);
  CHECK(honest.failed() == 0);
  CHECK(honest.longest() < soon);
  CHECK(server.highest_memory() < before + 100);
  Seconds taken{};
  CHECK(server.end(SIGINT, &taken) == 0);
  CHECK(taken < soon);
}

TEST_CASE("Headers without an end, contents and ranges are refused before they cost anything") {
  const Model folder;
  PageServer server(folder.path(), "m.yaml", {.before = "ulimit -s 4096;"});
  const double before = server.highest_memory();
  {
    Client client(server.port());
    client.send("GET / HTTP/1.1\r\nHost: x\r\n");
    std::size_t sent = 0;
    const std::string chunk = "X: " + std::string(7900, 'a') + "\r\n";
    for (; sent < (100 << 20) && client.send(chunk); sent += chunk.size()) {
    }
    CHECK(sent < (10 << 20));
  }
  const std::string host = fmt::format("Host: 127.0.0.1:{}\r\n", server.port());
  const auto answers = [&](const std::string& request) {
    Client client(server.port());
    client.send(request);
    return client.answer().substr(9, 3);
  };
  const std::string page = "GET /" + server.token() + "/ HTTP/1.1\r\n";
  CHECK(answers(page + host + "\r\n") == "200");
  CHECK(answers(page + host + "Origin: http://evil.invalid\r\n\r\n") == "403");
  CHECK(answers(page + host + "Origin: \r\n\r\n") == "403");
  CHECK(answers(page + host + host + "\r\n") == "403");
  CHECK(answers(page + "Host: evil.invalid\r\n\r\n") == "403");
  CHECK(answers(page + "\r\n") == "403");
  CHECK(answers(page + host + "Content-Length: 5\r\n\r\nabcde") == "413");
  CHECK(answers(page + host + "Transfer-Encoding: chunked\r\n\r\n5\r\nabcde\r\n") == "413");
  CHECK(answers("POST /" + server.token() + "/ HTTP/1.1\r\n" + host + "\r\n") == "405");
  CHECK(answers("GET /" + std::string(32, 'a') + "/ HTTP/1.1\r\n" + host + "\r\n") == "404");
  CHECK(answers("GET /" + server.token().substr(0, 31) + "/ HTTP/1.1\r\n" + host + "\r\n") == "404");
  CHECK(answers("GET /" + server.token() + "/model?variant=% HTTP/1.1\r\n" + host + "\r\n") == "400");
  CHECK(answers("no request at all\r\n\r\n") == "400");
  CHECK(answers(page + host + "Range: bytes=" + std::string(8160, '1') + "-\r\n\r\n") == "431");
  CHECK(answers(page + host + "Range: bytes=0-,0-,0-\r\n\r\n") == "200");
  CHECK(server.is_running());
  CHECK(server.highest_memory() < before + 20);
}

TEST_CASE("Every answer tells the browser what the page may do") {
  const Model folder;
  const PageServer server(folder.path(), "m.yaml");
  for (const char* path : {"", "model", "none"}) {
    const std::string answer = server.get(path);
    for (const char* header :
         {"Content-Security-Policy: default-src 'none'; script-src 'sha256-", "frame-ancestors 'none'",
          "Cross-Origin-Opener-Policy: same-origin", "X-Frame-Options: DENY", "X-Content-Type-Options: nosniff",
          "Cache-Control: no-store", "Referrer-Policy: no-referrer"})
      CHECK_THAT(answer, Contains(header));
  }
  Client client(server.port());
  client.send(fmt::format("HEAD /{}/model HTTP/1.1\r\nHost: localhost:{}\r\nConnection: close\r\n\r\n", server.token(),
                          server.port()));
  const std::string head = client.receive();
  CHECK_THAT(head, Contains("HTTP/1.1 200") && Contains("Content-Length: "));
  CHECK(head.ends_with("\r\n\r\n"));
}

TEST_CASE("Few descriptors are enough, and are not lost") {
  // A sanitizer needs some of its own.
  if (watched) return;
  const Model folder;
  const PageServer server(folder.path(), "m.yaml", {.before = "ulimit -n 40;"});
  for (int round = 0; round < 5; ++round) {
    std::vector<Client> idle;
    for (int i = 0; i < 200; ++i) idle.emplace_back(server.port());
    // Like the page, a client asks again where its connection was closed for want of room.
    CHECK(server.becomes([](const nlohmann::json& answer) { return answer.contains("model"); }, 10s));
  }
  CHECK(server.model());
}

TEST_CASE("Fifty open pages wait for news, and another one is served") {
  const Model folder;
  PageServer server(folder.path(), "m.yaml");
  std::vector<Client> pages;
  for (int i = 0; i < 80; ++i) {
    pages.emplace_back(server.port());
    pages.back().send(
        fmt::format("GET /{}/news?version=1 HTTP/1.1\r\nHost: 127.0.0.1:{}\r\n\r\n", server.token(), server.port()));
  }
  CHECK(server.model("", soon));
  folder.write("m.yaml", corvex::test::trestle + "# saved\n");
  // All of them hear of it.
  for (std::size_t i = 30; i < pages.size(); ++i) CHECK_THAT(pages[i].answer(10s), Contains("{\"version\":2}"));
  Seconds taken{};
  CHECK(server.end(SIGINT, &taken) == 0);
  CHECK(taken < soon);
}

}  // namespace tests_of_hostile_clients
