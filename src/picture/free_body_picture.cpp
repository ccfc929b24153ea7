// A free body: its members and joints, and the arrows of all forces that act on it.
#include <algorithm>
#include <cmath>

#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

class BodyPicture {
 public:
  BodyPicture(Canvas& canvas, const FreeBody& body, const Sight& sight) : c_(canvas), body_(body), sight_(sight) {
    fit();
  }

  void operator()() {
    for (const auto& [a, b] : body_.bars) {
      const Spot from = at(a), to = at(b);
      if (length(to - from) < 1) continue;
      c_.line({from, to}, {c_.colours().member, 2.4}, {"member", body_.name});
      c_.keep_clear(from, to);
    }
    for (const auto& [place, name] : body_.joints) {
      const Spot spot = at(place);
      c_.dot(spot, 3.2, c_.colours().ink, {"point", name});
      if (body_.joints.size() <= 24)
        c_.label(name, {spot, {-0.6, -0.8}}, c_.colours().ink, 60, {"point-name", name}, {true});
    }
    for (const FreeBody::Arrow& a : body_.arrows) draw(a);
  }

 private:
  Spot at(const Vector& v) const { return middle_ + (sight_.flat(v) - centre_) * scale_; }

  void fit() {
    Box b{1e300, 1e300, -1e300, -1e300};
    const auto take = [&](const Vector& v) {
      const Spot p = sight_.flat(v);
      b = {std::min(b.left, p.x), std::min(b.top, p.y), std::max(b.right, p.x), std::max(b.bottom, p.y)};
    };
    for (const auto& [from, to] : body_.bars) take(from), take(to);
    for (const auto& [place, name] : body_.joints) take(place);
    for (const FreeBody::Arrow& a : body_.arrows) take(a.at);
    const double margin = 5.5 * c_.letter(), w = c_.width() - 2 * margin, h = c_.height() - 2 * margin;
    const double wide = b.right - b.left, tall = b.bottom - b.top;
    scale_ = std::min(wide > 1e-9 ? w / wide : 1e300, tall > 1e-9 ? h / tall : 1e300);
    if (scale_ > 1e200) scale_ = 1;
    centre_ = {(b.left + b.right) / 2, (b.top + b.bottom) / 2};
    middle_ = {c_.width() / 2, c_.height() / 2};
  }

  // Loads point at their place; forces of cuts and supports leave it, as they are counted positive.
  void draw(const FreeBody::Arrow& a) {
    const Colour colour = a.is_load ? c_.colours().load : c_.colours().mark;
    const Spot place = at(a.at);
    const char* what = a.is_load ? "load" : "force";
    if (!zero(a.force)) {
      const Spot way = unit(sight_.flat(a.force)) * (3.2 * c_.letter());
      if (length(way) < 1) {
        c_.ring(place, 0.5 * c_.letter(), {colour, 1.6}, {what, a.name});
        c_.label(a.name, {place, {0.7, -0.7}}, colour, 80, {"force-name", a.name}, {true});
        return;
      }
      const Spot tail = a.is_load ? place - way : place + way * 0.12, tip = a.is_load ? place : place + way * 1.12;
      c_.arrow(tail, tip, colour, {what, a.name}, 2);
      c_.label(a.name, {a.is_load ? tail : tip, unit(way) * (a.is_load ? -1 : 1)}, colour, 80, {"force-name", a.name},
               {true});
      return;
    }
    if (zero(a.moment)) return;
    const double way = dot(a.moment, cross(sight_.right, sight_.up)) < 0 ? -1 : 1, r = 1.5 * c_.letter();
    std::vector<Spot> line;
    constexpr int steps = 24;
    for (int i = 0; i <= steps; ++i) {
      const double angle = (-0.5 + 4.2 * i / steps) * way + (way < 0 ? 3.6 : 0);
      line.push_back(place + Spot{std::cos(angle), -std::sin(angle)} * r);
    }
    const Spot tip = line.back(), before = line[line.size() - 4];
    c_.line(std::move(line), {colour, 1.8}, {what, a.name});
    c_.arrow(before, tip, colour, {what, a.name}, 1.8);
    c_.label(a.name, {place + Spot{r, -r} * 0.7, {0.7, -0.7}}, colour, 80, {"force-name", a.name}, {true});
  }

  Canvas& c_;
  const FreeBody& body_;
  const Sight sight_;
  double scale_ = 1;
  Spot centre_{}, middle_{};
};

}  // namespace

Drawing free_body_picture(const FreeBody& body, bool plane, Up up, const PictureOptions& options,
                          const Lettering& lettering) {
  Canvas canvas(body.name, options, lettering, 0);
  BodyPicture picture(canvas, body, sight(plane ? Structure::plane("") : Structure::space("", up), {}));
  picture();
  return canvas.finished();
}

}  // namespace corvex::picture
