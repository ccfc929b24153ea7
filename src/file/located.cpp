// Where the things of a model stand in its file.
#include "corvex/file.hpp"
#include "file/tree.hpp"

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
    case Kind::parameter: return inside("parameters", p.subject.name);
    case Kind::acceptance: {
      const Node* list = t.find(t.root(), "accept");
      return list && p.subject.entry < list->count ? &t.children(*list)[p.subject.entry] : list;
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
