// Closeness as the tests promise it: 1e-9 of the expected value, or of a size where the value itself is
// small.
#pragma once

#include <catch2/catch.hpp>

#include "corvex/quantity.hpp"

namespace corvex::test {

inline constexpr double promised = 1e-9;

inline Approx near(double expected, double size = 0) {
  return Approx(expected).epsilon(promised).margin(promised * size);
}

template <int L, int M, int T, int K, int A>
Approx near(Measure<L, M, T, K, A> expected, Measure<L, M, T, K, A> size = {}) {
  return near(expected.si(), size.si());
}

}  // namespace corvex::test
