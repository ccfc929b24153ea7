// The readers of the parts of a model file. Each reads one key at the top of the file into the structure.
#pragma once

#include <deque>
#include <set>

#include "file/csv.hpp"
#include "file/directions.hpp"
#include "file/parameters.hpp"

namespace corvex::file {

// Context shared by all readers.
struct Context {
  const Tree& tree;
  Errors& errors;
  const Parameters& parameters;
  const WantedUnits& units;
  Quantities& quantities;
  NameTable& names;
  Directions& directions;
  Structure& structure;
};

class PartReader {
 protected:
  explicit PartReader(const Context& c)
      : tree_(&c.tree),
        errors_(c.errors),
        units_(c.units),
        quantities_(c.quantities),
        names_(c.names),
        directions_(c.directions),
        structure_(c.structure) {}

  const Tree* tree_;
  Errors& errors_;
  const WantedUnits& units_;
  Quantities& quantities_;
  NameTable& names_;
  Directions& directions_;
  Structure& structure_;
};

// Points and members from CSV tables of the model. Each row has its cells as nodes, in a fixed order of columns.
struct TablesBeside {
  using Rows = std::vector<std::vector<Node>>;
  Rows points, members;
  std::map<std::string, std::string> files;  // of "points" and "members"
  std::set<std::string> named;               // the same, whether they could be read or not
  // Where "point NAME" and "member NAME" stand.
  std::map<std::string, Place> places;
  // Text that the nodes refer to.
  std::deque<Table> texts;
  std::vector<SourceFile> sources;
};

// An entry of a list in the file may make none, one or several things: for each thing, its entry.
using Entries = std::vector<std::size_t>;

void read_units(const Tree& tree, Errors& errors, const Node& n, WantedUnits& units, ModelUnits& print);
// `folders`: further folders that may contain tables.
void read_tables(const Tree& tree, Errors& errors, const Node& n, const Overrides& overrides, TablesBeside& tables);
void read_analysis(const Context& c, const Node& n);
void read_materials(const Context& c, const Node& n);
void read_sections(const Context& c, const Node& n);
// `n` and `defaults` are null where the file does not have them.
void read_points(const Context& c, const Node* n, TablesBeside& tables);
void read_members(const Context& c, const Node* n, const Node* defaults, TablesBeside& tables);
void read_supports(const Context& c, const Node& n);
void read_masses(const Context& c, const Node& n);
void read_bracing(const Context& c, const Node& n);
// Entries of each load case.
std::vector<Entries> read_loads(const Context& c, const Node& n);
// `note` and `source` of each entry of each load case.
std::vector<std::vector<LoadRemark>> read_load_remarks(const Context& c, const Node& n);
void read_combinations(const Context& c, const Node& n);
Entries read_limits(const Context& c, const Node& n, Limits& limits);
// The name of a load case or combination; nothing, and an error, where there is none of that name.
std::optional<std::string> case_name(const Context& c, const Node& n);
void read_modes(const Context& c, const Node& n, ModesOptions& modes);
std::vector<std::string> read_assumptions(const Context& c, const Node& n);
void read_document_head(const Context& c, const Node& n, DocumentHead& head);
void read_accept(const Context& c, const Node& n, std::vector<Acceptance>& all);
void read_show(const Context& c, const Node& n, std::vector<ShownFigure>& show);
void read_sweeps(const Context& c, const Node& n, std::vector<Sweep>& sweeps);
void read_choose(const Context& c, const Node& n, std::vector<ChoiceGroup>& groups);
// The figure of a limit with `most` or `least`; nothing, and an error, where it is none.
std::optional<Figure> read_limited_figure(const Context& c, const Node& n);
Entries read_hand(const Context& c, const Node& n, HandCalculation& hand);

// The place of a section that loads act through.
std::optional<Through> read_through(const Context& c, const Node& n);

}  // namespace corvex::file
