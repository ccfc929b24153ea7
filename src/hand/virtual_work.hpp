// Virtual work of one state's forces in the deformations of another: ∫ N n/EA + M m/EI + V v/GA + T t/GJ, with springs,
// heat, lack of fit and settlements (Gere and Timoshenko, Mechanics of Materials, 9.10).
#pragma once

#include "hand/statics.hpp"

namespace corvex::hand {

// One line of such a sum: a piece's stretch with the values of both courses at its start, middle and end, or at five
// places where their product is of a higher degree than three (Boole's rule); or a spring, a strain, a settlement.
struct WorkTerm {
  enum class Kind {
    axial,
    bending_z,
    bending_y,
    shear_y,
    shear_z,
    torsion,
    coupled,
    spring,
    elongation,   // heat and lack of fit along the member
    curvature_z,  // heat across it
    curvature_y,
    settlement
  };
  Kind kind = Kind::axial;
  std::size_t index = 0;         // of the piece or hold
  double from = 0, to = 0;       // along the piece
  std::vector<double> a{}, b{};  // real and virtual: three or five values; one each of springs and settlements
  double flexibility = 0;        // 1/EI and the like; of strain and settlement 1
  double value = 0;
};

// Forces of the first state deform, those of the second do virtual work on it. `ground`, `strains`: what the first
// state adds.
std::vector<WorkTerm> virtual_work(const Skeleton& skeleton, const State& real, const Acting& acting,
                                   const State& virtual_state);
double sum(const std::vector<WorkTerm>& terms);

}  // namespace corvex::hand
