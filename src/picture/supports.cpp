#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/acting.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// The ground beneath a symbol: a line with short strokes off its far side.
void add_ground(Scene& s, const Spot& middle, const Spot& along, const Spot& away, double half, const Meaning& m) {
  const Colour& c = s.colours().support;
  s.line({middle - along * half, middle + along * half}, {c, 1.4}, m);
  const double stroke = 0.42 * s.letter();
  constexpr int strokes = 5;
  for (int i = 0; i < strokes; ++i) {
    const Spot from = middle + along * (half * (2.0 * i / (strokes - 1) - 1));
    s.line({from, from + (away - along) * (stroke * 0.7)}, {c, 0.9}, m);
  }
}

class SupportSign {
 public:
  SupportSign(Scene& scene, const PointSupport& support)
      : s_(scene),
        support_(support),
        at_(scene.at(scene.structure()[support.at].position)),
        meaning_{"support", scene.structure()[support.at].name},
        size_(1.05 * scene.letter()) {}

  void operator()() {
    const HeldAxes held = held_axes(s_.structure(), support_);
    std::vector<Spot> directions;
    static constexpr Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    if (held.skew) {
      const Vector own[] = {held.axes.x, held.axes.y, held.axes.z};
      for (int i = 0; i < held.count; ++i) take(directions, own[i]);
    } else {
      for (std::size_t k = 0; k < 3; ++k)
        if (support_.held[k]) take(directions, axes[k]);
    }
    const bool plane = s_.structure().is_plane();
    const bool turns_held = plane ? support_.held[5] : support_.held[3] || support_.held[4] || support_.held[5];
    const bool all_held = directions.size() >= (plane ? 2u : 3u);
    if (turns_held && all_held)
      clamp();
    else if (plane && all_held)
      wedge(down(), true);
    else
      for (const Spot& d : directions) wedge(d, false);
    if (turns_held && !all_held) block();
    for (std::size_t k = 0; k < 3; ++k)
      if (support_.spring[k] > 0) coil(s_.seen(axes[k]));
    if (support_.spring[3] > 0 || support_.spring[4] > 0 || support_.spring[5] > 0) block();
    const double r = 1.9 * size_;
    s_.keep_clear(Box{at_.x - 0.4 * r, at_.y - 0.2 * r, at_.x + 0.4 * r, at_.y + r * 0.7});
  }

 private:
  // The projection of a direction, away from the structure: down, left or back.
  void take(std::vector<Spot>& directions, const Vector& v) const {
    Spot seen = s_.seen(v);
    if (length(seen) < 0.15) return;  // it points at the eye
    if (seen.y < -0.05 || (std::abs(seen.y) <= 0.05 && seen.x > 0)) seen = seen * -1;
    directions.push_back(unit(seen));
  }
  Spot down() const { return {0, 1}; }

  // Away from the members that meet here.
  Spot away() const {
    Spot sum{};
    for (const Member& m : s_.structure().members())
      for (const std::size_t k : {std::size_t{0}, m.through.size() - 1})
        if (m.through[k] == support_.at)
          sum = sum + unit(at_ - s_.at(s_.structure()[m.through[k == 0 ? m.through.size() - 1 : 0]].position));
    return length(sum) > 0.3 ? unit(sum) : down();
  }

  // Held in one direction it may roll: a gap above the ground.
  void wedge(const Spot& d, bool pinned) {
    const Spot side = left_of(d), foot = at_ + d * size_;
    const double half = size_ * 0.58;
    s_.path({.lines = {{at_, foot + side * half, foot - side * half}},
             .closed = true,
             .fill = s_.colours().page,
             .stroke = Stroke{s_.colours().support, 1.4},
             .meaning = meaning_});
    add_ground(s_, pinned ? foot : foot + d * (0.26 * size_), side, d, half * 1.35, meaning_);
  }

  void clamp() {
    const Spot d = away(), side = left_of(d);
    s_.line({at_ - side * (0.85 * size_), at_ + side * (0.85 * size_)}, {s_.colours().support, 3.2}, meaning_);
    add_ground(s_, at_ + d * 2, side, d, 0.85 * size_, meaning_);
  }

  // Rotation alone is held.
  void block() {
    const double h = 0.36 * size_;
    s_.path({.lines = {{at_ + Spot{-h, -h}, at_ + Spot{h, -h}, at_ + Spot{h, h}, at_ + Spot{-h, h}}},
             .closed = true,
             .stroke = Stroke{s_.colours().support, 1.6},
             .meaning = meaning_});
  }

  void coil(Spot d) {
    if (length(d) < 0.15) return;
    d = unit(d.y < -0.05 || (std::abs(d.y) <= 0.05 && d.x > 0) ? d * -1 : d);
    const Spot side = left_of(d);
    std::vector<Spot> spots{at_, at_ + d * (0.3 * size_)};
    constexpr int turns = 7;
    for (int i = 0; i < turns; ++i)
      spots.push_back(at_ + d * (size_ * (0.38 + 0.16 * i)) + side * (size_ * (i % 2 ? -0.34 : 0.34)));
    const Spot foot = at_ + d * (1.65 * size_);
    spots.push_back(at_ + d * (1.45 * size_));
    spots.push_back(foot);
    s_.line(std::move(spots), {s_.colours().support, 1.4}, meaning_);
    add_ground(s_, foot, side, d, 0.7 * size_, meaning_);
  }

  Scene& s_;
  const PointSupport& support_;
  Spot at_;
  Meaning meaning_;
  double size_;
};

}  // namespace

void add_supports(Scene& scene) {
  std::vector<bool> there(scene.structure().points().size(), false);
  for (std::size_t i = 0; i < scene.structure().members().size(); ++i)
    if (scene.shows(i))
      for (const PointId p : scene.structure().members()[i].through) there[p.index] = true;
  for (const PointSupport& p : scene.structure().supports())
    if (there[p.at.index]) SupportSign(scene, p)();
}

}  // namespace corvex::picture
