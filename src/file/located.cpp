// Positions of the parts of a model in its file.
#include <map>
#include <unordered_map>

#include "corvex/file.hpp"
#include "file/tree.hpp"

namespace corvex {

namespace {

using file::Node;
using file::Tree;

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

// The node that a problem's subject was read from: the key within the entry where there is one.
class Finder {
 public:
  explicit Finder(const Model& model) : m_(model), t_(*model.tree), keys_(t_) {}

  const Node* operator()(const Problem& p) {
    using Kind = Subject::Kind;
    switch (p.subject.kind) {
      case Kind::point: return inside("points", p);
      case Kind::member: return inside("members", p);
      case Kind::section: return inside("sections", p);
      case Kind::material: return inside("materials", p);
      case Kind::support: return inside("supports", p);
      case Kind::mass: return inside("masses", p);
      case Kind::load_case: return inside("loads", p);
      case Kind::combination: return inside("combinations", p);
      case Kind::parameter: return inside("parameters", p);
      case Kind::structure: return t_.find_key(t_.root(), p.key);
      case Kind::bracing: return t_.find(t_.root(), "bracing");
      case Kind::limit: return in_list(t_.find(t_.root(), "limits"), p, m_.limit_entries);
      case Kind::acceptance: {
        const Node* list = t_.find(t_.root(), "accept");
        return list && p.subject.entry < list->count ? &t_.children(*list)[p.subject.entry] : list;
      }
      case Kind::hand_value: return hand_value(p);
      case Kind::expectation: {
        const Node* hand = t_.find(t_.root(), "hand");
        const Node* list = hand ? t_.find(*hand, "expect") : nullptr;
        return list && p.subject.entry < m_.hand_entries.size() ? in_list(list, p, m_.hand_entries) : hand;
      }
      case Kind::load: return load(p);
    }
    return nullptr;
  }

 private:
  const Node* inside(std::string_view top, const Problem& p) {
    const std::string_view name = p.subject.name;
    const Node* group = t_.find(t_.root(), top);
    const Node* key = group ? keys_.find(*group, name) : nullptr;
    // "feet.3" is described as "feet"; its supports may be listed under that name too.
    const std::size_t dot = name.rfind('.');
    if (group && !key && dot != std::string_view::npos) key = keys_.find(*group, name.substr(0, dot));
    return key ? part_of(key[1], p, key) : group;
  }

  // The key that the problem is about, or the whole.
  const Node* part_of(const Node& entry, const Problem& p, const Node* whole) const {
    const Node* part = t_.find(entry, p.key);
    return part ? part : whole;
  }

  // `entries`: of each subject its entry of the list.
  const Node* in_list(const Node* list, const Problem& p, const std::vector<std::size_t>& entries) const {
    if (!list || p.subject.entry >= entries.size()) return list;
    const Node& entry = t_.children(*list)[entries[p.subject.entry]];
    return part_of(entry, p, &entry);
  }

  const Node* hand_value(const Problem& p) const {
    const Node* hand = t_.find(t_.root(), "hand");
    const Node* let = hand ? t_.find(*hand, "let") : nullptr;
    const Node* key = let ? t_.find_key(*let, p.subject.name) : nullptr;
    return key && p.key == "is" ? key + 1 : key;
  }

  const Node* load(const Problem& p) const {
    const Node* loads = t_.find(t_.root(), "loads");
    const Node* list = loads ? t_.find(*loads, p.subject.name) : nullptr;
    if (!list || !list->is_list()) return loads;
    std::size_t entry = p.subject.entry;
    const auto load_case = m_.structure.find_load_case(p.subject.name);
    if (load_case && entry < m_.load_entries[*load_case].size()) entry = m_.load_entries[*load_case][entry];
    if (entry >= list->count) return list;
    const Node& one = t_.children(*list)[entry];
    return part_of(one, p, &one);
  }

  const Model& m_;
  const Tree& t_;
  Keys keys_;
};

}  // namespace

Problems Model::located(Problems problems) const {
  if (!tree) return problems;
  Finder find(*this);
  for (Problem& p : problems) {
    if (p.place.line > 0) continue;
    const bool point = p.subject.kind == Subject::Kind::point, member = p.subject.kind == Subject::Kind::member;
    if (const auto it = table_places.find((point ? "point " : "member ") + p.subject.name);
        (point || member) && it != table_places.end()) {
      p.place = it->second;
      continue;
    }
    const Node* n = find(p);
    if (!n) n = &tree->root();
    const std::size_t quote = p.offset > 0 && n->quoted ? 1 : 0;
    p.place = {file, static_cast<int>(n->line), static_cast<int>(n->column + p.offset + quote)};
  }
  return problems;
}

}  // namespace corvex
