#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "picture/courses.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

struct Names {
  const char *value, *what;
};
Names names_of(PictureOf what) {
  switch (what) {
    case PictureOf::axial: return {"axial-value", "axial"};
    case PictureOf::shear: return {"shear-value", "shear"};
    case PictureOf::torsion: return {"torsion-value", "torsion"};
    default: return {"moment-value", "moment"};
  }
}

class DiagramPicture {
 public:
  DiagramPicture(Scene& scene, PictureOf what)
      : s_(scene),
        heading_(heading_of(what)),
        names_(names_of(what)),
        force_(what == PictureOf::axial || what == PictureOf::shear),
        axial_(what == PictureOf::axial),
        all_(courses(scene.structure(), scene.result(), scene.shown(), what, scene.options().moments_on_tension_side)) {
    for (const Course& c : all_) most_ = std::max(most_, c.diagram.largest().si);
    reached_by_ = std::max(most_, largest_beside(scene, what));
    rounding_ = rounding();
    least_ = least_written();
  }

  void operator()() {
    s_.members({s_.colours().member, 2.2});
    for (const Course& c : all_) draw(c);
    add_supports(s_);
    add_names(s_, false);
    s_.heading(fmt::format("{} in {}", heading_, s_.result().name()));
    std::string words =
        force_ && !axial_ ? "Positive on the +y (+z) side of a member, blue; negative orange"
        : axial_
            ? "Tension blue on the +y side of a member, compression orange and hatched; links: dashed in compression"
        : names_.what == std::string("torsion") ? "Positive on the +y side of a member, blue; negative orange"
        : s_.options().moments_on_tension_side  ? "On the tension side; positive blue, negative orange"
                                                : "On the compression side; positive blue, negative orange";
    s_.explain(words);
    if (most_ <= rounding_) {
      s_.explain("Zero in this case");
      return;
    }
    s_.explain("Largest of all: " + governing() +
               fmt::format("; values below {:.0f} % of it are not labelled", least_ * 100));
  }

 private:
  const NamedUnit& unit_of() const { return force_ ? s_.units().force : s_.units().moment; }
  // The share of the largest value below which none is written: 3 %, and more where the values of all courses would
  // take more than an eighth of the page.
  double least_written() const {
    constexpr double usual = 0.03, most = 0.35, values = 3, letters_of_a_value = 9 * 1.4, eighth = 0.125;
    const double area = static_cast<double>(all_.size()) * values * letters_of_a_value * s_.letter() * s_.letter();
    const double crowd = area / (eighth * s_.width() * s_.height());
    return std::clamp(usual * crowd * crowd, usual, most);
  }
  // Forces that are only the rounding of others.
  double rounding() const {
    double force = 0;
    const Balance b = s_.result().balance();
    for (const Reaction* r : {&b.applied, &b.reacted})
      force = std::max({force, std::abs(r->x.si()), std::abs(r->y.si()), std::abs(r->z.si())});
    for (const Course& c : all_) force = std::max(force, s_.result()[c.member].axial().largest().si());
    return 1e-9 * force;
  }
  std::string words(double si) const { return figure(si, unit_of(), s_.options().digits, most_); }

  std::string governing() const {
    const Course* worst = nullptr;
    for (const Course& c : all_)
      if (!worst || c.diagram.largest().si > worst->diagram.largest().si * (1 + 1e-9)) worst = &c;
    const Extreme max = worst->diagram.max(), min = worst->diagram.min();
    const Extreme& e = max.value.si >= -min.value.si ? max : min;
    const Member& m = s_.structure()[worst->member];
    return fmt::format("{}{} in {} at {}", worst->symbol, words(e.value.si), m.name,
                       place_words(s_.structure(), s_.units(), m, e.at.si()));
  }

  // How far from the member a value stands, in pixels.
  double height(double value) const { return value / reached_by_ * (4.2 * s_.letter()); }

  void draw(const Course& c) {
    const double size = c.diagram.largest().si;
    const Member& m = s_.structure()[c.member];
    if (size <= 1e-9 * most_ || most_ <= rounding_) return;
    if (axial_ && m.kind == MemberKind::link) return link(c, m);
    const Spot up = s_.seen(c.up);
    const auto& pieces = c.diagram.pieces();
    for (const Diagram::Piece& p : pieces) {
      // Down to the member where the course begins, ends or jumps.
      const auto leaps = [&](double at) {
        const double before = c.diagram.at(Length::si(at), Side::before).si, after = c.diagram.at(Length::si(at)).si;
        return std::abs(after - before) > 1e-6 * most_;
      };
      piece(p, {&p == &pieces.front() || leaps(p.from), &p == &pieces.back() || leaps(p.to)}, up, m);
    }
    values(c, up, m);
  }

  // Its force is all a link has: a line as thick as that is large, and the word.
  void link(const Course& c, const Member& m) {
    const Extreme max = c.diagram.max(), min = c.diagram.min();
    const double v = max.value.si >= -min.value.si ? max.value.si : min.value.si, share = std::abs(v) / most_;
    const double L = s_.structure().length_of(m);
    const Spot a = foot(m, 0), b = foot(m, L);
    Stroke stroke{colour(v).with(0.75), 2 + 7 * share};
    if (v < 0) stroke.dash = {7, 2.5};
    s_.line({a, b}, stroke, {names_.what, m.name});
    Spot side = left_of(unit(b - a));
    if (side.y > 0) side = side * -1;
    const std::string told = words(v) + (v > 0 ? " tension" : " compression");
    const bool governs = share >= 1 - 1e-9;
    // Along the bar, where it is long enough; else near it.
    const Meaning meaning{names_.value, m.name};
    if (s_.words_along(told, {a, b, side}, colour(v), meaning, governs)) return;
    std::vector<Spot> places;
    for (const double t : {0.38, 0.62, 0.28, 0.72}) places.push_back(foot(m, L * t));
    s_.label(told, {foot(m, L / 2), side}, colour(v), governs ? 90 : 70, meaning, {governs, 6, std::move(places)});
  }

  Spot foot(const Member& m, double along) const { return s_.at(s_.place(m, along)); }

  // Whether the line goes down to the member at the start and at the end.
  struct Feet {
    bool from = true, to = true;
  };

  // The area of a piece, in parts of one sign, with its hatching.
  void piece(const Diagram::Piece& p, const Feet& feet, const Spot& up, const Member& m) {
    const bool straight = p.powers[2] == 0 && p.powers[3] == 0 && p.powers[4] == 0 && p.powers[5] == 0;
    const double pixels = length(foot(m, p.to) - foot(m, p.from));
    const int n = straight ? 1 : std::clamp(static_cast<int>(pixels / 5), 4, 80);
    const auto value = [&](double along) {
      const double x = along - p.from;
      double v = 0;
      for (std::size_t k = p.powers.size(); k-- > 0;) v = v * x + p.powers[k];
      return std::abs(v) <= 1e-9 * most_ ? 0 : v;
    };
    struct Ordinate {
      double along, value;
    };
    std::vector<Ordinate> all;
    for (int i = 0; i <= n; ++i) {
      const double along = p.from + (p.to - p.from) * i / n, v = value(along);
      // Where the sign changes an area ends and another begins: between two ordinates, or at one that is zero.
      const auto before = std::find_if(all.rbegin(), all.rend(), [](const Ordinate& o) { return o.value != 0; });
      if (before != all.rend() && before->value * v < 0) {
        double zero = all.back().along;
        if (all.back().value != 0) {
          zero += (along - zero) * (all.back().value / (all.back().value - v));
          all.push_back({zero, 0});
        }
        area(all.front().along, zero, all, {all.front().along > p.from || feet.from, true}, up, m);
        all = {{zero, 0}};
      }
      all.push_back({along, v});
    }
    area(all.front().along, all.back().along, all, {all.front().along > p.from || feet.from, feet.to}, up, m);
    hatch(value, p, feet.from ? 1 : 0, pixels, up, m);
  }

  Colour colour(double sign) const { return sign >= 0 ? s_.colours().positive : s_.colours().negative; }

  template <class Ordinates>
  void area(double from, double to, const Ordinates& all, const Feet& feet, const Spot& up, const Member& m) {
    double sum = 0;
    std::vector<Spot> outline{foot(m, from)}, top;
    for (const auto& o : all) {
      sum += o.value;
      top.push_back(foot(m, o.along) + up * height(o.value));
    }
    if (sum == 0) return;
    outline.insert(outline.end(), top.begin(), top.end());
    outline.push_back(foot(m, to));
    for (std::size_t i = 1; i < outline.size(); ++i) s_.keep_clear(outline[i - 1], outline[i]);
    s_.area(outline, colour(sum).with(0.13), {names_.what, m.name});
    if (!feet.from) outline.erase(outline.begin());
    if (!feet.to) outline.pop_back();
    s_.line(std::move(outline), {colour(sum), 1.5}, {names_.what + std::string("-line"), m.name});
  }

  // `first`: 0 where the course goes on from the piece before, so that its strokes do too.
  template <class Value>
  void hatch(const Value& value, const Diagram::Piece& p, int first, double pixels, const Spot& up, const Member& m) {
    const int strokes = static_cast<int>(pixels / (0.62 * s_.letter()));
    for (int sign : {1, -1}) {
      Path hatching{.lines = {}, .stroke = Stroke{colour(sign).with(0.55), 0.8}, .meaning = {"hatch", m.name}};
      for (int i = first; i <= strokes; ++i) {
        const double along = p.from + (p.to - p.from) * i / (strokes + 1), v = value(along);
        if (v * sign <= 0) continue;
        const Spot a = foot(m, along), b = a + up * height(v);
        if (!axial_ || sign > 0) {
          hatching.lines.push_back({a, b});
          continue;
        }
        // Compression differs from tension by more than its colour: it is hatched diagonally.
        const Spot forward = unit(foot(m, p.to) - foot(m, p.from)) * (0.5 * length(b - a));
        if (length(foot(m, p.to) - a) > length(forward)) hatching.lines.push_back({a, b + forward});
      }
      if (!hatching.lines.empty()) s_.path(std::move(hatching));
    }
  }

  void value(double along, double v, int importance, const Spot& up, const Member& m, const char* symbol) {
    const Spot tip = foot(m, along) + up * height(v);
    const bool governs = std::abs(v) >= most_ * (1 - 1e-9);
    if (importance > 60) s_.dot(tip, 0.2 * s_.letter(), colour(v), {names_.what + std::string("-extreme"), m.name});
    s_.label(symbol + words(v), {tip, up * (v < 0 ? -1 : 1)}, colour(v), importance + (governs ? 20 : 0),
             {names_.value, m.name}, {governs, 4});
  }

  // At extremes, at ends and on both sides of jumps; each once.
  void values(const Course& c, const Spot& up, const Member& m) {
    std::vector<std::pair<double, double>> told;
    const double L = s_.structure().length_of(m);
    const auto tell = [&](double along, double v, int importance) {
      // Values small compared with the largest need no label.
      if (std::abs(v) <= (importance > 60 ? 1 : 2.7) * least_ * most_) return;
      for (const auto& [a, b] : told)
        if (std::abs(a - along) < 1e-9 * L && std::abs(b - v) <= 1e-6 * most_) return;
      told.emplace_back(along, v);
      value(along, v, importance, up, m, c.symbol);
    };
    const Extreme max = c.diagram.max(), min = c.diagram.min();
    const bool level = max.value.si - min.value.si <= 1e-9 * std::max(std::abs(max.value.si), std::abs(min.value.si));
    if (level) return tell(L / 2, max.value.si, 70);
    for (const Extreme& e : {max, min}) tell(e.at.si(), e.value.si, 70);
    const auto& pieces = c.diagram.pieces();
    for (std::size_t i = 0; i < pieces.size(); ++i) {
      const double before = c.diagram.at(Length::si(pieces[i].from), Side::before).si;
      const double after = c.diagram.at(Length::si(pieces[i].from), Side::after).si;
      const bool jumps = std::abs(after - before) > 1e-6 * most_;
      if (i == 0) tell(0, after, 55);
      if (i > 0 && jumps) tell(pieces[i].from, before, 45), tell(pieces[i].from, after, 45);
    }
    tell(L, c.diagram.at(Length::si(L), Side::before).si, 55);
  }

  Scene& s_;
  const char* heading_;
  Names names_;
  bool force_, axial_;
  std::vector<Course> all_;
  double most_ = 0, rounding_ = 0, least_ = 0.03;
  double reached_by_ = 0;  // the largest of all pictures side by side
};

}  // namespace

void draw_diagram(Scene& scene, PictureOf what) {
  DiagramPicture(scene, what)();
}

}  // namespace corvex::picture
