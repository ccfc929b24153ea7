// The loads of a case, whether it is there already or not.
#pragma once

#include <string>

#include "corvex/structure.hpp"

namespace corvex::test {

inline LoadsOf loads_in(Structure& s, const std::string& name) {
  return s.find_load_case(name) ? s.loads_of(name) : s.load_case(name);
}

}  // namespace corvex::test
