// Equilibrium of all joints as equations of the unknown forces: how many there are, whether they suffice, which of them
// the force method takes as redundant, and the forces of any state. No stiffness occurs.
#pragma once

#include <memory>
#include <optional>

#include "corvex/derive.hpp"
#include "hand/skeleton.hpp"

namespace corvex::hand {

// A reaction, or an internal force at the start of a piece.
struct Unknown {
  bool reaction = false;
  std::size_t index = 0;  // of the hold or piece
  std::size_t component = 0;
};

// All forces of a structure in one state.
struct State {
  std::vector<double> reaction{};  // of each hold
  std::vector<Forces> start{};     // of each piece
  std::vector<PieceCourse> course{};
};

class Statics {
 public:
  // `slack`: pieces that do not act. The reason where something can move: which joint.
  static Expected<Statics, Problem> of(std::shared_ptr<const Skeleton> skeleton, const std::vector<bool>& slack);

  const StaticCount& count() const { return count_; }
  const std::vector<Unknown>& redundants() const { return redundants_; }
  bool is_slack(std::size_t piece) const { return slack_[piece]; }

  // The state with these values of the redundants, all 0 if empty; nothing where a moment acts on a joint that is free
  // to turn.
  std::optional<State> state(const Acting& acting, const std::vector<double>& redundants) const;

 private:
  struct Equations;
  Statics(std::shared_ptr<const Skeleton> skeleton, const std::vector<bool>& slack)
      : k_(std::move(skeleton)), slack_(slack) {}

  std::shared_ptr<const Skeleton> k_;
  std::vector<bool> slack_;
  StaticCount count_;
  std::vector<Unknown> unknowns_, redundants_;
  std::shared_ptr<const Equations> equations_;
};

}  // namespace corvex::hand
