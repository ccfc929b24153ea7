// Decompositions of small dense matrices. They stand in one file because Eigen's templates take long to compile.
#pragma once

#include <Eigen/Core>

namespace corvex::solver {

struct Eigensystem {
  Eigen::VectorXd values;   // ascending
  Eigen::MatrixXd vectors;  // their columns
};

// A x = λ x of a symmetric matrix.
Eigensystem symmetric_eigensystem(const Eigen::MatrixXd& A);
// A x = λ B x of symmetric matrices, B positive definite.
Eigensystem generalized_eigensystem(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B);
// An orthonormal basis of the columns of A, without directions whose singular value is at most `least`, which is no
// less than a millionth of the largest one.
Eigen::MatrixXd column_space(const Eigen::MatrixXd& A, double least);
// Of any square matrix; complex ones come in pairs.
Eigen::VectorXcd eigenvalues(const Eigen::MatrixXd& A);
// The x for which A x comes nearest to b.
Eigen::VectorXd least_squares(const Eigen::MatrixXd& A, const Eigen::VectorXd& b);
Eigen::MatrixXd inverse(const Eigen::MatrixXd& A);
// The number of independent columns; pivots below `threshold` times the largest one count as zero.
Eigen::Index rank(const Eigen::MatrixXd& A, double threshold);

}  // namespace corvex::solver
