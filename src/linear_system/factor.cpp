#include "linear_system/factor.hpp"

#include <Eigen/Cholesky>
#include <Eigen/SparseCholesky>
#include <limits>

#include "linear_system/rank_revealing.hpp"

namespace corvex::solver {
namespace {

class Dense : public Backend {
 public:
  void analyse(const LowerMatrix&) override {}
  bool factorise(const LowerMatrix& m) override {
    Eigen::MatrixXd full = Eigen::MatrixXd::Zero(m.n, m.n);
    for (int j = 0; j < m.n; ++j)
      for (int k = m.first[j]; k < m.first[j + 1]; ++k) full(m.row[k], j) = m.value[k];
    llt_.compute(full);
    return llt_.info() == Eigen::Success;
  }
  std::vector<int> weak() const override {
    std::vector<int> w;
    for (int j = 0; j < static_cast<int>(llt_.matrixLLT().cols()); ++j)
      if (const double l = llt_.matrixLLT()(j, j); l * l < weak_pivot) w.push_back(j);
    return w;
  }
  void solve(Eigen::MatrixXd& block) override { llt_.solveInPlace(block); }

 private:
  Eigen::LLT<Eigen::MatrixXd> llt_;
};

class Simplicial : public Backend {
 public:
  void analyse(const LowerMatrix& m) override { ldlt_.analyzePattern(view(m)); }
  bool factorise(const LowerMatrix& m) override {
    ldlt_.factorize(view(m));
    return ldlt_.info() == Eigen::Success;
  }
  std::vector<int> weak() const override {
    std::vector<int> w;
    const Eigen::VectorXd d = ldlt_.vectorD();
    for (int j = 0; j < static_cast<int>(d.size()); ++j)
      if (d(j) < weak_pivot) w.push_back(j);
    return w;
  }
  void solve(Eigen::MatrixXd& block) override { block = ldlt_.solve(block).eval(); }

 private:
  using View = Eigen::Map<const Eigen::SparseMatrix<double>>;
  static View view(const LowerMatrix& m) {
    return {m.n, m.n, static_cast<Eigen::Index>(m.row.size()), m.first.data(), m.row.data(), m.value.data()};
  }
  Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower, Eigen::NaturalOrdering<int>> ldlt_;
};

std::unique_ptr<Backend> make(Method method) {
  switch (method) {
    case Method::dense: return std::make_unique<Dense>();
    case Method::simplicial: return std::make_unique<Simplicial>();
    case Method::multifrontal: return multifrontal(Pivots::trusted);
  }
  return nullptr;
}

// Small systems never reach MUMPS: it keeps state for the whole process.
std::unique_ptr<Backend> careful(const LowerMatrix& K, Pivots pivots) {
  constexpr int small = 1000;
  if (K.n > small) return multifrontal(pivots);
  return std::make_unique<RankRevealing>(pivots);
}

}  // namespace

Eigen::VectorXd every_direction(Eigen::Index n, std::uint64_t seed) {
  Eigen::VectorXd v(n);
  std::uint64_t state = 88172645463325252u + 1099511628211u * seed;
  for (Eigen::Index i = 0; i < n; ++i) {
    state ^= state << 13;
    state ^= state >> 7;
    state ^= state << 17;
    v(i) = static_cast<double>(state >> 11) * 0x1p-52 - 1;
  }
  return v;
}

Method suitable_method(const LowerMatrix& K) {
  constexpr double little = 1500;  // operations for each degree of freedom
  if (K.n <= 100) return Method::dense;
  return K.n <= 1000 || (K.operations > 0 && K.operations < little * K.n) ? Method::simplicial : Method::multifrontal;
}

Eigen::VectorXd scale_to_unit_diagonal(LowerMatrix& K) {
  // Less than this share of its point's stiffness is rounding: lifted to one it would pass for stiffness. A
  // joint of two links that lean against each other by 1e-9 still counts.
  constexpr double least = 1e-18;
  Eigen::VectorXd s = K.diagonal();
  for (int j = 0; j < K.n; ++j) s(j) = 1 / std::sqrt(std::max(s(j), least * K.reference[j]));
  for (int j = 0; j < K.n; ++j)
    for (int k = K.first[j]; k < K.first[j + 1]; ++k) K.value[k] *= s(j) * s(K.row[k]);
  return s;
}

Factor::Factor(const LowerMatrix& K, Method method) : method_(method), backend_(make(method)) {
  backend_->analyse(K);
}

void Factor::factorise(LowerMatrix& K, Eigen::MatrixXd& block) {
  scale_ = scale_to_unit_diagonal(K);
  sound_ = backend_->factorise(K);
  weak_.clear();
  growth_ = std::numeric_limits<double>::infinity();
  if (sound_) {
    const Eigen::VectorXd probe = every_direction(K.n);
    Eigen::MatrixXd both(K.n, block.cols() + 1);
    both << scale_.asDiagonal() * block, probe;
    backend_->solve(both);
    growth_ = both.rightCols(1).norm() / probe.norm();
    block = scale_.asDiagonal() * both.leftCols(block.cols());
  }
  if (method_ != Method::multifrontal) {
    if (sound_) weak_ = backend_->weak();
    return;
  }
  // Trusted pivots are not shown. If every direction stays far from having none of the stiffness, all of them are
  // sound; else they are looked at one by one. (Not a number where a pivot was zero.)
  constexpr double harmless = 1e8;
  if (growth_ < harmless) return;
  const auto detecting = multifrontal(Pivots::detected);
  detecting->analyse(K);
  sound_ = detecting->factorise(K);
  if (sound_) weak_ = detecting->weak();
}

double Factor::amplification() const {
  // One direction of n has a share of 1/√n in the vector.
  return growth_ * std::sqrt(static_cast<double>(scale_.size()));
}

void Factor::measure_growth() {
  Eigen::MatrixXd probe = every_direction(static_cast<int>(scale_.size()));
  const double before = probe.norm();
  backend_->solve(probe);
  growth_ = probe.norm() / before;
}

Factor Factor::tolerant(LowerMatrix K) {
  Factor f;
  f.scale_ = scale_to_unit_diagonal(K);
  f.method_ = Method::multifrontal;
  f.backend_ = careful(K, Pivots::tolerant);
  f.backend_->analyse(K);
  f.sound_ = f.backend_->factorise(K);
  f.growth_ = std::numeric_limits<double>::infinity();
  if (f.sound_) f.measure_growth();
  return f;
}

Eigen::MatrixXd Factor::solve(const Eigen::MatrixXd& block) const {
  Eigen::MatrixXd x = scale_.asDiagonal() * block;
  backend_->solve(x);
  return scale_.asDiagonal() * x;
}

std::vector<int> null_pivots(LowerMatrix K) {
  scale_to_unit_diagonal(K);
  const auto backend = careful(K, Pivots::detected);
  backend->analyse(K);
  if (!backend->factorise(K)) return {};
  return backend->weak();
}

}  // namespace corvex::solver
