// The structures that are measured, built through the library.
#pragma once

#include <corvex/corvex.hpp>
#include <string>

namespace bench {

// Every case has forces of its own on every seventh point; weight is in the first one, or in all.
enum class Weight { first_case, every_case };

// A lattice of n × n × n points in space, beams along all edges, the lowest layer held.
corvex::Structure lattice(int n, int cases, Weight weight = Weight::first_case);
// A line of points in space, every tenth one held: a pipe on its brackets.
corvex::Structure chain(int points, int cases, Weight weight = Weight::first_case);
// A plane frame of so many bays and storeys.
corvex::Structure flat_frame(int bays, int storeys, int cases, Weight weight = Weight::first_case);
// The same structure as a model file.
std::string as_model_file(const corvex::Structure& structure);

}  // namespace bench
