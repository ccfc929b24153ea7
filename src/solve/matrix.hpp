// The stiffness matrix: lower triangle in compressed columns, assembled straight into place.
#pragma once

#include <Eigen/Core>
#include <vector>

#include "solve/element.hpp"
#include "solve/freedoms.hpp"
#include "solve/ordering.hpp"

namespace corvex::solver {

struct LowerMatrix {
  int n = 0;
  std::vector<int> first;  // of each column; one more at the end
  std::vector<int> row;
  std::vector<double> value;
  // What the diagonal of each freedom is small against: the largest diagonal of the movements, or of the
  // rotations, of its point. Told apart from rounding by it: a link that should stand square to a freedom
  // gives it 1e-32 of that.
  std::vector<double> reference;

  Eigen::VectorXd diagonal() const;
  // this · x, with the upper triangle by symmetry.
  Eigen::MatrixXd times(const Eigen::MatrixXd& x) const;
  // The same with rows and columns of some freedoms replaced by those of the unit matrix.
  LowerMatrix grounded(const std::vector<int>& freedoms) const;
};

// Points of the structure that have free freedoms, joined where a span joins them.
struct PointGraph {
  Graph graph;
  std::vector<std::size_t> point;  // of each vertex
  std::vector<int> weight;         // free freedoms of each vertex
};
PointGraph point_graph(const Spans& spans, const Freedoms& f);

// Places for all entries, once for a topology; then the numbers.
class Assembly {
 public:
  // `f` must be numbered in the order of `order`, the vertices of `g` by elimination.
  Assembly(const PointGraph& g, const std::vector<int>& order, const Freedoms& f);

  void add(const Span& span, const Matrix12& global_stiffness);
  LowerMatrix take();

 private:
  void add_block(std::size_t p, std::size_t q, const Matrix12& K, int row_offset, int column_offset);

  const Freedoms& f_;
  LowerMatrix matrix_;
  std::vector<int> place_;            // of each point in the order, −1 without freedoms
  std::vector<int> neighbour_first_;  // later neighbours of each place, ascending
  std::vector<int> neighbour_, neighbour_offset_;
};

// Orders and numbers the free freedoms and assembles the stiffness of all spans.
LowerMatrix assemble_all(const Structure& structure, const Spans& spans, Freedoms& f);

}  // namespace corvex::solver
