#pragma once

#include <string>
#include <vector>

namespace corvex::cli {

struct NewOptions {
  std::string kind = "beam", output;
};

// Writes a commented model that names the schema, so that editors complete and check it. The exit status.
int begin_model(const NewOptions& options);

}  // namespace corvex::cli
