// The yardsticks: the same matrix through the same solver with nothing around it, and through CHOLMOD's supernodal
// factorisation (GPL: here only, never in the library).
#pragma once

#include <Eigen/Core>
#include <memory>

#include "linear_system/matrix.hpp"

namespace bench {

struct Stages {
  double analyse = 0, factorise = 0, solve = 0;  // s
  double all() const { return analyse + factorise + solve; }
};

// One solver on one matrix; the right-hand sides are replaced by the solution.
class Bare {
 public:
  virtual ~Bare() = default;
  virtual void analyse() = 0;
  virtual void factorise() = 0;
  virtual void solve(Eigen::MatrixXd& block) = 0;
};

// MUMPS as its manual advises for positive definite matrices, with an order of its own (METIS on the degrees of
// freedom).
std::unique_ptr<Bare> mumps(const corvex::solver::LowerMatrix& K);
std::unique_ptr<Bare> cholmod(const corvex::solver::LowerMatrix& K);
// What the library takes for small matrices: Eigen's dense LLT, or its simplicial LDLT with AMD.
std::unique_ptr<Bare> eigen_dense(const corvex::solver::LowerMatrix& K);
std::unique_ptr<Bare> eigen_simplicial(const corvex::solver::LowerMatrix& K);

Stages run(Bare& bare, Eigen::MatrixXd& block);
double now();

}  // namespace bench
