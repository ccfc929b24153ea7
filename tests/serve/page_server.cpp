#include "page_server.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <netinet/in.h>
#include <poll.h>
#include <signal.h>
#include <sys/prctl.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <sstream>
#include <thread>
#include <utility>

namespace corvex::test {
namespace {

using Clock = std::chrono::steady_clock;

// Whether there is something to read by then.
bool can_read(int descriptor, Clock::time_point end) {
  const auto left = std::chrono::duration_cast<std::chrono::milliseconds>(end - Clock::now()).count();
  pollfd wanted{descriptor, POLLIN, 0};
  return left > 0 && ::poll(&wanted, 1, static_cast<int>(left)) == 1;
}

}  // namespace

Client::Client(int port) : socket_(::socket(AF_INET, SOCK_STREAM | SOCK_CLOEXEC, 0)) {
  sockaddr_in to{};
  to.sin_family = AF_INET;
  to.sin_port = htons(static_cast<unsigned short>(port));
  to.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
  if (socket_ >= 0 && ::connect(socket_, reinterpret_cast<sockaddr*>(&to), sizeof to) != 0) {
    ::close(socket_);
    socket_ = -1;
  }
}
Client::~Client() {
  if (socket_ >= 0) ::close(socket_);
}
Client::Client(Client&& other) noexcept : socket_(std::exchange(other.socket_, -1)) {}
Client& Client::operator=(Client&& other) noexcept {
  std::swap(socket_, other.socket_);
  return *this;
}

bool Client::send(std::string_view bytes) {
  while (socket_ >= 0 && !bytes.empty()) {
    const ssize_t n = ::send(socket_, bytes.data(), bytes.size(), MSG_NOSIGNAL);
    if (n <= 0) return false;
    bytes.remove_prefix(static_cast<std::size_t>(n));
  }
  return socket_ >= 0;
}

std::string Client::received(Seconds most, const std::function<bool(const std::string&)>& is_whole) {
  const auto end = Clock::now() + std::chrono::duration_cast<Clock::duration>(most);
  std::string all;
  char block[1 << 16];
  while (socket_ >= 0 && !is_whole(all) && can_read(socket_, end)) {
    const ssize_t n = ::recv(socket_, block, sizeof block, 0);
    if (n <= 0) break;
    all.append(block, static_cast<std::size_t>(n));
  }
  return all;
}

std::string Client::receive(Seconds most) {
  return received(most, [](const std::string&) { return false; });
}

std::string Client::answer(Seconds most) {
  return received(most, [](const std::string& all) {
    const std::size_t head = all.find("\r\n\r\n"), length = all.find("Content-Length: ");
    return head != std::string::npos && length < head && all.size() >= head + 4 + std::stoul(all.substr(length + 16));
  });
}

PageServer::PageServer(const std::filesystem::path& folder, const std::string& model, const ServerOptions& options)
    : error_file_(folder.string() + ".errors") {
  int out[2], err[2];
  REQUIRE(::pipe2(out, O_CLOEXEC) == 0);
  REQUIRE(::pipe2(err, O_CLOEXEC) == 0);
  const std::string program = options.program_name.empty() ? CORVEX_PROGRAM : options.program_name;
  // What was freed is kept for a while by a sanitizer: little of it, so that memory can be bounded.
  const std::string command =
      fmt::format("cd '{}' && export ASAN_OPTIONS=quarantine_size_mb=8; {} exec '{}' view {} {}", folder.string(),
                  options.before, program, model, options.arguments);
  process_ = ::fork();
  REQUIRE(process_ >= 0);
  if (process_ == 0) {
    // A test that fails leaves nothing running.
    ::prctl(PR_SET_PDEATHSIG, SIGKILL);
    ::dup2(out[1], STDOUT_FILENO);
    if (options.read_errors) {
      const int file = ::open(error_file_.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600);
      ::dup2(file, STDERR_FILENO);
    } else {
      ::dup2(err[1], STDERR_FILENO);
    }
    ::execl("/bin/sh", "sh", "-c", command.c_str(), nullptr);
    ::_exit(127);
  }
  ::close(out[1]), ::close(err[1]);
  output_ = out[0], error_reader_ = err[0];
  // http://127.0.0.1:PORT/TOKEN/
  std::string address;
  const auto end = Clock::now() + 60s;
  for (char c; !address.ends_with('\n') && can_read(output_, end) && ::read(output_, &c, 1) == 1;) address += c;
  INFO(errors());
  REQUIRE(address.starts_with("http://127.0.0.1:"));
  const std::size_t slash = address.find('/', 17);
  port_ = std::stoi(address.substr(17, slash - 17));
  token_ = address.substr(slash + 1, 32);
}

PageServer::~PageServer() {
  if (process_ > 0) end(SIGKILL);
  ::close(output_), ::close(error_reader_);
  std::error_code ignored;
  std::filesystem::remove(error_file_, ignored);
}

bool PageServer::is_running() const {
  siginfo_t info{};
  return process_ > 0 && ::waitid(P_PID, static_cast<id_t>(process_), &info, WEXITED | WNOHANG | WNOWAIT) == 0 &&
         info.si_pid == 0;
}

std::string PageServer::status(const std::string& key) const {
  std::ifstream all(fmt::format("/proc/{}/status", process_));
  for (std::string line; std::getline(all, line);)
    if (line.starts_with(key + ":")) return line.substr(key.size() + 1);
  return "";
}
double PageServer::highest_memory() const {
  return std::stod(status("VmHWM")) / 1024;
}

std::string PageServer::get(const std::string& path, Seconds most) const {
  Client client(port_);
  client.send(
      fmt::format("GET /{}/{} HTTP/1.1\r\nHost: 127.0.0.1:{}\r\nConnection: close\r\n\r\n", token_, path, port_));
  return client.answer(most);
}

std::optional<nlohmann::json> PageServer::model(const std::string& query, Seconds most) const {
  const std::string answer = get("model" + query, most);
  const std::size_t body = answer.find("\r\n\r\n");
  if (!answer.starts_with("HTTP/1.1 200") || body == std::string::npos) return std::nullopt;
  const auto json = nlohmann::json::parse(answer.substr(body + 4), nullptr, false);
  return json.is_discarded() ? std::nullopt : std::optional(json);
}

int PageServer::end(int signal, Seconds* taken) {
  const auto begun = Clock::now();
  ::kill(process_, signal);
  int status = 0;
  constexpr auto most = 20s;
  while (::waitpid(process_, &status, WNOHANG) == 0) {
    if (Clock::now() - begun > most) {
      ::kill(process_, SIGKILL);
      ::waitpid(process_, nullptr, 0);
      process_ = -1;
      return -1;
    }
    std::this_thread::sleep_for(2ms);
  }
  if (taken) *taken = Clock::now() - begun;
  process_ = -1;
  return WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status);
}

std::string PageServer::errors() const {
  std::ifstream in(error_file_);
  std::stringstream all;
  all << in.rdbuf();
  return all.str();
}

}  // namespace corvex::test
