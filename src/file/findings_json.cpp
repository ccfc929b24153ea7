// Findings as JSON.
#include "file/findings_json.hpp"

#include <cmath>

#include "corvex/export.hpp"

namespace corvex {
namespace file {

Json findings_list(const Problems& findings) {
  static constexpr const char* severities[] = {"error", "warning", "note"};
  Json list = Json::array();
  for (const Problem& p : findings) {
    Json j;
    j["finding"] = p.finding.empty() ? Json(nullptr) : Json(p.finding);
    j["severity"] = severities[static_cast<std::size_t>(p.severity)];
    j["line"] = p.place.line > 0 ? Json(p.place.line) : Json(nullptr);
    j["on"] = objects_of(p);
    j["accepted"] = p.is_accepted();
    if (p.is_accepted()) j["because"] = p.because;
    j["text"] = p.text;
    if (!p.remedy.empty()) j["remedy"] = p.remedy;
    list.push_back(std::move(j));
  }
  return list;
}

Json model_json(const Structure& s) {
  return {{"title", s.title()},
          {"plane", s.is_plane()},
          {"order", s.analysis().order == Order::first    ? "first"
                    : s.analysis().order == Order::second ? "second"
                                                          : "large"},
          {"points", s.points().size()},
          {"members", s.members().size()},
          {"mass", s.mass() ? Json(s.mass()->si()) : Json(nullptr)}};
}

}  // namespace file

std::string findings_json(const Structure& s, const Inspection& inspection) {
  using file::Json;
  const auto three = [](double x, double y, double z) { return Json{{"x", x + 0.0}, {"y", y + 0.0}, {"z", z + 0.0}}; };
  Json j = {{"format", "corvex-findings"}, {"version", 1}, {"model", file::model_json(s)}};
  j["model"]["indeterminacy"] = inspection.indeterminacy ? Json(*inspection.indeterminacy) : Json(nullptr);
  Json& members = j["members"] = Json::object();
  for (const Member& m : s.members()) {
    const Axes axes = local_axes(s, m);
    const auto strength = s.material_of(m).strength(s.section_of(m).thickness());
    Json through = Json::array();
    for (const PointId p : m.through) through.push_back(s[p].name);
    Json one = {{"through", std::move(through)},
                {"length", s.length_of(m)},
                {"kind", m.kind == MemberKind::beam ? "beam" : "link"},
                {"section", s.sections()[m.section.index].name},
                {"material", s.material_of(m).name},
                {"E", s.material_of(m).E.si()},
                {"strength", strength ? Json(strength->si()) : Json(nullptr)},
                {"own_x", three(axes.x.x, axes.x.y, axes.x.z)},
                {"own_y", three(axes.y.x, axes.y.y, axes.y.z)}};
    file::add(members, m.name, std::move(one));
  }
  Json& supports = j["supports"] = Json::object();
  for (const PointSupport& p : s.supports()) {
    static constexpr const char* dofs[] = {"x", "y", "z", "rx", "ry", "rz"};
    Json one = {{"holds", Json::array()}};
    for (std::size_t k = 0; k < 6; ++k) {
      const bool there = !s.is_plane() || k < 2 || k == 5;
      if (p.held[k] && there) one["holds"].push_back(dofs[k]);
      if (p.spring[k] > 0) one["springs"][dofs[k]] = p.spring[k];
    }
    for (const Vector& v : p.along) one["along"].push_back(three(v.x, v.y, v.z));
    file::add(supports, s[p.at].name, std::move(one));
  }
  Json& parts = j["parts"] = Json::array();
  for (const PartsOfOneKind& p : bill_of_materials(s))
    parts.push_back({{"section", p.section},
                     {"material", p.material},
                     {"pieces", p.pieces},
                     {"length", p.length.si()},
                     {"mass", p.mass ? Json(p.mass->si()) : Json(nullptr)}});
  Json& cases = j["cases"] = Json::object();
  for (const LoadTotal& t : inspection.totals) {
    Json one = {{"loads", t.loads},
                {"force", three(t.force.x.si(), t.force.y.si(), t.force.z.si())},
                {"moment", three(t.moment.x.si(), t.moment.y.si(), t.moment.z.si())}};
    one["through"] = t.through ? three(t.through->x, t.through->y, t.through->z) : Json(nullptr);
    file::add(cases, t.load_case, std::move(one));
  }
  j["findings"] = file::findings_list(inspection.findings);
  return file::json_text(j);
}

}  // namespace corvex
