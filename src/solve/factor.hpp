// The factorised stiffness matrix, by the method that suits its size.
//
// Every method works on the matrix scaled to a diagonal of one, and in the order given: the caller has
// numbered the freedoms in the order of elimination. A pivot that all but vanishes is reported as weak;
// whether that is a structure that can move or one that is merely soft is for mechanism.hpp to say.
#pragma once

#include <memory>
#include <optional>

#include "solve/matrix.hpp"

namespace corvex::solver {

// Scaled pivots below this are weak.
inline constexpr double weak_pivot = 1e-11;

enum class Method { dense, simplicial, multifrontal };
// Measured on lattices: dense to about 100 freedoms, simplicial to about 1,000, from there multifrontal.
Method suitable_method(int freedoms);

class Backend {
 public:
  virtual ~Backend() = default;
  // False if the matrix broke the factorisation down.
  virtual bool factorise(const LowerMatrix& scaled) = 0;
  // Freedoms with weak pivots, where the method knows them.
  virtual std::vector<int> weak() const = 0;
  virtual void solve(Eigen::MatrixXd& block) = 0;
};
std::unique_ptr<Backend> multifrontal(bool detect_null_pivots);

class Factor {
 public:
  explicit Factor(const LowerMatrix& K) : Factor(K, suitable_method(K.n)) {}
  Factor(const LowerMatrix& K, Method method);

  // Nothing stands in the way of a solution.
  bool sound() const { return sound_ && weak_.empty(); }
  const std::vector<int>& weak() const { return weak_; }
  // K⁻¹ · block, all columns together.
  Eigen::MatrixXd solve(const Eigen::MatrixXd& block) const;
  // Works in the presence of weak pivots: for structures that are soft but do not move.
  static Factor tolerant(const LowerMatrix& K);

 private:
  Factor() = default;

  Eigen::VectorXd scale_;
  std::shared_ptr<Backend> backend_;
  std::vector<int> weak_;
  bool sound_ = false;
};

// Diagonal of one, but for what is only rounding: S K S, with S returned.
Eigen::VectorXd scale_to_unit_diagonal(LowerMatrix& K);

// The freedoms whose pivots vanish.
std::vector<int> null_pivots(const LowerMatrix& K);

}  // namespace corvex::solver
