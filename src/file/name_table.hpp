// Meaning of the names in a model file.
#pragma once

#include <map>
#include <unordered_map>

#include "corvex/structure.hpp"
#include "file/errors.hpp"

namespace corvex::file {

// Points that were made by one entry. `sequence` is the points that were repeated, followed by the copies; a copy lies
// `step` places further on in it.
struct PointFamily {
  std::vector<PointId> members{}, sequence{};
  std::unordered_map<std::size_t, std::size_t> place{};  // in the sequence, by index of the point
  std::size_t step = 0;
};

// Looks up names. A name that is unknown is reported; not so a name whose entry was read and refused (a "broken" one),
// since that entry has been reported already.
class NameTable {
 public:
  NameTable(const Tree& tree, Errors& errors, Structure& structure)
      : tree_(&tree), errors_(errors), structure_(structure) {}

  std::optional<PointId> point(const Node& n);
  std::optional<MemberId> member(const Node& n);
  std::optional<Material> material(const Node& n);
  // Also a designation of the catalogue, which becomes a section of that name.
  std::optional<SectionId> section(const Node& n);
  // One name or that of a family, a list of them, or "all".
  std::vector<PointId> points(const Node& n);
  std::vector<MemberId> members(const Node& n);
  // As the key of a map: one name, a family, or several with commas between: "A, E".
  std::vector<PointId> points_in_key(const Node& key);
  std::vector<std::string> case_names() const;

  void mark_broken(std::string_view name) { broken_[std::string(name)] = true; }
  // Whether this very name is of a broken entry.
  bool is_marked(std::string_view name) const { return broken_.contains(name); }
  // The same, or the family of the name ("feet" of "feet.3").
  bool is_broken(std::string_view name) const;

  std::map<std::string, Material, std::less<>> materials;
  std::map<std::string, PointFamily, std::less<>> point_families;
  std::map<std::string, std::vector<MemberId>, std::less<>> member_families;

 private:
  template <class Id, class Things>
  std::optional<Id> named(const Node& n, std::string_view what, std::optional<Id> found, const Things& things);
  template <class Id, class Families, class One>
  std::vector<Id> several(const Node& n, std::size_t count, const Families& families, const One& one);

  const Tree* tree_;
  Errors& errors_;
  Structure& structure_;
  std::map<std::string, bool, std::less<>> broken_;
};

}  // namespace corvex::file
