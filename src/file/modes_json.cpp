// Natural frequencies and load factors as JSON.
#include "corvex/export.hpp"
#include "file/findings_json.hpp"
#include "file/json.hpp"

namespace corvex {
namespace {

using file::Json;

Json shape_json(const Structure& s, const ModeShape& shape) {
  Json points = Json::object(), members = Json::object();
  for (std::size_t i = 0; i < shape.points.size(); ++i) {
    const Displacement& d = shape.points[i];
    file::add(
        points, s.points()[i].name,
        {{"x", d.x.si()}, {"y", d.y.si()}, {"z", d.z.si()}, {"rx", d.rx.si()}, {"ry", d.ry.si()}, {"rz", d.rz.si()}});
  }
  for (std::size_t i = 0; i < shape.members.size(); ++i) {
    Json places = Json::array();
    for (const ModeShape::Place& p : shape.members[i])
      places.push_back({{"at", p.at}, {"x", p.by.x}, {"y", p.by.y}, {"z", p.by.z}});
    file::add(members, s.members()[i].name, std::move(places));
  }
  return {{"points", std::move(points)}, {"members", std::move(members)}};
}

Json names_json(const Structure& s, const std::vector<MemberId>& members) {
  Json names = Json::array();
  for (const MemberId m : members) names.push_back(s[m].name);
  return names;
}

Json not_checked_json(const Structure& s, const std::vector<UncoveredMember>& members) {
  Json all = Json::array();
  for (const UncoveredMember& m : members)
    all.push_back({{"member", s[m.member].name}, {"reason", m.reason}, {"remedy", m.remedy}});
  return all;
}

// Member buckling other than flexural, and the effect of one-way members without force.
Json estimates_json(const Structure& s, const CaseBuckling& c) {
  Json members = Json::array();
  for (const MemberBuckling& m : c.estimates.members)
    members.push_back({{"member", s[m.member].name},
                       {"factor", m.factor},
                       {"kind", words(m.kind)},
                       {"out_of_plane", m.out_of_plane},
                       {"from", m.from.si()},
                       {"to", m.to.si()}});
  return {{"members", std::move(members)},
          {"not_checked", not_checked_json(s, c.estimates.not_checked)},
          {"mechanism", c.is_mechanism},
          {"untensioned", names_json(s, c.untensioned)},
          {"if_all_acted", c.if_all_acted ? Json(*c.if_all_acted) : Json(nullptr)}};
}

}  // namespace

std::string modes_json(const Structure& s, const Modes& modes) {
  Json j;
  j["format"] = "corvex-modes";
  j["version"] = 1;
  j["model"] = file::model_json(s);
  Json& vibration = j["vibration"] = Json::array();
  for (const VibrationMode& m : modes.vibration)
    vibration.push_back(
        {{"frequency", m.frequency.si()},
         {"period", m.period() ? Json(*m.period()) : Json(nullptr)},
         {"mass_share", {{"x", m.effective_mass_x}, {"y", m.effective_mass_y}, {"z", m.effective_mass_z}}},
         {"shape", shape_json(s, m.shape)}});
  Json& buckling = j["buckling"] = Json::object();
  for (const CaseBuckling& c : modes.buckling) {
    Json all = Json::array();
    for (const BucklingMode& m : c.modes) {
      Json members = Json::object();
      for (const BuckledMember& b : m.members)
        file::add(members, s[b.member].name,
                  {{"critical_force", b.critical_force.si()},
                   {"effective_length", b.effective_length.si()},
                   {"axis", std::string(1, b.axis)}});
      all.push_back({{"factor", m.factor},
                     {"mode", m.description},
                     {"shape", shape_json(s, m.shape)},
                     {"members", std::move(members)}});
    }
    file::add(buckling, c.load_case, std::move(all));
  }
  Json& estimates = j["estimates"] = Json::object();
  for (const CaseBuckling& c : modes.buckling) file::add(estimates, c.load_case, estimates_json(s, c));
  j["possible"] = modes.possible ? Json(*modes.possible) : Json(nullptr);
  j["untensioned"] = names_json(s, modes.untensioned);
  j["if_all_acted"] = modes.if_all_acted ? Json(modes.if_all_acted->si()) : Json(nullptr);
  j["out_of_plane"] = {{"frequency", modes.out_of_plane.lowest ? Json(modes.out_of_plane.lowest->si()) : Json(nullptr)},
                       {"not_checked", not_checked_json(s, modes.out_of_plane.not_checked)}};
  j["notes"] = file::findings_list(modes.notes);
  return file::json_text(j);
}

}  // namespace corvex
