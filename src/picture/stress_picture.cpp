#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// Shades of one blue, the worst standing out most from the page: they read without colour too.
Colour heat(double share, bool dark) {
  static constexpr double on_white[][3] = {{222, 230, 237}, {160, 190, 216}, {96, 145, 190},
                                           {44, 98, 152},   {16, 60, 110},   {4, 28, 62}};
  static constexpr double on_dark[][3] = {{52, 64, 76},    {60, 96, 132},   {72, 134, 184},
                                          {104, 174, 222}, {168, 212, 240}, {240, 250, 255}};
  const auto& stops = dark ? on_dark : on_white;
  const double at = std::clamp(share, 0.0, 1.0) * 5;
  const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), 4);
  const double f = at - static_cast<double>(i);
  const auto mix = [&](int k) {
    return static_cast<std::uint8_t>(std::lround(stops[i][k] + (stops[i + 1][k] - stops[i][k]) * f));
  };
  return {mix(0), mix(1), mix(2)};
}

struct ShownStress {
  double share = 0;  // of the largest, or of the strength
  bool compression = false;
};

class StressPicture {
 public:
  StressPicture(Scene& scene, bool use) : s_(scene), use_(use) {
    if (!scene.is_envelope()) cases_.push_back(scene.result());
    if (scene.is_envelope())
      for (const std::size_t i : scene.solution().assessed()) cases_.push_back(scene.solution()[i]);
  }

  void operator()() {
    const Structure& s = s_.structure();
    for (std::size_t i = 0; i < s.members().size(); ++i) {
      if (!s_.shows(i)) continue;
      for (const CaseResult& c : cases_) {
        const MemberResult m = c[MemberId{i}];
        for (const auto& e : {m.max_stress(), m.min_stress()})
          if (!use_ && e) consider(*e, std::abs(e->value.si()), i, c);
        const auto mises = m.von_mises();
        const auto strength = m.strength();
        if (use_ && mises && strength) consider(*mises, mises->value.si() / strength->si(), i, c);
      }
    }
    top_ = use_ ? 1 : std::max(most_, largest_beside());
    for (std::size_t i = 0; i < s.members().size(); ++i)
      if (s_.shows(i)) draw(i);
    add_supports(s_);
    add_names(s_, false);
    mark();
    bar();
    s_.heading(fmt::format("{} in {}", use_ ? "Stress as a share of the allowed stress" : "Largest normal stress",
                           s_.is_envelope() ? fmt::format("envelope of {} cases", cases_.size()) : s_.result().name()));
    s_.explain(
        use_
            ? "von Mises stress over allowable stress or yield strength, the largest of each section; purple: over 100 %; hollow: not known"
            : "The larger of tension and compression in each section; hatched in compression; hollow: not known");
  }

 private:
  void consider(const StressExtreme& e, double size, std::size_t member, const CaseResult& c) {
    if (size <= most_ * (1 + 1e-9)) return;
    most_ = size;
    worst_ = e;
    worst_member_ = member;
    if (s_.is_envelope()) worst_case_ = " in " + c.name();
  }

  // In the other solutions of the picture.
  double largest_beside() const {
    double most = 0;
    for (const Beside& other : s_.beside())
      for (std::size_t i = 0; i < other.shown.size(); ++i) {
        const MemberResult m = other.result[MemberId{i}];
        for (const auto& e : {m.max_stress(), m.min_stress()})
          if (other.shown[i] && e) most = std::max(most, std::abs(e->value.si()));
      }
    return most;
  }

  std::optional<ShownStress> at(const MemberResult& m, Length along) const {
    if (use_) {
      const auto mises = m.von_mises_at(along);
      const auto strength = m.strength();
      if (!mises || !strength) return {};
      return ShownStress{mises->value.si() / strength->si() / top_, false};
    }
    const auto high = m.max_stress_at(along), low = m.min_stress_at(along);
    if (!high || !low) return {};
    const double pull = std::max(high->value.si(), 0.0), push = std::max(-low->value.si(), 0.0);
    return ShownStress{top_ > 0 ? std::max(pull, push) / top_ : 0, push > pull * (1 + 1e-9)};
  }

  void draw(std::size_t i) {
    const Structure& s = s_.structure();
    const Member& m = s.members()[i];
    std::vector<MemberResult> results;
    for (const CaseResult& c : cases_) results.push_back(c[MemberId{i}]);
    const double L = s.length_of(m), wide = m.kind == MemberKind::link ? 4.5 : 8;
    const Spot a = s_.at(s.axis_start(m)), b = s_.at(s.axis_end(m)), side = left_of(unit(b - a));
    s_.keep_clear(a, b);
    s_.line({a, b}, {s_.colours().quiet, wide + 1.6}, {"member", m.name});
    const int n = std::clamp(static_cast<int>(length(b - a) / 6), 4, 100);
    Path strokes{.lines = {}, .stroke = Stroke{s_.colours().page, 1.3}, .meaning = {"compression", m.name}};
    for (int k = 0; k < n; ++k) {
      const double t = (k + 0.5) / n;
      std::optional<ShownStress> shown;
      for (const MemberResult& result : results)
        if (const auto one = at(result, Length::si(L * t)); one && (!shown || one->share > shown->share)) shown = one;
      // A little over the next one, so that no gap shows.
      const Spot from = a + (b - a) * (static_cast<double>(k) / n);
      const Spot to = a + (b - a) * (static_cast<double>(k + 1) / n) + unit(b - a) * 1.5;
      s_.line({from, k + 1 == n ? b : to}, {shown ? colour(shown->share) : s_.colours().page, wide},
              {"stress", m.name});
      if (shown && shown->compression && k % 2 == 0 && shown->share > 1e-6) {
        const Spot middle = a + (b - a) * t;
        strokes.lines.push_back({middle - side * (wide * 0.5), middle + side * (wide * 0.5)});
      }
    }
    if (!strokes.lines.empty()) s_.path(std::move(strokes));
  }

  // Stress above the allowable value has a different colour.
  Colour colour(double share) const { return use_ && share > 1 ? s_.colours().mark : heat(share, s_.options().dark); }

  std::string words(double size) const {
    return use_ ? fmt::format("{} %", number(size * 100, 3)) : figure(size, s_.units().stress, s_.options().digits);
  }

  void mark() {
    if (!worst_) return;
    const Member& m = s_.structure().members()[worst_member_];
    const Spot here = s_.at(s_.place(m, worst_->at.si()));
    Path ring{.lines = {{}}, .closed = true, .stroke = Stroke{s_.colours().mark, 2}, .meaning = {"most", m.name}};
    for (int k = 0; k < 24; ++k)
      ring.lines[0].push_back(here + Spot{std::cos(k * 0.2618), std::sin(k * 0.2618)} * (0.75 * s_.letter()));
    s_.path(std::move(ring));
    const double r = 0.75 * s_.letter();
    s_.keep_clear(Box{here.x - r, here.y - r, here.x + r, here.y + r});
    const double value = use_ ? most_ : worst_->value.si();
    s_.label(
        fmt::format("{} in {} at {}{}", use_ ? words(value) : figure(value, s_.units().stress, s_.options().digits),
                    m.name, place_words(s_.structure(), s_.units(), m, worst_->at.si()), worst_case_),
        {here, {0.3, -1}}, s_.colours().mark, 100, {"most-value", m.name}, {true, 13});
  }

  // The scale of colours, at the right of the foot.
  void bar() {
    if (!(top_ > 0)) return;
    const double w = 18 * s_.letter(), h = 0.9 * s_.letter();
    const double left = s_.options().width - w - 6 * s_.letter(), y = s_.options().height - 2.9 * s_.letter();
    s_.keep_foot_clear(w + 7 * s_.letter());
    constexpr int steps = 48;
    for (int i = 0; i < steps; ++i) {
      const double x = left + w * i / steps, to = left + w * (i + 1) / steps + 1;
      s_.area({{x, y}, {i + 1 == steps ? left + w : to, y}, {i + 1 == steps ? left + w : to, y + h}, {x, y + h}},
              heat((i + 0.5) / steps, s_.options().dark), {"scale"});
    }
    constexpr int ticks = 4;
    for (int i = 0; i <= ticks; ++i) {
      const double share = static_cast<double>(i) / ticks, x = left + w * share;
      s_.line({{x, y + h}, {x, y + h + 4}}, {s_.colours().quiet, 1}, {"scale"});
      s_.words(fmt::format("{}", use_ ? short_number(share * top_ * 100, 3) + " %"
                                      : short_number(share * top_ / s_.units().stress.si, 3) +
                                            (i == ticks ? " " + s_.units().stress.text : "")),
               {x, y + h + 4 + 0.7 * s_.letter()}, s_.colours().quiet, {"scale-value"},
               {.size = 0.92, .anchor = Anchor::middle});
    }
    s_.keep_clear(Box{left - 20, y - 4, left + w + 40, y + h + 24});
  }

  Scene& s_;
  bool use_;
  double most_ = 0, top_ = 0;
  std::optional<StressExtreme> worst_;
  std::size_t worst_member_ = 0;
  std::string worst_case_;
  std::vector<CaseResult> cases_;
};

}  // namespace

void draw_stress(Scene& scene, bool share) {
  StressPicture(scene, share)();
}

}  // namespace corvex::picture
