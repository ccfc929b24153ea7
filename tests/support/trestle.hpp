// A small portal with parameters: what variants, sweeps and choices are tried on.
#pragma once

#include <string>

namespace corvex::test {

inline const std::string trestle = R"(corvex: 1
title: Trestle
units: {length: mm, force: kN}
parameters: {span: 2.4 m, wall: 4 mm}
sections:
  leg:  {shape: square tube, width: 60 mm, wall: wall}
  rail: RHS 80x40x4
points: {A: [0, 0], B: [0, 900], C: [span/2, 900], D: [span, 900], E: [span, 0]}
members:
  left leg:  {through: [A, B], section: leg, material: S235}
  rail:      {through: [B, C, D], section: rail, material: S235}
  right leg: {through: [E, D], section: leg, material: S235}
supports: {A: fixed, E: fixed}
loads:
  product: [{at: C, force: {down: 3.2}}, {on: rail, line: {down: 0.8 kN/m}}]
  push: [{at: B, force: {x: 0.3}}]
)";

}  // namespace corvex::test
