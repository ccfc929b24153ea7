#include "stability/restraint.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "section/worked.hpp"

namespace corvex::stability {
namespace {

constexpr double rigid = std::numeric_limits<double>::infinity();

// A support that holds a displacement holds a member of a plane structure out of the plane.
bool holds_out_of_plane(const Structure& s, PointId p) {
  return std::any_of(s.supports().begin(), s.supports().end(), [&](const PointSupport& support) {
    return support.at == p && (support.held[0] || support.held[1] || !support.along.empty());
  });
}

// Stiffness of the structure without the member against twist of its k-th point: that of the whole, less at most
// that of the member's own spans.
double twist_beside(const Structure& s, const Member& m, std::size_t k, const solver::JointStiffness& joints) {
  const std::size_t last = m.through.size() - 1;
  if (m.kind == MemberKind::beam && ((k == 0 && m.freed_start[3]) || (k == last && m.freed_end[3]))) return 0;
  const double turns = joints.rotation_by_unit_moment(m.through[k].index, local_axes(s, m).x);
  if (turns == 0) return rigid;
  if (!(turns > 0) || !std::isfinite(turns)) return 0;
  double own = 0;
  const double GJ = m.kind == MemberKind::beam
                        ? s.material_of(m).shear_modulus().si() * section::stiffness(s.section_of(m)).J.si()
                        : 0;
  if (k > 0) own += GJ / (s.place_of(m, k) - s.place_of(m, k - 1));
  if (k < last) own += GJ / (s.place_of(m, k + 1) - s.place_of(m, k));
  const double beside = 1 / turns - own;
  constexpr double rounding = 1e-6;
  return beside > rounding * own ? beside : 0;
}

void add_bracing(const Structure& s, MemberId id, Restraints& all) {
  const Member& m = s[id];
  for (const Bracing& b : s.bracing()) {
    if (!(b.member == id)) continue;
    const bool y = b.against == Against::both || b.against == Against::lateral || b.against == Against::y;
    const bool z = b.against == Against::both || b.against == Against::lateral || b.against == Against::z;
    const bool twist = b.against == Against::both || b.against == Against::twist;
    if (b.at.empty()) all.y_along |= y, all.z_along |= z, all.twist_along |= twist;
    for (const PointId p : b.at)
      for (std::size_t k = 0; k < m.through.size(); ++k) {
        if (!(m.through[k] == p)) continue;
        all.at[k].lateral_y |= y, all.at[k].lateral_z |= z;
        if (twist) all.at[k].twist = rigid;
      }
  }
}

}  // namespace

Restraints restraints(const Structure& s, MemberId id, const solver::JointStiffness* joints) {
  const Member& m = s[id];
  Restraints all;
  for (std::size_t k = 0; k < m.through.size(); ++k) {
    Restraint r{.point = k, .at = s.place_of(m, k)};
    if (s.is_plane() && holds_out_of_plane(s, m.through[k])) r.lateral_y = r.lateral_z = true, r.twist = rigid;
    if (joints) r.twist = twist_beside(s, m, k, *joints);
    all.at.push_back(r);
  }
  all.at.back().at = s.length_of(m);
  add_bracing(s, id, all);
  // A link is joined by pins across it, which keep its ends from twisting.
  if (m.kind == MemberKind::link) all.at.front().twist = all.at.back().twist = rigid;
  return all;
}

}  // namespace corvex::stability
