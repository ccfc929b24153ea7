// The stiffness matrix: lower triangle in compressed columns, assembled straight into place.
#pragma once

#include <Eigen/Core>
#include <vector>

#include "beam/element.hpp"
#include "linear_system/dofs.hpp"
#include "linear_system/ordering.hpp"

namespace corvex::solver {

struct LowerMatrix {
  int n = 0;
  std::vector<int> first;  // of each column; one more at the end
  std::vector<int> row;
  std::vector<double> value;
  // Reference value for a small diagonal: the largest diagonal of the displacements, or of the
  // rotations, of its point. It distinguishes rounding error: a link that should be perpendicular to a degree of
  // freedom gives it 1e-32 of that.
  std::vector<double> reference;
  // Multiplications that a factorisation takes; 0 where not known.
  double operations = 0;

  Eigen::VectorXd diagonal() const;
  // this · x, with the upper triangle by symmetry.
  Eigen::MatrixXd times(const Eigen::MatrixXd& x) const;
  // The same with rows and columns of some degrees of freedom replaced by those of the unit matrix.
  LowerMatrix grounded(const std::vector<int>& dofs) const;
};

// Points of the structure that have free degrees of freedom, joined where a span joins them.
struct PointGraph {
  Graph graph;
  std::vector<std::size_t> point;  // of each vertex
  std::vector<int> weight;         // free degrees of freedom of each vertex
};
PointGraph point_graph(const Spans& spans, const Dofs& f);

// Places for all entries, once for a topology; then the numbers, as often as they change.
class Pattern {
 public:
  // Orders and numbers the free degrees of freedom of `f`.
  Pattern(const Spans& spans, Dofs& f);

  // The stiffness of all spans. `f` is numbered as the pattern was made; K is empty, or was made by this pattern.
  void assemble(const Spans& spans, const std::vector<Element>& elements, const Dofs& f, LowerMatrix& K);
  // The same of these stiffnesses of the spans, in global axes and the movements of their points.
  void assemble(const Spans& spans, const std::vector<Matrix12>& stiffness, const Dofs& f, LowerMatrix& K);

 private:
  template <class OfSpan>
  void gather(const Spans& spans, const OfSpan& stiffness, const Dofs& f, LowerMatrix& K);
  // A block of the matrix: of which points, where it begins, and which part of the element's matrix it is.
  struct Corner {
    std::size_t p, q;
    int block, row_offset, column_offset;
  };
  void add_block(LowerMatrix& K, const Dofs& f, const Corner& corner, const Matrix12& element) const;

  LowerMatrix empty_;       // with its places, until the first matrix takes them over
  std::vector<int> place_;  // of each point in the order, −1 without degrees of freedom
  std::vector<int> block_;  // of each span: where the rows of its later point begin in the columns of the other
};

// From the ends of a span's rigid arms to its points.
Matrix12 at_points(Matrix12 at_ends, const Span& span);

// Pattern and numbers in one.
LowerMatrix assemble_all(const Spans& spans, const std::vector<Element>& elements, Dofs& f);

}  // namespace corvex::solver
