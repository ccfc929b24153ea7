#include "solve/lanczos.hpp"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>

#include "solve/factor.hpp"

namespace corvex::solver {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

// Vectors of energy 1, with A times them beside.
class Basis {
 public:
  explicit Basis(const EigenProblem& p) : p_(p) {}

  // Takes out of x what the vectors have of it already, twice, for rounding.
  void clean(VectorXd& x) const {
    for (int twice = 0; twice < 2; ++twice)
      for (std::size_t i = 0; i < vectors.size(); ++i) x -= vectors[i] * energies[i].dot(x);
  }
  // Adds x at energy 1; its size before. Nothing is added where it has none.
  double add(VectorXd x, double negligible) {
    VectorXd energy = p_.energy(x);
    const double size = std::sqrt(std::max(0.0, x.dot(energy)));
    if (!(size > negligible)) return 0;
    vectors.push_back(std::move(x) / size);
    energies.push_back(std::move(energy) / size);
    return size;
  }

  std::vector<VectorXd> vectors, energies;

 private:
  const EigenProblem& p_;
};

// The tridiagonal matrix of the method, and what of its eigenvalues has settled.
class Ritz {
 public:
  void add(double diagonal, double beside) { diagonal_.push_back(diagonal), beside_.push_back(beside); }
  std::size_t size() const { return diagonal_.size(); }
  double largest_diagonal() const {
    double most = 0;
    for (const double d : diagonal_) most = std::max(most, std::abs(d));
    return most;
  }
  void compute() {
    const auto n = static_cast<Index>(size());
    MatrixXd t = MatrixXd::Zero(n, n);
    for (Index i = 0; i < n; ++i) {
      t(i, i) = diagonal_[static_cast<std::size_t>(i)];
      if (i + 1 < n) t(i, i + 1) = t(i + 1, i) = beside_[static_cast<std::size_t>(i)];
    }
    solved_.compute(t);
  }
  // The i-th largest, counted from 0, with its vector.
  double value(std::size_t i) const { return solved_.eigenvalues()(column(i)); }
  VectorXd vector(std::size_t i) const { return solved_.eigenvectors().col(column(i)); }
  // It is off by no more than what its vector has in the last direction; of the value that counts twice.
  bool settled(std::size_t i) const {
    constexpr double close = 1e-9, rounding = 1e-14;
    const double off = beside_.back() * std::abs(solved_.eigenvectors()(solved_.eigenvectors().rows() - 1, column(i)));
    return off <= close * std::abs(value(i)) + rounding * std::abs(value(0));
  }

 private:
  Index column(std::size_t i) const { return static_cast<Index>(size() - 1 - i); }

  std::vector<double> diagonal_, beside_;
  Eigen::SelfAdjointEigenSolver<MatrixXd> solved_;
};

}  // namespace

std::vector<EigenPair> largest_pairs(const EigenProblem& p, std::size_t count, double least,
                                     const std::vector<EigenPair>& known) {
  std::vector<EigenPair> found;
  if (p.size == 0 || count == 0) return found;
  Basis basis(p);
  for (const EigenPair& k : known) basis.add(k.vector, 0);
  const std::size_t locked = basis.vectors.size(), all = static_cast<std::size_t>(p.size);
  if (locked >= all) return found;
  // A start in the range of A⁻¹ S: other directions have the value 0.
  VectorXd x = p.solve(p.other(every_direction(p.size, locked)));
  basis.clean(x);
  if (basis.add(std::move(x), 0) == 0) return found;
  const std::size_t most = std::min(all - locked, 20 * count + 300), patience = 3 * count + 20;
  Ritz ritz;
  while (ritz.size() < most) {
    const VectorXd f = p.other(basis.vectors.back());
    const double diagonal = basis.vectors.back().dot(f);
    VectorXd next = p.solve(f);
    basis.clean(next);
    constexpr double negligible = 1e-14;
    const double size = basis.add(std::move(next), negligible * std::max(ritz.largest_diagonal(), std::abs(diagonal)));
    ritz.add(diagonal, size);
    const bool last = size == 0 || ritz.size() == most;
    if (!last && (ritz.size() < count + 2 || ritz.size() % 4 != 0)) continue;
    ritz.compute();
    std::size_t above = 0, settled = 0;
    while (above < std::min(count, ritz.size()) && ritz.value(above) > least) ++above;
    while (settled < above && (size == 0 || ritz.settled(settled))) ++settled;
    // Fewer than asked for may lie above the bound, which takes some steps to believe.
    const bool enough = settled == above && (above == count || ritz.size() > patience);
    if (!last && !enough) continue;
    for (std::size_t i = 0; i < settled; ++i) {
      const VectorXd share = ritz.vector(i);
      VectorXd v = VectorXd::Zero(p.size);
      for (Index j = 0; j < share.size(); ++j) v += basis.vectors[locked + static_cast<std::size_t>(j)] * share(j);
      found.push_back({ritz.value(i), std::move(v)});
    }
    break;
  }
  return found;
}

}  // namespace corvex::solver
