// Figures of a sweep against what is varied.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "corvex/number.hpp"
#include "picture/pictures.hpp"
#include "picture/series.hpp"

namespace corvex::picture {
namespace {

// A scale from one end of an axis to the other, with ticks at round numbers.
struct Axis {
  double low = 0, high = 1, step = 0.2;

  static Axis over(double low, double high, int ticks) {
    // Values that differ by round-off are equal.
    constexpr double equal = 1e-6;
    const double size = std::max(std::abs(low), std::abs(high));
    if (!(high - low > equal * size)) {
      const double off = size == 0 ? 1 : 0.1 * size;
      low -= off, high += off;
    }
    const double rough = (high - low) / ticks, power = std::pow(10, std::floor(std::log10(rough)));
    double step = 10 * power;
    for (const double factor : {5.0, 2.5, 2.0, 1.0})
      if (factor * power >= rough * (1 - 1e-9)) step = factor * power;
    return {std::floor(low / step + 1e-9) * step, std::ceil(high / step - 1e-9) * step, step};
  }
  double share(double v) const { return (v - low) / (high - low); }
};

// The course of one figure, for one combination of all that is varied but the first.
struct Curve {
  struct Point {
    double x, y;
    bool met;
  };
  std::string name;
  std::vector<Point> points;
  std::vector<std::pair<double, double>> required;  // x and what the limits ask there
  std::vector<double> refused;                      // x of runs without results
};

class SweepPlot : Canvas {
 public:
  SweepPlot(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title, const PictureOptions& o,
            const Lettering& lettering)
      : Canvas(title, o, lettering, 4.6), sweep_(sweep), runs_(runs), x_(sweep.vary.front()), lettering_(lettering) {}

  Drawing operator()() {
    heading(fmt::format("Sweep '{}' against {}{}", sweep_.name, x_.name, together_words()));
    const std::size_t count = sweep_.show.size(), columns = count > 3 ? 2 : 1, rows = (count + columns - 1) / columns;
    const std::size_t curves = curves_of(0).size();
    const double left = 8.5 * letter(), right = (curves > 1 ? 13 : 3) * letter(), top = 5.5 * letter(),
                 foot = 7.2 * letter();
    const double wide = (width() - 0.5 * letter()) / static_cast<double>(columns),
                 high = (height() - top - foot) / static_cast<double>(rows);
    for (std::size_t i = 0; i < count; ++i) {
      const double x = wide * static_cast<double>(i % columns), y = top + high * static_cast<double>(i / columns);
      box_ = {x + left, y + 2 * letter(), x + wide - right, y + high - 2 * letter()};
      panel(i, i + columns >= count);
    }
    if (any_unmet_) explain("Hollow marks: a limit of the model is not met in that run");
    if (any_refused_) explain("Crosses on the axis: that run cannot be solved");
    return finished();
  }

 private:
  std::string together_words() const {
    if (!sweep_.together || sweep_.vary.size() < 2) return {};
    std::string words = "; with it ";
    for (std::size_t i = 1; i < sweep_.vary.size(); ++i) words += (i > 1 ? ", " : "") + sweep_.vary[i].name;
    return words + (sweep_.vary.size() > 2 ? " change" : " changes");
  }
  NamedUnit unit_of(const Varied& v) const {
    return v.unit.empty() ? unit_for(v.values.front().quantity->dimension, units()) : NamedUnit{v.unit, v.unit_si};
  }
  NamedUnit shown_in(const Dimension& d) const {
    return d == dimension::length ? units().deflection : unit_for(d, units());
  }
  // Along the axis: the value in its unit, or the number of the word.
  double x_of(std::size_t pick) const {
    return x_.is_number() ? x_.values[pick].quantity->si / unit_of(x_).si : static_cast<double>(pick);
  }
  std::string value_words(const Varied& v, std::size_t pick) const {
    const SweptValue& value = v.values[pick];
    if (!value.words.empty()) return value.words;
    const NamedUnit u = unit_of(v);
    return short_number(value.quantity->si / u.si, 5) + (u.text.empty() ? "" : " " + u.text);
  }

  // "rail" of "/sections/rail".
  static std::string last_part(const std::string& name) { return name.substr(name.rfind('/') + 1); }

  std::vector<Curve> curves_of(std::size_t figure) const {
    std::map<Picks, std::size_t> known;
    std::vector<Curve> curves;
    for (const SweepRun& r : runs_) {
      const Picks others = sweep_.together ? Picks() : Picks(r.picks.begin() + 1, r.picks.end());
      const auto [at, fresh] = known.try_emplace(others, curves.size());
      if (fresh) {
        Curve& c = curves.emplace_back();
        for (std::size_t i = 0; i < others.size(); ++i)
          c.name += (i > 0 ? ", " : "") + last_part(sweep_.vary[i + 1].name) + " = " +
                    value_words(sweep_.vary[i + 1], others[i]);
      }
      Curve& c = curves[at->second];
      const double x = x_of(r.picks.front());
      if (!r.refused.empty()) c.refused.push_back(x);
      if (figure >= r.shown.size() || !r.shown[figure]) continue;
      const double unit = shown_in(r.shown[figure]->dimension).si;
      c.points.push_back({x, r.shown[figure]->si / unit, r.limits_met.value_or(true)});
      if (const auto& q = r.required[figure]) c.required.emplace_back(x, q->si / unit);
    }
    for (Curve& c : curves) {
      std::stable_sort(c.points.begin(), c.points.end(), [](const auto& a, const auto& b) { return a.x < b.x; });
      std::stable_sort(c.required.begin(), c.required.end());
    }
    return curves;
  }

  std::string unit_text(std::size_t figure) const {
    for (const SweepRun& r : runs_)
      if (figure < r.shown.size() && r.shown[figure]) return shown_in(r.shown[figure]->dimension).text;
    return {};
  }

  Spot at(double x, double y) const {
    return {box_.left + (box_.right - box_.left) * across_.share(x),
            box_.bottom - (box_.bottom - box_.top) * up_.share(y)};
  }

  // Limits of a size count for both signs: they are drawn on the side on which the values lie.
  static void turn_to_values(std::vector<Curve>& curves) {
    double most = 0;
    for (const Curve& c : curves)
      for (const auto& p : c.points)
        if (std::abs(p.y) > std::abs(most)) most = p.y;
    if (most < 0)
      for (Curve& c : curves)
        for (auto& [x, y] : c.required) y = -y;
  }

  void scales(const std::vector<Curve>& curves) {
    double low = 1e300, high = -1e300;
    for (const Curve& c : curves) {
      for (const auto& p : c.points) low = std::min(low, p.y), high = std::max(high, p.y);
      for (const auto& [x, y] : c.required) low = std::min(low, y), high = std::max(high, y);
    }
    if (low > high) low = 0, high = 1;
    // Zero belongs to the picture unless the values are far from it.
    if (low > 0 && low < 0.6 * high) low = 0;
    if (high < 0 && high > 0.6 * low) high = 0;
    const double lines = (box_.bottom - box_.top) / (2.6 * letter());
    up_ = Axis::over(low, high, std::clamp(static_cast<int>(lines), 2, 8));
    if (!x_.is_number()) {
      across_ = {-0.5, static_cast<double>(x_.values.size()) - 0.5, 1};
      return;
    }
    double first = 1e300, last = -1e300;
    for (std::size_t i = 0; i < x_.values.size(); ++i) first = std::min(first, x_of(i)), last = std::max(last, x_of(i));
    across_ = Axis::over(first, last, std::clamp(static_cast<int>((box_.right - box_.left) / (6 * letter())), 2, 10));
  }

  void panel(std::size_t figure, bool lowest) {
    std::vector<Curve> curves = curves_of(figure);
    turn_to_values(curves);
    scales(curves);
    const std::string unit = unit_text(figure);
    words(corvex::words(sweep_.show[figure]) + (unit.empty() ? "" : " [" + unit + "]"),
          {box_.left - 5 * letter(), box_.top - 1.3 * letter()}, colours().ink, {"figure"}, {.bold = true});
    grid();
    limits(figure, curves);
    for (std::size_t i = 0; i < curves.size(); ++i) curve(curves[i], i, curves.size() > 1);
    if (!lowest) return;
    const std::string x_unit = x_.is_number() ? unit_of(x_).text : "";
    words(x_.name + (x_unit.empty() ? "" : " [" + x_unit + "]"),
          {(box_.left + box_.right) / 2, box_.bottom + 3.4 * letter()}, colours().ink, {"axis-name"},
          {.bold = true, .anchor = Anchor::middle});
  }

  void grid() {
    // As many digits as needed to distinguish neighbouring ticks.
    const auto tick = [](double v, double step) {
      const double ratio = std::abs(v) / step;
      const int digits = std::clamp(ratio > 1 ? static_cast<int>(std::ceil(std::log10(ratio))) + 3 : 3, 3, 12);
      return short_number(std::abs(v) < 1e-9 * step ? 0 : v, digits);
    };
    for (double v = up_.low; v <= up_.high + 0.5 * up_.step; v += up_.step) {
      const double y = at(across_.low, v).y;
      line({{box_.left, y}, {box_.right, y}}, {colours().faint, 0.7}, {"grid"});
      words(tick(v, up_.step), {box_.left - 0.7 * letter(), y}, colours().quiet, {"tick"}, {.anchor = Anchor::end});
    }
    if (x_.is_number())
      for (double v = across_.low; v <= across_.high + 0.5 * across_.step; v += across_.step) {
        const double x = at(v, up_.low).x;
        line({{x, box_.top}, {x, box_.bottom}}, {colours().faint, 0.7}, {"grid"});
        words(tick(v, across_.step), {x, box_.bottom + 1.2 * letter()}, colours().quiet, {"tick"},
              {.anchor = Anchor::middle});
      }
    else
      name_values();
    line({{box_.left, box_.top}, {box_.left, box_.bottom}, {box_.right, box_.bottom}}, {colours().quiet, 1.2},
         {"axis"});
    if (up_.low < 0 && up_.high > 0) line({at(across_.low, 0), at(across_.high, 0)}, {colours().quiet, 1}, {"zero"});
  }

  // In two rows by turns where one is too narrow; then only every second, third … of them.
  void name_values() {
    double widest = 0;
    for (std::size_t i = 0; i < x_.values.size(); ++i)
      widest = std::max(widest, lettering_.width(value_words(x_, i), letter(), false));
    const double room = (box_.right - box_.left) / static_cast<double>(x_.values.size());
    const bool two_rows = widest + letter() > room;
    const auto every = static_cast<std::size_t>(std::max(1.0, std::ceil((widest + letter()) / (2 * room))));
    for (std::size_t i = 0; i < x_.values.size(); i += every) {
      const Spot foot = at(static_cast<double>(i), up_.low);
      line({foot, foot + Spot{0, 0.4 * letter()}}, {colours().quiet, 1}, {"tick-line"});
      words(value_words(x_, i), foot + Spot{0, (two_rows && i / every % 2 == 1 ? 2.3 : 1.2) * letter()},
            colours().quiet, {"tick"}, {.anchor = Anchor::middle});
    }
  }

  // The line of a limit, its side that is not allowed shaded.
  void limits(std::size_t figure, const std::vector<Curve>& curves) {
    std::vector<std::vector<std::pair<double, double>>> drawn;
    for (const Curve& c : curves) {
      if (c.required.empty() || std::find(drawn.begin(), drawn.end(), c.required) != drawn.end()) continue;
      drawn.push_back(c.required);
      std::vector<Spot> spots;
      for (const auto& [x, y] : c.required) spots.push_back(at(x, y));
      // Over the whole width, as far as it is level there.
      spots.insert(spots.begin(), Spot{box_.left, spots.front().y});
      spots.push_back(Spot{box_.right, spots.back().y});
      const bool least = sweep_.show[figure].figure.kind == Figure::Kind::safety;
      const bool below = least || c.required.front().second < 0;
      std::vector<Spot> refused = spots;
      refused.push_back({box_.right, below ? box_.bottom : box_.top});
      refused.push_back({box_.left, below ? box_.bottom : box_.top});
      area(std::move(refused), colours().load.with(0.09), {"not-allowed"});
      line(spots, {colours().load, 1.6, {8, 4}}, {"limit"});
      keep_clear(spots.front(), spots.back());
      const std::string unit = unit_text(figure);
      const double value = std::abs(c.required.front().second);
      std::vector<Spot> places;
      for (const double share : {0.85, 0.7, 0.5, 0.3, 0.15})
        places.push_back({box_.left + (box_.right - box_.left) * share,
                          spots.front().y + (spots.back().y - spots.front().y) * share});
      const Spot first = places.front();
      label(fmt::format("{} {}{}", least ? "at least" : "at most", short_number(value, 4),
                        unit.empty() ? "" : " " + unit),
            {first, {0, below ? 1.0 : -1.0}}, colours().load, 2, {"limit-words"}, {false, 4, std::move(places)});
    }
  }

  // Curves differ by colour, dashes and marks.
  void curve(const Curve& c, std::size_t number, bool named) {
    const Series style = series(colours(), number);
    const Meaning meaning{"curve", c.name};
    std::vector<Spot> spots;
    for (const auto& p : c.points) spots.push_back(at(p.x, p.y));
    if (spots.size() > 1) {
      line(spots, {style.colour, 1.8, style.dash}, meaning);
      for (std::size_t i = 0; i + 1 < spots.size(); ++i) keep_clear(spots[i], spots[i + 1]);
    }
    constexpr std::size_t most_marks = 60;
    if (c.points.size() <= most_marks)
      for (std::size_t i = 0; i < spots.size(); ++i) {
        const bool met = c.points[i].met;
        add_mark(*this, style, spots[i], !met, {met ? "run" : "run-not-met", c.name});
      }
    any_unmet_ |= std::any_of(c.points.begin(), c.points.end(), [](const auto& p) { return !p.met; });
    for (const double x : c.refused) {
      any_refused_ = true;
      const Spot foot = at(x, up_.low);
      const double r = 0.4 * letter();
      line({foot + Spot{-r, -r}, foot + Spot{r, r}}, {colours().mark, 1.6}, {"refused", c.name});
      line({foot + Spot{-r, r}, foot + Spot{r, -r}}, {colours().mark, 1.6}, {"refused", c.name});
    }
    if (named && !spots.empty())
      label(c.name, {spots.back(), {1, 0}}, style.colour, 3, {"curve-name", c.name}, {false, 9});
  }

  const Sweep& sweep_;
  const std::vector<SweepRun>& runs_;
  const Varied& x_;
  const Lettering& lettering_;
  Box box_;
  Axis across_, up_;
  bool any_unmet_ = false, any_refused_ = false;
};

}  // namespace

Drawing sweep_plot(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                   const PictureOptions& options, const Lettering& lettering) {
  return SweepPlot(sweep, runs, title, options, lettering)();
}

}  // namespace corvex::picture
