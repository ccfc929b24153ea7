// The equations of a structure, solved for some cases at a time.
#pragma once

#include "analysis/equilibrium.hpp"
#include "analysis/reusable.hpp"
#include "beam/bent_state.hpp"

namespace corvex::solver {

using Elements = std::shared_ptr<const std::vector<Element>>;

struct Solved {
  std::vector<Movement> movement;  // of each point
  double error = 0;                // of the movements, as a share of the largest
  JointForces need;                // of each point, for these movements
  Elements elements;               // null where they are those of the system
  // Of second order: equilibrium on the displaced structure.
  std::shared_ptr<const BentState> bent{};
};

class Equations {
 public:
  Equations(const Structure& structure, const System& system, Reusable& reusable)
      : structure_(structure), system_(system), reusable_(reusable), K_(reusable.K), factor_(reusable.factor) {}

  // Movements of these cases with these elements, or with those of the system where none are given. Refused where the
  // structure moves.
  Expected<std::vector<Solved>, Problems> solve(std::vector<LoadedCase> cases, Elements own = nullptr);

 private:
  // How much of the error one step of refinement leaves; where steps stop shrinking, by what they shrink and how large
  // they are relative to the displacements.
  struct Refinement {
    double contraction = 0, stalled_contraction = 0, left = 0;
  };

  void start(Block& block) const;
  Problems factorise_and_solve(Block& block, bool moving_ground, std::vector<JointForces>& need,
                               std::vector<double>& error);
  Problems explain_singular(const std::vector<Element>& elements);
  bool digits_stand(const Block& block, const std::vector<JointForces>& need, const Eigen::MatrixXd& lack) const;
  Refinement refine(Block& block, std::vector<JointForces>& need, Eigen::MatrixXd& lack) const;
  double largest_share(const Block& block, const Eigen::MatrixXd& step) const;
  bool errors_are_rounding(const Block& block, const Eigen::MatrixXd& lack) const;
  Eigen::MatrixXd residual(const std::vector<JointForces>& need) const;
  void move(Block& block, const Eigen::MatrixXd& step) const;

  const Structure& structure_;
  const System& system_;
  Reusable& reusable_;
  LowerMatrix& K_;
  std::optional<Factor>& factor_;
};

}  // namespace corvex::solver
