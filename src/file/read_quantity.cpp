#include "file/reader.hpp"

namespace corvex::file {

std::optional<Evaluated> Reader::formula(const Node& n, std::string_view what) {
  if (!is_text(n, what)) return std::nullopt;
  const auto result = evaluate(n.text, parameters_);
  if (result) return result.value();
  if (!result.error().text.empty())
    fail(n, fmt::format("'{}': {}", n.text, result.error().text), result.error().offset);
  return std::nullopt;
}

std::optional<double> Reader::convert(const Node& n, const Evaluated& e, const Wanted& w) {
  const Quantity& q = e.quantity;
  // A plain number is not a length of one; an angle is not a force; but rad cancels against a plain number.
  const bool radians = e.units && compatible(q.dimension, w.dimension);
  if (q.dimension.none() && !w.dimension.none() && !radians) {
    if (q.si == 0) return 0.0;
    if (w.bare && !e.units) return q.si * *w.bare;
    std::string text =
        fmt::format("'{}' {}; {} was expected, as {}", n.text,
                    e.units ? "is a plain number, since its units cancel" : "has no unit", w.what, w.example);
    if (w.unit_key && !e.units) text += fmt::format(" (or name {} under units:)", w.unit_key);
    fail(n, std::move(text));
    return std::nullopt;
  }
  if (compatible(q.dimension, w.dimension)) return q.si;
  std::string text = fmt::format("'{}' is {}; {} was expected, as {}", n.text, name(q.dimension), w.what, w.example);
  if (compatible(q.dimension * dimension::acceleration, w.dimension) && n.text.find("lb") != std::string_view::npos)
    text += " (lb is a mass; the force is lbf)";
  fail(n, std::move(text));
  return std::nullopt;
}

std::optional<double> Reader::quantity(const Node& n, const Wanted& wanted) {
  const auto e = formula(n, wanted.what);
  if (!e) return std::nullopt;
  return convert(n, *e, wanted);
}

std::optional<double> Reader::position(const Node& n, double member_length) {
  const auto e = formula(n, "a place on the member");
  if (!e) return std::nullopt;
  if (e->quantity.dimension.plain() && e->percent) return e->quantity.si * member_length;
  return convert(n, *e, length_);
}

}  // namespace corvex::file
