#include "solve/matrix.hpp"

#include <algorithm>

namespace corvex::solver {

Eigen::VectorXd LowerMatrix::diagonal() const {
  Eigen::VectorXd d(n);
  for (int j = 0; j < n; ++j) d(j) = value[first[j]];
  return d;
}

Eigen::MatrixXd LowerMatrix::times(const Eigen::MatrixXd& x) const {
  Eigen::MatrixXd y = Eigen::MatrixXd::Zero(x.rows(), x.cols());
  for (Eigen::Index c = 0; c < x.cols(); ++c) {
    const double* in = x.col(c).data();
    double* out = y.col(c).data();
    for (int j = 0; j < n; ++j) {
      double sum = value[first[j]] * in[j];
      for (int k = first[j] + 1; k < first[j + 1]; ++k) {
        sum += value[k] * in[row[k]];
        out[row[k]] += value[k] * in[j];
      }
      out[j] += sum;
    }
  }
  return y;
}

LowerMatrix LowerMatrix::grounded(const std::vector<int>& freedoms) const {
  LowerMatrix m = *this;
  std::vector<bool> hold(static_cast<std::size_t>(n), false);
  for (const int j : freedoms) hold[j] = true;
  for (int j = 0; j < n; ++j)
    for (int k = first[j]; k < first[j + 1]; ++k)
      if (hold[j] || hold[row[k]]) m.value[k] = row[k] == j ? 1 : 0;
  return m;
}

PointGraph point_graph(const Spans& spans, const Freedoms& f) {
  PointGraph g;
  std::vector<int> vertex(f.status.size(), -1);
  for (std::size_t p = 0; p < f.status.size(); ++p) {
    const int w = f.free_count(p);
    if (w == 0) continue;
    vertex[p] = static_cast<int>(g.point.size());
    g.point.push_back(p);
    g.weight.push_back(w);
  }
  const std::size_t n = g.point.size();
  std::vector<int> count(n + 1, 0);
  const auto both_free = [&](const Span& s) { return vertex[s.a] >= 0 && vertex[s.b] >= 0; };
  for (const Span& s : spans.all)
    if (both_free(s)) ++count[vertex[s.a]], ++count[vertex[s.b]];
  std::vector<int> first(n + 1, 0);
  for (std::size_t i = 0; i < n; ++i) first[i + 1] = first[i] + count[i];
  std::vector<int> all(static_cast<std::size_t>(first[n])), fill(first.begin(), first.end());
  for (const Span& s : spans.all) {
    if (!both_free(s)) continue;
    all[fill[vertex[s.a]]++] = vertex[s.b];
    all[fill[vertex[s.b]]++] = vertex[s.a];
  }
  // Members side by side join the same points more than once.
  g.graph.first.push_back(0);
  for (std::size_t i = 0; i < n; ++i) {
    std::sort(all.begin() + first[i], all.begin() + first[i + 1]);
    const auto end = std::unique(all.begin() + first[i], all.begin() + first[i + 1]);
    g.graph.neighbour.insert(g.graph.neighbour.end(), all.begin() + first[i], end);
    g.graph.first.push_back(static_cast<int>(g.graph.neighbour.size()));
  }
  return g;
}

Assembly::Assembly(const PointGraph& g, const std::vector<int>& order, const Freedoms& f) : f_(f) {
  const int n = g.graph.size();
  std::vector<int> vertex_place(static_cast<std::size_t>(n));
  place_.assign(f.status.size(), -1);
  for (int i = 0; i < n; ++i) {
    vertex_place[order[i]] = i;
    place_[g.point[order[i]]] = i;
  }
  matrix_.n = f.equations;
  matrix_.first.reserve(static_cast<std::size_t>(f.equations) + 1);
  matrix_.first.push_back(0);
  neighbour_first_.push_back(0);
  for (int i = 0; i < n; ++i) {
    const int v = order[i];
    const std::size_t begin = neighbour_.size();
    for (int k = g.graph.first[v]; k < g.graph.first[v + 1]; ++k)
      if (const int q = vertex_place[g.graph.neighbour[k]]; q > i) neighbour_.push_back(q);
    std::sort(neighbour_.begin() + static_cast<std::ptrdiff_t>(begin), neighbour_.end());
    int offset = 0;
    for (std::size_t k = begin; k < neighbour_.size(); ++k) {
      neighbour_offset_.push_back(offset);
      offset += f.first_equation[neighbour_[k] + 1] - f.first_equation[neighbour_[k]];
    }
    neighbour_first_.push_back(static_cast<int>(neighbour_.size()));
    const int own_end = f.first_equation[i + 1];
    for (int column = f.first_equation[i]; column < own_end; ++column) {
      for (int r = column; r < own_end; ++r) matrix_.row.push_back(r);
      for (std::size_t k = begin; k < neighbour_.size(); ++k)
        for (int r = f.first_equation[neighbour_[k]]; r < f.first_equation[neighbour_[k] + 1]; ++r)
          matrix_.row.push_back(r);
      matrix_.first.push_back(static_cast<int>(matrix_.row.size()));
    }
  }
  matrix_.value.assign(matrix_.row.size(), 0);
}

void Assembly::add(const Span& span, const Matrix12& K) {
  add_block(span.a, span.a, K, 0, 0);
  add_block(span.b, span.b, K, 6, 6);
  if (place_[span.a] < 0 || place_[span.b] < 0) return;
  // Rows belong to the later point.
  if (place_[span.a] > place_[span.b])
    add_block(span.a, span.b, K, 0, 6);
  else
    add_block(span.b, span.a, K, 6, 0);
}

void Assembly::add_block(std::size_t p, std::size_t q, const Matrix12& K, int row_offset, int column_offset) {
  const int column_place = place_[q];
  if (column_place < 0 || place_[p] < 0) return;
  const int own_end = f_.first_equation[column_place + 1];
  int block = 0;
  if (p != q) {
    const auto begin = neighbour_.begin() + neighbour_first_[column_place];
    const auto it = std::lower_bound(begin, neighbour_.begin() + neighbour_first_[column_place + 1], place_[p]);
    block = neighbour_offset_[static_cast<std::size_t>(it - neighbour_.begin())];
  }
  for (int c = 0; c < 6; ++c) {
    const int column = f_.equation[q][static_cast<std::size_t>(c)];
    if (column < 0) continue;
    for (int r = 0; r < 6; ++r) {
      const int row = f_.equation[p][static_cast<std::size_t>(r)];
      if (row < 0 || (p == q && row < column)) continue;
      const int at = p == q ? matrix_.first[column] + (row - column)
                            : matrix_.first[column] + (own_end - column) + block + (row - f_.first_equation[place_[p]]);
      matrix_.value[at] += K(row_offset + r, column_offset + c);
    }
  }
}

LowerMatrix Assembly::take() {
  matrix_.reference.assign(static_cast<std::size_t>(matrix_.n), 0);
  double largest = 0;
  for (const auto& equation : f_.equation)
    for (const std::size_t kind : {0, 3}) {
      double most = 0;
      for (std::size_t k = kind; k < kind + 3; ++k)
        if (equation[k] >= 0) most = std::max(most, matrix_.value[matrix_.first[equation[k]]]);
      for (std::size_t k = kind; k < kind + 3; ++k)
        if (equation[k] >= 0) matrix_.reference[equation[k]] = most;
      largest = std::max(largest, most);
    }
  // A point that nothing at all stiffens.
  for (double& r : matrix_.reference)
    if (!(r > 0)) r = largest > 0 ? largest : 1;
  return std::move(matrix_);
}

LowerMatrix assemble_all(const Structure& structure, const Spans& spans, Freedoms& f) {
  const PointGraph g = point_graph(spans, f);
  const std::vector<int> order = elimination_order(g.graph, g.weight);
  std::vector<std::size_t> points;
  points.reserve(order.size());
  for (const int v : order) points.push_back(g.point[static_cast<std::size_t>(v)]);
  number(f, points);
  Assembly assembly(g, order, f);
  for (std::size_t m = 0; m < structure.members().size(); ++m) {
    const Member& member = structure.members()[m];
    const Rigidity r = rigidity(structure, member);
    const Axes axes = local_axes(structure, member);
    for (std::size_t i = spans.first[m]; i < spans.first[m + 1]; ++i) {
      const Span& s = spans.all[i];
      if (f.free_count(s.a) > 0 || f.free_count(s.b) > 0) assembly.add(s, to_global(axes, Element(r, s).stiffness()));
    }
  }
  return assembly.take();
}

}  // namespace corvex::solver
