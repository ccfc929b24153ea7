// Combinations of load cases, and limits.
#include <algorithm>
#include <array>

#include "file/reader.hpp"

namespace corvex::file {

void Reader::read_combinations(const Node& n) {
  if (!is_map(n, "combinations")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (!is_map(value, fmt::format("combination '{}'", key.text))) continue;
    std::vector<std::pair<std::string, double>> factors;
    for (std::size_t k = 0; k < tree_->entries(value); ++k) {
      const auto& [load_case, factor] = tree_->entry(value, k);
      if (!is_case(load_case.text)) unknown(load_case, "load case", case_names());
      if (const auto f = quantity(factor, number_); f && is_case(load_case.text))
        factors.emplace_back(load_case.text, *f);
    }
    structure_.combination(std::string(key.text), factors);
  }
}

std::vector<std::string> Reader::case_names() const {
  std::vector<std::string> names;
  for (const LoadCase& c : structure_.load_cases()) names.push_back(c.name());
  return names;
}

bool Reader::is_case(std::string_view name) const {
  const auto names = case_names();
  return std::find(names.begin(), names.end(), name) != names.end();
}

void Reader::read_limits(const Node& n) {
  if (n.is_empty() || !is_list(n, "limits")) return;
  const auto entries = tree_->children(n);
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (auto l = read_limit(entries[i])) {
      limits_.push_back(std::move(*l));
      limit_entries_.push_back(i);
    }
}

std::optional<Limit> Reader::read_limit(const Node& n) {
  using Kind = Limit::Kind;
  if (!is_map(n, "a limit")) return std::nullopt;
  const std::size_t before = problems_.size();
  check_keys(n, "a limit",
             {{"safety"},
              {"sag"},
              {"movement"},
              {"buckling"},
              {"frequency"},
              {"on"},
              {"at"},
              {"between"},
              {"part"},
              {"case"}});
  if (problems_.size() > before) return std::nullopt;
  const auto with = [&](std::string_view kind, const std::vector<std::string_view>& keys) {
    return only_with(n, kind, keys);
  };
  Limit l;
  if (const Node* v = tree_->find(n, "safety")) {
    if (!with("safety", {"on", "case"})) return std::nullopt;
    l.kind = Kind::safety;
    l.required = quantity(*v, number_).value_or(1);
  } else if (const Node* v = tree_->find(n, "sag")) {
    if (!with("sag", {"on", "between", "case"})) return std::nullopt;
    l.kind = Kind::sag;
    l.required = quantity(*v, number_).value_or(1);
  } else if (const Node* v = tree_->find(n, "movement")) {
    if (!with("movement", {"at", "part", "case"}) || !need(n, "at", n, "a limit of movement")) return std::nullopt;
    l.kind = Kind::movement;
    Wanted movement = length_;
    if (movement_bare_) movement.bare = movement_bare_;
    l.required = Length::si(quantity(*v, movement).value_or(1));
  } else if (const Node* v = tree_->find(n, "buckling")) {
    if (!with("buckling", {"on", "case"})) return std::nullopt;
    warn(*tree_->find_key(n, "buckling"), "'buckling' is not built yet: this limit is not checked");
    l.kind = Kind::buckling;
    l.required = quantity(*v, number_).value_or(1);
  } else if (const Node* v = tree_->find(n, "frequency")) {
    if (!with("frequency", {"case"})) return std::nullopt;
    warn(*tree_->find_key(n, "frequency"), "'frequency' is not built yet: this limit is not checked");
    l.kind = Kind::frequency;
    l.required =
        Quantity(quantity(*v, {"a frequency", Dimension::of(0, 0, -1), "12 Hz"}).value_or(1), Dimension::of(0, 0, -1));
  } else {
    fail(n, "a limit needs one of: safety, sag, movement, buckling, frequency");
    return std::nullopt;
  }
  if (const Node* on = tree_->find(n, "on"))
    for (const MemberId m : members_named(*on)) l.on.emplace_back(m);
  if (const Node* at = tree_->find(n, "at")) l.at = points_named(*at);
  if (const Node* part = tree_->find(n, "part"))
    if (const auto c = choice(*part, "a part of a movement", {{"x"}, {"y"}, {"z"}, {"size"}}))
      l.part = std::array{Part::x, Part::y, Part::z, Part::size}[*c];
  if (const Node* between = tree_->find(n, "between"); between && is_list(*between, "between")) {
    if (between->count != 2) {
      fail(*between, fmt::format("two points were expected in 'between', but there are {}", between->count));
    } else {
      const auto a = point_named(tree_->children(*between)[0]), b = point_named(tree_->children(*between)[1]);
      if (a && b) l.between = std::pair(*a, *b);
    }
  }
  if (const Node* c = tree_->find(n, "case"))
    for (const Node& one : c->is_list() ? tree_->children(*c) : std::span(c, 1)) {
      if (!is_text(one, "the name of a load case or combination")) continue;
      std::vector<std::string> names = case_names();
      for (const Combination& known : structure_.combinations()) names.push_back(known.name);
      if (std::find(names.begin(), names.end(), one.text) == names.end())
        unknown(one, "load case or combination", names);
      else
        l.cases.emplace_back(one.text);
    }
  if (problems_.size() > before) return std::nullopt;
  return l;
}

}  // namespace corvex::file
