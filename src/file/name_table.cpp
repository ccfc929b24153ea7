#include "file/name_table.hpp"

#include <algorithm>

#include "corvex/catalogue.hpp"

namespace corvex::file {
namespace {

// "SHS 60x60x4": the name of a series and a size. "legs 2" is none.
bool is_designation(const Node& n) {
  if (!n.is_text()) return false;
  const std::size_t size = n.text.find_first_of("0123456789");
  if (size == std::string_view::npos || size == 0) return false;
  std::string_view word = n.text.substr(0, size);
  while (word.ends_with(' ')) word.remove_suffix(1);
  if (word == "PIPE DN" || word == "HE") return true;
  const auto& series = profile_series();
  return std::any_of(series.begin(), series.end(), [&](const ProfileSeries& s) { return s.name == word; });
}

}  // namespace

bool NameTable::is_broken(std::string_view name) const {
  if (broken_.contains(name)) return true;
  const std::size_t dot = name.rfind('.');
  return dot != std::string_view::npos && broken_.contains(name.substr(0, dot));
}

template <class Id, class Things>
std::optional<Id> NameTable::named(const Node& n, std::string_view what, std::optional<Id> found,
                                   const Things& things) {
  if (!errors_.is_text(n, fmt::format("the name of a {}", what))) return std::nullopt;
  if (found || is_broken(n.text)) return found;
  std::vector<std::string> names;
  if (errors_.wants_hints())
    for (const auto& thing : things) names.push_back(thing.name);
  errors_.unknown(n, what, names);
  return std::nullopt;
}

std::optional<PointId> NameTable::point(const Node& n) {
  if (n.is_text() && point_families.contains(n.text) && !structure_.find_point(n.text)) {
    errors_.fail(n, fmt::format("'{0}' is a family of points; one of them was expected, for example '{0}.1'", n.text));
    return std::nullopt;
  }
  return named(n, "point", structure_.find_point(n.text), structure_.points());
}

std::optional<MemberId> NameTable::member(const Node& n) {
  if (n.is_text() && member_families.contains(n.text) && !structure_.find_member(n.text)) {
    errors_.fail(n, fmt::format("'{0}' is a family of members; one of them was expected, for example '{0}.1'", n.text));
    return std::nullopt;
  }
  return named(n, "member", structure_.find_member(n.text), structure_.members());
}

std::optional<SectionId> NameTable::section(const Node& n) {
  if (n.is_map()) {
    errors_.fail(n, "the name of a section was expected; describe it under sections:");
    return std::nullopt;
  }
  const auto known = structure_.find_section(n.text);
  if (!known && !is_broken(n.text) && is_designation(n)) {
    const auto found = profile(n.text);
    if (found) return structure_.section(std::string(n.text), *found);
    errors_.fail(n, found.error());
    return std::nullopt;
  }
  return named(n, "section", known, structure_.sections());
}

template <class Id, class Families, class One>
std::vector<Id> NameTable::several(const Node& n, std::size_t count, const Families& families, const One& one) {
  std::vector<Id> ids;
  if (n.is_text() && n.text == "all") {
    for (std::size_t i = 0; i < count; ++i) ids.emplace_back(i);
    return ids;
  }
  for (const Node& name : n.is_list() ? tree_->children(n) : std::span(&n, 1)) {
    const auto family = name.is_text() ? families(name.text) : std::nullopt;
    if (family)
      ids.insert(ids.end(), family->begin(), family->end());
    else if (const auto id = one(name))
      ids.push_back(*id);
  }
  return ids;
}

std::vector<PointId> NameTable::points(const Node& n) {
  return several<PointId>(
      n, structure_.points().size(),
      [&](std::string_view name) -> std::optional<std::vector<PointId>> {
        const auto it = point_families.find(name);
        return it == point_families.end() ? std::nullopt : std::optional(it->second.members);
      },
      [&](const Node& name) { return point(name); });
}

std::vector<PointId> NameTable::points_in_key(const Node& key) {
  if (key.text.find(',') == std::string_view::npos) return points(key);
  std::vector<PointId> all;
  for (std::size_t at = 0; at <= key.text.size();) {
    const std::size_t end = std::min(key.text.find(',', at), key.text.size());
    const std::string_view part = key.text.substr(at, end - at);
    const std::size_t first = part.find_first_not_of(' '), last = part.find_last_not_of(' ');
    Node one = key;
    one.quoted = false;
    one.text = first == std::string_view::npos ? std::string_view() : part.substr(first, last - first + 1);
    one.column += static_cast<std::uint32_t>(at + (first == std::string_view::npos ? 0 : first) + (key.quoted ? 1 : 0));
    if (one.text.empty())
      errors_.fail(one, "the name of a point was expected next to the comma");
    else
      for (const PointId p : points(one)) all.push_back(p);
    at = end + 1;
  }
  return all;
}

std::vector<MemberId> NameTable::members(const Node& n) {
  return several<MemberId>(
      n, structure_.members().size(),
      [&](std::string_view name) -> std::optional<std::vector<MemberId>> {
        const auto it = member_families.find(name);
        return it == member_families.end() ? std::nullopt : std::optional(it->second);
      },
      [&](const Node& name) { return member(name); });
}

std::optional<Material> NameTable::material(const Node& n) {
  if (!errors_.is_text(n, "the name of a material")) return std::nullopt;
  if (const auto it = materials.find(n.text); it != materials.end()) return it->second;
  if (auto known = find_material(n.text)) return known;
  if (broken_.contains(n.text)) return std::nullopt;
  std::vector<std::string> names = material_names();
  for (const auto& [name, material] : materials) names.push_back(name);
  errors_.unknown(n, "material", names);
  return std::nullopt;
}

std::vector<std::string> NameTable::case_names() const {
  std::vector<std::string> names;
  for (const LoadCase& c : structure_.load_cases()) names.push_back(c.name());
  return names;
}

}  // namespace corvex::file
