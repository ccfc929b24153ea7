#include "document/case_figures.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "document/number.hpp"

namespace corvex::document {
namespace {

std::string point_at(const Structure& s, const Member& m, Length at) {
  const double L = s.length_of(m);
  for (std::size_t k = 0; k < m.through.size(); ++k)
    if (std::abs(s.place_of(m, k) - at.si()) < 1e-9 * L) return s[m.through[k]].name;
  return {};
}

}  // namespace

Cell place_cell(const Structure& s, const Member& m, Length at, const NamedUnit& unit) {
  const bool start = std::abs(at.si()) < 1e-9 * s.length_of(m);
  return {start ? 0 : at.si() / unit.si, point_at(s, m, at)};
}

bool is_internal_force(const MemberFigure& f) {
  return f.kind == MemberFigure::Kind::force || f.kind == MemberFigure::Kind::moment;
}

std::vector<MemberFigure> internal_forces(const Structure& s, const Member& m) {
  std::vector<MemberFigure> all;
  for (const MemberFigure& f : member_figures())
    if (is_internal_force(f) && f.exists_in(s, m.name)) all.push_back(f);
  return all;
}

CaseFigures::CaseFigures(const ModelUnits& units, const Solution& solution, std::size_t index)
    : s_(solution.structure()), u_(units), case_(solution[index]) {
  double stress = 0;
  for (std::size_t i = 0; i < s_.members().size(); ++i) {
    const MemberResult& m = members_.emplace_back(case_[MemberId{i}]);
    const Extreme e = m.movement();
    if (e.value.si > most_.value.si * (1 + noise)) most_ = e, most_member_ = i;
    const Stresses& found = stresses_.emplace_back(Stresses{m.max_stress(), m.min_stress(), m.von_mises()});
    const auto& worst = found.mises;
    if (worst && (!worst_stress_ || worst->value.si() > worst_stress_->value.si() * (1 + noise)))
      worst_stress_ = worst, worst_member_ = i;
    for (const auto* one : {&found.tension, &found.compression, &found.mises})
      if (*one) stress = std::max(stress, std::abs((*one)->value.si()));
  }
  sizes_ = format::sizes_of(s_, case_, members_);
  sizes_.stress = stress;
}

std::vector<std::size_t> CaseFigures::members_by_use() const {
  struct Use {
    double of_strength = 0, stress = 0, force = 0;
  };
  std::vector<Use> use;
  for (std::size_t i = 0; i < members_.size(); ++i) {
    Use& u = use.emplace_back();
    const MemberResult& m = members_[i];
    if (const auto& mises = stresses_[i].mises) {
      u.stress = clean(mises->value.si(), {"", 1}, sizes_.stress);
      if (const auto strength = m.strength()) u.of_strength = u.stress / strength->si();
    } else {
      u.force = m.axial().largest().si();
    }
  }
  const auto more = [](double a, double b) { return a > b * (1 + noise); };
  std::vector<std::size_t> order(members_.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  // Those of symmetric places differ by rounding only and keep the order of the model.
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const Use &x = use[a], &y = use[b];
    if (more(x.of_strength, y.of_strength) || more(y.of_strength, x.of_strength)) return x.of_strength > y.of_strength;
    if (more(x.stress, y.stress) || more(y.stress, x.stress)) return x.stress > y.stress;
    return more(x.force, y.force);
  });
  return order;
}

std::vector<std::size_t> CaseFigures::points_by_movement() const {
  std::vector<double> moves;
  for (std::size_t i = 0; i < s_.points().size(); ++i) {
    const Displacement d = case_.displacement(PointId{i});
    moves.push_back(length(Vector{d.x.si(), d.y.si(), d.z.si()}));
  }
  std::vector<std::size_t> order(moves.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return moves[a] > moves[b] + noise * sizes_.move; });
  return order;
}

std::pair<double, double> CaseFigures::use() const {
  double of_strength = 0;
  for (std::size_t i = 0; i < members_.size(); ++i) {
    if (!stresses_[i].mises) continue;
    const auto safety = members_[i].safety_against(stresses_[i].mises->value);
    if (safety && *safety > 0) of_strength = std::max(of_strength, 1 / *safety);
  }
  return {of_strength, worst_stress_ ? worst_stress_->value.si() : 0};
}

std::string CaseFigures::governing_words(int digits) const {
  std::size_t member = worst_member_;
  double least = 0;
  for (std::size_t i = 0; i < members_.size(); ++i) {
    if (!stresses_[i].mises) continue;
    const auto safety = members_[i].safety_against(stresses_[i].mises->value);
    if (safety && *safety > 0 && (least == 0 || *safety < least * (1 - noise))) least = *safety, member = i;
  }
  const auto& worst = least > 0 ? stresses_[member].mises : worst_stress_;
  if (!worst || !(clean(worst->value.si(), {"", 1}, sizes_.stress) > 0)) return {};
  const MemberResult& m = members_[member];
  const std::string what =
      least > 0 ? "safety factor " + number(least, std::min(digits, 3))
                : fmt::format("stress {} {}", number(worst->value.si() / u_.stress.si, digits), u_.stress.text);
  const std::string where = place_words(m, worst->at, digits);
  return fmt::format("{} of '{}' at {}", what, m.member().name, where);
}

Line CaseFigures::summary(int digits) const {
  Line line{case_.name(), movement_words(digits)};
  if (worst_stress_ && worst_stress_->value.si() > 0) {
    const MemberResult& m = members_[worst_member_];
    line.text +=
        fmt::format("; largest stress {} {} in '{}' at {}", number(worst_stress_->value.si() / u_.stress.si, digits),
                    u_.stress.text, m.member().name, place_words(m, worst_stress_->at, digits));
    if (const auto safety = m.safety()) {
      line.text += fmt::format(" (safety factor {}{}{})", number(*safety, std::min(digits, 3)),
                               m.leaves_out_warping() ? " without warping stress" : "",
                               *safety < 1 ? ": above the strength of the material" : "");
      if (*safety < 1) line.tone = Tone::bad;
    }
  }
  const double error = case_.balance().error;
  line.text +=
      error < 1e-6 ? "; equilibrium satisfied" : fmt::format("; EQUILIBRIUM NOT SATISFIED (error {:.1e})", error);
  if (!(error < 1e-6)) line.tone = Tone::bad;
  constexpr int enough = 6;
  if (const int stand = case_.digits(); stand < enough) {
    line.text += stand == 0 ? "; NO DIGIT OF THE DISPLACEMENTS IS RELIABLE"
                            : fmt::format("; about {} reliable digit{}", stand, stand == 1 ? "" : "s");
    if (line.tone == Tone::plain) line.tone = Tone::warning;
  }
  return line;
}

std::vector<Column> summary_columns(const ModelUnits& u) {
  std::vector<Column> columns{words_column("case"),
                              number_column("largest displacement", u.deflection.text),
                              words_column("largest displacement in"),
                              place_column(u.length.text, "largest displacement at"),
                              number_column("von Mises", u.stress.text),
                              words_column("von Mises in"),
                              place_column(u.length.text, "von Mises at"),
                              number_column("safety factor"),
                              number_column("equilibrium error"),
                              number_column("reliable digits")};
  return columns;
}

std::vector<Cell> CaseFigures::summary_row() const {
  std::vector<Cell> cells{case_.name(), clean(most_.value.si, u_.deflection, 0)};
  if (most_.value.si > 0) {
    const Member& m = members_[most_member_].member();
    cells.insert(cells.end(), {m.name, place_cell(s_, m, most_.at, u_.length)});
  } else {
    cells.resize(cells.size() + 2);
  }
  if (worst_stress_) {
    const MemberResult& m = members_[worst_member_];
    cells.insert(cells.end(), {worst_stress_->value.si() / u_.stress.si, m.member().name,
                               place_cell(s_, m.member(), worst_stress_->at, u_.length)});
    const auto safety = m.safety_against(worst_stress_->value);
    cells.push_back(safety ? Cell(*safety) : Cell());
  } else {
    cells.resize(cells.size() + 4);
  }
  cells.push_back(case_.balance().error);
  cells.push_back(static_cast<double>(case_.digits()));
  return cells;
}

std::string CaseFigures::place_words(const MemberResult& m, Length at, int digits) const {
  const std::string point = point_at(s_, m.member(), at);
  return point.empty() ? short_number(at.si() / u_.length.si, digits) + " " + u_.length.text : "'" + point + "'";
}

std::string CaseFigures::movement_words(int digits) const {
  if (members_.empty() || most_.value.si == 0) return "no displacement";
  const MemberResult& m = members_[most_member_];
  const SectionState s = m.at(most_.at);
  std::string where = "at " + place_words(m, most_.at, digits);
  if (point_at(s_, m.member(), most_.at).empty()) where = "in '" + m.member().name + "' " + where;
  return fmt::format("largest displacement {} {}", component_words({s.x.si(), s.y.si(), s.z.si()}, digits), where);
}

// "9.179 mm down", "3.2 mm down and 2.1 mm to the right, 3.83 mm in all": each component with its own value, the
// largest first, without those that hardly count; the size of all of them where that prints otherwise.
std::string CaseFigures::component_words(const Vector& v, int digits) const {
  struct Part {
    double value;
    std::string words;
  };
  std::vector<Part> parts;
  const bool y_up = s_.up() == Up::y;
  const auto vertical = [](double value) { return value < 0 ? "down" : "up"; };
  const auto along = [&](double value, char axis) { return fmt::format("along {}{}", value < 0 ? "-" : "", axis); };
  parts.push_back({v.x, s_.is_plane() ? (v.x < 0 ? "to the left" : "to the right") : along(v.x, 'x')});
  parts.push_back({v.y, y_up ? vertical(v.y) : along(v.y, 'y')});
  parts.push_back({v.z, y_up ? along(v.z, 'z') : vertical(v.z)});
  std::stable_sort(parts.begin(), parts.end(),
                   [](const Part& a, const Part& b) { return std::abs(a.value) > std::abs(b.value) * (1 + noise); });
  const auto shown = [&](double value) {
    return number(std::abs(value) / u_.deflection.si, digits) + " " + u_.deflection.text;
  };
  constexpr double counts = 0.3;  // of the whole
  std::vector<std::string> words;
  for (const Part& p : parts)
    if (std::abs(p.value) > counts * length(v)) words.push_back(shown(p.value) + " " + p.words);
  const std::string all = shown(length(v));
  std::string text = fmt::format("{}", fmt::join(words, " and "));
  return all == shown(parts.front().value) ? text : text + ", " + all + " in total,";
}

}  // namespace corvex::document
