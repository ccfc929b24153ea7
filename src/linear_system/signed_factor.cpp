#include "linear_system/signed_factor.hpp"

#include "linear_system/rank_revealing.hpp"

namespace corvex::solver {

SignedFactor::SignedFactor(LowerMatrix& m) {
  if (m.n == 0) return;
  scale_ = m.diagonal().cwiseAbs().cwiseMax(1e-300).cwiseSqrt().cwiseInverse();
  for (int j = 0; j < m.n; ++j)
    for (int k = m.first[j]; k < m.first[j + 1]; ++k) m.value[k] *= scale_(j) * scale_(m.row[k]);
  constexpr int small = 2000;
  if (m.n <= small)
    backend_ = std::make_shared<RankRevealing>(Pivots::tolerant);
  else
    backend_ = multifrontal(Pivots::trusted);
  backend_->analyse(m);
  ok_ = backend_->factorise(m);
  if (ok_) negative_ = backend_->negative();
}

Eigen::MatrixXd SignedFactor::solve(const Eigen::MatrixXd& block) const {
  if (!backend_) return block;
  Eigen::MatrixXd x = scale_.asDiagonal() * block;
  backend_->solve(x);
  return scale_.asDiagonal() * x;
}

}  // namespace corvex::solver
