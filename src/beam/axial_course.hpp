// The axial force along a span.
#pragma once

#include <vector>

namespace corvex::solver {

// Tension positive: Σ n[i] xⁱ with x from the span's start, piece by piece.
struct AxialCourse {
  struct Piece {
    double from = 0, to = 0;
    double n[3] = {0, 0, 0};

    double at(double x) const { return n[0] + x * (n[1] + x * n[2]); }
  };
  std::vector<Piece> pieces{};

  bool none() const;
  // Without its sign.
  double largest() const;
  // The largest compression, positive; 0 without any.
  double largest_compression() const;
  // Of all pieces, each counted with its length.
  double mean() const;
};

}  // namespace corvex::solver
