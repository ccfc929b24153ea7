#include <algorithm>
#include <array>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class LimitReader : PartReader {
 public:
  explicit LimitReader(const Context& c) : PartReader(c), context_(c) {}
  Entries run(const Node& n, Limits& limits);

 private:
  std::optional<Limit> read_limit(const Node& n);

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
  using Kind = Limit::Kind;
  if (!errors_.is_map(n, "a limit")) return std::nullopt;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "a limit",
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
  if (errors_.count() > before) return std::nullopt;
  const auto with = [&](std::string_view kind, const std::vector<std::string_view>& keys) {
    return errors_.only_with(n, kind, keys);
  };
  Limit l;
  if (const Node* v = tree_->find(n, "safety")) {
    if (!with("safety", {"on", "case"})) return std::nullopt;
    l.kind = Kind::safety;
    l.required = quantities_.read(*v, units_.number).value_or(1);
  } else if (const Node* v = tree_->find(n, "sag")) {
    if (!with("sag", {"on", "between", "case"})) return std::nullopt;
    l.kind = Kind::sag;
    l.required = quantities_.read(*v, units_.number).value_or(1);
  } else if (const Node* v = tree_->find(n, "movement")) {
    if (!with("movement", {"at", "part", "case"}) || !errors_.need(n, "at", n, "a limit of movement"))
      return std::nullopt;
    l.kind = Kind::movement;
    l.required = Length::si(quantities_.read(*v, units_.movement).value_or(1));
  } else if (const Node* v = tree_->find(n, "buckling")) {
    if (!with("buckling", {"on", "case"})) return std::nullopt;
    l.kind = Kind::buckling;
    l.required = quantities_.read(*v, units_.number).value_or(1);
  } else if (const Node* v = tree_->find(n, "frequency")) {
    if (!with("frequency", {"case"})) return std::nullopt;
    l.kind = Kind::frequency;
    l.required = Quantity(quantities_.read(*v, units_.frequency).value_or(1), units_.frequency.dimension);
  } else {
    errors_.fail(n, "a limit needs one of: safety, sag, movement, buckling, frequency");
    return std::nullopt;
  }
  if (const Node* on = tree_->find(n, "on"))
    for (const MemberId m : names_.members(*on)) l.on.emplace_back(m);
  if (const Node* at = tree_->find(n, "at")) l.at = names_.points(*at);
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
  if (const Node* c = tree_->find(n, "case"))
    for (const Node& one : c->is_list() ? tree_->children(*c) : std::span(c, 1)) {
      if (auto name = case_name(context_, one)) l.cases.push_back(std::move(*name));
    }
  if (errors_.count() > before) return std::nullopt;
  return l;
}

}  // namespace

Entries read_limits(const Context& c, const Node& n, Limits& limits) {
  return LimitReader(c).run(n, limits);
}

}  // namespace corvex::file
