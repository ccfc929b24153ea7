// Points without members, supports without structure, feet that nothing restrains, ends that nothing is joined to.
#include <algorithm>
#include <cmath>

#include "inspect/at_points.hpp"
#include "inspect/findings.hpp"
#include "inspect/mirror.hpp"

namespace corvex::inspection {
namespace {

class Ends {
 public:
  explicit Ends(Findings& f) : f_(f), s_(f.structure()), at_(s_), size_(s_.bounds().diagonal()) {
    for (const PointSupport& p : s_.supports())
      if (at_.is_used(p.at.index)) levels_.push_back(level(p.at.index));
    std::sort(levels_.begin(), levels_.end());
    carries_.resize(s_.members().size());
    for (const LoadCase& c : s_.load_cases())
      for (const Load& load : c.loads()) {
        if (const auto* l = std::get_if<MemberLoad>(&load)) carries_[l->on.index] = true;
        if (const auto* l = std::get_if<LineLoad>(&load)) carries_[l->on.index] = true;
        if (const auto* l = std::get_if<SpreadLoad>(&load))
          for (const MemberId m : l->on) carries_[m.index] = true;
      }
  }

  void run() {
    std::vector<bool> told(s_.points().size());
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      if (!at_.is_used(p))
        tell_unused(p);
      else if (!at_.is_held(p) && !(told[p] = tell_foot(p)))
        tell_loose(p);
    tell_unlike_mirror_images(told);
  }

 private:
  double level(std::size_t point) const { return dot(s_.up_direction(), s_.points()[point].position); }
  std::string name(std::size_t point) const { return quoted(s_.points()[point].name); }

  void tell_unused(std::size_t p) {
    if (at_.is_held(p)) {
      f_.add("idle-support", {Subject::Kind::support, s_.points()[p].name},
             fmt::format("the support at {} restrains nothing: no member has this point", name(p)),
             fmt::format("include {} in the member at that place, or move the support", name(p)));
      return;
    }
    f_.add("unused-point", f_.point(PointId{p}), fmt::format("no member has point {}", name(p)),
           fmt::format("include {} in a member, or remove it", name(p)));
  }

  // How steeply a member leaves the point, as the least share of height over length; below zero where it goes down.
  double least_rise(std::size_t p) const {
    double least = 1;
    for (const std::size_t i : at_.members(p)) {
      const auto& through = s_.members()[i].through;
      const std::size_t k =
          static_cast<std::size_t>(std::find(through.begin(), through.end(), PointId{p}) - through.begin());
      for (const std::size_t other : {k - 1, k + 1}) {
        if (other >= through.size()) continue;
        const Vector way = s_[through[other]].position - s_.points()[p].position;
        least = std::min(least, dot(s_.up_direction(), way) / length(way));
      }
    }
    return least;
  }

  // At the height of some support, and all its members go up from there.
  bool tell_foot(std::size_t p) {
    if (levels_.empty()) return false;
    constexpr double rises = 0.25;
    if (least_rise(p) < rises) return false;
    const double h = level(p), even = 1e-3 * size_;
    const auto near = std::lower_bound(levels_.begin(), levels_.end(), h - even);
    const bool beside_supports = near != levels_.end() && *near <= h + even;
    const bool below = h < levels_.front() - even && at_.members(p).size() == 1 && !at_.is_loaded(p);
    if (!beside_supports && !below) return false;
    const std::size_t m = at_.members(p).front();
    f_.add("unheld-foot", f_.point(PointId{p}),
           fmt::format("{} is the foot of '{}', {} the supports, and has no support", name(p), s_.members()[m].name,
                       below ? "lower than" : "at the level of"),
           fmt::format("add a support at {}", name(p)))
        .others.push_back(f_.member(m));
    return true;
  }

  // In space: a point that is not held while its mirror image is, in a structure that is its own mirror image.
  void tell_unlike_mirror_images(std::vector<bool>& told) {
    constexpr std::size_t few = 3, many = 2000;
    if (s_.is_plane() || levels_.size() < few || s_.points().size() > many) return;
    for (double Vector::*axis : {&Vector::x, &Vector::y, &Vector::z}) {
      if (s_.up_direction().*axis != 0) continue;
      const std::optional<Mirror> m = mirror(s_, axis);
      for (std::size_t p = 0; m && p < m->point.size(); ++p) {
        const std::size_t image = m->point[p];
        if (told[p] || !at_.is_used(p) || at_.is_held(p) || !at_.is_held(image)) continue;
        told[p] = true;
        f_.add("unheld-foot", f_.point(PointId{p}),
               fmt::format("{} has no support, but its mirror image {} has one", name(p), name(image)),
               fmt::format("add a support at {}", name(p)))
            .others.push_back(f_.point(PointId{image}));
      }
    }
  }

  // The free end of a member that is joined at one place only and carries no load but its weight.
  void tell_loose(std::size_t p) {
    const auto own = at_.members(p);
    if (own.size() != 1 || at_.is_loaded(p) || carries_[own.front()]) return;
    const Member& m = s_.members()[own.front()];
    if (m.through.front().index != p && m.through.back().index != p) return;
    std::size_t joined = 0;
    for (const PointId q : m.through)
      if (at_.members(q.index).size() > 1 || at_.is_held(q.index))
        ++joined;
      else if (at_.is_loaded(q.index))
        return;
    if (joined > 1 || (joined == 0 && m.through.front().index != p)) return;
    Problem& found =
        f_.add("loose-end", f_.member(own.front()),
               joined == 0 ? fmt::format("'{}' is not joined to anything", m.name)
                           : fmt::format("'{}' ends at {}, where it is not joined or loaded; it "
                                         "carries no load",
                                         m.name, name(p)),
               fmt::format("join {} to the member that it should meet, support it, or remove '{}'", name(p), m.name));
    found.others.push_back(f_.point(PointId{p}));
  }

  Findings& f_;
  const Structure& s_;
  const AtPoints at_;
  double size_;
  std::vector<double> levels_;  // of the supports, sorted
  std::vector<bool> carries_;   // members with loads of their own
};

}  // namespace

void check_ends(Findings& f) {
  Ends(f).run();
}

}  // namespace corvex::inspection
