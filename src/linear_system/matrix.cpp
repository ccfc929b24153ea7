#include "linear_system/matrix.hpp"

#include <algorithm>

#include "algebra/products.hpp"
#include "beam/rigid_arm.hpp"

namespace corvex::solver {

using namespace algebra;

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

LowerMatrix LowerMatrix::grounded(const std::vector<int>& dofs) const {
  LowerMatrix m = *this;
  std::vector<bool> hold(static_cast<std::size_t>(n), false);
  for (const int j : dofs) hold[j] = true;
  for (int j = 0; j < n; ++j)
    for (int k = first[j]; k < first[j + 1]; ++k)
      if (hold[j] || hold[row[k]]) m.value[k] = row[k] == j ? 1 : 0;
  return m;
}

PointGraph point_graph(const Spans& spans, const Dofs& f) {
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

Pattern::Pattern(const Spans& spans, Dofs& f) {
  const PointGraph g = point_graph(spans, f);
  const Order order = elimination_order(g.graph, g.weight);
  empty_.operations = order.operations;
  const int n = g.graph.size();
  std::vector<int> vertex_place(static_cast<std::size_t>(n));
  std::vector<std::size_t> points(static_cast<std::size_t>(n));
  place_.assign(f.status.size(), -1);
  for (int i = 0; i < n; ++i) {
    points[i] = g.point[order.vertices[i]];
    vertex_place[order.vertices[i]] = i;
    place_[points[i]] = i;
  }
  number(f, points);
  std::vector<int>&first = empty_.first, &row = empty_.row;
  empty_.n = f.equations;
  first.reserve(static_cast<std::size_t>(f.equations) + 1);
  first.push_back(0);
  std::vector<int> neighbour_first{0}, neighbour, neighbour_offset;
  for (int i = 0; i < n; ++i) {
    const int v = order.vertices[i];
    const std::size_t begin = neighbour.size();
    for (int k = g.graph.first[v]; k < g.graph.first[v + 1]; ++k)
      if (const int q = vertex_place[g.graph.neighbour[k]]; q > i) neighbour.push_back(q);
    std::sort(neighbour.begin() + static_cast<std::ptrdiff_t>(begin), neighbour.end());
    int offset = 0;
    for (std::size_t k = begin; k < neighbour.size(); ++k) {
      neighbour_offset.push_back(offset);
      offset += f.first_equation[neighbour[k] + 1] - f.first_equation[neighbour[k]];
    }
    neighbour_first.push_back(static_cast<int>(neighbour.size()));
    const int own_end = f.first_equation[i + 1];
    for (int column = f.first_equation[i]; column < own_end; ++column) {
      for (int r = column; r < own_end; ++r) row.push_back(r);
      for (std::size_t k = begin; k < neighbour.size(); ++k)
        for (int r = f.first_equation[neighbour[k]]; r < f.first_equation[neighbour[k] + 1]; ++r) row.push_back(r);
      first.push_back(static_cast<int>(row.size()));
    }
  }
  block_.reserve(spans.all.size());
  for (const Span& s : spans.all) {
    const int early = std::min(place_[s.a], place_[s.b]), late = std::max(place_[s.a], place_[s.b]);
    if (early < 0) {
      block_.push_back(0);
      continue;
    }
    const auto begin = neighbour.begin() + neighbour_first[early];
    const auto it = std::lower_bound(begin, neighbour.begin() + neighbour_first[early + 1], late);
    block_.push_back(neighbour_offset[static_cast<std::size_t>(it - neighbour.begin())]);
  }
}

void Pattern::add_block(LowerMatrix& K, const Dofs& f, const Corner& corner, const Matrix12& element) const {
  const auto [p, q, block, row_offset, column_offset] = corner;
  if (place_[q] < 0 || place_[p] < 0) return;
  const auto &rows = f.equation[p], &columns = f.equation[q];
  const int own_end = f.first_equation[place_[q] + 1], row_begin = f.first_equation[place_[p]];
  for (std::size_t c = 0; c < 6; ++c) {
    const int column = columns[c];
    if (column < 0) continue;
    // The place of row r in this column is its number from here.
    double* begin = K.value.data() + K.first[column] + (p == q ? -column : own_end - column + block - row_begin);
    const double* from = element.data() + 12 * (column_offset + static_cast<int>(c)) + row_offset;
    for (std::size_t r = p == q ? c : 0; r < 6; ++r)
      if (rows[r] >= 0) begin[rows[r]] += from[r];
  }
}

namespace {

// From the ends of rigid arms to the points: an end moves by the point's movement and turn × arm.
void carry(Matrix12& K, const Span& s) {
  Matrix12 T = Matrix12::Identity();
  T.block<3, 3>(0, 3) = lever(s.arm_a);
  T.block<3, 3>(6, 9) = lever(s.arm_b);
  K = turned(K, T);
}

// Movements of either end counted along a frame of its own.
void turn(Matrix12& K, const Axes* a, const Axes* b) {
  const auto one = [&K](const Axes* f, int at) {
    if (!f) return;
    Eigen::Matrix3d R;
    R << f->x.x, f->y.x, f->z.x, f->x.y, f->y.y, f->z.y, f->x.z, f->y.z, f->z.z;
    K.middleCols<3>(at) = times(K.middleCols<3>(at), R);
    K.middleRows<3>(at) = transposed_times(R, K.middleRows<3>(at));
  };
  one(a, 0);
  one(b, 6);
}

// Reference values for small diagonals of a point.
void set_references(LowerMatrix& K, const Dofs& f) {
  K.reference.assign(static_cast<std::size_t>(K.n), 0);
  double largest = 0;
  for (const auto& equation : f.equation)
    for (const std::size_t kind : {0, 3}) {
      double most = 0;
      for (std::size_t k = kind; k < kind + 3; ++k)
        if (equation[k] >= 0) most = std::max(most, K.value[K.first[equation[k]]]);
      for (std::size_t k = kind; k < kind + 3; ++k)
        if (equation[k] >= 0) K.reference[equation[k]] = most;
      largest = std::max(largest, most);
    }
  // A point that nothing at all stiffens.
  for (double& r : K.reference)
    if (!(r > 0)) r = largest > 0 ? largest : 1;
}

}  // namespace

Matrix12 at_points(Matrix12 at_ends, const Span& span) {
  if (span.armed) carry(at_ends, span);
  return at_ends;
}

void Pattern::assemble(const Spans& spans, const std::vector<Element>& elements, const Dofs& f, LowerMatrix& K) {
  gather(
      spans,
      [&](std::size_t i) { return at_points(elements[i].stiffness(spans.axes[spans.all[i].member]), spans.all[i]); }, f,
      K);
}

void Pattern::assemble(const Spans& spans, const std::vector<Matrix12>& stiffness, const Dofs& f, LowerMatrix& K) {
  gather(
      spans, [&](std::size_t i) { return stiffness[i]; }, f, K);
}

template <class OfSpan>
void Pattern::gather(const Spans& spans, const OfSpan& stiffness, const Dofs& f, LowerMatrix& K) {
  if (K.first.empty()) K = std::move(empty_);
  K.value.assign(K.row.size(), 0);
  for (std::size_t i = 0; i < spans.all.size(); ++i) {
    const Span& s = spans.all[i];
    const int a = place_[s.a], b = place_[s.b];
    if (a < 0 && b < 0) continue;
    Matrix12 element = stiffness(i);
    if (!f.frames.empty()) turn(element, f.frame(s.a), f.frame(s.b));
    add_block(K, f, {s.a, s.a, 0, 0, 0}, element);
    add_block(K, f, {s.b, s.b, 0, 6, 6}, element);
    // Rows belong to the later point.
    if (a > b)
      add_block(K, f, {s.a, s.b, block_[i], 0, 6}, element);
    else
      add_block(K, f, {s.b, s.a, block_[i], 6, 0}, element);
  }
  for (const PointSpring& s : f.springs) {
    if (place_[s.point] < 0) continue;
    Matrix12 spring = Matrix12::Zero();
    for (int k = 0; k < 6; ++k) spring(k, k) = s.stiffness[static_cast<std::size_t>(k)];
    turn(spring, f.frame(s.point), nullptr);
    add_block(K, f, {s.point, s.point, 0, 0, 0}, spring);
  }
  set_references(K, f);
}

LowerMatrix assemble_all(const Spans& spans, const std::vector<Element>& elements, Dofs& f) {
  LowerMatrix K;
  Pattern(spans, f).assemble(spans, elements, f, K);
  return K;
}

}  // namespace corvex::solver
