#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "corvex/stability.hpp"
#include "corvex/stop.hpp"
#include "section/stability_figures.hpp"
#include "stability/estimate.hpp"
#include "stability/restraint.hpp"
#include "structure/combined.hpp"

namespace corvex {

const char* words(BucklingKind kind) {
  static constexpr const char* all[] = {"flexural buckling", "torsional buckling", "flexural-torsional buckling",
                                        "lateral torsional buckling", "lateral torsional buckling with compression"};
  return all[static_cast<std::size_t>(kind)];
}

std::string words(const Structure& s, const MemberBuckling& m, bool estimated) {
  return fmt::format("{}{} of '{}' between '{}' and '{}'{}", m.out_of_plane ? "out-of-plane " : "", words(m.kind),
                     s[m.member].name, m.first, m.last, estimated ? " (estimated)" : "");
}

namespace stability {
namespace {

// The largest distance of the place where a load of the case acts from the shear centre.
double lever(const Structure& s, const LoadCase& loads, const section::StabilityFigures& f) {
  double most = 0;
  const double c = std::cos(f.angle), r = std::sin(f.angle);
  const double centre_y = c * f.centre_u - r * f.centre_v, centre_z = r * f.centre_u + c * f.centre_v;
  const auto look = [&](const Through& t) {
    if (t.place == Through::Place::shear_centre) return;
    const bool at = t.place == Through::Place::at;
    most = std::max(most, std::hypot((at ? t.y.si() : 0) - centre_y, (at ? t.z.si() : 0) - centre_z));
  };
  for (const Load& load : loads.loads())
    if (const auto through = through_of(load)) look(*through);
  if (s.analysis().through.place != Through::Place::shear_centre) look(s.analysis().through);
  return most;
}

// The diagrams of a member that matter here.
struct Forces {
  explicit Forces(const MemberResult& m)
      : N(m.axial()), My(m.moment_y()), Mz(m.moment_z()), Vy(m.shear_y()), Vz(m.shear_z()) {}

  static double clean(const Diagram& d, double x, Side side = Side::after) {
    const double v = d.at(Length::si(x), side).si;
    return std::abs(v) > d.noise() ? v : 0;
  }
  bool compressed() const { return -N.min().value.si > N.noise(); }
  bool bent() const { return My.largest().si > My.noise() || Mz.largest().si > Mz.noise(); }

  Diagram N, My, Mz, Vy, Vz;
};

class MemberCheck {
 public:
  MemberCheck(const Structure& s, MemberId id, const MemberResult& result, const LoadCase& loads, double linear,
              const solver::JointStiffness* joints)
      : s_(s), id_(id), m_(s[id]), forces_(result), loads_(loads), linear_(linear), joints_(joints) {}

  void run(MemberEstimates& all) {
    if (!forces_.compressed() && !forces_.bent()) return;
    const Restraints held = restraints(s_, id_, joints_);
    if (held.twist_along && held.y_along && held.z_along) return;
    const auto figures = section::stability_figures(s_.section_of(m_));
    if (!figures) return uncovered(all, missing_figures(), "give its section I and J, or a shape");
    figures_ = *figures;
    lever_ = lever(s_, loads_, figures_);
    if (s_.is_plane() && !plane_ends_are_held(held, all)) return;
    std::vector<Restraint> places = twist_places(held);
    if (places.front().twist == 0 && places.back().twist == 0 && !held.twist_along)
      return uncovered(all, "nothing restrains its twist", "give `bracing`, or restrain its ends");
    std::optional<MemberBuckling> worst;
    for (std::size_t i = 0; i + 1 < places.size(); ++i) {
      const Estimate e = estimate(stretch(held, places[i], places[i + 1], i, places.size()));
      if (!std::isfinite(e.factor) || (worst && worst->factor <= e.factor)) continue;
      worst = MemberBuckling{.member = id_,
                             .from = Length::si(places[i].at),
                             .to = Length::si(places[i + 1].at),
                             .first = s_[m_.through[places[i].point]].name,
                             .last = s_[m_.through[places[i + 1].point]].name,
                             .kind = static_cast<BucklingKind>(static_cast<int>(e.kind) - 1),
                             .factor = e.factor,
                             .out_of_plane = s_.is_plane()};
    }
    // Flexural buckling in space is found exactly elsewhere.
    if (worst && !(worst->kind == BucklingKind::flexural && !s_.is_plane())) all.members.push_back(*worst);
  }

 private:
  void uncovered(MemberEstimates& all, std::string reason, std::string remedy) const {
    all.not_checked.push_back({id_, std::move(reason), std::move(remedy)});
  }

  std::string missing_figures() const {
    const AreaProperties& a = s_.section_of(m_).area_properties();
    if (!(a.Iy.si() > 0) || !(a.Iz.si() > 0)) return "its section has no second moment of area";
    return "its section has no torsion constant";
  }

  // A member of a plane structure is covered between restraints at both ends.
  bool plane_ends_are_held(const Restraints& held, MemberEstimates& all) const {
    if (held.y_along || held.z_along) return true;
    for (const Restraint& end : {held.at.front(), held.at.back()}) {
      if (end.lateral_y) continue;
      uncovered(all,
                fmt::format("out-of-plane buckling: its end at '{}' is not restrained out of the plane",
                            s_[m_.through[end.point]].name),
                "give `bracing`, or describe the structure in space");
      return false;
    }
    return true;
  }

  // The ends, and the points between that restrain the twist well.
  std::vector<Restraint> twist_places(const Restraints& held) const {
    std::vector<Restraint> places{held.at.front()};
    for (std::size_t k = 1; k + 1 < held.at.size(); ++k) {
      const double longer = std::max(held.at[k].at - held.at[k - 1].at, held.at[k + 1].at - held.at[k].at);
      const double GJ = shear_modulus() * figures_.J,
                   warping = std::numbers::pi * std::numbers::pi * modulus() * figures_.Cw / (longer * longer);
      constexpr double well = 5;
      if (held.at[k].twist >= well * (GJ + warping) / longer) places.push_back(held.at[k]);
    }
    places.push_back(held.at.back());
    return places;
  }

  double modulus() const { return s_.material_of(m_).E.si(); }
  double shear_modulus() const { return s_.material_of(m_).shear_modulus().si(); }

  // The longest distance between restraints of a direction that lie along [from, to].
  double spacing(const Restraints& held, bool Restraint::*lateral, double from, double to) const {
    double longest = 0, last = from;
    bool any = false;
    for (const Restraint& r : held.at) {
      if (!(r.*lateral)) continue;
      if (any && r.at > from && last < to) longest = std::max(longest, r.at - last);
      last = r.at, any = true;
    }
    return longest;
  }

  StretchInput stretch(const Restraints& held, const Restraint& a, const Restraint& b, std::size_t i,
                       std::size_t places) const {
    StretchInput in{.section = figures_, .E = modulus(), .G = shear_modulus()};
    in.length = b.at - a.at;
    // A restraint between two stretches serves half for each.
    in.twist_start = i == 0 ? a.twist : a.twist / 2;
    in.twist_end = i + 2 == places ? b.twist : b.twist / 2;
    in.twist_along = held.twist_along;
    in.lever = lever_;
    sample(in, a.at, b.at);
    double P = 0;
    for (const auto& at : in.samples) P = std::max(P, at.P);
    // The direction u lies along y, or along z.
    const bool u_is_y = std::abs(std::cos(figures_.angle)) > 0.7;
    const auto euler = [&](bool u) {
      const bool y = u == u_is_y;
      const bool in_plane = s_.is_plane() && y == bending_axes(s_, m_).z;
      bool& along = u ? in.u_along : in.v_along;
      double L = in.length;
      if (!in_plane) {
        along = askew() ? held.y_along && held.z_along : y ? held.y_along : held.z_along;
        if (along) return infinity;
        const double braced = spacing(held, y ? &Restraint::lateral_y : &Restraint::lateral_z, a.at, b.at);
        if (braced > 0 && (s_.is_plane() || !askew())) L = braced;
        if (s_.is_plane()) return euler_force(u, L);
      }
      // Bending alone, of the whole structure, is known from its linear load factor.
      return std::max(euler_force(u, L), linear_ * P);
    };
    in.euler_u = euler(true), in.euler_v = euler(false);
    return in;
  }
  // Of the hinged column of this length, with shear deformation after Engesser where it is computed.
  double euler_force(bool u, double L) const {
    const double EI = modulus() * (u ? figures_.I1 : figures_.I2),
                 bending = std::numbers::pi * std::numbers::pi * EI / (L * L);
    const double GA =
        s_.analysis().shear && m_.kind == MemberKind::beam ? shear_modulus() * (u ? figures_.A1 : figures_.A2) : 0;
    return GA > 0 ? bending / (1 + bending / GA) : bending;
  }
  bool askew() const { return s_.section_of(m_).area_properties().Iyz.si() != 0; }

  void sample(StretchInput& in, double from, double to) const {
    constexpr int parts = 48;
    const double c = std::cos(figures_.angle), r = std::sin(figures_.angle), h = (to - from) / parts;
    const bool link = m_.kind == MemberKind::link;
    for (int k = 0; k < parts; ++k) {
      const double begin = from + h * k, end = k + 1 == parts ? to : begin + h, x = (begin + end) / 2;
      StretchInput::Sample at;
      // Compression is largest at an end of a part where it grows.
      for (const double place : {begin, x, end})
        for (const Side side : {Side::before, Side::after})
          at.P = std::max(at.P, -Forces::clean(forces_.N, place, side));
      if (!link) {
        const double My = Forces::clean(forces_.My, x), Mz = Forces::clean(forces_.Mz, x);
        at.M1 = c * Mz + r * My, at.M2 = -r * Mz + c * My;
        at.change = std::hypot(Forces::clean(forces_.Vy, end) - Forces::clean(forces_.Vy, begin),
                               Forces::clean(forces_.Vz, end) - Forces::clean(forces_.Vz, begin));
      }
      in.samples.push_back(at);
    }
  }

  const Structure& s_;
  const MemberId id_;
  const Member& m_;
  const Forces forces_;
  const LoadCase& loads_;
  const double linear_;
  const solver::JointStiffness* joints_;
  section::StabilityFigures figures_;
  double lever_ = 0;  // of the loads about the shear centre
};

}  // namespace
}  // namespace stability

MemberEstimates member_buckling(const Solution& solution, std::string_view load_case, double linear) {
  const Structure& s = solution.structure();
  const CaseResult result = solution[load_case];
  // Another direction of an imperfection has the loads of its case.
  std::size_t index = 0;
  while (index + 1 < solution.size() && solution[index].name() != load_case) ++index;
  const LoadCase loads = case_loads(s, solution[solution.base_of(index)].name());
  std::optional<solver::JointStiffness> joints;
  if (!s.is_plane()) {
    std::vector<bool> slack;
    for (std::size_t i = 0; i < s.members().size(); ++i) slack.push_back(result[MemberId(i)].is_slack());
    joints.emplace(s, slack);
  }
  MemberEstimates all;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    stop_point();
    stability::MemberCheck(s, MemberId(i), result[MemberId(i)], loads, linear, joints ? &*joints : nullptr).run(all);
  }
  std::stable_sort(all.members.begin(), all.members.end(),
                   [](const MemberBuckling& a, const MemberBuckling& b) { return a.factor < b.factor; });
  return all;
}

}  // namespace corvex
