// Serves the page of a model file on this machine, and follows the file.
#include <fmt/format.h>
#include <sys/random.h>
#include <sys/stat.h>

#include <atomic>
#include <charconv>
#include <chrono>
#include <map>
#include <mutex>
#include <optional>
#include <thread>

// After the others: it is large.
#include <httplib.h>

#include "corvex/document.hpp"
#include "corvex/envelope.hpp"
#include "view/data.hpp"

namespace corvex {
namespace {

using view::Json;

// What tells that a file was saved again, also by an editor that puts another file in its place.
struct Stamp {
  long long seconds = 0, nanoseconds = 0;
  long long size = -1;
  unsigned long long file = 0;
  bool operator==(const Stamp&) const = default;
};
Stamp stamp_of(const std::string& path) {
  struct stat s {};
  if (stat(path.c_str(), &s) != 0) return {};
  return {s.st_mtim.tv_sec, s.st_mtim.tv_nsec, s.st_size, s.st_ino};
}

std::string token() {
  unsigned char bytes[16];
  if (getrandom(bytes, sizeof bytes, 0) != static_cast<ssize_t>(sizeof bytes)) return {};
  std::string text;
  for (const unsigned char b : bytes) text += fmt::format("{:02x}", b);
  return text;
}

// The model as it was last read, and the last that could be solved.
class Followed {
 public:
  explicit Followed(const ViewServer& options) : o_(options) {}

  // Reads and solves; what was good stays where this one is not.
  void read() {
    std::map<std::string, Stamp> files{{o_.path, stamp_of(o_.path)}};
    Problems problems;
    std::optional<Viewed> viewed = solved(o_.overrides, problems, &files);
    std::lock_guard lock(mutex_);
    files_ = std::move(files);
    problems_ = problems;
    if (viewed) {
      good_.clear();
      good_.emplace(viewed->name, std::move(*viewed));
    }
    ++version_;
    changed_.notify_all();
    if (o_.read) o_.read(problems);
  }

  bool has_changed() const {
    std::lock_guard lock(mutex_);
    for (const auto& [path, stamp] : files_)
      if (!(stamp_of(path) == stamp)) return true;
    return false;
  }

  int version() const {
    std::lock_guard lock(mutex_);
    return version_;
  }
  // Waits until the version is another one, at most so long; the version then.
  int wait(int known, std::chrono::milliseconds most) const {
    std::unique_lock lock(mutex_);
    changed_.wait_for(lock, most, [&] { return version_ != known; });
    return version_;
  }

  // {version, problems, model, case}: the model of a variant with one case, the one that governs if none is named.
  std::string model(const std::string& variant, const std::string& load_case) {
    std::lock_guard lock(mutex_);
    Json answer = {{"version", version_}, {"problems", view::problems_data(problems_)}};
    if (const Viewed* v = found(variant, answer)) {
      answer["model"] = view::model_data(*v, document_ ? document_->variants() : std::vector<std::string>{}, o_.digits);
      std::size_t index = governing_case(v->solution);
      for (std::size_t i = 0; i < v->solution.size(); ++i)
        if (v->solution[i].name() == load_case) index = i;
      answer["case"] = view::case_data(*v, index, o_.digits);
    }
    return answer.dump(-1, ' ', false, Json::error_handler_t::replace);
  }
  std::string load_case(const std::string& variant, std::size_t index) {
    std::lock_guard lock(mutex_);
    Json answer = {{"version", version_}};
    const Viewed* v = found(variant, answer);
    if (v && index < v->solution.size()) answer["case"] = view::case_data(*v, index, o_.digits);
    return answer.dump(-1, ' ', false, Json::error_handler_t::replace);
  }
  // Takes long: worked out beside what else is asked for, and given up when the model is another one.
  std::string stress(const std::string& variant, std::size_t index) {
    std::optional<Viewed> viewed;
    int version = 0;
    Json answer = Json::object();
    {
      std::lock_guard lock(mutex_);
      version = version_;
      if (const Viewed* v = found(variant, answer); v && index < v->solution.size()) viewed = *v;
    }
    answer["version"] = version;
    if (viewed) answer["stress"] = view::stress_data(*viewed, index, [&] { return this->version() != version; });
    return answer.dump(-1, ' ', false, Json::error_handler_t::replace);
  }
  std::string title() {
    std::lock_guard lock(mutex_);
    return good_.empty() ? o_.path : good_.begin()->second.solution.structure().title();
  }

 private:
  std::optional<Viewed> solved(const Overrides& overrides, Problems& problems, std::map<std::string, Stamp>* files) {
    const auto document = read_document(o_.path);
    if (!document) return problems = document.error(), std::nullopt;
    auto model = build(*document, overrides);
    if (!model) return problems = model.error(), std::nullopt;
    if (!o_.units.empty()) {
      const auto units = units_for_print(o_.units, model->units);
      if (!units) return problems = {Problem{units.error()}}, std::nullopt;
      model.value().units = *units;
    }
    if (files)
      for (const std::string& table : model->table_files) files->emplace(table, stamp_of(table));
    Solution solution = solve(model->structure);
    if (!solution.ok()) {
      problems = model->located(with_remedies(model->structure, solution.problems()));
      return std::nullopt;
    }
    if (files) document_ = *document;
    return Viewed{overrides.variant, std::move(model.value()), std::move(solution)};
  }

  // Built when it is asked for first. Why it cannot be is part of the answer.
  const Viewed* found(const std::string& variant, Json& answer) {
    if (const auto it = good_.find(variant); it != good_.end()) return &it->second;
    if (good_.empty() || !document_) return nullptr;
    Overrides with = o_.overrides;
    with.variant = variant;
    Problems problems;
    auto viewed = solved(with, problems, nullptr);
    if (!viewed) {
      answer["refused"] = view::problems_data(problems);
      return nullptr;
    }
    return &good_.emplace(variant, std::move(*viewed)).first->second;
  }

  const ViewServer& o_;
  mutable std::mutex mutex_;
  mutable std::condition_variable changed_;
  std::map<std::string, Stamp> files_;
  std::optional<ModelDocument> document_;
  std::map<std::string, Viewed> good_;  // by variant
  Problems problems_;
  int version_ = 0;
};

// A page of another site must not ask in the reader's name: its requests have another host or origin.
bool is_allowed(const httplib::Request& request, int port) {
  const std::string hosts[] = {fmt::format("127.0.0.1:{}", port), fmt::format("localhost:{}", port)};
  const std::string host = request.get_header_value("Host");
  if (host != hosts[0] && host != hosts[1]) return false;
  if (!request.has_header("Origin")) return true;
  const std::string origin = request.get_header_value("Origin");
  return origin == "http://" + hosts[0] || origin == "http://" + hosts[1];
}

// As it is: the library would compress it, which takes far longer than to send it to the same machine.
void answer(httplib::Response& response, std::string text, const char* type) {
  const auto bytes = std::make_shared<const std::string>(std::move(text));
  response.set_content_provider(bytes->size(), type,
                                [bytes](std::size_t from, std::size_t length, httplib::DataSink& to) {
                                  return to.write(bytes->data() + from, length);
                                });
}

// The number of a case; one that there is not where it is no number.
std::size_t index_of(const httplib::Request& request) {
  const std::string text = request.get_param_value("index");
  std::size_t index = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), index);
  return error == std::errc() && end == text.data() + text.size() ? index : ~std::size_t{0};
}

}  // namespace

std::optional<Problem> serve_view(const ViewServer& o) {
  const std::string secret = token();
  if (secret.empty()) return Problem{"the machine gives no random numbers: the page would not be safe"};
  Followed followed(o);
  httplib::Server server;
  // Each open page keeps one thread waiting for news.
  constexpr int threads = 16;
  server.new_task_queue = [] { return new httplib::ThreadPool(threads); };
  server.set_keep_alive_timeout(5);
  // No other program can listen at this port too, which the library would allow.
  server.set_socket_options([](socket_t socket) {
    const int yes = 1;
    setsockopt(socket, SOL_SOCKET, SO_REUSEADDR, &yes, sizeof yes);
  });
  std::atomic<bool> ends{false};
  int port = o.port;
  server.set_pre_routing_handler([&](const httplib::Request& request, httplib::Response& response) {
    const bool known = request.path == "/" + secret || request.path.starts_with("/" + secret + "/");
    if (is_allowed(request, port) && known) return httplib::Server::HandlerResponse::Unhandled;
    response.status = is_allowed(request, port) ? 404 : 403;
    response.set_content("not allowed\n", "text/plain");
    return httplib::Server::HandlerResponse::Handled;
  });
  const httplib::Headers safe = {{"Cache-Control", "no-store"},
                                 {"X-Content-Type-Options", "nosniff"},
                                 {"Referrer-Policy", "no-referrer"},
                                 {"Cross-Origin-Resource-Policy", "same-origin"}};
  server.set_default_headers(safe);
  const std::string root = "/" + secret;
  server.Get(root + "/", [&](const httplib::Request&, httplib::Response& response) {
    answer(response, view::page_with(followed.title(), ""), "text/html; charset=utf-8");
  });
  server.Get(root, [&](const httplib::Request&, httplib::Response& response) { response.set_redirect(root + "/"); });
  server.Get(root + "/model", [&](const httplib::Request& request, httplib::Response& response) {
    answer(response, followed.model(request.get_param_value("variant"), request.get_param_value("case")),
           "application/json");
  });
  server.Get(root + "/case", [&](const httplib::Request& request, httplib::Response& response) {
    answer(response, followed.load_case(request.get_param_value("variant"), index_of(request)), "application/json");
  });
  server.Get(root + "/stress", [&](const httplib::Request& request, httplib::Response& response) {
    answer(response, followed.stress(request.get_param_value("variant"), index_of(request)), "application/json");
  });
  // Answers when the model is another one than the page has, or after a while.
  server.Get(root + "/news", [&](const httplib::Request& request, httplib::Response& response) {
    const std::string known = request.get_param_value("version");
    int version = -1;
    std::from_chars(known.data(), known.data() + known.size(), version);
    constexpr int patience = 200;
    for (int i = 0; i < patience && !ends && followed.version() == version; ++i)
      followed.wait(version, std::chrono::milliseconds(100));
    answer(response, fmt::format("{{\"version\":{}}}", followed.version()), "application/json");
  });
  // Only this machine reaches it.
  if (o.port == 0)
    port = server.bind_to_any_port("127.0.0.1");
  else if (!server.bind_to_port("127.0.0.1", o.port))
    port = -1;
  if (port < 0) return Problem{fmt::format("port {} cannot be used: another program has it", o.port)};
  followed.read();
  std::thread watch([&] {
    constexpr auto often = std::chrono::milliseconds(20);
    for (int i = 0; !ends; ++i) {
      std::this_thread::sleep_for(often);
      if (followed.has_changed()) {
        // Half a file is not read: an editor may still be writing.
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
        followed.read();
      }
      if (i % 5 == 0 && o.stop && o.stop()) break;
    }
    ends = true;
    server.stop();
  });
  if (o.ready) o.ready(fmt::format("http://127.0.0.1:{}{}/", port, root));
  const bool served = server.listen_after_bind();
  ends = true;
  watch.join();
  if (!served && !(o.stop && o.stop())) return Problem{"the page cannot be served"};
  return {};
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_serve_view(const corvex::ViewServer& server,
                                                                 corvex::Expected<std::string, corvex::Problem>& done) {
  if (const auto problem = corvex::serve_view(server))
    done = *problem;
  else
    done = std::string();
}
