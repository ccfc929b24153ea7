// Where the things of a model stand in its file.
#include <map>
#include <unordered_map>

#include "corvex/file.hpp"
#include "file/tree.hpp"

namespace corvex {

namespace {

using file::Node;
using file::Tree;

// The node that a problem's subject was read from: the key within the entry where there is one.
// The keys of the maps that are looked into, indexed once: there may be as many problems as there are keys.
class Keys {
 public:
  explicit Keys(const Tree& tree) : tree_(tree) {}

  const Node* find(const Node& map, std::string_view key) {
    const auto [at, fresh] = all_.try_emplace(&map);
    if (fresh && map.is_map())
      for (std::size_t i = 0; i < tree_.entries(map); ++i)
        at->second.emplace(tree_.entry(map, i).key.text, &tree_.entry(map, i).key);
    const auto it = at->second.find(key);
    return it == at->second.end() ? nullptr : it->second;
  }

 private:
  const Tree& tree_;
  std::map<const Node*, std::unordered_map<std::string_view, const Node*>> all_;
};

const Node* find_node(const Model& m, const Problem& p, Keys& keys) {
  const Tree& t = *m.tree;
  using Kind = Subject::Kind;
  const auto inside = [&](std::string_view top, std::string_view name) -> const Node* {
    const Node* group = t.find(t.root(), top);
    const Node* key = group ? keys.find(*group, name) : nullptr;
    // "feet.3" is described as "feet"; what holds it may stand under that name too.
    const std::size_t dot = name.rfind('.');
    if (group && !key && dot != std::string_view::npos) key = keys.find(*group, name.substr(0, dot));
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
    case Kind::bracing: return t.find(t.root(), "bracing");
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
  Keys keys(*tree);
  for (Problem& p : problems) {
    if (p.place.line > 0) continue;
    const bool point = p.subject.kind == Subject::Kind::point, member = p.subject.kind == Subject::Kind::member;
    if (const auto it = table_places.find((point ? "point " : "member ") + p.subject.name);
        (point || member) && it != table_places.end()) {
      p.place = it->second;
      continue;
    }
    const Node* n = find_node(*this, p, keys);
    if (!n) n = &tree->root();
    const std::size_t quote = p.offset > 0 && n->quoted ? 1 : 0;
    p.place = {file, static_cast<int>(n->line), static_cast<int>(n->column + p.offset + quote)};
  }
  return problems;
}

}  // namespace corvex
