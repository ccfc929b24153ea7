// Reads the tree of a model file into a Structure.
#pragma once

#include <fmt/format.h>

#include <map>
#include <optional>
#include <set>

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "file/tree.hpp"

namespace corvex::file {

// What a quantity of the file is, with what a bare number there means.
struct Wanted {
  const char* what;  // "a length"
  Dimension dimension;
  const char* example;                        // "2.4 m"
  const char* unit_key = nullptr;             // the entry of `units` that settles a bare number
  std::optional<double> bare = std::nullopt;  // SI value of one bare unit, where settled
};

// A key of the contract, and whether it can be used yet.
struct Key {
  std::string_view name;
  bool built = true;
};
using Keys = std::vector<Key>;

class Reader {
 public:
  Reader(std::shared_ptr<const Tree> tree, std::string file);
  Expected<Model, Problems> run();

 private:
  // Telling what is wrong.
  void fail(const Node& at, std::string text, std::size_t offset = 0);
  void not_built(const Node& at, std::string_view what);
  void unknown(const Node& at, std::string_view what, const std::vector<std::string>& known);

  // Shapes of nodes.
  bool is_map(const Node& n, std::string_view what);
  bool is_list(const Node& n, std::string_view what);
  bool is_text(const Node& n, std::string_view what);
  // Tells every key that is not of `keys`; false if one of them is not built yet.
  bool check_keys(const Node& map, std::string_view where, const Keys& keys);
  // The value of a key that must be there.
  const Node* need(const Node& map, std::string_view key, const Node& blame, std::string_view where);
  // One of a few words.
  std::optional<std::size_t> choice(const Node& n, std::string_view what, const std::vector<Key>& words);

  // Quantities (read_quantity.cpp).
  std::optional<Evaluated> formula(const Node& n, std::string_view what);
  std::optional<double> quantity(const Node& n, const Wanted& wanted);
  std::optional<double> convert(const Node& n, const Evaluated& e, const Wanted& wanted);
  // A place on a member: a length from its start, or a share where % is written.
  std::optional<double> position(const Node& n, double member_length);
  // A vector: a list of components, or a map of x y z up down.
  std::optional<Vector> vector(const Node& n, const Wanted& wanted);
  // The same for a load that changes from a first to a last value.
  std::optional<std::pair<Vector, Vector>> vector_pair(const Node& n, const Wanted& wanted);
  std::optional<std::pair<Vector, Vector>> directions(const Node& map, const Wanted& wanted, bool may_change);
  bool add_direction(Vector& v, std::string_view key, double value) const;

  // Units (read_units.cpp).
  void read_units(const Node& n);

  // The structure (read_structure.cpp).
  void read_top();
  void read_parameters(const Node& n);
  void read_analysis(const Node& n);
  void read_materials(const Node& n);
  void read_material(const Node& name, const Node& n);
  void read_points(const Node& n);
  void begin_structure(const Node& points);
  void read_members(const Node& n);
  void read_member(const Node& name, const Node& n);
  void read_supports(const Node& n);
  // What a name stands for; where it was found nothing is told, nor where it stands in the file but is broken.
  template <class Id, class Things>
  std::optional<Id> named(const Node& n, std::string_view what, std::optional<Id> found, const Things& things);
  std::optional<PointId> point_named(const Node& n);
  std::optional<MemberId> member_named(const Node& n);
  std::optional<Material> material_named(const Node& n);

  // Sections (read_sections.cpp).
  void read_sections(const Node& n);
  void read_designation(const Node& name, const Node& n);
  std::optional<Shape> read_shape(const Node& name, const Node& n);
  std::optional<Shape> read_outline(const Node& name, const Node& n);
  std::vector<Outline::Point> outline_points(const Node& n, std::string_view what);
  std::optional<Shape> read_properties(const Node& name, const Node& n);

  // Loads (read_loads.cpp).
  void read_loads(const Node& n);
  void read_load(LoadCase& loads, const Node& n);
  void read_point_load(LoadCase& loads, const Node& n);
  void read_member_load(LoadCase& loads, const Node& n);
  void read_line_load(LoadCase& loads, const Node& n, MemberId member);
  void read_gravity(LoadCase& loads, const Node& n);
  std::optional<Moment> moment(const Node& n);

  // The hand calculation (read_hand.cpp).
  void read_hand(const Node& n);
  std::optional<Expectation> read_expectation(const Node& n);
  HandFormula hand_formula(const Node& n, std::string_view what);

  std::shared_ptr<const Tree> tree_;
  std::string file_;
  Problems problems_;
  Definitions parameters_;
  ModelUnits print_;
  Wanted length_, force_, moment_, line_, stress_, dimension_, angle_, density_, acceleration_, number_, expansion_;
  std::optional<double> movement_bare_, mass_bare_;
  std::map<std::string, Material, std::less<>> materials_;
  Structure structure_ = Structure::plane("");
  // Keys that a misspelt one was meant to be: told once is enough.
  std::set<std::pair<const Node*, std::string>> misspelt_;
  // Names that stand in the file but could not be read: using them is no second mistake.
  std::map<std::string, bool, std::less<>> broken_;
  std::vector<std::vector<std::size_t>> load_entries_;
  HandCalculation hand_;
  std::vector<std::size_t> hand_entries_;
};

}  // namespace corvex::file
