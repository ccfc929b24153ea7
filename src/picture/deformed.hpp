// How far movements are drawn, and along which line a member lies then.
#pragma once

#include "picture/scene.hpp"

namespace corvex::picture {

// Movements are drawn so many times as large: as asked for, else a round number with which the largest of the scene and
// of what is beside it is no wider than seven letters.
double exaggeration(const Scene& scene);

struct DeformedLine {
  std::vector<Spot> moved, rest;
};
DeformedLine deformed_line(const Scene& scene, const Structure& structure, const MemberResult& member, double times);

// "in rail at 1.2 m"; "at C" where a point is there.
std::string movement_words(const Structure& structure, const ModelUnits& units, const Member& m, double along);

}  // namespace corvex::picture
