#include <algorithm>
#include <array>

#include "file/parts.hpp"
#include "judge/limit_kinds.hpp"

namespace corvex::file {
namespace {

class LimitReader : PartReader {
 public:
  explicit LimitReader(const Context& c) : PartReader(c), context_(c) {}
  Entries run(const Node& n, Limits& limits);

 private:
  std::optional<Limit> read_limit(const Node& n);
  void read_cases(const Node& n, Limit& l);
  void read_place(const Node& n, Limit& l);
  bool read_frequency(const Node& n, const Node& v, Limit& l);
  bool read_figure(const Node& n, Limit& l);
  bool read_kind(const Node& n, Limit& l);
  bool read_required(const Node& n, const Node& v, const judging::LimitKind& kind, Limit& l);
  void read_objects(const Node& n, Limit& l);
  bool read_range(const Node& n, Limit& l);
  Quantity bound(const Node& n, const Dimension& d);

  const Context& context_;
};

Entries LimitReader::run(const Node& n, Limits& limits) {
  Entries origin;
  if (n.is_empty() || !errors_.is_list(n, "limits")) return origin;
  const auto entries = tree_->children(n);
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (auto l = read_limit(entries[i])) {
      limits.push_back(std::move(*l));
      origin.push_back(i);
    }
  return origin;
}

std::optional<Limit> LimitReader::read_limit(const Node& n) {
  if (!errors_.is_map(n, "a limit")) return std::nullopt;
  const std::size_t before = errors_.count();
  Limit l;
  if (tree_->find(n, "most") || tree_->find(n, "least")) {
    if (tree_->find(n, "range") ? !read_range(n, l) : !read_figure(n, l)) return std::nullopt;
    read_cases(n, l);
    return errors_.count() > before ? std::nullopt : std::optional(std::move(l));
  }
  Keys keys;
  for (const judging::LimitKind& k : judging::limit_kinds())
    if (k.key) keys.push_back({k.key});
  for (const char* key : {"on", "at", "between", "part", "outside", "most", "least", "range", "case"})
    keys.push_back({key});
  errors_.check_keys(n, "a limit", keys);
  if (errors_.count() > before || !read_kind(n, l)) return std::nullopt;
  read_objects(n, l);
  read_cases(n, l);
  return errors_.count() > before ? std::nullopt : std::optional(std::move(l));
}

// The key that says what is limited, with its value. False where there is none, or where other keys do not go with it.
bool LimitReader::read_kind(const Node& n, Limit& l) {
  for (const judging::LimitKind& kind : judging::limit_kinds()) {
    const Node* value = kind.key ? tree_->find(n, kind.key) : nullptr;
    if (!value) continue;
    if (!errors_.only_with(n, kind.key, kind.with)) return false;
    l.kind = kind.kind;
    return read_required(n, *value, kind, l);
  }
  errors_.fail(n,
               "a limit needs one of: safety, sag, drift, movement, buckling, frequency; or a figure with most or "
               "least, for example {stress: rail, at: 1.2 m, most: 120 MPa}");
  return false;
}

bool LimitReader::read_required(const Node& n, const Node& v, const judging::LimitKind& kind, Limit& l) {
  if (kind.kind == Limit::Kind::frequency) return read_frequency(n, v, l);
  if (kind.kind == Limit::Kind::movement) {
    if (!errors_.need(n, "at", n, "a limit of movement")) return false;
    if (const Node* at = tree_->find(n, "at")) l.at = names_.points(*at);
  } else {
    read_place(n, l);
  }
  const Quantity one(1, dimension::number);
  if (kind.dimensions.size() > 1)
    l.required = quantities_.read_either(v, units_.number, units_.movement).value_or(one);
  else if (kind.dimensions.front() == dimension::length)
    l.required = Length::si(quantities_.read(v, units_.movement).value_or(1));
  else
    l.required = bound(v, kind.dimensions.front());
  return true;
}

void LimitReader::read_objects(const Node& n, Limit& l) {
  if (const Node* on = tree_->find(n, "on"))
    for (const MemberId m : names_.members(*on)) l.on.emplace_back(m);
  if (const Node* part = tree_->find(n, "part"))
    if (const auto c = errors_.choice(*part, "a part of a movement", {{"x"}, {"y"}, {"z"}, {"size"}}))
      l.part = std::array{Part::x, Part::y, Part::z, Part::size}[*c];
  if (const Node* between = tree_->find(n, "between"); between && errors_.is_list(*between, "between")) {
    if (between->count != 2) {
      errors_.fail(*between, fmt::format("two points were expected in 'between', but there are {}", between->count));
    } else {
      const auto a = names_.point(tree_->children(*between)[0]), b = names_.point(tree_->children(*between)[1]);
      if (a && b) l.between = std::pair(*a, *b);
    }
  }
}

void LimitReader::read_cases(const Node& n, Limit& l) {
  const Node* c = tree_->find(n, "case");
  if (!c) return;
  for (const Node& one : c->is_list() ? tree_->children(*c) : std::span(c, 1))
    if (auto name = case_name(context_, one)) l.cases.push_back(std::move(*name));
}

// A point, several, a length from the member's start, or a share of its length.
void LimitReader::read_place(const Node& n, Limit& l) {
  const Node* at = tree_->find(n, "at");
  if (!at) return;
  if (at->is_list() || structure_.find_point(at->text) || names_.point_families.contains(at->text)) {
    l.at = names_.points(*at);
  } else {
    l.place = quantities_.place_along(*at);
  }
}

// At least; or with `outside: yes` a band in which none lies.
bool LimitReader::read_frequency(const Node& n, const Node& v, Limit& l) {
  const Dimension d = units_.frequency.dimension;
  const Node* outside = tree_->find(n, "outside");
  if (!v.is_list()) {
    if (outside) errors_.fail(*outside, "'outside' needs two frequencies, for example [0 Hz, 18 Hz]");
    l.required = Quantity(quantities_.read(v, units_.frequency).value_or(1), d);
    return true;
  }
  if (v.count != 2 || !outside || !errors_.choice(*outside, "yes", {{"yes"}, {"true"}})) {
    errors_.fail(
        v,
        "a band in which no natural frequency may lie was expected, for example {frequency: [0 Hz, 18 Hz], outside: yes}");
    return false;
  }
  const auto ends = tree_->children(v);
  const double low = quantities_.read(ends[0], units_.frequency).value_or(0),
               high = quantities_.read(ends[1], units_.frequency).value_or(1);
  if (!(low >= 0 && low < high)) errors_.fail(v, "a band of frequencies is from a lower to a higher one");
  l.required = Quantity(low, d), l.band_end = Quantity(high, d);
  return true;
}

// The unit of a bound is that of its figure.
Quantity LimitReader::bound(const Node& n, const Dimension& d) {
  for (const Wanted* w : {&units_.force, &units_.moment, &units_.stress, &units_.angle, &units_.mass, &units_.frequency,
                          &units_.movement, &units_.number})
    if (w->dimension == d) return {quantities_.read(n, *w).value_or(1), d};
  return {quantities_.read(n, units_.number).value_or(1), d};
}

// {stress: rail, at: 1.2 m, most: 120 MPa}
bool LimitReader::read_figure(const Node& n, Limit& l) {
  l.kind = Limit::Kind::figure;
  const auto figure = read_limited_figure(context_, n);
  if (!figure) return false;
  l.figure = *figure;
  const Node *most = tree_->find(n, "most"), *least = tree_->find(n, "least");
  if (most && least) {
    errors_.fail(*least, "a limit has most or least; write two limits for both");
    return false;
  }
  l.at_least = least;
  l.required = bound(least ? *least : *most, figure_dimension(*figure));
  return true;
}

// {range: rail, at: B, between: [full, empty], most: 60 MPa}
bool LimitReader::read_range(const Node& n, Limit& l) {
  l.kind = Limit::Kind::range;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "a limit of a stress range", {{"range"}, {"at"}, {"between"}, {"most"}});
  const Node& on = *tree_->find(n, "range");
  if (const auto m = names_.member(on)) l.on.emplace_back(*m);
  if (errors_.need(n, "at", n, "a limit of a stress range")) read_place(n, l);
  const Node* between = errors_.need(n, "between", n, "a limit of a stress range");
  if (between && errors_.is_list(*between, "between")) {
    if (between->count != 2) {
      errors_.fail(*between, "two load cases were expected, for example [full, empty]");
    } else {
      const auto a = case_name(context_, tree_->children(*between)[0]),
                 b = case_name(context_, tree_->children(*between)[1]);
      if (a && b) l.range_of = {*a, *b};
    }
  }
  if (const Node* most = errors_.need(n, "most", n, "a limit of a stress range"))
    l.required = bound(*most, dimension::stress);
  return errors_.count() == before;
}

}  // namespace

Entries read_limits(const Context& c, const Node& n, Limits& limits) {
  return LimitReader(c).run(n, limits);
}

}  // namespace corvex::file
