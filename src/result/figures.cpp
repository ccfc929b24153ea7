#include "corvex/figures.hpp"

#include <algorithm>

namespace corvex {
namespace {

// The value of a member of SectionState.
template <auto value>
Quantity get(const SectionState& s) {
  return s.*value;
}

}  // namespace

namespace {

template <auto member_function>
Diagram along(const MemberResult& member) {
  return (member.*member_function)();
}

}  // namespace

const std::vector<MemberFigure>& member_figures() {
  using S = SectionState;
  using R = MemberResult;
  using M = MemberEnvelope;
  using E = SectionEnvelope;
  using enum MemberFigure::Kind;
  using N = MemberFigure::Needs;
  // clang-format off
  static const std::vector<MemberFigure> all = {
      {"axial", "axial", "N", force, N::nothing, get<&S::axial>, along<&R::axial>, &M::axial, &E::axial},
      {"shear_y", "shear-y", "Vy", force, N::beam_about_z, get<&S::shear_y>, along<&R::shear_y>, &M::shear_y, &E::shear_y},
      {"shear_z", "shear-z", "Vz", force, N::beam_about_y, get<&S::shear_z>, along<&R::shear_z>, &M::shear_z, &E::shear_z},
      {"torsion", "torsion", "T", moment, N::beam_in_space, get<&S::torsion>, along<&R::torsion>, &M::torsion, &E::torsion},
      {"moment_y", "moment-y", "My", moment, N::beam_about_y, get<&S::moment_y>, along<&R::moment_y>, &M::moment_y,
       &E::moment_y},
      {"moment_z", "moment-z", "Mz", moment, N::beam_about_z, get<&S::moment_z>, along<&R::moment_z>, &M::moment_z,
       &E::moment_z},
      {"deflection_y", "deflection-y", "defl. y", movement, N::bending_about_z, get<&S::deflection_y>,
       along<&R::deflection_y>, &M::deflection_y, &E::deflection_y},
      {"deflection_z", "deflection-z", "defl. z", movement, N::bending_about_y, get<&S::deflection_z>,
       along<&R::deflection_z>, &M::deflection_z, &E::deflection_z},
      {"x", nullptr, "x", movement, N::nothing, get<&S::x>, nullptr, nullptr, &E::x},
      {"y", nullptr, "y", movement, N::nothing, get<&S::y>, nullptr, nullptr, &E::y},
      {"z", nullptr, "z", movement, N::space, get<&S::z>, nullptr, nullptr, &E::z},
      {"twist", nullptr, "twist", rotation, N::beam_in_space, get<&S::twist>},
      {"rotation_y", nullptr, "rot. y", rotation, N::beam_about_y, get<&S::rotation_y>, along<&R::rotation_y>},
      {"rotation_z", nullptr, "rot. z", rotation, N::beam_about_z, get<&S::rotation_z>, along<&R::rotation_z>}};
  // clang-format on
  return all;
}

const MemberFigure* find_member_figure(std::string_view name) {
  const auto& all = member_figures();
  const auto it = std::find_if(all.begin(), all.end(), [&](const MemberFigure& f) { return f.name == name; });
  return it == all.end() ? nullptr : &*it;
}

Dimension MemberFigure::dimension() const {
  switch (kind) {
    case Kind::force: return dimension::force;
    case Kind::moment: return dimension::moment;
    case Kind::movement: return dimension::length;
    case Kind::rotation: return Angle::dimension();
  }
  return {};
}

bool MemberFigure::exists_in(const Structure& structure, const MemberRef& which) const {
  const Member& member = structure[structure.at(which)];
  const bool space = !structure.is_plane(), beam = member.kind == MemberKind::beam;
  switch (needs) {
    case Needs::nothing: return true;
    case Needs::space: return space;
    case Needs::beam_in_space: return beam && space;
    case Needs::bending_about_y: return bending_axes(structure, member).y;
    case Needs::bending_about_z: return bending_axes(structure, member).z;
    case Needs::beam_about_y: return beam && bending_axes(structure, member).y;
    case Needs::beam_about_z: return beam && bending_axes(structure, member).z;
  }
  return false;
}

}  // namespace corvex
