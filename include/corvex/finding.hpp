// Corvex: kinds of findings, acceptances of findings; sums of loads and the list of parts of a description.
//
//     for (const corvex::LoadTotal& t : corvex::load_totals(trestle))
//       fmt::print("{}: {} N along y\n", t.load_case, t.force.y.si());   // product: -5120 N along y
//
// Threads: every function may be called from several threads at once.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/problem.hpp"
#include "corvex/structure.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct FindingKind {
  const char* name;  // "unjoined-point"
  Problem::Severity severity;
  bool of_results;      // found by `assess`, not by `inspect`
  const char* meaning;  // a short sentence
};
// In the order in which docs/findings.md lists them.
const std::vector<FindingKind>& finding_kinds();

// The resultant of all loads of a case about the global origin, weight included.
struct LoadTotal {
  std::string load_case;
  std::size_t loads = 0;
  Force force;
  Moment moment;
  // A point of the resultant's line of action, the one nearest to the origin; nothing without a resultant force. In
  // space a moment about that line may remain.
  std::optional<Vector> through;
};

// Of each load case; empty where `validate` finds errors.
std::vector<LoadTotal> load_totals(const Structure& structure);

// Members of one section and material, with their lengths between the ends of their axes.
struct PartsOfOneKind {
  std::string section, material;
  std::size_t pieces = 0;
  Length length;
  std::optional<Mass> mass;  // nothing where the material has no density
};
// Empty where `validate` finds errors.
std::vector<PartsOfOneKind> bill_of_materials(const Structure& structure);

// An accepted finding: intended by the author of the model.
struct Acceptance {
  std::string finding;          // its identifier
  std::vector<std::string> on;  // objects that it must be about; all findings of that kind if empty
  std::string because;
};
// Enters the reasons, and adds a warning for each acceptance that matches nothing. `results`: whether findings of
// results are among them; without, acceptances of those are not looked at.
void accept(Problems& findings, const std::vector<Acceptance>& acceptances, bool results);

// Whether an error or a warning stands that was not accepted.
bool asks_for_attention(const Problems& findings);

// Errors and warnings that were not accepted, without those that repeat the verdicts of limits and hand values.
Problems warnings_of(const Problems& findings);

// The objects by their names, the subject first.
std::vector<std::string> objects_of(const Problem& finding);

}  // namespace corvex

#pragma GCC visibility pop
