// The force method (Timoshenko and Young, Theory of Structures, ch. 7; Müller-Breslau): the primary structure under the
// loads and under each redundant, the equations of their displacements, and their sum. One-way members
// are taken out until every sign is right.
#pragma once

#include "hand/virtual_work.hpp"

namespace corvex::hand {

// Beyond which a derivation is too long to be read.
inline constexpr std::size_t most_unknowns = 900;

struct ForceMethod {
  std::shared_ptr<const Skeleton> shape{};
  Acting acting{};
  Acting nothing{};
  std::optional<Statics> statics{};
  State primary{};                                          // under the loads
  std::vector<State> unit{};                                // under each redundant alone, 1 N or 1 N·m
  std::vector<std::vector<std::vector<WorkTerm>>> terms{};  // δ_ik for i ≤ k
  std::vector<std::vector<WorkTerm>> load_terms{};          // δ_i0
  std::vector<double> redundants{};
  State final{};

  // How much longer the distance between the ends of a slack piece grew than the piece itself: below zero it hangs
  // loose (of a prop: above zero).
  struct Slack {
    std::size_t piece = 0;
    double gap = 0;
  };
  std::vector<Slack> slack{};

  const Skeleton& skeleton() const { return *shape; }
  const Unknown& redundant(std::size_t i) const { return statics->redundants()[i]; }
  // The displacement that a virtual load does work on: its state on the primary structure, and the terms.
  std::pair<State, std::vector<WorkTerm>> displacement(const Acting& virtual_load) const;
};

// Whether there are at most so many redundants is asked before anything long is done.
Expected<ForceMethod, Problem> force_method(const Structure& structure, const LoadCase& loads,
                                            std::size_t most_redundants);

}  // namespace corvex::hand
