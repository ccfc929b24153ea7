// The tree of boxes finds what a look at every box finds.
#include "inspect/box_tree.hpp"

#include <catch2/catch.hpp>
#include <random>
#include <set>

namespace tests_of_box_tree {

using namespace corvex;
using namespace corvex::inspection;

TEST_CASE("Of thousands of boxes those that meet one are found, each once") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> place(0, 100), size(0, 4);
  const auto box = [&] {
    const Vector a{place(random), place(random), place(random)};
    return around(a, a + Vector{size(random), size(random), size(random)});
  };
  for (const std::size_t count : {std::size_t{0}, std::size_t{1}, std::size_t{2}, std::size_t{9}, std::size_t{3000}}) {
    std::vector<Box> boxes;
    for (std::size_t i = 0; i < count; ++i) boxes.push_back(box());
    const BoxTree tree(boxes);
    for (int k = 0; k < 200; ++k) {
      const Box wanted = widened(box(), 1);
      std::multiset<std::size_t> found, expected;
      tree.find(wanted, [&](std::size_t i) { found.insert(i); });
      for (std::size_t i = 0; i < count; ++i)
        if (meet(boxes[i], wanted)) expected.insert(i);
      CHECK(found == expected);
    }
  }
}

TEST_CASE("Boxes at one place, and flat ones, are all found") {
  const std::vector<Box> boxes(500, around({1, 2, 3}, {1, 2, 3}));
  std::size_t found = 0;
  BoxTree(boxes).find(around({0, 2, 3}, {1, 2, 3}), [&](std::size_t) { ++found; });
  CHECK(found == 500);
  BoxTree(boxes).find(around({0, 0, 0}, {0.9, 9, 9}), [&](std::size_t) { FAIL(); });
}

}  // namespace tests_of_box_tree
