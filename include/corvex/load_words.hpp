// Corvex: a load in words and values, the same in tables, pictures, pages, reports and messages.
//
//     const corvex::Structure& s = solution.structure();
//     const corvex::LoadWords words = corvex::load_words(s, s.load_cases()[0].loads()[0], {});
//     fmt::print("{}: {} {}\n", words.on, words.kind, words.value);   // C: force 3.2 kN
//
// Of a sound structure only (`validate`). Threads: every function may be called from several threads at once.
#pragma once

#include <string>
#include <vector>

#include "corvex/acting.hpp"
#include "corvex/model_units.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// One vector of a load, in the axes of the load, multiplied by the factor.
struct LoadPart {
  std::string name;  // "force", "line load, first"
  Vector value;      // SI units
  NamedUnit unit;
};

struct LoadWords {
  std::string on;      // "C", "rail from 200 mm to 800 mm", "all members and masses"
  std::string kind;    // name(kind_of(load)): "line load"
  std::string value;   // "2 kN", "from 1 kN/m to 2 kN/m", "+35 K", "2 mm too short"; sizes of forces without direction
  std::string remark;  // "local axes; through the centroid"; empty where there is none
  // Its components; none of a temperature change and a lack of fit, which have no direction.
  std::vector<LoadPart> parts{};
};
// `factor`: of the load, as in a combination. `digits`: 1 to 15, significant.
LoadWords load_words(const Structure& structure, const Load& load, const ModelUnits& units, double factor = 1,
                     int digits = 6);
// "through the centroid", "through y = 0 mm, z = 100 mm of the section"; empty where the load names no such place.
std::string point_of_action(const Load& load, const ModelUnits& units);

}  // namespace corvex

#pragma GCC visibility pop
