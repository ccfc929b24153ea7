// Free bodies: parts of a structure cut free, what acts on them, and their equations of equilibrium.
#pragma once

#include <optional>

#include "hand/force_method.hpp"
#include "hand/line.hpp"

namespace corvex::hand {

// The forces of a state as things that become known one after another: each reaction, and the internal forces at both
// ends of each piece. A force that is the same all along a piece is one thing.
class Ledger {
 public:
  // `per`: what the values of this state are divided by, the dimension of a unit load.
  Ledger(const ForceMethod& method, const Acting& acting, const State& state, const Dimension& per);

  std::size_t of_hold(std::size_t hold) const { return hold; }
  std::size_t of_end(std::size_t piece, std::size_t component, bool at_a) const;
  bool known(std::size_t key) const { return known_[key]; }
  void learn(std::size_t key) { known_[key] = true; }
  double value(std::size_t key) const { return values_[key]; }
  const std::string& name(std::size_t key) const { return names_[key]; }
  const Dimension& dimension(std::size_t key) const { return dimensions_[key]; }
  // Another name, as X1 has.
  void rename(std::size_t key, std::string name) { names_[key] = std::move(name); }
  // Whether the piece has this force at this end at all: released ends and bars without loads have none.
  bool exists(std::size_t key) const { return exists_[key]; }
  std::size_t size() const { return values_.size(); }
  bool is_bar(std::size_t key) const { return bars_[key]; }

  const Skeleton& skeleton() const { return k_; }
  const Acting& acting() const { return acting_; }
  const State& state() const { return state_; }
  const Dimension& per() const { return per_; }

 private:
  const Skeleton& k_;
  const Acting& acting_;
  const State& state_;
  Dimension per_;
  std::vector<bool> known_, exists_, bars_;
  std::vector<double> values_;
  std::vector<std::string> names_;
  std::vector<Dimension> dimensions_;
  std::vector<std::size_t> end_keys_;  // of piece, component, end
};

struct Body {
  std::string title{};  // "whole structure", "joint C"
  std::vector<std::size_t> joints{}, pieces{};
};
Body whole(const Skeleton& skeleton);
Body joint(const Skeleton& skeleton, std::size_t point);
Body piece_alone(const Skeleton& skeleton, std::size_t piece);
// Parts that remain rigid when all bars are cut and all hinged ends opened; none if that is the whole structure.
std::vector<Body> rigid_parts(const Skeleton& skeleton);
// One side of a cut through at most so many unknown bars, where there is one.
std::vector<Body> sections(const Ledger& ledger, std::size_t most_bars);

// A force or moment on a body: an entry of the ledger, or a load.
struct Action {
  std::optional<std::size_t> key{};
  Sum size{};                      // of a load: its parts
  Vector at{}, force{}, moment{};  // unit wrench
  std::string name{};
  // Direction of a member that is cut next to a joint of the body.
  Vector outward{};
};
std::vector<Action> forces_on(const Ledger& ledger, const Body& body);

// An equation of a body: forces along a direction, or moments about an axis.
struct Condition {
  bool moments = false;
  Vector direction{}, centre{};
  WorkedFormula words{};
};
std::vector<Condition> conditions(const Ledger& ledger, const Body& body, const std::vector<Action>& forces);

struct Term {
  const Action* force = nullptr;
  Sum factor{};
  double value = 0;  // of the factor
};
// The forces that have a share in it; those known to be zero are left out.
std::vector<Term> terms(const Ledger& ledger, const std::vector<Action>& forces, const Condition& condition);

// Data for its drawing.
FreeBody sketch(const Ledger& ledger, const Body& body, const std::vector<Action>& forces);

}  // namespace corvex::hand
