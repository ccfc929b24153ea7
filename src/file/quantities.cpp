#include "file/quantities.hpp"

#include <cmath>

namespace corvex::file {
namespace {

// "1/4 in is 1/(4 in); write (1/4) in": what divides by a length where a length is expected.
std::string fraction_meant(std::string_view text, const Dimension& is, const Dimension& wanted) {
  if (!compatible(is * wanted, dimension::number)) return {};
  const std::size_t slash = text.find('/');
  if (slash == std::string_view::npos) return {};
  const std::size_t number = text.find_first_not_of(' ', slash + 1);
  const std::size_t end = number == std::string_view::npos ? number : text.find_first_not_of("0123456789.", number);
  const std::size_t unit = end == std::string_view::npos ? end : text.find_first_not_of(' ', end);
  if (unit == std::string_view::npos || end == number) return {};
  return fmt::format("{0} is {1}/({2}); write ({1}/{3}) {4}", text, text.substr(0, slash), text.substr(number),
                     text.substr(number, end - number), text.substr(unit));
}

}  // namespace

std::optional<Evaluated> Quantities::formula(const Node& n, std::string_view what) {
  if (!errors_.is_text(n, what)) return std::nullopt;
  const auto result = evaluate(n.text, parameters_);
  if (result && result->plain_turn > 0)
    errors_.warn(n, fmt::format("'{0}': {1:g} in sin, cos or tan is a plain number in radians; for degrees write "
                                "{1:g} deg",
                                n.text, result->plain_turn));
  if (result) return result.value();
  if (!result.error().text.empty())
    errors_.fail(n, fmt::format("'{}': {}", n.text, result.error().text), result.error().offset);
  return std::nullopt;
}

std::optional<double> Quantities::convert(const Node& n, const Evaluated& e, const Wanted& w) {
  const Quantity& q = e.quantity;
  // A plain number is not a length of one; an angle is not a force; but rad cancels against a plain number.
  const bool radians = e.units && compatible(q.dimension, w.dimension);
  if (q.dimension.none() && !w.dimension.none() && !radians) {
    if (e.percent) {
      errors_.fail(n, fmt::format("'{}' is a share; {} was expected, for example {}", n.text, w.what, w.example));
      return std::nullopt;
    }
    if (q.si == 0) return 0.0;
    if (w.bare && !e.units) return q.si * *w.bare;
    std::string text =
        fmt::format("'{}' {}; {} was expected, for example {}", n.text,
                    e.units ? "is a dimensionless number, since its units cancel" : "has no unit", w.what, w.example);
    if (w.bare_refused && !e.units) text += fmt::format(" ({})", w.bare_refused);
    if (w.unit_key && !w.bare_refused && !e.units) text += fmt::format(" (or name {} under units:)", w.unit_key);
    errors_.fail(n, std::move(text));
    return std::nullopt;
  }
  if (compatible(q.dimension, w.dimension)) return q.si;
  std::string text =
      fmt::format("'{}' is {}; {} was expected, for example {}", n.text, name(q.dimension), w.what, w.example);
  if (const std::string meant = fraction_meant(n.text, q.dimension, w.dimension); !meant.empty()) text = meant;
  if (compatible(q.dimension * dimension::acceleration, w.dimension) && n.text.find("lb") != std::string_view::npos)
    text += " (lb is a mass; the force is lbf)";
  errors_.fail(n, std::move(text));
  return std::nullopt;
}

std::optional<double> Quantities::read(const Node& n, const Wanted& wanted) {
  const auto e = formula(n, wanted.what);
  if (!e) return std::nullopt;
  return convert(n, *e, wanted);
}

std::optional<double> Quantities::position(const Node& n, double member_length) {
  const auto e = formula(n, "a place on the member");
  if (!e) return std::nullopt;
  if (e->quantity.dimension.plain() && e->percent) return e->quantity.si * member_length;
  return convert(n, *e, units_.length);
}

std::optional<PlaceAlong> Quantities::place_along(const Node& n) {
  const auto e = formula(n, "a place on the member");
  if (!e) return std::nullopt;
  if (e->quantity.dimension.plain() && e->percent) return PlaceAlong{e->quantity.si, true};
  const auto length = convert(n, *e, units_.length);
  return length ? std::optional(PlaceAlong{*length, false}) : std::nullopt;
}

std::optional<Quantity> Quantities::read_either(const Node& n, const Wanted& first, const Wanted& second) {
  const auto e = formula(n, first.what);
  if (!e) return std::nullopt;
  const Wanted& wanted = e->quantity.dimension == second.dimension ? second : first;
  const auto value = convert(n, *e, wanted);
  return value ? std::optional(Quantity(*value, wanted.dimension)) : std::nullopt;
}

std::optional<std::size_t> Quantities::whole_number(const Node& n, std::string_view what) {
  constexpr double most = 100000;
  const auto v = read(n, units_.number);
  if (!v) return std::nullopt;
  if (*v >= 1 && *v <= most && *v == std::round(*v)) return static_cast<std::size_t>(*v);
  errors_.fail(n, fmt::format("'{}' is not {}: a whole number from 1 to {:.0f} was expected", n.text, what, most));
  return std::nullopt;
}

std::optional<std::pair<double, double>> Quantities::first_and_last(const Node& n, const Wanted& wanted,
                                                                    bool may_change) {
  const bool pair = may_change && n.is_list();
  if (pair && n.count != 2) {
    errors_.fail(n, fmt::format("a first and a last value were expected, but there are {}", n.count));
    return std::nullopt;
  }
  const auto a = read(pair ? tree_->children(n)[0] : n, wanted);
  const auto b = pair ? read(tree_->children(n)[1], wanted) : a;
  return a && b ? std::optional(std::pair(*a, *b)) : std::nullopt;
}

}  // namespace corvex::file
