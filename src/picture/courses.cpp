#include "picture/courses.hpp"

#include <algorithm>

namespace corvex::picture {

std::vector<Course> courses(const Structure& s, const CaseResult& result, const std::vector<bool>& shown,
                            PictureOf what, bool pulled) {
  std::vector<Course> all;
  const double side = pulled ? -1 : 1;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!shown[i]) continue;
    const MemberId id{i};
    const MemberResult m = result[id];
    const Axes axes = local_axes(s, s.members()[i]);
    const bool beam = s.members()[i].kind == MemberKind::beam;
    // Of a member with two planes each has its own direction; in a plane structure only one of them is seen.
    const auto [z, y] = bending_axes(s, s.members()[i]);
    const Vector across = y ? axes.y : axes.z;
    switch (what) {
      case PictureOf::axial: all.push_back({id, m.axial(), across}); break;
      case PictureOf::torsion:
        if (beam) all.push_back({id, m.torsion(), across});
        break;
      case PictureOf::shear:
        if (beam && y) all.push_back({id, m.shear_y(), axes.y, z ? "Vy " : ""});
        if (beam && z) all.push_back({id, m.shear_z(), axes.z, y ? "Vz " : ""});
        break;
      default:
        if (beam && y) all.push_back({id, m.moment_z(), axes.y * side, z ? "Mz " : ""});
        if (beam && z) all.push_back({id, m.moment_y(), axes.z * side, y ? "My " : ""});
    }
  }
  return all;
}

double largest_beside(const Scene& scene, PictureOf what) {
  double most = 0;
  for (const Beside& other : scene.beside())
    for (const Course& c : courses(other.solution->structure(), other.result, other.shown, what, true))
      most = std::max(most, c.diagram.largest().si);
  return most;
}

const char* heading_of(PictureOf what) {
  switch (what) {
    case PictureOf::axial: return "Axial force N";
    case PictureOf::shear: return "Shear force V";
    case PictureOf::torsion: return "Torsion T";
    default: return "Bending moment M";
  }
}

}  // namespace corvex::picture
