#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "hand/write_chapters.hpp"
#include "hand/write_equilibrium.hpp"
#include "hand/write_work.hpp"

namespace corvex::hand {
namespace {

constexpr Vector directions[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
constexpr const char* direction_letters[] = {"x", "y", "z"};

// A point, or a place of a piece.
struct MovedPlace {
  std::optional<std::size_t> point{};
  std::size_t piece = 0;
  double at = 0;
};

Acting unit_load(const MovedPlace& p, std::size_t axis) {
  Acting a;
  if (p.point)
    a.joints.push_back({*p.point, directions[axis], {}, "1"});
  else
    a.places.push_back({p.piece, p.at, directions[axis], {}, "1"});
  return a;
}

// Zero where nothing is left but rounding of the terms.
Vector moved(const ForceMethod& m, const MovedPlace& p) {
  double by[3] = {};
  for (std::size_t i = 0; i < (m.skeleton().plane ? 2U : 3U); ++i) {
    double gross = 0;
    for (const WorkTerm& t : m.displacement(unit_load(p, i)).second) by[i] += t.value, gross += std::abs(t.value);
    if (std::abs(by[i]) <= 1e-11 * gross) by[i] = 0;
  }
  return {by[0], by[1], by[2]};
}

// The place that moves most: of the joints, and of twentieths of the members near the one that does.
MovedPlace member_of_largest(const ForceMethod& m) {
  const Skeleton& k = m.skeleton();
  MovedPlace best;
  double most = -1;
  const auto offer = [&](const MovedPlace& p) {
    const double size = length(moved(m, p));
    if (size > most * (1 + 1e-9)) most = size, best = p;
  };
  for (std::size_t p = 0; p < k.used.size(); ++p)
    if (k.used[p]) offer({.point = p});
  // Inside members that bend: first in the middle, then in twentieths of the best.
  std::optional<std::size_t> inside;
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    if (!k.pieces[i].beam) continue;
    const double before = most;
    offer({.piece = i, .at = k.pieces[i].length / 2});
    if (most > before) inside = i;
  }
  if (inside && !best.point)
    for (int i = 1; i < 20; ++i) offer({.piece = *inside, .at = k.pieces[*inside].length * i / 20});
  return best;
}

}  // namespace

std::pair<DerivationChapter, std::vector<DerivedDisplacement>> displacement_chapter(
    const ForceMethod& m, const std::vector<PointId>& points) {
  const Skeleton& k = m.skeleton();
  const Structure& s = *k.structure;
  DerivationChapter c{.name = "displacement", .title = "Displacement by the unit-load theorem"};
  std::vector<DerivedDisplacement> found;
  std::vector<MovedPlace> places;
  for (const PointId& p : points)
    if (k.used[p.index]) places.push_back({.point = p.index});
  if (places.empty()) places.push_back(member_of_largest(m));
  c.items.emplace_back(sentence(
      "A unit force acts at the place and in the direction of the displacement. The displacement is the sum over all members "
      "of the integrals of M·m/EI, V·v/GAs and N·n/EA, where m, v and n are the internal forces that belong to the force "
      "1" +
      std::string(m.statics->redundants().empty()
                      ? "."
                      : "; those of the primary structure are sufficient (reduction theorem).")));
  for (const MovedPlace& p : places) {
    const Vector by = moved(m, p);
    const double parts[] = {by.x, by.y, by.z};
    DerivedDisplacement d{.by = by};
    std::string symbol;
    Line where;
    if (p.point) {
      d.of = s.points()[*p.point].name, d.point = PointId(*p.point);
      where.say("Point " + d.of);
      symbol = d.of;
    } else {
      const Piece& piece = k.pieces[p.piece];
      d.of = s.members()[piece.member].name, d.member = MemberId(piece.member);
      d.at = Length::si(piece.start + p.at);
      where.say(d.of + " at ").put(piece.start + p.at, dimension::length).say(" from its start");
      symbol = piece.name;
    }
    std::erase_if(symbol, [](char ch) {
      return !std::isalnum(static_cast<unsigned char>(ch)) && static_cast<unsigned char>(ch) < 0x80;
    });
    const double size = length(by);
    found.push_back(d);
    if (size == 0) {
      c.items.emplace_back(where.say(": no force does work on it, its displacement is zero.").take());
      continue;
    }
    c.items.emplace_back(where.say(":").take());
    for (std::size_t i = 0; i < (k.plane ? 2U : 3U); ++i) {
      // Terms below a hundredth of the total displacement are not written out.
      if (std::abs(parts[i]) < 0.01 * size) continue;
      const Acting load = unit_load(p, i);
      const auto [state, terms] = m.displacement(load);
      c.items.emplace_back(sentence(fmt::format("Force 1 along {}:", direction_letters[i])));
      Ledger l(m, load, state, dimension::force);
      for (const Unknown& u : m.statics->redundants()) l.learn(key_of(l, u));
      write_equilibrium(l, c);
      c.items.emplace_back(sentence("Its work, member by member:"));
      write_work(k, terms, dimension::number, dimension::force, fmt::format("u_{}{}", symbol, direction_letters[i]), c);
    }
  }
  return {std::move(c), std::move(found)};
}

}  // namespace corvex::hand
