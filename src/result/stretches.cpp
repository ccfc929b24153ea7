#include "result/stretches.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::result {
namespace {

// A support that holds movement across the member, rigidly or by a spring.
bool supported(const Data& data, const Member& m, PointId p, bool rigidly) {
  const Structure& s = data.structure;
  const Axes axes = local_axes(s, m);
  constexpr double along_only = 1e-6;
  const auto across = [&](const Vector& direction) {
    const Vector v = axes.local(direction);
    return std::hypot(v.y, v.z) > along_only * length(direction);
  };
  for (const std::size_t i : data.at_points.supports[p.index]) {
    const PointSupport& support = s.supports()[i];
    constexpr Vector global[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    for (std::size_t k = 0; k < 3; ++k)
      if ((support.held[k] || (!rigidly && support.spring[k] != 0)) && across(global[k])) return true;
    for (const Vector& v : support.along)
      if (across(v)) return true;
  }
  return false;
}

// Connections between the points of a structure in a case.
class Joined {
 public:
  Joined(const Data& data, std::size_t load_case) : data_(data), case_(load_case), ways_(known_ways()) {}

  // Whether other members join this one at a point and lead from there to a support.
  bool reaches_support(MemberId without, PointId from) const {
    // Most often the known way does without the member.
    if (ways_->member[from.index] != WaysToSupports::none && way_avoids(from.index, without)) return true;
    return search(without, from);
  }

 private:
  // Whether the known way of a point leads to a support, and not over this member.
  bool way_avoids(std::size_t at, MemberId without) const {
    while (ways_->member[at] != WaysToSupports::none) {
      if (ways_->member[at] == without.index) return false;
      at = ways_->point[at];
    }
    return !data_.at_points.supports[at].empty();
  }

  bool search(MemberId without, PointId from) const {
    const Structure& s = data_.structure;
    std::vector<bool> seen(s.points().size(), false), used(s.members().size(), false);
    used[without.index] = true;
    std::vector<std::size_t> next{from.index};
    seen[from.index] = true;
    while (!next.empty()) {
      const std::size_t p = next.back();
      next.pop_back();
      if (p != from.index && way_avoids(p, without)) return true;
      for (const std::size_t i : data_.at_points.members[p]) {
        if (used[i] || is_slack(i)) continue;
        used[i] = true;
        for (const PointId q : s.members()[i].through)
          if (!seen[q.index]) seen[q.index] = true, next.push_back(q.index);
      }
    }
    return false;
  }

  std::shared_ptr<const WaysToSupports> known_ways() const {
    const std::lock_guard lock(data_.ways_mutex);
    std::shared_ptr<const WaysToSupports>& known = data_.ways[case_];
    if (!known) known = std::make_shared<const WaysToSupports>(ways());
    return known;
  }
  // In breadth from all supports.
  WaysToSupports ways() const {
    const Structure& s = data_.structure;
    const std::size_t n = s.points().size();
    WaysToSupports w{std::vector(n, WaysToSupports::none), std::vector(n, WaysToSupports::none)};
    std::vector<bool> seen(n, false), used(s.members().size(), false);
    std::vector<std::size_t> next;
    for (std::size_t p = 0; p < n; ++p)
      if (!data_.at_points.supports[p].empty()) seen[p] = true, next.push_back(p);
    for (std::size_t i = 0; i < next.size(); ++i)
      for (const std::size_t m : data_.at_points.members[next[i]]) {
        if (used[m] || is_slack(m)) continue;
        used[m] = true;
        for (const PointId q : s.members()[m].through)
          if (!seen[q.index])
            seen[q.index] = true, w.member[q.index] = m, w.point[q.index] = next[i], next.push_back(q.index);
      }
    return w;
  }

  bool is_slack(std::size_t member) const {
    return data_.analysis.element(case_, data_.analysis.system.spans.first[member]).is_slack();
  }

  const Data& data_;
  const std::size_t case_;
  const std::shared_ptr<const WaysToSupports> ways_;
};

// Role of a point for its member.
struct Place {
  std::size_t point = 0;
  bool end = false, rigid = false, support = false, joined = false;

  bool is_free_end() const { return end && !support && !joined; }
};

std::vector<Place> candidates(const Data& data, MemberId id, std::size_t load_case) {
  const Member& m = data.structure[id];
  const Joined joined(data, load_case);
  std::vector<Place> all;
  for (std::size_t k = 0; k < m.through.size(); ++k) {
    Place c{.point = k, .end = k == 0 || k + 1 == m.through.size()};
    c.rigid = supported(data, m, m.through[k], true);
    c.support = c.rigid || supported(data, m, m.through[k], false);
    c.joined = data.at_points.members[m.through[k].index].size() > 1 && joined.reaches_support(id, m.through[k]);
    if (c.end || c.support || c.joined) all.push_back(c);
  }
  return all;
}

bool is_upright(const Structure& s, const Member& m) {
  return std::abs(dot(local_axes(s, m).x, s.up_direction())) > std::sqrt(0.5) * (1 + 1e-9);
}

Stretch pair(const Structure& s, const Member& m, std::size_t a, std::size_t b, Stretch::Reading reading) {
  if (b < a) std::swap(a, b);
  const double to = b + 1 == m.through.size() ? s.length_of(m) : s.place_of(m, b);
  return {a, b, Length::si(s.place_of(m, a)), Length::si(to), reading, {}};
}

}  // namespace

std::vector<Stretch> readings(const Data& data, MemberId id, std::size_t load_case) {
  using Reading = Stretch::Reading;
  const Structure& s = data.structure;
  const Member& m = s[id];
  const std::vector<Place> all = candidates(data, id, load_case);
  std::vector<Stretch> found;
  const bool level = !is_upright(s, m);
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t j = i + 1; j < all.size(); ++j) {
      const Place &a = all[i], &b = all[j];
      // A link is straight from end to end.
      const bool whole = a.end && b.end;
      // Of very many candidates pairs that lie far apart are read only with an end of the member.
      constexpr std::size_t many = 64;
      if (j - i > many && !a.end && !b.end) continue;
      if (m.kind == MemberKind::beam || whole) found.push_back(pair(s, m, a.point, b.point, Reading::chord));
      if (a.is_free_end() != b.is_free_end()) {
        found.push_back(pair(s, m, a.point, b.point, Reading::overhang));
      } else if (level && !a.is_free_end()) {
        const auto sinks = [](const Place& c, const Place& other) {
          return c.end && !c.rigid && (other.end || other.support);
        };
        if (sinks(a, b) || sinks(b, a)) found.push_back(pair(s, m, a.point, b.point, Reading::ends));
      }
    }
  return found;
}

std::vector<Stretch> drift_pairs(const Data& data, MemberId id, std::size_t load_case) {
  const Member& m = data.structure[id];
  const std::vector<Place> all = candidates(data, id, load_case);
  std::vector<Stretch> found;
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t j = i + 1; j < all.size(); ++j)
      found.push_back(pair(data.structure, m, all[i].point, all[j].point, Stretch::Reading::ends));
  return found;
}

namespace {

// Across the member.
std::pair<double, double> displacement(const Inner& inner, double place) {
  const solver::CoursePiece& p = inner.pieces[piece_at(inner.pieces, place, Side::after)];
  const double x = std::clamp(place, p.from, p.to) - p.from;
  return {p.v(x), p.w(x)};
}

}  // namespace

Extreme difference(const Inner& inner, Length from, Length to) {
  const auto [va, wa] = displacement(inner, from.si());
  const auto [vb, wb] = displacement(inner, to.si());
  const double size = std::hypot(vb - va, wb - wa);
  const Quantity value(size > inner.movement_noise ? size : 0, dimension::length);
  return {value, root_of(inner, from, to) == from.si() ? to : from};
}

double root_of(const Inner& inner, Length from, Length to) {
  const auto [va, wa] = displacement(inner, from.si());
  const auto [vb, wb] = displacement(inner, to.si());
  return std::hypot(va, wa) > std::hypot(vb, wb) ? to.si() : from.si();
}

ChordBounds::ChordBounds(const Inner& inner, std::vector<double> places, std::vector<double> local)
    : places_(std::move(places)), local_(std::move(local)) {
  for (const double x : places_) moved_.push_back(displacement(inner, x));
}

double ChordBounds::bound(std::size_t first, std::size_t last) const {
  const auto [va, wa] = moved_[first];
  const auto [vb, wb] = moved_[last];
  double most = 0, local = 0;
  for (std::size_t k = first; k < last; ++k) {
    local = std::max(local, local_[k]);
    if (k == first) continue;
    const double share = (places_[k] - places_[first]) / (places_[last] - places_[first]);
    most =
        std::max(most, std::hypot(moved_[k].first - va - (vb - va) * share, moved_[k].second - wa - (wb - wa) * share));
  }
  return most + local;
}

Stretch worst(const std::vector<Stretch>& readings) {
  constexpr double alike = 1e-9;
  const Stretch* governs = &readings.front();
  for (const Stretch& s : readings) {
    const double ratio = s.ratio(), most = governs->ratio();
    const bool same = std::abs(ratio - most) <= alike * std::max(ratio, most);
    if (same ? s.sag.value.si > governs->sag.value.si * (1 + alike) : ratio > most) governs = &s;
  }
  return *governs;
}

}  // namespace corvex::result
