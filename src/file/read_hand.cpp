#include <algorithm>

#include "file/reader.hpp"

namespace corvex::file {

// Texts are only taken over here; what they say is checked with the rest of the hand calculation (hand.hpp).
void Reader::read_hand(const Node& n) {
  if (!is_map(n, "hand")) return;
  check_keys(n, "hand", {{"let"}, {"expect"}});
  hand_.units = {length_.bare,   force_.bare, moment_.bare,           stress_.bare,
                 movement_bare_, mass_bare_,  angle_.bare.value_or(1)};
  // The model's parameters may be used too.
  if (const Node* parameters = tree_->find(tree_->root(), "parameters"); parameters && parameters->is_map())
    for (std::size_t i = 0; i < tree_->entries(*parameters); ++i) {
      const auto& [key, value] = tree_->entry(*parameters, i);
      if (why_not_a_parameter(key.text).empty())
        hand_.let.push_back({std::string(key.text), parameter_text(key, value)});
    }
  if (const Node* let = tree_->find(n, "let"); let && is_map(*let, "let"))
    for (std::size_t i = 0; i < tree_->entries(*let); ++i) {
      const auto& [key, value] = tree_->entry(*let, i);
      hand_.let.push_back({std::string(key.text), hand_formula(value, fmt::format("'{}'", key.text))});
    }
  const Node* expect = tree_->find(n, "expect");
  if (!expect || expect->is_empty() || !is_list(*expect, "expect")) return;
  const auto entries = tree_->children(*expect);
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (auto e = read_expectation(entries[i])) {
      hand_.expect.push_back(std::move(*e));
      hand_entries_.push_back(i);
    }
}

HandFormula Reader::hand_formula(const Node& n, std::string_view what) {
  if (n.is_text() && !n.is_empty()) return std::string(n.text);
  fail(n, fmt::format("{}: a number or a formula was expected, but this is {}", what, kind_name(n)));
  return 0.0;
}

std::optional<Expectation> Reader::read_expectation(const Node& n) {
  static const Keys others = {{"part"}, {"at"}, {"take"}, {"is"}, {"within"}, {"case"}, {"note"}};
  static const Keys keys = [] {
    Keys all;
    for (const FigureKind& k : figure_kinds()) all.push_back({k.name});
    all.insert(all.end(), others.begin(), others.end());
    return all;
  }();
  if (!is_map(n, "an expectation")) return std::nullopt;
  const std::size_t before = problems_.size();
  check_keys(n, "an expectation", keys);
  const FigureKind* kind = nullptr;
  for (const FigureKind& k : figure_kinds()) {
    const Node* key = tree_->find_key(n, k.name);
    if (!key) continue;
    if (kind)
      fail(*key, fmt::format("an expectation compares one figure, but there are '{}' and '{}'", kind->name, k.name));
    kind = &k;
  }
  if (!kind && problems_.size() == before)
    fail(n, "an expectation names what is compared, as {reaction: A, part: y, is: P/2}");
  const auto with = [&](const char* key) { return tree_->find(n, key); };
  const auto alone = [&](const char* key, bool fits, const char* whose) {
    if (const Node* k = tree_->find_key(n, key); k && !fits && kind)
      fail(*k, fmt::format("'{}' goes with {}", key, whose));
  };
  const FigureKind::Of of = kind ? kind->of : FigureKind::Of::total;
  alone("part", of == FigureKind::Of::point, "reaction, displacement and rotation only");
  alone("at", of == FigureKind::Of::member, "a figure along a member only");
  alone("take", of == FigureKind::Of::member, "a figure along a member only");
  Expectation e;
  if (kind) {
    e.figure.kind = kind->kind;
    const Node& name = *tree_->find(n, kind->name);
    if (!is_text(name, of == FigureKind::Of::point    ? "the name of a point"
                       : of == FigureKind::Of::member ? "the name of a member"
                                                      : "total"))
      return std::nullopt;
    e.figure.of = name.text;
    if (of == FigureKind::Of::total) choice(name, "the mass of the whole", {{"total"}});
    // Told already, where it stands.
    if (broken_.contains(name.text)) return std::nullopt;
  }
  static const Keys parts = {{"size"}, {"x"}, {"y"}, {"z"}, {"mx"}, {"my"}, {"mz"}};
  static const Keys takes = {{"extreme"}, {"size"}, {"max"}, {"min"}, {"start"}, {"end"}};
  if (const Node* part = with("part"))
    if (const auto c = choice(*part, "a part", parts)) e.figure.part = static_cast<Part>(*c);
  if (const Node* take = with("take"))
    if (const auto c = choice(*take, "a value to take", takes)) e.figure.take = static_cast<Take>(*c);
  if (const Node* at = with("at")) e.figure.at = hand_formula(*at, "'at'");
  if (const Node* is = need(n, "is", n, "an expectation")) e.is = hand_formula(*is, "'is'");
  if (const Node* within = with("within")) e.within = hand_formula(*within, "'within'");
  if (const Node* c = with("case"); c && is_text(*c, "the name of a load case")) e.load_case = c->text;
  if (const Node* note = with("note"); note && is_text(*note, "a note")) e.note = note->text;
  return problems_.size() == before ? std::optional(std::move(e)) : std::nullopt;
}

}  // namespace corvex::file
