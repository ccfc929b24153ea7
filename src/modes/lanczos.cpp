#include "modes/lanczos.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "algebra/dense.hpp"
#include "algebra/products.hpp"
#include "corvex/stop.hpp"
#include "linear_system/factor.hpp"

namespace corvex::solver {

using namespace algebra;

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

namespace {

// Long vectors are gone through piece by piece, so that a piece of all of them is read from memory once for the columns
// of a block.
using Part = Eigen::Ref<const MatrixXd>;
constexpr Index piece = 1024;

// share += aᵀ x
void add_products(const Part& a, const Part& x, MatrixXd& share) {
  for (Index from = 0; from < a.rows(); from += piece) {
    const Index rows = std::min(piece, a.rows() - from);
    for (Index j = 0; j < x.cols(); ++j)
      share.col(j).noalias() += a.middleRows(from, rows).transpose() * x.col(j).segment(from, rows);
  }
}

// x −= a share
void take_out(const Part& a, const MatrixXd& share, MatrixXd& x) {
  for (Index from = 0; from < a.rows(); from += piece) {
    const Index rows = std::min(piece, a.rows() - from);
    for (Index j = 0; j < x.cols(); ++j)
      x.col(j).segment(from, rows).noalias() -= a.middleRows(from, rows) * share.col(j);
  }
}

}  // namespace

Lanczos::Lanczos(const EigenProblem& problem, const std::vector<EigenPair>& known)
    : p_(problem), known_(static_cast<Index>(known.size())), size_(known_), done_(known_) {
  block_ = std::min(p_.block, p_.size - known_);
  const Index block = block_;
  if (block <= 0) return;
  reserve(known_ + 8 * block);
  for (Index i = 0; i < known_; ++i) {
    v_.col(i) = known[static_cast<std::size_t>(i)].vector;
    energy_.col(i) = known[static_cast<std::size_t>(i)].energy;
  }
  // A start in the range of A⁻¹ S: other directions have the value 0.
  MatrixXd start(p_.size, block);
  for (Index j = 0; j < block; ++j) start.col(j) = every_direction(p_.size, static_cast<std::uint64_t>(known_ + j));
  MatrixXd x = p_.other(start), energy = x.topRows(p_.outer);
  x.topRows(p_.outer) = p_.solve(energy);
  MatrixXd shares = MatrixXd::Zero(size_, block);
  for (int twice = 0; twice < 2; ++twice) clean(x, energy, 0, shares);
  add(std::move(x), std::move(energy), -1, block);
}

void Lanczos::reserve(Index columns) {
  const Index there = v_.cols();
  if (columns <= there) return;
  const Index now = std::max(columns, 2 * there);
  v_.conservativeResize(p_.size, now), energy_.conservativeResize(p_.outer, now);
  h_.conservativeResize(now, now);
  h_.rightCols(now - there).setZero(), h_.bottomRows(now - there).setZero();
}

// Takes out of x what the vectors from `first` on have of it; their shares are added to `shares`.
void Lanczos::clean(MatrixXd& x, MatrixXd& energy, Index first, MatrixXd& shares) const {
  const Index n = size_ - first, inner = p_.size - p_.outer;
  if (n <= 0) return;
  const auto v = v_.middleCols(first, n), of_v = energy_.middleCols(first, n);
  MatrixXd share = MatrixXd::Zero(n, x.cols());
  add_products(of_v, x.topRows(p_.outer), share);
  add_products(v.bottomRows(inner), x.bottomRows(inner), share);
  take_out(v, share, x);
  take_out(of_v, share, energy);
  shares.bottomRows(n) += share;
}

// Adds the columns of x at energy 1, each cleaned of those before it. What is only rounding is left out. The columns
// are those of A⁻¹ S times the vectors from `from` on, or a start.
void Lanczos::add(MatrixXd x, MatrixXd energy, Index from, Index columns) {
  constexpr double negligible = 1e-14;
  const Index inner = p_.size - p_.outer, first = size_;
  reserve(size_ + columns);
  for (Index j = 0; j < columns; ++j) {
    auto own = x.col(j);
    auto of_own = energy.col(j);
    for (int twice = 0; twice < 2; ++twice)
      for (Index i = first; i < size_; ++i) {
        const double share = energy_.col(i).dot(own.head(p_.outer)) + v_.col(i).tail(inner).dot(own.tail(inner));
        own -= share * v_.col(i), of_own -= share * energy_.col(i);
        if (from >= 0) h_(i, from + j) += share;
      }
    const double size = std::sqrt(std::max(0.0, of_own.dot(own.head(p_.outer)) + own.tail(inner).squaredNorm()));
    if (!(size > negligible * largest_)) continue;
    v_.col(size_) = own / size, energy_.col(size_) = of_own / size;
    if (from >= 0) h_(size_, from + j) = size;
    ++size_;
  }
}

// A⁻¹ S for the vectors that it has not been applied to.
void Lanczos::advance() {
  const Index from = done_, columns = size_ - done_;
  MatrixXd x = p_.other(v_.middleCols(from, columns)), energy = x.topRows(p_.outer);
  x.topRows(p_.outer) = p_.solve(energy);
  // But for rounding the last two blocks have all of it. The others are cleaned of it once more, for rounding.
  MatrixXd shares = MatrixXd::Zero(size_, columns);
  clean(x, energy, std::max(known_, from - block_), shares);
  clean(x, energy, 0, shares);
  h_.block(0, from, size_, columns) = shares;
  for (Index j = 0; j < columns; ++j) largest_ = std::max(largest_, std::abs(shares(from + j, j)));
  done_ = size_;
  add(std::move(x), std::move(energy), from, columns);
}

void Lanczos::compute() {
  const Index n = done_ - known_;
  if (ritz_vectors_.cols() == n) return;
  const MatrixXd h = h_.block(known_, known_, n, n);
  Eigensystem solved = symmetric_eigensystem((h + h.transpose()) / 2);
  ritz_values_ = std::move(solved.values), ritz_vectors_ = std::move(solved.vectors);
}

// The i-th largest is off by no more than what its vector has in directions beyond.
bool Lanczos::settled(Index i, double close) const {
  constexpr double rounding = 1e-14;
  const Index beyond = size_ - done_, n = done_ - known_;
  if (beyond == 0) return true;
  const double off = times(h_.block(done_, known_, beyond, n), ritz_vectors_.col(column(i))).norm();
  return off <= close * std::abs(ritz_values_(column(i))) + rounding * std::abs(ritz_values_(column(0)));
}

void Lanczos::run(const Wanted& wanted) {
  const auto count = static_cast<Index>(wanted.count);
  const Index most = std::min(p_.size - known_, 20 * count + 300), patience = 3 * count + 20;
  Index look = std::max(count + 2, done_ - known_);
  for (;;) {
    stop_point();
    const bool last = size_ == done_ || done_ - known_ >= most;
    const Index n = done_ - known_;
    if (n == 0 && last) return;
    if (n > 0 && (last || n >= look)) {
      look = n + std::max<Index>(6, n / 4);
      compute();
      Index above = 0;
      while (above < std::min(count, n) && ritz_values_(column(above)) > wanted.least) ++above;
      settled_ = 0;
      while (settled_ < above && settled(settled_, wanted.close)) ++settled_;
      // Fewer than wanted may lie above the bound, which takes some steps to believe.
      if (last || (settled_ == above && (above == count || n > patience))) return;
    }
    advance();
  }
}

std::vector<EigenPair> Lanczos::pairs() const {
  std::vector<EigenPair> found;
  if (settled_ == 0) return found;
  const Index n = ritz_vectors_.cols();
  const MatrixXd shares = ritz_vectors_.rightCols(settled_).rowwise().reverse();
  const MatrixXd v = times(v_.middleCols(known_, n), shares), energy = times(energy_.middleCols(known_, n), shares);
  for (Index i = 0; i < settled_; ++i) found.push_back({ritz_values_(column(i)), v.col(i), energy.col(i)});
  return found;
}

double Lanczos::last_value() const {
  return settled_ > 0 ? ritz_values_(column(settled_ - 1)) : 0;
}

}  // namespace corvex::solver
