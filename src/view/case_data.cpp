#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/document.hpp"
#include "corvex/figures.hpp"
#include "corvex/modes.hpp"
#include "corvex/number.hpp"
#include "corvex/stop.hpp"
#include "corvex/trace.hpp"
#include "format/sizes.hpp"
#include "view/data.hpp"
#include "view/tables.hpp"

namespace corvex::view {
namespace {

Json number(double v) {
  return std::isfinite(v) ? Json(v + 0.0) : Json(nullptr);
}

// [from, to, c0, c1, …]: the value is the sum of c_k (x - from)^k.
Json pieces_data(const Diagram& d) {
  Json all = Json::array();
  for (const Diagram::Piece& p : d.pieces()) {
    Json one = Json::array({p.from, p.to});
    std::size_t last = p.powers.size();
    while (last > 1 && p.powers[last - 1] == 0) --last;
    for (std::size_t k = 0; k < last; ++k) one.push_back(number(p.powers[k]));
    all.push_back(std::move(one));
  }
  return all;
}

// How many places along each member have their values ready: as many as keep the page small.
int places_of_a_member(std::size_t members) {
  constexpr double all = 6000, fewest = 5, most = 49;
  return static_cast<int>(std::clamp(all / static_cast<double>(std::max<std::size_t>(members, 1)), fewest, most));
}

std::vector<TracePlace> places_of(const MemberResult& m, int evenly) {
  std::vector<TracePlace> places = extreme_places(m);
  for (const TracePlace& p : even_places(m, evenly)) places.push_back(p);
  // Both sides of a jump are kept, where a place is listed twice, the one with its remarks.
  std::stable_sort(places.begin(), places.end(), [](const TracePlace& a, const TracePlace& b) {
    return a.at != b.at ? a.at < b.at : a.side == Side::before && b.side == Side::after;
  });
  const double near = 1e-9 * m.length().si();
  places.erase(std::unique(places.begin(), places.end(),
                           [&](const TracePlace& a, const TracePlace& b) {
                             return std::abs(a.at.si() - b.at.si()) <= near && a.side == b.side;
                           }),
               places.end());
  return places;
}

class CaseData {
 public:
  CaseData(const Viewed& v, std::size_t index)
      : s_(v.evaluation.solution.structure()), result_(v.evaluation.solution[index]) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) members_.push_back(result_[MemberId(i)]);
  }

  Json members() {
    Json all = Json::array();
    const int evenly = places_of_a_member(s_.members().size());
    for (const MemberResult& m : members_) {
      stop_point();
      all.push_back(member(m, evenly));
    }
    return all;
  }
  Json points() const {
    Json all = Json::array();
    for (std::size_t i = 0; i < s_.points().size(); ++i) {
      const Displacement d = result_.displacement(PointId(i));
      all.push_back(Json::array({d.x.si(), d.y.si(), d.z.si(), d.rx.si(), d.ry.si(), d.rz.si()}));
    }
    return all;
  }
  Json reactions() const {
    Json all = Json::array();
    for (const PointSupport& p : s_.supports()) {
      const Reaction r = result_.reaction(p.at);
      all.push_back(Json::array({r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()}));
    }
    return all;
  }
  Json sizes() const {
    const format::Sizes z = format::sizes_of(s_, result_, members_);
    return {{"force", z.force}, {"moment", z.moment}, {"movement", z.move}, {"rotation", z.turn}};
  }

 private:
  Json member(const MemberResult& m, int evenly) {
    Json pieces = Json::object(), names = Json::array(), places = Json::array();
    std::vector<const MemberFigure*> shown;
    for (const MemberFigure& f : member_figures()) {
      if (!f.exists_in(s_, m.member().name)) continue;
      shown.push_back(&f);
      names.push_back(f.name);
      if (f.diagram) pieces[f.name] = pieces_data(f.diagram(m));
    }
    // The shape needs all three, also of a link.
    pieces["deflection_x"] = pieces_data(m.deflection_x());
    pieces["deflection_y"] = pieces_data(m.deflection_y());
    pieces["deflection_z"] = pieces_data(m.deflection_z());
    for (const TracePlace& p : places_of(m, evenly)) {
      const SectionState state = m.at(p.at, p.side);
      Json values = Json::array();
      for (const MemberFigure* f : shown) values.push_back(number(f->at(state).si));
      places.push_back(Json::array({p.at.si(), p.side == Side::before ? 0 : 1, std::move(values)}));
    }
    Json one = {{"figures", std::move(names)}, {"pieces", std::move(pieces)}, {"places", std::move(places)}};
    if (m.is_slack()) one["slack"] = true;
    const Extreme sag = m.sag();
    one["sag"] = Json::array({number(sag.value.si), sag.at.si()});
    if (const auto safety = m.safety()) one["safety"] = *safety;
    return one;
  }

  const Structure& s_;
  CaseResult result_;
  std::vector<MemberResult> members_;
};

}  // namespace

Json stress_data(const Viewed& v, std::size_t index) {
  const Structure& s = v.evaluation.solution.structure();
  const CaseResult result = v.evaluation.solution[index];
  const int evenly = places_of_a_member(s.members().size());
  double most = 0;
  const auto value = [&](const std::optional<StressExtreme>& e, double sign) {
    if (!e) return Json(nullptr);
    most = std::max(most, std::abs(e->value.si()));
    // Tension is never less than none, compression never more.
    return number(sign == 0 || e->value.si() * sign > 0 ? e->value.si() : 0);
  };
  Json all = Json::array();
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    stop_point();
    const MemberResult m = result[MemberId(i)];
    Json places = Json::array();
    for (const TracePlace& p : places_of(m, evenly))
      places.push_back(
          Json::array({value(m.max_stress_at(p.at, p.side), 1), value(m.min_stress_at(p.at, p.side), -1),
                       value(m.max_shear_stress_at(p.at, p.side), 0), value(m.von_mises_at(p.at, p.side), 0)}));
    all.push_back(std::move(places));
  }
  return {{"members", std::move(all)}, {"size", most}};
}

// How a member moves in a mode, at places evenly from end to end, one after the other: x, y and z of each.
Json moved_member(const std::vector<ModeShape::Place>& places) {
  constexpr int evenly = 25;  // as the page draws
  // More digits than a picture shows.
  const auto rounded = [](double v) { return std::round(v * 1e5) / 1e5 + 0.0; };
  Json all = Json::array();
  std::size_t next = 0;
  for (int k = 0; k < evenly; ++k) {
    const double at = places.back().at * k / (evenly - 1);
    while (next + 1 < places.size() && places[next + 1].at < at) ++next;
    const ModeShape::Place &a = places[next], &b = places[std::min(next + 1, places.size() - 1)];
    const double share = b.at > a.at ? std::clamp((at - a.at) / (b.at - a.at), 0.0, 1.0) : 0;
    const Vector by = a.by + (b.by - a.by) * share;
    for (const double v : {by.x, by.y, by.z}) all.push_back(rounded(v));
  }
  return all;
}

Json shape_data(const std::string& name, const ModeShape& shape) {
  Json members = Json::array();
  for (const auto& places : shape.members) members.push_back(moved_member(places));
  return {{"name", name}, {"members", std::move(members)}};
}

// Load factors of this case and natural frequencies with their shapes, where the model asks for them.
void add_modes(const Viewed& v, std::size_t index, int digits, Json& one) {
  ModesOptions wanted = v.model.modes;
  std::erase_if(wanted.buckling, [&](const auto& b) { return b.first != v.evaluation.solution[index].name(); });
  const auto found = modes(v.evaluation.solution, wanted);
  if (!found) return;
  for (const auto& item : document::modes_page(v.model.structure, *found, v.model.units))
    if (const auto* t = std::get_if<document::Table>(&item)) one["tables"].push_back(table_data(*t, digits));
  Json shapes = Json::array();
  for (std::size_t i = 0; i < found->vibration.size(); ++i) {
    const VibrationMode& m = found->vibration[i];
    shapes.push_back(
        shape_data(fmt::format("vibration {}: {} Hz", i + 1, short_number(m.frequency.si(), digits)), m.shape));
  }
  for (const CaseBuckling& b : found->buckling)
    for (std::size_t i = 0; i < b.modes.size(); ++i)
      shapes.push_back(
          shape_data(fmt::format("buckling {}: load factor {}", i + 1, short_number(b.modes[i].factor, digits)),
                     b.modes[i].shape));
  if (!shapes.empty()) one["modes"] = std::move(shapes);
}

Json case_data(const Viewed& v, std::size_t index, int digits) {
  CaseData data(v, index);
  Json members = data.members();
  Json one = {{"index", index},
              {"points", data.points()},
              {"reactions", data.reactions()},
              {"members", std::move(members)},
              {"sizes", data.sizes()}};
  Json summary = Json::array();
  for (const document::Words& words :
       document::summaries_of(v.model.units, v.evaluation.solution, {index}, true, digits))
    for (const document::Line& line : words.lines) summary.push_back(line.text);
  one["summary"] = std::move(summary);
  document::Selection shown = *document::select(v.evaluation.solution, {});
  shown.all = true;
  Json tables = Json::array();
  for (const document::Table& t : document::tables_of_case(v.model.units, v.evaluation.solution, index, shown))
    tables.push_back(table_data(t, digits));
  one["tables"] = std::move(tables);
  add_modes(v, index, digits, one);
  return one;
}

}  // namespace corvex::view
