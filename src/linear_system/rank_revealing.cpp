#include "linear_system/rank_revealing.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::solver {

void RankRevealing::analyse(const LowerMatrix& m) {
  const auto n = static_cast<std::size_t>(m.n);
  row_first_.assign(n + 1, 0);
  for (int j = 0; j < m.n; ++j)
    for (int k = m.first[j] + 1; k < m.first[j + 1]; ++k) ++row_first_[m.row[k] + 1];
  for (std::size_t i = 0; i < n; ++i) row_first_[i + 1] += row_first_[i];
  row_column_.resize(static_cast<std::size_t>(row_first_[n]));
  row_place_.resize(row_column_.size());
  std::vector<int> fill(row_first_.begin(), row_first_.end() - 1);
  for (int j = 0; j < m.n; ++j)
    for (int k = m.first[j] + 1; k < m.first[j + 1]; ++k) {
      const int at = fill[m.row[k]]++;
      row_column_[at] = j;
      row_place_[at] = k;
    }
  parent_.assign(n, -1);
  mark_.assign(n, -1);
  std::vector<int> count(n, 0), columns;
  for (int k = 0; k < m.n; ++k) {
    mark_[k] = k;
    for (int p = row_first_[k]; p < row_first_[k + 1]; ++p)
      for (int i = row_column_[p]; mark_[i] != k; i = parent_[i]) {
        if (parent_[i] < 0) parent_[i] = k;
        ++count[i];
        mark_[i] = k;
      }
  }
  first_.assign(n + 1, 0);
  for (std::size_t j = 0; j < n; ++j) first_[j + 1] = first_[j] + count[j];
  row_.resize(static_cast<std::size_t>(first_[n]));
  value_.resize(row_.size());
}

void RankRevealing::reach(int k, std::vector<int>& columns) {
  columns.clear();
  mark_[k] = k;
  for (int p = row_first_[k]; p < row_first_[k + 1]; ++p)
    for (int i = row_column_[p]; mark_[i] != k; i = parent_[i]) {
      columns.push_back(i);
      mark_[i] = k;
    }
  // A column of L changes only those with higher numbers.
  std::sort(columns.begin(), columns.end());
}

bool RankRevealing::factorise(const LowerMatrix& m) {
  const auto n = static_cast<std::size_t>(m.n);
  weak_.clear();
  pivot_.assign(n, 0);
  end_.assign(first_.begin(), first_.end() - 1);
  std::fill(mark_.begin(), mark_.end(), -1);
  std::vector<double> y(n, 0);
  std::vector<int> columns;
  std::vector<bool> left_out(n, false);
  for (int k = 0; k < m.n; ++k) {
    for (int p = row_first_[k]; p < row_first_[k + 1]; ++p) y[row_column_[p]] = m.value[row_place_[p]];
    reach(k, columns);
    double pivot = m.value[m.first[k]];
    for (const int i : columns) {
      const double yi = y[i];
      y[i] = 0;
      const double l = left_out[i] ? 0 : yi / pivot_[i];
      for (int p = first_[i]; p < end_[i]; ++p)
        if (row_[p] < k) y[row_[p]] -= value_[p] * yi;
      pivot -= l * yi;
      row_[end_[i]] = k;
      value_[end_[i]++] = l;
    }
    if (detect_ && !(std::abs(pivot) >= weak_pivot)) {
      weak_.push_back(k);
      left_out[k] = true;
      pivot = 1;
    }
    if (pivot == 0 || !std::isfinite(pivot)) return false;
    pivot_[k] = pivot;
  }
  return true;
}

void RankRevealing::solve(Eigen::MatrixXd& block) {
  const int n = static_cast<int>(pivot_.size());
  for (Eigen::Index c = 0; c < block.cols(); ++c) {
    double* x = block.col(c).data();
    for (int j = 0; j < n; ++j)
      for (int p = first_[j]; p < end_[j]; ++p) x[row_[p]] -= value_[p] * x[j];
    for (int j = 0; j < n; ++j) x[j] /= pivot_[j];
    for (const int j : weak_) x[j] = 0;
    for (int j = n - 1; j >= 0; --j)
      for (int p = first_[j]; p < end_[j]; ++p) x[j] -= value_[p] * x[row_[p]];
  }
}

int RankRevealing::negative() const {
  return static_cast<int>(std::count_if(pivot_.begin(), pivot_.end(), [](double p) { return p < 0; }));
}

}  // namespace corvex::solver
