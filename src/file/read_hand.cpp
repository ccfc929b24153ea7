#include "file/parts.hpp"

namespace corvex::file {
namespace {

class HandReader : PartReader {
 public:
  HandReader(const Context& c, HandCalculation& hand) : PartReader(c), parameters_(c.parameters), hand_(hand) {}
  Entries run(const Node& n);
  // A figure with a hand value, one to be shown, or one that a limit bounds.
  enum class For { comparison, show, limit };
  std::optional<Expectation> read_expectation(const Node& n, For what_for = For::comparison);

 private:
  HandFormula hand_formula(const Node& n, std::string_view what);
  static const Keys& keys_for(For what_for);
  const FigureKind* figure_kind(const Node& n, For what_for, bool tell);
  bool read_object(const Node& n, const FigureKind& kind, Figure& figure);
  void read_part(const Node& n, Figure& figure);

  const Parameters& parameters_;
  HandCalculation& hand_;
};

// Texts are only taken over here; what they say is checked with the rest of the hand calculation (hand.hpp).
Entries HandReader::run(const Node& n) {
  Entries origin;
  if (!errors_.is_map(n, "hand")) return origin;
  errors_.check_keys(n, "hand", {{"let"}, {"expect"}});
  hand_.units = {units_.length.bare, units_.force.bare, units_.moment.bare,           units_.stress.bare,
                 units_.deflection,  units_.mass.bare,  units_.angle.bare.value_or(1)};
  // The parameters of the model may be used too.
  for (const auto& [name, formula] : parameters_.all()) hand_.let.push_back({name, formula});
  if (const Node* let = tree_->find(n, "let"); let && errors_.is_map(*let, "let"))
    for (std::size_t i = 0; i < tree_->entries(*let); ++i) {
      const auto& [key, value] = tree_->entry(*let, i);
      hand_.let.push_back({std::string(key.text), hand_formula(value, fmt::format("'{}'", key.text))});
    }
  const Node* expect = tree_->find(n, "expect");
  if (!expect || expect->is_empty() || !errors_.is_list(*expect, "expect")) return origin;
  const auto entries = tree_->children(*expect);
  for (std::size_t i = 0; i < entries.size(); ++i)
    if (auto e = read_expectation(entries[i])) {
      hand_.expect.push_back(std::move(*e));
      origin.push_back(i);
    }
  return origin;
}

HandFormula HandReader::hand_formula(const Node& n, std::string_view what) {
  if (n.is_text() && !n.is_empty()) return std::string(n.text);
  errors_.fail(n, fmt::format("{}: a number or a formula was expected, but this is {}", what, kind_name(n)));
  return 0.0;
}

// The keys that an entry may have: those of an expectation, of a figure to show, of a limit of a figure.
const Keys& HandReader::keys_for(For what_for) {
  static const auto with_figures = [](Keys keys) {
    for (const FigureKind& k : figure_kinds()) keys.push_back({k.name});
    return keys;
  };
  static const Keys comparison = [] {
    Keys all = with_figures({});
    for (const char* key : {"part", "at", "take", "is", "within", "case", "note"}) all.push_back({key});
    return all;
  }();
  static const Keys show = with_figures({{"part"}, {"at"}, {"take"}, {"case"}});
  static const Keys limit = [] {
    Keys all = show;
    all.push_back({"most"}), all.push_back({"least"});
    return all;
  }();
  return what_for == For::comparison ? comparison : what_for == For::show ? show : limit;
}

// The figure named by an entry; null if it names none, which is reported unless another error was.
const FigureKind* HandReader::figure_kind(const Node& n, For what_for, bool tell) {
  const FigureKind* kind = nullptr;
  const std::size_t before = errors_.count();
  for (const FigureKind& k : figure_kinds()) {
    const Node* key = tree_->find_key(n, k.name);
    if (!key) continue;
    if (kind)
      errors_.fail(*key,
                   fmt::format("an expectation compares one figure, but there are '{}' and '{}'", kind->name, k.name));
    kind = &k;
  }
  if (!kind && tell && errors_.count() == before)
    errors_.fail(
        n, what_for == For::comparison
               ? "an expectation names what is compared, for example {reaction: A, part: y, is: P/2}"
           : what_for == For::show
               ? "a figure to show is named as in an expectation, for example {moment: rail, take: max}"
               : "a limit with most or least names a figure, for example {stress: rail, at: 1.2 m, most: 120 MPa}");
  return kind;
}

// The object of the figure. False if an error was reported already, or if it is not a text.
bool HandReader::read_object(const Node& n, const FigureKind& kind, Figure& figure) {
  using Of = FigureKind::Of;
  figure.kind = kind.kind;
  const Node& name = *tree_->find(n, kind.name);
  if (!errors_.is_text(name, kind.of == Of::point    ? "the name of a point"
                             : kind.of == Of::member ? "the name of a member"
                             : kind.of == Of::mode   ? "the number of a mode"
                                                     : "total"))
    return false;
  figure.of = name.text;
  if (kind.of == Of::total) errors_.choice(name, "the mass of the whole", {{"total"}});
  return kind.of == Of::mode || !names_.is_marked(name.text);
}

void HandReader::read_part(const Node& n, Figure& figure) {
  static const Keys parts = {{"size"}, {"x"}, {"y"}, {"z"}, {"mx"}, {"my"}, {"mz"}};
  static const Keys takes = {{"extreme"}, {"size"}, {"max"}, {"min"}, {"start"}, {"end"}};
  if (const Node* part = tree_->find(n, "part"))
    if (const auto c = errors_.choice(*part, "a part", parts)) figure.part = static_cast<Part>(*c);
  if (const Node* take = tree_->find(n, "take"))
    if (const auto c = errors_.choice(*take, "a value to take", takes)) figure.take = static_cast<Take>(*c);
  if (const Node* at = tree_->find(n, "at")) figure.at = hand_formula(*at, "'at'");
}

std::optional<Expectation> HandReader::read_expectation(const Node& n, For what_for) {
  const bool compared = what_for == For::comparison;
  const char* what = compared ? "an expectation" : what_for == For::show ? "a figure to show" : "a limit of a figure";
  if (!errors_.is_map(n, what)) return std::nullopt;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, what, keys_for(what_for));
  const FigureKind* kind = figure_kind(n, what_for, errors_.count() == before);
  const auto alone = [&](const char* key, bool fits, const char* whose) {
    if (const Node* k = tree_->find_key(n, key); k && !fits && kind)
      errors_.fail(*k, fmt::format("'{}' goes with {}", key, whose));
  };
  const FigureKind::Of of = kind ? kind->of : FigureKind::Of::total;
  alone("part", of == FigureKind::Of::point, "reaction, displacement and rotation only");
  alone("at", of == FigureKind::Of::member, "a figure along a member only");
  alone("take", of == FigureKind::Of::member, "a figure along a member only");
  Expectation e;
  if (kind && !read_object(n, *kind, e.figure)) return std::nullopt;
  read_part(n, e.figure);
  if (const Node* is = compared ? errors_.need(n, "is", n, "an expectation") : nullptr)
    e.is = hand_formula(*is, "'is'");
  if (const Node* within = tree_->find(n, "within")) e.within = hand_formula(*within, "'within'");
  // The cases of a limit may be several.
  if (const Node* c = what_for == For::limit ? nullptr : tree_->find(n, "case");
      c && errors_.is_text(*c, "the name of a load case"))
    e.load_case = c->text;
  if (const Node* note = tree_->find(n, "note"); note && errors_.is_text(*note, "a note")) e.note = note->text;
  return errors_.count() == before ? std::optional(std::move(e)) : std::nullopt;
}

}  // namespace

void read_show(const Context& c, const Node& n, std::vector<ShownFigure>& show) {
  if (n.is_empty() || !c.errors.is_list(n, "show")) return;
  HandCalculation ignored;
  HandReader reader(c, ignored);
  for (const Node& entry : c.tree.children(n))
    if (auto e = reader.read_expectation(entry, HandReader::For::show))
      show.push_back({std::move(e->figure), std::move(e->load_case)});
}

std::optional<Figure> read_limited_figure(const Context& c, const Node& n) {
  HandCalculation ignored;
  auto e = HandReader(c, ignored).read_expectation(n, HandReader::For::limit);
  return e ? std::optional(std::move(e->figure)) : std::nullopt;
}

Entries read_hand(const Context& c, const Node& n, HandCalculation& hand) {
  return HandReader(c, hand).run(n);
}

}  // namespace corvex::file
