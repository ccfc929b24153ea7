// Reactions: arrows with their components, and both sums at the foot.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

struct Given {
  PointId at;
  Vector force, moment;
};

class ReactionsPicture {
 public:
  explicit ReactionsPicture(Scene& scene) : s_(scene), s(scene.structure()) {
    for (const PointSupport& p : s.supports()) {
      const Reaction r = s_.result().reaction(p.at);
      all_.push_back({p.at, {r.x.si(), r.y.si(), r.z.si()}, {r.mx.si(), r.my.si(), r.mz.si()}});
      most_ = std::max(most_, length(all_.back().force));
      most_moment_ = std::max(most_moment_, length(all_.back().moment));
    }
    const corvex::Box box = s.bounds();
    // A moment is rounding error if it is small compared with the forces times the size of the structure.
    least_moment_ = 1e-9 * most_ * box.diagonal();
  }

  void operator()() {
    s_.members({s_.colours().member, 2.2});
    add_supports(s_);
    if (s_.options().loads) add_loads(s_);
    for (const Given& g : all_) draw(g);
    add_names(s_, false);
    s_.heading("Reactions in " + s_.result().name());
    const Balance b = s_.result().balance();
    s_.explain("Sum of the reactions: " + sum(b.reacted) + "; of the loads: " + sum(b.applied));
    s_.explain("Purple: reactions on the structure, along the global axes");
  }

 private:
  Colour colour() const { return s_.colours().mark; }

  // "x -1.705, y 2.560 kN": components that are more than rounding.
  std::string components(const double (&parts)[3], std::size_t first, double most, const NamedUnit& unit,
                         const char* prefix) const {
    std::string text;
    for (std::size_t k = first; k < (s.is_plane() && first == 0 ? 2u : 3u); ++k)
      if (std::abs(parts[k]) > most)
        text += fmt::format("{}{}{} {}", text.empty() ? "" : "  ", prefix, "xyz"[k],
                            figure(parts[k], {"", unit.si}, s_.options().digits));
    return text.empty() ? text : text + " " + unit.text;
  }

  std::string sum(const Reaction& r) const {
    const double parts[] = {r.x.si(), r.y.si(), r.z.si()};
    std::string text;
    for (std::size_t k = 0; k < (s.is_plane() ? 2u : 3u); ++k)
      text += fmt::format("{}{} {}", k == 0 ? "" : ", ", "xyz"[k],
                          figure(parts[k], {"", s_.units().force.si}, s_.options().digits, most_));
    return text + " " + s_.units().force.text;
  }

  void draw(const Given& g) {
    const Spot at = s_.at(s[g.at].position);
    const double forces[] = {g.force.x, g.force.y, g.force.z}, moments[] = {g.moment.x, g.moment.y, g.moment.z};
    const std::string of = s[g.at].name;
    std::string words = components(forces, 0, 1e-9 * most_, s_.units().force, "");
    const std::string turning =
        components(moments, s.is_plane() ? 2 : 0, std::max(least_moment_, 1e-9 * most_moment_), s_.units().moment, "M");
    Spot tail = at;
    Spot away{0.3, 1};
    if (!words.empty() && most_ > 0) {
      Spot seen = s_.seen(g.force / most_) * (4.4 * s_.letter());
      // Small ones are seen too.
      if (const double l = length(seen); l > 0 && l < 1.4 * s_.letter()) seen = seen * (1.4 * s_.letter() / l);
      tail = at - seen;
      s_.arrow(tail, at, colour(), {"reaction", of}, 2.4);
      away = unit(tail - at);
    }
    if (!turning.empty()) {
      arc(at, s.is_plane() ? g.moment.z : 1, of);
      words += (words.empty() ? "" : "  ") + turning;
    }
    // In space labels are long and stand far from their points.
    if (!words.empty() && !s.is_plane()) words.insert(0, of + ": ");
    if (!words.empty()) s_.label(words, {tail, away}, colour(), 85, {"reaction-value", of}, {true, 6});
  }

  // About the eye: counter-clockwise where the moment about z is positive.
  void arc(const Spot& at, double way, const std::string& of) {
    const double r = 1.5 * s_.letter();
    std::vector<Spot> line;
    constexpr int steps = 24;
    for (int i = 0; i <= steps; ++i) {
      const double angle = (-0.5 + 4.2 * i / steps) * (way < 0 ? -1 : 1) + (way < 0 ? 3.6 : 0);
      line.push_back(at + Spot{std::cos(angle), -std::sin(angle)} * r);
    }
    const Spot tip = line.back(), before = line[line.size() - 4];
    s_.line(std::move(line), {colour(), 2}, {"reaction-moment", of});
    s_.arrow(before, tip, colour(), {"reaction-moment", of}, 2);
  }

  Scene& s_;
  const Structure& s;
  std::vector<Given> all_;
  double most_ = 0, most_moment_ = 0, least_moment_ = 0;
};

}  // namespace

void draw_reactions(Scene& scene) {
  ReactionsPicture picture(scene);
  picture();
}

}  // namespace corvex::picture
