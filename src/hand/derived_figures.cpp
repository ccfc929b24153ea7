#include "hand/derived_figures.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::hand {
namespace {

constexpr std::array<Dimension, 6> dimensions = {dimension::force,  dimension::force,  dimension::force,
                                                 dimension::moment, dimension::moment, dimension::moment};

Diagram diagram(const ForceMethod& m, std::size_t member, std::size_t component, double noise) {
  const Skeleton& k = m.skeleton();
  std::vector<Diagram::Piece> pieces;
  for (std::size_t i = k.first[member]; i < k.first[member + 1]; ++i) {
    const Piece& p = k.pieces[i];
    for (const Stretch& s : m.final.course[i].stretches) {
      Diagram::Piece piece{.from = p.start + s.from, .to = p.start + s.to};
      for (std::size_t power = 0; power < 4; ++power) {
        Forces f{};
        if (p.beam)
          for (std::size_t c = 0; c < 6; ++c) f[c] = s.forces[c][power];
        else
          f[N] = s.forces[N][power];
        piece.powers[power] = in_own_axes(k, p, f)[component];
      }
      pieces.push_back(piece);
    }
  }
  return Diagram(dimensions[component], std::move(pieces), noise);
}

}  // namespace

std::vector<DerivedReaction> reactions_of(const ForceMethod& m) {
  std::vector<DerivedReaction> all;
  for (const PointSupport& support : m.skeleton().structure->supports()) {
    Vector force, moment;
    for (std::size_t i = 0; i < m.skeleton().holds.size(); ++i) {
      const Hold& h = m.skeleton().holds[i];
      if (h.point == support.at.index) (h.turning ? moment : force) += h.direction * m.final.reaction[i];
    }
    all.push_back({support.at,
                   {ForceSize::si(force.x), ForceSize::si(force.y), ForceSize::si(force.z), MomentSize::si(moment.x),
                    MomentSize::si(moment.y), MomentSize::si(moment.z)}});
  }
  return all;
}

std::vector<DerivedMember> members_of(const ForceMethod& m) {
  std::vector<DerivedMember> all;
  double largest = 0;
  for (const Forces& f : m.final.start)
    for (const std::size_t c : {N, Vy, Vz}) largest = std::max(largest, std::abs(f[c]));
  const double noise = 1e-12 * largest;
  const std::size_t n = m.skeleton().structure->members().size();
  for (std::size_t i = 0; i < n; ++i) {
    const auto course = [&](std::size_t c) { return diagram(m, i, c, c < T ? noise : noise * m.skeleton().size); };
    all.push_back({MemberId(i), course(N), course(Vy), course(Vz), course(T), course(My), course(Mz),
                   m.statics->is_slack(m.skeleton().first[i])});
  }
  return all;
}

}  // namespace corvex::hand
