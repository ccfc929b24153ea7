// Decompositions of sparse matrices that factor.hpp does not cover: those without symmetry. They are in one file
// because Eigen's templates take long to compile.
#pragma once

#include <Eigen/SparseCore>
#include <optional>

namespace corvex::solver {

// K x = f of any square matrix; nothing where K is singular.
std::optional<Eigen::VectorXd> sparse_solution(const Eigen::SparseMatrix<double>& K, const Eigen::VectorXd& f);
// Whether K and its transpose together have positive eigenvalues only.
bool is_positive_definite(const Eigen::SparseMatrix<double>& K);

}  // namespace corvex::solver
