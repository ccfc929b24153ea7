#include "corvex/trace.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "corvex/figures.hpp"
#include "result/polynomial.hpp"

namespace corvex {
namespace {

constexpr double same_place = 1e-9;  // of the member's length

}  // namespace

bool TracePlace::is_extreme_of(std::string_view figure) const {
  return std::any_of(extremes.begin(), extremes.end(),
                     [&](const auto& e) { return e.first == figure && e.second != "zero"; });
}

std::vector<TracePlace> places_at(const MemberResult& member, Length at) {
  const double L = member.length().si();
  const bool inside = at.si() > same_place * L && at.si() < (1 - same_place) * L;
  if (!inside) return {{at, at.si() > L / 2 ? Side::before : Side::after, {}}};
  for (const MemberFigure& figure : member_figures()) {
    if (!figure.envelope) continue;
    const Diagram d = figure.diagram(member);
    // A jump below rounding error is not a jump.
    const double jump = std::abs(d.at(at, Side::after).si - d.at(at, Side::before).si);
    if (jump > std::max(d.noise(), 1e-9 * d.largest().si)) return {{at, Side::before, {}}, {at, Side::after, {}}};
  }
  return {{at, Side::after, {}}};
}

std::vector<TracePlace> even_places(const MemberResult& member, int count) {
  if (count < 2 || count > most_places)
    throw std::invalid_argument("corvex: from 2 to " + std::to_string(most_places) + " places, not " +
                                std::to_string(count));
  std::vector<TracePlace> all;
  for (int i = 0; i < count; ++i) {
    const Length at = i + 1 == count ? member.length() : member.length() * (static_cast<double>(i) / (count - 1));
    for (TracePlace& p : places_at(member, at)) all.push_back(std::move(p));
  }
  return all;
}

namespace {

// Remarks on a place: a figure that is largest or least, at a jump on one of its sides; a bending moment
// that passes through zero; a place where a load acts or begins, which has no figure.
struct Found {
  double at;
  Side side;
  const char *figure, *which;
};

// Whether a figure is more than `nothing` between two places of a piece: a moment that ends at zero with a level
// tangent, as at a free end, is by rounding zero twice in its last hundred millionth.
bool is_something(const Diagram::Piece& p, double from, double to, double nothing) {
  const auto at = [&](double x) { return std::abs(result::value(p.powers, x)); };
  return at((from + to) / 2) > nothing || at(to) > nothing;
}

// Where a bending moment passes through zero, and where the course of a force changes: loads and points.
void add_places_between(const MemberResult& member, std::vector<Found>& found) {
  for (const auto& [name, d] : {std::pair{"moment_y", member.moment_y()}, {"moment_z", member.moment_z()}}) {
    const double largest = d.largest().si(), nothing = std::max(d.noise(), 1e-11 * largest);
    if (largest <= d.noise()) continue;
    for (const Diagram::Piece& p : d.pieces())
      for (const double x : result::sign_changes(p.powers, p.to - p.from))
        if (is_something(p, x, 0, nothing) && is_something(p, x, p.to - p.from, nothing))
          found.push_back({p.from + x, Side::before, name, "zero"});
  }
  const Diagram axial = member.axial();
  for (const Diagram::Piece& p : axial.pieces())
    if (p.from > 0) found.push_back({p.from, Side::before, nullptr, nullptr});
}

std::vector<Found> extremes(const MemberResult& member) {
  std::vector<Found> found;
  for (const MemberFigure& figure : member_figures()) {
    if (!figure.envelope) continue;
    const Diagram d = figure.diagram(member);
    const Extreme max = d.max(), min = d.min();
    // A constant figure has no extremes.
    const double size = std::max(std::abs(max.value.si), std::abs(min.value.si));
    if (size <= d.noise() || max.value.si - min.value.si <= 1e-11 * size) continue;
    for (const auto& [e, which] : {std::pair(max, "max"), {min, "min"}}) {
      const auto apart = [&, value = e.value.si, at = e.at](Side side) { return std::abs(d.at(at, side).si - value); };
      found.push_back(
          {e.at.si(), apart(Side::before) <= apart(Side::after) ? Side::before : Side::after, figure.name, which});
    }
  }
  if (const Extreme sag = member.sag(); sag.value.si > 0) found.push_back({sag.at.si(), Side::before, "sag", "max"});
  add_places_between(member, found);
  return found;
}

// Both ends and these, each with its extreme figures; `places` states whether a place has two sides.
template <class Places>
std::vector<TracePlace> gathered(const std::vector<Found>& found, double L, const Places& places_of) {
  std::vector<double> places{0, L};
  for (const Found& f : found) places.push_back(f.at);
  std::sort(places.begin(), places.end());
  std::vector<TracePlace> all;
  for (const double at : places) {
    if (!all.empty() && at - all.back().at.si() <= same_place * L) continue;
    std::vector<TracePlace> here = places_of(Length::si(at));
    for (const Found& f : found)
      if (f.figure && std::abs(f.at - at) <= same_place * L)
        (here.size() > 1 && f.side == Side::after ? here.back() : here.front())
            .extremes.emplace_back(f.figure, f.which);
    all.insert(all.end(), here.begin(), here.end());
  }
  return all;
}

// Of the figures that have a sign, the case that governs one end of their range.
const std::string* governing(const MemberEnvelope& e, std::string_view figure, std::string_view which) {
  if (figure == "sag") return &e.sag.load_case;
  const MemberFigure* known = find_member_figure(figure);
  if (known && known->envelope) {
    const Range& range = e.*known->envelope;
    return which == "max" ? &range.max.load_case : &range.min.load_case;
  }
  return nullptr;
}

}  // namespace

std::vector<TracePlace> extreme_places(const MemberResult& member) {
  return gathered(extremes(member), member.length().si(), [&](Length at) { return places_at(member, at); });
}

std::vector<TracePlace> extreme_places(const Solution& solution, const MemberRef& which) {
  const MemberId member = solution.structure().at(which);
  const MemberEnvelope e = envelope(solution, member);
  std::vector<Found> found;
  for (const std::size_t c : solution.assessed())
    for (const Found& f : extremes(solution[c][member]))
      if (!f.figure)
        found.push_back(f);
      else if (std::string_view(f.which) == "zero")
        continue;  // of one case, not of the envelope
      else if (const std::string* most = governing(e, f.figure, f.which); most && *most == solution[c].name())
        found.push_back(f);
  const Structure& s = solution.structure();
  return gathered(found, s.length_of(s[member]), [&](Length at) { return places_at(solution, member, at); });
}

std::vector<TracePlace> places_at(const Solution& solution, const MemberRef& which, Length at) {
  const MemberId member = solution.structure().at(which);
  std::vector<TracePlace> most;
  for (const std::size_t c : solution.assessed())
    if (std::vector<TracePlace> here = places_at(solution[c][member], at); here.size() > most.size())
      most = std::move(here);
  return most;
}

}  // namespace corvex
