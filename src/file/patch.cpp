#include "file/patch.hpp"

#include <fmt/format.h>

#include <charconv>

#include "corvex/formula.hpp"

namespace corvex::file {

Draft* Draft::value(std::string_view key) {
  for (std::size_t i = 0; head.is_map() && i + 1 < children.size(); i += 2)
    if (children[i].head.text == key) return &children[i + 1];
  return nullptr;
}

void Draft::erase(std::string_view key) {
  for (std::size_t i = 0; head.is_map() && i + 1 < children.size(); i += 2)
    if (children[i].head.text == key) {
      const auto at = children.begin() + static_cast<std::ptrdiff_t>(i);
      children.erase(at, at + 2);
      return;
    }
}

Draft draft_of(const Tree& tree, const Node& node) {
  Draft d{node, {}};
  if (node.is_text()) return d;
  for (const Node& child : tree.children(node)) d.children.push_back(draft_of(tree, child));
  return d;
}

namespace {

bool removes(const Node& n) {
  return n.is_text() && !n.quoted && (n.text.empty() || n.text == "null" || n.text == "~");
}

// Without the entries that would remove something.
Draft without_nulls(const Draft& patch) {
  if (!patch.head.is_map()) return patch;
  Draft d{patch.head, {}};
  for (std::size_t i = 0; i + 1 < patch.children.size(); i += 2)
    if (!removes(patch.children[i + 1].head)) {
      d.children.push_back(patch.children[i]);
      d.children.push_back(without_nulls(patch.children[i + 1]));
    }
  return d;
}

std::optional<std::size_t> index_of(const std::string& part, std::size_t count) {
  // RFC 6901: no leading zeros.
  if (part.size() > 1 && part.front() == '0') return std::nullopt;
  std::size_t i = 0;
  const auto [end, error] = std::from_chars(part.data(), part.data() + part.size(), i);
  if (error != std::errc() || end != part.data() + part.size() || i >= count) return std::nullopt;
  return i;
}

std::vector<std::string> keys_of(const Draft& map) {
  std::vector<std::string> keys;
  for (std::size_t i = 0; i + 1 < map.children.size(); i += 2) keys.emplace_back(map.children[i].head.text);
  return keys;
}

std::string no_such_key(const Draft& map, const std::string& key, const std::string& where) {
  const std::vector<std::string> keys = keys_of(map);
  std::string hint = did_you_mean(key, keys);
  constexpr std::size_t few = 12;
  if (hint.empty() && keys.size() <= few) {
    hint = "; there are: ";
    for (std::size_t i = 0; i < keys.size(); ++i) hint += (i > 0 ? ", " : "") + keys[i];
  }
  return fmt::format("there is no '{}' in {}{}", key, where.empty() ? "the model" : where, hint);
}

// The children of a node stand together, after those of its children.
Node flattened(const Draft& d, std::vector<Node>& nodes) {
  Node n = d.head;
  if (n.is_text()) return n;
  std::vector<Node> children;
  for (const Draft& child : d.children) children.push_back(flattened(child, nodes));
  n.first = static_cast<std::uint32_t>(nodes.size());
  n.count = static_cast<std::uint32_t>(children.size());
  nodes.insert(nodes.end(), children.begin(), children.end());
  return n;
}

}  // namespace

std::shared_ptr<const Tree> Tree::from(const Draft& draft, std::vector<std::shared_ptr<const Tree>> sources) {
  const auto tree = std::make_shared<Tree>();
  const Node root = flattened(draft, tree->nodes_);
  tree->root_ = tree->nodes_.size();
  tree->nodes_.push_back(root);
  tree->sources_ = std::move(sources);
  return tree;
}

void merge(Draft& target, const Draft& patch) {
  if (!patch.head.is_map() || !target.head.is_map()) {
    target = without_nulls(patch);
    return;
  }
  for (std::size_t i = 0; i + 1 < patch.children.size(); i += 2) {
    const Draft &key = patch.children[i], &value = patch.children[i + 1];
    Draft* there = target.value(key.head.text);
    if (removes(value.head)) {
      target.erase(key.head.text);
    } else if (there) {
      // Errors in a changed part are reported at the change.
      there[-1].head.line = key.head.line, there[-1].head.column = key.head.column;
      merge(*there, value);
    } else {
      target.children.push_back(key);
      target.children.push_back(without_nulls(value));
    }
  }
}

// "~1" represents a slash and "~0" a tilde.
std::vector<std::string> parts_of(std::string_view pointer) {
  std::vector<std::string> parts;
  for (std::size_t at = 0; at < pointer.size();) {
    const std::size_t end = std::min(pointer.find('/', at + 1), pointer.size());
    std::string part;
    for (std::size_t i = at + 1; i < end; ++i) {
      const bool escape = pointer[i] == '~' && i + 1 < end && (pointer[i + 1] == '0' || pointer[i + 1] == '1');
      part += escape ? (pointer[++i] == '1' ? '/' : '~') : pointer[i];
    }
    parts.push_back(std::move(part));
    at = end;
  }
  return parts;
}

std::string set(Draft& root, std::string_view pointer, const Draft& key, const Draft& value) {
  if (pointer.empty() || pointer.front() != '/') return "a pointer begins with a slash, for example /sections/leg";
  const std::vector<std::string> parts = parts_of(pointer);
  Draft* here = &root;
  std::string where;
  for (std::size_t k = 0; k < parts.size(); ++k) {
    const std::string& part = parts[k];
    const bool last = k + 1 == parts.size();
    if (here->head.is_map()) {
      Draft* next = here->value(part);
      if (!next && !last) return no_such_key(*here, part, where);
      // At the top and among what the model names a new key is a slip; within an entry it may be left out before.
      if (!next && where.find('/', 1) == std::string::npos) return no_such_key(*here, part, where);
      if (!next) {
        here->children.push_back(key);
        here->children.push_back(value);
        return {};
      }
      here = next;
    } else if (here->head.is_list()) {
      if (last && part == "-") {
        here->children.push_back(value);
        return {};
      }
      const auto i = index_of(part, here->children.size());
      if (!i)
        return fmt::format("'{}' is not an entry of {}, which is a list of {}; entries count from 0, and - appends one",
                           part, where, here->children.size());
      here = &here->children[*i];
    } else {
      return fmt::format("{} is '{}' and has no '{}'", where, here->head.text, part);
    }
    where += "/" + part;
  }
  *here = value;
  return {};
}

}  // namespace corvex::file
