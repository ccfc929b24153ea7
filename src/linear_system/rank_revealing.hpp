// A sparse LDLᵀ factorisation that finds the degrees of freedom without stiffness.
//
// Row by row along the elimination tree (Davis, Direct Methods for Sparse Linear Systems, ch. 4.8; the same with D kept
// apart), in the order given and without pivoting, which positive semidefinite matrices do not need. It has no state
// except its own and calls nothing else, so that any number of threads may use one each.
#pragma once

#include "linear_system/factor.hpp"

namespace corvex::solver {

class RankRevealing : public Backend {
 public:
  // `detected`: a degree of freedom whose pivot is weak is listed and left out, as if restrained. `tolerant`: only a
  // pivot of zero stops the factorisation.
  explicit RankRevealing(Pivots pivots) : detect_(pivots == Pivots::detected) {}

  void analyse(const LowerMatrix& pattern) override;
  bool factorise(const LowerMatrix& scaled) override;
  std::vector<int> weak() const override { return weak_; }
  int negative() const override;
  void solve(Eigen::MatrixXd& block) override;

 private:
  // The columns of row k of L, each before those that depend on it. `mark_` and `parent_` are those of the pattern.
  void reach(int k, std::vector<int>& columns);

  bool detect_;
  std::vector<int> row_first_, row_column_, row_place_;  // the matrix by rows, below the diagonal
  std::vector<int> parent_, mark_;
  std::vector<int> first_, end_, row_;  // L by columns; its diagonal of ones is left out
  std::vector<double> value_, pivot_;
  std::vector<int> weak_;
};

}  // namespace corvex::solver
