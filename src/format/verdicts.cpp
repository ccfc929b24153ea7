#include "format/verdicts.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "corvex/number.hpp"
#include "judge/limit_kinds.hpp"

namespace corvex::format {
namespace {

// A share of a length as engineers write it: 1/300.
std::string one_over(double share) {
  if (!(share > 0)) return "0";
  return share < 1 ? fmt::format("1/{}", short_number(1 / share, 4)) : short_number(share, 4);
}

}  // namespace

const char* verdict(Verdict::State state) {
  static constexpr const char* words[] = {"met", "EXCEEDED", "NOT CHECKED"};
  return words[static_cast<std::size_t>(state)];
}

const char* agreement(bool agrees) {
  return agrees ? "agrees" : "DIFFERS";
}

const char* relation(const Verdict& v) {
  return v.band_end ? "not in" : v.at_least ? "at least" : "at most";
}

const char* relation_sign(const Verdict& v) {
  return v.band_end ? "not in" : v.at_least ? "≥" : "≤";
}

NamedUnit unit_of(const Verdict& v, const ModelUnits& units) {
  const Dimension& d = v.required.dimension;
  return d == dimension::length ? units.deflection : unit_for(d, units);
}

std::string value(double si, const Verdict& v, const ModelUnits& units, int digits) {
  const double in_unit = si / unit_of(v, units).si;
  if (v.required.dimension == dimension::length) return number(in_unit, digits);
  using Written = judging::LimitKind::Written;
  switch (judging::kind_of(v.kind).written) {
    case Written::share: return one_over(si);
    case Written::three_digits: return number(si, std::min(digits, 3));
    case Written::number: break;
  }
  return short_number(in_unit, digits);
}

std::string required(const Verdict& v, const ModelUnits& units, int digits) {
  const std::string first = value(v.required.si, v, units, digits);
  return v.band_end ? fmt::format("{} to {}", first, value(v.band_end->si, v, units, digits)) : first;
}

std::string subject(const Verdict& v) {
  return v.between ? fmt::format("{} {}-{}", v.on, v.between->first, v.between->second) : v.on;
}

}  // namespace corvex::format
