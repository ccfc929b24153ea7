// The structures that are measured, built through the library.
#pragma once

#include <corvex/corvex.hpp>
#include <string>

namespace bench {

// A lattice of n × n × n points in space, beams along all edges, the lowest layer held.
corvex::Structure lattice(int n, int cases);
// A line of points in space, every tenth one held: a pipe on its brackets.
corvex::Structure chain(int points, int cases);
// A plane frame of so many bays and storeys.
corvex::Structure flat_frame(int bays, int storeys, int cases);
// The same structure as a model file.
std::string model_text(const corvex::Structure& structure);

}  // namespace bench
