// From a description to movements and reactions.
#pragma once

#include "analysis/case_state.hpp"

namespace corvex::solver {

// Load cases first, then combinations.
struct Analysis {
  System system;
  std::vector<Acting> acting;
  std::vector<CaseState> states;
  Problems notes;

  // The loads of each combination as those of one case, then of the other directions of an imperfection.
  std::vector<LoadCase> combined;
  // Of each state its direction of an imperfection without a given one ("sway -x"; empty without), and the case of
  // which it is. Of a case the direction with the largest displacement is at its own place, the others after all cases.
  std::vector<std::string> direction;
  std::vector<std::size_t> base;

  const LoadCase& load_case(const Structure& structure, std::size_t c) const {
    const std::size_t n = structure.load_cases().size();
    return c < n ? structure.load_cases()[c] : combined[c - n];
  }
  // The loads at the places where they act on the displaced structure.
  Resultant applied(std::size_t load_case) const {
    Resultant r = acting[load_case].applied;
    if (const auto& bent = states[load_case].bent) r.moment += bent->displaced;
    return r;
  }
  const Element& element(std::size_t load_case, std::size_t span) const {
    return states[load_case].elements ? (*states[load_case].elements)[span] : system.elements[span];
  }
};

// Refuses, with the reasons, what cannot be solved. Uses what an earlier call left in `reusable`, where it fits.
Expected<Analysis, Problems> analyse(const Structure& structure, Reusable& reusable);

}  // namespace corvex::solver
