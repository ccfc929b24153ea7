#include "solve/ordering.hpp"

#include <metis.h>

#include <Eigen/OrderingMethods>
#include <Eigen/SparseCore>
#include <numeric>

namespace corvex::solver {
namespace {

// Below this size minimum degree is as good, and takes no time.
constexpr int dissection_from = 300;
// With fewer operations a freedom than this (chains, slender towers, small frames) another order takes longer to find
// than it saves.
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

std::vector<int> nested_dissection(const Graph& g, const std::vector<int>& weight) {
  idx_t n = g.size();
  std::vector<idx_t> first(g.first.begin(), g.first.end()), neighbour(g.neighbour.begin(), g.neighbour.end());
  std::vector<idx_t> w(weight.begin(), weight.end()), order(g.size()), place(g.size());
  idx_t options[METIS_NOPTIONS];
  METIS_SetDefaultOptions(options);
  if (METIS_NodeND(&n, first.data(), neighbour.data(), w.data(), options, order.data(), place.data()) != METIS_OK)
    return {};
  return {order.begin(), order.end()};
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
  const double freedoms = std::accumulate(weight.begin(), weight.end(), 0.0);
  if (graph.size() < dissection_from || order.operations < worth_dissecting * freedoms) return order;
  std::vector<int> dissected = nested_dissection(graph, weight);
  if (dissected.empty()) return order;
  const double fewer = operations(graph, weight, dissected);
  return fewer < order.operations ? Order{std::move(dissected), fewer} : order;
}

}  // namespace corvex::solver
