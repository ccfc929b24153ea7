// Serves the page of a model file on this machine, and follows the file.
#include <fmt/format.h>
#include <sys/random.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <vector>

#include "corvex/envelope.hpp"
#include "serve/followed.hpp"
#include "serve/web_server.hpp"
#include "serve/workers.hpp"
#include "view/data.hpp"

namespace corvex {
namespace {

using serve::Answered;
using serve::Shown;
using serve::WebAnswer;
using serve::WebReply;
using serve::WebRequest;
using view::Json;

std::string random_secret() {
  unsigned char bytes[16];
  if (getrandom(bytes, sizeof bytes, 0) != static_cast<ssize_t>(sizeof bytes)) return {};
  std::string text;
  for (const unsigned char b : bytes) text += fmt::format("{:02x}", b);
  return text;
}

// A whole number as written; this one where the text is none.
template <class Number>
Number number_of(const std::string& text, Number otherwise) {
  Number value{};
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  return error == std::errc() && end == text.data() + text.size() ? value : otherwise;
}

std::string json_text(const Json& json) {
  return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}
WebAnswer json_answer(std::string text) {
  return serve::web_text(200, std::move(text), "application/json");
}

// {version, problems, refused, …}, to be gone on with.
std::string head_of(const Answered& a) {
  std::string text =
      fmt::format("{{\"version\":{},\"problems\":{}", a.version, json_text(view::problems_data(a.problems)));
  if (!a.refused.empty()) text += ",\"refused\":" + json_text(view::problems_data(a.refused));
  return text;
}

class PageServer {
 public:
  PageServer(const ViewServer& options, std::string secret)
      : o_(options), root_("/" + secret), web_(std::make_shared<serve::WebServer>(std::move(secret))) {
    for (const auto& [name, value] : {std::pair<const char*, std::string>{"Cache-Control", "no-store"},
                                      {"X-Content-Type-Options", "nosniff"},
                                      {"Referrer-Policy", "no-referrer"},
                                      {"Content-Security-Policy", view::page_policy() + "; frame-ancestors 'none'"},
                                      {"X-Frame-Options", "DENY"},
                                      {"Cross-Origin-Opener-Policy", "same-origin"},
                                      {"Cross-Origin-Resource-Policy", "same-origin"}})
      web_->header(name, value);
  }

  std::optional<Problem> operator()() {
    const auto port = web_->listen(o_.port);
    if (!port) return port.error();
    port_ = *port;
    followed_ = std::make_unique<serve::Followed>(o_, [web = web_] { web->wake(); });
    web_->run([this](WebRequest request, WebReply reply) { handle(std::move(request), std::move(reply)); },
              [this] { tick(); });
    return {};
  }

 private:
  // -- called on the thread of the server: nothing here may take long
  // ---------------------------------------------------
  void handle(WebRequest request, WebReply reply) {
    if (request.path.empty()) return reply(serve::web_redirect(root_ + "/"));
    if (request.path == "/") return page(std::move(reply));
    if (request.path == "/news") return news(request, std::move(reply));
    if (request.path == "/model") return model(request, std::move(reply));
    const int digits = o_.digits;
    if (request.path == "/case")
      return part(request, std::move(reply), quick_, "case",
                  [digits](const Shown& s, std::size_t i) { return view::case_data(s.viewed, i, digits); });
    // Takes long, and does not hold up what is asked for meanwhile.
    if (request.path == "/stress")
      return part(request, std::move(reply), slow_, "stress",
                  [](const Shown& s, std::size_t i) { return view::stress_data(s.viewed, i); });
    reply(serve::web_text(404, "page not found\n"));
  }

  void page(WebReply reply) {
    quick_->add({}, [reply = std::move(reply), title = followed_->title()] {
      reply(serve::web_text(200, view::page_with(title, ""), "text/html; charset=utf-8"));
    });
  }

  std::string variant_of(const WebRequest& request) const {
    return request.query.contains("variant") ? request.value("variant") : o_.overrides.variant;
  }

  // The model of a variant with one case, the one that governs if none is named.
  void model(const WebRequest& request, WebReply reply) {
    followed_->ask(variant_of(request), [workers = quick_, name = request.value("case"), reply = std::move(reply),
                                         digits = o_.digits](Answered a) {
      const std::stop_token stop = a.shown ? a.shown->stop : std::stop_token();
      workers->add(stop, [a = std::move(a), name, reply, digits] {
        std::string text = head_of(a);
        if (a.shown) {
          const Solution& solution = a.shown->viewed.evaluation.solution;
          std::size_t index = governing_case(solution);
          for (std::size_t i = 0; i < solution.size(); ++i)
            if (solution[i].name() == name) index = i;
          text += ",\"model\":" + a.shown->model +
                  ",\"case\":" + json_text(view::case_data(a.shown->viewed, index, digits));
        }
        reply(json_answer(text + "}"));
      });
    });
  }

  // One case of a variant, or its stresses.
  template <class Data>
  void part(const WebRequest& request, WebReply reply, const std::shared_ptr<serve::Workers>& workers, const char* key,
            const Data& data) {
    constexpr std::size_t none = ~std::size_t{0};
    const std::size_t index = number_of(request.value("index"), none);
    followed_->ask(variant_of(request), [workers, index, key, data, reply = std::move(reply)](Answered a) {
      const std::stop_token stop = a.shown ? a.shown->stop : std::stop_token();
      workers->add(stop, [a = std::move(a), index, key, data, reply] {
        std::string text = head_of(a);
        if (a.shown && index < a.shown->viewed.evaluation.solution.size())
          text += fmt::format(",\"{}\":", key) + json_text(data(*a.shown, index));
        reply(json_answer(text + "}"));
      });
    });
  }

  // Answered when the model is another one than the page has, or after a while.
  struct Waiting {
    int version;
    std::chrono::steady_clock::time_point since;
    WebReply reply;
  };
  void news(const WebRequest& request, WebReply reply) {
    constexpr std::size_t most = 50;
    if (waiting_.size() >= most) tell(waiting_.front()), waiting_.erase(waiting_.begin());
    waiting_.push_back({number_of(request.value("version"), -1), std::chrono::steady_clock::now(), std::move(reply)});
    tell_news();
  }
  void tell(const Waiting& w) const { w.reply(json_answer(fmt::format("{{\"version\":{}}}", followed_->version()))); }
  void tell_news() {
    constexpr auto patience = std::chrono::seconds(20);
    const auto now = std::chrono::steady_clock::now();
    const int version = followed_->version();
    std::erase_if(waiting_, [&](const Waiting& w) {
      if (w.version == version && now - w.since < patience) return false;
      tell(w);
      return true;
    });
  }

  // Ten times a second, and after each reading.
  void tick() {
    if (o_.stop && o_.stop()) return web_->end();
    const bool can_be_opened = followed_->version() > 0;
    if (can_be_opened && !is_ready_ && o_.ready) o_.ready(fmt::format("http://127.0.0.1:{}{}/", port_, root_));
    is_ready_ |= can_be_opened;
    tell_news();
  }

  const ViewServer& o_;
  const std::string root_;
  int port_ = 0;
  bool is_ready_ = false;
  std::vector<Waiting> waiting_;
  std::shared_ptr<serve::WebServer> web_;
  std::shared_ptr<serve::Workers> quick_ = std::make_shared<serve::Workers>(2),
                                  slow_ = std::make_shared<serve::Workers>(1);
  std::unique_ptr<serve::Followed> followed_;
};

}  // namespace

std::optional<Problem> serve_view(const ViewServer& server) {
  std::string secret = random_secret();
  if (secret.empty()) return Problem{"the machine gives no random numbers: the page would not be safe"};
  return PageServer(server, std::move(secret))();
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_serve_view(const corvex::ViewServer& server,
                                                                 corvex::Expected<std::string, corvex::Problem>& done) {
  if (const auto problem = corvex::serve_view(server))
    done = *problem;
  else
    done = std::string();
}
