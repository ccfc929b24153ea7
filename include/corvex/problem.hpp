// Corvex: what is wrong with a structure, as a value that carries where it is.
//
// `subject` names the part of the structure; `place` the line of the model file, filled in by the reader when
// the structure came from a file. Nothing that a model contains makes the library throw.
//
//     const corvex::Problem p = corvex::problem_at({"trestle.yaml", 12, 7}, "a wall was expected");
//     fmt::print("{}\n", describe(p));   // trestle.yaml:12:7: error: a wall was expected
#pragma once

#include <string>
#include <vector>

#pragma GCC visibility push(default)

namespace corvex {

struct Place {
  std::string file;
  int line = 0;    // from 1; 0: not from a file
  int column = 0;  // from 1, in characters
};

struct Subject {
  enum class Kind {
    structure,
    point,
    member,
    section,
    material,
    support,
    mass,
    load_case,
    combination,
    load,
    limit,
    hand_value,
    expectation,
    parameter,
    acceptance,
    bracing
  };
  Kind kind = Kind::structure;
  std::string name;       // of the point, member, …; of the load case, for a load
  std::size_t entry = 0;  // which load of the case, which expectation; from 0
};

struct Problem {
  enum class Severity { error, warning, note };
  std::string text;
  Subject subject{};
  std::string key{};  // the part of the subject that is wrong, by its key in the model file: "wall", "through", …
  Place place{};
  Severity severity = Severity::error;
  std::size_t offset = 0;  // in the text of the key, where that is a formula

  // For a finding (findings.hpp): its identifier, further objects that it concerns, the remedy, and the reason for
  // which it was accepted.
  std::string finding{};
  std::vector<Subject> others{};
  std::string remedy{};
  std::string because{};

  bool is_accepted() const { return !because.empty(); }
};

using Problems = std::vector<Problem>;

// The same problem as a finding with this identifier.
Problem as_finding(const char* identifier, Problem problem);

// An error of the structure as a whole, at a place of a file.
Problem problem_at(Place place, std::string text);

// "model.yaml:12:7: error: …", or without a file "member rail: error: …"; a finding ends with its identifier in
// brackets.
std::string describe(const Problem& problem);

}  // namespace corvex

#pragma GCC visibility pop
