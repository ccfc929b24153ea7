// S z = θ A z for a whole structure, with the inner degrees of freedom of each span replaced by two things: how they
// follow the points with no force on them, and the modes of the span between points that are at rest. In these A does
// not join the points and the modes, and is the unit matrix in the latter (Craig and Bampton, AIAA Journal 6, 1968,
// with all modes kept, so that nothing is left out).
#pragma once

#include "modes/lanczos.hpp"
#include "modes/pencil.hpp"

namespace corvex::solver {

class ReducedPencil {
 public:
  // A and S as shares of the matrices of `pencil`.
  ReducedPencil(const Pencil& pencil, const Shares& a, const Shares& s);

  // A is positive definite; else nothing below may be called.
  bool ok() const { return ok_; }
  // A could be factorised; and the number of negative eigenvalues of A.
  bool is_factorised() const { return factor_.ok(); }
  Eigen::Index negative() const { return factor_.negative(); }

  // Movements of the points, then amounts of the modes; worked on in blocks of so many vectors.
  EigenProblem problem(Eigen::Index block) const;
  // The movements of the pencil, of each column.
  Eigen::MatrixXd whole(const Eigen::MatrixXd& reduced) const;

 private:
  // Spans that are alike are worked on together.
  struct Group {
    Eigen::MatrixXd points, beside;   // S of the points, and of the modes (rows) with the points
    Eigen::VectorXd modes;            // S of the modes
    Eigen::MatrixXd follows, shapes;  // inner degrees of freedom for displacements of the points, and of the modes
    Eigen::Index outer = 0;           // degrees of freedom of the points of a span
    // Of those the ones that are free in any span: matrices have these alone.
    std::vector<Eigen::Index> live{};
    std::vector<std::size_t> blocks{};
    Eigen::Index first = 0;  // of its modes in the whole, span by span
  };
  bool reduce(Group& group, const Shares& a, const Shares& s) const;
  Eigen::MatrixXd gathered(const Group& group, const double* points) const;
  Eigen::MatrixXd other(const Eigen::MatrixXd& x) const;

  const Pencil& pencil_;
  ShiftedPencil factor_;
  std::vector<Group> groups_;
  bool ok_ = false;
};

}  // namespace corvex::solver
