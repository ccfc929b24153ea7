#include "hand/skeleton.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "structure/held.hpp"

namespace corvex::hand {
namespace {

// A word for formulas: letters and digits only.
std::string plain(const std::string& name) {
  std::string word;
  for (const char c : name)
    if (std::isalnum(static_cast<unsigned char>(c)) || static_cast<unsigned char>(c) >= 0x80) word += c;
  return word.empty() ? "P" : word;
}

void add_pieces(const Structure& s, Skeleton& k) {
  std::map<std::string, int> count;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    k.first.push_back(k.pieces.size());
    const Axes axes = s.is_plane() ? axes_in_plane(s, m) : local_axes(s, m);
    const double turn = principal_turn(s, m);
    const Flexibility flexible(rigidity(s, m));
    const auto released = [&](const std::array<bool, 6>& freed) {
      return s.is_plane() ? releases_in_plane(s, m, freed) : freed;
    };
    const Vector start = s.axis_start(m);
    for (std::size_t j = 0; j + 1 < m.through.size(); ++j) {
      Piece p{.member = i, .a = m.through[j].index, .b = m.through[j + 1].index, .start = s.place_of(m, j)};
      p.length = s.place_of(m, j + 1) - p.start;
      p.beam = m.kind == MemberKind::beam;
      p.axes = axes;
      p.at_a = start + axes.x * p.start;
      p.at_b = start + axes.x * (p.start + p.length);
      if (j == 0) p.freed_a = released(m.freed_start);
      if (j + 2 == m.through.size()) p.freed_b = released(m.freed_end);
      p.turn = turn;
      p.flexible = flexible;
      const std::string a = plain(s.points()[p.a].name), b = plain(s.points()[p.b].name);
      const std::string between = a.size() + b.size() > 4 ? "_" : "";
      p.name = a + between + b, p.name_from_b = b + between + a;
      ++count[p.name];
      k.used[p.a] = k.used[p.b] = true;
      k.pieces.push_back(std::move(p));
    }
  }
  k.first.push_back(k.pieces.size());
  // Two members between the same points are distinguished by their own names.
  for (Piece& p : k.pieces)
    if (const std::string own = "_" + plain(s.members()[p.member].name); count[p.name] + count[p.name_from_b] > 1)
      p.name += own, p.name_from_b += own;
}

void add_holds(const Structure& s, Skeleton& k) {
  static constexpr Vector global[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  static constexpr const char* axis[] = {"x", "y", "z"};
  const auto exists = [&](std::size_t i) { return !s.is_plane() || i == 0 || i == 1 || i == 5; };
  for (const PointSupport& support : s.supports()) {
    const std::size_t p = support.at.index;
    if (!k.used[p]) continue;
    const std::string name = plain(s.points()[p].name);
    std::array<bool, 6> held{};
    const HeldAxes own = held_axes(s, support);
    const bool skew = !support.along.empty() && own.skew;
    if (skew) {
      const Vector axes[] = {own.axes.x, own.axes.y, own.axes.z};
      for (int i = 0; i < own.count; ++i) k.holds.push_back({p, axes[i], false, 0, fmt::format("{}_{}", name, i + 1)});
    } else {
      for (std::size_t i = 0; i < 3; ++i) {
        held[i] = support.held[i];
        for (const Vector& v : support.along) {
          const double parts[] = {v.x, v.y, v.z};
          held[i] = held[i] || parts[i] != 0;
        }
      }
    }
    for (std::size_t i = 3; i < 6; ++i) held[i] = support.held[i];
    for (std::size_t i = 0; i < 6; ++i) {
      if (!exists(i) || (!held[i] && support.spring[i] == 0)) continue;
      const bool turning = i >= 3;
      const std::string moment = s.is_plane() ? "M_" + name : fmt::format("M_{}{}", name, axis[i % 3]);
      k.holds.push_back({p, global[i % 3], turning, held[i] ? 0 : support.spring[i],
                         turning ? moment : fmt::format("{}_{}", name, axis[i])});
    }
  }
}

}  // namespace

std::vector<std::size_t> Skeleton::components(const Piece& piece) const {
  if (!piece.beam) return {N};
  return plane ? std::vector<std::size_t>{N, Vy, Mz} : std::vector<std::size_t>{N, Vy, Vz, T, My, Mz};
}

Skeleton skeleton(const Structure& s) {
  Skeleton k{.structure = &s, .plane = s.is_plane()};
  k.used.assign(s.points().size(), false);
  add_pieces(s, k);
  add_holds(s, k);
  k.pieces_at.resize(s.points().size()), k.holds_at.resize(s.points().size());
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    k.pieces_at[k.pieces[i].a].push_back(i);
    k.pieces_at[k.pieces[i].b].push_back(i);
  }
  for (std::size_t i = 0; i < k.holds.size(); ++i) k.holds_at[k.holds[i].point].push_back(i);
  k.size = std::max(s.bounds().diagonal(), 1e-9);
  return k;
}

// The joint at the end feels the opposite of what the face along +x feels; the one at the start the same.
UnitWrench on_joint(const Piece& p, std::size_t component, bool at_a) {
  UnitWrench w;
  switch (component) {
    case N: w.force = p.axes.x; break;
    case Vy: w.force = -p.axes.y; break;
    case Vz: w.force = -p.axes.z; break;
    case T: w.moment = p.axes.x; break;
    case My: w.moment = -p.axes.y; break;
    default: w.moment = p.axes.z; break;
  }
  return at_a ? w : UnitWrench{-w.force, -w.moment};
}

double at(const Course& c, double x) {
  return ((c[3] * x + c[2]) * x + c[1]) * x + c[0];
}

void Acting::index(const Skeleton& k) {
  lines_on_.resize(k.structure->members().size());
  for (std::size_t i = 0; i < lines.size(); ++i) lines_on_[lines[i].member].push_back(i);
  places_on_.resize(k.pieces.size());
  for (std::size_t i = 0; i < places.size(); ++i) places_on_[places[i].piece].push_back(i);
}
std::vector<std::size_t> Acting::lines_on(std::size_t member) const {
  if (!lines_on_.empty()) return lines_on_[member];
  std::vector<std::size_t> those;
  for (std::size_t i = 0; i < lines.size(); ++i)
    if (lines[i].member == member) those.push_back(i);
  return those;
}
std::vector<std::size_t> Acting::places_on(std::size_t piece) const {
  if (!places_on_.empty()) return places_on_[piece];
  std::vector<std::size_t> those;
  for (std::size_t i = 0; i < places.size(); ++i)
    if (places[i].piece == piece) those.push_back(i);
  return those;
}

PieceCourse course_of(const Skeleton& k, const Acting& acting, std::size_t index, const Forces& start) {
  const Piece& p = k.pieces[index];
  const double L = p.length, same = 1e-9 * L;
  const std::vector<std::size_t> lines = acting.lines_on(p.member), places = acting.places_on(index);
  std::vector<double> breaks{0, L};
  for (const std::size_t i : lines)
    for (const double x : {acting.lines[i].from - p.start, acting.lines[i].to - p.start})
      if (x > same && x < L - same) breaks.push_back(x);
  for (const std::size_t i : places)
    if (const double x = acting.places[i].at; x > same && x < L - same) breaks.push_back(x);
  std::sort(breaks.begin(), breaks.end());
  breaks.erase(std::unique(breaks.begin(), breaks.end(), [&](double a, double b) { return b - a <= same; }),
               breaks.end());
  breaks.back() = L;
  PieceCourse all;
  Forces f = start;
  const auto jump = [&](double x) {
    for (const std::size_t i : places) {
      const PlaceOn& l = acting.places[i];
      if (std::abs(l.at - x) > same) continue;
      const Vector force = p.axes.local(l.force), moment = p.axes.local(l.moment);
      f[N] -= force.x, f[Vy] += force.y, f[Vz] += force.z;
      f[T] -= moment.x, f[My] += moment.y, f[Mz] -= moment.z;
    }
  };
  for (std::size_t i = 0; i + 1 < breaks.size(); ++i) {
    const double from = breaks[i], to = breaks[i + 1], h = to - from;
    jump(from);
    Vector q, slope, m, m_slope;
    for (const std::size_t n : lines) {
      const LineOn& l = acting.lines[n];
      const double begin = l.from - p.start, end = l.to - p.start;
      if (begin > from + same || end < to - same) continue;
      const Vector rise = p.axes.local(l.last - l.first) / (l.to - l.from);
      const Vector turn = p.axes.local(l.last_moment - l.first_moment) / (l.to - l.from);
      q += p.axes.local(l.at(from + p.start)), slope += rise;
      m += p.axes.local(l.moment_at(from + p.start)), m_slope += turn;
    }
    Stretch s{.from = from, .to = to};
    s.forces[N] = {f[N], -q.x, -slope.x / 2, 0};
    s.forces[Vy] = {f[Vy], q.y, slope.y / 2, 0};
    s.forces[Vz] = {f[Vz], q.z, slope.z / 2, 0};
    s.forces[T] = {f[T], -m.x, -m_slope.x / 2, 0};
    s.forces[My] = {f[My], f[Vz] + m.y, (q.z + m_slope.y) / 2, slope.z / 6};
    s.forces[Mz] = {f[Mz], f[Vy] - m.z, (q.y - m_slope.z) / 2, slope.y / 6};
    for (std::size_t c = 0; c < 6; ++c) f[c] = hand::at(s.forces[c], h);
    all.stretches.push_back(s);
  }
  jump(L);
  all.end = f;
  return all;
}

double resting_force(const Skeleton& k, const Piece& p, const std::vector<Stretch>& hanging) {
  const double sign = k.structure->members()[p.member].acts == Acts::compression ? -1 : 1;
  double least = std::numeric_limits<double>::infinity();
  for (const Stretch& s : hanging) {
    const Course& n = s.forces[N];
    const double h = s.to - s.from, root = n[2] != 0 ? -n[1] / (2 * n[2]) : 0;
    for (const double x : {0.0, h, std::clamp(root, 0.0, h)}) least = std::min(least, sign * at(n, x));
  }
  return -sign * least;
}

Acting pushed_apart(const Skeleton& k, std::size_t piece) {
  const Piece& p = k.pieces[piece];
  Acting all;
  for (const bool at_a : {true, false}) {
    const UnitWrench w = on_joint(p, N, at_a);
    const std::size_t point = at_a ? p.a : p.b;
    const Vector arm = (at_a ? p.at_a : p.at_b) - k.structure->points()[point].position;
    all.joints.push_back({point, -w.force, -cross(arm, w.force), "1"});
  }
  return all;
}

Forces in_own_axes(const Skeleton& k, const Piece& p, const Forces& f) {
  if (!k.plane) return f;
  const Vector own = local_axes(*k.structure, k.structure->members()[p.member]).y;
  const double c = dot(own, p.axes.y), s = dot(own, p.axes.z);
  return {f[N], f[Vy] * c + f[Vz] * s, f[Vz] * c - f[Vy] * s, f[T], f[My] * c - f[Mz] * s, f[Mz] * c + f[My] * s};
}

}  // namespace corvex::hand
