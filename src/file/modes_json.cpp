// Natural frequencies and load factors as JSON.
#include "corvex/file.hpp"
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

}  // namespace

std::string modes_json(const Structure& s, const Modes& modes) {
  Json j;
  j["format"] = "corvex-modes";
  j["version"] = 1;
  j["model"] = file::model_json(s);
  Json& vibration = j["vibration"] = Json::array();
  for (const VibrationMode& m : modes.vibration)
    vibration.push_back({{"frequency", m.frequency.si()},
                         {"period", m.period() ? Json(*m.period()) : Json(nullptr)},
                         {"mass_share", {{"x", m.mass_share_x}, {"y", m.mass_share_y}, {"z", m.mass_share_z}}},
                         {"shape", shape_json(s, m.shape)}});
  Json& buckling = j["buckling"] = Json::object();
  for (const CaseBuckling& c : modes.buckling) {
    Json all = Json::array();
    for (const BucklingMode& m : c.modes) {
      Json members = Json::object();
      for (const BuckledMember& b : m.members)
        file::add(members, s[b.member].name,
                  {{"critical_force", b.critical_force.si()}, {"effective_length", b.effective_length.si()}});
      all.push_back({{"factor", m.factor}, {"shape", shape_json(s, m.shape)}, {"members", std::move(members)}});
    }
    file::add(buckling, c.load_case, std::move(all));
  }
  j["notes"] = file::findings_list(modes.notes);
  return file::json_text(j);
}

}  // namespace corvex
