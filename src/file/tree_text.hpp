// A tree written as YAML again: keys of the top and their entries a line each, what is below them in braces.
#pragma once

#include "file/tree.hpp"

namespace corvex::file {

// Reads back to the same tree; comments and the arrangement of lines are not kept.
std::string tree_text(const Tree& tree);

}  // namespace corvex::file
