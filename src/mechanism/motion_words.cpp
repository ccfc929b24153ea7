#include "mechanism/motion_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace corvex::solver {

namespace {

constexpr double small = 1e-6;

}  // namespace

std::vector<std::string> moving_points(const Structure& s, const Motion& motion) {
  double most = 0, turn = 0;
  for (const Vector& v : motion.move) most = std::max(most, length(v));
  for (const Vector& v : motion.turn) turn = std::max(turn, length(v));
  const bool moves = most >= small * turn;
  std::vector<std::string> names;
  for (std::size_t p = 0; p < motion.move.size(); ++p)
    if (length(moves ? motion.move[p] : motion.turn[p]) > small * (moves ? most : turn))
      names.push_back(s.points()[p].name);
  return names;
}

std::vector<std::string> whole_members(const Structure& s, const std::vector<bool>& moving) {
  std::vector<std::string> names;
  for (const Member& m : s.members())
    if (std::all_of(m.through.begin(), m.through.end(), [&](PointId p) { return moving[p.index]; }))
      names.push_back(m.name);
  return names;
}

namespace {

std::string spins(const Structure& s, const Motion& motion, double largest) {
  std::vector<bool> turning(motion.turn.size());
  for (std::size_t p = 0; p < turning.size(); ++p) turning[p] = length(motion.turn[p]) > small * largest;
  std::vector<std::string> members;
  for (const Member& m : s.members()) {
    const Vector axis = local_axes(s, m).x;
    const bool spin = std::all_of(m.through.begin(), m.through.end(), [&](PointId p) {
      const Vector& turn = motion.turn[p.index];
      return turning[p.index] && length(cross(turn, axis)) <= 1e-4 * length(turn);
    });
    if (spin) members.push_back(m.name);
  }
  if (members.size() == 1) return fmt::format("{} rotates about its axis: nothing restrains it", quoted(members[0]));
  if (members.size() > 1) return fmt::format("{} rotate about their axes: nothing restrains them", list(members));
  std::vector<std::string> points;
  for (std::size_t p = 0; p < turning.size(); ++p)
    if (turning[p]) points.push_back(s.points()[p].name);
  return fmt::format("{} {} in place: nothing restrains {}", list(points), points.size() == 1 ? "rotates" : "rotate",
                     points.size() == 1 ? "it" : "them");
}

}  // namespace

std::string in_words(const Structure& s, const Motion& motion) {
  double largest_move = 0, largest_turn = 0;
  for (const Vector& v : motion.move) largest_move = std::max(largest_move, length(v));
  for (const Vector& v : motion.turn) largest_turn = std::max(largest_turn, length(v));
  // A rotation is compared with a displacement by the size of the members, about a metre.
  if (largest_move < small * largest_turn) return spins(s, motion, largest_turn);

  std::vector<bool> moving(motion.move.size());
  std::vector<std::string> names;
  Vector first;
  bool same = true;
  for (std::size_t p = 0; p < moving.size(); ++p) {
    moving[p] = length(motion.move[p]) > small * largest_move;
    if (!moving[p]) continue;
    if (names.empty()) first = motion.move[p];
    same = same && length(motion.move[p] - first) <= 1e-4 * largest_move;
    names.push_back(s.points()[p].name);
  }
  if (same) {
    for (std::string& m : whole_members(s, moving)) names.push_back(std::move(m));
    const bool one = names.size() == 1;
    return fmt::format("{} {} along {}: nothing restrains {}", list(names), one ? "slides" : "slide",
                       direction(s, first), one ? "it" : "them");
  }
  std::string text;
  int told = 0;
  for (std::size_t p = 0; p < moving.size() && told < 4; ++p) {
    if (!moving[p]) continue;
    text += told++ == 0 ? fmt::format("'{}' moves along {}", s.points()[p].name, direction(s, motion.move[p]))
                        : fmt::format(", '{}' along {}", s.points()[p].name, direction(s, motion.move[p]));
  }
  if (names.size() > 4) text += fmt::format(", and {} more points", names.size() - 4);
  return text + ": nothing restrains this motion";
}

}  // namespace corvex::solver
