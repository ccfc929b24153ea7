// The order in which points are eliminated. Ordering the graph of points instead of single degrees of freedom costs
// half of the analysis and no fill.
#pragma once

#include <vector>

namespace corvex::solver {

// Neighbours of each vertex, without itself.
struct Graph {
  std::vector<int> first;  // of each vertex; one more at the end
  std::vector<int> neighbour;
  int size() const { return static_cast<int>(first.size()) - 1; }
};

struct Order {
  std::vector<int> vertices;
  double operations = 0;  // multiplications of a factorisation in this order
};

// The order of elimination: by approximate minimum degree, or by Scotch's nested dissection where the graph is large
// and that takes fewer operations. `weight` is the number of freedoms of each vertex.
Order elimination_order(const Graph& graph, const std::vector<int>& weight);

}  // namespace corvex::solver
