#include "report/math.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "corvex/formula.hpp"
#include "report/escape.hpp"

namespace corvex::reporting {
namespace {

using Kind = Math::Kind;

Math one(Kind kind, std::string text) {
  return {kind, std::move(text), {}};
}
Math row(std::vector<Math> parts) {
  return parts.size() == 1 ? std::move(parts.front()) : Math{Kind::row, {}, std::move(parts)};
}
// The bar of a fraction and the line of a root take the place of brackets.
Math without_brackets(Math m) {
  return m.kind == Kind::brackets ? row(std::move(m.parts)) : m;
}

// One function for each level of binding, as in quantity/formula.cpp. Text that cannot be read is kept unchanged.
class FormulaReader {
 public:
  explicit FormulaReader(std::string_view text) : text_(text) {}

  Math whole() {
    Math m = sum();
    skip();
    if (at_ < text_.size()) m = row({std::move(m), one(Kind::name, std::string(text_.substr(at_)))});
    return m;
  }

 private:
  void skip() {
    while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t' || text_[at_] == '\n')) ++at_;
  }
  bool take(std::string_view symbol) {
    skip();
    if (!text_.substr(at_).starts_with(symbol)) return false;
    at_ += symbol.size();
    return true;
  }
  static bool is_digit(char c) { return (c >= '0' && c <= '9') || c == '.'; }
  static bool starts_word(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' || c == '%' ||
           static_cast<unsigned char>(c) >= 0x80;
  }
  bool at_sign() const {
    const std::string_view rest = text_.substr(at_);
    for (const char* sign : {"·", "⋅", "×", "−", "²", "³", "⁴"})
      if (rest.starts_with(sign)) return true;
    return false;
  }
  std::string word() {
    const std::size_t from = at_;
    while (at_ < text_.size() && (starts_word(text_[at_]) || (text_[at_] >= '0' && text_[at_] <= '9')) && !at_sign())
      ++at_;
    return std::string(text_.substr(from, at_ - from));
  }

  Math sum() {
    std::vector<Math> parts{product()};
    for (;;) {
      if (take("+"))
        parts.push_back(one(Kind::sign, "+"));
      else if (take("-") || take("−"))
        parts.push_back(one(Kind::sign, "−"));
      else
        return row(std::move(parts));
      parts.push_back(product());
    }
  }

  // The sign of a product stands before its fraction.
  Math product() {
    if (take("-") || take("−")) return row({one(Kind::sign, "−"), product()});
    std::vector<Math> parts{factor()};
    for (;;) {
      if (take("*") || take("·") || take("⋅") || take("×")) {
        parts.push_back(one(Kind::sign, "·"));
        parts.push_back(factor());
      } else if (take("/")) {
        Math above = row(std::move(parts)), below = without_brackets(factor());
        parts = {{Kind::fraction, {}, {without_brackets(std::move(above)), std::move(below)}}};
      } else {
        return row(std::move(parts));
      }
    }
  }

  Math factor() {
    if (take("-") || take("−")) return row({one(Kind::sign, "−"), factor()});
    if (take("+")) return factor();
    return powered();
  }

  Math powered() {
    Math base = primary();
    skip();
    for (const auto& [sign, digit] : {std::pair{"²", "2"}, {"³", "3"}, {"⁴", "4"}})
      if (take(sign)) return {Kind::power, {}, {std::move(base), one(Kind::number, digit)}};
    if (!take("^")) return base;
    const bool negative = take("-") || take("−");
    Math exponent = without_brackets(powered());
    if (negative) exponent = row({one(Kind::sign, "−"), std::move(exponent)});
    // A number with its unit is raised as a whole only in brackets.
    return {Kind::power, {}, {std::move(base), std::move(exponent)}};
  }

  Math primary() {
    skip();
    if (at_ >= text_.size()) return one(Kind::name, "");
    const char c = text_[at_];
    if (c == '(') {
      ++at_;
      Math inside = sum();
      take(")");
      Math brackets{Kind::brackets, {}, {std::move(inside)}};
      return with_unit(std::move(brackets));
    }
    if (is_digit(c)) return with_unit(number());
    if (starts_word(c)) return named();
    return one(Kind::sign, std::string(1, text_[at_++]));
  }

  Math number() {
    const std::size_t from = at_;
    while (at_ < text_.size() && is_digit(text_[at_])) ++at_;
    const auto digit = [&](std::size_t i) { return i < text_.size() && text_[i] >= '0' && text_[i] <= '9'; };
    if (at_ < text_.size() && (text_[at_] == 'e' || text_[at_] == 'E')) {
      const std::size_t sign = at_ + 1 < text_.size() && (text_[at_ + 1] == '-' || text_[at_ + 1] == '+') ? 1 : 0;
      if (digit(at_ + 1 + sign)) {
        const std::string mantissa(text_.substr(from, at_ - from));
        at_ += 1 + sign;
        const bool negative = sign == 1 && text_[at_ - 1] == '-';
        const std::size_t first = at_;
        while (digit(at_)) ++at_;
        const std::string exponent = (negative ? "−" : "") + std::string(text_.substr(first, at_ - first));
        return row({one(Kind::number, mantissa),
                    one(Kind::sign, "·"),
                    {Kind::power, {}, {one(Kind::number, "10"), one(Kind::number, exponent)}}});
      }
    }
    return one(Kind::number, std::string(text_.substr(from, at_ - from)));
  }

  // A number binds its unit, with what the unit is divided by: 0.8 kN/m.
  Math with_unit(Math value) {
    const std::size_t before = at_;
    skip();
    if (at_ >= text_.size() || !starts_word(text_[at_]) || at_sign()) return at_ = before, value;
    std::string text = word();
    if (!unit(text)) return at_ = before, value;
    const auto raised = [&] {
      if (at_ < text_.size() && text_[at_] == '^' && at_ + 1 < text_.size() && is_digit(text_[at_ + 1])) {
        const char digit = text_[at_ + 1];
        at_ += 2;
        text += digit == '2' ? "²" : digit == '3' ? "³" : digit == '4' ? "⁴" : std::string("^") + digit;
      }
      for (const char* sign : {"²", "³", "⁴"})
        if (text_.substr(at_).starts_with(sign)) text += sign, at_ += std::string_view(sign).size();
    };
    raised();
    for (;;) {
      const std::size_t here = at_;
      std::string_view sign;
      for (const char* one_of : {"/", "*", "·"})
        if (text_.substr(at_).starts_with(one_of)) sign = one_of;
      at_ += sign.size();
      const std::string next = sign.empty() || at_ >= text_.size() || !starts_word(text_[at_]) ? "" : word();
      if (next.empty() || !unit(next) || (at_ < text_.size() && text_[at_] == '(')) {
        at_ = here;
        break;
      }
      text += (sign == "/" ? "/" : "·") + next;
      raised();
    }
    return row({std::move(value), one(Kind::unit, text)});
  }

  Math named() {
    const std::string name = word();
    if (name.empty()) return one(Kind::sign, std::string(1, text_[at_++]));
    if (at_ < text_.size() && text_[at_] == '(') return called(name);
    if (name == "pi") return one(Kind::name, "π");
    const std::size_t score = name.find('_');
    if (score != std::string::npos && score > 0 && score + 1 < name.size())
      return {Kind::name, name.substr(0, score), {one(Kind::name, name.substr(score + 1))}};
    return one(Kind::name, name);
  }

  // A function of values, or a figure of something named in brackets.
  Math called(const std::string& name) {
    static constexpr const char* functions[] = {"sin",   "cos",   "tan", "asin", "acos", "atan",
                                                "atan2", "hypot", "abs", "min",  "max"};
    const std::size_t open = at_++;
    if (name == "sqrt") {
      Math inside = sum();
      take(")");
      return {Kind::root, {}, {std::move(inside)}};
    }
    if (std::find(std::begin(functions), std::end(functions), name) != std::end(functions)) {
      std::vector<Math> inside{sum()};
      while (take(",")) inside.push_back(one(Kind::sign, ",")), inside.push_back(sum());
      take(")");
      return row({one(Kind::name, name), {Kind::brackets, {}, std::move(inside)}});
    }
    int depth = 0;
    for (at_ = open; at_ < text_.size(); ++at_) {
      depth += text_[at_] == '(' ? 1 : text_[at_] == ')' ? -1 : 0;
      if (depth == 0) break;
    }
    const std::string of(text_.substr(open + 1, at_ - open - 1));
    at_ = std::min(at_ + 1, text_.size());
    return {Kind::name, name, {one(Kind::name, of)}};
  }

  std::string_view text_;
  std::size_t at_ = 0;
};

std::string all(const std::vector<Math>& parts) {
  std::string text;
  for (const Math& p : parts) text += mathml(p);
  return text;
}

}  // namespace

Math typeset(std::string_view formula) {
  return FormulaReader(formula).whole();
}

Math equation(std::vector<Math> sides) {
  std::vector<Math> parts;
  for (Math& side : sides) {
    if (!parts.empty()) parts.push_back(one(Kind::sign, "="));
    parts.push_back(std::move(side));
  }
  return row(std::move(parts));
}

std::string mathml(const Math& m) {
  const std::string text = escaped(m.text);
  switch (m.kind) {
    case Kind::number: return "<mn>" + text + "</mn>";
    case Kind::unit: return "<mspace width=\"0.2em\"/><mtext>" + text + "</mtext>";
    case Kind::name:
      return m.parts.empty() ? "<mi>" + text + "</mi>"
                             : "<msub><mi>" + text + "</mi><mtext>" + escaped(m.parts[0].text) + "</mtext></msub>";
    case Kind::sign: return "<mo>" + text + "</mo>";
    case Kind::row: return "<mrow>" + all(m.parts) + "</mrow>";
    case Kind::fraction: return "<mfrac>" + mathml(m.parts[0]) + mathml(m.parts[1]) + "</mfrac>";
    case Kind::power: return "<msup>" + mathml(m.parts[0]) + mathml(m.parts[1]) + "</msup>";
    case Kind::root: return "<msqrt>" + mathml(m.parts[0]) + "</msqrt>";
    case Kind::brackets: return "<mrow><mo>(</mo>" + all(m.parts) + "<mo>)</mo></mrow>";
  }
  return {};
}

}  // namespace corvex::reporting
