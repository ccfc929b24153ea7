#include "linear_system/ordering.hpp"

#include <Eigen/OrderingMethods>
#include <Eigen/SparseCore>
#include <cstdio>
#include <mutex>
#include <numeric>

// Needs <cstdio> before it.
#include <scotch.h>

namespace corvex::solver {
namespace {

// Below this size minimum degree is as good, and takes no time.
constexpr int dissection_from = 300;
// With fewer operations for each degree of freedom than this (chains, slender towers, small frames) another order takes
// longer to find than it saves.
constexpr double worth_dissecting = 8000;

std::vector<int> minimum_degree(const Graph& g) {
  Eigen::SparseMatrix<double> pattern(g.size(), g.size());
  pattern.reserve(Eigen::Map<const Eigen::VectorXi>(g.first.data() + 1, g.size()) -
                  Eigen::Map<const Eigen::VectorXi>(g.first.data(), g.size()) + Eigen::VectorXi::Ones(g.size()));
  for (int v = 0; v < g.size(); ++v) {
    pattern.insert(v, v) = 1;
    for (int k = g.first[v]; k < g.first[v + 1]; ++k) pattern.insert(g.neighbour[k], v) = 1;
  }
  pattern.makeCompressed();
  Eigen::PermutationMatrix<Eigen::Dynamic, Eigen::Dynamic, int> p;
  Eigen::AMDOrdering<int>()(pattern.selfadjointView<Eigen::Lower>(), p);
  return {p.indices().data(), p.indices().data() + g.size()};
}

// Scotch 7.0.3 is not safe to call from several threads, not even with a context for each: calls take turns.
std::mutex& scotch_turn() {
  static std::mutex only_one;
  return only_one;
}

// Memory and state of Scotch for one call. Its own context starts with the same random numbers each time, in one
// thread, so that the same graph always has the same order.
class Scotch {
 public:
  explicit Scotch(const Graph& g, const std::vector<int>& weight) {
    ok_ = SCOTCH_contextInit(&context_) == 0 && SCOTCH_contextThreadSpawn(&context_, 1, nullptr) == 0 &&
          SCOTCH_contextOptionSetNum(&context_, SCOTCH_OPTIONNUMDETERMINISTIC, 1) == 0 &&
          SCOTCH_graphInit(&given_) == 0 && SCOTCH_graphInit(&bound_) == 0 && SCOTCH_stratInit(&strategy_) == 0;
    SCOTCH_contextRandomReset(&context_);
    const auto edges = static_cast<SCOTCH_Num>(g.neighbour.size());
    ok_ = ok_ &&
          SCOTCH_graphBuild(&given_, 0, g.size(), g.first.data(), nullptr, weight.data(), nullptr, edges,
                            g.neighbour.data(), nullptr) == 0 &&
          SCOTCH_contextBindGraph(&context_, &given_, &bound_) == 0;
  }
  ~Scotch() {
    SCOTCH_stratExit(&strategy_);
    SCOTCH_graphExit(&bound_);
    SCOTCH_graphExit(&given_);
    SCOTCH_contextExit(&context_);
  }
  Scotch(const Scotch&) = delete;
  Scotch& operator=(const Scotch&) = delete;

  // Empty where it fails.
  std::vector<int> order(int size) {
    std::vector<int> place(static_cast<std::size_t>(size)), vertices(place.size());
    const bool done =
        ok_ && SCOTCH_graphOrder(&bound_, &strategy_, place.data(), vertices.data(), nullptr, nullptr, nullptr) == 0;
    return done ? vertices : std::vector<int>();
  }

 private:
  SCOTCH_Context context_;
  SCOTCH_Graph given_, bound_;
  SCOTCH_Strat strategy_;
  bool ok_ = false;
};

std::vector<int> nested_dissection(const Graph& g, const std::vector<int>& weight) {
  static_assert(std::is_same_v<SCOTCH_Num, int>);
  const std::lock_guard lock(scotch_turn());
  return Scotch(g, weight).order(g.size());
}

// Multiplications of a factorisation in this order, from the elimination tree and the counts of its columns.
double operations(const Graph& g, const std::vector<int>& weight, const std::vector<int>& order) {
  const int n = g.size();
  std::vector<int> place(n), parent(n, -1), mark(n, -1);
  std::vector<double> below(n, 0);
  for (int i = 0; i < n; ++i) place[order[i]] = i;
  for (int row = 0; row < n; ++row) {
    mark[row] = row;
    const int v = order[row];
    for (int k = g.first[v]; k < g.first[v + 1]; ++k) {
      for (int j = place[g.neighbour[k]]; j < row && mark[j] != row; j = parent[j]) {
        if (parent[j] < 0) parent[j] = row;
        below[j] += weight[v];
        mark[j] = row;
      }
    }
  }
  double sum = 0;
  for (int i = 0; i < n; ++i) {
    const double w = weight[order[i]], b = below[i];
    sum += w * w * w / 3 + w * w * b + w * b * b;
  }
  return sum;
}

}  // namespace

Order elimination_order(const Graph& graph, const std::vector<int>& weight) {
  if (graph.size() == 0) return {};
  Order order{minimum_degree(graph), 0};
  order.operations = operations(graph, weight, order.vertices);
  const double dofs = std::accumulate(weight.begin(), weight.end(), 0.0);
  if (graph.size() < dissection_from || order.operations < worth_dissecting * dofs) return order;
  std::vector<int> dissected = nested_dissection(graph, weight);
  if (dissected.empty()) return order;
  const double fewer = operations(graph, weight, dissected);
  return fewer < order.operations ? Order{std::move(dissected), fewer} : order;
}

}  // namespace corvex::solver
