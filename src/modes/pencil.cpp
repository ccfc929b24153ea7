#include "modes/pencil.hpp"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <map>

#include "algebra/products.hpp"

namespace corvex::solver {

using namespace algebra;
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

// From the degrees of freedom of a point along its own frame to the global axes.
MatrixXd frame_of(const Dofs& f, std::size_t point) {
  MatrixXd m = MatrixXd::Identity(6, 6);
  if (const Axes* a = f.frame(point)) {
    m.col(0) << a->x.x, a->x.y, a->x.z, 0, 0, 0;
    m.col(1) << a->y.x, a->y.y, a->y.z, 0, 0, 0;
    m.col(2) << a->z.x, a->z.y, a->z.z, 0, 0, 0;
  }
  return m;
}

// The degrees of freedom of points turned into their frames.
void turn(MatrixXd& m, Index first, const MatrixXd& frame) {
  if (m.size() == 0) return;
  m.middleRows(first, 6) = transposed_times(frame, m.middleRows(first, 6));
  m.middleCols(first, 6) = times(m.middleCols(first, 6), frame);
}

}  // namespace

Pencil::Pencil(const Spans& spans, const Dofs& f, const std::vector<std::shared_ptr<const SpanPencil>>& parts,
               const std::vector<AtPoint>& at_points)
    : dofs_(&f), points_(f.equations), size_(f.equations) {
  const auto rows_of_point = [&](Block& b, std::size_t point) {
    for (std::size_t k = 0; k < 6; ++k) b.row.push_back(f.equation[point][k]);
  };
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const Span& span = spans.all[i];
    Block b{.of = parts[i], .outer = 12};
    rows_of_point(b, span.a), rows_of_point(b, span.b);
    if (f.frame(span.a) || f.frame(span.b)) {
      auto own = std::make_shared<SpanPencil>(*parts[i]);
      for (const auto& [point, first] : {std::pair{span.a, Index{0}}, {span.b, Index{6}}}) {
        const MatrixXd frame = frame_of(f, point);
        for (MatrixXd* m : {&own->stiffness, &own->geometric, &own->mass}) turn(*m, first, frame);
        own->movement.middleCols(first, 6) = solver::times(own->movement.middleCols(first, 6), frame);
      }
      b.of = std::move(own);
    }
    for (Index k = 12; k < b.of->stiffness.rows(); ++k) b.row.push_back(size_++);
    blocks_.push_back(std::move(b));
  }
  const MatrixXd none = MatrixXd::Zero(6, 6);
  const auto add_point = [&](std::size_t point, const MatrixXd& stiffness, const MatrixXd& geometric,
                             const MatrixXd& mass) {
    auto own = std::make_shared<SpanPencil>();
    own->stiffness = stiffness, own->geometric = geometric, own->mass = mass.size() > 0 ? mass : none;
    turn(own->geometric, 0, frame_of(f, point));
    turn(own->stiffness, 0, frame_of(f, point));
    turn(own->mass, 0, frame_of(f, point));
    Block b{.of = std::move(own), .outer = 6};
    rows_of_point(b, point);
    blocks_.push_back(std::move(b));
  };
  for (const PointSpring& s : f.springs) {
    MatrixXd stiffness = none;
    for (Index k = 0; k < 6; ++k) stiffness(k, k) = s.stiffness[static_cast<std::size_t>(k)];
    add_point(s.point, stiffness, MatrixXd(), none);
  }
  for (const AtPoint& p : at_points) add_point(p.point, none, p.geometric, p.mass);
  // Unit movements along the global axes, of all degrees of freedom of a block's points: those at rest too.
  for (const Block& b : blocks_) {
    MatrixXd along = MatrixXd::Zero(b.of->mass.rows(), 3);
    const bool span = b.outer == 12;
    const std::size_t index = static_cast<std::size_t>(&b - blocks_.data());
    for (Index end = 0; end < b.outer / 6; ++end) {
      const std::size_t point = !span ? 0 : end == 0 ? spans.all[index].a : spans.all[index].b;
      const MatrixXd frame = span ? frame_of(f, point) : MatrixXd(MatrixXd::Identity(6, 6));
      along.block(6 * end, 0, 3, 3) = frame.topLeftCorner(3, 3).transpose();
    }
    mass_rows_.push_back(solver::times(b.of->mass, along));
    mass_ += along.col(0).dot(mass_rows_.back().col(0));
  }
}

MatrixXd Pencil::gathered(const Block& b, const Eigen::Ref<const MatrixXd>& z) const {
  MatrixXd part = MatrixXd::Zero(static_cast<Index>(b.row.size()), z.cols());
  for (Index k = 0; k < part.rows(); ++k)
    if (const Index row = b.row[static_cast<std::size_t>(k)]; row >= 0) part.row(k) = z.row(row);
  return part;
}

MatrixXd Pencil::times(const Shares& s, const MatrixXd& z) const {
  MatrixXd y = MatrixXd::Zero(size_, z.cols());
  for (const Block& b : blocks_) {
    const MatrixXd part = gathered(b, z);
    MatrixXd f = MatrixXd::Zero(part.rows(), z.cols());
    if (s.stiffness != 0) add_times(f, b.of->stiffness, part, s.stiffness);
    if (s.geometric != 0 && b.of->geometric.size() > 0) add_times(f, b.of->geometric, part, s.geometric);
    if (s.mass != 0) add_times(f, b.of->mass, part, s.mass);
    for (Index k = 0; k < f.rows(); ++k)
      if (const Index row = b.row[static_cast<std::size_t>(k)]; row >= 0) y.row(row) += f.row(k);
  }
  return y;
}

VectorXd Pencil::diagonal(const Shares& s) const {
  VectorXd d = VectorXd::Zero(points_);
  for (const Block& b : blocks_)
    for (Index k = 0; k < b.outer; ++k)
      if (const Index row = b.row[static_cast<std::size_t>(k)]; row >= 0) {
        d(row) += s.stiffness * b.of->stiffness(k, k) + s.mass * b.of->mass(k, k);
        if (b.of->geometric.size() > 0) d(row) += s.geometric * b.of->geometric(k, k);
      }
  return d;
}

VectorXd Pencil::mass_along(std::size_t axis) const {
  VectorXd y = VectorXd::Zero(size_);
  for (std::size_t i = 0; i < blocks_.size(); ++i)
    for (std::size_t k = 0; k < blocks_[i].row.size(); ++k)
      if (const Index row = blocks_[i].row[k]; row >= 0)
        y(row) += mass_rows_[i](static_cast<Index>(k), static_cast<Index>(axis));
  return y;
}

double Pencil::whole_mass() const {
  return mass_;
}

Six Pencil::at_point(std::size_t point, const VectorXd& z) const {
  return dofs_->of_point(point, z.data());
}

VectorXd Pencil::along_span(std::size_t span, const VectorXd& z) const {
  return solver::times(blocks_[span].of->movement, gathered(blocks_[span], z));
}

MatrixXd Pencil::added(const SpanPencil& part, const Shares& shares) {
  MatrixXd a = shares.stiffness * part.stiffness;
  if (shares.geometric != 0 && part.geometric.size() > 0) a += shares.geometric * part.geometric;
  if (shares.mass != 0) a += shares.mass * part.mass;
  return a;
}

LowerMatrix Pencil::of_points(const std::vector<const MatrixXd*>& outer) const {
  std::vector<std::vector<std::pair<int, double>>> columns(static_cast<std::size_t>(points_));
  for (std::size_t k = 0; k < blocks_.size(); ++k) {
    const Block& b = blocks_[k];
    for (Index j = 0; j < b.outer; ++j)
      for (Index i = 0; i < b.outer; ++i) {
        const Index row = b.row[static_cast<std::size_t>(i)], column = b.row[static_cast<std::size_t>(j)];
        if (row < 0 || column < 0 || row < column) continue;
        columns[static_cast<std::size_t>(column)].emplace_back(static_cast<int>(row), (*outer[k])(i, j));
      }
  }
  LowerMatrix whole;
  whole.n = static_cast<int>(points_);
  whole.first.push_back(0);
  for (auto& column : columns) {
    std::sort(column.begin(), column.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    const std::size_t begin = whole.row.size();
    for (const auto& [row, value] : column) {
      if (whole.row.size() > begin && whole.row.back() == row)
        whole.value.back() += value;
      else
        whole.row.push_back(row), whole.value.push_back(value);
    }
    whole.first.push_back(static_cast<int>(whole.row.size()));
  }
  return whole;
}

ShiftedPencil::ShiftedPencil(const Pencil& pencil, const Shares& shares) {
  struct Inner {
    MatrixXd outer;  // with the inner degrees of freedom eliminated
    Index negative = 0;
  };
  std::map<const SpanPencil*, Inner> known;
  std::vector<const MatrixXd*> outer;
  for (const Pencil::Block& b : pencil.blocks_) {
    const auto [it, is_new] = known.try_emplace(b.of.get());
    Inner& in = it->second;
    if (is_new) {
      const MatrixXd a = Pencil::added(*b.of, shares);
      const Index n = a.rows() - b.outer;
      in.outer = a.topLeftCorner(b.outer, b.outer);
      if (n > 0) {
        const Eigen::LDLT<MatrixXd> factor(a.bottomRightCorner(n, n));
        const MatrixXd beside = a.bottomLeftCorner(n, b.outer);
        in.outer -= transposed_times(beside, factor.solve(beside));
        in.negative = (factor.vectorD().array() < 0).count();
      }
    }
    outer.push_back(&in.outer);
    negative_ += in.negative;
  }
  LowerMatrix whole = pencil.of_points(outer);
  factor_ = SignedFactor(whole);
  ok_ = factor_.ok();
  if (ok_) negative_ += factor_.negative();
}

}  // namespace corvex::solver
