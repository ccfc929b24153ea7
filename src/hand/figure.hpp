// The figures that can be compared: their words, their dimensions, and where they stand in a solution.
#pragma once

#include "corvex/hand.hpp"

namespace corvex::hand {

const FigureKind& describe_kind(Figure::Kind kind);
// What its values are.
Dimension dimension_of(const Figure& figure);
// "reaction A y", "moment rail at 1.2 m"
std::string words(const Figure& figure);

// A figure whose names were found.
struct Target {
  PointId point{};
  MemberId member{};
  std::optional<Length> at;
};
// Nothing where the section does not tell (normal stress without moduli). Of two extremes that differ in sign only, the
// one with the sign of `hand` counts.
std::optional<Quantity> computed(const CaseResult& result, const Figure& figure, const Target& target, double hand);

}  // namespace corvex::hand
