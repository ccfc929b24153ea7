// Boxes in a tree: which of many boxes meet one, without looking at all of them.
#pragma once

#include <algorithm>
#include <cstddef>
#include <vector>

#include "corvex/structure.hpp"

namespace corvex::inspection {

inline Box around(const Vector& a, const Vector& b) {
  return {{std::min(a.x, b.x), std::min(a.y, b.y), std::min(a.z, b.z)},
          {std::max(a.x, b.x), std::max(a.y, b.y), std::max(a.z, b.z)}};
}
inline Box widened(const Box& box, double by) {
  const Vector v{by, by, by};
  return {box.low - v, box.high + v};
}
inline bool meet(const Box& a, const Box& b) {
  return a.low.x <= b.high.x && b.low.x <= a.high.x && a.low.y <= b.high.y && b.low.y <= a.high.y &&
         a.low.z <= b.high.z && b.low.z <= a.high.z;
}

class BoxTree {
 public:
  explicit BoxTree(std::vector<Box> boxes);

  // Calls `found` with the number of every box that meets this one.
  template <class Found>
  void find(const Box& box, const Found& found) const {
    std::size_t stack[64], depth = 0;
    if (!nodes_.empty()) stack[depth++] = 0;
    while (depth > 0) {
      const Node& n = nodes_[stack[--depth]];
      if (!meet(n.box, box)) continue;
      if (n.count > 0) {
        for (std::size_t i = n.first; i < n.first + n.count; ++i)
          if (meet(boxes_[order_[i]], box)) found(order_[i]);
      } else {
        stack[depth++] = n.first;
        stack[depth++] = n.first + 1;
      }
    }
  }

 private:
  // A leaf has boxes [first, first + count) of the order; another node the children `first` and `first + 1`.
  struct Node {
    Box box;
    std::size_t first = 0, count = 0;
  };
  void divide(std::size_t node, std::size_t first, std::size_t count);

  std::vector<Box> boxes_;
  std::vector<std::size_t> order_;
  std::vector<Node> nodes_;
};

}  // namespace corvex::inspection
