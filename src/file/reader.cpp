#include "file/reader.hpp"

#include <algorithm>

#include "file/synonyms.hpp"

namespace corvex::file {

Reader::Reader(std::shared_ptr<const Tree> tree, std::string file, Overrides overrides)
    : tree_(std::move(tree)), file_(std::move(file)), overrides_(std::move(overrides)) {
  length_ = {"a length", dimension::length, "2.4 m", "length"};
  force_ = {"a force", dimension::force, "3.2 kN", "force"};
  moment_ = {"a moment", dimension::moment, "1.5 kN*m", "moment"};
  line_ = {"a force per length", dimension::line_force, "0.8 kN/m", "line"};
  stress_ = {"a stress", dimension::stress, "235 MPa", "stress"};
  dimension_ = {"a section dimension", dimension::length, "60 mm", "section"};
  angle_ = {"an angle", dimension::angle, "30 deg", "angle"};
  density_ = {"a density", dimension::density, "7850 kg/m^3"};
  acceleration_ = {"an acceleration", dimension::acceleration, "9.81 m/s^2"};
  number_ = {"a plain number", dimension::number, "0.3", nullptr, 1.0};
  temperature_ = {"a change of temperature", dimension::temperature, "60 K", "temperature"};
  mass_ = {"a mass", dimension::mass, "20 kg", "mass"};
  spring_ = {"a stiffness", dimension::line_force, "500 N/mm"};
  turning_spring_ = {"a stiffness against turning", TurningStiffness::dimension(), "2 kN*m/rad"};
  expansion_ = {"a coefficient of expansion", dimension::expansion, "12e-6 /K"};
}

void Reader::fail(const Node& at, std::string text, std::size_t offset) {
  const int column = static_cast<int>(at.column + offset + (offset > 0 && at.quoted ? 1 : 0));
  problems_.push_back(problem_at({file_, static_cast<int>(at.line), column}, std::move(text)));
}

void Reader::warn(const Node& at, std::string text) {
  Problem p = problem_at({file_, static_cast<int>(at.line), static_cast<int>(at.column)}, std::move(text));
  p.severity = Problem::Severity::warning;
  notes_.push_back(std::move(p));
}

void Reader::not_built(const Node& at, std::string_view what) {
  fail(at, fmt::format("{} is not built yet", what));
}

void Reader::unknown(const Node& at, std::string_view what, const std::vector<std::string>& known) {
  std::string text = meaning(at.text, known);
  if (text.empty() && !known.empty() && known.size() <= 24)
    text = fmt::format("; there are: {}", fmt::join(known, ", "));
  fail(at, fmt::format("there is no {} '{}'{}", what, at.text, text));
}

bool Reader::is_map(const Node& n, std::string_view what) {
  if (n.is_map()) return true;
  fail(n, fmt::format("{}: a map (key: value) was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Reader::is_list(const Node& n, std::string_view what) {
  if (n.is_list()) return true;
  fail(n, fmt::format("{}: a list was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Reader::is_text(const Node& n, std::string_view what) {
  if (n.is_text() && !n.is_empty()) return true;
  fail(n, fmt::format("{} was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Reader::check_keys(const Node& map, std::string_view where, const Keys& keys) {
  bool usable = true;
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const Node &key = tree_->entry(map, i).key, &value = tree_->entry(map, i).value;
    const auto it = std::find_if(keys.begin(), keys.end(), [&](const Key& k) { return k.name == key.text; });
    if (it != keys.end()) {
      if (it->built) continue;
      not_built(key, fmt::format("'{}' in {}", key.text, where));
      usable = false;
      continue;
    }
    // The rest of a formula that a comma has cut: told where it begins.
    if (value.is_empty() && key.text.find(')') != std::string_view::npos) continue;
    std::vector<std::string> names;
    for (const Key& k : keys)
      if (k.built) names.emplace_back(k.name);
    std::string text = fmt::format("'{}' is not a key of {}", key.text, where);
    if (const std::string near = nearest(key.text, names), hint = meaning(key.text, names); !hint.empty()) {
      text += hint;
      const std::vector<std::string> meant = meant_by(key.text, names);
      misspelt_.emplace(&map, meant.empty() ? near : meant.front());
    } else if (value.is_empty() && key.text.find_first_of("0123456789") == 0) {
      text = fmt::format("'{}' stands alone after a comma; decimals are written with a point, as 2.5", key.text);
    } else {
      text += fmt::format("; expected: {}", fmt::join(names, ", "));
    }
    fail(key, std::move(text));
  }
  return usable;
}

const Node* Reader::need(const Node& map, std::string_view key, const Node& blame, std::string_view where) {
  if (const Node* n = tree_->find(map, key)) return n;
  if (misspelt_.contains({&map, std::string(key)})) return nullptr;
  fail(blame, fmt::format("{} needs '{}'", where, key));
  return nullptr;
}

std::optional<std::size_t> Reader::choice(const Node& n, std::string_view what, const std::vector<Key>& words) {
  if (!is_text(n, what)) return std::nullopt;
  for (std::size_t i = 0; i < words.size(); ++i) {
    if (words[i].name != n.text) continue;
    if (words[i].built) return i;
    not_built(n, fmt::format("'{}'", n.text));
    return std::nullopt;
  }
  std::vector<std::string> names;
  for (const Key& k : words) names.emplace_back(k.name);
  std::string text = meaning(n.text, names);
  if (text.empty()) text = fmt::format("; expected: {}", fmt::join(names, ", "));
  fail(n, fmt::format("'{}' is not {}{}", n.text, what, text));
  return std::nullopt;
}

Expected<Model, Problems> Reader::run() {
  read_top();
  const bool sound = problems_.empty();
  Model model{.structure = std::move(structure_),
              .units = print_,
              .hand = std::move(hand_),
              .limits = std::move(limits_),
              .file = file_,
              .table_files = {},
              .tree = tree_,
              .load_entries = std::move(load_entries_),
              .hand_entries = std::move(hand_entries_),
              .limit_entries = std::move(limit_entries_),
              .table_places = std::move(table_places_),
              .notes = std::move(notes_)};
  for (const auto& [kind, path] : table_files_) model.table_files.push_back(path);
  // What could be read may have mistakes of its own: told in the same go. Only what depends on the whole is
  // left out.
  if (!sound)
    for (Problem& p : model.located(model.structure.validate()))
      if (p.subject.kind != Subject::Kind::structure) problems_.push_back(std::move(p));
  if (const Node* parameters = tree_->find(tree_->root(), "parameters"); tree_->find(tree_->root(), "hand"))
    for (Problem& p : model.located(check(model.structure, model.hand))) {
      // A wrong parameter has been told where it stands.
      const bool told = p.subject.kind == Subject::Kind::hand_value && parameters &&
                        tree_->find(*parameters, p.subject.name) != nullptr && p.key == "is";
      if (!told) problems_.push_back(std::move(p));
    }
  if (problems_.empty()) return model;
  std::stable_sort(problems_.begin(), problems_.end(), [](const Problem& a, const Problem& b) {
    return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
  });
  return problems_;
}

}  // namespace corvex::file

namespace corvex {

namespace {

using file::Node;
using file::Tree;

// The node that a problem's subject was read from: the key within the entry where there is one.
const Node* find_node(const Model& m, const Problem& p) {
  const Tree& t = *m.tree;
  using Kind = Subject::Kind;
  const auto inside = [&](std::string_view top, std::string_view name) -> const Node* {
    const Node* group = t.find(t.root(), top);
    const Node* key = group ? t.find_key(*group, name) : nullptr;
    // "feet.3" is described as "feet"; what holds it may stand under that name too.
    const std::size_t dot = name.rfind('.');
    if (group && !key && dot != std::string_view::npos) key = t.find_key(*group, name.substr(0, dot));
    if (!key) return group;
    const Node* part = t.find(key[1], p.key);
    return part ? part : key;
  };
  switch (p.subject.kind) {
    case Kind::point: return inside("points", p.subject.name);
    case Kind::member: return inside("members", p.subject.name);
    case Kind::section: return inside("sections", p.subject.name);
    case Kind::material: return inside("materials", p.subject.name);
    case Kind::support: return inside("supports", p.subject.name);
    case Kind::mass: return inside("masses", p.subject.name);
    case Kind::load_case: return inside("loads", p.subject.name);
    case Kind::combination: return inside("combinations", p.subject.name);
    case Kind::structure: return t.find_key(t.root(), p.key);
    case Kind::limit: {
      const Node* list = t.find(t.root(), "limits");
      if (!list || p.subject.entry >= m.limit_entries.size()) return list;
      const Node& entry = t.children(*list)[m.limit_entries[p.subject.entry]];
      const Node* part = t.find(entry, p.key);
      return part ? part : &entry;
    }
    case Kind::hand_value: {
      const Node* hand = t.find(t.root(), "hand");
      const Node* let = hand ? t.find(*hand, "let") : nullptr;
      const Node* key = let ? t.find_key(*let, p.subject.name) : nullptr;
      return key && p.key == "is" ? key + 1 : key;
    }
    case Kind::expectation: {
      const Node* hand = t.find(t.root(), "hand");
      const Node* list = hand ? t.find(*hand, "expect") : nullptr;
      if (!list || p.subject.entry >= m.hand_entries.size()) return hand;
      const Node& entry = t.children(*list)[m.hand_entries[p.subject.entry]];
      const Node* part = t.find(entry, p.key);
      return part ? part : &entry;
    }
    case Kind::load: {
      const Node* loads = t.find(t.root(), "loads");
      const Node* list = loads ? t.find(*loads, p.subject.name) : nullptr;
      if (!list || !list->is_list()) return loads;
      std::size_t entry = p.subject.entry;
      const auto& cases = m.structure.load_cases();
      for (std::size_t i = 0; i < cases.size(); ++i)
        if (cases[i].name() == p.subject.name && entry < m.load_entries[i].size()) entry = m.load_entries[i][entry];
      if (entry >= list->count) return list;
      const Node& load = t.children(*list)[entry];
      const Node* part = t.find(load, p.key);
      return part ? part : &load;
    }
  }
  return nullptr;
}

}  // namespace

Problems Model::located(Problems problems) const {
  if (!tree) return problems;
  for (Problem& p : problems) {
    if (p.place.line > 0) continue;
    const bool point = p.subject.kind == Subject::Kind::point, member = p.subject.kind == Subject::Kind::member;
    if (const auto it = table_places.find((point ? "point " : "member ") + p.subject.name);
        (point || member) && it != table_places.end()) {
      p.place = it->second;
      continue;
    }
    const Node* n = find_node(*this, p);
    if (!n) n = &tree->root();
    const std::size_t quote = p.offset > 0 && n->quoted ? 1 : 0;
    p.place = {file, static_cast<int>(n->line), static_cast<int>(n->column + p.offset + quote)};
  }
  return problems;
}

}  // namespace corvex
