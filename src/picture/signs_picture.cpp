// Local axes of a member, and its positive internal forces: a figure for documents.
#include <array>
#include <cmath>
#include <numbers>

#include "picture/canvas.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

class Signs {
 public:
  explicit Signs(Canvas& canvas) : c_(canvas), ink_(canvas.colours().ink), force_(canvas.colours().load) {}

  void plane() {
    const Spot a{70, 90}, b{250, 90};
    c_.line({a, b}, {ink_, 4}, {"member"});
    axis({130, 90}, {130, 30}, "y");
    c_.arrow({130, 90}, {190, 90}, c_.colours().positive, {"axis", "x"});
    word("x", {188, 76});  // above the line of the member
    word("A", {a.x, a.y + 16}), word("B", {b.x, b.y + 16});
    // A piece of the member with both faces.
    const double l = 400, r = 490, t = 60, m = 90, u = 120;
    c_.area({{l, t}, {r, t}, {r, u}, {l, u}}, c_.colours().faint, {"member"});
    c_.line({{l, t}, {r, t}, {r, u}, {l, u}, {l, t}}, {ink_, 1.4}, {"member"});
    force({r + 4, m}, {r + 52, m}, "N"), force({l - 4, m}, {l - 52, m}, "N");
    force({r + 10, m - 28}, {r + 10, m + 30}, "Vy"), force({l - 10, m + 28}, {l - 10, m - 34}, "Vy");
    // Mz is counter-clockwise on the face towards the end.
    turn({r + 58, m}, 34, -1), turn({l - 58, m}, 34, 1);
    word("Mz", {r + 100, m - 30}), word("Mz", {l - 100, m - 30});
    c_.explain(
        "x is from the first point to the last, y up. Mz + causes tension on the -y side; Vy = dMz/dx; N + is tension.");
  }

  void space() {
    const Spot left{80, 80}, right{380, 80};
    block(left);
    axis(at(left, 0, height_, 0), at(left, 0, height_ + 24, 0), "y");
    axis(at(left, 0, 0, depth_), at(left, 0, 0, depth_ + 24), "z");
    axis(at(left, 0, height_, 0), at(left, 46, height_, 0), "x");
    const Spot face = at(left, length_, 0, 0);
    force(face, at(left, length_ + 60, 0, 0), "N"), force(face, at(left, length_, -height_ - 16, 0), "Vy");
    force(face, at(left, length_, 0, -depth_ - 40), "Vz");
    std::vector<Spot> circle;
    for (int k = -60; k <= 220; k += 8) {
      const double angle = k * std::numbers::pi / 180;
      circle.push_back(at(left, length_ + 34, 17 * std::cos(angle), 17 * std::sin(angle)));
    }
    curved_arrow(circle, "torsion");
    word("T", at(left, length_ + 34, 27, 0));
    block(right);
    side(right, true), side(right, false);
    const Spot end = at(right, length_, 0, 0);
    moment(end, at(right, length_, 0, depth_ + 44), "Mz"), moment(end, at(right, length_, -height_ - 22, 0), "My");
    c_.explain("N + is tension; Vy = dMz/dx, Vz = dMy/dx; T + is right-handed about x.");
    c_.explain("Mz + causes tension on the -y side (orange), My + on the -z side (blue).");
  }

 private:
  static constexpr double length_ = 120, height_ = 30, depth_ = 22;

  // Seen from +x, +y and +z.
  static Spot at(const Spot& origin, double x, double y, double z) {
    const double across = std::cos(std::numbers::pi / 6), down = 0.5;
    return {origin.x + across * (x - z), origin.y + down * (x + z) - y};
  }

  void block(const Spot& o) {
    const auto face = [&](const std::array<Spot, 4>& s, double shade) {
      const std::vector<Spot> spots(s.begin(), s.end());
      c_.area(spots, c_.colours().quiet.with(shade), {"member"});
      c_.line({s[0], s[1], s[2], s[3], s[0]}, {ink_, 1.2}, {"member"});
    };
    const double L = length_, h = height_, d = depth_;
    face({at(o, 0, h, -d), at(o, L, h, -d), at(o, L, h, d), at(o, 0, h, d)}, 0.12);
    face({at(o, 0, -h, d), at(o, L, -h, d), at(o, L, h, d), at(o, 0, h, d)}, 0.25);
    face({at(o, L, -h, -d), at(o, L, h, -d), at(o, L, h, d), at(o, L, -h, d)}, 0.4);
  }

  // The strip in tension under Mz (below) or My (behind).
  void side(const Spot& o, bool below) {
    const double L = length_, h = height_, d = depth_, w = 8;
    const Colour colour = (below ? c_.colours().negative : c_.colours().positive).with(0.6);
    if (below) {
      c_.area({at(o, 0, -h, d), at(o, L, -h, d), at(o, L, w - h, d), at(o, 0, w - h, d)}, colour, {"tension"});
      c_.area({at(o, L, -h, -d), at(o, L, w - h, -d), at(o, L, w - h, d), at(o, L, -h, d)}, colour, {"tension"});
    } else {
      c_.area({at(o, 0, h, -d), at(o, L, h, -d), at(o, L, h, w - d), at(o, 0, h, w - d)}, colour, {"tension"});
      c_.area({at(o, L, -h, -d), at(o, L, h, -d), at(o, L, h, w - d), at(o, L, -h, w - d)}, colour, {"tension"});
    }
  }

  void word(const std::string& text, const Spot& where) {
    c_.words(text, where, ink_, {"symbol"}, {.anchor = Anchor::middle});
  }
  static Spot beyond(const Spot& tail, const Spot& tip) { return tip + unit(tip - tail) * 11; }
  void axis(const Spot& tail, const Spot& tip, const char* name) {
    c_.arrow(tail, tip, c_.colours().positive, {"axis", name});
    word(name, beyond(tail, tip));
  }
  void force(const Spot& tail, const Spot& tip, const char* name) {
    c_.arrow(tail, tip, force_, {"force", name});
    word(name, beyond(tail, tip));
  }
  // Right-handed about its direction: two heads.
  void moment(const Spot& tail, const Spot& tip, const char* name) {
    c_.arrow(tail, tip, force_, {"moment", name});
    c_.arrow(tail, tip - unit(tip - tail) * 8, force_, {"moment", name});
    word(name, beyond(tail, tip));
  }
  // An arc about `centre` on the side `right` (1) or left (-1) of the page, upwards on the right.
  void turn(const Spot& centre, double radius, double side) {
    std::vector<Spot> arc;
    for (int k = -60; k <= 60; k += 6) {
      const double angle = k * std::numbers::pi / 180;
      arc.push_back({centre.x - side * radius * std::cos(angle), centre.y - radius * std::sin(angle)});
    }
    curved_arrow(arc, "moment");
  }
  // A line of short steps whose last ones carry the head of an arrow.
  void curved_arrow(const std::vector<Spot>& line, const char* what) {
    const std::size_t tail = line.size() - 4;
    c_.line({line.begin(), line.begin() + tail + 1}, {force_, 1.6}, {what});
    c_.arrow(line[tail], line.back(), force_, {what});
  }

  Canvas& c_;
  Colour ink_, force_;
};

}  // namespace

Drawing signs_drawing(bool plane, const PictureOptions& options, const Lettering& lettering) {
  Canvas canvas("Signs and axes", options, lettering, 0);
  Signs signs(canvas);
  plane ? signs.plane() : signs.space();
  return canvas.finished();
}

}  // namespace corvex::picture
