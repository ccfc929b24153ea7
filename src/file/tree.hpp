// A YAML document as a strict tree: texts, lists and maps, each with its place. Scalars are text, whatever
// they look like. Anchors, aliases, tags, further documents and duplicate keys are refused; depth and sizes
// are limited.
#pragma once

#include <cstdint>
#include <deque>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/problem.hpp"

namespace corvex::file {

struct Node {
  enum class Kind : std::uint8_t { text, list, map };
  Kind kind = Kind::text;
  bool quoted = false;
  std::uint32_t line = 0, column = 0;  // from 1; columns in characters
  std::uint32_t first = 0, count = 0;  // children; keys and values of a map take turns
  std::string_view text;

  bool is_text() const { return kind == Kind::text; }
  bool is_list() const { return kind == Kind::list; }
  bool is_map() const { return kind == Kind::map; }
  bool is_empty() const { return is_text() && !quoted && text.empty(); }
};

struct Entry {
  const Node& key;
  const Node& value;
};

class Tree {
 public:
  static constexpr int depth_limit = 32;
  static constexpr std::size_t scalar_limit = 1 << 16;

  // Refuses with one problem for a broken document, or all duplicate keys.
  [[gnu::visibility("hidden")]] static Expected<std::shared_ptr<const Tree>, Problems> parse(std::string_view text,
                                                                                             const std::string& file);

  // A tree that was changed; it keeps the trees alive that its texts belong to.
  [[gnu::visibility("hidden")]] static std::shared_ptr<const Tree> from(
      const struct Draft& draft, std::vector<std::shared_ptr<const Tree>> sources);

  const Node& root() const { return nodes_[root_]; }
  std::span<const Node> children(const Node& n) const { return {nodes_.data() + n.first, n.count}; }
  std::size_t entries(const Node& map) const { return map.count / 2; }
  Entry entry(const Node& map, std::size_t i) const {
    return {nodes_[map.first + 2 * i], nodes_[map.first + 2 * i + 1]};
  }
  // The value of a key; null if the node is not a map or does not have the key.
  [[gnu::visibility("hidden")]] const Node* find(const Node& map, std::string_view key) const;
  [[gnu::visibility("hidden")]] const Node* find_key(const Node& map, std::string_view key) const;

 private:
  friend class TreeBuilder;
  std::vector<Node> nodes_;
  std::deque<std::string> blocks_;  // the texts; views into them stay valid
  std::vector<std::shared_ptr<const Tree>> sources_;
  std::size_t root_ = 0;
};

// "a text", "a list", "a map"
std::string_view kind_name(const Node& n);

}  // namespace corvex::file
