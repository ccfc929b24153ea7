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

double polynomial(const Diagram::Piece& p, double along) {
  double v = 0;
  for (std::size_t k = p.powers.size(); k-- > 0;) v = v * (along - p.from) + p.powers[k];
  return v;
}

struct Panel {
  std::string name, what;
  Diagram course;
  NamedUnit unit;
  bool pulled_side = false;  // drawn downwards where it is positive, as on the beam
};

class Sheet {
 public:
  Sheet(const Solution& solution, const PictureOptions& options, const Lettering& lettering)
      : s_(solution.structure()),
        o_(options),
        colours_(palette(options.dark)),
        letter_(13 * std::clamp(std::min(options.width / 1280, options.height / 800), 0.6, 4.0)),
        labels_(lettering, {4, 4, options.width - 4, options.height - 4}),
        member_(options.only.empty() ? MemberId(0) : solution.structure().at(options.only.front())),
        case_(case_of(solution, options)) {
    result_.emplace(solution[case_][member_]);
    reactions_ = [result = solution[case_]](PointId p) { return result.reaction(p); };
    balance_ = solution[case_].balance();
    name_ = solution[case_].name();
    d_.width = options.width;
    d_.height = options.height;
    d_.page = colours_.page;
    d_.title = s_.title();
  }

  Drawing operator()() {
    const Member& m = s_[member_];
    const Axes axes = local_axes(s_, m);
    const bool y = bending_axes(s_, m).z;
    up_ = y ? axes.y : axes.z;
    left_ = 11 * letter_;
    right_ = o_.width - 7 * letter_;
    words(1.6 * letter_, 1.9 * letter_, s_.title(), 1.3 * letter_, colours_.ink, true, "title");
    words(1.6 * letter_, 3.7 * letter_,
          fmt::format("{}, {} long, in {}", m.name,
                      short_number(result_->length().si() / o_.units.length.si, 6) + " " + o_.units.length.text, name_),
          letter_, colours_.ink, false, "heading");
    const Diagram deflection = y ? result_->deflection_y() : result_->deflection_z();
    std::vector<Panel> panels = {
        {y ? "Vy" : "Vz", "shear", y ? result_->shear_y() : result_->shear_z(), o_.units.force},
        {y ? "Mz" : "My", "moment", y ? result_->moment_z() : result_->moment_y(), o_.units.moment, true},
        {y ? "rotation z" : "rotation y", "rotation", y ? result_->rotation_z() : result_->rotation_y(),
         o_.units.angle},
        {"deflection", "deflection", deflection, o_.units.deflection}};
    const Diagram axial = result_->axial();
    const double thrust = std::max(std::abs(axial.max().value.si), std::abs(axial.min().value.si));
    const double across =
        std::max(std::abs(panels[0].course.max().value.si), std::abs(panels[0].course.min().value.si));
    if (thrust > axial.noise() && thrust > 1e-9 * across)
      panels.insert(panels.begin(), Panel{"N", "axial", axial, o_.units.force});
    const double top = 5.5 * letter_,
                 each = (o_.height - top - 4.2 * letter_) / (static_cast<double>(panels.size()) + 1);
    beam(top + each * 0.62, each);
    for (std::size_t i = 0; i < panels.size(); ++i)
      panel(panels[i], top + each * (static_cast<double>(i) + 1.5), each * 0.36);
    axis(o_.height - 3.4 * letter_);
    std::size_t left_out = 0;
    for (Text& t : labels_.placed(left_out)) d_.shapes.emplace_back(std::move(t));
    words(1.6 * letter_, o_.height - 1.4 * letter_,
          fmt::format("Moments stand on the side that they pull; all else is positive upwards, along the member's {}{}",
                      y ? "y" : "z", left_out > 0 ? fmt::format("; {} labels were left out", left_out) : ""),
          0.92 * letter_, colours_.quiet, false, "legend");
    return std::move(d_);
  }

 private:
  std::string given(double si, const NamedUnit& unit) const {
    return short_number(si / unit.si, o_.digits) + " " + unit.text;
  }
  double L() const { return result_->length().si(); }
  double x(double along) const { return left_ + (right_ - left_) * along / L(); }

  void line(std::vector<Spot> spots, const Stroke& stroke, Meaning meaning) {
    d_.shapes.emplace_back(Path{.lines = {std::move(spots)}, .stroke = stroke, .meaning = std::move(meaning)});
  }
  void words(double at, double y, std::string text, double size, const Colour& c, bool bold, const char* what,
             Anchor anchor = Anchor::start) {
    d_.shapes.emplace_back(Text{.at = {at, y},
                                .words = std::move(text),
                                .size = size,
                                .colour = c,
                                .anchor = anchor,
                                .bold = bold,
                                .meaning = {what}});
  }
  void label(std::string text, const Spot& of, const Spot& towards, const Colour& c, int importance, Meaning meaning) {
    Label l{.of = of, .towards = towards, .distance = 4, .importance = importance};
    l.text = {.words = std::move(text), .size = letter_, .colour = c, .meaning = std::move(meaning), .rimmed = true};
    labels_.add(std::move(l));
  }
  void arrow(const Spot& tail, const Spot& tip, const Colour& c, const Meaning& m) {
    const Spot along = unit(tip - tail), side = left_of(along);
    const double head = std::min(0.7 * letter_, length(tip - tail) * 0.8);
    const Spot base = tip - along * head;
    line({tail, base}, {c, 1.3}, m);
    d_.shapes.emplace_back(Path{.lines = {{tip, base + side * (head * 0.36), base - side * (head * 0.36)}},
                                .closed = true,
                                .fill = c,
                                .meaning = m});
    labels_.avoid_line(tail, tip);
  }

  // The member lying flat, with what stands on it.
  void beam(double y, double room) {
    const Member& m = s_[member_];
    line({{left_, y}, {right_, y}}, {colours_.member, 3.2}, {"member", m.name});
    labels_.avoid_line({left_, y}, {right_, y});
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
        const double h = 1.1 * letter_, off = k == 0 ? -1 : 1;
        line({here + Spot{0, -h}, here + Spot{0, h}}, {colours_.support, 3}, {"support", s_[p].name});
        for (int i = 0; i < 5; ++i) {
          const Spot from = here + Spot{0, h * (2.0 * i / 4 - 1)};
          line({from, from + Spot{off * 0.4 * letter_, 0.4 * letter_}}, {colours_.support, 0.9},
               {"support", s_[p].name});
        }
        labels_.avoid({here.x - 0.4 * letter_, y - h, here.x + 0.4 * letter_, y + h});
      } else if (held) {
        const double h = 0.95 * letter_;
        d_.shapes.emplace_back(Path{.lines = {{here, here + Spot{-0.6 * h, h}, here + Spot{0.6 * h, h}}},
                                    .closed = true,
                                    .fill = colours_.page,
                                    .stroke = Stroke{colours_.support, 1.4},
                                    .meaning = {"support", s_[p].name}});
        // What holds along the member too stands on the ground; what does not, on rollers.
        const bool along = support->held[0] || !support->along.empty() || support->spring[0] != 0;
        const double base = along ? h : h + 0.3 * letter_;
        line({here + Spot{-0.9 * h, base}, here + Spot{0.9 * h, base}}, {colours_.support, 1.4},
             {along ? "pinned" : "roller", s_[p].name});
        for (int i = 0; along && i < 5; ++i) {
          const Spot from = here + Spot{h * (0.45 * i - 0.9), base};
          line({from, from + Spot{-0.3 * letter_, 0.3 * letter_}}, {colours_.support, 0.9}, {"support", s_[p].name});
        }
        labels_.avoid({here.x - 0.9 * h, y, here.x + 0.9 * h, y + base});
      } else if (joined) {
        const double h = 0.42 * letter_;
        d_.shapes.emplace_back(
            Path{.lines = {{here + Spot{-h, -h}, here + Spot{h, -h}, here + Spot{h, h}, here + Spot{-h, h}}},
                 .closed = true,
                 .fill = colours_.page,
                 .stroke = Stroke{colours_.support, 1.4},
                 .meaning = {"joint", s_[p].name}});
      }
      label(s_[p].name, here, {0.3, 1}, colours_.ink, 50, {"point-name", s_[p].name});
      if (held) reaction(here, p);
    }
    loads(y, room * 0.5);
  }

  // The share of a reaction that stands across the member, as an arrow from below or above.
  void reaction(const Spot& here, PointId p) {
    const Reaction r = reactions_(p);
    const double f = dot(Vector{r.x.si(), r.y.si(), r.z.si()}, up_);
    const Balance& b = balance_;
    const double size = std::abs(b.applied.x.si()) + std::abs(b.applied.y.si()) + std::abs(b.applied.z.si());
    if (std::abs(f) <= 1e-9 * std::max(size, std::abs(f))) return;
    const double far = 3.4 * letter_, near = 1.7 * letter_;
    const Spot tail = here + Spot{0, f > 0 ? far : near}, tip = here + Spot{0, f > 0 ? near : far};
    arrow(tail, tip, colours_.support, {"reaction", s_[p].name});
    label(given(std::abs(f), o_.units.force), here + Spot{0, (far + near) / 2}, {1, 0}, colours_.support, 55,
          {"reaction-value", s_[p].name});
  }

  void each_load(const LoadCase& loads, double factor, auto&& row, auto&& single) const {
    for (const Load& load : loads.loads()) {
      std::vector<ActingLine> rows;
      if (const auto* l = std::get_if<LineLoad>(&load)) rows = {acting(s_, *l)};
      if (const auto* l = std::get_if<SpreadLoad>(&load)) rows = acting(s_, *l);
      if (const auto* l = std::get_if<GravityLoad>(&load)) rows = acting(s_, *l);
      for (const ActingLine& a : rows)
        if (a.on == member_) row(a.from, a.to, dot(a.first, up_) * factor, dot(a.last, up_) * factor);
      if (const auto* l = std::get_if<MemberLoad>(&load); l && l->on == member_)
        single(l->at, dot(acting(s_, *l).force, up_) * factor);
      if (const auto* l = std::get_if<PointLoad>(&load))
        for (std::size_t k = 0; k < s_[member_].through.size(); ++k)
          if (s_[member_].through[k] == l->at) single(s_.place_of(s_[member_], k), dot(l->force, up_) * factor);
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
    const Colour& c = colours_.load;
    const NamedUnit per_length = unit_for(Dimension::of(0, 1, -2), o_.units);
    for (const auto& [from, to, a, b] : rows) {
      if (std::max(std::abs(a), std::abs(b)) < 1e-9 * most_row) continue;
      const int n = std::max(2, static_cast<int>((x(to) - x(from)) / (2.4 * letter_)));
      std::vector<Spot> tails;
      for (int i = 0; i <= n; ++i) {
        const double t = static_cast<double>(i) / n, q = a + (b - a) * t, h = 0.4 * room * q / most_row;
        const Spot foot{x(from + (to - from) * t), y}, tail = foot + Spot{0, h};
        tails.push_back(tail);
        if (std::abs(h) > 0.5 * letter_) arrow(tail, foot, c, {"line-load"});
      }
      line({{x(from), y}, tails.front(), tails.back(), {x(to), y}}, {c, 1.1}, {"line-load"});
      labels_.avoid_line(tails.front(), tails.back());
      const Spot away{0, a + b < 0 ? -1.0 : 1.0};
      if (std::abs(a - b) < 1e-9 * most_row)
        label(given(std::abs(a), per_length), (tails.front() + tails.back()) * 0.5, away, c, 60, {"line-value"});
      else
        for (const auto& [q, at] : {std::pair(a, tails.front()), {b, tails.back()}})
          label(given(std::abs(q), per_length), at, away, c, 60, {"line-value"});
    }
    for (const auto& [at, f] : singles) {
      const double h = room * (0.45 + 0.4 * std::abs(f) / most_single) * (f < 0 ? -1 : 1);
      const Spot foot{x(at), y}, tail = foot + Spot{0, h};
      arrow(tail, foot, c, {"force"});
      label(given(std::abs(f), o_.units.force), tail, {f < 0 ? 0.4 : 0.4, f < 0 ? -1.0 : 1.0}, c, 60, {"force-value"});
    }
  }

  void panel(const Panel& p, double zero, double room) {
    const Extreme max = p.course.max(), min = p.course.min();
    const double most = std::max(std::abs(max.value.si), std::abs(min.value.si));
    const double sign = p.pulled_side ? 1 : -1;
    words(1.6 * letter_, zero - 0.7 * letter_, p.name, letter_, colours_.ink, true, "panel");
    words(1.6 * letter_, zero + 0.7 * letter_, p.unit.text, letter_, colours_.quiet, false, "panel-unit");
    line({{left_, zero}, {right_, zero}}, {colours_.quiet, 1}, {"zero"});
    labels_.avoid_line({left_, zero}, {right_, zero});
    // Nothing but the rounding of figures beside it.
    const bool nothing = most <= p.course.noise() || most == 0;
    if (nothing)
      return words((left_ + right_) / 2, zero - letter_, "0 all along", letter_, colours_.quiet, false, "panel-value",
                   Anchor::middle);
    for (const Diagram::Piece& piece : p.course.pieces()) {
      const int n = std::clamp(static_cast<int>((x(piece.to) - x(piece.from)) / 5), 2, 120);
      std::vector<Spot> curve;
      double sum = 0;
      Path hatch{.lines = {}, .stroke = Stroke{colours_.positive.with(0.45), 0.8}, .meaning = {"hatch"}};
      for (int i = 0; i <= n; ++i) {
        const double along = piece.from + (piece.to - piece.from) * i / n, v = polynomial(piece, along);
        sum += v;
        curve.push_back({x(along), zero + sign * room * v / most});
        if (i % 2 == 0 && std::abs(v) > 1e-9 * most) hatch.lines.push_back({{x(along), zero}, curve.back()});
      }
      for (std::size_t i = 1; i < curve.size(); ++i) labels_.avoid_line(curve[i - 1], curve[i]);
      // Down to the axis where the course begins, ends or jumps.
      const auto leaps = [&](double at) {
        const double before = p.course.at(Length::si(at), Side::before).si, after = p.course.at(Length::si(at)).si;
        return at <= 1e-9 * L() || at >= L() * (1 - 1e-9) || std::abs(after - before) > 1e-6 * most;
      };
      if (leaps(piece.from)) curve.insert(curve.begin(), {x(piece.from), zero});
      if (leaps(piece.to)) curve.push_back({x(piece.to), zero});
      d_.shapes.emplace_back(std::move(hatch));
      line(std::move(curve), {colours_.positive, 1.7}, {p.what, s_[member_].name});
    }
    std::vector<std::pair<double, double>> told;
    const auto tell = [&](double along, double v, int importance, bool with_place) {
      if (std::abs(v) <= 1e-9 * most) return;
      for (const auto& [a, b] : told)
        if (std::abs(a - along) < 1e-9 * L() && std::abs(b - v) <= 1e-6 * most) return;
      told.emplace_back(along, v);
      const Spot tip{x(along), zero + sign * room * v / most};
      std::string text = number(v / p.unit.si, o_.digits);
      if (with_place && along > 1e-9 * L() && along < L() * (1 - 1e-9))
        text += fmt::format(" at {}", short_number(along / o_.units.length.si, 4));
      label(text, tip, {0, sign * v > 0 ? 1.0 : -1.0}, colours_.positive, importance,
            {p.what + "-value", s_[member_].name});
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
    line({{left_, y}, {right_, y}}, {colours_.quiet, 1}, {"axis"});
    const Member& m = s_[member_];
    double last = -1e9;
    for (std::size_t k = 0; k < m.through.size(); ++k) {
      const double at = s_.place_of(m, k), here = x(at);
      line({{here, y - 4}, {here, y + 4}}, {colours_.quiet, 1}, {"axis"});
      if (here - last < 5 * letter_) continue;
      last = here;
      words(here, y + 1.0 * letter_, short_number(at / o_.units.length.si, 5), 0.92 * letter_, colours_.quiet, false,
            "axis-value", Anchor::middle);
    }
    words(1.6 * letter_, y, "x, " + o_.units.length.text, letter_, colours_.quiet, false, "panel");
  }

  const Structure& s_;
  const PictureOptions& o_;
  Palette colours_;
  double letter_, left_ = 0, right_ = 0;
  Labels labels_;
  MemberId member_;
  std::size_t case_;
  std::optional<MemberResult> result_;
  std::function<Reaction(PointId)> reactions_;
  Balance balance_{};
  std::string name_;
  Vector up_{};
  Drawing d_;
};

}  // namespace

Drawing sheet(const Solution& solution, const PictureOptions& options, const Lettering& lettering) {
  return Sheet(solution, options, lettering)();
}

}  // namespace corvex::picture
