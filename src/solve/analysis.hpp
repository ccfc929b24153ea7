// From a description to movements and reactions.
#pragma once

#include <array>

#include "corvex/expected.hpp"
#include "solve/element.hpp"
#include "solve/freedoms.hpp"
#include "solve/span_load.hpp"

namespace corvex::solver {

struct CaseAnalysis {
  SpanLoads loads;
  std::vector<Movement> movement;  // of each point
  std::vector<Six> ground;         // how each support moves by itself; empty where none does
  std::vector<Six> reaction;       // of each support, as given to the structure; global axes
  Resultant applied;
  double error = 0;    // of its movements, as a share of the largest
  double largest = 0;  // of the forces and moments that meet at points: rounding is small beside it
  // What loads, heat, lack of fit and settlements would bring if everything resisted them: forces below 1e-13 of it,
  // and movements below what such forces do to the stiffest span, are rounding. In a combination the sum over its
  // terms.
  double gross = 0, still = 0;
  double moved = 0;  // the largest movement of a point
  // Supports settle or members grow, but nothing resists: all forces are rounding.
  bool forceless = false;
  // Of each span, where members that act one way only are slack in this case; else those of the analysis count.
  std::shared_ptr<const std::vector<Element>> elements;
};

// Load cases first, then combinations.
struct Analysis {
  Spans spans;
  Freedoms freedoms;
  std::vector<Element> elements;  // of each span
  std::vector<CaseAnalysis> cases;
  Problems notes;

  // The loads of each combination as those of one case.
  std::vector<LoadCase> combined;

  const LoadCase& loads(const Structure& structure, std::size_t c) const {
    const std::size_t n = structure.load_cases().size();
    return c < n ? structure.load_cases()[c] : combined[c - n];
  }
  const Element& element(std::size_t load_case, std::size_t span) const {
    return cases[load_case].elements ? (*cases[load_case].elements)[span] : elements[span];
  }
};

struct Reusable;

// Refuses, with the reasons, what cannot be solved. Uses what an earlier call left in `kept`, where it fits.
Expected<Analysis, Problems> analyse(const Structure& structure, Reusable& kept);

}  // namespace corvex::solver
