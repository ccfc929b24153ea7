// Products of matrices of any size. Eigen compiles each combination of operands anew, which takes longer than all the
// rest of a source; these are compiled once.
#pragma once

#include <Eigen/Core>

namespace corvex::algebra {

// A matrix, a vector, or a block of either, without a copy.
using MatrixView = Eigen::Ref<const Eigen::MatrixXd>;

Eigen::MatrixXd times(const MatrixView& A, const MatrixView& B);             // A B
Eigen::MatrixXd transposed_times(const MatrixView& A, const MatrixView& B);  // Aᵀ B
Eigen::MatrixXd times_transposed(const MatrixView& A, const MatrixView& B);  // A Bᵀ
void add_times(Eigen::Ref<Eigen::MatrixXd> to, const MatrixView& A, const MatrixView& B, double factor = 1);
// A stiffness or mass K for movements that are T times others.
Eigen::MatrixXd turned(const MatrixView& K, const MatrixView& T);                              // Tᵀ K T
Eigen::MatrixXd turned(const MatrixView& left, const MatrixView& K, const MatrixView& right);  // leftᵀ K right
// The scalar products of the columns of A with those of B, each row with a weight.
Eigen::MatrixXd weighted_products(const MatrixView& A, const Eigen::VectorXd& weight, const MatrixView& B);

}  // namespace corvex::algebra
