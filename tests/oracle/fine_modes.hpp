// Frequencies and load factors by the textbook's finite elements: each span cut into short pieces with consistent mass
// and geometric stiffness (Przemieniecki, Theory of Matrix Structural Analysis, ch. 11, 15), everything in dense
// matrices.
#pragma once

#include <corvex/corvex.hpp>
#include <vector>

namespace corvex::test {

// Of structures without rigid arms, springs, skew supports, releases other than hinges, and members that act one way
// only. `pieces`: of each span. The first frequencies (Hz), the first load factors of a case that was solved.
std::vector<double> fine_frequencies(const Structure& structure, int pieces, std::size_t count);
// How points move in a case of loads on points, with the axial forces of its solution.
std::vector<Vector> fine_displacements(const Solution& solution, std::size_t load_case, int pieces);
std::vector<double> fine_factors(const Solution& solution, std::size_t load_case, int pieces, std::size_t count);

}  // namespace corvex::test
