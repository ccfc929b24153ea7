#include "solve/pencil.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace corvex::solver {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

// From the freedoms of a point along its own frame to the global axes.
MatrixXd frame_of(const Freedoms& f, std::size_t point) {
  MatrixXd m = MatrixXd::Identity(6, 6);
  if (const Axes* a = f.frame(point)) {
    m.col(0) << a->x.x, a->x.y, a->x.z, 0, 0, 0;
    m.col(1) << a->y.x, a->y.y, a->y.z, 0, 0, 0;
    m.col(2) << a->z.x, a->z.y, a->z.z, 0, 0, 0;
  }
  return m;
}

// The freedoms of points turned into their frames.
void turn(MatrixXd& m, Index first, const MatrixXd& frame) {
  if (m.size() == 0) return;
  m.middleRows(first, 6) = frame.transpose() * m.middleRows(first, 6).eval();
  m.middleCols(first, 6) = m.middleCols(first, 6).eval() * frame;
}

}  // namespace

Pencil::Pencil(const Spans& spans, const Freedoms& f, const std::vector<std::shared_ptr<const SpanPencil>>& parts,
               const std::vector<AtPoint>& at_points)
    : freedoms_(&f), points_(f.equations), size_(f.equations) {
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
        own->movement.middleCols(first, 6) = own->movement.middleCols(first, 6).eval() * frame;
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
  // Unit movements along the global axes, of all freedoms of a block's points: those at rest too.
  for (const Block& b : blocks_) {
    MatrixXd along = MatrixXd::Zero(b.of->mass.rows(), 3);
    const bool span = b.outer == 12;
    const std::size_t index = static_cast<std::size_t>(&b - blocks_.data());
    for (Index end = 0; end < b.outer / 6; ++end) {
      const std::size_t point = !span ? 0 : end == 0 ? spans.all[index].a : spans.all[index].b;
      const MatrixXd frame = span ? frame_of(f, point) : MatrixXd(MatrixXd::Identity(6, 6));
      along.block(6 * end, 0, 3, 3) = frame.topLeftCorner(3, 3).transpose();
    }
    mass_rows_.push_back(b.of->mass * along);
    mass_ += along.col(0).dot(mass_rows_.back().col(0));
  }
}

VectorXd Pencil::gathered(const Block& b, const VectorXd& z) const {
  VectorXd part(static_cast<Index>(b.row.size()));
  for (Index k = 0; k < part.size(); ++k) {
    const Index row = b.row[static_cast<std::size_t>(k)];
    part(k) = row < 0 ? 0 : z(row);
  }
  return part;
}

VectorXd Pencil::times(const Shares& s, const VectorXd& z) const {
  VectorXd y = VectorXd::Zero(size_);
  for (const Block& b : blocks_) {
    const VectorXd part = gathered(b, z);
    VectorXd f = VectorXd::Zero(part.size());
    if (s.stiffness != 0) f += s.stiffness * (b.of->stiffness * part);
    if (s.geometric != 0 && b.of->geometric.size() > 0) f += s.geometric * (b.of->geometric * part);
    if (s.mass != 0) f += s.mass * (b.of->mass * part);
    for (Index k = 0; k < f.size(); ++k)
      if (const Index row = b.row[static_cast<std::size_t>(k)]; row >= 0) y(row) += f(k);
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
  return freedoms_->of_point(point, z.data());
}

VectorXd Pencil::along_span(std::size_t span, const VectorXd& z) const {
  return blocks_[span].of->movement * gathered(blocks_[span], z);
}

ShiftedPencil::Inner ShiftedPencil::inner_of(const Pencil::Block& b, const Shares& shares) {
  MatrixXd a = shares.stiffness * b.of->stiffness;
  if (shares.geometric != 0 && b.of->geometric.size() > 0) a += shares.geometric * b.of->geometric;
  if (shares.mass != 0) a += shares.mass * b.of->mass;
  const Index n = a.rows() - b.outer;
  Inner in;
  in.outer = a.topLeftCorner(b.outer, b.outer);
  if (n == 0) return in;
  in.factor.compute(a.bottomRightCorner(n, n));
  in.beside = a.bottomLeftCorner(n, b.outer);
  in.outer -= in.beside.transpose() * in.factor.solve(in.beside);
  in.negative = (in.factor.vectorD().array() < 0).count();
  return in;
}

ShiftedPencil::ShiftedPencil(const Pencil& pencil, const Shares& shares) : pencil_(pencil) {
  LowerMatrix whole;
  whole.n = static_cast<int>(pencil.points_);
  std::vector<std::vector<std::pair<int, double>>> columns(static_cast<std::size_t>(whole.n));
  std::map<const SpanPencil*, std::shared_ptr<const Inner>> known;
  for (const Pencil::Block& b : pencil.blocks_) {
    std::shared_ptr<const Inner>& in = known[b.of.get()];
    if (!in) in = std::make_shared<const Inner>(inner_of(b, shares));
    inner_.push_back(in);
    negative_ += in->negative;
    for (Index j = 0; j < b.outer; ++j)
      for (Index i = 0; i < b.outer; ++i) {
        const Index row = b.row[static_cast<std::size_t>(i)], column = b.row[static_cast<std::size_t>(j)];
        if (row < 0 || column < 0 || row < column) continue;
        columns[static_cast<std::size_t>(column)].emplace_back(static_cast<int>(row), in->outer(i, j));
      }
  }
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
  factor_ = SignedFactor(whole);
  ok_ = factor_.ok();
  if (ok_) negative_ += factor_.negative();
}

VectorXd ShiftedPencil::solve(const VectorXd& f) const {
  VectorXd z = f;
  MatrixXd outer = f.head(pencil_.points_);
  // Inner freedoms first: what they pass on to the points.
  std::vector<VectorXd> inner(inner_.size());
  for (std::size_t i = 0; i < inner_.size(); ++i) {
    const Pencil::Block& b = pencil_.blocks_[i];
    const Index n = inner_[i]->beside.rows();
    if (n == 0) continue;
    VectorXd own(n);
    for (Index k = 0; k < n; ++k) own(k) = f(b.row[static_cast<std::size_t>(b.outer + k)]);
    inner[i] = inner_[i]->factor.solve(own);
    const VectorXd passed = inner_[i]->beside.transpose() * inner[i];
    for (Index k = 0; k < b.outer; ++k)
      if (const Index row = b.row[static_cast<std::size_t>(k)]; row >= 0) outer(row, 0) -= passed(k);
  }
  if (outer.size() > 0) z.head(pencil_.points_) = factor_.solve(outer);
  for (std::size_t i = 0; i < inner_.size(); ++i) {
    const Pencil::Block& b = pencil_.blocks_[i];
    const Index n = inner_[i]->beside.rows();
    if (n == 0) continue;
    VectorXd ends(b.outer);
    for (Index k = 0; k < b.outer; ++k) {
      const Index row = b.row[static_cast<std::size_t>(k)];
      ends(k) = row < 0 ? 0 : z(row);
    }
    const VectorXd own = inner[i] - inner_[i]->factor.solve(inner_[i]->beside * ends);
    for (Index k = 0; k < n; ++k) z(b.row[static_cast<std::size_t>(b.outer + k)]) = own(k);
  }
  return z;
}

}  // namespace corvex::solver
