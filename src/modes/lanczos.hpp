// The largest eigenvalues of A⁻¹ S in the energy of A, by Lanczos's method in blocks with full orthogonalisation
// (Parlett, The Symmetric Eigenvalue Problem, ch. 13; Golub and Van Loan, Matrix Computations, ch. 10). A is positive
// definite; of S nothing is asked but symmetry.
#pragma once

#include <Eigen/Core>
#include <functional>
#include <vector>

namespace corvex::solver {

// A is the unit matrix in all degrees of freedom but the first `outer` ones, and does not join the two.
struct EigenProblem {
  Eigen::Index size = 0, outer = 0;
  // So many vectors go together. Of eigenvalues that are there several times so many are found in one go.
  Eigen::Index block = 1;
  std::function<Eigen::MatrixXd(const Eigen::MatrixXd&)> solve;  // A⁻¹ F in the outer degrees of freedom
  std::function<Eigen::MatrixXd(const Eigen::MatrixXd&)> other;  // S X
};

struct EigenPair {
  double value = 0;
  Eigen::VectorXd vector;  // of energy 1
  Eigen::VectorXd energy;  // A times it, in the outer degrees of freedom
};

// The `count` largest that are above `least`.
struct Wanted {
  std::size_t count = 0;
  double least = 0;
  double close = 1e-9;  // the residual, as a share of the value; of the value it counts twice
};

class Lanczos {
 public:
  // Those in `known` are left out.
  Lanczos(const EigenProblem& problem, const std::vector<EigenPair>& known);

  // Goes on until those that are wanted have settled. May be asked again for more.
  void run(const Wanted& wanted);
  // Converged values, the largest first. There may be fewer than wanted. Several of the same value may be found fewer
  // times than they are there, which is for the caller to count.
  std::vector<EigenPair> pairs() const;
  // The value of the last of them; 0 without any.
  double last_value() const;

 private:
  bool settled(Eigen::Index i, double close) const;
  Eigen::Index column(Eigen::Index i) const { return ritz_vectors_.cols() - 1 - i; }
  void reserve(Eigen::Index columns);
  void clean(Eigen::MatrixXd& x, Eigen::MatrixXd& energy, Eigen::Index first, Eigen::MatrixXd& shares) const;
  void add(Eigen::MatrixXd x, Eigen::MatrixXd energy, Eigen::Index from, Eigen::Index columns);
  void advance();
  void compute();

  EigenProblem p_;
  Eigen::MatrixXd v_, energy_;  // the vectors, known ones first, and A times them in the outer degrees of freedom
  Eigen::MatrixXd h_;           // A⁻¹ S in them, but for the known ones
  Eigen::Index block_ = 0;
  Eigen::Index known_ = 0, size_ = 0, done_ = 0;  // vectors; and so many of them, S has been applied to
  double largest_ = 0;
  Eigen::VectorXd ritz_values_;
  Eigen::MatrixXd ritz_vectors_;
  Eigen::Index settled_ = 0;
};

}  // namespace corvex::solver
