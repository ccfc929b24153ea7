#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "corvex/load_words.hpp"
#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

constexpr int of_load = 60;

struct Arrow {
  Vector at, along;  // a force or moment
  std::string of, remark;
};
struct Row {
  MemberId on;
  double from, to;
  Vector first, last;
  std::string remark;
};

// All that acts in the case, as forces, moments, rows of force, and words.
struct Shown {
  std::vector<Arrow> forces, moments;
  std::vector<Row> rows;
  std::vector<std::string> everywhere;
  Vector pull{};  // of gravity and the like
  struct Sign {
    enum class Kind { mass, heat, shorter, longer, settlement };
    Kind kind;
    Vector at;
    std::string words, of;
    Vector along{};  // the member, or the movement
  };
  std::vector<Sign> signs;
};

constexpr int digits_of_words = 4;

class Gathering {
 public:
  explicit Gathering(const Scene& scene) : scene_(scene), s_(scene.structure()) {}

  Shown operator()() {
    const std::size_t cases = s_.load_cases().size();
    if (scene_.case_index() < cases) {
      take(s_.load_cases()[scene_.case_index()], 1);
    } else {
      for (const Combination::Term& t : s_.combinations()[scene_.case_index() - cases].terms)
        take(s_.load_cases()[t.load_case], t.factor);
    }
    return std::move(all_);
  }

 private:
  using Sign = Shown::Sign;

  void take(const LoadCase& loads, double factor) {
    loads_ = &loads;
    factor_ = factor;
    const ActingLoads acting = acting_loads(s_, loads);
    for (const ActingForce& f : acting.forces) add(f);
    for (const ActingLine& l : acting.lines) add(l);
    for (const ActingMass& m : acting.masses)
      all_.signs.push_back({Sign::Kind::mass, s_[m.at].position + m.arm,
                            fmt::format("{} kg", short_number(m.mass, digits_of_words)), s_[m.at].name});
    for (const ActingStrain& strain : acting.strains) add(strain);
    for (const ActingMovement& m : acting.movements)
      all_.signs.push_back({Sign::Kind::settlement, s_[m.at].position, words(m.load), s_[m.at].name, m.move * factor_});
    all_.pull += acting.acceleration * factor;
    for (const Load& load : loads.loads())
      if (const auto* g = std::get_if<GravityLoad>(&load)) add(load, *g);
  }
  bool shown(MemberId m) const { return scene_.shows(m.index); }
  Vector along(MemberId m) const { return s_.axis_end(s_[m]) - s_.axis_start(s_[m]); }
  Vector on(MemberId m, double along) const { return scene_.place(s_[m], along); }
  const Load& load(std::size_t number) const { return loads_->loads()[number]; }
  LoadWords words_of(const Load& load) const { return load_words(s_, load, scene_.units(), factor_, digits_of_words); }
  std::string words(std::size_t number) const {
    const LoadWords w = words_of(load(number));
    return w.kind + " " + w.value;
  }
  // In addition to the value at an arrow: the total of a spread force, the point of the section that a load acts
  // through.
  std::string remark(std::size_t number) const {
    const std::string point = point_of_action(load(number), scene_.units());
    if (!std::holds_alternative<SpreadLoad>(load(number))) return point;
    return fmt::format("({} in all){}{}", words_of(load(number)).value, point.empty() ? "" : " ", point);
  }

  // A load of zero size, or too large for division, has no arrow.
  static bool has_size(const Vector& v) { return length(v) > 0 && std::isfinite(1 / length(v)); }
  void add(const ActingForce& a) {
    if (!a.point && !shown(a.on)) return;
    const Vector at = a.point ? a.place : on(a.on, a.at);
    const std::string& of = a.point ? s_[*a.point].name : s_[a.on].name;
    if (const Vector f = a.force * factor_; has_size(f)) all_.forces.push_back({at, f, of, remark(a.load)});
    if (const Vector m = a.moment * factor_; has_size(m)) all_.moments.push_back({at, m, of, {}});
  }
  void add(const ActingLine& l) {
    if (std::holds_alternative<GravityLoad>(load(l.load))) return;
    const Vector first = l.first * factor_, last = l.last * factor_;
    if (shown(l.on) && l.to > l.from && (has_size(first) || has_size(last)))
      all_.rows.push_back({l.on, l.from, l.to, first, last, remark(l.load)});
  }
  void add(const ActingStrain& strain) {
    if (!shown(strain.on)) return;
    const Vector at = on(strain.on, s_.place_of(s_[strain.on], 1) * 0.4);
    const auto* shorten = std::get_if<LackOfFitLoad>(&load(strain.load));
    const Sign::Kind kind = !shorten                    ? Sign::Kind::heat
                            : shorten->by * factor_ < 0 ? Sign::Kind::longer
                                                        : Sign::Kind::shorter;
    all_.signs.push_back({kind, at, words(strain.load), s_[strain.on].name, along(strain.on)});
  }
  void add(const Load& load, const GravityLoad& g) {
    const LoadWords w = words_of(load);
    const bool down = dot(g.acceleration, s_.up_direction()) * factor_ < -0.999 * length(g.acceleration * factor_);
    all_.everywhere.push_back(fmt::format("{} {}{}", w.kind, w.value, down ? " downwards" : ""));
  }

  const Scene& scene_;
  const Structure& s_;
  const LoadCase* loads_ = nullptr;
  double factor_ = 1;
  Shown all_;
};

// Loads as they were given: without zeros at the end.
std::string given(double si, const NamedUnit& unit, int digits) {
  return short_number(si / unit.si, digits) + " " + unit.text;
}

class Drawer {
 public:
  Drawer(Scene& scene, Shown shown) : s_(scene), a_(std::move(shown)) {}

  void operator()() {
    for (const Arrow& f : a_.forces) most_force_ = std::max(most_force_, length(f.along));
    for (const Row& r : a_.rows) most_line_ = std::max({most_line_, length(r.first), length(r.last)});
    for (const Row& r : a_.rows) row(r);
    for (const Arrow& f : a_.forces) force(f);
    for (const Arrow& m : a_.moments) moment(m);
    for (const auto& sign : a_.signs) draw(sign);
    std::string words;
    if (most_force_ > 0)
      words += fmt::format("longest arrow {}", given(most_force_, s_.units().force, s_.options().digits));
    if (most_line_ > 0)
      words += fmt::format("{}highest line load {}", words.empty() ? "" : ", ",
                           given(most_line_, line_unit(), s_.options().digits));
    if (!words.empty()) s_.explain("Loads by size within their kind: " + words);
    if (a_.everywhere.empty()) return;
    // Which way that pulls, in the corner.
    if (const Spot seen = s_.seen(a_.pull); length(seen) > 0) {
      const Spot middle{s_.options().width - 5 * s_.letter(), 4.6 * s_.letter()};
      const Spot half = unit(seen) * (1.7 * s_.letter());
      s_.arrow(middle - half, middle + half, colour(), {"gravity"}, 2.6);
      s_.words("weight", {middle.x, middle.y - 3 * s_.letter()}, colour(), {"gravity-words"},
               {.size = 0.92, .anchor = Anchor::middle});
    }
    words.clear();
    for (const std::string& w : a_.everywhere) words += (words.empty() ? "" : "; ") + w;
    s_.explain("Also acting: " + words);
  }

 private:
  const Colour& colour() const { return s_.colours().load; }
  NamedUnit line_unit() const { return unit_for(Dimension::of(0, 1, -2), s_.units()); }

  void force(const Arrow& f) {
    const Spot seen = s_.seen(f.along), at = s_.at(f.at);
    const std::string words =
        given(length(f.along), s_.units().force, s_.options().digits) + (f.remark.empty() ? "" : " " + f.remark);
    const double share = length(f.along) / most_force_;
    // Foreshortened where it points at the eye; a ring where it does so straight.
    const double reach = s_.letter() * (2.2 + 3.2 * share) * length(seen) / length(f.along);
    const Spot away = unit(seen) * -1;
    if (reach < 0.8 * s_.letter()) {
      s_.dot(at, 0.5 * s_.letter(), colour(), {"force", f.of});
      return s_.label(words, {at, {1, -1}}, colour(), of_load, {"force-value", f.of});
    }
    const Spot tip = at + away * (0.28 * s_.letter()), tail = at + away * reach;
    s_.arrow(tail, tip, colour(), {"force", f.of}, 2);
    s_.label(words, {tail, away}, colour(), of_load, {"force-value", f.of}, {false, 3});
  }

  void moment(const Arrow& m) {
    const Spot at = s_.at(m.at);
    const std::string words = given(length(m.along), s_.units().moment, s_.options().digits);
    const double r = 1.35 * s_.letter();
    const Vector eye = cross(s_.structure().is_plane() ? Vector{1, 0, 0} : sight_right(), sight_up());
    const double facing = dot(m.along, eye) / length(m.along);
    if (std::abs(facing) > 0.35) {
      // Seen turning: three quarters of a circle, counter-clockwise where it points at the eye.
      std::vector<Spot> arc;
      constexpr int steps = 24;
      for (int i = 0; i <= steps; ++i) {
        const double angle = (facing > 0 ? 1 : -1) * (-0.6 + 4.4 * i / steps) + (facing > 0 ? 0 : std::numbers::pi);
        arc.push_back(at + Spot{std::cos(angle), -std::sin(angle)} * r);
      }
      const Spot tip = arc.back(), along = unit(arc.back() - arc[arc.size() - 3]), side = left_of(along);
      s_.line(arc, {colour(), 2}, {"moment-load", m.of});
      const double head = 0.7 * s_.letter();
      s_.area({tip + along * (head * 0.6), tip + side * (head * 0.4) - along * (head * 0.4),
               tip - side * (head * 0.4) - along * (head * 0.4)},
              colour(), {"moment-load", m.of});
    } else {
      // From the side: along its axis, with two heads.
      const Spot away = unit(s_.seen(m.along)) * -1;
      const Spot tail = at + away * (3.6 * s_.letter());
      s_.arrow(tail, at + away * (0.3 * s_.letter()), colour(), {"moment-load", m.of}, 2);
      s_.arrow(tail, at + away * (0.95 * s_.letter()), colour(), {"moment-load", m.of}, 2);
    }
    s_.keep_clear(Box{at.x - r, at.y - r, at.x + r, at.y + r});
    s_.label(words, {at, {1, -1}}, colour(), of_load, {"moment-value", m.of}, {false, 1.2 * 13});
  }
  Vector sight_up() const { return sight(s_.structure(), s_.options().view).up; }
  Vector sight_right() const { return sight(s_.structure(), s_.options().view).right; }

  void row(const Row& r) {
    const Member& m = s_.structure()[r.on];
    const auto tail_at = [&](double t) {
      const Vector q = r.first + (r.last - r.first) * t;
      const Spot foot = s_.at(s_.place(m, r.from + (r.to - r.from) * t));
      const Spot seen = s_.seen(q / most_line_);
      return std::pair(foot, foot - seen * (3.6 * s_.letter()));
    };
    const auto [a, a_tail] = tail_at(0);
    const auto [b, b_tail] = tail_at(1);
    s_.area({a, a_tail, b_tail, b}, colour().with(0.1), {"line-load", m.name});
    s_.line({a_tail, b_tail}, {colour(), 1.2}, {"line-load", m.name});
    for (const double share : {0.3, 0.6, 1.0}) s_.keep_clear(a + (a_tail - a) * share, b + (b_tail - b) * share);
    const int arrows = std::max(2, static_cast<int>(length(b - a) / (2.4 * s_.letter())));
    for (int i = 0; i <= arrows; ++i) {
      const auto [foot, tail] = tail_at(static_cast<double>(i) / arrows);
      if (length(foot - tail) > 0.5 * s_.letter()) s_.arrow(tail, foot, colour(), {"line-load", m.name}, 1);
    }
    const auto value = [&](const Vector& q) {
      return given(length(q), line_unit(), s_.options().digits) + (r.remark.empty() ? "" : " " + r.remark);
    };
    const Spot up = unit(a_tail - a + (b_tail - b));
    if (length(r.first - r.last) < 1e-9 * most_line_) {
      // Next to the middle, where single forces are often placed.
      s_.label(value(r.first), {a_tail * 0.7 + b_tail * 0.3, up}, colour(), of_load, {"line-value", m.name},
               {false, 3});
    } else {
      s_.label(value(r.first), {a_tail, up}, colour(), of_load, {"line-value", m.name}, {false, 3});
      s_.label(value(r.last), {b_tail, up}, colour(), of_load, {"line-value", m.name}, {false, 3});
    }
  }

  void draw(const Shown::Sign& sign) {
    using Kind = Shown::Sign::Kind;
    const Spot at = s_.at(sign.at), along = unit(s_.seen(sign.along)), side = left_of(along);
    const double l = s_.letter();
    const Meaning meaning{"sign", sign.of};
    switch (sign.kind) {
      case Kind::mass: s_.dot(at, 0.34 * l, colour(), meaning); break;
      case Kind::settlement:
        if (length(along) > 0) {
          // Next to the support of the point.
          const Spot from = at + side * (1.3 * l);
          s_.arrow(from, from + along * (2.6 * l), colour(), {"settlement", sign.of}, 1.8);
        }
        break;
      case Kind::heat: {
        // A wave on the member.
        std::vector<Spot> wave;
        constexpr int steps = 36;
        for (int i = 0; i <= steps; ++i) {
          const double t = 2.0 * i / steps - 1;
          wave.push_back(at + along * (1.8 * l * t) + side * (0.42 * l * std::sin(t * 3 * std::numbers::pi)));
        }
        s_.line(std::move(wave), {colour(), 1.8}, meaning);
        break;
      }
      case Kind::shorter:
      case Kind::longer:
        // Two arrows towards each other where it is too short, else apart.
        for (const double way : {-1.0, 1.0}) {
          const Spot outer = at + along * (way * 1.9 * l) + side * (0.6 * l);
          const Spot inner = at + along * (way * 0.25 * l) + side * (0.6 * l);
          sign.kind == Kind::shorter ? s_.arrow(outer, inner, colour(), meaning, 1.4)
                                     : s_.arrow(inner, outer, colour(), meaning, 1.4);
        }
    }
    s_.label(sign.words, {at, {0.4, 1}}, colour(), of_load, {"sign-words", sign.of}, {false, 8});
  }

  Scene& s_;
  Shown a_;
  double most_force_ = 0, most_line_ = 0;
};

}  // namespace

void add_loads(Scene& scene) {
  Drawer(scene, Gathering(scene)())();
}

}  // namespace corvex::picture
