#include "file/errors.hpp"

#include <algorithm>

#include "corvex/formula.hpp"
#include "file/bounds.hpp"
#include "file/synonyms.hpp"

namespace corvex::file {
void Errors::fail(const Node& at, std::string text, std::size_t offset) {
  const int column = static_cast<int>(at.column + offset + (offset > 0 && at.quoted ? 1 : 0));
  // A text of the file is quoted in messages; nobody reads more of it than this.
  constexpr std::size_t longest = 1000;
  if (text.size() > longest) {
    std::size_t end = longest;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    text = text.substr(0, end) + " …";
  }
  add(problem_at({file_, static_cast<int>(at.line), column}, std::move(text)));
}

void Errors::add(Problem problem) {
  if (++count_ <= most_problems) problems_.push_back(std::move(problem));
}

void Errors::warn(const Node& at, std::string text) {
  Problem p = problem_at({file_, static_cast<int>(at.line), static_cast<int>(at.column)}, std::move(text));
  p.severity = Problem::Severity::warning;
  notes_.push_back(std::move(p));
}

void Errors::not_built(const Node& at, std::string_view what) {
  fail(at, fmt::format("{} is not implemented", what));
}

void Errors::unknown(const Node& at, std::string_view what, const std::vector<std::string>& known) {
  std::string text = wants_hints() ? meaning(at.text, known) : "";
  if (text.empty() && wants_hints() && !known.empty() && known.size() <= 24)
    text = fmt::format("; there are: {}", fmt::join(known, ", "));
  fail(at, fmt::format("there is no {} '{}'{}", what, at.text, text));
}

bool Errors::is_map(const Node& n, std::string_view what) {
  if (n.is_map()) return true;
  fail(n, fmt::format("{}: a map (key: value) was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Errors::is_list(const Node& n, std::string_view what) {
  if (n.is_list()) return true;
  fail(n, fmt::format("{}: a list was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Errors::is_text(const Node& n, std::string_view what) {
  if (n.is_text() && !n.is_empty()) return true;
  fail(n, fmt::format("{} was expected, but this is {}", what, kind_name(n)));
  return false;
}

bool Errors::check_keys(const Node& map, std::string_view where, const Keys& keys) {
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
      text = fmt::format("'{}' is alone after a comma; decimals are written with a point, for example 2.5", key.text);
    } else {
      text += fmt::format("; expected: {}", fmt::join(names, ", "));
    }
    fail(key, std::move(text));
  }
  return usable;
}

const Node* Errors::need(const Node& map, std::string_view key, const Node& blame, std::string_view where) {
  if (const Node* n = tree_->find(map, key)) return n;
  if (misspelt_.contains({&map, std::string(key)})) return nullptr;
  fail(blame, fmt::format("{} needs '{}'", where, key));
  return nullptr;
}

std::optional<std::size_t> Errors::choice(const Node& n, std::string_view what, const std::vector<Key>& words) {
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

bool Errors::only_with(const Node& map, std::string_view kind, const std::vector<std::string_view>& keys) {
  bool ok = true;
  for (std::size_t i = 0; i < tree_->entries(map); ++i) {
    const Node& key = tree_->entry(map, i).key;
    if (key.text == kind || std::find(keys.begin(), keys.end(), key.text) != keys.end()) continue;
    fail(key, fmt::format("'{}' does not go with '{}'", key.text, kind));
    ok = false;
  }
  return ok;
}

Problems Errors::take_problems() {
  std::stable_sort(problems_.begin(), problems_.end(), [](const Problem& a, const Problem& b) {
    return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
  });
  return std::move(problems_);
}

}  // namespace corvex::file
