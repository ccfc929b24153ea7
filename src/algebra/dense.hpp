// Decompositions of small dense matrices. They are in one file because Eigen's templates take long to compile.
#pragma once

#include <Eigen/Core>
#include <memory>
#include <vector>

namespace corvex::algebra {

struct Eigensystem {
  Eigen::VectorXd values;   // ascending
  Eigen::MatrixXd vectors;  // their columns
};

// A x = λ x of a symmetric matrix.
Eigensystem symmetric_eigensystem(const Eigen::MatrixXd& A);
// A x = λ B x of symmetric matrices, B positive definite. The columns x are scaled to xᵀ B x = 1.
Eigensystem generalized_eigensystem(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B);
// An orthonormal basis of the columns of A, without directions whose singular value is at most `least`, which is no
// less than a millionth of the largest one.
Eigen::MatrixXd column_space(const Eigen::MatrixXd& A, double least);
// The real ones of a square matrix with zeros below the diagonal that follows the main one (Hessenberg's form).
std::vector<double> real_eigenvalues_of_hessenberg(const Eigen::MatrixXd& H);
Eigen::MatrixXd inverse(const Eigen::MatrixXd& A);
// The number of independent columns; pivots below `threshold` times the largest one count as zero.
Eigen::Index rank(const Eigen::MatrixXd& A, double threshold);

// A with its columns in another order is Q R, Q orthogonal, R upper triangular: each next column is the one of which
// most is left across those before it (Golub and Van Loan, Matrix Computations, ch. 5.4).
class PivotedQr {
 public:
  explicit PivotedQr(const Eigen::MatrixXd& A);

  // The number of independent columns; pivots below `threshold` times the largest one count as zero.
  Eigen::Index rank(double threshold) const;
  // Column of A that comes at place i of the new order, and what is left of it there.
  Eigen::Index column(Eigen::Index i) const;
  double pivot(Eigen::Index i) const;
  // An orthonormal basis of what stands across the first `rank` columns of the new order.
  Eigen::MatrixXd across(Eigen::Index rank) const;
  // The x for which A x comes nearest to b; 0 for columns that depend on others.
  Eigen::VectorXd nearest(const Eigen::VectorXd& b) const;

 private:
  struct Factors;
  std::shared_ptr<const Factors> factors_;
};

// The x of A x = b, A symmetric without negative eigenvalues and given row by row: Cholesky's method with the largest
// pivot first (Higham, Accuracy and Stability of Numerical Algorithms, ch. 10.3). What has no pivot left is zero.
std::vector<long double> semidefinite_solution(std::vector<long double> A, std::vector<long double> b);

}  // namespace corvex::algebra
