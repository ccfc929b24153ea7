// The factorised stiffness matrix, by the method that suits its size.
//
// Every method works on the matrix scaled to a diagonal of one, and in the order given: the caller has
// numbered the degrees of freedom in the order of elimination. A pivot that all but vanishes is reported as weak;
// whether that is a structure that can move or one that is merely soft is for mechanism.hpp to say.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>

#include "linear_system/matrix.hpp"

namespace corvex::solver {

// Scaled pivots below this are weak.
inline constexpr double weak_pivot = 1e-11;

enum class Method { dense, simplicial, multifrontal };
// Measured: dense to about 100 degrees of freedom, simplicial to about 1,000 and for chains of any length, where there
// is little to factorise; else multifrontal.
Method suitable_method(const LowerMatrix& K);

class Backend {
 public:
  virtual ~Backend() = default;
  // Once for the places of the entries …
  virtual void analyse(const LowerMatrix& pattern) = 0;
  // Memory that the factorisation will take, in bytes; 0 if small compared with the rest.
  virtual double bytes_needed() const { return 0; }
  // … then for their values, as often as they change. False if the matrix broke the factorisation down.
  virtual bool factorise(const LowerMatrix& scaled) = 0;
  // Degrees of freedom with weak pivots, where the method knows them.
  virtual std::vector<int> weak() const = 0;
  // Pivots below zero, where the method counts them: the matrix has as many eigenvalues below zero.
  virtual int negative() const { return 0; }
  virtual void solve(Eigen::MatrixXd& block) = 0;
};

// How the multifrontal method treats pivots.
enum class Pivots {
  trusted,   // taken as they come: the fastest, for what is sound
  detected,  // weak ones are found and listed
  tolerant,  // weak ones are lived with
};
std::unique_ptr<Backend> multifrontal(Pivots pivots);

class Factor {
 public:
  explicit Factor(const LowerMatrix& K) : Factor(K, suitable_method(K)) {}
  Factor(const LowerMatrix& K, Method method);

  // Known before the values are: a model that will not fit need not be tried.
  double bytes_needed() const { return backend_->bytes_needed(); }

  // The values of K; may be called again for others in the same places. `block` is solved for in the same pass as the
  // vector that shows whether pivots vanish, and is not valid if the factor is not sound. K is scaled in place.
  void factorise(LowerMatrix& K, Eigen::MatrixXd& block);

  // A solution is possible.
  bool sound() const { return sound_ && weak_.empty(); }
  const std::vector<int>& weak() const { return weak_; }
  // No more than this many times the rounding of a number is the error of a solution, as a share of it: an estimate, by
  // the growth of one vector in which every direction has a share.
  double amplification() const;
  // K⁻¹ · block, all columns together.
  Eigen::MatrixXd solve(const Eigen::MatrixXd& block) const;
  // Works in the presence of weak pivots: for structures that are soft but do not move.
  static Factor tolerant(LowerMatrix K);

 private:
  Factor() = default;

  Method method_{};
  Eigen::VectorXd scale_;
  std::shared_ptr<Backend> backend_;
  std::vector<int> weak_;
  bool sound_ = false;
  void measure_growth();
  double growth_ = 0;
};

// Scales the diagonal to one, but for what is only rounding: S K S. Returns S.
Eigen::VectorXd scale_to_unit_diagonal(LowerMatrix& K);

// A vector in which every direction has a share: the same numbers every time, other ones for other seeds.
Eigen::VectorXd every_direction(Eigen::Index n, std::uint64_t seed = 0);

// The degrees of freedom whose pivots vanish.
std::vector<int> null_pivots(LowerMatrix K);

}  // namespace corvex::solver
