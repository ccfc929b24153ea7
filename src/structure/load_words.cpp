#include "corvex/load_words.hpp"

#include <fmt/format.h>

#include <cmath>

#include "corvex/number.hpp"

namespace corvex {
namespace {

class Writer {
 public:
  Writer(const Structure& s, const ModelUnits& units, double factor, int digits)
      : s_(s), u_(units), factor_(factor), digits_(digits) {}

  LoadWords operator()(const PointLoad& l) const {
    return {s_[l.at].name, {}, size(l.force, l.moment), {}, force_and_moment(l.force, l.moment)};
  }
  LoadWords operator()(const MemberLoad& l) const {
    return {fmt::format("{} at {}", s_[l.on].name, figure(l.at, u_.length)),
            {},
            size(l.force, l.moment),
            axes(l.axes),
            force_and_moment(l.force, l.moment)};
  }
  LoadWords operator()(const LineLoad& l) const {
    std::string on = s_[l.on].name;
    if (l.from != 0 || l.to)
      on += fmt::format(" from {} to {}", figure(l.from, u_.length),
                        figure(l.to.value_or(s_.length_of(s_[l.on])), u_.length));
    constexpr double rounding = 1e-9;
    const double first = length(l.first), last = length(l.last);
    const bool even = length(l.first - l.last) <= rounding * std::max(first, last);
    std::string value =
        even ? scaled(first, u_.line) : fmt::format("from {} to {}", scaled(first, u_.line), scaled(last, u_.line));
    std::string remark = axes(l.axes);
    if (l.per == Per::plan) remark += remark.empty() ? "per length in plan" : "; per length in plan";
    const std::string kind = name(LoadKind::line_load);
    std::vector<LoadPart> parts{part(even ? kind : kind + ", first", l.first, u_.line)};
    if (!even) parts.push_back(part(kind + ", last", l.last, u_.line));
    return {std::move(on), {}, std::move(value), std::move(remark), std::move(parts)};
  }
  LoadWords operator()(const SpreadLoad& l) const {
    std::string on;
    constexpr std::size_t most = 6;
    for (std::size_t i = 0; i < l.on.size() && i < most; ++i) on += (i > 0 ? ", " : "") + s_[l.on[i]].name;
    if (l.on.size() > most) on += fmt::format(" and {} more", l.on.size() - most);
    return {std::move(on),
            {},
            scaled(length(l.force), u_.force),
            axes(l.axes),
            {part(name(LoadKind::spread_force), l.force, u_.force)}};
  }
  LoadWords operator()(const TemperatureLoad& l) const {
    const char axis = l.across == TemperatureLoad::Across::y ? 'y' : 'z';
    std::string value = kelvin(l.plus);
    if (l.across != TemperatureLoad::Across::nothing)
      value = fmt::format("{} on the side of +{}, {} on that of -{}", value, axis, kelvin(l.minus), axis);
    return {s_[l.on].name, {}, std::move(value), {}};
  }
  LoadWords operator()(const LackOfFitLoad& l) const {
    const double by = l.by * factor_;
    return {s_[l.on].name,
            {},
            fmt::format("{} too {}", figure(std::abs(by), u_.deflection), by < 0 ? "long" : "short"),
            {}};
  }
  LoadWords operator()(const SettlementLoad& l) const {
    std::string value = length(l.move) > 0 || !(length(l.turn) > 0) ? scaled(length(l.move), u_.deflection) : "";
    if (length(l.turn) > 0) value += (value.empty() ? "" : " and ") + scaled(length(l.turn), u_.angle);
    const std::string kind = name(LoadKind::settlement);
    std::vector<LoadPart> parts;
    if (length(l.move) > 0) parts.push_back(part(kind, l.move, u_.deflection));
    if (length(l.turn) > 0) parts.push_back(part(kind + ", rotation", l.turn, u_.angle));
    return {s_[l.at].name, {}, std::move(value), {}, std::move(parts)};
  }
  LoadWords operator()(const GravityLoad& l) const {
    const NamedUnit unit{"m/s²", 1};
    return {"all members and masses",
            {},
            scaled(length(l.acceleration), unit),
            {},
            {part(name(kind_of(l, s_.up_direction())), l.acceleration, unit)}};
  }

 private:
  std::string figure(double si, const NamedUnit& unit) const {
    return short_number(si / unit.si, digits_) + " " + unit.text;
  }
  std::string scaled(double si, const NamedUnit& unit) const { return figure(si * std::abs(factor_), unit); }
  std::string kelvin(double change) const {
    const double k = change * factor_ + 0.0;
    return fmt::format("{}{} K", k < 0 ? "" : "+", short_number(k, digits_));
  }
  std::string size(const Vector& force, const Vector& moment) const {
    std::string all = length(force) > 0 || !(length(moment) > 0) ? scaled(length(force), u_.force) : "";
    if (length(moment) > 0) all += (all.empty() ? "" : " and ") + scaled(length(moment), u_.moment);
    return all;
  }
  LoadPart part(std::string what, const Vector& value, const NamedUnit& unit) const {
    return {std::move(what), value * factor_, unit};
  }
  std::vector<LoadPart> force_and_moment(const Vector& force, const Vector& moment) const {
    std::vector<LoadPart> parts;
    if (length(force) > 0 || !(length(moment) > 0)) parts.push_back(part(name(LoadKind::force), force, u_.force));
    if (length(moment) > 0) parts.push_back(part(name(LoadKind::moment), moment, u_.moment));
    return parts;
  }
  static std::string axes(LoadAxes a) { return a == LoadAxes::member ? "in local axes" : ""; }

  const Structure& s_;
  const ModelUnits& u_;
  double factor_;
  int digits_;
};

}  // namespace

std::string point_of_action(const Load& load, const ModelUnits& units) {
  const std::optional<Through> t = through_of(load);
  if (!t) return "";
  if (t->place == Through::Place::shear_centre) return "through the shear centre";
  if (t->place == Through::Place::centroid) return "through the centroid";
  const auto place = [&](Length l) { return short_number(l.si() / units.length.si, 6) + " " + units.length.text; };
  return fmt::format("through y = {}, z = {} of the section", place(t->y), place(t->z));
}

LoadWords load_words(const Structure& s, const Load& load, const ModelUnits& units, double factor, int digits) {
  LoadWords words = std::visit(Writer(s, units, factor, digits), load);
  words.kind = name(kind_of(load, s.up_direction()));
  if (const std::string point = point_of_action(load, units); !point.empty())
    words.remark += (words.remark.empty() ? "" : "; ") + point;
  return words;
}

}  // namespace corvex
