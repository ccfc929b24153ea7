// How far movements are drawn, and along which line a member lies then.
#pragma once

#include "picture/scene.hpp"

namespace corvex::picture {

// Displacements are magnified: by the given factor, otherwise by a round number with which the largest of the scene and
// of the other scenes is not larger than seven letters.
double exaggeration(const Scene& scene);

struct DeformedLine {
  std::vector<Spot> moved, rest;
};
DeformedLine deformed_line(const Scene& scene, const Structure& structure, const MemberResult& member, double times);

// "in rail at 1.2 m"; "at C" where a point is there.
std::string movement_words(const Structure& structure, const ModelUnits& units, const Member& m, double along);

}  // namespace corvex::picture
