// The forces of a member on its points, in the position in which they act.
#include <cmath>

#include "corvex/solution.hpp"
#include "result/data.hpp"

namespace corvex {
namespace {

// A vector turned about an axis through the length of `turn`, in rad (Rodrigues).
Vector turned(const Vector& v, const Vector& turn) {
  const double angle = length(turn);
  if (!(angle > 0)) return v;
  const Vector axis = turn / angle;
  return v * std::cos(angle) + cross(axis, v) * std::sin(angle) + axis * (dot(axis, v) * (1 - std::cos(angle)));
}

// Where forces act at a point of a member, and along which axes.
struct Position {
  Axes axes;   // of the section
  Vector arm;  // from the point to the end of the member
};

class Positions {
 public:
  Positions(const Structure& s, const Member& member, const std::vector<solver::Movement>& movement)
      : s_(s),
        member_(member),
        movement_(movement),
        axes_(local_axes(s, member)),
        large_(s.analysis().order == Order::large) {
    if (!large_ || member.kind == MemberKind::beam) return;
    // A link lies along the line between its ends.
    const Vector way = end(member.through.back(), 1) - end(member.through.front(), 0);
    if (length(way) > 0) axes_.x = way / length(way);
  }

  Position at(PointId point, double share, const SectionState& state) const {
    Vector arm = arm_at(share);
    if (!large_) return {axes_, arm};
    arm = turned(arm, turn_of(point));
    if (member_.kind == MemberKind::link) return {axes_, arm};
    const Vector turn = axes_.global({state.twist.si(), state.rotation_y.si(), state.rotation_z.si()});
    return {{turned(axes_.x, turn), turned(axes_.y, turn), turned(axes_.z, turn)}, arm};
  }

 private:
  Vector arm_at(double share) const { return member_.arm_start + (member_.arm_end - member_.arm_start) * share; }
  Vector turn_of(PointId point) const {
    const solver::Six& d = movement_[point.index].value;
    return {d[3], d[4], d[5]};
  }
  Vector end(PointId point, double share) const {
    const solver::Six& d = movement_[point.index].value;
    return s_[point].position + Vector{d[0], d[1], d[2]} + turned(arm_at(share), turn_of(point));
  }

  const Structure& s_;
  const Member& member_;
  const std::vector<solver::Movement>& movement_;
  Axes axes_;
  bool large_;
};

}  // namespace

std::vector<EndForces> MemberResult::end_forces() const {
  const Structure& s = data_->structure;
  const Positions positions(s, member(), data_->analysis.states[case_].movement);
  std::vector<EndForces> all;
  const std::vector<Joint> sides = joints();
  for (std::size_t k = 0, point = 0; k < sides.size(); ++point) {
    const PointId at = sides[k].point;
    const bool start = k == 0;
    const double share = s.place_of(member(), point) / s.length_of(member());
    Vector force, moment;
    for (; k < sides.size() && sides[k].point == at; ++k) {
      const SectionState& q = sides[k].state;
      const Position p = positions.at(at, share, q);
      const double sign = sides[k].side == Side::after ? 1 : -1;
      const Vector f = p.axes.global(Vector{q.axial.si(), -q.shear_y.si(), -q.shear_z.si()}) * sign;
      force += f;
      moment += p.axes.global(Vector{q.torsion.si(), -q.moment_y.si(), q.moment_z.si()}) * sign + cross(p.arm, f);
    }
    const auto end = start ? EndForces::End::start : k == sides.size() ? EndForces::End::end : EndForces::End::through;
    all.push_back({at,
                   end,
                   {ForceSize::si(force.x), ForceSize::si(force.y), ForceSize::si(force.z)},
                   {MomentSize::si(moment.x), MomentSize::si(moment.y), MomentSize::si(moment.z)}});
  }
  return all;
}

}  // namespace corvex
