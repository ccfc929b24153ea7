// Which listed profiles a section may be.
#include <algorithm>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class ChooseReader : PartReader {
 public:
  explicit ChooseReader(const Context& c) : PartReader(c) {}

  void run(const Node& n, std::vector<ChoiceGroup>& groups) {
    if (n.is_empty() || !errors_.is_map(n, "choose")) return;
    std::vector<std::string> names;
    for (const NamedSection& s : structure_.sections()) names.push_back(s.name);
    for (std::size_t i = 0; i < tree_->entries(n); ++i) {
      const auto& [key, value] = tree_->entry(n, i);
      if (names_.is_marked(key.text)) continue;
      if (std::find(names.begin(), names.end(), key.text) == names.end())
        errors_.unknown(key, "section", names);
      else if (auto group = read(std::string(key.text), value))
        groups.push_back(std::move(*group));
    }
  }

 private:
  std::optional<ChoiceGroup> read(const std::string& section, const Node& n) {
    const std::size_t before = errors_.count();
    if (!errors_.is_map(n, "section choices")) return std::nullopt;
    errors_.check_keys(n, "section choices", {{"from"}, {"height"}, {"width"}, {"mass"}});
    CatalogueSearch wanted;
    if (const Node* from = errors_.need(n, "from", n, "a section choice"))
      for (const Node& one : from->is_list() ? tree_->children(*from) : std::span(from, 1))
        if (errors_.is_text(one, "the name of a series of profiles")) add_series(one, wanted);
    if (const Node* from = tree_->find(n, "from"); from && wanted.series.empty() && errors_.count() == before)
      errors_.fail(*from, "the name of a series was expected, for example SHS, or several in a list");
    for (const char* figure : {"height", "width"})
      if (const Node* v = tree_->find(n, figure)) add_bound(*v, figure, units_.section, wanted);
    const Wanted per_metre{"a mass per length", dimension::mass / dimension::length, "8 kg/m"};
    if (const Node* v = tree_->find(n, "mass")) add_bound(*v, "mass", per_metre, wanted);
    if (errors_.count() > before) return std::nullopt;
    ChoiceGroup group{section, search(wanted)};
    if (group.from.empty()) {
      errors_.fail(n, "no listed profile of these series lies within these bounds");
      return std::nullopt;
    }
    return group;
  }

  void add_series(const Node& n, CatalogueSearch& wanted) {
    std::vector<std::string> known;
    for (const ProfileSeries& s : profile_series()) known.push_back(s.name);
    if (std::find(known.begin(), known.end(), n.text) == known.end())
      errors_.unknown(n, "series of profiles", known);
    else
      wanted.series.emplace_back(n.text);
  }

  // "60 mm to 100 mm", "at least 60 mm", "at most 100 mm".
  void add_bound(const Node& n, const char* figure, const Wanted& unit, CatalogueSearch& wanted) {
    if (!errors_.is_text(n, "a range, for example 60 mm to 100 mm")) return;
    const auto part = [&](std::string_view text) {
      Node one = n;
      one.text = text;
      return quantities_.read(one, unit);
    };
    CatalogueSearch::Bound bound{figure, {}, {}};
    constexpr std::string_view least = "at least ", most = "at most ", between = " to ";
    if (n.text.starts_with(least)) {
      bound.min = part(n.text.substr(least.size()));
    } else if (n.text.starts_with(most)) {
      bound.max = part(n.text.substr(most.size()));
    } else if (const std::size_t at = n.text.find(between); at != std::string_view::npos) {
      bound.min = part(n.text.substr(0, at));
      bound.max = part(n.text.substr(at + between.size()));
    } else {
      errors_.fail(
          n, fmt::format("'{}': a range was expected, for example 60 mm to 100 mm, at least 60 mm or at most 100 mm",
                         n.text));
      return;
    }
    wanted.bounds.push_back(std::move(bound));
  }
};

}  // namespace

void read_choose(const Context& c, const Node& n, std::vector<ChoiceGroup>& groups) {
  ChooseReader(c).run(n, groups);
}

}  // namespace corvex::file
