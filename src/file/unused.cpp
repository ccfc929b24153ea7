#include "file/unused.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_set>

namespace corvex::file {
namespace {

// The texts of the file but for the keys of `parameters` and `materials`.
class Texts {
 public:
  Texts(const Tree& tree) : tree_(tree) {
    const Node& root = tree.root();
    if (!root.is_map()) return;
    for (std::size_t i = 0; i < tree.entries(root); ++i) {
      const auto& [key, value] = tree.entry(root, i);
      const bool defines = (key.text == "parameters" || key.text == "materials") && value.is_map();
      for (std::size_t k = 0; defines && k < tree.entries(value); ++k) collect(tree.entry(value, k).value);
      if (!defines && key.text != "title" && key.text != "notes") collect(value);
    }
    for (const std::string_view text : all_) enter_words(text);
  }

  // As a word of a formula.
  bool has_word(std::string_view name) const { return words_.contains(name); }
  // A name of several words, between other characters.
  bool has_name(std::string_view name) const {
    return std::any_of(all_.begin(), all_.end(), [&](std::string_view text) {
      for (std::size_t at = text.find(name); at != std::string_view::npos; at = text.find(name, at + 1)) {
        const std::size_t end = at + name.size();
        if ((at == 0 || !is_word(text[at - 1])) && (end == text.size() || !is_word(text[end]))) return true;
      }
      return false;
    });
  }

 private:
  void collect(const Node& n) {
    if (n.is_text()) return all_.push_back(n.text);
    // The key of a map is not a formula, though it may be the word for a dimension.
    if (n.is_map()) {
      for (std::size_t i = 0; i < tree_.entries(n); ++i) collect(tree_.entry(n, i).value);
      return;
    }
    for (const Node& child : tree_.children(n)) collect(child);
  }

  static bool is_word(char c) {
    const auto u = static_cast<unsigned char>(c);
    return u >= 0x80 || c == '_' || (c >= '0' && c <= '9') || (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
  }
  void enter_words(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
      std::size_t end = i;
      while (end < text.size() && is_word(text[end])) ++end;
      if (end > i) words_.insert(text.substr(i, end - i));
      i = std::max(end, i + 1);
    }
  }

  const Tree& tree_;
  std::vector<std::string_view> all_;
  std::unordered_set<std::string_view> words_;
};

Problem note(const char* finding, Subject subject, std::string text, std::string remedy) {
  Problem p{std::move(text), std::move(subject), {}, {}, Problem::Severity::note};
  p.finding = finding;
  p.remedy = std::move(remedy);
  return p;
}

}  // namespace

Problems unused(const Tree& tree, const Structure& structure, bool tables) {
  const Node *parameters = tree.find(tree.root(), "parameters"), *materials = tree.find(tree.root(), "materials");
  if (!parameters && !materials) return {};
  Problems notes;
  const Texts texts(tree);
  for (std::size_t i = 0; !tables && parameters && parameters->is_map() && i < tree.entries(*parameters); ++i) {
    const std::string name(tree.entry(*parameters, i).key.text);
    if (!texts.has_word(name))
      notes.push_back(note("unused-parameter", {Subject::Kind::parameter, name},
                           fmt::format("no formula uses the parameter '{}'", name), "remove it, or use it"));
  }
  for (std::size_t i = 0; materials && materials->is_map() && i < tree.entries(*materials); ++i) {
    const std::string name(tree.entry(*materials, i).key.text);
    const auto& used = structure.materials();
    if (std::none_of(used.begin(), used.end(), [&](const Material& m) { return m.name == name; }) &&
        !texts.has_name(name))
      notes.push_back(note("unused-material", {Subject::Kind::material, name},
                           fmt::format("no member uses the material '{}'", name),
                           "remove it, or assign it to members"));
  }
  return notes;
}

}  // namespace corvex::file
