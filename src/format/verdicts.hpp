// Limits, verdicts and comparisons in words: the same in tables, reports, the page and messages.
#pragma once

#include <string>

#include "corvex/limits.hpp"
#include "corvex/model_units.hpp"

#pragma GCC visibility push(default)

namespace corvex::format {

// "met", "EXCEEDED", "NOT CHECKED"
const char* verdict(Verdict::State state);
// "agrees", "DIFFERS"
const char* agreement(bool agrees);

// "at least", "at most", "not in"; as a sign "≥", "≤", "not in".
const char* relation(const Verdict& verdict);
const char* relation_sign(const Verdict& verdict);

// The unit of the value and of what is required; empty for numbers and ratios.
NamedUnit unit_of(const Verdict& verdict, const ModelUnits& units);
// A value of the limit without its unit: "1.52", "1/300", "12.4".
std::string value(double si, const Verdict& verdict, const ModelUnits& units, int digits);
// The requirement: "1.5", "1/300", "5 to 8".
std::string required(const Verdict& verdict, const ModelUnits& units, int digits);
// "rail A-B": the member or point, with its stretch.
std::string subject(const Verdict& verdict);

}  // namespace corvex::format

#pragma GCC visibility pop
