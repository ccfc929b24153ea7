// Normal stress of both faces of each member, side by side along it.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// The ends of the part of an outline that lies furthest in one direction: along it normal stress is linear.
struct Face {
  std::vector<std::pair<double, double>> ends{};  // y, z
};
Face face(const StressMap& map, double out_y, double out_z) {
  double most = -1e300, size = 0;
  for (const StressPoint& p : map.points) {
    most = std::max(most, out_y * p.y + out_z * p.z);
    size = std::max({size, std::abs(p.y), std::abs(p.z)});
  }
  Face f;
  double low = 1e300, high = -1e300;
  std::pair<double, double> first, last;
  for (const StressPoint& p : map.points) {
    if (out_y * p.y + out_z * p.z < most - 1e-6 * size) continue;
    const double across = out_y != 0 ? p.z : p.y;
    if (across < low) low = across, first = {p.y, p.z};
    if (across > high) high = across, last = {p.y, p.z};
  }
  if (high >= low) f.ends = {first, last};
  return f;
}

struct Worst {
  double value = 0, at = 0;
  std::size_t member = 0;
  bool found = false;
};

class FacesPicture {
 public:
  explicit FacesPicture(Scene& scene) : s_(scene), s(scene.structure()) {}

  void operator()() {
    for (std::size_t i = 0; i < s.members().size(); ++i)
      if (s_.shows(i)) consider(i);
    top_ = std::max(tension_.value, -compression_.value);
    for (std::size_t i = 0; i < s.members().size(); ++i)
      if (s_.shows(i)) draw(i);
    add_supports(s_);
    add_names(s_, false);
    for (const Worst* w : {&tension_, &compression_}) mark(*w);
    scale();
    s_.heading("Normal stress by face in " + s_.result().name());
    s_.explain(
        "Each member shows the two faces that are furthest apart in this view; tension blue, compression orange with "
        "and hatched; hollow: not known");
  }

 private:
  // The faces on the two sides of the line that is drawn, as seen; one for both in a link.
  struct Sides {
    std::array<Face, 2> faces{};
    Spot towards{};  // the first one
    bool link = false, known = false;
  };
  Sides sides(std::size_t i) const {
    const Member& m = s.members()[i];
    Sides out;
    out.link = m.kind == MemberKind::link;
    const Axes axes = local_axes(s, m);
    const BendingAxes about = bending_axes(s, m);
    const Spot y = s_.seen(axes.y), z = s_.seen(axes.z);
    const bool across_y = about.z && (!about.y || length(y) >= length(z));
    out.towards = unit(across_y ? y : z);
    if (out.link) return out.known = true, out;
    const StressMap& map = s.section_of(m).stress_map();
    if (map.kind != StressMap::Kind::field) return out;
    out.known = true;
    out.faces =
        across_y ? std::array{face(map, 1, 0), face(map, -1, 0)} : std::array{face(map, 0, 1), face(map, 0, -1)};
    return out;
  }

  // The larger by size of the stresses at the ends of a face.
  double stress(const MemberResult& m, const Sides& sides, std::size_t side, Length at) const {
    if (sides.link) return m.at(at).axial.si() / s.section_of(m.member()).area().si();
    double worst = 0;
    for (const auto& [y, z] : sides.faces[side].ends)
      if (const auto here = m.normal_stress_at(at, Length::si(y), Length::si(z));
          here && std::abs(here->si()) > std::abs(worst))
        worst = here->si();
    return worst;
  }

  void consider(std::size_t i) {
    const MemberResult m = s_.result()[MemberId{i}];
    const Sides both = sides(i);
    if (!both.known) return;
    const auto offer = [&](double value, double at) {
      const auto near = [](double v) { return 1e-9 * std::abs(v); };
      if (value > tension_.value + near(value)) tension_ = {value, at, i, true};
      if (value < compression_.value - near(value)) compression_ = {value, at, i, true};
    };
    if (both.link) return offer(stress(m, both, 0, Length()), m.length().si() / 2);
    for (const Face& f : both.faces)
      for (const auto& [y, z] : f.ends)
        if (const auto extremes = m.normal_stress_along(Length::si(y), Length::si(z))) {
          offer(extremes->first.value.si(), extremes->first.at.si());
          offer(extremes->second.value.si(), extremes->second.at.si());
        }
  }

  Colour colour(double share) const {
    const Colour& to = share >= 0 ? s_.colours().positive : s_.colours().negative;
    const Colour& from = s_.colours().faint;
    const double f = std::sqrt(std::min(std::abs(share), 1.0));
    const auto mix = [&](int a, int b) { return static_cast<std::uint8_t>(std::lround(a + (b - a) * f)); };
    return {mix(from.red, to.red), mix(from.green, to.green), mix(from.blue, to.blue)};
  }

  void draw(std::size_t i) {
    const Member& m = s.members()[i];
    const MemberResult result = s_.result()[MemberId{i}];
    const Sides both = sides(i);
    const double L = s.length_of(m), wide = 0.5 * s_.letter();
    const Spot a = s_.at(s.axis_start(m)), b = s_.at(s.axis_end(m));
    s_.keep_clear(a, b);
    const int n = std::clamp(static_cast<int>(length(b - a) / 6), 4, 100);
    Spot side = left_of(unit(b - a));
    if (side.x * both.towards.x + side.y * both.towards.y < 0) side = side * -1;
    for (std::size_t k = 0; k < 2; ++k) {
      const Spot out = side * (k == 0 ? 1.0 : -1.0);
      Path strokes{.lines = {}, .stroke = Stroke{s_.colours().page, 1.2}, .meaning = {"compression", m.name}};
      for (int j = 0; j < n; ++j) {
        const double t = (j + 0.5) / n,
                     share = both.known && top_ > 0 ? stress(result, both, k, Length::si(L * t)) / top_ : 0;
        const Spot from = a + (b - a) * (static_cast<double>(j) / n),
                   to = a + (b - a) * (static_cast<double>(j + 1) / n);
        const Spot over = j + 1 == n ? Spot{} : unit(b - a) * 0.8;
        s_.area({from, to + over, to + over + out * wide, from + out * wide},
                both.known ? colour(share) : s_.colours().page, {"face", m.name});
        if (share < -0.02 && j % 2 == 0) {
          const Spot middle = a + (b - a) * t;
          strokes.lines.push_back({middle, middle + out * wide});
        }
      }
      if (!strokes.lines.empty()) s_.path(std::move(strokes));
      s_.line({a + out * wide, b + out * wide}, {s_.colours().quiet, 0.8}, {"face-edge", m.name});
    }
    s_.line({a, b}, {s_.colours().ink, 0.9}, {"member", m.name});
  }

  void mark(const Worst& w) {
    if (!w.found) return;
    const Member& m = s.members()[w.member];
    const Spot here = s_.at(s_.place(m, w.at));
    s_.ring(here, 0.75 * s_.letter(), {s_.colours().mark, 2}, {"most", m.name});
    const double r = 0.75 * s_.letter();
    s_.keep_clear(Box{here.x - r, here.y - r, here.x + r, here.y + r});
    s_.label(fmt::format("{} in {} at {}", figure(w.value, s_.units().stress, s_.options().digits), m.name,
                         place_words(s, s_.units(), m, w.at)),
             {here, w.value > 0 ? Spot{0.3, 1} : Spot{0.3, -1}}, s_.colours().mark, 100, {"most-value", m.name},
             {true, 13});
  }

  // From the largest compression to the largest tension.
  void scale() {
    if (!(top_ > 0)) return;
    const double w = 18 * s_.letter(), h = 0.9 * s_.letter();
    const double left = s_.width() - w - 6 * s_.letter(), y = s_.height() - 2.9 * s_.letter();
    s_.keep_foot_clear(w + 7 * s_.letter());
    constexpr int parts = 48, ticks = 4;
    for (int i = 0; i < parts; ++i) {
      const double x = left + w * i / parts, to = left + w * (i + 1) / parts;
      s_.area({{x, y}, {to, y}, {to, y + h}, {x, y + h}}, colour(2 * (i + 0.5) / parts - 1), {"scale"});
    }
    for (int i = 0; i <= ticks; ++i) {
      const double share = 2.0 * i / ticks - 1, x = left + w * i / ticks;
      s_.line({{x, y + h}, {x, y + h + 4}}, {s_.colours().quiet, 1}, {"scale"});
      s_.words(short_number(share * top_ / s_.units().stress.si, 3) + (i == ticks ? " " + s_.units().stress.text : ""),
               {x, y + h + 4 + 0.7 * s_.letter()}, s_.colours().quiet, {"scale-value"},
               {.size = 0.92, .anchor = Anchor::middle});
    }
    s_.keep_clear(Box{left - 20, y - 4, left + w + 40, y + h + 24});
  }

  Scene& s_;
  const Structure& s;
  Worst tension_, compression_;
  double top_ = 0;
};

}  // namespace

void draw_faces(Scene& scene) {
  FacesPicture picture(scene);
  picture();
}

}  // namespace corvex::picture
