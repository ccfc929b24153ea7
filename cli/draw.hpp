// The verb `draw`.
#pragma once

#include <string>
#include <vector>

#include "output.hpp"

namespace corvex::cli {

struct DrawOptions {
  ModelOptions model;
  std::string what = "structure", load_case, view, size, output, units, moment_side = "tension";
  std::vector<std::string> only, variants;
  double scale = 0;
  int mode = 0;  // 1 if not given
  bool true_scale = false, dark = false, animate = false, dimensions = false, real_width = false, side_by_side = false;
  int digits = 4;
};

// What can be drawn, by its name.
const std::vector<std::string>& pictures();
const std::vector<std::string>& views();

// A picture into a file. The exit status.
int draw(const DrawOptions& options);

}  // namespace corvex::cli
