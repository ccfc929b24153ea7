// The figures that can be compared: their words, their dimensions, and how they are taken from a solution.
#pragma once

#include "corvex/hand.hpp"

namespace corvex::hand {

const FigureKind& describe_kind(Figure::Kind kind);
// Dimension of its values.
Dimension dimension_of(const Figure& figure);
// "reaction A y", "moment rail at 1.2 m"
std::string words(const Figure& figure);

// A figure whose names were found.
struct Target {
  PointId point{};
  MemberId member{};
  // How many members the structure has, where the worst of all is asked for; else 0.
  std::size_t all_members = 0;
  std::optional<Length> at;
  std::size_t mode = 0;   // from 1 on
  bool stressed = false;  // a frequency with the axial forces of a case
};
// Whether one value counts before another where the figure is asked of several cases or members: the largest by size,
// the value that `take` names, or the smallest safety factor.
bool is_taken_before(const Figure& figure, double value, double other);
// Whether a figure is of one case: not the mass, nor a natural frequency.
bool is_of_case(Figure::Kind kind);
// Empty if the section does not define it (normal stress without moduli). Of two extremes that differ in sign only, the
// one with the sign of `hand` counts.
std::optional<Quantity> computed(const CaseResult& result, const Figure& figure, const Target& target, double hand);
// The same of any figure: of the structure, its modes or a case.
std::optional<Quantity> computed(const Solution& solution, std::size_t load_case, const Figure& figure,
                                 const Target& target, double hand);

}  // namespace corvex::hand
