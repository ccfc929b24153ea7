#include "serve/web_server.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <list>
#include <new>
#include <optional>

// After the others: they are large.
#include <boost/asio/io_context.hpp>
#include <boost/asio/ip/tcp.hpp>
#include <boost/asio/post.hpp>
#include <boost/asio/steady_timer.hpp>
#include <boost/beast/core/flat_static_buffer.hpp>
#include <boost/beast/core/tcp_stream.hpp>
#include <boost/beast/http/empty_body.hpp>
#include <boost/beast/http/message.hpp>
#include <boost/beast/http/parser.hpp>
#include <boost/beast/http/read.hpp>
#include <boost/beast/http/span_body.hpp>
#include <boost/beast/http/write.hpp>

namespace corvex::serve {

namespace asio = boost::asio;
namespace beast = boost::beast;
namespace http = beast::http;
using asio::ip::tcp;
using boost::system::error_code;

std::string WebRequest::value(const std::string& name) const {
  const auto it = query.find(name);
  return it == query.end() ? std::string() : it->second;
}

WebAnswer web_text(int status, std::string text, std::string type) {
  return {status, std::move(type), std::make_shared<const std::string>(std::move(text))};
}

WebAnswer web_redirect(std::string location) {
  WebAnswer a = web_text(302, "");
  a.location = std::move(location);
  return a;
}

bool same_secret(std::string_view a, std::string_view b) {
  if (a.size() != b.size()) return false;
  unsigned different = 0;
  for (std::size_t i = 0; i < a.size(); ++i) different |= static_cast<unsigned char>(a[i] ^ b[i]);
  return different == 0;
}

namespace {

std::optional<std::string> decoded(std::string_view text, bool plus_is_space) {
  const auto digit = [](char c) {
    if (c >= '0' && c <= '9') return c - '0';
    if (c >= 'a' && c <= 'f') return c - 'a' + 10;
    if (c >= 'A' && c <= 'F') return c - 'A' + 10;
    return -1;
  };
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] == '+' && plus_is_space) {
      out += ' ';
    } else if (text[i] != '%') {
      out += text[i];
    } else {
      const int high = i + 2 < text.size() ? digit(text[i + 1]) : -1, low = high < 0 ? -1 : digit(text[i + 2]);
      if (low < 0) return std::nullopt;
      out += static_cast<char>(16 * high + low);
      i += 2;
    }
  }
  return out;
}

}  // namespace

bool parse_target(std::string_view target, std::string& path, std::map<std::string, std::string>& query) {
  if (target.empty() || target.front() != '/') return false;
  const std::size_t mark = std::min(target.find('?'), target.size());
  const auto decoded_path = decoded(target.substr(0, mark), false);
  if (!decoded_path) return false;
  path = *decoded_path;
  for (std::size_t at = mark + 1; at < target.size();) {
    const std::size_t end = std::min(target.find('&', at), target.size());
    const std::string_view part = target.substr(at, end - at);
    const std::size_t equals = std::min(part.find('='), part.size());
    const auto name = decoded(part.substr(0, equals), true),
               value = decoded(part.substr(std::min(equals + 1, part.size())), true);
    if (!name || !value) return false;
    query.try_emplace(*name, *value);
    at = end + 1;
  }
  return true;
}

namespace {

class Connection;

// Answers once, also where nobody does.
class Once {
 public:
  explicit Once(std::function<void(WebAnswer)> answer) : answer_(std::move(answer)) {}
  ~Once() {
    if (!is_done_.exchange(true)) answer_(web_text(503, "this could not be computed\n"));
  }
  Once(const Once&) = delete;
  Once& operator=(const Once&) = delete;
  void operator()(WebAnswer a) {
    if (!is_done_.exchange(true)) answer_(std::move(a));
  }

 private:
  std::function<void(WebAnswer)> answer_;
  std::atomic<bool> is_done_{false};
};

}  // namespace

struct WebServer::Shared : std::enable_shared_from_this<WebServer::Shared> {
  Shared(std::string s, WebBounds b)
      : secret(std::move(s)), bounds(b), acceptor(context), again(context), ticker(context) {}

  const std::string secret;
  const WebBounds bounds;
  asio::io_context context{1};
  tcp::acceptor acceptor;
  asio::steady_timer again, ticker;
  int port = 0;
  std::vector<std::pair<std::string, std::string>> headers;
  std::function<void(WebRequest, WebReply)> handle;
  std::function<void()> tick;
  std::list<std::weak_ptr<Connection>> connections;  // the oldest first
  std::size_t answers_under_way = 0;

  void accept();
  void begin(tcp::socket socket);
  bool drop_oldest_stranger();
  void make_room();
  void keep_ticking();
};

namespace {

constexpr const char* without_content = "a request without content was expected\n";

// One client. It lives as long as something of it is under way, and never longer than the server.
class Connection : public std::enable_shared_from_this<Connection> {
 public:
  Connection(tcp::socket socket, const WebBounds& bounds, std::string_view secret, int port)
      : stream_(std::move(socket)), bounds_(bounds), secret_(secret), port_(port) {}

  // Gives a request to the program; false where too many are under way.
  std::function<bool(WebRequest, std::function<void(WebAnswer)>)> ask;
  std::function<void(http::fields&)> add_headers;

  bool has_shown_secret() const { return has_shown_secret_; }
  void close() {
    error_code ignored;
    stream_.socket().shutdown(tcp::socket::shutdown_both, ignored);
    stream_.close();
  }

  void read() {
    parser_.emplace();
    parser_->header_limit(static_cast<std::uint32_t>(bounds_.header_bytes));
    parser_->body_limit(std::uint64_t{0});
    // For the whole request, however it comes in pieces.
    stream_.expires_after(bounds_.request);
    http::async_read_header(stream_, buffer_, *parser_, [self = shared_from_this()](error_code error, std::size_t) {
      if (error) return self->refused(error);
      self->answer();
    });
  }

 private:
  void refused(error_code error) {
    if (error == http::error::header_limit || error == http::error::buffer_overflow)
      return write(web_text(431, "the request is too large\n"), true);
    if (error == http::error::body_limit) return write(web_text(413, without_content), true);
    const bool malformed = error.category() == http::make_error_code(http::error::bad_method).category();
    if (malformed && error != http::error::end_of_stream && error != http::error::partial_message)
      return write(web_text(400, "malformed request\n"), true);
    close();
  }

  // A page of another site must not ask in the reader's name: its requests have another host or origin.
  bool is_from_this_page() const {
    const auto& request = parser_->get();
    const auto only = [&](http::field field) -> std::optional<std::string_view> {
      if (request.count(field) != 1) return std::nullopt;
      const auto value = request[field];
      return std::string_view(value.data(), value.size());
    };
    const std::string hosts[] = {fmt::format("127.0.0.1:{}", port_), fmt::format("localhost:{}", port_)};
    const auto host = only(http::field::host);
    if (!host || (*host != hosts[0] && *host != hosts[1])) return false;
    if (request.count(http::field::origin) == 0) return true;
    const auto origin = only(http::field::origin);
    return origin && (*origin == "http://" + hosts[0] || *origin == "http://" + hosts[1]);
  }

  void answer() {
    const auto& request = parser_->get();
    head_ = request.method() == http::verb::head;
    keep_ = request.keep_alive() && ++requests_ < bounds_.requests_of_connection;
    if (request.method() != http::verb::get && !head_) return write(web_text(405, "GET was expected\n"), true);
    if (parser_->chunked() || parser_->content_length().value_or(0) > 0 || request.count(http::field::expect) > 0)
      return write(web_text(413, without_content), true);
    if (!is_from_this_page()) return write(web_text(403, "not allowed\n"), true);
    WebRequest asked;
    const auto target = request.target();
    if (!parse_target(std::string_view(target.data(), target.size()), asked.path, asked.query))
      return write(web_text(400, "malformed address\n"), true);
    const std::size_t end = std::min(asked.path.find('/', 1), asked.path.size());
    if (!same_secret(std::string_view(asked.path).substr(1, end - 1), secret_))
      return write(web_text(404, "not allowed\n"), true);
    has_shown_secret_ = true;
    asked.path.erase(0, end);
    // Nothing is read meanwhile, and an answer may take its time.
    stream_.expires_never();
    const auto reply = [self = shared_from_this()](WebAnswer a) { self->write(std::move(a), false); };
    if (!ask(std::move(asked), reply)) write(web_text(503, "too many requests at once\n"), true);
  }

  void write(WebAnswer a, bool close_after) {
    body_ = a.body ? a.body : std::make_shared<const std::string>();
    response_.emplace();
    response_->version(11);
    response_->result(static_cast<unsigned>(a.status));
    add_headers(*response_);
    if (!a.location.empty()) response_->set(http::field::location, a.location);
    if (!a.type.empty()) response_->set(http::field::content_type, a.type);
    response_->body() = {body_->data(), head_ ? 0 : body_->size()};
    response_->content_length(body_->size());
    const bool keep = keep_ && !close_after;
    response_->keep_alive(keep);
    serializer_.emplace(*response_);
    stream_.expires_after(bounds_.answer);
    const auto done = [self = shared_from_this(), keep](error_code error, std::size_t) {
      if (error || !keep) return self->finish();
      self->body_.reset();
      self->read();
    };
    if (head_)
      http::async_write_header(stream_, *serializer_, done);
    else
      http::async_write(stream_, *serializer_, done);
  }

  void finish() {
    error_code ignored;
    stream_.socket().shutdown(tcp::socket::shutdown_send, ignored);
    stream_.close();
  }

  using Body = http::span_body<const char>;
  beast::tcp_stream stream_;
  beast::flat_static_buffer<16 << 10> buffer_;
  std::optional<http::request_parser<http::empty_body>> parser_;
  std::shared_ptr<const std::string> body_;
  std::optional<http::response<Body>> response_;
  std::optional<http::response_serializer<Body>> serializer_;
  const WebBounds& bounds_;
  const std::string_view secret_;
  int port_;
  std::size_t requests_ = 0;
  bool has_shown_secret_ = false, head_ = false, keep_ = false;
};

}  // namespace

bool WebServer::Shared::drop_oldest_stranger() {
  const auto stranger = std::find_if(connections.begin(), connections.end(), [](const auto& weak) {
    const auto c = weak.lock();
    return c && !c->has_shown_secret();
  });
  if (stranger == connections.end()) return false;
  if (const auto c = stranger->lock()) c->close();
  connections.erase(stranger);
  return true;
}

void WebServer::Shared::make_room() {
  connections.remove_if([](const auto& c) { return c.expired(); });
  while (connections.size() >= bounds.connections && drop_oldest_stranger()) {
  }
}

void WebServer::Shared::begin(tcp::socket socket) {
  const auto c = std::make_shared<Connection>(std::move(socket), bounds, secret, port);
  c->add_headers = [this](http::fields& fields) {
    for (const auto& [name, value] : headers) fields.set(name, value);
  };
  c->ask = [this](WebRequest request, std::function<void(WebAnswer)> write) {
    if (answers_under_way >= bounds.answers_under_way) return false;
    ++answers_under_way;
    // Where the server has ended meanwhile nobody runs what is posted.
    const auto once =
        std::make_shared<Once>([self = shared_from_this(), write = std::move(write)](WebAnswer a) mutable {
          asio::post(self->context, [server = self.get(), write = std::move(write), a = std::move(a)]() mutable {
            --server->answers_under_way;
            write(std::move(a));
          });
        });
    handle(std::move(request), [once](WebAnswer a) { (*once)(std::move(a)); });
    return true;
  };
  connections.push_back(c);
  c->read();
}

void WebServer::Shared::accept() {
  acceptor.async_accept([this](error_code error, tcp::socket socket) {
    if (error == asio::error::operation_aborted) return;
    if (error) {
      // No descriptors are left, or the client went away. Without room for another it is tried again after a pause.
      if (drop_oldest_stranger()) return accept();
      again.expires_after(std::chrono::milliseconds(20));
      again.async_wait([this](error_code stopped) {
        if (!stopped) accept();
      });
      return;
    }
    try {
      make_room();
      if (connections.size() < bounds.connections) begin(std::move(socket));
    } catch (const std::bad_alloc&) {
      // This one is refused: others go on.
    }
    accept();
  });
}

void WebServer::Shared::keep_ticking() {
  ticker.expires_after(std::chrono::milliseconds(100));
  ticker.async_wait([this](error_code error) {
    if (error) return;
    keep_ticking();
    tick();
  });
}

WebServer::WebServer(std::string secret, WebBounds bounds)
    : shared_(std::make_shared<Shared>(std::move(secret), bounds)) {}

WebServer::~WebServer() {
  // Nothing of what is under way runs any more; replies that are still to come are dropped.
  shared_->context.stop();
}

Expected<int, Problem> WebServer::listen(int port) {
  const auto failed = [port](const error_code& error) {
    return error == asio::error::address_in_use
               ? Problem{fmt::format("port {} cannot be used: another program has it", port)}
               : Problem{fmt::format("the page cannot be served: {}", error.message())};
  };
  error_code error;
  tcp::acceptor& acceptor = shared_->acceptor;
  const tcp::endpoint here(asio::ip::address_v4::loopback(), static_cast<unsigned short>(port));
  acceptor.open(here.protocol(), error);
  // No other program can listen at this port too, and a port that was used a moment ago is free.
  if (!error) acceptor.set_option(tcp::acceptor::reuse_address(true), error);
  if (!error) acceptor.bind(here, error);
  if (!error) acceptor.listen(asio::socket_base::max_listen_connections, error);
  if (error) return failed(error);
  return shared_->port = acceptor.local_endpoint().port();
}

void WebServer::header(std::string name, std::string value) {
  shared_->headers.emplace_back(std::move(name), std::move(value));
}

void WebServer::run(const std::function<void(WebRequest, WebReply)>& handle, const std::function<void()>& tick) {
  shared_->handle = handle;
  shared_->tick = tick;
  shared_->accept();
  shared_->keep_ticking();
  for (bool done = false; !done;) try {
      shared_->context.run();
      done = true;
    } catch (const std::bad_alloc&) {
      // One answer for which there was no memory; the others go on.
    }
  shared_->handle = nullptr, shared_->tick = nullptr;
}

void WebServer::wake() {
  asio::post(shared_->context, [server = shared_.get()] {
    if (server->tick) server->tick();
  });
}

void WebServer::end() {
  shared_->context.stop();
}

}  // namespace corvex::serve
