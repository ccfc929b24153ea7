// Derived figures compared with those of the solution.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/derive.hpp"
#include "corvex/figures.hpp"

namespace corvex {
namespace {

// Differences count against the largest figure of the same dimension.
void compare(std::vector<BothWays>& all) {
  for (BothWays& b : all) {
    double largest = 0;
    for (const BothWays& other : all)
      if (other.derived.dimension == b.derived.dimension)
        largest = std::max({largest, std::abs(other.derived.si), std::abs(other.solved.si)});
    b.difference = largest > 0 ? (b.derived.si - b.solved.si) / largest : 0;
  }
}

struct MemberForce {
  Diagram DerivedMember::*derived;
  const char* figure;  // of the solution
};
constexpr MemberForce forces[] = {{&DerivedMember::axial, "axial"},       {&DerivedMember::shear_y, "shear_y"},
                                  {&DerivedMember::shear_z, "shear_z"},   {&DerivedMember::torsion, "torsion"},
                                  {&DerivedMember::moment_y, "moment_y"}, {&DerivedMember::moment_z, "moment_z"}};

// The largest value of a, without its sign, and that of b at the same place.
std::pair<Quantity, Quantity> largest(const Diagram& a, const Diagram& b) {
  std::pair<Quantity, Quantity> both{a.at(Length()), b.at(Length())};
  double most = -1;
  for (const Extreme& e : {a.max(), a.min()})
    for (const Side side : {Side::before, Side::after}) {
      const Quantity one = a.at(e.at, side);
      if (std::abs(one.si) > most) most = std::abs(one.si), both = {one, b.at(e.at, side)};
    }
  return both;
}

}  // namespace

std::vector<BothWays> both_ways(const Derivation& d, const Solution& solution) {
  const CaseResult result = solution[d.load_case];
  const Structure& s = solution.structure();
  std::vector<BothWays> all;
  const auto add = [&](std::string what, const Quantity& derived, const Quantity& solved) {
    all.push_back({std::move(what), derived, solved, 0});
  };
  const bool plane = s.is_plane();
  for (const DerivedReaction& r : d.reactions) {
    const Reaction solved = result.reaction(r.at);
    const std::string at = "reaction " + s[r.at].name + " ";
    add(at + "x", r.reaction.x, solved.x);
    add(at + "y", r.reaction.y, solved.y);
    if (!plane) add(at + "z", r.reaction.z, solved.z);
    if (!plane) add(at + "mx", r.reaction.mx, solved.mx);
    if (!plane) add(at + "my", r.reaction.my, solved.my);
    add(at + "mz", r.reaction.mz, solved.mz);
  }
  for (const DerivedMember& m : d.members) {
    const MemberResult solved = result[m.member];
    const bool link = s[m.member].kind == MemberKind::link;
    for (const MemberForce& part : forces) {
      if (link && part.derived != &DerivedMember::axial) continue;
      const MemberFigure& figure = *find_member_figure(part.figure);
      const auto [derived, computed] = largest(m.*part.derived, figure.diagram(solved));
      if (derived.si == 0 && computed.si == 0) continue;
      add(fmt::format("{} {}", figure.symbol, s[m.member].name), derived, computed);
    }
  }
  for (const DerivedDisplacement& u : d.displacements) {
    Vector solved;
    if (u.point) {
      const Displacement at = result.displacement(*u.point);
      solved = {at.x.si(), at.y.si(), at.z.si()};
    } else if (u.member) {
      const SectionState at = result[*u.member].at(u.at);
      solved = {at.x.si(), at.y.si(), at.z.si()};
    }
    const std::string of = "displacement " + u.of + " ";
    add(of + "x", Length::si(u.by.x), Length::si(solved.x));
    add(of + "y", Length::si(u.by.y), Length::si(solved.y));
    if (!plane) add(of + "z", Length::si(u.by.z), Length::si(solved.z));
  }
  if (d.stress) {
    const MemberResult solved = result[d.stress->member];
    const auto high = solved.max_stress_at(d.stress->at, d.stress->side),
               low = solved.min_stress_at(d.stress->at, d.stress->side);
    if (high && low)
      add("normal stress " + s[d.stress->member].name, d.stress->normal, std::max(abs(high->value), abs(low->value)));
  }
  // Figures that are nothing on either side say nothing.
  std::erase_if(all, [](const BothWays& b) { return b.derived.si == 0 && b.solved.si == 0; });
  compare(all);
  // Values that are rounding error on one side and zero on the other.
  std::erase_if(
      all, [](const BothWays& b) { return (b.derived.si == 0 || b.solved.si == 0) && std::abs(b.difference) < 1e-12; });
  return all;
}

}  // namespace corvex
