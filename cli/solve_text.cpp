#include "solve_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/envelope.hpp"
#include "hand_text.hpp"
#include "limits_text.hpp"
#include "table.hpp"

namespace corvex::cli {
namespace {

using Align = Table::Align;

// Below this share of its largest neighbour a figure is rounding noise.
constexpr double noise = 1e-9;

class CaseText {
 public:
  CaseText(const Model& model, const Solution& solution, std::size_t index, const Selection& shown, int digits)
      : s_(solution.structure()), u_(model.units), case_(solution[index]), shown_(shown), digits_(digits) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) members_.push_back(case_[MemberId{i}]);
    find_sizes();
  }

  // "bends down 2.778 mm at C; worst stress 74.13 MPa in rail at 1.2 m; reactions balance"
  std::string summary() const {
    std::string text = movement_words();
    if (worst_stress_ && worst_stress_->value.si() > 0) {
      const MemberResult& m = members_[worst_member_];
      text += fmt::format("; worst stress {} {} in {} at {}", show(worst_stress_->value.si(), u_.stress),
                          u_.stress.text, m.member().name, place_words(m, worst_stress_->at));
      if (const auto safety = m.safety())
        text += fmt::format(" (safety {}{})", number(*safety, std::min(digits_, 3)),
                            *safety < 1 ? ": over the limit of the material" : "");
    }
    const double error = case_.balance().error;
    text += error < 1e-6 ? "; reactions balance" : fmt::format("; REACTIONS DO NOT BALANCE (error {:.1e})", error);
    return text;
  }

  std::string tables() const {
    std::string text;
    if (shown_.some_points) text = reactions() + "\n" + movements();
    if (shown_.some_members) text += (text.empty() ? "" : "\n") + inner_forces() + "\n" + stresses();
    return text;
  }

 private:
  std::string show(double si, const NamedUnit& unit) const { return number(si / unit.si, digits_); }
  std::string show(double si, const NamedUnit& unit, double size) const {
    return std::abs(si) < noise * size ? "0" : show(si, unit);
  }

  // The largest figure of each kind, to tell noise from values.
  void find_sizes() {
    Vector low = s_.points().front().position, high = low;
    for (std::size_t i = 0; i < s_.points().size(); ++i) {
      const Displacement d = case_.displacement(PointId{i});
      move_ = std::max({move_, std::abs(d.x.si()), std::abs(d.y.si()), std::abs(d.z.si())});
      turn_ = std::max({turn_, std::abs(d.rx.si()), std::abs(d.ry.si()), std::abs(d.rz.si())});
      const Vector& p = s_.points()[i].position;
      low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
    }
    const double size = length(high - low);
    const auto largest = [](const Diagram& d) {
      return std::max(std::abs(d.max().value.si), std::abs(d.min().value.si));
    };
    for (std::size_t i = 0; i < members_.size(); ++i) {
      const MemberResult& m = members_[i];
      force_ = std::max({force_, largest(m.axial()), largest(m.shear_y()), largest(m.shear_z())});
      moment_ = std::max({moment_, largest(m.torsion()), largest(m.moment_y()), largest(m.moment_z())});
      const Extreme e = m.movement();
      if (e.value.si > most_.value.si * (1 + noise)) most_ = e, most_member_ = i;
      const Stresses& s = stresses_.emplace_back(Stresses{m.max_stress(), m.min_stress(), m.von_mises()});
      const auto& stress = s.mises;
      if (stress && (!worst_stress_ || stress->value.si() > worst_stress_->value.si() * (1 + noise)))
        worst_stress_ = stress, worst_member_ = i;
      for (const auto* n : {&s.tension, &s.compression})
        if (*n) stress_ = std::max(stress_, std::abs((*n)->value.si()));
      if (stress) stress_ = std::max(stress_, stress->value.si());
    }
    const Balance b = case_.balance();
    force_ = std::max({force_, std::abs(b.applied.x.si()), std::abs(b.applied.y.si()), std::abs(b.applied.z.si())});
    move_ = std::max(move_, most_.value.si);
    // Where there is no moment at all, the noise of one is a force's noise times a lever.
    moment_ = std::max(moment_, force_ * size * 1e-3);
    // Under moments alone the noise of a force is theirs over a lever.
    if (size > 0) force_ = std::max(force_, moment_ / size * 1e-3);
    turn_ = std::max(turn_, size > 0 ? move_ / size * 1e-3 : 0);
  }

  // How far along the member, and the point that stands there: "900 B".
  std::string place(const MemberResult& m, Length at) const {
    const bool start = std::abs(at.si()) < 1e-9 * m.length().si();
    const std::string number = start ? "0" : short_number(at.si() / u_.length.si, digits_), point = point_at(m, at);
    return point.empty() ? number : number + " " + point;
  }
  std::string place_words(const MemberResult& m, Length at) const {
    const std::string point = point_at(m, at);
    return point.empty() ? short_number(at.si() / u_.length.si, digits_) + " " + u_.length.text : point;
  }
  std::string point_at(const MemberResult& m, Length at) const {
    for (std::size_t k = 0; k < m.member().through.size(); ++k)
      if (std::abs(s_.place_of(m.member(), k) - at.si()) < 1e-9 * m.length().si())
        return s_[m.member().through[k]].name;
    return {};
  }

  std::string movement_words() const {
    if (members_.empty() || most_.value.si == 0) return "nothing moves";
    const MemberResult& m = members_[most_member_];
    const SectionState s = m.at(most_.at);
    const Vector v{s.x.si(), s.y.si(), s.z.si()};
    std::string where = "at " + place_words(m, most_.at);
    if (point_at(m, most_.at).empty()) where = "in " + m.member().name + " " + where;
    return fmt::format("moves {} {} {} {}", show(most_.value.si, u_.deflection), u_.deflection.text, direction(v),
                       where);
  }

  // Up and down, right and left in the plane; in space along an axis where that is nearly the direction.
  std::string direction(const Vector& v) const {
    const double size = length(v), up = dot(v, s_.up_direction());
    constexpr double nearly = 0.94;  // within 20°
    const std::string vertical = up < 0 ? "down" : "up", sideways = v.x < 0 ? "to the left" : "to the right";
    if (std::abs(up) > nearly * size) return vertical;
    if (s_.is_plane()) {
      if (std::abs(v.x) > nearly * size) return sideways;
      return std::abs(up) > std::abs(v.x) ? vertical + " and " + sideways : sideways + " and " + vertical;
    }
    const double parts[] = {v.x, v.y, v.z};
    for (int i = 0; i < 3; ++i)
      if (std::abs(parts[i]) > nearly * size) return fmt::format("along {}{}", parts[i] < 0 ? "-" : "", "xyz"[i]);
    const auto share = [&](double part) { return std::abs(part) < 0.005 * size ? 0.0 : part / size; };
    return fmt::format("along ({:.2f}, {:.2f}, {:.2f})", share(v.x), share(v.y), share(v.z));
  }

  std::string reactions() const {
    static constexpr const char* heads[] = {"Fx", "Fy", "Fz", "Mx", "My", "Mz"};
    // All forces; of the moments those that some support holds.
    std::vector<std::size_t> shown{0, 1};
    if (!s_.is_plane()) shown.push_back(2);
    for (std::size_t k = s_.is_plane() ? 5 : 3; k < 6; ++k)
      if (std::any_of(s_.supports().begin(), s_.supports().end(), [&](const PointSupport& p) { return p.gives(k); }))
        shown.push_back(k);
    std::vector<Table::Column> columns = {{"point", "", Align::left}};
    for (const std::size_t k : shown) columns.push_back({heads[k], (k < 3 ? u_.force : u_.moment).text});
    Table t(columns);
    const auto row = [&](const std::string& name, const Reaction& r, const auto& gives) {
      const double six[] = {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()};
      std::vector<std::string> cells{name};
      for (const std::size_t k : shown)
        cells.push_back(!gives(k) ? "" : k < 3 ? show(six[k], u_.force, force_) : show(six[k], u_.moment, moment_));
      t.row(std::move(cells));
    };
    for (const PointSupport& p : s_.supports())
      if (shown_.points[p.at.index])
        row(s_[p.at].name, case_.reaction(p.at), [&](std::size_t k) { return p.gives(k); });
    const Balance b = case_.balance();
    const auto forces = [](std::size_t k) { return k < 3; };
    row("sum", b.reacted, forces);
    row("loads", b.applied, forces);
    return "Reactions\n" + t.text();
  }

  std::string movements() const {
    const bool plane = s_.is_plane();
    const std::string& l = u_.deflection.text;
    std::vector<Table::Column> columns = {{"point", "", Align::left}, {"x", l}, {"y", l}};
    if (!plane) columns.push_back({"z", l});
    if (!plane) columns.push_back({"about x", u_.angle.text}), columns.push_back({"about y", u_.angle.text});
    columns.push_back({"about z", u_.angle.text});
    Table t(columns);
    for (std::size_t i = 0; i < s_.points().size(); ++i) {
      if (!shown_.points[i]) continue;
      const Displacement d = case_.displacement(PointId{i});
      std::vector<std::string> cells{s_.points()[i].name};
      const double m[] = {d.x.si(), d.y.si(), d.z.si()}, r[] = {d.rx.si(), d.ry.si(), d.rz.si()};
      for (int k = 0; k < (plane ? 2 : 3); ++k) cells.push_back(show(m[k], u_.deflection, move_));
      if (case_.turns(PointId{i}))
        for (int k = plane ? 2 : 0; k < 3; ++k) cells.push_back(show(r[k], u_.angle, turn_));
      t.row(std::move(cells));
    }
    return "Movements\n" + t.text();
  }

  std::string inner_forces() const {
    Table t({{"member", "", Align::left},
             {"", "", Align::left},
             {"unit", "", Align::left},
             {"max", ""},
             {"at", u_.length.text},
             {"min", ""},
             {"at", u_.length.text},
             {"", "", Align::left}});
    for (std::size_t i = 0; i < members_.size(); ++i) {
      if (!shown_.members[i]) continue;
      const MemberResult& m = members_[i];
      std::string name = m.member().name;
      const auto row = [&](const char* symbol, const Diagram& d, const NamedUnit& unit, double size,
                           const std::string& words = "") {
        const Extreme high = d.max(), low = d.min();
        const bool nothing = std::max(std::abs(high.value.si), std::abs(low.value.si)) <= noise * size;
        if (nothing)
          t.row({name, symbol, unit.text, "0", "", "0", "", words == "slack" ? words : ""});
        else
          t.row({name, symbol, unit.text, show(high.value.si, unit, size), place(m, high.at),
                 show(low.value.si, unit, size), place(m, low.at), words});
        name.clear();
      };
      const Diagram axial = m.axial();
      const bool link = m.member().kind == MemberKind::link;
      const bool pulled = axial.min().value.si >= 0, pushed = axial.max().value.si <= 0;
      const bool told = link || m.member().acts != Acts::always;
      row("N", axial, u_.force, force_,
          !told          ? ""
          : m.is_slack() ? "slack"
          : pulled       ? "tension"
          : pushed       ? "compression"
                         : "");
      if (link) continue;
      const bool plane = s_.is_plane();
      // In the plane only those exist that the member's axes leave in it.
      const bool y_in_plane = !plane || std::abs(local_axes(s_, m.member()).y.z) < 0.99;
      const bool z_in_plane = !plane || std::abs(local_axes(s_, m.member()).z.z) < 0.99;
      if (y_in_plane) row("Vy", m.shear_y(), u_.force, force_);
      if (z_in_plane) row("Vz", m.shear_z(), u_.force, force_);
      if (!plane) row("T", m.torsion(), u_.moment, moment_);
      if (z_in_plane) row("My", m.moment_y(), u_.moment, moment_);
      if (y_in_plane) row("Mz", m.moment_z(), u_.moment, moment_);
    }
    return "Inner forces\n" + t.text();
  }

  std::string stresses() const {
    const std::string& l = u_.length.text;
    Table t({{"member", "", Align::left},
             {"tension", u_.stress.text},
             {"at", l},
             {"compression", u_.stress.text},
             {"at", l},
             {"von Mises", u_.stress.text},
             {"at", l},
             {"safety", ""},
             {"sag", u_.deflection.text},
             {"at", l}});
    for (std::size_t i = 0; i < members_.size(); ++i) {
      if (!shown_.members[i]) continue;
      const MemberResult& m = members_[i];
      const Stresses& found = stresses_[i];
      std::vector<std::string> cells{m.member().name};
      const auto add = [&](double value, const NamedUnit& unit, double size, Length at) {
        cells.push_back(show(value, unit, size));
        cells.push_back(cells.back() == "0" ? "" : place(m, at));
      };
      const auto stress = [&](const std::optional<StressExtreme>& s, double side) {
        if (!s) return (void)cells.insert(cells.end(), {"–", ""});
        // No tension anywhere is no tension, not the least compression.
        add(s->value.si() * side > 0 || side == 0 ? s->value.si() : 0, u_.stress, stress_, s->at);
      };
      stress(found.tension, 1);
      stress(found.compression, -1);
      stress(found.mises, 0);
      const auto safety = found.mises ? m.safety_against(found.mises->value) : std::nullopt;
      const bool stressed = found.mises && show(found.mises->value.si(), u_.stress, stress_) != "0";
      cells.push_back(safety && stressed ? number(*safety, std::min(digits_, 3)) : "–");
      const Extreme sag = m.sag();
      add(sag.value.si, u_.deflection, move_, sag.at);
      t.row(std::move(cells));
    }
    return "Stress, safety against yield, and sag from the chord\n" + t.text();
  }

  const Structure& s_;
  const ModelUnits& u_;
  CaseResult case_;
  const Selection& shown_;
  int digits_;
  std::vector<MemberResult> members_;
  struct Stresses {
    std::optional<StressExtreme> tension, compression, mises;
  };
  std::vector<Stresses> stresses_;  // of each member; found once, they take the most time of all
  double force_ = 0, moment_ = 0, move_ = 0, turn_ = 0, stress_ = 0;
  Extreme most_{};
  std::size_t most_member_ = 0;
  std::optional<StressExtreme> worst_stress_;
  std::size_t worst_member_ = 0;
};

// The worst of the cases that are shown, member after member.
std::string envelope_text(const Model& model, const Solution& solution, const Selection& shown, int digits) {
  const Structure& s = solution.structure();
  const ModelUnits& u = model.units;
  Table t({{"member", "", Align::left},
           {"", "", Align::left},
           {"unit", "", Align::left},
           {"max", ""},
           {"at", u.length.text},
           {"in", "", Align::left},
           {"min", ""},
           {"at", u.length.text},
           {"in", "", Align::left}});
  struct Line {
    const char* symbol;
    const Range& range;
    const NamedUnit& unit;
  };
  std::vector<MemberEnvelope> all;
  double force = 0, moment = 0;
  const auto size = [](const Range& r) { return std::max(std::abs(r.max.value.si), std::abs(r.min.value.si)); };
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const MemberEnvelope& e = all.emplace_back(envelope(solution, MemberId{i}));
    force = std::max({force, size(e.axial), size(e.shear_y), size(e.shear_z)});
    moment = std::max({moment, size(e.torsion), size(e.moment_y), size(e.moment_z)});
  }
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (!shown.members[i]) continue;
    const MemberEnvelope& e = all[i];
    std::string name = s.members()[i].name;
    const double L = s.length_of(s.members()[i]);
    const auto row = [&](const Line& l, double largest) {
      const auto value = [&](const GoverningExtreme& x) {
        return std::abs(x.value.si) <= noise * largest ? "0" : number(x.value.si / l.unit.si, digits);
      };
      const auto at = [&](const GoverningExtreme& x) {
        return std::abs(x.at.si()) < 1e-9 * L ? "0" : short_number(x.at.si() / u.length.si, digits);
      };
      if (size(l.range) <= noise * largest) return t.row({name, l.symbol, l.unit.text, "0", "", "", "0"}), name.clear();
      t.row({name, l.symbol, l.unit.text, value(l.range.max), at(l.range.max), l.range.max.load_case,
             value(l.range.min), at(l.range.min), l.range.min.load_case});
      name.clear();
    };
    row({"N", e.axial, u.force}, force);
    if (s.members()[i].kind == MemberKind::link) continue;
    const bool plane = s.is_plane();
    const Axes axes = local_axes(s, s.members()[i]);
    const bool y_in_plane = !plane || std::abs(axes.y.z) < 0.99, z_in_plane = !plane || std::abs(axes.z.z) < 0.99;
    if (y_in_plane) row({"Vy", e.shear_y, u.force}, force);
    if (z_in_plane) row({"Vz", e.shear_z, u.force}, force);
    if (!plane) row({"T", e.torsion, u.moment}, moment);
    if (z_in_plane) row({"My", e.moment_y, u.moment}, moment);
    if (y_in_plane) row({"Mz", e.moment_z, u.moment}, moment);
  }
  return "Inner forces\n" + t.text();
}

std::string signs(const Structure& s) {
  std::string text =
      "Signs: N + is tension. M + has tension on the member's -y side (below, where its y points up); V = dM/dx.\n"
      "Places count from the member's first point. Reactions act on the structure; their sum and the loads cancel.\n"
      "Movements go along the global axes, turns are ";
  text += s.is_plane() ? "counter-clockwise.\n" : "right-handed about them.\n";
  return text;
}

}  // namespace

std::string solve_text(const Model& model, const Solution& solution, const Verification& hand, const LimitCheck& limits,
                       const Selection& shown, int digits) {
  const Structure& s = solution.structure();
  const auto count = [](std::size_t n, const char* what) { return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s"); };
  std::string text = fmt::format("{}\n{}, {}, {}, {} {}\n", s.title(), s.is_plane() ? "plane" : "space",
                                 count(s.points().size(), "point"), count(s.members().size(), "member"),
                                 number(s.mass().si() / model.units.mass.si, digits), model.units.mass.text);
  for (const Problems* notes : {&model.notes, &solution.notes(), &limits.notes})
    for (const Problem& p : model.located(*notes)) text += describe(p) + "\n";
  text += "\n";
  std::vector<CaseText> cases;
  std::size_t widest = 0;
  for (const std::size_t i : shown.cases) {
    cases.emplace_back(model, solution, i, shown, digits);
    widest = std::max(widest, width(solution[i].name()));
  }
  for (std::size_t i = 0; i < cases.size(); ++i) {
    const std::string& name = solution[shown.cases[i]].name();
    text += fmt::format("{}:{} {}\n", name, std::string(widest - width(name), ' '), cases[i].summary());
  }
  const bool whole = shown.some_members && shown.some_points;
  if (whole && !limits.verdicts.empty()) text += "\n" + limits_text(limits, model.units, digits);
  for (std::size_t i = 0; i < cases.size(); ++i) {
    text += fmt::format("\n== {} ==\n\n", solution[shown.cases[i]].name());
    text += cases[i].tables();
  }
  // The envelope is of all that is judged: beside a choice of cases it would be read as theirs.
  if (shown.some_members && shown.cases.size() > 1 && shown.cases == solution.judged())
    text += "\n== envelope ==\n\n" + envelope_text(model, solution, shown, digits);
  text += "\n" + signs(s);
  if (whole && !hand.comparisons.empty()) text += "\n" + hand_text(hand, model.units, digits);
  return text;
}

}  // namespace corvex::cli
