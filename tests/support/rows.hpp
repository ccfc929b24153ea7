// How long the rows of random models are. `./run-tests whole`, which CI runs, takes all of them; `./run-tests` takes a
// part, so that it ends sooner. Sanitizers take the part too.
#pragma once

#include <cstdlib>

namespace corvex::test {

inline bool whole() {
#ifdef CORVEX_SHORT_ROWS
  return false;
#else
  static const bool asked = std::getenv("CORVEX_WHOLE") != nullptr;
  return asked;
#endif
}

template <class Number>
Number rows(Number all, Number part) {
  return whole() ? all : part;
}

}  // namespace corvex::test
