// Sweeps: varied values and figures to show.
#include <charconv>
#include <cmath>

#include "corvex/number.hpp"
#include "file/parts.hpp"
#include "file/patch.hpp"

namespace corvex::file {
namespace {

// "2.5 mm": a number and its unit.
struct NumberWithUnit {
  double number = 0;
  std::string unit;
  Quantity one;  // of the unit
};
std::optional<NumberWithUnit> number_with_unit(std::string_view text, const Names& names) {
  NumberWithUnit found;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), found.number);
  if (error != std::errc() || !std::isfinite(found.number)) return std::nullopt;
  std::string_view rest = text.substr(static_cast<std::size_t>(end - text.data()));
  while (rest.starts_with(' ')) rest.remove_prefix(1);
  while (rest.ends_with(' ')) rest.remove_suffix(1);
  found.unit = rest;
  const auto one = evaluate("1 " + found.unit, names);
  const auto whole = evaluate(text, names);
  if (!one || !whole) return std::nullopt;
  found.one = one->quantity;
  // A formula that begins with a number, as "2 mm + 1 mm", is none.
  const double expected = found.number * found.one.si;
  if (std::abs(whole->quantity.si - expected) > 1e-12 * std::abs(expected)) return std::nullopt;
  return found;
}

class SweepReader : PartReader {
 public:
  explicit SweepReader(const Context& c) : PartReader(c), context_(c), parameters_(c.parameters.definitions()) {}

  void run(const Node& n, std::vector<Sweep>& sweeps) {
    if (n.is_empty() || !errors_.is_map(n, "sweeps")) return;
    for (std::size_t i = 0; i < tree_->entries(n); ++i) {
      const auto& [key, value] = tree_->entry(n, i);
      if (names_.is_marked(key.text)) continue;
      if (auto sweep = read(std::string(key.text), value)) sweeps.push_back(std::move(*sweep));
    }
  }

 private:
  std::optional<Sweep> read(const std::string& name, const Node& n) {
    const std::size_t before = errors_.count();
    if (!errors_.is_map(n, "a sweep")) return std::nullopt;
    errors_.check_keys(n, "a sweep", {{"vary"}, {"show"}, {"together"}});
    Sweep sweep{.name = name};
    if (const Node* together = tree_->find(n, "together"))
      if (const auto c = errors_.choice(*together, "an answer", {{"yes"}, {"no"}, {"true"}, {"false"}}))
        sweep.together = *c % 2 == 0;
    if (const Node* vary = errors_.need(n, "vary", n, "a sweep"); vary && errors_.is_map(*vary, "vary"))
      for (std::size_t i = 0; i < tree_->entries(*vary); ++i) {
        const auto& [what, values] = tree_->entry(*vary, i);
        if (auto v = varied(what, values)) sweep.vary.push_back(std::move(*v));
      }
    if (const Node* show = errors_.need(n, "show", n, "a sweep")) read_show(context_, *show, sweep.show);
    if (errors_.count() > before) return std::nullopt;
    if (sweep.show.empty()) errors_.fail(n, "a sweep shows at least one figure, as show: [{safety: all}]");
    for (const Problem& p : check(sweep)) errors_.fail(n, fmt::format("sweep '{}': {}", name, p.text));
    return errors_.count() == before ? std::optional(std::move(sweep)) : std::nullopt;
  }

  std::optional<Varied> varied(const Node& what, const Node& values) {
    const std::size_t before = errors_.count();
    Varied v{.name = std::string(what.text)};
    if (!known(what)) return std::nullopt;
    if (values.is_map())
      steps(values, v);
    else if (errors_.is_list(values, "values, or {from: …, to: …, count: …},"))
      for (const Node& one : tree_->children(values))
        if (errors_.is_text(one, "a value")) add(one, what, v);
    if (errors_.count() == before && v.values.empty()) errors_.fail(values, "at least one value was expected");
    check_kinds(what, values, v);
    return errors_.count() == before ? std::optional(std::move(v)) : std::nullopt;
  }

  bool is_pointer(const Node& what) const { return what.text.starts_with('/'); }

  // A parameter of the file, or a place in it.
  bool known(const Node& what) {
    const std::size_t before = errors_.count();
    const Node* parameters = tree_->find(tree_->root(), "parameters");
    if (!is_pointer(what)) {
      std::vector<std::string> names;
      for (std::size_t i = 0; parameters && parameters->is_map() && i < tree_->entries(*parameters); ++i)
        names.emplace_back(tree_->entry(*parameters, i).key.text);
      if (std::find(names.begin(), names.end(), what.text) == names.end()) {
        std::string hint = did_you_mean(what.text, names);
        if (hint.empty()) hint = "; anything else in the file is varied by its place, for example /sections/leg";
        errors_.fail(what, fmt::format("there is no parameter '{}'{}", what.text, hint));
      }
    } else {
      // A new name would have no effect.
      const std::vector<std::string> parts = parts_of(what.text);
      const Node* part = parts.size() == 2 ? tree_->find(tree_->root(), parts[0]) : nullptr;
      if (part && part->is_map() && !tree_->find(*part, parts[1])) {
        std::vector<std::string> names;
        for (std::size_t i = 0; i < tree_->entries(*part); ++i) names.emplace_back(tree_->entry(*part, i).key.text);
        errors_.fail(what, fmt::format("there is no '{}' in {}{}", parts[1], parts[0], did_you_mean(parts[1], names)));
        return false;
      }
      Draft root = draft_of(*tree_, tree_->root());
      if (const std::string why = set(root, what.text, Draft{what, {}}, Draft{what, {}}); !why.empty())
        errors_.fail(what, why);
    }
    return errors_.count() == before;
  }

  void add(const Node& n, const Node& what, Varied& v) {
    SweptValue value(std::string(n.text));
    const auto e = evaluate(n.text, parameters_);
    if (e)
      value.quantity = e->quantity;
    else if (!is_pointer(what))
      return errors_.fail(n, fmt::format("'{}': {}", n.text, e.error().text), e.error().offset);
    if (const auto written = number_with_unit(n.text, parameters_); written && v.unit.empty())
      v.unit = written->unit, v.unit_si = written->one.si;
    v.values.push_back(std::move(value));
  }

  // {from: 2 mm, to: 6 mm, count: 9}
  void steps(const Node& n, Varied& v) {
    errors_.check_keys(n, "evenly spaced values", {{"from"}, {"to"}, {"count"}});
    const Node* count_node = errors_.need(n, "count", n, "evenly spaced values");
    const auto number = [&](const char* key) -> std::optional<NumberWithUnit> {
      const Node* one = errors_.need(n, key, n, "evenly spaced values");
      if (!one || !errors_.is_text(*one, "a number with its unit")) return std::nullopt;
      auto found = number_with_unit(one->text, parameters_);
      if (!found)
        errors_.fail(*one, fmt::format("'{}': a number with its unit was expected, for example 2 mm", one->text));
      return found;
    };
    const auto from = number("from"), to = number("to");
    if (!from || !to || !count_node) return;
    const auto count = quantities_.whole_number(*count_node, "the number of values");
    if (!count) return;
    if (from->one.dimension != to->one.dimension)
      return errors_.fail(
          *tree_->find(n, "to"),
          fmt::format("from is {} and to is {}", corvex::name(from->one.dimension), corvex::name(to->one.dimension)));
    if (*count < 2) return errors_.fail(*count_node, "at least two values were expected");
    v.unit = from->unit, v.unit_si = from->one.si;
    const double last = to->number * to->one.si / from->one.si;
    for (std::size_t i = 0; i < *count; ++i) {
      const double share = static_cast<double>(i) / static_cast<double>(*count - 1);
      // Twelve digits: 0.1 + 0.2 is to be 0.3.
      const std::string text = short_number(from->number * (1 - share) + last * share, 12);
      SweptValue value(v.unit.empty() ? text : text + " " + v.unit);
      if (const auto e = evaluate(value.words, parameters_)) value.quantity = e->quantity;
      v.values.push_back(std::move(value));
    }
  }

  // A parameter keeps its kind.
  void check_kinds(const Node& what, const Node& values, const Varied& v) {
    if (is_pointer(what)) return;
    const auto own = evaluate(what.text, parameters_);
    if (!own) return;
    const Dimension& d = own->quantity.dimension;
    for (std::size_t i = 0; i < v.values.size(); ++i) {
      const Dimension& given = v.values[i].quantity->dimension;
      if (d.none() || given.none() || compatible(given, d)) continue;
      const Node& at = values.is_list() ? tree_->children(values)[i] : values;
      return errors_.fail(at, fmt::format("'{}' is {}, but the parameter '{}' is {}", v.values[i].words,
                                          corvex::name(given), what.text, corvex::name(d)));
    }
  }

  const Context& context_;
  const Names& parameters_;
};

}  // namespace

void read_sweeps(const Context& c, const Node& n, std::vector<Sweep>& sweeps) {
  SweepReader(c).run(n, sweeps);
}

}  // namespace corvex::file
