// The equations of one state of the structure (which members that act one way only are slack), solved for some cases.
#pragma once

#include "solve/equilibrium.hpp"
#include "solve/reusable.hpp"

namespace corvex::solver {

class Equations {
 public:
  Equations(const Structure& structure, Analysis& analysis, Reusable& kept)
      : s_(structure), a_(analysis), kept_(kept), K_(kept.K), factor_(kept.factor) {}

  // Movements of these cases, which have the same elements, found anew. What each point needs then stands in `needs`.
  // Refused where the structure moves.
  Problems solve(const std::vector<std::size_t>& cases, std::vector<JointForces>& needs);

 private:
  const std::vector<Element>& elements() const;
  bool moving_ground() const;
  void start();
  void assemble();
  Problems factorise_and_solve(std::vector<JointForces>& need);
  Problems explain_singular();
  bool digits_stand(const std::vector<JointForces>& need, const Eigen::MatrixXd& lack) const;
  std::vector<JointForces> refine(Eigen::MatrixXd& lack);
  double largest_share(const Eigen::MatrixXd& step) const;
  bool errors_are_rounding(const Eigen::MatrixXd& lack) const;
  Eigen::MatrixXd residual(const std::vector<JointForces>& need) const;
  void move(const Eigen::MatrixXd& step);

  const Structure& s_;
  Analysis& a_;
  Reusable& kept_;
  LowerMatrix& K_;
  std::optional<Factor>& factor_;
  std::vector<std::size_t> cases_;
  // How much of the error one step of refinement leaves; where steps stop shrinking, by what they shrink and how large
  // they are beside the movements.
  double contraction_ = 0, stalled_contraction_ = 0, left_ = 0;
};

}  // namespace corvex::solver
