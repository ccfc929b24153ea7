// Directions of loads, of steps between points, and of rigid arms.
#pragma once

#include "corvex/load_case.hpp"
#include "file/name_table.hpp"
#include "file/quantities.hpp"

namespace corvex::file {

// A vector that may change from a first to a last value along a member.
struct Directed {
  Vector first, last;
  LoadAxes axes = LoadAxes::global;
};

struct DirectionRules {
  bool may_change = false;        // a first and a last value
  bool on_member = false;         // `axes: member` is possible
  std::optional<Vector> place{};  // where the load acts, for `toward`
};

// A direction is a list of components, a map of x y z up down, or a size with an angle or toward a point.
class Directions {
 public:
  Directions(const Tree& tree, Errors& errors, Quantities& quantities, NameTable& names, const WantedUnits& units,
             const Structure& structure)
      : tree_(&tree), errors_(errors), quantities_(quantities), names_(names), units_(units), structure_(structure) {}

  std::optional<Directed> read(const Node& n, const Wanted& wanted, const DirectionRules& rules);
  // One that does not change, in global axes.
  std::optional<Vector> vector(const Node& n, const Wanted& wanted);
  // A list of two components in a plane structure, three in space.
  std::optional<Vector> components(const Node& list, const Wanted& wanted);
  // Adds a component named x, y, z, up or down; false for any other name.
  bool add(Vector& v, std::string_view key, double value) const;

 private:
  std::optional<Directed> from_map(const Node& map, const Wanted& wanted, const DirectionRules& rules);
  std::optional<Directed> sized(const Node& map, const Wanted& wanted, const DirectionRules& rules, Directed d);
  std::optional<Vector> unit_vector(const Node& map, const DirectionRules& rules, LoadAxes axes);

  const Tree* tree_;
  Errors& errors_;
  Quantities& quantities_;
  NameTable& names_;
  const WantedUnits& units_;
  const Structure& structure_;
};

}  // namespace corvex::file
