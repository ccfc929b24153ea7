#include <fmt/format.h>

#include <algorithm>
#include <unordered_map>

#include "structure/checks.hpp"

namespace corvex {
namespace {

class SupportChecks : Checks {
 public:
  using Checks::Checks;

  void run() {
    check_points();
    check_masses();
    for (std::size_t i = 0; i < s_.bracing().size(); ++i) check(s_.bracing()[i], {Kind::bracing, "", i});
  }

 private:
  void check_points() {
    std::unordered_map<std::size_t, int> seen;
    for (const PointSupport& s : s_.supports()) {
      if (!s_.has(s.at)) {
        add("a support is on a point that does not belong to this structure", {}, "supports");
        continue;
      }
      const std::string& name = s_[s.at].name;
      if (++seen[s.at.index] == 2) add(fmt::format("point '{}' has two supports", name), {Kind::support, name});
      check(s, {Kind::support, name});
    }
  }

  void check(const PointSupport& s, const Subject& subject) {
    for (const Vector& v : s.along) {
      if (!finite(v) || !(length(v) > 0)) return add("a direction to restrain needs a length", subject, "hold");
      if (s_.is_plane() && v.z != 0) return add("this direction leaves the plane of the structure", subject, "hold");
    }
    static constexpr const char* names[] = {"x", "y", "z", "rx", "ry", "rz"};
    for (std::size_t k = 0; k < 6; ++k) {
      if (s.spring[k] == 0) continue;
      if (!(s.spring[k] > 0))
        add(fmt::format("the spring {} needs a stiffness greater than zero", names[k]), subject, "spring");
      if (s.spring[k] > stiffest)
        add(fmt::format("the spring {} is out of range: stiffer than {:g} N/m", names[k], stiffest), subject, "spring");
      if (s.held[k]) add(fmt::format("{} is restrained; the spring there has no effect", names[k]), subject, "spring");
      if (s_.is_plane() && k > 1 && k < 5)
        add(fmt::format("a plane structure has no displacement along {}: the spring has no effect", names[k]), subject,
            "spring");
    }
  }

  void check(const Bracing& b, const Subject& subject) {
    if (!s_.has(b.member)) return add("bracing is on a member that does not belong to this structure", subject, "on");
    const Member& m = s_[b.member];
    for (const PointId p : b.at) {
      if (!s_.has(p)) return add("bracing is at a point that does not belong to this structure", subject, "at");
      if (std::find(m.through.begin(), m.through.end(), p) == m.through.end())
        add(fmt::format("'{}' is not a point of member '{}'", s_[p].name, m.name), subject, "at");
    }
    if (s_.is_plane() && (b.against == Against::y || b.against == Against::z))
      add("in a plane structure bracing acts out of the plane: against lateral, twist or both", subject, "against");
  }

  void check_masses() {
    for (const PointMass& m : s_.point_masses()) {
      if (!s_.has(m.at)) {
        add("a mass is on a point that does not belong to this structure", {}, "masses");
        continue;
      }
      const Subject subject{Kind::mass, s_[m.at].name};
      if (!(m.mass >= 0)) add("a mass cannot be negative", subject);
      if (!(m.inertia.x >= 0 && m.inertia.y >= 0 && m.inertia.z >= 0))
        add("a moment of inertia cannot be negative", subject, "inertia");
      if (s_.is_plane() && (m.arm.z != 0 || m.inertia.x != 0 || m.inertia.y != 0))
        add("in a plane structure a mass turns about z only, and its centre lies in the plane", subject);
      if (m.mass > heaviest) add(fmt::format("the mass is out of range: larger than {:g} kg", heaviest), subject);
    }
  }
};

}  // namespace

void check_supports(const Structure& structure, Problems& problems) {
  SupportChecks(structure, problems).run();
}

}  // namespace corvex
