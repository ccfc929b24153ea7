// Equilibrium of the joints with the forces of a solution put in.
#include "hand/write_chapters.hpp"
#include "structure/combined.hpp"

namespace corvex {
namespace {

using namespace hand;

// Loads of a case, or of a combination with their factors.
LoadCase loads_at(const Structure& s, std::size_t index) {
  const std::size_t cases = s.load_cases().size();
  return index < cases ? s.load_cases()[index] : combined(s, s.combinations()[index - cases]);
}

Forces in_piece_axes(const SectionState& f) {
  return {f.axial.si(), f.shear_y.si(), f.shear_z.si(), f.torsion.si(), f.moment_y.si(), f.moment_z.si()};
}

// From the local axes of a member to those of its pieces: the opposite roll.
Forces unrolled(const Skeleton& k, const Piece& p, const Forces& f) {
  if (!k.plane || !p.beam) return f;
  const Forces unit_y = in_own_axes(k, p, {0, 1, 0, 0, 0, 0}), moment_z = in_own_axes(k, p, {0, 0, 0, 0, 0, 1});
  // In the plane one shear force and one moment alone are not zero.
  return {f[N], f[Vy] * unit_y[Vy] + f[Vz] * unit_y[Vz], 0, 0, 0, f[My] * moment_z[My] + f[Mz] * moment_z[Mz]};
}

}  // namespace

Derivation check_joints(const Solution& solution, std::size_t load_case) {
  const Structure& s = solution.structure();
  const CaseResult result = solution[load_case];
  ForceMethod m;
  m.shape = std::make_shared<const Skeleton>(skeleton(s));
  const Skeleton& k = m.skeleton();
  m.acting = acting_on(k, loads_at(s, load_case));
  for (const Hold& h : k.holds) {
    const Reaction r = result.reaction(PointId(h.point));
    m.final.reaction.push_back(h.turning ? dot(h.direction, Vector{r.mx.si(), r.my.si(), r.mz.si()})
                                         : dot(h.direction, Vector{r.x.si(), r.y.si(), r.z.si()}));
  }
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    const MemberResult member = result[MemberId(p.member)];
    // A load at the very end of a piece belongs to it, so that its course goes through to the joint.
    Forces start = unrolled(k, p, in_piece_axes(member.at(Length::si(p.start), Side::after)));
    for (const std::size_t n : m.acting.places_on(i)) {
      const PlaceOn& l = m.acting.places[n];
      if (l.at > 1e-9 * p.length) continue;
      const Vector f = p.axes.local(l.force), turn = p.axes.local(l.moment);
      start[N] += f.x, start[Vy] -= f.y, start[Vz] -= f.z, start[T] += turn.x, start[My] -= turn.y, start[Mz] += turn.z;
    }
    if (!p.beam) {
      const PieceCourse hanging = course_of(k, m.acting, i, {start[N], 0, 0, 0, 0, 0});
      start = {start[N], -hanging.end[Mz] / p.length, -hanging.end[My] / p.length, 0, 0, 0};
    }
    m.final.start.push_back(start);
    m.final.course.push_back(course_of(k, m.acting, i, start));
  }
  Derivation d{.title = s.title(), .load_case = result.name(), .count = {}};
  DerivationChapter given = given_chapter(m);
  given.title = "Scope of the check";
  d.chapters.push_back(std::move(given));
  d.chapters.push_back(joints_chapter(Ledger(m, m.acting, m.final, dimension::number)));
  // Its figures are those of the solution: there is nothing to compare with it.
  return d;
}

}  // namespace corvex
