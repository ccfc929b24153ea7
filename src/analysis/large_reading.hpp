// Movements, reactions and the course of every figure along the members, read from a mesh in equilibrium.
#pragma once

#include <utility>
#include <vector>

#include "analysis/large_mesh.hpp"

namespace corvex::solver {

// `steps`: the shares of the load with the largest movements; `correction`: the last one of Newton's method.
Solved read_results(const AnalysedCase& given, LargeMesh& mesh, const std::vector<std::pair<double, double>>& steps,
                    double correction);

}  // namespace corvex::solver
