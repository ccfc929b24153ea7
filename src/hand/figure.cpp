#include "hand/figure.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/figures.hpp"
#include "corvex/modes.hpp"
#include "corvex/number.hpp"

namespace corvex {

namespace {

// The kinds that are figures along a member, as result/figures.cpp names them.
constexpr std::pair<Figure::Kind, const char*> along_member[] = {{Figure::Kind::axial, "axial"},
                                                                 {Figure::Kind::shear_y, "shear_y"},
                                                                 {Figure::Kind::shear_z, "shear_z"},
                                                                 {Figure::Kind::torsion, "torsion"},
                                                                 {Figure::Kind::moment_z, "moment_z"},
                                                                 {Figure::Kind::moment_y, "moment_y"},
                                                                 {Figure::Kind::deflection_y, "deflection_y"},
                                                                 {Figure::Kind::deflection_z, "deflection_z"}};

const MemberFigure* member_figure(Figure::Kind kind) {
  for (const auto& [known, name] : along_member)
    if (known == kind) return find_member_figure(name);
  return nullptr;
}

std::vector<FigureKind> make_figure_kinds() {
  using Kind = Figure::Kind;
  using Of = FigureKind::Of;
  std::vector<FigureKind> all = {{"reaction", Kind::reaction, Of::point},
                                 {"displacement", Kind::displacement, Of::point},
                                 {"rotation", Kind::rotation, Of::point}};
  for (const auto& [kind, name] : along_member) {
    // The word without an axis means the local x–y plane, and is the one by which the kind is shown.
    const char* plain = kind == Kind::shear_y        ? "shear"
                        : kind == Kind::moment_z     ? "moment"
                        : kind == Kind::deflection_y ? "deflection"
                                                     : nullptr;
    if (plain) all.push_back({plain, kind, Of::member});
    all.push_back({member_figure(kind)->word, kind, Of::member});
  }
  all.push_back({"sag", Kind::sag, Of::member});
  all.push_back({"stress", Kind::stress, Of::member});
  all.push_back({"safety", Kind::safety, Of::member});
  all.push_back({"mass", Kind::mass, Of::total});
  all.push_back({"frequency", Kind::frequency, Of::mode});
  all.push_back({"buckling", Kind::buckling, Of::mode});
  return all;
}

}  // namespace

const std::vector<FigureKind>& figure_kinds() {
  static const std::vector<FigureKind> all = make_figure_kinds();
  return all;
}

}  // namespace corvex

namespace corvex {

Dimension figure_dimension(const Figure& figure) {
  return hand::dimension_of(figure);
}

}  // namespace corvex

namespace corvex::hand {
namespace {

using Kind = Figure::Kind;

const char* part_words[] = {"", " x", " y", " z", " mx", " my", " mz"};
const char* take_words[] = {"", " size", " max", " min", " start", " end"};

Quantity part_of(const Figure& f, const std::array<double, 6>& six, const Dimension& first) {
  if (f.part == Part::size) return {std::hypot(six[0], six[1], six[2]), first};
  return {six[static_cast<std::size_t>(f.part) - 1], f.part < Part::mx ? first : dimension::moment};
}

Quantity along(const Diagram& d, const Figure& f, const Target& t, Length length, double hand) {
  if (t.at) return d.at(*t.at);
  switch (f.take) {
    case Take::max: return d.max().value;
    case Take::min: return d.min().value;
    case Take::start: return d.at(Length());
    case Take::end: return d.at(length);
    case Take::extreme:
    case Take::size: break;
  }
  const Quantity high = d.max().value, low = d.min().value;
  if (f.take == Take::size) return {std::max(std::abs(high.si), std::abs(low.si)), high.dimension};
  constexpr double alike = 1e-9;
  const double difference = std::abs(high.si) - std::abs(low.si);
  const bool same_size = std::abs(difference) <= alike * std::max(std::abs(high.si), std::abs(low.si));
  return same_size ? (hand < 0 ? low : high) : difference > 0 ? high : low;
}

std::optional<Quantity> stress(const MemberResult& m, const Figure& f, const Target& t) {
  std::optional<Length> at = t.at;
  if (f.take == Take::start) at = Length();
  if (f.take == Take::end) at = m.length();
  const auto high = at ? m.max_stress_at(*at) : m.max_stress(), low = at ? m.min_stress_at(*at) : m.min_stress();
  if (!high || !low) return std::nullopt;
  if (f.take == Take::max) return high->value;
  if (f.take == Take::min) return low->value;
  return Quantity(std::max(std::abs(high->value.si()), std::abs(low->value.si())), dimension::stress);
}

std::optional<Quantity> safety(const MemberResult& m, const Target& t) {
  const auto worst = t.at ? m.von_mises_at(*t.at) : m.von_mises();
  const auto value = worst ? m.safety_against(worst->value) : std::nullopt;
  return value ? std::optional(Quantity(*value, dimension::number)) : std::nullopt;
}

Quantity sag(const MemberResult& m, const Figure& f, const Target& t) {
  if (t.at) return m.sag_at(*t.at);
  // Both ends lie on the chord.
  if (f.take == Take::min || f.take == Take::start || f.take == Take::end) return Length();
  return m.sag().value;
}

}  // namespace

const FigureKind& describe_kind(Kind kind) {
  return *std::find_if(figure_kinds().begin(), figure_kinds().end(),
                       [&](const FigureKind& k) { return k.kind == kind; });
}

Dimension dimension_of(const Figure& f) {
  switch (f.kind) {
    case Kind::reaction: return f.part < Part::mx ? dimension::force : dimension::moment;
    case Kind::displacement: return dimension::length;
    case Kind::rotation: return dimension::angle;
    case Kind::sag: return dimension::length;
    case Kind::stress: return dimension::stress;
    case Kind::safety: return dimension::number;
    case Kind::mass: return dimension::mass;
    case Kind::frequency: return Frequency::dimension();
    case Kind::buckling: return dimension::number;
    default: return member_figure(f.kind)->dimension();
  }
}

std::string words(const Figure& f) {
  const FigureKind& kind = describe_kind(f.kind);
  std::string text = kind.name;
  if (kind.of == FigureKind::Of::total) return text + " total";
  if (kind.of == FigureKind::Of::mode) return text + " of mode " + f.of;
  text += " " + f.of;
  if (kind.of == FigureKind::Of::point) return text + part_words[static_cast<std::size_t>(f.part)];
  text += take_words[static_cast<std::size_t>(f.take)];
  if (f.at) text += " at " + (f.at->value ? short_number(f.at->value->si, 6) + " m" : f.at->text);
  return text;
}

bool is_taken_before(const Figure& f, double value, double other) {
  if (f.kind == Kind::safety || f.kind == Kind::buckling) return value < other;
  if (f.take == Take::max) return value > other;
  if (f.take == Take::min) return value < other;
  return std::abs(value) > std::abs(other);
}

namespace {

std::optional<Quantity> of_member(const MemberResult& m, const Figure& f, const Target& t, double hand) {
  if (const MemberFigure* figure = member_figure(f.kind)) return along(figure->diagram(m), f, t, m.length(), hand);
  if (f.kind == Kind::sag) return sag(m, f, t);
  return f.kind == Kind::safety ? safety(m, t) : stress(m, f, t);
}

}  // namespace

std::optional<Quantity> computed(const CaseResult& c, const Figure& f, const Target& t, double hand) {
  switch (f.kind) {
    case Kind::reaction: {
      const Reaction r = c.reaction(t.point);
      return part_of(f, {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()}, dimension::force);
    }
    case Kind::displacement: {
      const Displacement d = c.displacement(t.point);
      return part_of(f, {d.x.si(), d.y.si(), d.z.si()}, dimension::length);
    }
    case Kind::rotation: {
      const Displacement d = c.displacement(t.point);
      return part_of(f, {d.rx.si(), d.ry.si(), d.rz.si()}, dimension::angle);
    }
    case Kind::mass:
    case Kind::frequency:
    case Kind::buckling: return std::nullopt;
    default: break;
  }
  if (t.all_members == 0) return of_member(c[t.member], f, t, hand);
  std::optional<Quantity> taken;
  for (std::size_t i = 0; i < t.all_members; ++i)
    if (const auto value = of_member(c[MemberId{i}], f, t, hand);
        value && (!taken || is_taken_before(f, value->si, taken->si)))
      taken = value;
  return taken;
}

bool is_of_case(Kind kind) {
  return kind != Kind::mass && kind != Kind::frequency;
}

std::optional<Quantity> computed(const Solution& solution, std::size_t load_case, const Figure& f, const Target& t,
                                 double hand) {
  if (f.kind == Kind::mass) {
    const auto mass = solution.structure().mass();
    return mass ? std::optional(Quantity(*mass)) : std::nullopt;
  }
  if (f.kind == Kind::frequency) {
    const auto found =
        modes(solution, {.vibration = t.mode, .under = t.stressed ? solution[load_case].name() : std::string()});
    if (!found || found->vibration.size() < t.mode) return std::nullopt;
    return Quantity(found->vibration[t.mode - 1].frequency);
  }
  if (f.kind == Kind::buckling) {
    const auto found = modes(solution, {.buckling = {{solution[load_case].name(), t.mode}}});
    if (found && found->buckling.front().is_mechanism) return Quantity(0, dimension::number);
    if (!found || found->buckling.front().modes.size() < t.mode) return std::nullopt;
    return Quantity(found->buckling.front().modes[t.mode - 1].factor, dimension::number);
  }
  return computed(solution[load_case], f, t, hand);
}

}  // namespace corvex::hand
