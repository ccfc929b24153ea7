// Several solutions in one picture: deformed shapes, or diagrams, overlaid.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "picture/courses.hpp"
#include "picture/deformed.hpp"
#include "picture/pictures.hpp"
#include "picture/series.hpp"

namespace corvex::picture {
namespace {

// One of the solutions.
struct Layer {
  std::string name;
  const Structure* structure;
  CaseResult result;
  const std::vector<bool>* shown;
};

class Overlay {
 public:
  Overlay(Scene& scene, const std::string& first, PictureOf what, const Lettering& lettering)
      : s_(scene), what_(what), lettering_(lettering) {
    layers_.push_back({first, &scene.structure(), scene.result(), &scene.shown()});
    for (const Beside& b : scene.beside()) layers_.push_back({*b.name, &b.solution->structure(), b.result, &b.shown});
  }

  void operator()() {
    for (const Layer& l : layers_) members_of(l, &l == &layers_.front());
    if (what_ == PictureOf::deformed)
      deformed();
    else
      diagrams();
    add_supports(s_);
    add_names(s_, false);
    double widest = 0;
    for (const std::string& words : key_) widest = std::max(widest, lettering_.width(words, s_.letter(), false));
    add_key(s_, key_, widest);
  }

 private:
  // Each line once, though several structures have it.
  void members_of(const Layer& l, bool first) {
    for (std::size_t i = 0; i < l.structure->members().size(); ++i) {
      if (!(*l.shown)[i]) continue;
      const Member& m = l.structure->members()[i];
      const Spot a = s_.at(l.structure->axis_start(m)), b = s_.at(l.structure->axis_end(m));
      const auto same = [&](const std::pair<Spot, Spot>& line) {
        return length(line.first - a) < 0.5 && length(line.second - b) < 0.5;
      };
      if (std::any_of(drawn_.begin(), drawn_.end(), same)) continue;
      drawn_.emplace_back(a, b);
      // Members of one variant only are drawn as lightly as the undeformed shape.
      const bool dashed = what_ == PictureOf::deformed || !first;
      s_.line({a, b},
              {dashed ? s_.colours().faint : s_.colours().member, dashed ? 1.4 : 2.0,
               dashed ? std::vector<double>{5, 3} : std::vector<double>{}},
              {"member", m.name});
      s_.keep_clear(a, b);
    }
  }

  void curve(std::vector<Spot> spots, std::size_t layer, const std::string& of) {
    const Series s = series(s_.colours(), layer);
    for (std::size_t k = 1; k < spots.size(); ++k) s_.keep_clear(spots[k - 1], spots[k]);
    s_.line(std::move(spots), {s.colour, 2, s.dash}, {"layer", layers_[layer].name + ": " + of});
  }

  // The largest of a layer is marked and told.
  void most(std::size_t layer, const Spot& at, const Spot& towards, const std::string& value,
            const std::string& where) {
    const Series s = series(s_.colours(), layer);
    add_mark(s_, s, at, false, {"most", layers_[layer].name});
    // The same value at the same place is written once; the legend lists all.
    const auto same = [&](const std::pair<Spot, std::string>& t) {
      return length(t.first - at) < 1 && t.second == value;
    };
    if (std::none_of(told_.begin(), told_.end(), same))
      s_.label(value, {at, towards}, s.colour, 100, {"most-value", layers_[layer].name}, {true});
    told_.emplace_back(at, value);
    key_.push_back(fmt::format("{}: {} {}", layers_[layer].name, value, where));
  }

  void deformed() {
    const double times = exaggeration(s_);
    for (std::size_t k = 0; k < layers_.size(); ++k) {
      const Layer& l = layers_[k];
      const Structure& s = *l.structure;
      std::optional<std::pair<Extreme, std::size_t>> largest;
      for (std::size_t i = 0; i < s.members().size(); ++i) {
        if (!(*l.shown)[i]) continue;
        const MemberResult m = l.result[MemberId{i}];
        curve(deformed_line(s_, s, m, times).moved, k, s.members()[i].name);
        const Extreme e = m.movement();
        if (!largest || e.value.si > largest->first.value.si * (1 + 1e-9)) largest = {e, i};
      }
      if (!largest || !(largest->first.value.si > 0)) {
        key_.push_back(l.name + ": no displacement");
        continue;
      }
      const auto& [e, i] = *largest;
      const Member& m = s.members()[i];
      const SectionState t = l.result[MemberId{i}].at(e.at);
      const Vector from = Scene::place(s, m, e.at.si());
      const Spot here = s_.at(from + Vector{t.x.si(), t.y.si(), t.z.si()} * times);
      most(k, here, unit(here - s_.at(from)), figure(e.value.si, s_.units().deflection, s_.options().digits),
           movement_words(s, s_.units(), m, e.at.si()));
    }
    s_.heading(fmt::format("Deformed shapes in {}", s_.result().name()));
    s_.explain(times == 1 ? std::string("Displacements at true scale")
                          : fmt::format("Displacements magnified {} times", short_number(times, 4)));
  }

  void diagrams() {
    std::vector<std::vector<Course>> all;
    double largest = 0;
    for (const Layer& l : layers_) {
      all.push_back(courses(*l.structure, l.result, *l.shown, what_, s_.options().moments_on_tension_side));
      for (const Course& c : all.back()) largest = std::max(largest, c.diagram.largest().si);
    }
    const bool force = what_ == PictureOf::axial || what_ == PictureOf::shear;
    const NamedUnit& unit_of = force ? s_.units().force : s_.units().moment;
    for (std::size_t k = 0; k < layers_.size(); ++k) {
      const Layer& l = layers_[k];
      const Course* worst = nullptr;
      for (const Course& c : all[k]) {
        if (c.diagram.largest().si <= 1e-9 * largest) continue;
        const Member& m = (*l.structure)[c.member];
        curve(course_line(*l.structure, m, c, largest), k, m.name);
        if (!worst || c.diagram.largest().si > worst->diagram.largest().si * (1 + 1e-9)) worst = &c;
      }
      if (!worst) {
        key_.push_back(l.name + ": none in this case");
        continue;
      }
      const Extreme high = worst->diagram.max(), low = worst->diagram.min();
      const Extreme& e = high.value.si >= -low.value.si ? high : low;
      const Member& m = (*l.structure)[worst->member];
      const Spot up = s_.seen(worst->up);
      const Spot tip = s_.at(Scene::place(*l.structure, m, e.at.si())) + up * height(e.value.si, largest);
      most(k, tip, up * (e.value.si < 0 ? -1 : 1),
           worst->symbol + figure(e.value.si, unit_of, s_.options().digits, largest),
           fmt::format("in {} at {}", m.name, place_words(*l.structure, s_.units(), m, e.at.si())));
    }
    s_.heading(fmt::format("{} in {}", heading_of(what_), s_.result().name()));
    s_.explain(what_ == PictureOf::moment ? "On the tension side; all at one scale"
                                          : "Positive on the +y (+z) side of a member; all at one scale");
  }

  double height(double value, double largest) const { return value / largest * (4.2 * s_.letter()); }

  // From the member's start over its values to its end.
  std::vector<Spot> course_line(const Structure& structure, const Member& m, const Course& c, double largest) const {
    const Spot up = s_.seen(c.up);
    const auto foot = [&](double along) { return s_.at(Scene::place(structure, m, along)); };
    std::vector<Spot> spots{foot(0)};
    for (const Diagram::Piece& p : c.diagram.pieces()) {
      const double pixels = length(foot(p.to) - foot(p.from));
      const int n = std::clamp(static_cast<int>(pixels / 5), 1, 80);
      for (int i = 0; i <= n; ++i) {
        const double along = p.from + (p.to - p.from) * i / n, x = along - p.from;
        double v = 0;
        for (std::size_t k = p.powers.size(); k-- > 0;) v = v * x + p.powers[k];
        spots.push_back(foot(along) + up * height(v, largest));
      }
    }
    spots.push_back(foot(structure.length_of(m)));
    return spots;
  }

  Scene& s_;
  PictureOf what_;
  const Lettering& lettering_;
  std::vector<Layer> layers_;
  std::vector<std::pair<Spot, Spot>> drawn_;
  std::vector<std::string> key_;
  std::vector<std::pair<Spot, std::string>> told_;
};

}  // namespace

void draw_overlay(Scene& scene, const std::string& first, PictureOf what, const Lettering& lettering) {
  Overlay(scene, first, what, lettering)();
}

}  // namespace corvex::picture
