// Between which points the deflection of a member is read.
#pragma once

#include "corvex/solution.hpp"
#include "result/data.hpp"
#include "result/inner.hpp"

namespace corvex::result {

// All readings of a member in a case, without their values (MemberResult::stretches).
std::vector<Stretch> readings(const Data& data, MemberId member, std::size_t load_case);
// Pairs of points for drift, without their values.
std::vector<Stretch> drift_pairs(const Data& data, MemberId member, std::size_t load_case);

// The difference of the displacements across the member of two places; at the one that moves more.
Extreme difference(const Inner& inner, Length from, Length to);
// The one of the two that moves less.
double root_of(const Inner& inner, Length from, Length to);

// An upper bound of the distance of a member from the chord of two of its points, from the displacements of the points
// between and the largest distance from the chords of neighbouring points.
class ChordBounds {
 public:
  // `places` of the member's points; `local`: the largest distance from the chord between each and the next.
  ChordBounds(const Inner& inner, std::vector<double> places, std::vector<double> local);
  double bound(std::size_t first, std::size_t last) const;

 private:
  std::vector<double> places_, local_;
  std::vector<std::pair<double, double>> moved_;
};

// The reading of the worst ratio; of equal ones the one with the larger deflection.
Stretch worst(const std::vector<Stretch>& readings);

}  // namespace corvex::result
