#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <complex>

#include "corvex/acting.hpp"
#include "corvex/figures.hpp"
#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

// Normal stress across a section: σ = mean − b·y − c·z, as the solution says.
struct Plane {
  double mean = 0, b = 0, c = 0;

  double at(double y, double z) const { return mean - b * y - c * z; }
};
class SectionPicture : Canvas {
 public:
  SectionPicture(const Solution& solution, const PictureOptions& o, const Lettering& lettering,
                 const std::vector<std::vector<Outline::Point>>& outline)
      : Canvas(solution.structure().title(), o, lettering, 0.3),
        s_(solution.structure()),
        member_(s_.at(o.only.front())),
        section_(s_.section_of(s_[member_])),
        shown_(solution[case_of(solution, o)]),
        result_(shown_[member_]),
        case_(shown_.name()) {
    for (const auto& polygon : outline) {
      outline_.emplace_back();
      for (const Outline::Point& p : polygon) outline_.back().emplace_back(p.z.si(), p.y.si());
    }
  }

  Drawing operator()() {
    // Smaller if the stress distribution next to it would leave the page.
    for (fit(); !course_fits() && shrunk_ > 0.3; fit()) shrunk_ *= 0.9;
    heading(fmt::format("Section of {}: {}", s_[member_].name, section_name()));
    outline();
    axes();
    dimensions();
    stress();
    figures();
    explain(
        "Seen along the member: y is up, z to the right; section tables call them z and y. The ring marks the largest von "
        "Mises stress of the section");
    return finished();
  }

 private:
  // The size of the outline about its centroid.
  void fit() {
    for (const auto& contour : outline_)
      for (const auto& p : contour) {
        low_ = {std::min(low_.real(), p.real()), std::min(low_.imag(), p.imag())};
        high_ = {std::max(high_.real(), p.real()), std::max(high_.imag(), p.imag())};
      }
    const double w = 0.3 * width(), h = height() - 22 * letter();
    scale_ = shrunk_ * std::min(w / (high_.real() - low_.real()), h / (high_.imag() - low_.imag()));
    centre_ = Spot{0.26 * width() - scale_ * (low_.real() + high_.real()) / 2,
                   height() / 2 + scale_ * (low_.imag() + high_.imag()) / 2};
  }
  Spot at(double y, double z) const { return centre_ + Spot{z, -y} * scale_; }
  Spot at(const std::complex<double>& p) const { return at(p.imag(), p.real()); }

  struct Letters {
    double size;
    Colour colour;
    bool bold;
  };
  // On lines, with a rim.
  void write(const Spot& at, std::string text, const Letters& l, const char* what, Anchor anchor = Anchor::start) {
    words(std::move(text), at, l.colour, {what}, {.size = l.size, .bold = l.bold, .anchor = anchor, .rimmed = true});
  }
  std::string section_name() const {
    const NamedSection& n = s_.sections()[s_[member_].section.index];
    return n.designation.empty() ? n.name : n.designation;
  }
  NamedUnit drawn() const { return units().section.text == "cm" ? NamedUnit{"mm", 1e-3} : units().section; }

  void outline() {
    Path path{.lines = {},
              .closed = true,
              .fill = colours().member.with(0.16),
              .stroke = Stroke{colours().member, 1.8},
              .meaning = {"outline", s_[member_].name}};
    for (const auto& contour : outline_) {
      path.lines.emplace_back();
      for (const auto& p : contour) path.lines.back().push_back(at(p));
    }
    this->path(std::move(path));
  }

  void axes() {
    const double over = 2.2 * letter() / scale_;
    line({at(0, low_.real() - over), at(0, high_.real() + over)}, {colours().quiet, 1, {9, 3, 2, 3}}, {"axis"});
    line({at(low_.imag() - over, 0), at(high_.imag() + over, 0)}, {colours().quiet, 1, {9, 3, 2, 3}}, {"axis"});
    // Above the line: the neutral axis continues next to it.
    write(at(0, high_.real() + over) + Spot{letter() * 0.3, -0.8 * letter()}, "z", {1, colours().quiet, true},
          "axis-name", Anchor::middle);
    write(at(high_.imag() + over, 0) + Spot{0, -0.9 * letter()}, "y", {1, colours().quiet, true}, "axis-name",
          Anchor::middle);
    const SectionProperties& p = section_.properties();
    // Principal axes where they are others: u lies at an angle from y towards z.
    if (std::abs(p.Iyz.si()) > 1e-6 * p.I1.si()) {
      const double a = p.principal.si(), r = 0.6 * std::max(high_.real() - low_.real(), high_.imag() - low_.imag());
      for (const double angle : {a, a + 1.5707963267948966}) {
        const double y = std::cos(angle) * r, z = std::sin(angle) * r;
        line({at(-y, -z), at(y, z)}, {colours().deformed, 1, {4, 3}}, {"principal"});
      }
      write(at(std::cos(a) * r, std::sin(a) * r) + Spot{0, -0.8 * letter()}, "u", {1, colours().deformed, true},
            "axis-name", Anchor::middle);
    }
    dot(at(0, 0), 0.22 * letter(), colours().ink, {"centroid"});
    const double sy = p.shear_centre_y.si(), sz = p.shear_centre_z.si();
    if (std::hypot(sy, sz) * scale_ > 2) {
      const Spot c = at(sy, sz);
      line({c + Spot{-5, -5}, c + Spot{5, 5}}, {colours().mark, 1.5}, {"shear-centre"});
      line({c + Spot{-5, 5}, c + Spot{5, -5}}, {colours().mark, 1.5}, {"shear-centre"});
      write(c + Spot{0, -1.1 * letter()}, "shear centre", {0.92, colours().mark, false}, "shear-centre-name",
            Anchor::middle);
    }
  }

  // A line with ticks between two places, its length in the middle.
  void dimension(const Spot& a, const Spot& b, const Spot& off, double length) {
    const Spot from = a + off, to = b + off, along = unit(to - from);
    for (const auto& [foot, end] : {std::pair(a, from), {b, to}})
      line({foot + unit(off) * 3, end + unit(off) * 4}, {colours().faint, 0.9}, {"dimension"});
    line({from, to}, {colours().quiet, 1}, {"dimension"});
    for (const Spot& end : {from, to})
      line({end - (along + left_of(along)) * 3.5, end + (along + left_of(along)) * 3.5}, {colours().quiet, 1.3},
           {"dimension"});
    write((from + to) * 0.5 + unit(off) * (std::abs(off.x) > std::abs(off.y) ? 3.0 * letter() : 0.95 * letter()),
          short_number(length / drawn().si, 5) + " " + drawn().text, {0.96, colours().quiet, false}, "dimension-value",
          Anchor::middle);
  }
  void dimensions() {
    dimension(at(low_.imag(), low_.real()), at(low_.imag(), high_.real()), {0, 3.4 * letter()},
              high_.real() - low_.real());
    dimension(at(low_.imag(), low_.real()), at(high_.imag(), low_.real()), {-3.4 * letter(), 0},
              high_.imag() - low_.imag());
  }

  // The place of the largest von Mises, or normal, stress, and how the stress runs there.
  bool find_worst() {
    std::optional<StressExtreme> worst = result_.von_mises();
    for (const auto& e : {result_.max_stress(), result_.min_stress()})
      if (!worst && e) worst = e;
    if (!worst) return false;
    place_ = worst->at;
    // The side of a jump that counts.
    for (const Side side : {Side::after, Side::before}) {
      const auto mises = result_.von_mises_at(place_, side);
      if (mises && mises->value.si() >= worst->value.si() * (1 - 1e-9)) side_ = side;
    }
    const auto normal = [&](double y, double z) {
      return result_.normal_stress_at(place_, Length::si(y), Length::si(z), side_).value_or(Stress()).si();
    };
    const double reach = std::max(high_.imag() - low_.imag(), high_.real() - low_.real());
    plane_.mean = normal(0, 0);
    plane_.b = (plane_.mean - normal(reach, 0)) / reach;
    plane_.c = (plane_.mean - normal(0, reach)) / reach;
    most_ = 0;
    for (const auto& contour : outline_)
      for (const auto& p : contour) most_ = std::max(most_, std::abs(plane_.at(p.imag(), p.real())));
    // Below this the squares of its gradient are 0, which has no direction.
    constexpr double nothing = 1e-150;
    return most_ > nothing;
  }

  // Position of the stress distribution: perpendicular to the neutral axis, next to the section.
  struct Beside {
    Spot e, n;  // towards more tension; away from the section
    double from = 1e300, to = -1e300, off = -1e300;
  };
  Beside beside() const {
    Beside b;
    const Spot up{-plane_.c, plane_.b};
    const double height = std::max(high_.imag() - low_.imag(), high_.real() - low_.real());
    b.e = length(up) * height > 1e-9 * std::abs(plane_.mean) ? unit(up) : Spot{0, -1};
    b.n = left_of(b.e).x > 0 ? left_of(b.e) : left_of(b.e) * -1;
    for (const auto& contour : outline_)
      for (const auto& p : contour) {
        const Spot here = at(p) - at(0, 0);
        const double s = here.x * b.e.x + here.y * b.e.y;
        b.from = std::min(b.from, s), b.to = std::max(b.to, s);
        b.off = std::max(b.off, here.x * b.n.x + here.y * b.n.y);
      }
    b.off += 4 * letter() + reach();
    return b;
  }
  double reach() const { return 6 * letter(); }
  bool course_fits() {
    if (!find_worst()) return true;
    const Beside b = beside();
    for (const double s : {b.from - 2 * letter(), b.to + 2 * letter()})
      for (const double v : {-1.0, 1.0}) {
        const Spot here = at(0, 0) + b.e * s + b.n * (b.off + reach() * v);
        if (here.x > 0.67 * width() || here.y < 5 * letter() || here.y > height() - 3 * letter()) return false;
      }
    return true;
  }

  void stress() {
    if (!find_worst()) return;
    const Beside where = beside();
    const auto& [e, n, from, to, off] = where;
    const auto value = [&, e = e](double s) {
      const Spot here = e * (s / scale_);
      return plane_.at(-here.y, here.x);
    };
    const auto spot = [&, e = e, n = n, off = off](double s, double v) {
      return at(0, 0) + e * s + n * (off + reach() * (v / most_));
    };
    const double a = value(from), b = value(to);
    std::vector<std::pair<double, double>> parts;
    if (a * b < 0) {
      const double zero = from + (to - from) * a / (a - b);
      parts = {{from, zero}, {zero, to}};
      const Spot middle = at(0, 0) + e * zero;
      line({middle - n * (off - reach() - 2 * letter()), middle + n * off}, {colours().mark, 1.2, {6, 4}},
           {"neutral-axis"});
    } else {
      parts = {{from, to}};
    }
    for (const auto& [p, q] : parts) {
      const double mean = value((p + q) / 2);
      const Colour c = mean >= 0 ? colours().positive : colours().negative;
      const std::vector<Spot> area{spot(p, 0), spot(p, value(p)), spot(q, value(q)), spot(q, 0)};
      path(Path{.lines = {area}, .closed = true, .fill = c.with(0.14), .meaning = {"stress-area"}});
      line(area, {c, 1.5}, {"stress-line"});
      Path strokes{.lines = {}, .stroke = Stroke{c.with(0.5), 0.8}, .meaning = {"hatch"}};
      for (int i = 1; i * 0.62 * letter() < q - p; ++i) {
        const double s = p + i * 0.62 * letter();
        strokes.lines.push_back({spot(s, 0), spot(s, value(s))});
      }
      path(std::move(strokes));
    }
    line({spot(from, 0), spot(to, 0)}, {colours().quiet, 1}, {"zero"});
    // Where on the section it is worst.
    if (const auto worst = result_.von_mises(); worst && worst->y && worst->z)
      ring(at(worst->y->si(), worst->z->si()), 0.5 * letter(), {colours().mark, 2}, {"most"});
    for (const auto& [s, v, away] : {std::tuple(from, a, -1.0), {to, b, 1.0}})
      write(spot(s, v) + e * (away * 1.3 * letter()), figure(v, units().stress, options().digits, most_),
            {1, v >= 0 ? colours().positive : colours().negative, true}, "stress-value", Anchor::middle);
  }

  void figures() {
    const double left = 0.68 * width();
    double y = 8 * letter();
    const auto row = [&](const std::string& name, const std::string& value, bool bold = false) {
      write({left, y}, name, {1, bold ? colours().ink : colours().quiet, bold}, "figure-name");
      write({width() - 2.5 * letter(), y}, value, {1, colours().ink, false}, "figure-value", Anchor::end);
      y += 1.75 * letter();
    };
    const SectionProperties& p = section_.properties();
    const auto with = [&](double si, const Dimension& d) { return figure(si, unit_for(d, units()), options().digits); };
    row("Section", "", true);
    row("A", with(p.A.si(), Area::dimension()));
    row("Iz (bending in x-y)", with(p.Iz.si(), SecondMoment::dimension()));
    row("Wz", with(p.Wz.si(), SectionModulus::dimension()));
    row("Iy (bending in x-z)", with(p.Iy.si(), SecondMoment::dimension()));
    row("Wy", with(p.Wy.si(), SectionModulus::dimension()));
    if (std::abs(p.Iyz.si()) > 1e-9 * p.I1.si()) row("Iyz", with(p.Iyz.si(), SecondMoment::dimension()));
    row("J (torsion)", with(p.J.si(), SecondMoment::dimension()));
    const auto mises = result_.von_mises();
    y += letter();
    row(fmt::format("In {} at {}", case_, place_words(s_, units(), s_[member_], place_.si())), "", true);
    const SectionState s = result_.at(place_, side_);
    // Rounding error is recognised by comparison with the largest value of the member.
    const auto is_force = [](const MemberFigure& f) { return f.kind == MemberFigure::Kind::force; };
    const auto is_moment = [](const MemberFigure& f) { return f.kind == MemberFigure::Kind::moment; };
    double force = 0, moment = 0;
    for (const MemberFigure& f : member_figures())
      if (is_force(f) || is_moment(f)) {
        double& most = is_force(f) ? force : moment;
        most = std::max(most, f.diagram(result_).largest().si);
      }
    for (const MemberFigure& f : member_figures())
      if ((is_force(f) || is_moment(f)) && f.exists_in(s_, member_))
        row(f.symbol, figure(f.at(s).si, is_force(f) ? units().force : units().moment, options().digits,
                             is_force(f) ? force : moment));
    if (const auto e = result_.max_stress_at(place_, side_))
      row("largest tension", figure(std::max(e->value.si(), 0.0), units().stress, options().digits));
    if (const auto e = result_.min_stress_at(place_, side_))
      row("largest compression", figure(std::min(e->value.si(), 0.0), units().stress, options().digits));
    if (mises) row("largest von Mises", figure(mises->value.si(), units().stress, options().digits));
    if (const auto safety = result_.safety())
      row(result_.leaves_out_warping() ? "safety factor, without warping stress" : "safety factor",
          number(*safety, std::min(options().digits, 3)));
  }
  const Structure& s_;
  double scale_ = 1, shrunk_ = 1, most_ = 0;
  MemberId member_;
  const Section& section_;
  CaseResult shown_;
  MemberResult result_;
  std::string case_;
  std::vector<std::vector<std::complex<double>>> outline_;
  std::complex<double> low_{1e300, 1e300}, high_{-1e300, -1e300};
  Spot centre_{};
  Length place_{};
  Side side_ = Side::after;
  Plane plane_;
};

}  // namespace

std::optional<Drawing> section_picture(const Solution& solution, const PictureOptions& options,
                                       const Lettering& lettering) {
  const Structure& s = solution.structure();
  const auto outline = outline_polygons(s.section_of(s[s.at(options.only.front())]));
  if (outline.empty()) return {};
  return SectionPicture(solution, options, lettering, outline)();
}

}  // namespace corvex::picture
