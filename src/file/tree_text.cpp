#include "file/tree_text.hpp"

#include <fmt/format.h>

namespace corvex::file {
namespace {

// Whether a text stands without quotes where commas, brackets and colons have a meaning.
bool is_plain(const Node& n) {
  if (n.quoted || n.text.empty()) return false;
  if (n.text.front() == ' ' || n.text.back() == ' ' || n.text == "~" || n.text == "null") return false;
  constexpr std::string_view first = "-?:,[]{}#&*!|>'\"%@`", anywhere = ",[]{}\"\n\t\\";
  if (first.find(n.text.front()) != std::string_view::npos &&
      !(n.text.front() == '-' && n.text.size() > 1 && n.text[1] != ' '))
    return false;
  if (n.text.find_first_of(anywhere) != std::string_view::npos) return false;
  return n.text.find(": ") == std::string_view::npos && n.text.find(" #") == std::string_view::npos &&
         n.text.back() != ':';
}

std::string scalar(const Node& n) {
  if (n.is_empty()) return "";
  if (is_plain(n)) return std::string(n.text);
  std::string text = "\"";
  for (const char c : n.text) {
    if (c == '"' || c == '\\')
      text += std::string("\\") + c;
    else if (c == '\n')
      text += "\\n";
    else if (c == '\t')
      text += "\\t";
    else if (static_cast<unsigned char>(c) < 0x20)
      text += fmt::format("\\x{:02x}", static_cast<unsigned char>(c));
    else
      text += c;
  }
  return text + "\"";
}

std::string flow(const Tree& tree, const Node& n) {
  if (n.is_text()) return scalar(n);
  std::string text = n.is_map() ? "{" : "[";
  const auto children = tree.children(n);
  for (std::size_t i = 0; i < children.size(); ++i) {
    const bool value = n.is_map() && i % 2 == 1;
    if (i > 0) text += value ? ": " : ", ";
    text += flow(tree, children[i]);
  }
  return text + (n.is_map() ? "}" : "]");
}

void block(const Tree& tree, const Node& n, int depth, std::string& text) {
  const std::string indent(static_cast<std::size_t>(2 * depth), ' ');
  const auto children = tree.children(n);
  constexpr int deepest = 2;
  const auto entry = [&](const std::string& head, const Node& value) {
    const bool opens = !value.is_text() && value.count > 0 && depth + 1 < deepest;
    text += indent + head;
    if (opens) {
      text += "\n";
      block(tree, value, depth + 1, text);
    } else {
      const std::string words = flow(tree, value);
      text += (words.empty() ? "" : " ") + words + "\n";
    }
  };
  if (n.is_map())
    for (std::size_t i = 0; i + 1 < children.size(); i += 2) entry(scalar(children[i]) + ":", children[i + 1]);
  else
    for (const Node& child : children) entry("-", child);
}

}  // namespace

std::string tree_text(const Tree& tree) {
  std::string text;
  if (tree.root().is_text()) return scalar(tree.root()) + "\n";
  block(tree, tree.root(), 0, text);
  return text;
}

}  // namespace corvex::file
