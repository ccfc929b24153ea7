#include "section/designation.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "corvex/number.hpp"
#include "quantity/ascii.hpp"

namespace corvex::section {
namespace {

class Scanner {
 public:
  explicit Scanner(std::string_view text) {
    // × as two bytes becomes x; all else is upper case.
    for (std::size_t i = 0; i < text.size(); ++i) {
      if (text.substr(i, 2) == "\xC3\x97")
        text_ += 'x', ++i;
      else
        text_ += ascii::upper(text[i]);
    }
  }

  std::optional<Designation> run() {
    Designation d;
    spaces();
    while (more() && (ascii::is_letter(peek()) || peek() == ' ' || peek() == '-') &&
           !(peek() == ' ' && digit_follows()))
      d.series += take();
    while (!d.series.empty() && d.series.back() == ' ') d.series.pop_back();
    spaces();
    while (more() && ascii::is_digit(peek())) {
      const auto number = mixed();
      if (!number) return std::nullopt;
      d.numbers.push_back(*number);
      spaces();
      if (!more() || (peek() != 'X' && peek() != '*' && peek() != 'x')) break;
      take();
      spaces();
      if (!more() || !ascii::is_digit(peek())) return std::nullopt;
    }
    std::string rest = text_.substr(at_);
    if (rest.starts_with("IN") && (rest.size() == 2 || rest[2] == ' ')) d.inches = true, rest.erase(0, 2);
    if (rest.starts_with("\"")) d.inches = true, rest.erase(0, 1);
    if (rest.starts_with("MM") && (rest.size() == 2 || rest[2] == ' ')) rest.erase(0, 2);
    for (const char c : rest)
      if (c != ' ') d.tail += c;
    d.fraction = fraction_;
    return d.series.empty() ? std::nullopt : std::optional(d);
  }

 private:
  bool more() const { return at_ < text_.size(); }
  char peek() const { return text_[at_]; }
  char take() { return text_[at_++]; }
  void spaces() {
    while (more() && peek() == ' ') ++at_;
  }
  bool digit_follows() const {
    std::size_t i = at_;
    while (i < text_.size() && text_[i] == ' ') ++i;
    return i < text_.size() && ascii::is_digit(text_[i]);
  }

  std::optional<double> number() {
    double value = 0;
    const auto [end, error] =
        std::from_chars(text_.data() + at_, text_.data() + text_.size(), value, std::chars_format::fixed);
    if (error != std::errc()) return std::nullopt;
    at_ = static_cast<std::size_t>(end - text_.data());
    return value;
  }
  // 4, 4.5, 1/4, 1 1/2, 1-1/2
  std::optional<double> mixed() {
    const auto first = number();
    if (!first) return std::nullopt;
    if (more() && peek() == '/') return over(*first);
    const std::size_t back = at_;
    if (more() && (peek() == ' ' || peek() == '-')) {
      ++at_;
      spaces();
      if (more() && ascii::is_digit(peek())) {
        const auto top = number();
        if (top && more() && peek() == '/') {
          const auto part = over(*top);
          if (part) return *first + *part;
        }
      }
    }
    at_ = back;
    return first;
  }
  std::optional<double> over(double top) {
    take();
    fraction_ = true;
    if (!more() || !ascii::is_digit(peek())) return std::nullopt;
    const auto below = number();
    return below && *below > 0 ? std::optional(top / *below) : std::nullopt;
  }

  std::string text_;
  std::size_t at_ = 0;
  bool fraction_ = false;
};

}  // namespace

std::optional<Designation> take_apart(std::string_view text) {
  if (text.size() > 80) return std::nullopt;
  return Scanner(text).run();
}

std::string plain(double value) {
  return fmt::format("{}", short_number(value, 6));
}

}  // namespace corvex::section
