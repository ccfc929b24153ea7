#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/number.hpp"
#include "section/worked.hpp"
#include "structure/checks.hpp"
#include "structure/words.hpp"

namespace corvex {
namespace {

std::string how_long(const Structure& s, double length) {
  return std::isfinite(length) ? length_words(s, length, 4) + " long" : "too long to be computed";
}

class MemberChecks : Checks {
 public:
  using Checks::Checks;

  void run() {
    for (const Member& m : s_.members()) check(m);
  }

 private:
  void check(const Member& m) {
    const Subject subject{Kind::member, m.name};
    if (!s_.has(m.section)) return add("the section does not belong to this structure", subject, "section");
    for (const PointId p : m.through)
      if (!s_.has(p)) return add("a point does not belong to this structure", subject, "through");
    if (m.through.size() < 2) return add("a member has at least two points", subject, "through");
    if (m.kind == MemberKind::link && m.through.size() != 2)
      add("a link has two points; a beam can have more", subject, "through");
    if (m.kind == MemberKind::link && m.hinge != Hinge::none)
      add("a link carries axial force only; it has no rotation to release", subject, "hinge");
    if (m.acts != Acts::always && m.through.size() != 2) add("a one-way member has two points", subject, "acts");
    if (!check_line(m, subject)) return;
    check_releases(m, subject);
    if (m.kind == MemberKind::beam) check_beam(m, subject);
  }

  static bool any(const std::array<bool, 6>& freed) {
    return std::any_of(freed.begin(), freed.end(), [](bool f) { return f; });
  }

  void check_releases(const Member& m, const Subject& subject) {
    std::array<bool, 6> start = m.freed_start, end = m.freed_end;
    if (!any(start) && !any(end)) return;
    const bool by_hinge = m.hinge != Hinge::none;
    if (m.kind == MemberKind::link) {
      if (!by_hinge) add("a link carries axial force only; it has no other release", subject, "release");
      return;
    }
    if (s_.is_plane()) check_plane_releases(m, subject);
    if (m.acts != Acts::always && (start[0] || end[0]))
      add("a one-way member cannot release its axial force", subject, "release");
    // Within one member the first span and the last may be the same; with points between each has one free end at most.
    if (m.through.size() > 2) {
      check_free_motion(m, start, {}, subject);
      check_free_motion(m, {}, end, subject);
    } else {
      check_free_motion(m, start, end, subject);
    }
  }

  // In the plane there are axial force, one shear force and one moment.
  void check_plane_releases(const Member& m, const Subject& subject) {
    if (leaves_plane(m) && m.hinge == Hinge::none)
      return add("in a plane structure a member with releases can be rolled by quarter turns only", subject, "roll");
    static constexpr const char* names[] = {"axial", "shear-y", "shear-z", "torsion", "moment-y", "moment-z"};
    const bool about_y = bends_about_y(m);
    const bool exists[] = {true, !about_y, about_y, false, about_y, !about_y};
    for (const auto* freed : {&m.freed_start, &m.freed_end}) {
      const bool hinge = (*freed)[4] && (*freed)[5];
      for (std::size_t k = 0; k < 6; ++k)
        if ((*freed)[k] && !exists[k] && !(hinge && k > 3))
          add(fmt::format("in a plane structure this member has no {} to release", names[k]), subject, "release");
    }
  }

  // Whether a span that is held by all that is not freed could still move by itself.
  void check_free_motion(const Member& m, const std::array<bool, 6>& a, const std::array<bool, 6>& b,
                         const Subject& subject) {
    const char* moves = nullptr;
    if (a[0] && b[0]) moves = "slides along its axis";
    if (a[3] && b[3]) moves = "rotates about its axis";
    for (const auto& [shear, moment] : {std::pair<std::size_t, std::size_t>{1, 5}, {2, 4}}) {
      const int held = !a[shear] + !b[shear] + !a[moment] + !b[moment];
      if ((a[shear] && b[shear]) || held < 2) moves = "moves transversely or rotates";
    }
    if (moves)
      add(fmt::format("with these releases '{}' {} by itself: nothing restrains it", m.name, moves), subject,
          m.hinge != Hinge::none ? "hinge" : "release");
  }

  // One straight line, in order, no length of zero.
  bool check_line(const Member& m, const Subject& subject) {
    const Vector a = s_[m.through.front()].position, b = s_[m.through.back()].position;
    const double L = length(b - a);
    if (!finite(a) || !finite(b)) return false;
    if (!finite(m.arm_start) || !finite(m.arm_end)) {
      add("the offset is not finite", subject, "offset");
      return false;
    }
    if (!(L > 0)) {
      add(fmt::format("'{}' starts and ends at the same place", m.name), subject, "through");
      return false;
    }
    if (L < shortest || L > longest) {
      add(fmt::format("'{}' is {}: out of range", m.name, how_long(s_, L)), subject, "through");
      return false;
    }
    double before = 0;
    for (std::size_t i = 1; i < m.through.size(); ++i) {
      const Vector r = s_[m.through[i]].position - a;
      const double along = dot(r, b - a) / L;
      const double beside = length(cross(r, b - a)) / L;
      const std::string& name = s_[m.through[i]].name;
      if (beside > 1e-6 * L) {
        add(fmt::format("point '{}' is {} off the straight line from '{}' to '{}'", name, length_words(s_, beside, 4),
                        s_[m.through.front()].name, s_[m.through.back()].name),
            subject, "through");
        return false;
      }
      if (along > L * (1 + 1e-9)) {
        add(fmt::format("the points are not in order along the member: '{}' is beyond the last one, '{}'", name,
                        s_[m.through.back()].name),
            subject, "through");
        return false;
      }
      if (along <= before + 1e-9 * L) {
        add(fmt::format(
                "the points are not in order along the member, which is from '{}' to '{}': '{}' does not come after '{}'",
                s_[m.through.front()].name, s_[m.through.back()].name, name, s_[m.through[i - 1]].name),
            subject, "through");
        return false;
      }
      before = along;
    }
    return check_arms(m, subject);
  }

  bool check_arms(const Member& m, const Subject& subject) {
    if (s_.is_plane() && (m.arm_start.z != 0 || m.arm_end.z != 0)) {
      add("this offset leaves the plane of the structure", subject, "offset");
      return false;
    }
    const double moved = length(s_.axis_end(m) - s_.axis_start(m));
    if (moved > shortest && moved < longest) return true;
    add(fmt::format("between its rigid arms '{}' is {}: out of range", m.name, how_long(s_, moved)), subject, "offset");
    return false;
  }

  void check_beam(const Member& m, const Subject& subject) {
    const Section& section = s_.section_of(m);
    const std::string& section_name = s_.sections()[m.section.index].name;
    if (const auto* given = std::get_if<GivenProperties>(&section.shape())) {
      const bool turned = s_.is_plane() && bends_about_y(m);
      std::string missing;
      const auto need = [&](bool there, const char* key) {
        if (!there) missing += (missing.empty() ? "" : ", ") + std::string(key);
      };
      if (!s_.is_plane() || turned) need(given->Iy.has_value(), "Iy");
      if (!s_.is_plane() || !turned) need(given->Iz.has_value(), "Iz");
      if (!s_.is_plane()) need(given->J.has_value(), "J");
      if (!missing.empty())
        add(fmt::format("beam '{}' bends and needs {} of section '{}' (a link needs only A)", m.name, missing,
                        section_name),
            subject, "section");
    }
    if (s_.is_plane() && leans_out(m)) {
      add(fmt::format("rolled by {} deg, section '{}' would bend out of the plane: in a plane structure an unsymmetric "
                      "section can be rolled by quarter turns only; describe the structure in space instead",
                      short_number(m.roll * 180 / std::numbers::pi, 4), section_name),
          subject, "roll");
    }
  }

  bool leans_out(const Member& m) const {
    if (!leaves_plane(m)) return false;
    const SectionProperties& p = section::stiffness(s_.section_of(m));
    // Shear areas have six digits.
    const auto differ = [](double a, double b) { return std::abs(a - b) > 1e-6 * std::max(a, b); };
    return p.Iyz.si() != 0 || differ(p.Iy.si(), p.Iz.si()) || (s_.analysis().shear && differ(p.Ay.si(), p.Az.si()));
  }
};

}  // namespace

void check_members(const Structure& structure, Problems& problems) {
  MemberChecks(structure, problems).run();
}

}  // namespace corvex
