// The largest and the least N, V, M or T over all assessed cases, drawn on the members.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "picture/courses.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

class EnvelopePicture {
 public:
  EnvelopePicture(Scene& scene, PictureOf what)
      : s_(scene), what_(what), force_(what == PictureOf::axial || what == PictureOf::shear) {
    for (const std::size_t i : scene.solution().assessed()) {
      cases_.push_back(scene.solution()[i]);
      all_.push_back(
          courses(scene.structure(), cases_.back(), scene.shown(), what, scene.options().moments_on_tension_side));
      for (const Course& c : all_.back()) most_ = std::max(most_, c.diagram.largest().si);
    }
  }

  void operator()() {
    s_.members({s_.colours().member, 2.2});
    for (std::size_t k = 0; k < all_.front().size(); ++k) draw(k);
    add_supports(s_);
    add_names(s_, false);
    s_.heading(fmt::format("{}, envelope of {} cases", heading_of(what_), cases_.size()));
    s_.explain(fmt::format("Full blue line: the largest of all cases; dashed orange line: the least{}",
                           what_ != PictureOf::moment             ? ""
                           : s_.options().moments_on_tension_side ? "; moments on the tension side"
                                                                  : "; moments on the compression side"));
    s_.explain(
        s_.structure().is_plane()
            ? "Each extreme value with its governing case; values below 5 % of the largest are not labelled"
            : "The largest value with its governing case, all of them are in the table; values below 50 % of the largest "
              "are not labelled");
  }

 private:
  struct Value {
    double value, at;
    std::size_t load_case;
  };

  void draw(std::size_t k) {
    const Course& first = all_.front()[k];
    const Member& m = s_.structure()[first.member];
    if (!(most_ > 0)) return;
    const Spot up = s_.seen(first.up);
    const double L = s_.structure().length_of(m), reach = 4.2 * s_.letter();
    const auto spot = [&](double along, double v) { return s_.at(s_.place(m, along)) + up * (v / most_ * reach); };
    std::vector<double> places{0, L};
    constexpr int steps = 60;
    for (int i = 1; i < steps; ++i) places.push_back(L * i / steps);
    for (const auto& courses : all_)
      for (const Diagram::Piece& p : courses[k].diagram.pieces()) places.push_back(p.from);
    std::sort(places.begin(), places.end());
    std::vector<Spot> high, low;
    // Both sides of each place: where a diagram jumps, so does the envelope.
    for (const double at : places)
      for (const Side side : {Side::before, Side::after}) {
        double most = -1e300, least = 1e300;
        for (const auto& courses : all_) {
          const double v = courses[k].diagram.at(Length::si(at), side).si;
          most = std::max(most, v);
          least = std::min(least, v);
        }
        high.push_back(spot(at, most));
        low.push_back(spot(at, least));
      }
    std::vector<Spot> between = high;
    between.insert(between.end(), low.rbegin(), low.rend());
    s_.area(std::move(between), s_.colours().positive.with(0.07), {"envelope", m.name});
    s_.line(std::move(high), {s_.colours().positive, 1.5}, {"envelope-max", m.name});
    s_.line(std::move(low), {s_.colours().negative, 1.5, {5, 3}}, {"envelope-min", m.name});
    for (const bool largest : {true, false}) {
      const Value v = extreme(k, largest);
      if (std::abs(v.value) <= least_share() * most_) continue;
      const bool governs = std::abs(v.value) >= most_ * (1 - 1e-9);
      // In space many values stand near each other: only the largest names its case.
      const bool with_case = governs || s_.structure().is_plane();
      s_.label(with_case ? fmt::format("{}{} ({})", first.symbol, words(v.value), cases_[v.load_case].name())
                         : first.symbol + words(v.value),
               {spot(v.at, v.value), up * (v.value < 0 ? -1 : 1)},
               largest ? s_.colours().positive : s_.colours().negative, governs ? 90 : 70, {"envelope-value", m.name},
               {governs, 4});
    }
  }

  // Values below this share of the largest are not written.
  double least_share() const { return s_.structure().is_plane() ? 0.05 : 0.5; }

  Value extreme(std::size_t k, bool largest) const {
    Value best{0, 0, 0};
    bool any = false;
    for (std::size_t c = 0; c < all_.size(); ++c) {
      const Extreme e = largest ? all_[c][k].diagram.max() : all_[c][k].diagram.min();
      const double near = any ? 1e-11 * std::abs(best.value) : 0;
      const bool better = !any || (largest ? e.value.si > best.value + near : e.value.si < best.value - near);
      if (better) best = {e.value.si, e.at.si(), c};
      any = true;
    }
    return best;
  }

  std::string words(double si) const {
    return figure(si, force_ ? s_.units().force : s_.units().moment, s_.options().digits, most_);
  }

  Scene& s_;
  PictureOf what_;
  bool force_;
  std::vector<CaseResult> cases_;
  std::vector<std::vector<Course>> all_;  // of each case, of each member
  double most_ = 0;
};

}  // namespace

void draw_envelope(Scene& scene, PictureOf what) {
  EnvelopePicture picture(scene, what);
  picture();
}

}  // namespace corvex::picture
