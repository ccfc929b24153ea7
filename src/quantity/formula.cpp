#include "corvex/formula.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "quantity/words_of.hpp"

namespace corvex {
namespace {

using Outcome = Expected<Evaluated, FormulaError>;

// Limited by a thread stack of 64 kB.
constexpr int depth_limit = 32;
constexpr double full_turn = 6.283185307179587;
constexpr std::array functions = {"sqrt", "sin",   "cos",   "tan", "asin", "acos",
                                  "atan", "atan2", "hypot", "abs", "min",  "max"};

bool is_function(std::string_view word) {
  return std::find(functions.begin(), functions.end(), word) != functions.end();
}

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}
bool starts_word(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' || static_cast<unsigned char>(c) >= 0x80;
}

// One formula being read, from left to right, one function a level of binding. The first error ends it.
class Reading {
 public:
  Reading(std::string_view text, const Names& names, std::vector<Use>* uses)
      : text_(text), names_(names), uses_(uses) {}

  Outcome whole() {
    if (const std::size_t at = hyphenated_moment(); at != std::string_view::npos)
      return FormulaError{at, "write the moment with the unit of force, as lbf*in or lbf*ft (lb is a mass)"};
    skip_space();
    if (at_ == text_.size()) return FormulaError{0, "a number or a formula was expected, but there is nothing"};
    Evaluated v = sum();
    skip_space();
    if (!failed_ && at_ < text_.size()) fail(at_, unexpected());
    if (failed_) return error_;
    if (!std::isfinite(v.quantity.si)) return FormulaError{0, "the result is not a finite number"};
    return v;
  }

 private:
  void fail(std::size_t at, std::string text) {
    if (failed_) return;
    failed_ = true;
    error_ = {at, std::move(text)};
  }

  // `in-lb` and `ft-lb` would read as a difference of a length and a mass.
  std::size_t hyphenated_moment() const {
    for (const std::string_view word : {"in-lb", "ft-lb", "lb-in", "lb-ft", "in-kip", "ft-kip", "kip-ft", "kip-in"}) {
      const std::size_t at = text_.find(word);
      if (at == std::string_view::npos) continue;
      const bool inside_word = at > 0 && starts_word(text_[at - 1]);
      const std::size_t end = at + word.size();
      const bool goes_on = end < text_.size() && starts_word(text_[end]) && !text_.substr(at).starts_with("in-lbf") &&
                           !text_.substr(at).starts_with("ft-lbf");
      if (!inside_word && !goes_on) return at;
    }
    return std::string_view::npos;
  }

  void skip_space() {
    for (;;) {
      if (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t' || text_[at_] == '\n' || text_[at_] == '\r'))
        ++at_;
      else if (text_.substr(at_).starts_with("\u00a0") || text_.substr(at_).starts_with("\u202f"))
        at_ += text_[at_] == '\xc2' ? 2 : 3;
      else
        return;
    }
  }

  bool take(std::string_view symbol) {
    skip_space();
    if (!text_.substr(at_).starts_with(symbol)) return false;
    at_ += symbol.size();
    return true;
  }

  std::string unexpected() const {
    const std::string_view rest = text_.substr(at_);
    if (rest.front() == ',' && at_ > 0 && is_digit(text_[at_ - 1]))
      return "a comma was read; the decimal sign is a point";
    if (rest.front() == ')') return "a closing bracket without an opening one";
    if (is_digit(rest.front()) || rest.front() == '.')
      return "two numbers follow each other; an operator (+ - * /) was expected between them";
    if (starts_word(rest.front()))
      return fmt::format("'{}' follows without an operator; write * between factors, as kN*m", word_at(at_));
    return fmt::format("'{}' was not expected here", rest.front());
  }

  Evaluated sum() {
    if (++depth_ > depth_limit) {
      fail(at_, fmt::format("brackets are nested more than {} deep", depth_limit));
      return {};
    }
    Evaluated v = product();
    while (!failed_) {
      skip_space();
      const std::size_t at = at_;
      const bool plus = take("+");
      if (!plus && !take("-") && !take("−")) break;
      const Evaluated right = product();
      if (failed_) break;
      if (!compatible(v.quantity.dimension, right.quantity.dimension)) {
        fail(at, fmt::format("{} and {} cannot be {}", name(v.quantity.dimension), name(right.quantity.dimension),
                             plus ? "added" : "subtracted"));
        break;
      }
      if (v.quantity.dimension.none()) v.quantity.dimension = right.quantity.dimension;
      v.quantity.si += plus ? right.quantity.si : -right.quantity.si;
      v.adopt_marks(right);
    }
    --depth_;
    return v;
  }

  bool take_times() {
    skip_space();
    if (text_.substr(at_).starts_with("**")) {
      fail(at_, "'**' was read; a power is written with ^");
      return false;
    }
    return take("*") || take("·") || take("⋅") || take("×");
  }

  Evaluated product() {
    Evaluated v = signed_factor();
    while (!failed_) {
      if (take_times()) {
        const Evaluated right = signed_factor();
        v.quantity.si *= right.quantity.si;
        v.quantity.dimension = v.quantity.dimension * right.quantity.dimension;
        v.adopt_marks(right);
        continue;
      }
      skip_space();
      const std::size_t at = at_;
      if (failed_ || !take("/")) break;
      const Evaluated right = signed_factor();
      if (failed_) break;
      if (right.quantity.si == 0) {
        fail(at, "division by zero");
        break;
      }
      v.quantity.si /= right.quantity.si;
      v.quantity.dimension = v.quantity.dimension / right.quantity.dimension;
      v.adopt_marks(right);
    }
    return v;
  }

  Evaluated signed_factor() {
    bool negative = false;
    for (;;) {
      if (take("-") || take("−"))
        negative = !negative;
      else if (!take("+"))
        break;
    }
    Evaluated v = with_unit();
    if (negative) v.quantity.si = -v.quantity.si;
    return v;
  }

  // A number binds its unit tighter than any product: 10 kN/2 m is 5 kN/m.
  Evaluated with_unit() {
    skip_space();
    const bool number = at_ < text_.size() && (is_digit(text_[at_]) || text_[at_] == '.');
    const bool bracket = at_ < text_.size() && text_[at_] == '(';
    Evaluated v = powered();
    if (failed_ || !(number || bracket)) return v;
    if (number && take_one_over()) {
      const Evaluated u = powered();
      v.quantity.si /= u.quantity.si;
      v.quantity.dimension = v.quantity.dimension / u.quantity.dimension;
      v.units |= u.units;
      return v;
    }
    skip_space();
    if (at_ == text_.size() || (!starts_word(text_[at_]) && text_[at_] != '%')) return v;
    const std::size_t at = at_;
    if (text_.substr(at_).starts_with("·") || text_.substr(at_).starts_with("⋅") ||
        text_.substr(at_).starts_with("×") || text_.substr(at_).starts_with("−"))
      return v;
    const std::string_view word = word_at(at);
    if (!unit(word)) {
      if (is_function(word) || names_.find(word) || word == "pi" || word == "gn")
        fail(at, fmt::format("write * between a number and '{}'", word));
      else
        fail(at, unknown(word, true));
      return v;
    }
    const Evaluated u = powered();
    v.quantity.si *= u.quantity.si;
    v.quantity.dimension = v.quantity.dimension * u.quantity.dimension;
    v.adopt_marks(u);
    return v;
  }

  // `6.5e-6 1/degF`: a unit that only divides, as results print it.
  bool take_one_over() {
    skip_space();
    std::size_t at = at_;
    if (at >= text_.size() || text_[at] != '1') return false;
    for (++at; at < text_.size() && text_[at] == ' ';) ++at;
    if (at >= text_.size() || text_[at] != '/') return false;
    for (++at; at < text_.size() && text_[at] == ' ';) ++at;
    if (at >= text_.size() || !starts_word(text_[at]) || !unit(word_at(at))) return false;
    at_ = at;
    return true;
  }

  Evaluated powered() {
    Evaluated v = primary();
    if (failed_) return v;
    skip_space();
    const std::size_t at = at_;
    std::optional<double> exponent = superscript();
    if (!exponent) {
      if (!take("^")) return v;
      if (++depth_ > depth_limit) {
        fail(at, "too many powers of powers");
        return v;
      }
      const bool negative = take("-") || take("−");
      const Evaluated e = powered();
      --depth_;
      if (failed_) return v;
      if (!e.quantity.dimension.plain()) {
        fail(at, fmt::format("an exponent must be a plain number, but this is {}", name(e.quantity.dimension)));
        return v;
      }
      exponent = negative ? -e.quantity.si : e.quantity.si;
    }
    const double base = v.quantity.si;
    v.quantity.si = std::pow(base, *exponent);
    v.quantity.dimension = power(v.quantity.dimension, *exponent);
    if (!std::isfinite(v.quantity.si)) fail(at, fmt::format("{}^{} is not a finite number", base, *exponent));
    return v;
  }

  // ², ³, ⁴, also ⁻¹.
  std::optional<double> superscript() {
    static constexpr std::array<std::string_view, 10> digits = {"⁰", "¹", "²", "³", "⁴", "⁵", "⁶", "⁷", "⁸", "⁹"};
    double value = 0;
    bool any = false;
    const bool negative = text_.substr(at_).starts_with("⁻");
    std::size_t at = at_ + (negative ? std::string_view("⁻").size() : 0);
    for (bool found = true; found;) {
      found = false;
      for (std::size_t d = 0; d < digits.size(); ++d) {
        if (!text_.substr(at).starts_with(digits[d])) continue;
        value = value * 10 + static_cast<double>(d);
        at += digits[d].size();
        found = any = true;
        break;
      }
    }
    if (!any) return std::nullopt;
    at_ = at;
    return negative ? -value : value;
  }

  // A name or unit symbol: letters, digits and what is not ASCII, but no operator and no superscript.
  std::string_view word_at(std::size_t from) const {
    if (from < text_.size() && text_[from] == '%') return text_.substr(from, 1);
    static constexpr std::array<std::string_view, 15> stops = {"·", "⋅", "×", "−", "⁰", "¹", "²", "³",
                                                               "⁴", "⁵", "⁶", "⁷", "⁸", "⁹", "⁻"};
    std::size_t end = from;
    while (end < text_.size() && (starts_word(text_[end]) || is_digit(text_[end]))) {
      const std::string_view rest = text_.substr(end);
      if (std::any_of(stops.begin(), stops.end(), [&](std::string_view s) { return rest.starts_with(s); })) break;
      if (rest.starts_with("\u00a0") || rest.starts_with("\u202f")) break;
      ++end;
    }
    return text_.substr(from, end - from);
  }

  Evaluated primary() {
    skip_space();
    if (at_ == text_.size()) {
      fail(at_, "the formula ends where a value was expected");
      return {};
    }
    const char c = text_[at_];
    if (c == '(') return bracket();
    if (is_digit(c) || c == '.') return number();
    if (starts_word(c) || c == '%') return word();
    fail(at_, unexpected());
    return {};
  }

  Evaluated bracket() {
    const std::size_t open = at_++;
    Evaluated v = sum();
    if (!failed_ && !take(")")) close_missing(open);
    return v;
  }

  void close_missing(std::size_t open) {
    skip_space();
    if (at_ < text_.size())
      fail(at_, unexpected());
    else
      fail(open, "this bracket is not closed (inside { } or [ ] a formula with a comma needs quotes)");
  }

  Evaluated number() {
    double value = 0;
    const char* begin = text_.data() + at_;
    const auto [end, code] = std::from_chars(begin, text_.data() + text_.size(), value);
    if (code == std::errc::result_out_of_range) {
      fail(at_, "this number is too large or too small to be represented");
      return {};
    }
    if (code != std::errc()) {
      fail(at_, "a number was expected");
      return {};
    }
    at_ += static_cast<std::size_t>(end - begin);
    return {Quantity(value, dimension::number)};
  }

  Evaluated word() {
    const std::size_t at = at_;
    const std::string_view w = word_at(at);
    if (w.empty()) {
      fail(at, "a value was expected");
      return {};
    }
    at_ += w.size();
    if (is_function(w)) return function(w, at);
    if (text_.substr(at_).starts_with('(') && asks_for_figure(w)) return figure(w, at);
    if (auto found = names_.find(w)) return used(*found, at, at);
    if (w == "pi") return {Quantity(3.14159265358979323846, dimension::number)};
    if (w == "gn") return {Quantity(gn), false, true};
    if (const auto u = unit(w)) return {*u, w == "%", w != "%"};
    fail(at, unknown(w, false));
    return {};
  }

  // Meaning of a name; `blame` is the position for an error.
  Evaluated used(const Outcome& found, std::size_t at, std::size_t blame) {
    if (!found.ok()) {
      fail(blame, found.error().text);
      return {};
    }
    if (uses_) uses_->push_back({at, at_ - at, found->quantity});
    return *found;
  }

  bool asks_for_figure(std::string_view w) const {
    const std::vector<std::string> figures = names_.figures();
    return std::find(figures.begin(), figures.end(), w) != figures.end();
  }

  // Iz(left leg): the brackets contain a name, which may have spaces and brackets.
  Evaluated figure(std::string_view word, std::size_t at) {
    const std::size_t open = at_;
    int depth = 0;
    for (; at_ < text_.size(); ++at_) {
      if (text_[at_] == '(') ++depth;
      if (text_[at_] == ')' && --depth == 0) break;
    }
    if (at_ == text_.size()) {
      close_missing(open);
      return {};
    }
    const std::string_view inside = text_.substr(open + 1, at_ - open - 1);
    ++at_;
    const std::size_t first = inside.find_first_not_of(' '), last = inside.find_last_not_of(' ');
    if (first == std::string_view::npos) {
      fail(open, fmt::format("a name was expected in the brackets of '{}'", word));
      return {};
    }
    return used(names_.figure(word, inside.substr(first, last - first + 1)), at, open + 1 + first);
  }

  std::string unknown(std::string_view w, bool after_number) const {
    if (!names_.gives_hints())
      return fmt::format("'{}' is {}", w, after_number ? "not a unit" : "neither a parameter nor a unit");
    std::vector<std::string> known = names_.names();
    if (after_number) known.clear();
    for (const char* u :
         {"m",  "mm", "cm",  "km",  "N",   "kN",  "MN",  "Pa",  "kPa", "MPa",  "GPa",  "kg", "g",  "tonne", "in",
          "ft", "lb", "lbf", "kip", "psi", "ksi", "kgf", "deg", "rad", "degC", "degF", "s",  "Hz", "K"})
      known.emplace_back(u);
    if (!after_number) {
      known.insert(known.end(), functions.begin(), functions.end());
      known.insert(known.end(), {"pi", "gn"});
    }
    return fmt::format("'{}' is {}{}", w, after_number ? "not a unit" : "neither a parameter nor a unit",
                       w == "t" ? "; a metric ton is written tonne" : did_you_mean(w, known));
  }

  Evaluated function(std::string_view f, std::size_t at) {
    skip_space();
    const std::size_t open = at_;
    if (!take("(")) {
      fail(at, fmt::format("'{}' is a function; its value in brackets was expected", f));
      return {};
    }
    std::vector<Evaluated> given{sum()};
    while (!failed_ && take(",")) given.push_back(sum());
    if (!failed_ && !take(")")) close_missing(open);
    if (failed_) return {};
    const std::size_t wanted = f == "atan2" || f == "hypot" ? 2 : f == "min" || f == "max" ? given.size() : 1;
    if (given.size() != wanted) {
      const char* count = wanted == 1 ? "one value" : "two values";
      fail(at, fmt::format("'{}' takes {}, {} {} given", f, count, given.size(), given.size() == 1 ? "was" : "were"));
      return {};
    }
    return apply(f, at, given);
  }

  // Values of functions that compare theirs have one dimension.
  void check_alike(std::string_view f, std::size_t at, const std::vector<Evaluated>& given) {
    for (const Evaluated& g : given)
      if (!compatible(g.quantity.dimension, given.front().quantity.dimension))
        fail(at, fmt::format("'{}' compares {} with {}", f, name(given.front().quantity.dimension),
                             name(g.quantity.dimension)));
  }

  Evaluated apply(std::string_view f, std::size_t at, const std::vector<Evaluated>& given) {
    Evaluated v = given.front();
    for (const Evaluated& g : given) v.adopt_marks(g);
    double& x = v.quantity.si;
    if (f == "abs") {
      x = std::abs(x);
    } else if (f == "sqrt") {
      if (x < 0) fail(at, "the square root of a negative value");
      x = std::sqrt(x);
      v.quantity.dimension = power(v.quantity.dimension, 0.5);
    } else if (f == "min" || f == "max") {
      check_alike(f, at, given);
      for (const Evaluated& g : given) x = f == "min" ? std::min(x, g.quantity.si) : std::max(x, g.quantity.si);
    } else if (f == "hypot" || f == "atan2") {
      check_alike(f, at, given);
      x = f == "hypot" ? std::hypot(x, given[1].quantity.si) : std::atan2(x, given[1].quantity.si);
      if (f == "atan2") v.quantity.dimension = dimension::angle, v.units = true;
    } else if (f == "asin" || f == "acos" || f == "atan") {
      if (!v.quantity.dimension.none())
        fail(at, fmt::format("'{}' takes a plain number, but this is {}", f, name(v.quantity.dimension)));
      if (f != "atan" && std::abs(x) > 1)
        fail(at, fmt::format("'{}' takes a number from -1 to 1, but this is {}", f, x));
      x = f == "asin" ? std::asin(x) : f == "acos" ? std::acos(x) : std::atan(x);
      v.quantity.dimension = dimension::angle;
      v.units = true;
    } else {
      if (!v.quantity.dimension.plain())
        fail(at, fmt::format("'{}' takes an angle, but this is {}", f, name(v.quantity.dimension)));
      if (v.quantity.dimension.none() && std::abs(x) > full_turn) v.plain_turn = std::max(v.plain_turn, std::abs(x));
      x = f == "sin" ? std::sin(x) : f == "cos" ? std::cos(x) : std::tan(x);
      v.quantity.dimension = dimension::number;
      v.units = false;
    }
    return v;
  }

  std::string_view text_;
  const Names& names_;
  std::vector<Use>* uses_;
  std::size_t at_ = 0;
  int depth_ = 0;
  bool failed_ = false;
  FormulaError error_;
};

}  // namespace

Outcome evaluate(std::string_view formula, const Names& names) {
  // By far the most frequent formula is a bare number: no reading needed.
  double value = 0;
  const auto [end, code] = std::from_chars(formula.data(), formula.data() + formula.size(), value);
  if (code == std::errc() && end == formula.data() + formula.size() && std::isfinite(value))
    return Evaluated{Quantity(value, dimension::number)};
  return Reading(formula, names, nullptr).whole();
}

Outcome evaluate(std::string_view formula, const Names& names, std::vector<Use>& uses) {
  uses.clear();
  return Reading(formula, names, &uses).whole();
}

// Words before a bracket that ask for a figure take a name of something else into it, which is not a word of the
// formula.
std::vector<std::string_view> words_of(std::string_view formula, const std::vector<std::string>& figures) {
  std::vector<std::string_view> words;
  for (std::size_t i = 0; i < formula.size();) {
    if (!starts_word(formula[i])) {
      ++i;
      continue;
    }
    std::size_t end = i;
    while (end < formula.size() && (starts_word(formula[end]) || is_digit(formula[end]))) ++end;
    const std::string_view word = formula.substr(i, end - i);
    i = end;
    if (i < formula.size() && formula[i] == '(' && std::find(figures.begin(), figures.end(), word) != figures.end()) {
      int depth = 0;
      do {
        depth += formula[i] == '(' ? 1 : formula[i] == ')' ? -1 : 0;
      } while (++i < formula.size() && depth > 0);
      continue;
    }
    words.push_back(word);
  }
  return words;
}

std::string why_not_a_parameter(std::string_view name) {
  const char* is = unit(name)                     ? "unit"
                   : is_function(name)            ? "function"
                   : name == "pi" || name == "gn" ? "constant"
                                                  : "";
  if (*is) return fmt::format("'{0}' is a {1}; another name is needed, for example '{0}_1'", name, is);
  const bool word = !name.empty() && starts_word(name.front()) &&
                    std::all_of(name.begin(), name.end(), [](char c) { return starts_word(c) || is_digit(c); });
  if (!word) return "a parameter's name is one word of letters, digits and _, with a letter first";
  return {};
}

}  // namespace corvex
