// The parts of each kind of load: the values that a factor multiplies, and what the load acts on.
#pragma once

#include <optional>
#include <tuple>
#include <type_traits>
#include <variant>

#include "corvex/load_case.hpp"

namespace corvex {

// Forces, changes of temperature and length, movements and accelerations are proportional to the factor of a load.
inline auto sizes(PointLoad& l) {
  return std::tie(l.force, l.moment);
}
inline auto sizes(MemberLoad& l) {
  return std::tie(l.force, l.moment);
}
inline auto sizes(LineLoad& l) {
  return std::tie(l.first, l.last);
}
inline auto sizes(SpreadLoad& l) {
  return std::tie(l.force);
}
inline auto sizes(TemperatureLoad& l) {
  return std::tie(l.plus, l.minus);
}
inline auto sizes(LackOfFitLoad& l) {
  return std::tie(l.by);
}
inline auto sizes(SettlementLoad& l) {
  return std::tie(l.move, l.turn);
}
inline auto sizes(GravityLoad& l) {
  return std::tie(l.acceleration);
}

// A point, a member (of several the first), or the whole structure.
using LoadTarget = std::variant<std::monostate, PointId, MemberId>;
inline LoadTarget target(const PointLoad& l) {
  return l.at;
}
inline LoadTarget target(const MemberLoad& l) {
  return l.on;
}
inline LoadTarget target(const LineLoad& l) {
  return l.on;
}
inline LoadTarget target(const SpreadLoad& l) {
  return l.on.empty() ? LoadTarget() : l.on.front();
}
inline LoadTarget target(const TemperatureLoad& l) {
  return l.on;
}
inline LoadTarget target(const LackOfFitLoad& l) {
  return l.on;
}
inline LoadTarget target(const SettlementLoad& l) {
  return l.at;
}
inline LoadTarget target(const GravityLoad&) {
  return {};
}
inline LoadTarget target(const Load& load) {
  return std::visit([](const auto& l) { return target(l); }, load);
}

// The load multiplied by a factor.
inline Load scaled(Load load, double factor) {
  std::visit([&](auto& l) { std::apply([&](auto&... part) { ((part = part * factor), ...); }, sizes(l)); }, load);
  return load;
}

inline bool is_zero(Load load) {
  const auto zero = []<class Part>(const Part& part) { return part == Part{}; };
  return std::visit(
      [&](auto& l) { return std::apply([&](const auto&... part) { return (zero(part) && ...); }, sizes(l)); }, load);
}

}  // namespace corvex
