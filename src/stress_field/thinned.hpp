// Samples of a smooth course of stress, reduced to those that a chord cannot replace.
#pragma once

#include <vector>

#include "stress_field/stress_field.hpp"

namespace corvex::section {

// The size of each unit field and of the outline: what a deviation is measured against.
struct FieldScale {
  double length = 0, up = 0, right = 0, twist = 0;

  void include(const EdgeSample& s);
};

// Keeps both ends and as few of the others as keep every sample within `tolerance` of the chord between its kept
// neighbours.
std::vector<EdgeSample> thinned(const std::vector<EdgeSample>& samples, const FieldScale& scale,
                                double tolerance = 5e-4);

}  // namespace corvex::section
