// Points and members that touch, or nearly touch, without being joined.
#include <algorithm>
#include <cmath>
#include <set>

#include "corvex/number.hpp"
#include "inspect/at_points.hpp"
#include "inspect/box_tree.hpp"
#include "inspect/findings.hpp"

namespace corvex::inspection {
namespace {

// Points closer than this share of the size of the structure coincide.
constexpr double touching = 1e-6;
// Points closer than this share of the adjacent members were probably meant to coincide.
constexpr double near_share = 1e-2;
// Directions whose sine is below this are the same.
constexpr double parallel = 1e-6;

// A piece of a member between two of its points, along the line of the points.
struct Piece {
  std::size_t member = 0, a = 0, b = 0;
  std::size_t place = 0;  // of `a` among the member's points
  Vector from, to;

  Vector way() const { return to - from; }
};

Vector unit_of(const Vector& v) {
  return v / length(v);
}

// Where two lines are nearest to each other, as shares of both pieces, and how near.
struct Nearest {
  double s = 0, t = 0, distance = 0;
};

// Between two pieces that are not parallel; the shares lie within both pieces.
Nearest nearest(const Piece& p, const Piece& q) {
  const Vector u = p.way(), v = q.way(), w = p.from - q.from;
  const double a = dot(u, u), b = dot(u, v), c = dot(v, v), d = dot(u, w), e = dot(v, w), D = a * c - b * b;
  double s = std::clamp((b * e - c * d) / D, 0.0, 1.0);
  const double t = std::clamp((b * s + e) / c, 0.0, 1.0);
  s = std::clamp((b * t - d) / a, 0.0, 1.0);
  return {s, t, length(w + u * s - v * t)};
}

class Joints {
 public:
  explicit Joints(Findings& f)
      : f_(f),
        s_(f.structure()),
        at_(s_),
        touch_(touching * s_.bounds().diagonal()),
        reach_(s_.points().size(), 1e300) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Member& m = s_.members()[i];
      for (std::size_t k = 0; k + 1 < m.through.size(); ++k)
        pieces_.push_back({i, m.through[k].index, m.through[k + 1].index, k, position(m.through[k].index),
                           position(m.through[k + 1].index)});
    }
    double shortest = 1e300;
    for (const Piece& p : pieces_) {
      const double L = near_share * length(p.way());
      for (const std::size_t end : {p.a, p.b}) reach_[end] = std::min(reach_[end], L);
      shortest = std::min(shortest, L);
    }
    for (double& r : reach_)
      if (r == 1e300) r = shortest == 1e300 ? touch_ : shortest;
  }

  void run() {
    check_points();
    const BoxTree tree(piece_boxes());
    check_pieces(tree);
    check_points_on_members(tree);
    check_short_ends(tree);
  }

 private:
  const Vector& position(std::size_t point) const { return s_.points()[point].position; }
  std::string name(std::size_t point) const { return quoted(s_.points()[point].name); }
  std::string member_name(std::size_t i) const { return quoted(s_.members()[i].name); }

  std::vector<Box> piece_boxes() const {
    std::vector<Box> boxes;
    for (const Piece& p : pieces_) boxes.push_back(around(p.from, p.to));
    return boxes;
  }

  // Whether one member names both.
  bool on_one_member(std::size_t a, std::size_t b) const {
    const auto of_a = at_.members(a), of_b = at_.members(b);
    return std::any_of(of_a.begin(), of_a.end(),
                       [&](std::size_t m) { return std::find(of_b.begin(), of_b.end(), m) != of_b.end(); });
  }

  void check_points() {
    std::vector<Box> boxes;
    for (const Point& p : s_.points()) boxes.push_back({p.position, p.position});
    const BoxTree tree(boxes);
    for (std::size_t i = 0; i < s_.points().size(); ++i) {
      if (!at_.has_something(i)) continue;
      const double reach = std::max(reach_[i], touch_);
      tree.find(widened(boxes[i], reach), [&](std::size_t k) {
        if (k <= i || !at_.has_something(k)) return;
        const double apart = length(position(k) - position(i));
        if (apart > std::max(std::min(reach, reach_[k]), touch_)) return;
        if (apart > touch_ && on_one_member(i, k)) return;
        near_.insert({i, k});
        tell_points(i, k, apart);
      });
    }
  }

  void tell_points(std::size_t i, std::size_t k, double apart) {
    const bool same = apart <= touch_;
    const std::string text =
        same ? fmt::format("points {} and {} coincide and are not joined", name(i), name(k))
             : fmt::format("points {} and {} are {} apart and are not joined", name(i), name(k), in_mm(apart));
    f_.add(same ? "coincident-points" : "near-points", f_.point(PointId{k}), text,
           fmt::format("use one point for both: write {} instead of {}{}", name(i), name(k),
                       same ? "" : ", or correct a coordinate"))
        .others.push_back(f_.point(PointId{i}));
  }

  // Members along each other, and members that cross.
  void check_pieces(const BoxTree& tree) {
    std::set<std::pair<std::size_t, std::size_t>> crossed;
    for (std::size_t i = 0; i < pieces_.size(); ++i) {
      const Piece& p = pieces_[i];
      tree.find(widened(around(p.from, p.to), touch_), [&](std::size_t k) {
        const Piece& q = pieces_[k];
        if (k <= i || q.member == p.member) return;
        const std::pair pair(std::min(p.member, q.member), std::max(p.member, q.member));
        if (length(cross(p.way(), q.way())) <= parallel * length(p.way()) * length(q.way())) {
          if (!along_.contains(pair) && run_along(p, q)) tell_along(pair);
          return;
        }
        if (p.a == q.a || p.a == q.b || p.b == q.a || p.b == q.b || crossed.contains(pair)) return;
        const Nearest n = nearest(p, q);
        if (n.distance > touch_) return;
        const Vector place = p.from + p.way() * n.s;
        for (const Vector& end : {p.from, p.to, q.from, q.to})
          if (length(place - end) <= touch_) return;
        crossed.insert(pair);
        tell_crossing(pair, place);
      });
    }
  }

  // Of two parallel pieces: whether they lie on one line over some length.
  bool run_along(const Piece& p, const Piece& q) const {
    const double L = length(p.way());
    const Vector along = p.way() / L;
    const auto beside = [&](const Vector& v) { return length(cross(v - p.from, along)); };
    if (beside(q.from) > touch_ || beside(q.to) > touch_) return false;
    const double a = dot(q.from - p.from, along), b = dot(q.to - p.from, along);
    return std::min(L, std::max(a, b)) - std::max(0.0, std::min(a, b)) > touch_;
  }

  void tell_along(const std::pair<std::size_t, std::size_t>& pair) {
    const Member &a = s_.members()[pair.first], &b = s_.members()[pair.second];
    along_.insert(pair);
    // A tie and a strut between the same points are a bearing with play.
    if (a.acts != b.acts && a.acts != Acts::always && b.acts != Acts::always) return;
    const auto ends = [&](const Member& m) { return std::pair(m.through.front().index, m.through.back().index); };
    const auto same = [&](std::size_t i, std::size_t k) { return length(position(i) - position(k)) <= touch_; };
    const auto [a0, a1] = ends(a);
    const auto [b0, b1] = ends(b);
    const bool twice = (same(a0, b0) && same(a1, b1)) || (same(a0, b1) && same(a1, b0));
    const Subject later = f_.member(pair.second);
    Problem& p =
        twice ? f_.add("duplicate-member", later,
                       fmt::format("{} and {} both connect {} and {}: the structure has this member twice",
                                   quoted(a.name), quoted(b.name), name(a0), name(a1)),
                       fmt::format("remove one of them; for two members side by side use one of twice the section"))
              : f_.add("overlapping-members", later,
                       fmt::format("{} and {} overlap over some length", quoted(a.name), quoted(b.name)),
                       "end one where the other starts, or remove it");
    p.others.push_back(f_.member(pair.first));
  }

  void tell_crossing(const std::pair<std::size_t, std::size_t>& pair, const Vector& at) {
    const std::string place = s_.is_plane()
                                  ? fmt::format("({}, {}) mm", short_number(at.x * 1e3, 4), short_number(at.y * 1e3, 4))
                                  : fmt::format("({}, {}, {}) mm", short_number(at.x * 1e3, 4),
                                                short_number(at.y * 1e3, 4), short_number(at.z * 1e3, 4));
    f_.add("crossing", f_.member(pair.second),
           fmt::format("{} and {} cross at {} and are not joined", member_name(pair.first), member_name(pair.second),
                       place),
           "if they are joined there, define a point at that place and include it in both")
        .others.push_back(f_.member(pair.first));
  }

  void check_points_on_members(const BoxTree& tree) {
    for (std::size_t p = 0; p < s_.points().size(); ++p) {
      if (!at_.has_something(p)) continue;
      const double reach = std::max(reach_[p], touch_);
      std::set<std::size_t> told;
      tree.find(widened({position(p), position(p)}, reach), [&](std::size_t k) {
        const Piece& piece = pieces_[k];
        if (told.contains(piece.member) || !lies_on(p, piece, reach)) return;
        told.insert(piece.member);
        on_member_.insert({p, piece.member});
        tell_on_member(p, piece);
      });
    }
  }

  bool lies_on(std::size_t p, const Piece& piece, double reach) const {
    const auto own = at_.members(p);
    if (std::find(own.begin(), own.end(), piece.member) != own.end()) return false;
    // Near an end of the piece it is reported with that point.
    for (const std::size_t end : {piece.a, piece.b})
      if (near_.contains({std::min(p, end), std::max(p, end)})) return false;
    const double L = length(piece.way()), allowed = std::max(touch_, std::min(reach, near_share * L));
    const Vector along = piece.way() / L;
    const double place = dot(position(p) - piece.from, along);
    if (place <= touch_ || place >= L - touch_) return false;
    const double beside = length(cross(position(p) - piece.from, along));
    if (beside > allowed) return false;
    const auto told_already = [&](std::size_t m) {
      return along_.contains({std::min(m, piece.member), std::max(m, piece.member)});
    };
    if (std::any_of(own.begin(), own.end(), told_already)) return false;
    if (beside <= touch_) return true;
    // A member next to another and parallel to it is intentional.
    const auto meets = [&](std::size_t m) {
      const Member& member = s_.members()[m];
      const Vector way = position(member.through.back().index) - position(member.through.front().index);
      return length(cross(way, along)) > 0.1 * length(way);
    };
    return own.empty() || std::any_of(own.begin(), own.end(), meets);
  }

  void tell_on_member(std::size_t p, const Piece& piece) {
    const Member& m = s_.members()[piece.member];
    const Vector along = piece.way() / length(piece.way());
    const double beside = length(cross(position(p) - piece.from, along));
    std::string points;
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      points += (k > 0 ? ", " : "") + s_[m.through[k]].name;
      if (k == piece.place) points += ", " + s_.points()[p].name;
    }
    const std::string move = beside <= touch_ ? "" : fmt::format("correct the coordinates of {} and ", name(p));
    const std::string remedy = m.kind == MemberKind::link
                                   ? fmt::format("{}make two links of '{}', which has two points only", move, m.name)
                                   : fmt::format("{}include {} in '{}': through: [{}]", move, name(p), m.name, points);
    Problem& found =
        f_.add("unjoined-point", f_.member(piece.member),
               beside <= touch_ ? fmt::format("point {} lies on {}, which does not include it: they are not joined",
                                              name(p), quoted(m.name))
                                : fmt::format("point {} is {} away from {} and is not joined to it", name(p),
                                              in_mm(beside), quoted(m.name)),
               remedy);
    found.key = "through";
    found.others.push_back(f_.point(PointId{p}));
  }

  // Free ends that would meet something if the member went on a little.
  void check_short_ends(const BoxTree& tree) {
    constexpr double a_little = 0.1;
    for (const Piece& p : pieces_) {
      const Member& m = s_.members()[p.member];
      for (const bool start : {true, false}) {
        const std::size_t end = start ? p.a : p.b;
        const bool is_end = end == (start ? m.through.front() : m.through.back()).index;
        if (!is_end || at_.members(end).size() != 1 || at_.is_held(end) || short_.contains(end)) continue;
        const Vector from = position(end), way = unit_of(start ? p.from - p.to : p.to - p.from),
                     on = way * (a_little * s_.length_of(m));
        if (const auto [gap, other] = first_met(tree, p, end, from, on); gap < 1e300) tell_short(m, end, other, gap);
      }
    }
  }

  std::pair<double, std::size_t> first_met(const BoxTree& tree, const Piece& own, std::size_t end, const Vector& from,
                                           const Vector& on) const {
    const Piece ray{own.member, end, end, 0, from, from + on};
    std::pair<double, std::size_t> first{1e300, 0};
    tree.find(widened(around(ray.from, ray.to), touch_), [&](std::size_t k) {
      const Piece& q = pieces_[k];
      if (q.member == own.member || reported(end, q)) return;
      double gap = 1e300;
      if (length(cross(on, q.way())) <= parallel * length(on) * length(q.way())) {
        for (const Vector& v : {q.from, q.to})
          if (length(cross(v - from, on)) <= touch_ * length(on) && dot(v - from, on) > 0)
            gap = std::min(gap, length(v - from));
      } else if (const Nearest n = nearest(ray, q); n.distance <= touch_) {
        gap = n.s * length(on);
      }
      if (gap > touch_ && gap <= length(on) && gap < first.first) first = {gap, k};
    });
    return first;
  }

  // Whether this end and this piece were reported already.
  bool reported(std::size_t end, const Piece& q) const {
    for (const std::size_t other : {q.a, q.b})
      if (near_.contains({std::min(end, other), std::max(end, other)})) return true;
    return on_member_.contains({end, q.member});
  }

  void tell_short(const Member& m, std::size_t end, std::size_t piece, double gap) {
    const Piece& q = pieces_[piece];
    short_.insert(end);
    Problem& p = f_.add(
        "loose-end", {Subject::Kind::member, m.name},
        fmt::format("{} ends at {}, {} short of {}, and is not joined to it", quoted(m.name), name(end), in_mm(gap),
                    member_name(q.member)),
        fmt::format("let it end at a point of {}, or correct the coordinates of {}", member_name(q.member), name(end)));
    p.others = {f_.point(PointId{end}), f_.member(q.member)};
    for (const std::size_t other : {q.a, q.b})
      if (length(position(other) - position(end)) <= gap * (1 + 1e-6)) p.others.push_back(f_.point(PointId{other}));
  }

  Findings& f_;
  const Structure& s_;
  const AtPoints at_;
  double touch_;
  std::vector<double> reach_;  // of each point: what lies nearer was probably meant to be there
  std::vector<Piece> pieces_;
  std::set<std::pair<std::size_t, std::size_t>> near_, along_;  // pairs of points; of members
  std::set<std::pair<std::size_t, std::size_t>> on_member_;     // a point and a member
  std::set<std::size_t> short_;
};

}  // namespace

void check_joints(Findings& f) {
  Joints(f).run();
}

}  // namespace corvex::inspection
