// The matrices of a whole structure for buckling and vibration: stiffness, what axial forces do, mass. In the free
// degrees of freedom of the points, then the inner ones of the spans, which are eliminated span by span.
#pragma once

#include <memory>

#include "linear_system/signed_factor.hpp"
#include "modes/span_pencil.hpp"

namespace corvex::solver {

// k·K + g·G + m·M
struct Shares {
  double stiffness = 1, geometric = 0, mass = 0;
};

class Pencil {
 public:
  // Of a point by itself, in its six movements along the global axes; where empty there is none.
  struct AtPoint {
    std::size_t point = 0;
    Eigen::MatrixXd geometric{}, mass{};
  };
  // The numbering of degrees of freedom is an order of elimination. Spans that are alike may share a part.
  Pencil(const Spans& spans, const Dofs& dofs, const std::vector<std::shared_ptr<const SpanPencil>>& parts,
         const std::vector<AtPoint>& at_points);

  Eigen::Index size() const { return size_; }
  Eigen::Index points() const { return points_; }
  // (k·K + g·G + m·M) z, of one vector or of several as columns
  Eigen::MatrixXd times(const Shares& shares, const Eigen::MatrixXd& z) const;
  // The diagonal for the degrees of freedom of points.
  Eigen::VectorXd diagonal(const Shares& shares) const;
  // Movement as a whole along a global axis, supports included: M r for all free degrees of freedom, and the total
  // mass.
  Eigen::VectorXd mass_along(std::size_t axis) const;
  double whole_mass() const;
  // All movements of the points and spans in a vector, in global axes.
  Six at_point(std::size_t point, const Eigen::VectorXd& z) const;
  Eigen::VectorXd along_span(std::size_t span, const Eigen::VectorXd& z) const;

 private:
  friend class ShiftedPencil;
  friend class ReducedPencil;

  struct Block {
    std::vector<Eigen::Index> row{};  // of each of its degrees of freedom in the whole, −1 if restrained
    std::shared_ptr<const SpanPencil> of{};
    Eigen::Index outer = 0;  // so many of them are of points
  };
  Eigen::MatrixXd gathered(const Block& b, const Eigen::Ref<const Eigen::MatrixXd>& z) const;
  static Eigen::MatrixXd added(const SpanPencil& part, const Shares& shares);
  // The matrix of the points, of one for each block.
  LowerMatrix of_points(const std::vector<const Eigen::MatrixXd*>& outer) const;

  const Dofs* dofs_;
  std::vector<Block> blocks_;               // spans, then points
  std::vector<Eigen::MatrixXd> movement_;   // of each span
  std::vector<Eigen::MatrixXd> mass_rows_;  // of each block: its mass times unit movements along the axes
  Eigen::Index points_ = 0, size_ = 0;
  double mass_ = 0;
};

// The same with shares added up and factorised, the inner degrees of freedom of spans first.
class ShiftedPencil {
 public:
  ShiftedPencil(const Pencil& pencil, const Shares& shares);

  bool ok() const { return ok_; }
  // Negative pivots: with shares 1, 0, −λ the number of frequencies below λ (Wittrick and Williams, 1971; by
  // Sylvester's law of inertia).
  Eigen::Index negative() const { return negative_; }
  // Forces and movements of the points, where no load acts on inner degrees of freedom.
  Eigen::MatrixXd solve_points(const Eigen::MatrixXd& f) const { return factor_.solve(f); }

 private:
  SignedFactor factor_;
  Eigen::Index negative_ = 0;
  bool ok_ = true;
};

}  // namespace corvex::solver
