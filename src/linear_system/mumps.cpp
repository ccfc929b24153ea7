// MUMPS, the sequential library, behind the interface of factor.hpp.
#include <dmumps_c.h>

#include <mutex>
#include <new>

#include "linear_system/factor.hpp"

namespace corvex::solver {
namespace {

constexpr int use_comm_world = -987654;

// MUMPS keeps state for the whole process, in addition to that of each instance: calls of all threads take turns.
std::mutex& mumps_turn() {
  static std::mutex only_one;
  return only_one;
}

class Multifrontal : public Backend {
 public:
  explicit Multifrontal(Pivots pivots) {
    id_.par = 1;
    id_.sym = 2;  // symmetric; with hardly any pivoting (below) this is LDLᵀ in our own order
    id_.comm_fortran = use_comm_world;
    run(-1);
    for (const int stream : {1, 2, 3, 4}) icntl(stream) = stream == 4 ? 0 : -1;  // silence
    icntl(6) = 0;                                                                // no permutation of columns
    icntl(7) = 1;                                                                // the order of elimination is ours
    icntl(8) = 0;                                                                // the matrix comes scaled
    icntl(10) = 0;   // refinement is done by the caller, on the unscaled matrix
    icntl(12) = 1;   // no compressed graph
    icntl(14) = 30;  // per cent of spare memory
    icntl(24) = pivots == Pivots::detected ? 1 : 0;
    // Positive definite matrices need no pivoting, and without it a third of the time is saved; but rows without a
    // pivot are looked for only where it is on, so there it is on with a threshold that nothing sound falls below.
    id_.cntl[0] = pivots == Pivots::trusted ? 0 : 1e-8;
    if (pivots == Pivots::detected) id_.cntl[2] = weak_pivot;
  }
  ~Multifrontal() override { run(-2); }
  Multifrontal(const Multifrontal&) = delete;
  Multifrontal& operator=(const Multifrontal&) = delete;

  void analyse(const LowerMatrix& m) override {
    id_.n = m.n;
    id_.nnz = static_cast<MUMPS_INT8>(m.row.size());
    row_.reserve(m.row.size());
    column_.reserve(m.row.size());
    for (int j = 0; j < m.n; ++j)
      for (int k = m.first[j]; k < m.first[j + 1]; ++k) {
        row_.push_back(m.row[k] + 1);
        column_.push_back(j + 1);
      }
    order_.resize(static_cast<std::size_t>(m.n));
    for (int i = 0; i < m.n; ++i) order_[i] = i + 1;
    id_.irn = row_.data();
    id_.jcn = column_.data();
    id_.perm_in = order_.data();
    run(1);
    refuse_without_memory();
    analysed_ = id_.infog[0] >= 0;
  }

  double bytes_needed() const override { return analysed_ ? 1e6 * id_.infog[16] : 0; }

  bool factorise(const LowerMatrix& m) override {
    if (!analysed_) return false;
    id_.a = const_cast<double*>(m.value.data());  // read only, as it is scaled already
    for (int attempt = 0; attempt < 6; ++attempt) {
      run(2);
      const bool too_small = id_.infog[0] == -8 || id_.infog[0] == -9;
      if (!too_small) break;
      icntl(14) = icntl(14) * 2;
    }
    id_.a = nullptr;
    refuse_without_memory();
    return id_.infog[0] >= 0;
  }

  std::vector<int> weak() const override {
    std::vector<int> w(id_.pivnul_list, id_.pivnul_list + (id_.pivnul_list ? id_.infog[27] : 0));
    for (int& j : w) --j;
    return w;
  }

  int negative() const override { return id_.infog[11]; }

  void solve(Eigen::MatrixXd& block) override {
    if (block.cols() == 0) return;
    id_.rhs = block.data();
    id_.nrhs = static_cast<int>(block.cols());
    id_.lrhs = id_.n;
    icntl(27) = -32;  // columns worked on together
    run(3);
  }

 private:
  MUMPS_INT& icntl(int i) { return id_.icntl[i - 1]; }
  // Not to be mistaken for a matrix that cannot be factorised.
  void refuse_without_memory() const {
    if (id_.infog[0] == -7 || id_.infog[0] == -13) throw std::bad_alloc();
  }
  void run(int job) {
    const std::lock_guard lock(mumps_turn());
    id_.job = job;
    dmumps_c(&id_);
  }

  DMUMPS_STRUC_C id_{};
  std::vector<int> row_, column_, order_;
  bool analysed_ = false;
};

}  // namespace

std::unique_ptr<Backend> multifrontal(Pivots pivots) {
  return std::make_unique<Multifrontal>(pivots);
}

}  // namespace corvex::solver
