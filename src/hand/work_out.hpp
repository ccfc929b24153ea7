// A hand calculation with its formulas evaluated and its names found.
#pragma once

#include "hand/figure.hpp"

namespace corvex::hand {

struct Worked {
  Target target;
  std::size_t load_case = 0;
  Quantity value;
  WorkedFormula formula;
  double within = 0;
  bool absolute = false;
};

struct WorkedOut {
  std::vector<WorkedValue> values;
  std::vector<Worked> expectations;  // in their order
};
// Or everything that is wrong.
Expected<WorkedOut, Problems> work_out(const Structure& structure, const HandCalculation& hand);

}  // namespace corvex::hand
