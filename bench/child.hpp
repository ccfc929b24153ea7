// Runs a measurement in a process of its own, so that its peak of memory is its own.
#pragma once

#include <functional>

#include "bare.hpp"

namespace bench {

struct Measured {
  double seconds[8] = {};
  double peak = 0;  // MB above nothing: all that the process ever held at once
  double extra = 0;
};

// `work` fills in what it measures. `peak` counts from the last call of `forget_peak`.
Measured in_child(const std::function<void(Measured&)>& work);
// Begins to count the peak of this process from what it holds now.
void forget_peak();

}  // namespace bench
