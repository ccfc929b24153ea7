// Internal forces along members, as they are drawn.
#pragma once

#include "picture/scene.hpp"

namespace corvex::picture {

// One figure of one member, and the direction in which its positive values stand.
struct Course {
  MemberId member;
  Diagram diagram;
  Vector up;
  const char* symbol = "";  // told where a member has the figure in both of its planes
};

// Of the members shown. Bending moments are on the tension (or compression) side, other figures on the positive side.
std::vector<Course> courses(const Structure& structure, const CaseResult& result, const std::vector<bool>& shown,
                            PictureOf what, bool pulled);
// The largest in the other solutions of a scene.
double largest_beside(const Scene& scene, PictureOf what);
// "Bending moment M"
const char* heading_of(PictureOf what);

}  // namespace corvex::picture
