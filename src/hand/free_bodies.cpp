#include "hand/free_bodies.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace corvex::hand {
namespace {

constexpr double nothing = 1e-10;

bool carries_load(const Acting& a, const Skeleton& k, std::size_t piece, std::size_t component) {
  const Piece& p = k.pieces[piece];
  const auto part = [&](const Vector& force, const Vector& moment) {
    const Vector f = p.axes.local(force), m = p.axes.local(moment);
    const double parts[] = {f.x, f.y, f.z, m.x};
    return std::abs(parts[component]) > 1e-12 * (length(force) + length(moment));
  };
  for (const std::size_t i : a.lines_on(p.member)) {
    const LineOn& l = a.lines[i];
    if (l.to <= p.start + 1e-9 * p.length || l.from >= p.start + p.length * (1 - 1e-9)) continue;
    if (part(l.first, l.first_moment) || part(l.last, l.last_moment)) return true;
  }
  for (const std::size_t i : a.places_on(piece))
    if (part(a.places[i].force, a.places[i].moment)) return true;
  return false;
}

const char* letter(std::size_t component, bool plane) {
  static constexpr const char* space[] = {"N", "Vy", "Vz", "T", "My", "Mz"};
  static constexpr const char* flat[] = {"N", "V", "V", "T", "M", "M"};
  return (plane ? flat : space)[component];
}

}  // namespace

Ledger::Ledger(const ForceMethod& method, const Acting& acting, const State& state, const Dimension& per)
    : k_(method.skeleton()), acting_(acting), state_(state), per_(per) {
  const Skeleton& k = k_;
  const auto add = [&](std::string name, double value, bool moment, bool exists, bool known, bool bar) {
    names_.push_back(std::move(name));
    values_.push_back(value);
    dimensions_.push_back((moment ? dimension::moment : dimension::force) / per);
    exists_.push_back(exists), known_.push_back(known), bars_.push_back(bar);
  };
  for (std::size_t i = 0; i < k.holds.size(); ++i)
    add(k.holds[i].name, state.reaction[i], k.holds[i].turning, true, false, false);
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    const bool slack = method.statics && method.statics->is_slack(i);
    for (std::size_t c = 0; c < 6; ++c) {
      const bool in_plane = !k.plane || c == N || c == Vy || c == Mz;
      const bool bar_force = !p.beam && c != N;
      // A bar carries its own loads as a simple beam.
      const bool loaded_bar = bar_force && (c == Vy || c == Vz) &&
                              (std::abs(state.start[i][c]) > 0 || std::abs(state.course[i].end[c]) > 0);
      const bool same = (c < My && !carries_load(acting, k, i, c)) || (bar_force && !loaded_bar);
      for (const bool at_a : {true, false}) {
        if (!at_a && same) {
          end_keys_.push_back(end_keys_.back());
          if (p.freed_b[c]) known_[end_keys_.back()] = true, exists_[end_keys_.back()] = false;
          continue;
        }
        const bool freed = (at_a ? p.freed_a : p.freed_b)[c];
        const double value = at_a ? state.start[i][c] : state.course[i].end[c];
        const bool hangs = slack && c == N;  // forces on a slack bar are known
        const bool exists = in_plane && !freed && (!bar_force || loaded_bar) && (!hangs || value != 0);
        end_keys_.push_back(names_.size());
        add(fmt::format("{}_{}", p.beam || c != N ? letter(c, k.plane) : "S", at_a ? p.name : p.name_from_b), value,
            c >= T, exists, !exists || hangs, !p.beam);
      }
    }
  }
}

std::size_t Ledger::of_end(std::size_t piece, std::size_t component, bool at_a) const {
  return end_keys_[(piece * 6 + component) * 2 + (at_a ? 0 : 1)];
}

Body whole(const Skeleton& k) {
  Body b{.title = "whole structure"};
  for (std::size_t p = 0; p < k.used.size(); ++p)
    if (k.used[p]) b.joints.push_back(p);
  b.pieces.resize(k.pieces.size());
  std::iota(b.pieces.begin(), b.pieces.end(), std::size_t{0});
  return b;
}

Body joint(const Skeleton& k, std::size_t point) {
  return {"joint " + k.structure->points()[point].name, {point}, {}};
}

Body piece_alone(const Skeleton& k, std::size_t piece) {
  const Piece& p = k.pieces[piece];
  return {
      fmt::format("{} {} of {}", p.beam ? "part" : "bar", p.name, k.structure->members()[p.member].name), {}, {piece}};
}

namespace {

class Groups {
 public:
  explicit Groups(std::size_t n) : parent_(n) { std::iota(parent_.begin(), parent_.end(), std::size_t{0}); }
  std::size_t of(std::size_t i) {
    while (parent_[i] != i) i = parent_[i] = parent_[parent_[i]];
    return i;
  }
  void join(std::size_t a, std::size_t b) { parent_[of(a)] = of(b); }

 private:
  std::vector<std::size_t> parent_;
};

bool any(const std::array<bool, 6>& freed) {
  return std::find(freed.begin(), freed.end(), true) != freed.end();
}

}  // namespace

std::vector<Body> rigid_parts(const Skeleton& k) {
  const std::size_t joints = k.used.size();
  Groups groups(joints + k.pieces.size());
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    if (!p.beam) continue;
    if (!any(p.freed_a)) groups.join(joints + i, p.a);
    if (!any(p.freed_b)) groups.join(joints + i, p.b);
  }
  std::vector<Body> all;
  std::vector<std::size_t> roots;
  const auto part = [&](std::size_t root) -> Body& {
    const auto it = std::find(roots.begin(), roots.end(), root);
    if (it != roots.end()) return all[static_cast<std::size_t>(it - roots.begin())];
    roots.push_back(root);
    return all.emplace_back();
  };
  for (std::size_t i = 0; i < k.pieces.size(); ++i)
    if (k.pieces[i].beam) part(groups.of(joints + i)).pieces.push_back(i);
  for (std::size_t p = 0; p < joints; ++p)
    if (k.used[p])
      if (const auto it = std::find(roots.begin(), roots.end(), groups.of(p)); it != roots.end())
        all[static_cast<std::size_t>(it - roots.begin())].joints.push_back(p);
  // Single pieces are bodies anyway.
  std::erase_if(all, [](const Body& b) { return b.pieces.size() + b.joints.size() < 2; });
  if (all.size() == 1 && all.front().pieces.size() == k.pieces.size()) return {};
  for (Body& b : all) {
    std::string members;
    std::set<std::size_t> seen;
    for (const std::size_t i : b.pieces)
      if (const std::size_t m = k.pieces[i].member; seen.insert(m).second)
        members += (members.empty() ? "" : ", ") + k.structure->members()[m].name;
    b.title = "part with " + members;
  }
  return all;
}

namespace {

// The joints on one side of the least cut through unknown bars, from one pair of joints to another; nothing where it
// takes more than so many (Ford and Fulkerson).
std::optional<std::vector<bool>> side(const std::vector<std::pair<std::size_t, std::size_t>>& bars,
                                      const std::vector<bool>& solid, std::size_t joints, std::size_t from,
                                      std::size_t to, std::size_t most) {
  std::vector<int> flow(bars.size(), 0);  // of unit capacity either way; solid ones hold everything
  for (std::size_t found = 0;; ++found) {
    std::vector<std::ptrdiff_t> by(joints, -2);
    std::vector<std::size_t> queue;
    for (const std::size_t p : {bars[from].first, bars[from].second}) by[p] = -1, queue.push_back(p);
    std::optional<std::size_t> end;
    for (std::size_t q = 0; q < queue.size() && !end; ++q)
      for (std::size_t b = 0; b < bars.size(); ++b) {
        const bool forward = bars[b].first == queue[q];
        if (!forward && bars[b].second != queue[q]) continue;
        const std::size_t other = forward ? bars[b].second : bars[b].first;
        if (by[other] != -2 || (!solid[b] && flow[b] == (forward ? 1 : -1))) continue;
        by[other] = static_cast<std::ptrdiff_t>(b);
        queue.push_back(other);
        if (other == bars[to].first || other == bars[to].second) {
          end = other;
          break;
        }
      }
    if (!end) {
      std::vector<bool> reached(joints, false);
      for (std::size_t p = 0; p < joints; ++p) reached[p] = by[p] != -2;
      return reached;
    }
    if (found == most) return std::nullopt;
    for (std::size_t p = *end; by[p] >= 0;) {
      const auto b = static_cast<std::size_t>(by[p]);
      const bool forward = bars[b].second == p;
      if (!solid[b]) flow[b] += forward ? 1 : -1;
      p = forward ? bars[b].first : bars[b].second;
    }
  }
}

}  // namespace

std::vector<Body> sections(const Ledger& l, std::size_t most) {
  const Skeleton& k = l.skeleton();
  std::vector<std::pair<std::size_t, std::size_t>> bars;
  std::vector<bool> solid, unknown;
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    const std::size_t key = l.of_end(i, N, true);
    const bool is_unknown = !p.beam && !l.known(key);
    // Cutting a known force gains nothing; only unknown ones connect.
    if (!is_unknown && !p.beam) continue;
    bars.emplace_back(p.a, p.b), solid.push_back(p.beam);
  }
  std::vector<std::vector<bool>> seen;
  std::vector<Body> all;
  for (std::size_t from = 0; from < bars.size(); ++from)
    for (std::size_t to = from + 1; to < bars.size(); ++to) {
      const auto& [a, b] = bars[from];
      const auto& [c, d] = bars[to];
      if (a == c || a == d || b == c || b == d) continue;
      const auto reached = side(bars, solid, k.used.size(), from, to, most);
      if (!reached || std::find(seen.begin(), seen.end(), *reached) != seen.end()) continue;
      seen.push_back(*reached);
      std::string names;
      for (std::size_t i = 0; i < k.pieces.size(); ++i)
        if (const Piece& p = k.pieces[i]; (*reached)[p.a] != (*reached)[p.b] && !l.known(l.of_end(i, N, true)))
          names += (names.empty() ? "" : ", ") + p.name;
      // Both sides: the one with fewer forces is shorter to write.
      for (const bool near : {true, false}) {
        Body body{.title = "section through " + names};
        for (std::size_t p = 0; p < k.used.size(); ++p)
          if (k.used[p] && (*reached)[p] == near) body.joints.push_back(p);
        for (std::size_t i = 0; i < k.pieces.size(); ++i)
          if ((*reached)[k.pieces[i].a] == near && (*reached)[k.pieces[i].b] == near) body.pieces.push_back(i);
        all.push_back(std::move(body));
      }
    }
  return all;
}

namespace {

class Loads {
 public:
  Loads(const Ledger& l, std::vector<Action>& all) : k_(l.skeleton()), a_(l.acting()), per_(l.per()), all_(all) {}

  // Of a force or moment vector each component by itself, with the name of the load.
  void add(const std::string& name, const Vector& at, const Vector& v, bool moment, const std::vector<Factor>& times,
           Dimension d) {
    static constexpr Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    static constexpr const char* letters[] = {"x", "y", "z"};
    const double parts[] = {v.x, v.y, v.z};
    const double size = length(v);
    const int several = static_cast<int>(
        std::count_if(std::begin(parts), std::end(parts), [&](double p) { return std::abs(p) > nothing * size; }));
    for (std::size_t i = 0; i < 3; ++i) {
      if (std::abs(parts[i]) <= nothing * size || size == 0) continue;
      const std::string own = several > 1 ? name + "_" + letters[i] : name;
      Product p{.sign = parts[i] < 0 ? -1.0 : 1.0, .parts = {{own, std::abs(parts[i]), d / per_}}};
      p.parts.insert(p.parts.end(), times.begin(), times.end());
      all_.push_back({std::nullopt, {p}, at, moment ? Vector{} : axes[i], moment ? axes[i] : Vector{}, own});
    }
  }
  void on_joint(const JointOn& l) {
    const Vector at = k_.structure->points()[l.point].position;
    add(l.name, at, l.force, false, {}, dimension::force);
    add(zero(l.force) ? l.name : "M" + l.name, at, l.moment, true, {}, dimension::moment);
  }
  void at_place(const PlaceOn& l) {
    const Vector at = k_.pieces[l.piece].at(l.at);
    add(l.name, at, l.force, false, {}, dimension::force);
    add(zero(l.force) ? l.name : "M" + l.name, at, l.moment, true, {}, dimension::moment);
  }
  // A part of a line load from one place of its member to another: an even one in the middle, else two triangles.
  void line(const LineOn& l, double from, double to) {
    const Structure& s = *k_.structure;
    const Member& m = s.members()[l.member];
    const Vector start = s.axis_start(m), along = local_axes(s, m).x;
    const double h = to - from;
    const Factor whole{{}, h, dimension::length};
    const Factor half{{}, 2, dimension::number, true};
    const auto triangles = [&](const Vector& first, const Vector& last, bool moment, const std::string& name,
                               Dimension d) {
      const Vector change = last - first;
      if (length(change) <= nothing * (length(first) + length(last))) {
        add(name, start + along * (from + h / 2), first, moment, {whole}, d);
        return;
      }
      add(name + "a", start + along * (from + h / 3), first, moment, {whole, half}, d);
      add(name + "b", start + along * (from + 2 * h / 3), last, moment, {whole, half}, d);
    };
    triangles(l.at(from), l.at(to), false, l.name, dimension::line_force);
    triangles(l.moment_at(from), l.moment_at(to), true, "m" + l.name, dimension::force);
  }

 private:
  const Skeleton& k_;
  const Acting& a_;
  Dimension per_;
  std::vector<Action>& all_;
};

}  // namespace

namespace {

// Which joints and pieces a body has.
struct Parts {
  std::vector<bool> joint, piece;

  Parts(const Skeleton& k, const Body& body) : joint(k.used.size(), false), piece(k.pieces.size(), false) {
    for (const std::size_t p : body.joints) joint[p] = true;
    for (const std::size_t i : body.pieces) piece[i] = true;
  }
};

// Reactions, and the forces where pieces are cut from their joints.
void add_inner_forces(const Ledger& l, const Body& body, const Parts& has, std::vector<Action>& all) {
  const Skeleton& k = l.skeleton();
  // Only what touches the body, in the order of the structure.
  std::vector<std::size_t> holds, pieces = body.pieces;
  for (const std::size_t p : body.joints) {
    holds.insert(holds.end(), k.holds_at[p].begin(), k.holds_at[p].end());
    pieces.insert(pieces.end(), k.pieces_at[p].begin(), k.pieces_at[p].end());
  }
  std::sort(holds.begin(), holds.end());
  std::sort(pieces.begin(), pieces.end());
  pieces.erase(std::unique(pieces.begin(), pieces.end()), pieces.end());
  for (const std::size_t i : holds) {
    const Hold& h = k.holds[i];
    all.push_back({l.of_hold(i),
                   {},
                   k.structure->points()[h.point].position,
                   h.turning ? Vector{} : h.direction,
                   h.turning ? h.direction : Vector{},
                   h.name});
  }
  for (const std::size_t i : pieces) {
    const Piece& p = k.pieces[i];
    for (const bool at_a : {true, false}) {
      // Cut between the piece and its joint, of which one is in the body.
      if (has.joint[at_a ? p.a : p.b] == has.piece[i]) continue;
      const double sign = has.piece[i] ? -1 : 1;
      for (std::size_t c = 0; c < 6; ++c) {
        const std::size_t key = l.of_end(i, c, at_a);
        if (!l.exists(key)) continue;
        const UnitWrench w = on_joint(p, c, at_a);
        all.push_back({key,
                       {},
                       at_a ? p.at_a : p.at_b,
                       w.force * sign,
                       w.moment * sign,
                       l.name(key),
                       has.piece[i] ? Vector{} : p.axes.x * (at_a ? 1 : -1)});
      }
    }
  }
}

}  // namespace

std::vector<Action> forces_on(const Ledger& l, const Body& body) {
  const Skeleton& k = l.skeleton();
  const Acting& a = l.acting();
  const Parts has(k, body);
  std::vector<Action> all;
  add_inner_forces(l, body, has, all);
  Loads loads(l, all);
  for (const JointOn& j : a.joints)
    if (has.joint[j.point]) loads.on_joint(j);
  // A single joint has no length to compare others with.
  if (body.pieces.empty()) return all;
  for (const PlaceOn& p : a.places)
    if (has.piece[p.piece]) loads.at_place(p);
  for (const LineOn& line : a.lines) {
    // Adjacent pieces carry one load.
    std::optional<double> from;
    double to = 0;
    for (std::size_t i = k.first[line.member]; i < k.first[line.member + 1]; ++i) {
      const Piece& p = k.pieces[i];
      const double begin = std::max(line.from, p.start), end = std::min(line.to, p.start + p.length);
      if (!has.piece[i] || end - begin <= 1e-9 * p.length) {
        if (from) loads.line(line, *from, to);
        from.reset();
        continue;
      }
      if (!from) from = begin;
      to = end;
    }
    if (from) loads.line(line, *from, to);
  }
  return all;
}

namespace {

Condition along(const Vector& direction, std::string words) {
  return {false, direction, {}, sentence(std::move(words))};
}
Condition about(const Vector& axis, const Vector& centre, std::string words) {
  return {true, axis, centre, sentence(std::move(words))};
}

}  // namespace

namespace {

// In the plane: where two of at most three unknown forces meet, which is usually not a joint.
std::vector<Condition> crossings(const Ledger& l, const std::vector<Action>& forces) {
  std::vector<Condition> all;
  std::vector<const Action*> unknown;
  for (const Action& f : forces)
    if (f.key && !l.known(*f.key)) unknown.push_back(&f);
  if (unknown.size() > 3) return all;
  for (std::size_t i = 0; i < unknown.size(); ++i)
    for (std::size_t j = i + 1; j < unknown.size(); ++j) {
      const Action &a = *unknown[i], &b = *unknown[j];
      const double across = cross(a.force, b.force).z;
      if (zero(a.force) || zero(b.force) || std::abs(across) < 1e-3) continue;
      const Vector at = a.at + a.force * (cross(b.at - a.at, b.force).z / across);
      Line words;
      words.say(fmt::format("moments about the place where {} and {} meet, x = ", a.name, b.name));
      words.put(at.x, dimension::length).say(", y = ").put(at.y, dimension::length);
      all.push_back({true, {0, 0, 1}, at, words.take()});
    }
  return all;
}

}  // namespace

std::vector<Condition> conditions(const Ledger& l, const Body& body, const std::vector<Action>& forces) {
  const Skeleton& k = l.skeleton();
  static constexpr Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  static constexpr const char* letters[] = {"x", "y", "z"};
  std::vector<Condition> all;
  const std::size_t n = k.plane ? 2 : 3;
  for (std::size_t i = 0; i < n; ++i) all.push_back(along(axes[i], fmt::format("forces along {}", letters[i])));
  std::vector<bool> has_joint(k.used.size(), false), has_piece(k.pieces.size(), false);
  for (const std::size_t p : body.joints) has_joint[p] = true;
  for (const std::size_t i : body.pieces) has_piece[i] = true;
  std::vector<std::pair<Vector, std::string>> centres;
  const auto add_centre = [&](const Vector& at, const std::string& name) {
    if (std::none_of(centres.begin(), centres.end(),
                     [&](const auto& c) { return length(c.first - at) < 1e-9 * k.size; }))
      centres.emplace_back(at, name);
  };
  const auto& points = k.structure->points();
  for (const std::size_t p : body.joints) add_centre(points[p].position, points[p].name);
  for (const std::size_t i : body.pieces)
    for (const std::size_t p : {k.pieces[i].a, k.pieces[i].b}) add_centre(points[p].position, points[p].name);
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    for (const bool at_a : {true, false}) {
      if (has_joint[at_a ? p.a : p.b] == has_piece[i]) continue;
      const std::size_t far = has_piece[i] ? (at_a ? p.a : p.b) : (at_a ? p.b : p.a);
      add_centre(points[far].position, points[far].name);
      bool unknown = false;
      for (std::size_t c = 0; c < 6; ++c) {
        const std::size_t key = l.of_end(i, c, at_a);
        unknown = unknown || (l.exists(key) && !l.known(key));
      }
      if (!unknown) continue;
      const std::string& name = at_a ? p.name : p.name_from_b;
      all.push_back(along(p.axes.x, "forces along " + name));
      all.push_back(along(p.axes.y, fmt::format("forces across {}{}", name, k.plane ? "" : ", its y")));
      if (!k.plane) all.push_back(along(p.axes.z, fmt::format("forces across {}, its z", name)));
      const Vector at = at_a ? p.at_a : p.at_b;
      if (!k.plane)
        for (const auto& [axis, word] : {std::pair{p.axes.x, "x"}, {p.axes.y, "y"}, {p.axes.z, "z"}})
          all.push_back(about(axis, at, fmt::format("moments about the {} axis of {} at its end", word, name)));
      if (length(at - points[at_a ? p.a : p.b].position) > 1e-9 * k.size) add_centre(at, "the end of " + name);
    }
  }
  if (k.plane)
    for (Condition& c : crossings(l, forces))
      if (std::none_of(centres.begin(), centres.end(),
                       [&](const auto& known) { return length(known.first - c.centre) < 1e-9 * k.size; }))
        all.push_back(std::move(c));
  for (const auto& [at, name] : centres)
    for (std::size_t i = k.plane ? 2 : 0; i < 3; ++i)
      all.push_back(about(axes[i], at,
                          k.plane ? fmt::format("moments about {}", name)
                                  : fmt::format("moments about {} through {}", letters[i], name)));
  return all;
}

namespace {

bool is_axis(const Vector& v, std::size_t i) {
  const double parts[] = {v.x, v.y, v.z};
  return parts[i] == 1;
}

// The product of two unit vectors as a sum of products of their components.
Sum projected(const Vector& d, const Vector& f) {
  const double value = dot(d, f);
  if (std::abs(value) < nothing) return {};
  if (std::abs(std::abs(value) - 1) < nothing) return {number_of(value > 0 ? 1 : -1)};
  for (std::size_t i = 0; i < 3; ++i)
    if (is_axis(d, i) || is_axis(f, i)) return {number_of(value)};
  Sum sum;
  for (const auto& [a, b] : {std::pair{d.x, f.x}, {d.y, f.y}, {d.z, f.z}})
    if (std::abs(a * b) > nothing) sum.push_back(times(number_of(a), number_of(b)));
  return sum;
}

// The lever of a unit force about an axis.
Sum lever(const Condition& c, const Vector& at, const Vector& f, double size) {
  const Vector r = at - c.centre;
  const double value = dot(c.direction, cross(r, f));
  if (std::abs(value) < nothing * size) return {};
  const double arm[] = {r.x, r.y, r.z}, force[] = {f.x, f.y, f.z};
  for (std::size_t i = 0; i < 3; ++i) {
    if (!is_axis(c.direction, i)) continue;
    const std::size_t j = (i + 1) % 3, k = (i + 2) % 3;
    Sum sum;
    for (const auto& [a, b, sign] : {std::tuple{j, k, 1.0}, {k, j, -1.0}})
      if (std::abs(arm[a]) > nothing * size && std::abs(force[b]) > nothing)
        sum.push_back(times(number_of(sign * arm[a], dimension::length), number_of(force[b])));
    return sum;
  }
  return {number_of(value, dimension::length)};
}

}  // namespace

std::vector<Term> terms(const Ledger& l, const std::vector<Action>& forces, const Condition& c) {
  std::vector<Term> all;
  for (const Action& f : forces) {
    if (f.key && l.known(*f.key) && l.value(*f.key) == 0) continue;
    Sum factor;
    if (!c.moments)
      factor = projected(c.direction, f.force);
    else if (!zero(f.moment))
      factor = projected(c.direction, f.moment);
    else
      factor = lever(c, f.at, f.force, l.skeleton().size);
    if (factor.empty()) continue;
    const double v = value(factor);
    all.push_back({&f, std::move(factor), v});
  }
  return all;
}

FreeBody sketch(const Ledger& l, const Body& body, const std::vector<Action>& forces) {
  const Skeleton& k = l.skeleton();
  FreeBody f{.name = body.title};
  for (const std::size_t i : body.pieces) f.bars.emplace_back(k.pieces[i].at_a, k.pieces[i].at_b);
  for (const std::size_t p : body.joints)
    f.joints.emplace_back(k.structure->points()[p].position, k.structure->points()[p].name);
  for (const Action& force : forces) {
    if (force.key && l.known(*force.key) && l.value(*force.key) == 0) continue;
    const double sign = force.key ? 1 : force.size.front().sign;
    // A member that was cut leaves a stub, at the end of which its forces act.
    constexpr double stub = 0.1;
    const Vector at = force.at + force.outward * (stub * k.size);
    if (!zero(force.outward)) f.bars.emplace_back(force.at, at);
    f.arrows.push_back({at, force.force * sign, force.moment * sign, force.name, !force.key});
  }
  return f;
}

}  // namespace corvex::hand
