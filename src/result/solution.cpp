#include "corvex/solution.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "analysis/balance.hpp"
#include "analysis/reusable.hpp"
#include "corvex/number.hpp"
#include "inspect/description.hpp"
#include "result/critical.hpp"
#include "result/data.hpp"
#include "result/inner.hpp"
#include "result/notes.hpp"
#include "result/polynomial.hpp"
#include "result/stress.hpp"
#include "result/stretches.hpp"
#include "result/warping_stress.hpp"

namespace corvex {
namespace {

using solver::CoursePiece;
using solver::Polynomial;

// The quantities of a course that a diagram can show.
constexpr Polynomial CoursePiece::*quantities[] = {
    &CoursePiece::N, &CoursePiece::Vy, &CoursePiece::Vz, &CoursePiece::T,       &CoursePiece::My,     &CoursePiece::Mz,
    &CoursePiece::u, &CoursePiece::v,  &CoursePiece::w,  &CoursePiece::slope_y, &CoursePiece::slope_z};

[[noreturn]] void missing(const char* what, std::string_view name) {
  throw std::out_of_range("corvex: there is no " + std::string(what) + " '" + std::string(name) + "'");
}

const result::Data& present(const std::shared_ptr<const result::Data>& data) {
  if (!data) throw std::out_of_range("corvex: the structure was refused; it has no results");
  return *data;
}

}  // namespace

MemberResult::MemberResult(std::shared_ptr<const result::Data> data, std::size_t load_case, std::size_t member)
    : data_(std::move(data)),
      case_(load_case),
      member_(member),
      inner_(std::make_shared<result::Inner>(result::inner(data_->structure, data_->analysis, case_, member_))) {}

const Member& MemberResult::member() const& {
  return data_->structure.members()[member_];
}
Length MemberResult::length() const {
  return Length::si(inner_->length);
}

std::optional<Stress> MemberResult::strength() const {
  const Structure& s = data_->structure;
  return s.material_of(member()).strength(s.section_of(member()).thickness());
}

bool MemberResult::is_slack() const {
  return data_->analysis.element(case_, data_->analysis.system.spans.first[member_]).is_slack();
}

Diagram MemberResult::diagram(Dimension d, double noise, std::size_t quantity) const {
  std::vector<Diagram::Piece> pieces;
  pieces.reserve(inner_->pieces.size());
  for (const CoursePiece& p : inner_->pieces) pieces.push_back({p.from, p.to, (p.*quantities[quantity]).c});
  return Diagram(d, std::move(pieces), noise);
}

ForceDiagram MemberResult::axial() const {
  return ForceDiagram(diagram(dimension::force, inner_->force_noise, 0));
}
ForceDiagram MemberResult::shear_y() const {
  return ForceDiagram(diagram(dimension::force, inner_->force_noise, 1));
}
ForceDiagram MemberResult::shear_z() const {
  return ForceDiagram(diagram(dimension::force, inner_->force_noise, 2));
}
MomentDiagram MemberResult::torsion() const {
  return MomentDiagram(diagram(dimension::moment, inner_->moment_noise, 3));
}
MomentDiagram MemberResult::moment_y() const {
  return MomentDiagram(diagram(dimension::moment, inner_->moment_noise, 4));
}
MomentDiagram MemberResult::moment_z() const {
  return MomentDiagram(diagram(dimension::moment, inner_->moment_noise, 5));
}
LengthDiagram MemberResult::deflection_x() const {
  return LengthDiagram(diagram(dimension::length, inner_->movement_noise, 6));
}
LengthDiagram MemberResult::deflection_y() const {
  return LengthDiagram(diagram(dimension::length, inner_->movement_noise, 7));
}
LengthDiagram MemberResult::deflection_z() const {
  return LengthDiagram(diagram(dimension::length, inner_->movement_noise, 8));
}
AngleDiagram MemberResult::rotation_y() const {
  std::vector<Diagram::Piece> pieces = diagram(Angle::dimension(), 0, 10).pieces();
  for (Diagram::Piece& p : pieces)
    for (double& c : p.powers) c = -c;
  return AngleDiagram(Diagram(Angle::dimension(), std::move(pieces), inner_->movement_noise / inner_->length));
}
AngleDiagram MemberResult::rotation_z() const {
  return AngleDiagram(diagram(Angle::dimension(), inner_->movement_noise / inner_->length, 9));
}

namespace {

// A straight line along the member.
struct Chord {
  double start = 0, slope = 0;
};

// Largest of √(a² + b² + c²) along the pieces between two places, each component less a chord.
Extreme largest_size(const result::Inner& inner, const std::array<Polynomial CoursePiece::*, 3>& parts,
                     const std::array<Chord, 3>& chords, std::size_t count, double from, double to) {
  result::Best best;
  for (const CoursePiece& p : inner.pieces) {
    const double begin = std::max(from - p.from, 0.0), end = std::min(to, p.to) - p.from;
    if (end < begin) continue;
    result::Coefficients square;
    for (std::size_t i = 0; i < count; ++i) {
      Polynomial q = p.*parts[i];
      q.c[0] -= chords[i].start + chords[i].slope * p.from;
      q.c[1] -= chords[i].slope;
      square = result::sum(square, result::product(q.c, q.c));
    }
    const auto offer = [&](double s) { best.offer(p.from + s, std::sqrt(std::max(result::value(square, s), 0.0))); };
    offer(begin);
    for (const double s : result::sign_changes(result::derivative(square), p.to - p.from))
      if (s > begin && s < end) offer(s);
    offer(end);
  }
  const result::Candidate c = best.take(inner.movement_noise);
  return {Quantity(c.value, dimension::length), Length::si(c.at)};
}

double at_place(const result::Inner& inner, Polynomial CoursePiece::*part, double x) {
  const CoursePiece& p = inner.pieces[result::piece_at(inner.pieces, x, Side::after)];
  return (p.*part)(std::clamp(x, p.from, p.to) - p.from);
}

Chord chord(const result::Inner& inner, Polynomial CoursePiece::*part, double from, double to) {
  const double a = at_place(inner, part, from), b = at_place(inner, part, to), slope = (b - a) / (to - from);
  return {a - slope * from, slope};
}

}  // namespace

Extreme MemberResult::sag_between(Length from, Length to) const {
  const double a = place_on_member(from), b = place_on_member(to);
  if (!(a < b)) throw std::invalid_argument("corvex: the chord of a member is from one place to a later one");
  return largest_size(*inner_, {&CoursePiece::v, &CoursePiece::w, nullptr},
                      {chord(*inner_, &CoursePiece::v, a, b), chord(*inner_, &CoursePiece::w, a, b)}, 2, a, b);
}

std::vector<Stretch> MemberResult::stretches() const {
  std::vector<Stretch> all = result::readings(*data_, MemberId{member_}, case_);
  for (Stretch& s : all)
    if (s.reading == Stretch::Reading::chord)
      s.sag = sag_between(s.from, s.to);
    else
      s.sag = result::difference(*inner_, s.from, s.to);
  return all;
}

Stretch MemberResult::governing_stretch() const {
  const Structure& s = data_->structure;
  const Member& m = member();
  std::vector<Stretch> chords, all;
  for (const Stretch& one : result::readings(*data_, MemberId{member_}, case_)) {
    if (one.reading == Stretch::Reading::chord) {
      chords.push_back(one);
      continue;
    }
    all.push_back(one);
    all.back().sag = result::difference(*inner_, one.from, one.to);
  }
  constexpr std::size_t few = 6;
  if (chords.size() <= few) {
    for (Stretch& one : chords) one.sag = sag_between(one.from, one.to), all.push_back(one);
    return result::worst(all);
  }
  // Of many pairs only those are evaluated whose upper bound could be worse than the worst so far.
  std::vector<double> places, local;
  for (std::size_t k = 0; k < m.through.size(); ++k)
    places.push_back(k + 1 == m.through.size() ? inner_->length : s.place_of(m, k));
  for (std::size_t k = 0; k + 1 < places.size(); ++k)
    local.push_back(sag_between(Length::si(places[k]), Length::si(places[k + 1])).value.si);
  const result::ChordBounds bounds(*inner_, places, local);
  std::vector<std::pair<double, std::size_t>> order;
  for (std::size_t i = 0; i < chords.size(); ++i)
    order.emplace_back(bounds.bound(chords[i].first, chords[i].last) / (chords[i].to - chords[i].from).si(), i);
  std::stable_sort(order.begin(), order.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
  double worst = 0;
  for (const Stretch& one : all) worst = std::max(worst, one.ratio());
  constexpr double rounding = 1e-6;
  for (const auto& [bound, i] : order) {
    if (bound < worst * (1 - rounding) && !all.empty()) break;
    chords[i].sag = sag_between(chords[i].from, chords[i].to);
    worst = std::max(worst, chords[i].ratio());
    all.push_back(chords[i]);
  }
  return result::worst(all);
}

Stretch MemberResult::drift() const {
  std::vector<Stretch> all = result::drift_pairs(*data_, MemberId{member_}, case_);
  for (Stretch& s : all) s.sag = result::difference(*inner_, s.from, s.to);
  return result::worst(all);
}

double MemberResult::place_on_member(Length place) const {
  const double x = place.si(), end = inner_->length;
  constexpr double rounding = 1e-9;
  if (!(x >= -rounding * end && x <= end * (1 + rounding)))
    throw std::out_of_range("corvex: " + short_number(x, 6) + " m is not on the member, which is " +
                            short_number(end, 6) + " m long");
  return std::clamp(x, 0.0, end);
}

Length MemberResult::sag_at(Length place) const {
  const double x = place_on_member(place);
  std::vector<Stretch> here = stretches();
  std::erase_if(here, [&](const Stretch& s) { return x < s.from.si() || x > s.to.si(); });
  if (here.empty()) return Length();
  const Stretch s = result::worst(here);
  const double a = s.from.si(), b = s.to.si();
  const SectionState state = at(place);
  if (s.reading != Stretch::Reading::chord) {
    // Against the end of the pair that moves less.
    const double root = result::root_of(*inner_, s.from, s.to);
    return Length::si(
        result::difference(*inner_, Length::si(std::min(root, x)), Length::si(std::max(root, x))).value.si);
  }
  const Chord y = chord(*inner_, &CoursePiece::v, a, b), z = chord(*inner_, &CoursePiece::w, a, b);
  return Length::si(
      std::hypot(state.deflection_y.si() - y.start - y.slope * x, state.deflection_z.si() - z.start - z.slope * x));
}

Extreme MemberResult::movement() const {
  return largest_size(*inner_, {&CoursePiece::u, &CoursePiece::v, &CoursePiece::w}, {}, 3, 0, inner_->length);
}

std::pair<std::size_t, double> MemberResult::locate(Length place, Side side) const {
  const double x = place.si();
  if (!(x >= -1e-9 * inner_->length && x <= inner_->length * (1 + 1e-9)))
    throw std::out_of_range("corvex: " + short_number(x, 6) + " m is not on member '" + member().name + "'");
  const std::size_t i = result::piece_at(inner_->pieces, x, side);
  const CoursePiece& p = inner_->pieces[i];
  return {i, std::clamp(x, p.from, p.to) - p.from};
}

SectionState MemberResult::at(Length place, Side side) const {
  const auto [piece, along] = locate(place, side);
  const solver::State s = inner_->pieces[piece].at(along);
  const Vector moved = local_axes(data_->structure, member()).global({s.u, s.v, s.w});
  return {ForceSize::si(s.N),   ForceSize::si(s.Vy), ForceSize::si(s.Vz),   MomentSize::si(s.T), MomentSize::si(s.My),
          MomentSize::si(s.Mz), Length::si(s.v),     Length::si(s.w),       Length::si(moved.x), Length::si(moved.y),
          Length::si(moved.z),  Angle::si(s.twist),  Angle::si(-s.slope_z), Angle::si(s.slope_y)};
}

std::vector<Joint> MemberResult::joints() const {
  std::vector<Joint> all;
  const auto& spans = data_->analysis.system.spans;
  for (std::size_t i = spans.first[member_]; i < spans.first[member_ + 1]; ++i) {
    const solver::Span& s = spans.all[i];
    const bool last = i + 1 == spans.first[member_ + 1];
    all.push_back({PointId(s.a), Side::after, at(Length::si(s.start), Side::after)});
    const Length end = last ? length() : Length::si(spans.all[i + 1].start);
    all.push_back({PointId(s.b), Side::before, at(end, Side::before)});
  }
  return all;
}

std::optional<StressExtreme> MemberResult::max_stress() const {
  return result::StressCourse(data_->structure, member(), *inner_).normal(1);
}
std::optional<StressExtreme> MemberResult::min_stress() const {
  return result::StressCourse(data_->structure, member(), *inner_).normal(-1);
}
std::optional<StressExtreme> MemberResult::max_stress_at(Length place, Side side) const {
  const auto [piece, along] = locate(place, side);
  return result::StressCourse(data_->structure, member(), result::cross_section(inner_->pieces[piece], along))
      .normal(1);
}
std::optional<StressExtreme> MemberResult::min_stress_at(Length place, Side side) const {
  const auto [piece, along] = locate(place, side);
  return result::StressCourse(data_->structure, member(), result::cross_section(inner_->pieces[piece], along))
      .normal(-1);
}
std::optional<Stress> MemberResult::normal_stress_at(Length place, Length y, Length z, Side side) const {
  const auto [piece, along] = locate(place, side);
  return result::StressCourse(data_->structure, member(), result::cross_section(inner_->pieces[piece], along))
      .normal_at(y.si(), z.si());
}
std::optional<StressExtreme> MemberResult::von_mises() const {
  return result::StressCourse(data_->structure, member(), *inner_).von_mises();
}
std::optional<StressExtreme> MemberResult::von_mises_at(Length place, Side side) const {
  const auto [piece, along] = locate(place, side);
  return result::StressCourse(data_->structure, member(), result::cross_section(inner_->pieces[piece], along))
      .von_mises();
}

std::optional<StressExtreme> MemberResult::max_shear_stress() const {
  return result::StressCourse(data_->structure, member(), *inner_).shear();
}
std::optional<StressExtreme> MemberResult::max_shear_stress_at(Length place, Side side) const {
  const auto [piece, along] = locate(place, side);
  return result::StressCourse(data_->structure, member(), result::cross_section(inner_->pieces[piece], along)).shear();
}
std::optional<std::pair<StressExtreme, StressExtreme>> MemberResult::normal_stress_along(Length y, Length z) const {
  return result::StressCourse(data_->structure, member(), *inner_).along(y.si(), z.si());
}

bool MemberResult::leaves_out_warping() const {
  return result::warping_could_govern(data_->structure, member(), *inner_);
}

std::optional<double> MemberResult::safety() const {
  const auto worst = von_mises();
  return worst ? safety_against(worst->value) : std::nullopt;
}

std::optional<double> MemberResult::safety_against(Stress von_mises) const {
  const auto strength = this->strength();
  // A stress of rounding error only is zero.
  constexpr double endless = 1e12;
  if (!strength || !(von_mises.si() * endless > strength->si())) return std::nullopt;
  return *strength / von_mises;
}

const std::string& CaseResult::direction() const& {
  return data_->analysis.direction[case_];
}
const std::string& CaseResult::name() const& {
  return data_->analysis.load_case(data_->structure, case_).name();
}

MemberResult CaseResult::operator[](std::string_view member) const {
  const auto id = data_->structure.find_member(member);
  if (!id) missing("member", member);
  return (*this)[*id];
}
MemberResult CaseResult::operator[](MemberId member) const {
  if (!data_->structure.has(member)) missing("member", std::to_string(member.index));
  return MemberResult(data_, case_, member.index);
}

Displacement CaseResult::displacement(PointId point) const {
  if (!data_->structure.has(point)) missing("point", std::to_string(point.index));
  const solver::Six& d = data_->analysis.states[case_].movement[point.index].value;
  return {Length::si(d[0]), Length::si(d[1]), Length::si(d[2]), Angle::si(d[3]), Angle::si(d[4]), Angle::si(d[5])};
}
Displacement CaseResult::displacement(std::string_view point) const {
  const auto id = data_->structure.find_point(point);
  if (!id) missing("point", point);
  return displacement(*id);
}

bool CaseResult::turns(PointId point) const {
  if (!data_->structure.has(point)) missing("point", std::to_string(point.index));
  const auto& status = data_->analysis.system.dofs.status[point.index];
  return std::any_of(status.begin() + 3, status.end(), [](solver::Status s) { return s != solver::Status::absent; });
}

namespace {

Reaction reaction_of(const solver::Six& r) {
  return {ForceSize::si(r[0]),  ForceSize::si(r[1]),  ForceSize::si(r[2]),
          MomentSize::si(r[3]), MomentSize::si(r[4]), MomentSize::si(r[5])};
}

}  // namespace

Reaction CaseResult::reaction(PointId point) const {
  if (!data_->structure.has(point)) missing("point", std::to_string(point.index));
  const auto& supports = data_->structure.supports();
  for (std::size_t i = 0; i < supports.size(); ++i)
    if (supports[i].at == point) return reaction_of(data_->analysis.states[case_].reaction[i]);
  return {};
}
Reaction CaseResult::reaction(std::string_view point) const {
  const auto id = data_->structure.find_point(point);
  if (!id) missing("point", point);
  return reaction(*id);
}

Balance CaseResult::balance() const {
  const Resultant applied = data_->analysis.applied(case_);
  const solver::Reacted r = solver::reacted(data_->structure, applied, data_->analysis.states[case_]);
  const Vector &force = applied.force, &moment = applied.moment;
  return {reaction_of({force.x, force.y, force.z, moment.x, moment.y, moment.z}),
          reaction_of({r.force.x, r.force.y, r.force.z, r.moment.x, r.moment.y, r.moment.z}), r.error};
}

int CaseResult::digits() const {
  const double error = data_->analysis.states[case_].error;
  constexpr double least = 1e-15;
  return error < 1 ? static_cast<int>(-std::log10(std::max(error, least))) : 0;
}

std::optional<CriticalLoad> CaseResult::critical_load() const {
  const Solution whole(data_);
  const std::vector<std::size_t> assessed = whole.assessed();
  const auto place = std::find(assessed.begin(), assessed.end(), case_);
  if (place == assessed.end()) return {};
  std::call_once(data_->critical_once, [&] { data_->critical = result::critical_loads(whole); });
  return data_->critical[static_cast<std::size_t>(place - assessed.begin())];
}

std::vector<LoadStep> CaseResult::steps() const {
  std::vector<LoadStep> all;
  if (const auto& bent = data_->analysis.states[case_].bent)
    for (const auto& [load, movement] : bent->steps) all.push_back({load, Length::si(movement)});
  return all;
}

Solution::Solution() : Solution(Structure::plane("nothing"), {Problem{"nothing was solved"}}) {}
Solution::Solution(Structure structure, Problems problems)
    : problems_(std::move(problems)), refused_(std::make_shared<const Structure>(std::move(structure))) {}
Solution::Solution(std::shared_ptr<const result::Data> data) : data_(std::move(data)) {}

const Problems& Solution::notes() const& {
  static const Problems none;
  if (!data_) return none;
  const result::Data& data = *data_;
  std::call_once(data.notes_once, [&] {
    data.notes = inspection::notes_of_description(data.structure);
    data.notes.insert(data.notes.end(), data.analysis.notes.begin(), data.analysis.notes.end());
    for (Problem& p : result::notes_of_results(*this)) data.notes.push_back(std::move(p));
  });
  return data.notes;
}

const Structure& Solution::structure() const& {
  return data_ ? data_->structure : *refused_;
}
std::size_t Solution::size() const {
  return data_ ? data_->analysis.states.size() : 0;
}
std::vector<std::size_t> Solution::assessed() const {
  std::vector<std::size_t> all;
  if (!data_) return all;
  const Structure& s = data_->structure;
  const std::size_t first = s.combinations().empty() ? 0 : s.load_cases().size();
  for (std::size_t i = first; i < size(); ++i)
    if (base_of(i) >= first) all.push_back(i);
  return all;
}
std::size_t Solution::base_of(std::size_t index) const {
  return present(data_).analysis.base.at(index);
}

CaseResult Solution::operator[](std::size_t index) const {
  if (index >= present(data_).analysis.states.size()) missing("load case", std::to_string(index));
  return CaseResult(data_, index);
}

CaseResult Solution::operator[](std::string_view load_case) const {
  const result::Data& data = present(data_);
  if (const auto number = data.structure.find_load_case(load_case)) return CaseResult(data_, *number);
  for (std::size_t i = data.structure.load_cases().size(); i < size(); ++i)
    if (data.analysis.load_case(data.structure, i).name() == load_case) return CaseResult(data_, i);
  missing("load case", load_case);
}

Solver::Solver() : reusable_(std::make_unique<solver::Reusable>()) {}
Solver::~Solver() = default;
Solver::Solver(Solver&&) noexcept = default;
Solver& Solver::operator=(Solver&&) noexcept = default;

namespace {

Solution solution_of(const Structure& structure, Expected<solver::Analysis, Problems> analysis) {
  if (!analysis) return Solution(structure, analysis.error());
  return Solution(std::make_shared<const result::Data>(structure, std::move(analysis.value())));
}

Expected<solver::Analysis, Problems> analysed_once(const Structure& structure) {
  solver::Reusable reusable;
  return solver::analyse(structure, reusable);
}

}  // namespace

Solution Solver::solve(const Structure& structure) {
  return solution_of(structure, solver::analyse(structure, *reusable_));
}

// The factor is gone before the solution takes its copy of the structure.
Solution solve(const Structure& structure) {
  return solution_of(structure, analysed_once(structure));
}

}  // namespace corvex
