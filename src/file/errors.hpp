// Collects what is wrong with a model file, with the place of each mistake.
#pragma once

#include <fmt/format.h>

#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "file/tree.hpp"

namespace corvex::file {

// A key or word of the model file, and whether this version can use it.
struct Key {
  std::string_view name;
  bool built = true;
};
using Keys = std::vector<Key>;

// Every check of a node reports what was expected there and returns whether the node can be used.
class Errors {
 public:
  Errors(const Tree& tree, std::string file) : tree_(&tree), file_(std::move(file)) {}

  // `offset` is a place inside the text of the node, in bytes.
  void fail(const Node& at, std::string text, std::size_t offset = 0);
  void warn(const Node& at, std::string text);
  void not_built(const Node& at, std::string_view what);
  // A name that does not exist, with the nearest that do.
  void unknown(const Node& at, std::string_view what, const std::vector<std::string>& known);
  void add(Problem problem);
  // Looking for the nearest name takes time with each mistake: only the first ones get a hint.
  bool wants_hints() const { return count_ < 25; }

  bool is_map(const Node& n, std::string_view what);
  bool is_list(const Node& n, std::string_view what);
  bool is_text(const Node& n, std::string_view what);
  // Reports every key that is not one of `keys`; false if a key is one that is not implemented.
  bool check_keys(const Node& map, std::string_view where, const Keys& keys);
  // Reports the keys other than `kind` that are not among `keys`; false if there are any.
  bool only_with(const Node& map, std::string_view kind, const std::vector<std::string_view>& keys);
  // The value of a key that must be there; null if it is not.
  const Node* need(const Node& map, std::string_view key, const Node& blame, std::string_view where);
  // The index of the word among `words`.
  std::optional<std::size_t> choice(const Node& n, std::string_view what, const std::vector<Key>& words);

  // Mistakes reported so far; a reader compares it before and after a part.
  std::size_t count() const { return count_; }
  // While `read` runs, places are in another file.
  template <class Read>
  auto in_file(std::string file, const Read& read) {
    std::swap(file_, file);
    auto result = read();
    std::swap(file_, file);
    return result;
  }

  const std::string& file() const { return file_; }
  // In the order of their places. Each is handed out once.
  Problems take_problems();
  Problems take_notes() { return std::move(notes_); }

 private:
  const Tree* tree_;
  std::string file_;
  Problems problems_, notes_;
  std::size_t count_ = 0;
  // Keys that a misspelt one was meant to be: they are not reported as missing too.
  std::set<std::pair<const Node*, std::string>> misspelt_;
};

}  // namespace corvex::file
