// The program as it serves a page, and clients of every kind.
#pragma once

#include <chrono>
#include <filesystem>
#include <functional>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

namespace corvex::test {

using Seconds = std::chrono::duration<double>;
using namespace std::chrono_literals;

// Whether a sanitizer watches every access: solving takes ten times as long, answering does not.
#ifdef CORVEX_SHORT_ROWS
inline constexpr bool watched = true;
#else
inline constexpr bool watched = false;
#endif
inline constexpr Seconds soon = 1s;

// A connection to a port of this machine, closed with this object.
class Client {
 public:
  explicit Client(int port);
  ~Client();
  Client(Client&& other) noexcept;
  Client& operator=(Client&& other) noexcept;

  bool is_open() const { return socket_ >= 0; }
  // False where the other side has closed.
  bool send(std::string_view bytes);
  // All that comes until the other side closes, or for so long.
  std::string receive(Seconds most = 5s);
  // One answer with its content.
  std::string answer(Seconds most = 5s);

 private:
  // Until this holds of what has come.
  std::string received(Seconds most, const std::function<bool(const std::string&)>& is_whole);

  int socket_ = -1;
};

struct ServerOptions {
  std::string arguments{};     // besides the model
  bool read_errors = true;     // false: nobody reads its standard error, a pipe
  std::string before{};        // of the shell, as "ulimit -n 64;"
  std::string program_name{};  // how it is called, the program of the build if empty
};

// `corvex view` of a model in a folder, ended with this object.
class PageServer {
 public:
  PageServer(const std::filesystem::path& folder, const std::string& model, const ServerOptions& options = {});
  ~PageServer();
  PageServer(const PageServer&) = delete;
  PageServer& operator=(const PageServer&) = delete;

  int port() const { return port_; }
  const std::string& token() const { return token_; }
  bool is_running() const;
  // A line of /proc/PID/status.
  std::string status(const std::string& key) const;
  // Resident memory in MB, at its highest.
  double highest_memory() const;

  // The answer to GET /token/path, whole; how long it took.
  std::string get(const std::string& path, Seconds most = 5s) const;
  // What /model answers; nothing where it is no answer in time.
  std::optional<nlohmann::json> model(const std::string& query = "", Seconds most = 5s) const;
  // Waits until this holds of /model; false where it does not in time.
  template <class Condition>
  bool becomes(const Condition& holds, Seconds most = 10s) const {
    const auto begun = std::chrono::steady_clock::now();
    do {
      if (const auto answer = model(); answer && holds(*answer)) return true;
    } while (std::chrono::steady_clock::now() - begun < most);
    return false;
  }

  // Sends a signal and waits; the status, 128 and more where a signal ended it, −1 where it had to be killed.
  int end(int signal, Seconds* taken = nullptr);
  // What it has told on standard error.
  std::string errors() const;

 private:
  int process_ = -1, port_ = 0, output_ = -1, error_reader_ = -1;
  std::string token_;
  std::filesystem::path error_file_;
};

}  // namespace corvex::test
