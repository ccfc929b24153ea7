#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>

#include "corvex/acting.hpp"
#include "corvex/number.hpp"
#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

struct Panel {
  std::string name, what;
  Diagram course;
  NamedUnit unit;
  bool pulled_side = false;  // drawn downwards where it is positive, as on the beam
};

class Sheet : Canvas {
 public:
  Sheet(const Solution& solution, const PictureOptions& options, const Lettering& lettering)
      : Canvas(solution.structure().title(), options, lettering, 0.3),
        s_(solution.structure()),
        member_(options.only.empty() ? MemberId(0) : solution.structure().at(options.only.front())),
        case_(case_of(solution, options)) {
    result_.emplace(solution[case_][member_]);
    reactions_ = [result = solution[case_]](PointId p) { return result.reaction(p); };
    balance_ = solution[case_].balance();
    name_ = solution[case_].name();
  }

  Drawing operator()() {
    const Member& m = s_[member_];
    heading(fmt::format("{}, {} long, in {}", m.name,
                        short_number(result_->length().si() / units().length.si, 6) + " " + units().length.text,
                        name_));
    const std::vector<bool> planes = planes_shown();
    const double columns = static_cast<double>(planes.size()), wide = width() / columns;
    for (std::size_t i = 0; i < planes.size(); ++i) {
      edge_ = wide * static_cast<double>(i);
      left_ = edge_ + 11 * letter();
      right_ = edge_ + wide - (planes.size() > 1 ? 5 : 7) * letter();
      const Axes axes = local_axes(s_, m);
      up_ = planes[i] ? axes.y : axes.z;
      column(panels(planes[i], i, planes.size()));
    }
    const char* const side = options().moments_on_tension_side ? "tension" : "compression";
    explain(planes.size() > 1
                ? fmt::format("Left: bending in the plane of local x and y; right: in that of x and z. Moments are on "
                              "the {} side; all other values are positive upwards, along y or z",
                              side)
                : fmt::format("Moments are on the {} side; all other values are positive upwards, along local {}", side,
                              planes[0] ? "y" : "z"));
    return finished();
  }

 private:
  static bool acts(const Diagram& d) { return d.largest().si > d.noise(); }

  // The planes in which the member bends, that of x and y (true) first; in a plane structure its own.
  std::vector<bool> planes_shown() const {
    const auto about = bending_axes(s_, s_[member_]);
    if (s_.is_plane()) return {about.z};
    const bool in_y = acts(result_->moment_z()) || acts(result_->shear_y());
    const bool in_z = acts(result_->moment_y()) || acts(result_->shear_z());
    if (in_y && in_z) return {true, false};
    return {in_y || !in_z};
  }

  // Of one plane; the axial force and the torsional moment are in the first and in the last column.
  std::vector<Panel> panels(bool y, std::size_t column, std::size_t columns) const {
    const bool first = column == 0, last = column + 1 == columns;
    std::vector<Panel> all;
    const Diagram axial = result_->axial(), torsion = result_->torsion();
    const double across = std::max(result_->shear_y().largest().si(), result_->shear_z().largest().si());
    const bool has_axial = acts(axial) && axial.largest().si > 1e-9 * across, has_torsion = acts(torsion);
    const bool row = has_axial || has_torsion;
    if (first && (has_axial || (row && !last))) all.push_back({"N", "axial", axial, units().force});
    if (last && (has_torsion || (row && !first))) all.push_back({"T", "torsion", torsion, units().moment});
    all.push_back({y ? "Vy" : "Vz", "shear", y ? result_->shear_y() : result_->shear_z(), units().force});
    all.push_back({y ? "Mz" : "My", "moment", y ? result_->moment_z() : result_->moment_y(), units().moment, true});
    all.push_back({y ? "rotation z" : "rotation y", "rotation", y ? result_->rotation_z() : result_->rotation_y(),
                   units().angle});
    all.push_back({s_.is_plane() ? "deflection"
                   : y           ? "deflection y"
                                 : "deflection z",
                   "deflection", y ? result_->deflection_y() : result_->deflection_z(), units().deflection});
    return all;
  }

  void column(const std::vector<Panel>& panels) {
    const double top = 5.5 * letter(),
                 each = (height() - top - 4.2 * letter()) / (static_cast<double>(panels.size()) + 1);
    beam(top + each * 0.62, each);
    for (std::size_t i = 0; i < panels.size(); ++i)
      panel(panels[i], top + each * (static_cast<double>(i) + 1.5), each * 0.36);
    axis(height() - 3.4 * letter());
  }

  std::string given(double si, const NamedUnit& unit) const {
    return short_number(si / unit.si, options().digits) + " " + unit.text;
  }
  double L() const { return result_->length().si(); }
  double x(double along) const { return left_ + (right_ - left_) * along / L(); }

  // The member drawn horizontally, with its loads.
  void beam(double y, double room) {
    const Member& m = s_[member_];
    line({{left_, y}, {right_, y}}, {colours().member, 3.2}, {"member", m.name});
    keep_clear({left_, y}, {right_, y});
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      const Spot here{x(s_.place_of(m, k)), y};
      const PointId p = m.through[k];
      const auto support =
          std::find_if(s_.supports().begin(), s_.supports().end(), [&](const auto& q) { return q.at == p; });
      const bool held = support != s_.supports().end();
      const bool clamped = held && (support->held[3] || support->held[4] || support->held[5]);
      const bool joined = std::count_if(s_.members().begin(), s_.members().end(), [&](const Member& other) {
                            return std::find(other.through.begin(), other.through.end(), p) != other.through.end();
                          }) > 1;
      if (clamped) {
        // A wall, with short strokes off its far side.
        const double h = 1.1 * letter(), off = k == 0 ? -1 : 1;
        line({here + Spot{0, -h}, here + Spot{0, h}}, {colours().support, 3}, {"support", s_[p].name});
        for (int i = 0; i < 5; ++i) {
          const Spot from = here + Spot{0, h * (2.0 * i / 4 - 1)};
          line({from, from + Spot{off * 0.4 * letter(), 0.4 * letter()}}, {colours().support, 0.9},
               {"support", s_[p].name});
        }
        keep_clear(Box{here.x - 0.4 * letter(), y - h, here.x + 0.4 * letter(), y + h});
      } else if (held) {
        const double h = 0.95 * letter();
        path(Path{.lines = {{here, here + Spot{-0.6 * h, h}, here + Spot{0.6 * h, h}}},
                  .closed = true,
                  .fill = colours().page,
                  .stroke = Stroke{colours().support, 1.4},
                  .meaning = {"support", s_[p].name}});
        // Supports that restrain the axial direction are drawn on the ground, others on rollers.
        const bool along = support->held[0] || !support->along.empty() || support->spring[0] != 0;
        const double base = along ? h : h + 0.3 * letter();
        line({here + Spot{-0.9 * h, base}, here + Spot{0.9 * h, base}}, {colours().support, 1.4},
             {along ? "pinned" : "roller", s_[p].name});
        for (int i = 0; along && i < 5; ++i) {
          const Spot from = here + Spot{h * (0.45 * i - 0.9), base};
          line({from, from + Spot{-0.3 * letter(), 0.3 * letter()}}, {colours().support, 0.9}, {"support", s_[p].name});
        }
        keep_clear(Box{here.x - 0.9 * h, y, here.x + 0.9 * h, y + base});
      } else if (joined) {
        const double h = 0.42 * letter();
        path(Path{.lines = {{here + Spot{-h, -h}, here + Spot{h, -h}, here + Spot{h, h}, here + Spot{-h, h}}},
                  .closed = true,
                  .fill = colours().page,
                  .stroke = Stroke{colours().support, 1.4},
                  .meaning = {"joint", s_[p].name}});
      }
      label(s_[p].name, {here, {0.3, 1}}, colours().ink, 50, {"point-name", s_[p].name}, {false, 4});
      if (held) reaction(here, p);
    }
    loads(y, room * 0.5);
  }

  // The share of a reaction that stands across the member, as an arrow from below or above.
  void reaction(const Spot& here, PointId p) {
    const Reaction r = reactions_(p);
    const double f = corvex::dot(Vector{r.x.si(), r.y.si(), r.z.si()}, up_);
    const Balance& b = balance_;
    const double size = std::abs(b.applied.x.si()) + std::abs(b.applied.y.si()) + std::abs(b.applied.z.si());
    if (std::abs(f) <= 1e-9 * std::max(size, std::abs(f))) return;
    const double far = 3.4 * letter(), near = 1.7 * letter();
    const Spot tail = here + Spot{0, f > 0 ? far : near}, tip = here + Spot{0, f > 0 ? near : far};
    arrow(tail, tip, colours().support, {"reaction", s_[p].name}, 1.3);
    label(given(std::abs(f), units().force), {here + Spot{0, (far + near) / 2}, {1, 0}}, colours().support, 55,
          {"reaction-value", s_[p].name}, {false, 4});
  }

  void each_load(const LoadCase& loads, double factor, auto&& row, auto&& single) const {
    const ActingLoads acting = acting_loads(s_, loads);
    for (const ActingLine& a : acting.lines)
      if (a.on == member_) row(a.from, a.to, corvex::dot(a.first, up_) * factor, corvex::dot(a.last, up_) * factor);
    for (const ActingForce& f : acting.forces) {
      const double across = corvex::dot(f.force, up_) * factor;
      if (!f.point && f.on == member_) single(f.at, across);
      for (std::size_t k = 0; f.point && k < s_[member_].through.size(); ++k)
        if (s_[member_].through[k] == *f.point) single(s_.place_of(s_[member_], k), across);
    }
  }

  // The share of the loads that bends it in the plane of the sheet.
  void loads(double y, double room) {
    std::vector<std::array<double, 4>> rows;
    std::vector<std::pair<double, double>> singles;
    const auto row = [&](double from, double to, double a, double b) {
      if (a != 0 || b != 0) rows.push_back({from, to, a, b});
    };
    const auto single = [&](double at, double f) {
      if (f != 0) singles.emplace_back(at, f);
    };
    const std::size_t cases = s_.load_cases().size();
    if (case_ < cases)
      each_load(s_.load_cases()[case_], 1, row, single);
    else
      for (const Combination::Term& t : s_.combinations()[case_ - cases].terms)
        each_load(s_.load_cases()[t.load_case], t.factor, row, single);
    double most_row = 0, most_single = 0;
    for (const auto& r : rows) most_row = std::max({most_row, std::abs(r[2]), std::abs(r[3])});
    for (const auto& f : singles) most_single = std::max(most_single, std::abs(f.second));
    const Colour& c = colours().load;
    const NamedUnit per_length = unit_for(Dimension::of(0, 1, -2), units());
    for (const auto& [from, to, a, b] : rows) {
      if (std::max(std::abs(a), std::abs(b)) < 1e-9 * most_row) continue;
      const int n = std::max(2, static_cast<int>((x(to) - x(from)) / (2.4 * letter())));
      std::vector<Spot> tails;
      for (int i = 0; i <= n; ++i) {
        const double t = static_cast<double>(i) / n, q = a + (b - a) * t, h = 0.4 * room * (q / most_row);
        const Spot foot{x(from + (to - from) * t), y}, tail = foot + Spot{0, h};
        tails.push_back(tail);
        if (std::abs(h) > 0.5 * letter()) arrow(tail, foot, c, {"line-load"}, 1.3);
      }
      line({{x(from), y}, tails.front(), tails.back(), {x(to), y}}, {c, 1.1}, {"line-load"});
      keep_clear(tails.front(), tails.back());
      const Spot away{0, a + b < 0 ? -1.0 : 1.0};
      if (std::abs(a - b) < 1e-9 * most_row)
        label(given(std::abs(a), per_length), {tails.front() * 0.75 + tails.back() * 0.25, away}, c, 60, {"line-value"},
              {false, 4});
      else
        for (const auto& [q, at] : {std::pair(a, tails.front()), {b, tails.back()}})
          label(given(std::abs(q), per_length), {at, away}, c, 60, {"line-value"}, {false, 4});
    }
    for (const auto& [at, f] : singles) {
      const double h = room * (0.45 + 0.4 * (std::abs(f) / most_single)) * (f < 0 ? -1 : 1);
      const Spot foot{x(at), y}, tail = foot + Spot{0, h};
      arrow(tail, foot, c, {"force"}, 1.3);
      label(given(std::abs(f), units().force), {tail, {0.4, f < 0 ? -1.0 : 1.0}}, c, 60, {"force-value"}, {false, 4});
    }
  }

  void panel(const Panel& p, double zero, double room) {
    const Extreme max = p.course.max(), min = p.course.min();
    const double most = p.course.largest().si;
    const double sign = p.pulled_side && options().moments_on_tension_side ? 1 : -1;
    words(p.name, {edge_ + 1.6 * letter(), zero - 0.7 * letter()}, colours().ink, {"panel"}, {.bold = true});
    words(p.unit.text, {edge_ + 1.6 * letter(), zero + 0.7 * letter()}, colours().quiet, {"panel-unit"});
    line({{left_, zero}, {right_, zero}}, {colours().quiet, 1}, {"zero"});
    keep_clear({left_, zero}, {right_, zero});
    // Rounding error compared with the neighbouring figures.
    const bool nothing = most <= p.course.noise() || most == 0;
    if (nothing)
      return words("0 all along", {(left_ + right_) / 2, zero - letter()}, colours().quiet, {"panel-value"},
                   {.anchor = Anchor::middle});
    for (const Diagram::Piece& piece : p.course.pieces()) {
      const int n = std::clamp(static_cast<int>((x(piece.to) - x(piece.from)) / 5), 2, 120);
      std::vector<Spot> curve;
      Path hatch{.lines = {}, .stroke = Stroke{colours().positive.with(0.45), 0.8}, .meaning = {"hatch"}};
      for (int i = 0; i <= n; ++i) {
        const double along = piece.from + (piece.to - piece.from) * i / n,
                     v = p.course.at(Length::si(along), i == n ? Side::before : Side::after).si;
        curve.push_back({x(along), zero + sign * room * (v / most)});
        if (i % 2 == 0 && std::abs(v) > 1e-9 * most) hatch.lines.push_back({{x(along), zero}, curve.back()});
      }
      for (std::size_t i = 1; i < curve.size(); ++i) keep_clear(curve[i - 1], curve[i]);
      // Down to the axis where the course begins, ends or jumps.
      const auto leaps = [&](double at) {
        const double before = p.course.at(Length::si(at), Side::before).si, after = p.course.at(Length::si(at)).si;
        return at <= 1e-9 * L() || at >= L() * (1 - 1e-9) || std::abs(after - before) > 1e-6 * most;
      };
      if (leaps(piece.from)) curve.insert(curve.begin(), {x(piece.from), zero});
      if (leaps(piece.to)) curve.push_back({x(piece.to), zero});
      path(std::move(hatch));
      line(std::move(curve), {colours().positive, 1.7}, {p.what, s_[member_].name});
    }
    std::vector<std::pair<double, double>> told;
    const auto tell = [&](double along, double v, int importance, bool with_place) {
      if (std::abs(v) <= 1e-9 * most) return;
      for (const auto& [a, b] : told)
        if (std::abs(a - along) < 1e-9 * L() && std::abs(b - v) <= 1e-6 * most) return;
      told.emplace_back(along, v);
      const Spot tip{x(along), zero + sign * room * (v / most)};
      std::string text = number(v / p.unit.si, options().digits);
      if (with_place && along > 1e-9 * L() && along < L() * (1 - 1e-9))
        text += fmt::format(" at {}", short_number(along / units().length.si, 4));
      label(text, {tip, {0, sign * v > 0 ? 1.0 : -1.0}}, colours().positive, importance,
            {p.what + "-value", s_[member_].name}, {false, 4});
    };
    for (const Extreme& e : {max, min}) tell(e.at.si(), e.value.si, 80, true);
    tell(0, p.course.at(Length::si(0)).si, 60, false);
    tell(L(), p.course.at(Length::si(L()), Side::before).si, 60, false);
    for (const Diagram::Piece& piece : p.course.pieces()) {
      const double before = p.course.at(Length::si(piece.from), Side::before).si;
      const double after = p.course.at(Length::si(piece.from), Side::after).si;
      if (piece.from > 0 && std::abs(after - before) > 1e-6 * most)
        tell(piece.from, before, 50, false), tell(piece.from, after, 50, false);
    }
  }

  // Places along the member, common to all.
  void axis(double y) {
    line({{left_, y}, {right_, y}}, {colours().quiet, 1}, {"axis"});
    const Member& m = s_[member_];
    double last = -1e9;
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      const double at = s_.place_of(m, k), here = x(at);
      line({{here, y - 4}, {here, y + 4}}, {colours().quiet, 1}, {"axis"});
      if (here - last < 5 * letter()) continue;
      last = here;
      words(short_number(at / units().length.si, 5), {here, y + letter()}, colours().quiet, {"axis-value"},
            {.size = 0.92, .anchor = Anchor::middle});
    }
    words("x, " + units().length.text, {edge_ + 1.6 * letter(), y}, colours().quiet, {"panel"});
  }

  const Structure& s_;
  double edge_ = 0, left_ = 0, right_ = 0;  // of the column
  MemberId member_;
  std::size_t case_;
  std::optional<MemberResult> result_;
  std::function<Reaction(PointId)> reactions_;
  Balance balance_{};
  std::string name_;
  Vector up_{};
};

}  // namespace

Drawing sheet(const Solution& solution, const PictureOptions& options, const Lettering& lettering) {
  return Sheet(solution, options, lettering)();
}

}  // namespace corvex::picture
