// The exact course of internal forces and movements along a span: beam theory integrated piece by piece.
//
// With the signs of docs/theory.md: N' = −qx, Vy' = qy, Vz' = qz, Mz' = Vy − mz, My' = Vz + my, T' = −mx
// (m: moment per length); at a place with
// a load N jumps by −Px, Vy by Py, Vz by Pz, T by −mx, My by my, Mz by −mz. Movements: u' = N/EA + free strain,
// twist' = T/GJ, slope' = M/EI + free curvature, v' = slope − V/GA (the shear force V is minus the stress resultant on
// the face along +x).
#pragma once

#include <array>
#include <span>
#include <vector>

#include "beam/span_load.hpp"

namespace corvex::solver {

// Powers of the distance from the start of a piece: degree 5 suffices for every quantity of a beam.
struct Polynomial {
  std::array<double, 6> c{};

  double operator()(double s) const {
    double v = c[5];
    for (int i = 4; i >= 0; --i) v = v * s + c[static_cast<std::size_t>(i)];
    return v;
  }
  // The antiderivative with the given value at 0. The highest coefficient must be zero.
  Polynomial integral(double at_zero) const {
    Polynomial r;
    r.c[0] = at_zero;
    for (std::size_t i = 0; i < 5; ++i) r.c[i + 1] = c[i] / static_cast<double>(i + 1);
    return r;
  }
  // The same of the distance from `by`.
  Polynomial shifted(double by) const {
    Polynomial r = *this;
    for (std::size_t i = 0; i < 5; ++i)
      for (std::size_t k = 5; k-- > i;) r.c[k] += by * r.c[k + 1];
    return r;
  }
  Polynomial operator*(double f) const {
    Polynomial r = *this;
    for (double& x : r.c) x *= f;
    return r;
  }
  Polynomial operator-(const Polynomial& o) const {
    Polynomial r = *this;
    for (std::size_t i = 0; i < 6; ++i) r.c[i] -= o.c[i];
    return r;
  }
};

// The state of a cross-section. slope_y is the rotation in the x–y plane (about +z), slope_z the one in the
// x–z plane (about −y).
struct State {
  double N = 0, Vy = 0, Vz = 0, T = 0, My = 0, Mz = 0;
  double u = 0, v = 0, w = 0, twist = 0, slope_y = 0, slope_z = 0;
};

struct CoursePiece {
  double from = 0, to = 0;
  Polynomial N, Vy, Vz, T, My, Mz;
  Polynomial u, v, w, twist, slope_y, slope_z;

  State at(double s) const {
    return {N(s), Vy(s), Vz(s), T(s), My(s), Mz(s), u(s), v(s), w(s), twist(s), slope_y(s), slope_z(s)};
  }
};

// From the state at the span's start through all its loads. A span without loads has one piece.
std::vector<CoursePiece> integrate(const Rigidity& r, double length, std::span<const LoadPiece> loads,
                                   const State& start);

// The state at the span's end that the loads alone bring about when the start is free of force and at rest.
State particular(const Flexibility& f, std::span<const LoadPiece> loads);

}  // namespace corvex::solver
