#include "inspect/box_tree.hpp"

#include <numeric>

namespace corvex::inspection {

BoxTree::BoxTree(std::vector<Box> boxes) : boxes_(std::move(boxes)), order_(boxes_.size()) {
  std::iota(order_.begin(), order_.end(), 0);
  if (boxes_.empty()) return;
  nodes_.reserve(boxes_.size());
  nodes_.emplace_back();
  divide(0, 0, boxes_.size());
}

// Halves along the longest side, so that the depth is the logarithm of the number.
void BoxTree::divide(std::size_t node, std::size_t first, std::size_t count) {
  constexpr std::size_t few = 8;
  Box all = boxes_[order_[first]];
  for (std::size_t i = first + 1; i < first + count; ++i) {
    const Box& b = boxes_[order_[i]];
    all = {around(all.low, b.low).low, around(all.high, b.high).high};
  }
  nodes_[node] = {all, first, count};
  if (count <= few) return;
  const Vector size = all.high - all.low;
  double Vector::*axis = size.x >= size.y && size.x >= size.z ? &Vector::x : size.y >= size.z ? &Vector::y : &Vector::z;
  const auto middle = [&](std::size_t i) { return boxes_[i].low.*axis + boxes_[i].high.*axis; };
  const auto begin = order_.begin() + static_cast<std::ptrdiff_t>(first);
  const std::size_t half = count / 2;
  std::nth_element(begin, begin + static_cast<std::ptrdiff_t>(half), begin + static_cast<std::ptrdiff_t>(count),
                   [&](std::size_t a, std::size_t b) { return middle(a) < middle(b); });
  const std::size_t children = nodes_.size();
  nodes_.resize(children + 2);
  nodes_[node].first = children, nodes_[node].count = 0;
  divide(children, first, half);
  divide(children + 1, first + half, count - half);
}

}  // namespace corvex::inspection
