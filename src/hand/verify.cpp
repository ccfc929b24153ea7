#include <algorithm>
#include <cmath>
#include <numbers>

#include "hand/work_out.hpp"

namespace corvex {
namespace {

using hand::Worked;

bool is_unsigned(const Figure& f) {
  const bool of_point = hand::describe_kind(f.kind).of == FigureKind::Of::point;
  if (f.kind == Figure::Kind::sag || f.kind == Figure::Kind::mass || f.kind == Figure::Kind::frequency ||
      f.kind == Figure::Kind::buckling)
    return true;
  if (of_point) return f.part == Part::size;
  if (f.kind == Figure::Kind::stress) return f.take == Take::extreme || f.take == Take::size;
  return f.take == Take::size && !f.at;
}

bool is_signed_by_default(const Figure& f) {
  return hand::describe_kind(f.kind).of == FigureKind::Of::member && f.take == Take::extreme && !f.at &&
         !is_unsigned(f);
}

struct Factor {
  double value;
  const char* words;
  const char* cause = "";
};
// Usual mistakes of a hand calculation, by the factor that they leave between the computed and the hand value.
constexpr Factor usual_slips[] = {{2, "twice"},
                                  {0.5, "half"},
                                  {4, "four times"},
                                  {0.25, "a quarter of"},
                                  {8, "eight times", " (radius instead of diameter, or the reverse?)"},
                                  {0.125, "an eighth of", " (radius instead of diameter, or the reverse?)"},
                                  {16, "sixteen times", " (radius instead of diameter, or the reverse?)"},
                                  {0.0625, "a sixteenth of", " (radius instead of diameter, or the reverse?)"},
                                  {10, "ten times"},
                                  {0.1, "a tenth of"},
                                  {1e3, "a thousand times", " (units?)"},
                                  {1e-3, "a thousandth of", " (units?)"},
                                  {1e6, "a million times", " (units?)"},
                                  {1e-6, "a millionth of", " (units?)"},
                                  {std::numbers::pi, "π times"},
                                  {1 / std::numbers::pi, "one over π times"},
                                  {25.4, "25.4 times", " (inches?)"},
                                  {1 / 25.4, "one over 25.4 times", " (inches?)"},
                                  {180 / std::numbers::pi, "180/π times", " (degrees?)"},
                                  {std::numbers::pi / 180, "π/180 times", " (degrees?)"},
                                  {9.80665, "gn times", " (mass instead of weight?)"},
                                  {1 / 9.80665, "one over gn times", " (weight instead of mass?)"}};

// A usual slip that would explain the difference; empty where none would.
std::string remark(const Expectation& e, const Comparison& c) {
  if (is_unsigned(e.figure) && c.hand.si < 0)
    return "this value has no sign, but the hand value is negative: " +
           std::string(hand::describe_kind(e.figure.kind).of == FigureKind::Of::point ? "name a part"
                                                                                      : "take max or min");
  if (c.hand.si == 0) return {};
  constexpr double just = 1e-3;
  const double ratio = c.computed.si / c.hand.si;
  if (std::abs(ratio + 1) <= just)
    return is_signed_by_default(e.figure) ? "same magnitude, opposite sign; take: size compares magnitudes"
                                          : "same magnitude, opposite sign";
  for (const Factor& f : usual_slips)
    if (std::abs(ratio / f.value - 1) <= just)
      return std::string("the computed value is just ") + f.words + " the hand value" + f.cause;
  return {};
}

void set_computed(Comparison& c, const std::optional<Quantity>& computed) {
  if (!computed) {
    c.computed = {std::nan(""), c.hand.dimension};
    c.deviation = std::nan("");
    c.remark = c.hand.dimension == dimension::mass ? "a material has no density"
               : c.hand.dimension.none()           ? "there is no stress, or no strength to compare it with"
                                                   : "the section does not define the stress";
    return;
  }
  c.computed = {computed->si, c.hand.dimension};
  const double difference = c.computed.si - c.hand.si;
  c.deviation = c.absolute ? difference : difference / c.hand.si;
  // A difference of rounding is none.
  constexpr double rounding = 1e-12;
  const double allowed = c.within + rounding * (c.absolute ? std::abs(c.hand.si) : 1);
  c.agrees = std::abs(c.deviation) <= allowed;
}

// Another figure with which the hand value agrees: of the member's other end, of the other
// sign, or of another case. Empty where there is none.
std::string remark_on_place(const Solution& solution, const Expectation& e, const Worked& w, const Comparison& c) {
  const auto agrees = [&](const CaseResult& result, const Figure& figure) {
    const auto other = hand::computed(result, figure, w.target, c.hand.si);
    if (!other) return false;
    const double off = other->si - c.hand.si;
    return std::abs(c.absolute ? off : off / c.hand.si) <= c.within && c.hand.si != 0;
  };
  const CaseResult own = solution[w.load_case];
  const bool of_member = hand::describe_kind(e.figure.kind).of == FigureKind::Of::member;
  if (of_member && !e.figure.at && w.target.all_members == 0 && e.figure.kind != Figure::Kind::safety)
    for (const auto& [take, words] : {std::pair(Take::start, "the value at the start of the member"),
                                      {Take::end, "the value at the end of the member"},
                                      {Take::max, "the largest value along the member"},
                                      {Take::min, "the smallest value along the member"}}) {
      Figure other = e.figure;
      other.take = take;
      if (take != e.figure.take && agrees(own, other)) return std::string("it agrees with ") + words;
    }
  for (std::size_t i = 0; i < solution.size(); ++i) {
    const CaseResult other = solution[i];
    if (other.name() != own.name() && agrees(other, e.figure)) return "it agrees with case '" + other.name() + "'";
  }
  return {};
}

Comparison compare(const Solution& solution, const Expectation& e, const Worked& w) {
  Comparison c;
  c.what = hand::words(e.figure);
  c.formula = w.formula;
  c.hand = w.value;
  c.within = w.within;
  c.absolute = w.absolute;
  c.note = e.note;
  std::optional<Quantity> computed;
  if (hand::is_of_case(e.figure.kind) || w.target.stressed) c.load_case = solution[w.load_case].name();
  computed = hand::computed(solution, w.load_case, e.figure, w.target, c.hand.si);
  set_computed(c, computed);
  if (const bool of_mode = hand::describe_kind(e.figure.kind).of == FigureKind::Of::mode; of_mode && !computed)
    c.remark = "this mode does not exist";
  if (!c.agrees && c.remark.empty()) c.remark = remark(e, c);
  const auto of = hand::describe_kind(e.figure.kind).of;
  if (!c.agrees && c.remark.empty() && computed && (of == FigureKind::Of::point || of == FigureKind::Of::member))
    c.remark = remark_on_place(solution, e, w, c);
  return c;
}

// Whether shear deformation alone keeps them apart, which most hand calculations leave out.
void remark_on_shear(const Structure& structure, const HandCalculation& hand, const std::vector<Worked>& worked,
                     std::vector<Comparison>& all) {
  const auto asks = [](const Comparison& c) { return !c.agrees && c.remark.empty(); };
  if (!structure.analysis().shear || std::none_of(all.begin(), all.end(), asks)) return;
  Structure stiff = structure;
  stiff.analysis().shear = false;
  const Solution solution = solve(stiff);
  if (!solution.ok()) return;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (asks(all[i]) && compare(solution, hand.expect[i], worked[i]).agrees)
      all[i].remark = "without shear deformation it would agree (analysis: {shear: off})";
}

}  // namespace

bool Verification::all_agree() const {
  return std::all_of(comparisons.begin(), comparisons.end(), [](const Comparison& c) { return c.agrees; });
}

Expected<Verification, Problems> verify(const Solution& solution, const HandCalculation& hand) {
  if (!solution.ok()) return solution.problems();
  auto worked = hand::work_out(solution.structure(), hand);
  if (!worked) return worked.error();
  Verification v{std::move(worked.value().values), {}};
  for (std::size_t i = 0; i < hand.expect.size(); ++i)
    v.comparisons.push_back(compare(solution, hand.expect[i], worked->expectations[i]));
  remark_on_shear(solution.structure(), hand, worked->expectations, v.comparisons);
  return v;
}

bool needs_brackets(const std::string& formula, const Use& use, const std::string& number) {
  if (number.starts_with("-") || number.starts_with("−")) return true;
  const std::size_t space = number.find(' ');
  if (space == std::string::npos) return false;
  const std::size_t next = formula.find_first_not_of(' ', use.offset + use.length);
  if (next != std::string::npos && formula[next] == '^') return true;
  for (const char* raised : {"⁰", "¹", "²", "³", "⁴", "⁵", "⁶", "⁷", "⁸", "⁹", "⁻"})
    if (next != std::string::npos && formula.compare(next, std::string(raised).size(), raised) == 0) return true;
  const std::size_t before = use.offset > 0 ? formula.find_last_not_of(' ', use.offset - 1) : std::string::npos;
  const bool compound =
      number.find_first_of("/*", space) != std::string::npos || number.find("·", space) != std::string::npos;
  return compound && before != std::string::npos && formula[before] == '/';
}

}  // namespace corvex
