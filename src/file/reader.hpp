// Reads the tree of a model file into a Structure.
#pragma once

#include <fmt/format.h>

#include <deque>
#include <map>
#include <optional>
#include <set>
#include <unordered_map>

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "file/csv.hpp"
#include "file/tree.hpp"

namespace corvex::file {

// What a quantity of the file is, with what a bare number there means.
struct Wanted {
  const char* what;  // "a length"
  Dimension dimension;
  const char* example;                        // "2.4 m"
  const char* unit_key = nullptr;             // the entry of `units` that settles a bare number
  std::optional<double> bare = std::nullopt;  // SI value of one bare unit, where settled
  const char* bare_refused = nullptr;         // why `units` does not settle it, where it seems to
};

// A key of the contract, and whether it can be used yet.
struct Key {
  std::string_view name;
  bool built = true;
};
using Keys = std::vector<Key>;

class Reader {
 public:
  Reader(std::shared_ptr<const Tree> tree, std::string file, Overrides overrides = {});
  Expected<Model, Problems> run();

 private:
  // Telling what is wrong.
  void fail(const Node& at, std::string text, std::size_t offset = 0);
  void warn(const Node& at, std::string text);
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
  std::optional<std::size_t> whole_number(const Node& n, std::string_view what);
  // A vector: a list of components, or a map of x y z up down.
  std::optional<Vector> vector(const Node& n, const Wanted& wanted);

  // A load's direction (read_direction.cpp): the same, or a size with an angle or toward a point; perhaps in the
  // member's own axes; perhaps changing from a first to a last value.
  struct Directed {
    Vector first, last;
    LoadAxes axes = LoadAxes::global;
  };
  struct DirectionRules {
    bool may_change = false;        // a first and a last value
    bool on_member = false;         // `axes: member` is possible
    std::optional<Vector> place{};  // where the load stands, for `toward`
  };
  std::optional<Directed> direction(const Node& n, const Wanted& wanted, const DirectionRules& rules);
  std::optional<Directed> direction_map(const Node& map, const Wanted& wanted, const DirectionRules& rules);
  std::optional<Directed> sized(const Node& map, const Wanted& wanted, const DirectionRules& rules, Directed d);
  std::optional<Vector> components(const Node& list, const Wanted& wanted);
  // One value, or a first and a last one.
  std::optional<std::pair<double, double>> values(const Node& n, const Wanted& wanted, bool may_change);
  bool add_direction(Vector& v, std::string_view key, double value) const;

  // Units (read_units.cpp).
  void read_units(const Node& n);

  using TableRows = std::vector<std::vector<Node>>;

  // The structure (read_structure.cpp).
  void read_top();
  void read_parameters(const Node& n);
  // As the file has it, or as it is overridden.
  std::string parameter_text(const Node& name, const Node& value) const;
  void read_analysis(const Node& n);
  void read_materials(const Node& n);
  void read_material(const Node& name, const Node& n);
  void begin_structure(const Node* points, const TableRows& table);
  void read_supports(const Node& n);
  std::optional<Support> read_support(const Node& name, const Node& n);
  void read_hold(const Node& n, Support& support);
  void read_springs(const Node& n, Support& support);
  void read_masses(const Node& n);
  // What a name stands for; where it was found nothing is told, nor where it stands in the file but is broken.
  template <class Id, class Things>
  std::optional<Id> named(const Node& n, std::string_view what, std::optional<Id> found, const Things& things);
  std::optional<PointId> point_named(const Node& n);
  std::optional<MemberId> member_named(const Node& n);
  std::optional<Material> material_named(const Node& n);
  std::optional<SectionId> section_named(const Node& n);
  // One name or that of a family, a list of them, or all.
  std::vector<PointId> points_named(const Node& n);
  std::vector<MemberId> members_named(const Node& n);
  template <class Id, class Families, class One>
  std::vector<Id> several(const Node& n, std::size_t count, const Families& families, const One& one);
  // Of the points that a key names: one, a family, or several with commas between: "A, E".
  std::vector<PointId> points_in_key(const Node& key);
  // Whether a name, or the family that it is of ("feet" of "feet.3"), stands in the file but could not be read.
  bool is_broken(std::string_view name) const;

  // Tables beside the file (read_tables.cpp).
  void read_tables(const Node& n);
  TableRows read_rows(const Node& n, std::string_view kind, const std::vector<std::vector<std::string>>& columns);
  std::string table_file(const std::string& kind) const { return table_files_.find(kind)->second; }
  // Problems meanwhile are of this table.
  template <class Read>
  auto in_table(const std::string& kind, const Read& read) {
    std::swap(file_, table_files_.find(kind)->second);
    auto result = read();
    std::swap(file_, table_files_.find(kind)->second);
    return result;
  }

  // Points (read_points.cpp).
  struct PointEntry {
    enum class State { unread, reading, done, broken };
    std::size_t index = 0;
    State state = State::unread;
    bool family = false;
    std::vector<std::string> base{}, made{};
    std::size_t step = 0;  // points in one copy
  };
  // `sequence` is the family with what it was repeated from in front: a copy moves on by `step` in it.
  struct PointFamily {
    std::vector<PointId> members, sequence;
    std::unordered_map<std::size_t, std::size_t> place;  // of a point in the sequence
    std::size_t step = 0;
  };
  void read_points(const Node* n, const TableRows& table);
  PointFamily family(const PointEntry& entry) const;
  const PointEntry* placed(const Node& points, std::string_view name);
  std::optional<Vector> place_named(const Node& points, const Node& n);
  std::vector<std::string> names_of(const Node& points, const Node& n);
  bool place(const Node& points, const Node& name, const Node& n, PointEntry& e);
  std::optional<Vector> point_from(const Node& points, const Node& name, const Node& n);
  std::optional<Vector> point_between(const Node& points, const Node& name, const Node& n);
  bool mirror(const Node& points, const Node& name, const Node& n, PointEntry& e);
  bool repeat(const Node& points, const Node& name, const Node& n, PointEntry& e);

  // Members (read_members.cpp).
  struct MemberEntry {
    enum class State { unread, reading, done, broken };
    std::size_t index = 0;
    State state = State::unread;
    bool family = false;
    std::vector<std::vector<PointId>> through{};
    MemberOptions options{};
  };
  void read_members(const Node* n, const TableRows& table);
  void read_member_row(const std::vector<Node>& row);
  const MemberEntry* described(const Node& members, std::string_view name);
  bool describe_member(const Node& members, const Node& name, const Node& n, MemberEntry& e);
  bool repeat_member(const Node& members, const Node& name, const Node& n, MemberEntry& e);
  bool read_options(const Node& name, const Node& n, MemberOptions& o);
  void read_defaults(const Node& n);
  // The value of a key of a member, or else of `defaults`.
  const Node* own_or_default(const Node& member, std::string_view key) const;
  bool read_end_releases(const Node& n, std::string_view end, std::vector<Component>& released);
  std::optional<MemberKind> kind_of_member(const Node& n);
  std::optional<std::vector<PointId>> through_points(const Node& n, std::string_view what);

  // Sections (read_sections.cpp).
  void read_sections(const Node& n);
  void read_designation(const Node& name, const Node& n);
  // A catalogue designation that stands where the name of a section is expected; it becomes a section of that name.
  std::optional<SectionId> designated(const Node& n);
  static bool is_designation(const Node& n);
  std::optional<Shape> read_shape(const Node& name, const Node& n);
  std::optional<Shape> read_outline(const Node& name, const Node& n);
  std::vector<Outline::Point> outline_points(const Node& n, std::string_view what);
  std::optional<Shape> read_properties(const Node& name, const Node& n);

  // Loads (read_loads.cpp).
  void read_loads(const Node& n);
  void read_load(LoadCase& loads, const Node& n);
  std::optional<Through> through(const Node& n);
  void read_point_load(LoadCase& loads, const Node& n);
  void read_member_load(LoadCase& loads, const Node& n);
  void read_line_load(LoadCase& loads, const Node& n, MemberId member);
  void read_place_load(LoadCase& loads, const Node& n, MemberId member);
  void read_spread(LoadCase& loads, const Node& n);
  void read_heat(LoadCase& loads, const Node& n);
  void read_shorten(LoadCase& loads, const Node& n);
  void read_settle(LoadCase& loads, const Node& n);
  void read_gravity(LoadCase& loads, const Node& n);
  // Combinations and limits (read_limits.cpp).
  void read_combinations(const Node& n);
  void read_limits(const Node& n);
  std::optional<Limit> read_limit(const Node& n);
  std::vector<std::string> case_names() const;
  bool is_case(std::string_view name) const;

  bool only_with(const Node& load, std::string_view kind, const std::vector<std::string_view>& keys);
  std::optional<Directed> load_direction(const Node& load, std::string_view key, const Wanted& wanted,
                                         DirectionRules rules);
  std::optional<Directed> moment(const Node& load, const DirectionRules& rules);

  // The hand calculation (read_hand.cpp).
  void read_hand(const Node& n);
  std::optional<Expectation> read_expectation(const Node& n);
  HandFormula hand_formula(const Node& n, std::string_view what);

  std::shared_ptr<const Tree> tree_;
  std::string file_;
  Problems problems_, notes_;
  Overrides overrides_;
  Definitions parameters_;
  ModelUnits print_;
  Wanted length_, force_, moment_, line_, stress_, dimension_, angle_, density_, acceleration_, number_, expansion_,
      temperature_, mass_, spring_, turning_spring_;
  // `section_unit_`: named under units, of which bare areas and moments of sections are powers.
  std::optional<double> movement_bare_, mass_bare_, section_unit_;
  std::map<std::string, Material, std::less<>> materials_;
  Structure structure_ = Structure::plane("");
  const Node* defaults_ = nullptr;  // of members
  bool defaults_broken_ = false;
  // Keys that a misspelt one was meant to be: told once is enough.
  std::set<std::pair<const Node*, std::string>> misspelt_;
  // Names that stand in the file but could not be read: using them is no second mistake.
  std::map<std::string, bool, std::less<>> broken_;
  std::map<std::string_view, PointEntry> point_entries_;
  std::map<std::string, Vector, std::less<>> places_;  // of points
  std::map<std::string_view, MemberEntry> member_entries_;
  std::map<std::string, PointFamily, std::less<>> point_families_;
  std::map<std::string, std::vector<MemberId>, std::less<>> member_families_;
  // Of each table: its file, and the cells that nodes look into.
  std::map<std::string, std::string> table_files_;
  std::deque<Table> tables_;
  std::map<std::string, TableRows> table_rows_;
  std::map<std::string, Place> table_places_;
  std::vector<std::vector<std::size_t>> load_entries_;
  Limits limits_;
  std::vector<std::size_t> limit_entries_;
  HandCalculation hand_;
  std::vector<std::size_t> hand_entries_;
};

}  // namespace corvex::file
