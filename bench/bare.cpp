#include "bare.hpp"

#include <dmumps_c.h>
#include <suitesparse/cholmod.h>

#include <Eigen/Cholesky>
#include <Eigen/SparseCholesky>
#include <chrono>
#include <stdexcept>

namespace bench {
namespace {

using corvex::solver::LowerMatrix;

class Mumps : public Bare {
 public:
  explicit Mumps(const LowerMatrix& K) {
    id_.par = 1;
    id_.sym = 1;
    id_.comm_fortran = -987654;
    run(-1);
    for (const int stream : {0, 1, 2, 3}) id_.icntl[stream] = stream == 3 ? 0 : -1;
    id_.icntl[6] = 5;  // METIS
    id_.n = K.n;
    id_.nnz = static_cast<MUMPS_INT8>(K.row.size());
    row_.reserve(K.row.size());
    column_.reserve(K.row.size());
    for (int j = 0; j < K.n; ++j)
      for (int k = K.first[j]; k < K.first[j + 1]; ++k) row_.push_back(K.row[k] + 1), column_.push_back(j + 1);
    id_.irn = row_.data();
    id_.jcn = column_.data();
    id_.a = const_cast<double*>(K.value.data());
  }
  ~Mumps() override { run(-2); }
  void analyse() override { run(1); }
  void factorise() override { run(2); }
  void solve(Eigen::MatrixXd& block) override {
    id_.rhs = block.data();
    id_.nrhs = static_cast<int>(block.cols());
    id_.lrhs = id_.n;
    id_.icntl[26] = -32;
    run(3);
  }

 private:
  void run(int job) {
    id_.job = job;
    dmumps_c(&id_);
    if (id_.infog[0] < 0) throw std::runtime_error("MUMPS failed");
  }
  DMUMPS_STRUC_C id_{};
  std::vector<int> row_, column_;
};

class Cholmod : public Bare {
 public:
  explicit Cholmod(const LowerMatrix& K) {
    cholmod_start(&common_);
    common_.supernodal = CHOLMOD_SUPERNODAL;
    common_.nmethods = 1;
    common_.method[0].ordering = CHOLMOD_METIS;
    matrix_.nrow = matrix_.ncol = static_cast<std::size_t>(K.n);
    matrix_.nzmax = K.row.size();
    matrix_.p = const_cast<int*>(K.first.data());
    matrix_.i = const_cast<int*>(K.row.data());
    matrix_.x = const_cast<double*>(K.value.data());
    matrix_.stype = -1;
    matrix_.itype = CHOLMOD_INT;
    matrix_.xtype = CHOLMOD_REAL;
    matrix_.dtype = CHOLMOD_DOUBLE;
    matrix_.sorted = 1;
    matrix_.packed = 1;
  }
  ~Cholmod() override {
    cholmod_free_factor(&factor_, &common_);
    cholmod_finish(&common_);
  }
  void analyse() override { factor_ = cholmod_analyze(&matrix_, &common_); }
  void factorise() override {
    if (!cholmod_factorize(&matrix_, factor_, &common_)) throw std::runtime_error("CHOLMOD failed");
  }
  void solve(Eigen::MatrixXd& block) override {
    cholmod_dense b{};
    b.nrow = static_cast<std::size_t>(block.rows());
    b.ncol = static_cast<std::size_t>(block.cols());
    b.nzmax = b.nrow * b.ncol;
    b.d = b.nrow;
    b.x = block.data();
    b.xtype = CHOLMOD_REAL;
    b.dtype = CHOLMOD_DOUBLE;
    cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor_, &b, &common_);
    block = Eigen::Map<Eigen::MatrixXd>(static_cast<double*>(x->x), block.rows(), block.cols());
    cholmod_free_dense(&x, &common_);
  }

 private:
  cholmod_common common_{};
  cholmod_sparse matrix_{};
  cholmod_factor* factor_ = nullptr;
};

class EigenDense : public Bare {
 public:
  explicit EigenDense(const LowerMatrix& K) : K_(K) {}
  void analyse() override {}
  void factorise() override {
    Eigen::MatrixXd full = Eigen::MatrixXd::Zero(K_.n, K_.n);
    for (int j = 0; j < K_.n; ++j)
      for (int k = K_.first[j]; k < K_.first[j + 1]; ++k) full(K_.row[k], j) = K_.value[k];
    llt_.compute(full);
  }
  void solve(Eigen::MatrixXd& block) override { llt_.solveInPlace(block); }

 private:
  const LowerMatrix& K_;
  Eigen::LLT<Eigen::MatrixXd> llt_;
};

class EigenSimplicial : public Bare {
 public:
  explicit EigenSimplicial(const LowerMatrix& K)
      : view_(K.n, K.n, static_cast<Eigen::Index>(K.row.size()), K.first.data(), K.row.data(), K.value.data()) {}
  void analyse() override { ldlt_.analyzePattern(view_); }
  void factorise() override { ldlt_.factorize(view_); }
  void solve(Eigen::MatrixXd& block) override { block = ldlt_.solve(block).eval(); }

 private:
  Eigen::Map<const Eigen::SparseMatrix<double>> view_;
  Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower> ldlt_;
};

}  // namespace

std::unique_ptr<Bare> mumps(const LowerMatrix& K) {
  return std::make_unique<Mumps>(K);
}
std::unique_ptr<Bare> cholmod(const LowerMatrix& K) {
  return std::make_unique<Cholmod>(K);
}
std::unique_ptr<Bare> eigen_dense(const LowerMatrix& K) {
  return std::make_unique<EigenDense>(K);
}
std::unique_ptr<Bare> eigen_simplicial(const LowerMatrix& K) {
  return std::make_unique<EigenSimplicial>(K);
}

double now() {
  return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

Stages run(Bare& bare, Eigen::MatrixXd& block) {
  const double t0 = now();
  bare.analyse();
  const double t1 = now();
  bare.factorise();
  const double t2 = now();
  bare.solve(block);
  const double t3 = now();
  return {t1 - t0, t2 - t1, t3 - t2};
}

}  // namespace bench
