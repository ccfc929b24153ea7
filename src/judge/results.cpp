// Findings of results.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <set>

#include "corvex/findings.hpp"
#include "corvex/number.hpp"
#include "corvex/stability.hpp"
#include "inspect/findings.hpp"
#include "judge/symmetry.hpp"

namespace corvex {
namespace {

class Judge {
 public:
  explicit Judge(const Solution& solution)
      : solution_(solution), s_(solution.structure()), f_(s_), assessed_(solution.assessed()) {
    braced_.resize(s_.points().size());
    std::vector<int> members(s_.points().size());
    for (const Member& m : s_.members())
      for (const PointId p : m.through) ++members[p.index];
    for (std::size_t p = 0; p < members.size(); ++p) braced_[p] = members[p] > 1;
    for (const PointSupport& p : s_.supports()) braced_[p.at.index] = true;
  }

  Problems run(const LimitCheck& limits, const Verification& hand) {
    strength(limits);
    for (std::size_t i = 0; i < s_.members().size(); ++i) compression(i);
    lateral_buckling();
    movements();
    uplift();
    slack();
    exceeded(limits);
    hand_values(hand);
    Problems all = f_.take();
    for (Problem& p : judging::unsymmetric_answers(solution_)) all.push_back(std::move(p));
    return all;
  }

 private:
  // Of the case where it is worst. Where a limit asks for safety, its verdict says more.
  void strength(const LimitCheck& limits) {
    std::set<std::string> limited;
    for (const Verdict& v : limits.verdicts)
      if (v.kind == Limit::Kind::safety) limited.insert(v.on);
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      if (limited.contains(s_.members()[i].name)) continue;
      std::optional<double> least;
      std::size_t worst = 0;
      for (const std::size_t c : assessed_)
        if (const auto safety = solution_[c][MemberId{i}].safety(); safety && (!least || *safety < *least))
          least = safety, worst = c;
      if (!least || *least >= 1) continue;
      const MemberResult r = solution_[worst][MemberId{i}];
      f_.add("over-strength", f_.member(i),
             fmt::format("in case '{}' the stress in '{}' is above the strength of its material: safety factor {}",
                         solution_[worst].name(), s_.members()[i].name, short_number(*least, 3)),
             fmt::format("a stronger section or material, or less load; the strength is {} MPa",
                         short_number(r.strength()->in(units::MPa), 4)))
          .others.push_back({Subject::Kind::load_case, solution_[worst].name()});
    }
  }

  struct Radius {
    double I = 0, i = 0;
  };
  // About the weakest axis; zero if the section does not define it.
  Radius least_radius(const Member& m) const {
    const Section& section = s_.section_of(m);
    double A, Iy, Iz, Iyz = 0;
    if (const auto* given = std::get_if<GivenProperties>(&section.shape())) {
      if (!given->Iy && !given->Iz) return {};
      A = given->A.si();
      Iy = given->Iy.value_or(given->Iz.value_or(SecondMoment())).si();
      Iz = given->Iz.value_or(given->Iy.value_or(SecondMoment())).si();
    } else {
      const AreaProperties& p = section.area_properties();
      A = p.A.si(), Iy = p.Iy.si(), Iz = p.Iz.si(), Iyz = p.Iyz.si();
    }
    const double I = (Iy + Iz) / 2 - std::hypot((Iy - Iz) / 2, Iyz);
    return {I, std::sqrt(std::max(I, 0.0) / A)};
  }

  // Between the points where the member is joined to others or held.
  void compression(std::size_t i) {
    const Member& m = s_.members()[i];
    const Radius least = least_radius(m);
    if (!(least.I > 0)) return;
    std::vector<double> ends{0};
    for (std::size_t k = 1; k + 1 < m.through.size(); ++k)
      if (braced_[m.through[k].index]) ends.push_back(s_.place_of(m, k));
    ends.push_back(s_.length_of(m));
    struct Worst {
      double use = 0, force = 0, length = 0;
      std::size_t load_case = 0;
    } worst, slender;
    for (const std::size_t c : assessed_) {
      const Diagram N = solution_[c][MemberId{i}].axial();
      const double largest = N.largest().si;
      if (!(largest > 0)) continue;
      for (std::size_t k = 0; k + 1 < ends.size(); ++k) {
        const double L = ends[k + 1] - ends[k], push = -least_between(N, ends[k], ends[k + 1]);
        if (!(push > N.noise())) continue;
        const double euler = std::numbers::pi * std::numbers::pi * s_.material_of(m).E.si() * least.I / (L * L);
        if (push / euler > worst.use) worst = {push / euler, push, L, c};
        if (L / least.i > slender.use && push > 1e-3 * largest) slender = {L / least.i, push, L, c};
      }
    }
    // With bending, the critical load factor gives the same warning; this one is for straight members.
    if (worst.use > 1)
      f_.add("over-buckling", f_.member(i),
             fmt::format("in case '{}' '{}' is in compression with {}, {} times the Euler force of a pinned bar of {}",
                         solution_[worst.load_case].name(), m.name, inspection::in_kN(worst.force),
                         short_number(worst.use, 3), inspection::in_mm(worst.length)),
             "a stiffer section, or lateral restraint between the ends; the stresses do not include buckling")
          .others.push_back({Subject::Kind::load_case, solution_[worst.load_case].name()});
    else if (slender.use > 250)
      f_.add("slender", f_.member(i),
             fmt::format("'{}' is in compression in case '{}' and has a slenderness of {:.0f} over {}", m.name,
                         solution_[slender.load_case].name(), slender.use, inspection::in_mm(slender.length)),
             "a section with a larger radius of gyration, or acts: tension if it is a tie");
  }

  // Of each member its lowest estimate over the cases. What bending alone does is reported with the solution.
  void lateral_buckling() {
    constexpr double near = 3, unknown = 10;
    std::map<std::size_t, std::pair<MemberBuckling, std::size_t>> lowest;
    for (const std::size_t c : assessed_) {
      const auto critical = solution_[c].critical_load();
      if (critical && !critical->examined) return;
      const double linear = critical ? critical->factor.value_or(unknown) : unknown;
      for (const MemberBuckling& m : member_buckling(solution_, solution_[c].name(), linear).members) {
        if (m.factor >= near) break;
        const auto [at, fresh] = lowest.try_emplace(m.member.index, m, c);
        if (!fresh && m.factor < at->second.first.factor) at->second = {m, c};
      }
    }
    for (const auto& [member, found] : lowest) {
      const auto& [m, c] = found;
      f_.add("lateral-buckling", f_.member(member),
             fmt::format("in case '{}' {}: critical load factor {}", solution_[c].name(), words(s_, m),
                         short_number(m.factor, 3)),
             "restrain the member between its ends, give its `bracing`, or choose a section with more torsional "
             "stiffness; the stresses do not show it")
          .others.push_back({Subject::Kind::load_case, solution_[c].name()});
    }
  }

  // Axial force is at most of the third power between the breaks of the diagram: its ends and its middle are enough.
  static double least_between(const Diagram& N, double from, double to) {
    double least = std::min(N.at(Length::si(from), Side::after).si, N.at(Length::si(to), Side::before).si);
    for (const Diagram::Piece& p : N.pieces()) {
      const double a = std::max(p.from, from), b = std::min(p.to, to);
      if (!(a < b)) continue;
      for (const double x : {a, (a + b) / 2, b}) {
        double value = 0;
        for (std::size_t k = 6; k-- > 0;) value = value * (x - p.from) + p.powers[k];
        least = std::min(least, value);
      }
    }
    return least;
  }

  void movements() {
    if (s_.analysis().order == Order::large) return;
    const double size = s_.bounds().diagonal();
    double most = 0, turned = 0;
    std::size_t where = 0, in = 0, turned_where = 0, turned_in = 0;
    for (const std::size_t c : assessed_) {
      for (std::size_t i = 0; i < s_.members().size(); ++i)
        if (const double move = solution_[c][MemberId{i}].movement().value.si; move > most)
          most = move, where = i, in = c;
      for (std::size_t p = 0; p < s_.points().size(); ++p) {
        const Displacement d = solution_[c].displacement(PointId{p});
        const double turn = std::hypot(d.rx.si(), d.ry.si(), d.rz.si());
        if (turn > turned) turned = turn, turned_where = p, turned_in = c;
      }
    }
    constexpr double large = 1.0 / 50, large_turn = 0.1;
    if (most > large * size)
      f_.add(
            "large-displacement", f_.member(where),
            fmt::format(
                "in case '{}' '{}' is displaced by {}, 1/{} of the size of the structure; the theory is valid for small "
                "displacements",
                solution_[in].name(), s_.members()[where].name, inspection::in_mm(most), short_number(size / most, 3)),
            "check loads, units and stiffness; if they are right, the result is only a first estimate")
          .others.push_back({Subject::Kind::load_case, solution_[in].name()});
    if (turned > large_turn)
      f_.add("large-rotation", f_.point(PointId{turned_where}),
             fmt::format("in case '{}' '{}' rotates by {} rad; the theory is valid for small rotations",
                         solution_[turned_in].name(), s_.points()[turned_where].name, short_number(turned, 3)),
             "check loads, units and stiffness; if they are right, the result is only a first estimate")
          .others.push_back({Subject::Kind::load_case, solution_[turned_in].name()});
  }

  // A support that restrains only the vertical direction is assumed to act in compression only.
  void uplift() {
    for (const PointSupport& p : s_.supports()) {
      const std::size_t up = s_.up() == Up::y ? 1 : 2;
      bool bears = p.held[up] && p.along.empty();
      for (std::size_t k = 0; k < 6; ++k) bears = bears && (k == up || (!p.held[k] && p.spring[k] == 0));
      if (!bears) continue;
      double least = 0;
      std::size_t in = 0;
      for (const std::size_t c : assessed_) {
        const Reaction r = solution_[c].reaction(p.at);
        const double lift = (up == 1 ? r.y : r.z).si();
        const Balance b = solution_[c].balance();
        // A case without weight says nothing of what keeps the structure down.
        const double down = -(up == 1 ? b.applied.y : b.applied.z).si();
        if (lift < least && down > 1e-6 * -lift) least = lift, in = c;
      }
      if (!(least < 0)) continue;
      f_.add("uplift", {Subject::Kind::support, s_[p.at].name},
             fmt::format(
                 "in case '{}' the support at '{}' is in tension with {}: a compression-only support would lift off",
                 solution_[in].name(), s_[p.at].name, inspection::in_kN(-least)),
             "anchor it, or combine the case with a weight that keeps it in compression")
          .others.push_back({Subject::Kind::load_case, solution_[in].name()});
    }
  }

  // Of a pair of crossed ties one is slack under loads from one side: where others act, this is for information.
  void slack() {
    std::vector<std::size_t> idle;
    bool some_act = false;
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      if (s_.members()[i].acts == Acts::always || assessed_.empty()) continue;
      const bool never = std::all_of(assessed_.begin(), assessed_.end(),
                                     [&](std::size_t c) { return solution_[c][MemberId{i}].is_slack(); });
      if (never)
        idle.push_back(i);
      else
        some_act = true;
    }
    for (const std::size_t i : idle) {
      const Member& m = s_.members()[i];
      Problem& p = f_.add("slack", f_.member(i),
                          fmt::format("'{}' acts in {} only and is slack in all cases", m.name,
                                      m.acts == Acts::tension ? "tension" : "compression"),
                          "check its direction of action and the direction of the loads");
      if (some_act) p.severity = Problem::Severity::note;
    }
  }

  void exceeded(const LimitCheck& limits) {
    for (const Verdict& v : limits.verdicts) {
      if (v.state != Verdict::State::exceeded) continue;
      Problem& p = f_.add("limit-exceeded", {Subject::Kind::limit, "", v.limit},
                          fmt::format("the limit of {} of {} is exceeded in case '{}'", v.what, v.on, v.load_case),
                          "a stiffer or stronger section, or less load");
      const bool of_point = v.kind == Limit::Kind::movement;
      p.others.push_back({of_point ? Subject::Kind::point : Subject::Kind::member, v.on});
      p.others.push_back({Subject::Kind::load_case, v.load_case});
    }
  }

  void hand_values(const Verification& hand) {
    for (std::size_t i = 0; i < hand.comparisons.size(); ++i) {
      const Comparison& c = hand.comparisons[i];
      if (c.agrees || c.remark.empty()) continue;
      const bool shear = c.remark.find("shear") != std::string::npos;
      f_.add(shear ? "hand-shear" : "hand-factor", {Subject::Kind::expectation, "", i},
             fmt::format("{}{}: {}", c.what, c.load_case.empty() ? "" : " in " + c.load_case, c.remark),
             "check the hand calculation and the figure that it compares")
          .others.push_back({Subject::Kind::load_case, c.load_case});
    }
  }

  const Solution& solution_;
  const Structure& s_;
  inspection::Findings f_;
  std::vector<std::size_t> assessed_;
  std::vector<bool> braced_;  // points that other members or a support hold
};

}  // namespace

Problems assess(const Solution& solution, const LimitCheck& limits, const Verification& hand) {
  if (!solution.ok()) return {};
  return Judge(solution).run(limits, hand);
}

}  // namespace corvex
