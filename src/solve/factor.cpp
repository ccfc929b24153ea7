#include "solve/factor.hpp"

#include <Eigen/Cholesky>
#include <Eigen/SparseCholesky>

namespace corvex::solver {
namespace {

class Dense : public Backend {
 public:
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
  bool factorise(const LowerMatrix& m) override {
    const Eigen::Map<const Eigen::SparseMatrix<double>> view(m.n, m.n, static_cast<Eigen::Index>(m.row.size()),
                                                             m.first.data(), m.row.data(), m.value.data());
    ldlt_.compute(view);
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
  Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower, Eigen::NaturalOrdering<int>> ldlt_;
};

std::unique_ptr<Backend> make(Method method) {
  switch (method) {
    case Method::dense: return std::make_unique<Dense>();
    case Method::simplicial: return std::make_unique<Simplicial>();
    case Method::multifrontal: return multifrontal(true);
  }
  return nullptr;
}

}  // namespace

Method suitable_method(int freedoms) {
  return freedoms <= 100 ? Method::dense : freedoms <= 1000 ? Method::simplicial : Method::multifrontal;
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

Factor::Factor(const LowerMatrix& K, Method method) {
  LowerMatrix scaled = K;
  scale_ = scale_to_unit_diagonal(scaled);
  backend_ = make(method);
  sound_ = backend_->factorise(scaled);
  if (sound_) weak_ = backend_->weak();
}

Factor Factor::tolerant(const LowerMatrix& K) {
  Factor f;
  LowerMatrix scaled = K;
  f.scale_ = scale_to_unit_diagonal(scaled);
  f.backend_ = multifrontal(false);
  f.sound_ = f.backend_->factorise(scaled);
  return f;
}

Eigen::MatrixXd Factor::solve(const Eigen::MatrixXd& block) const {
  Eigen::MatrixXd x = scale_.asDiagonal() * block;
  backend_->solve(x);
  return scale_.asDiagonal() * x;
}

std::vector<int> null_pivots(const LowerMatrix& K) {
  LowerMatrix scaled = K;
  scale_to_unit_diagonal(scaled);
  const auto backend = multifrontal(true);
  if (!backend->factorise(scaled)) return {};
  return backend->weak();
}

}  // namespace corvex::solver
