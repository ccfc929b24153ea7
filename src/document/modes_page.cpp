// Natural frequencies and load factors of buckling as tables.
#include <fmt/format.h>

#include <cmath>

#include "corvex/document.hpp"
#include "corvex/number.hpp"

namespace corvex::document {
namespace {

// What moves most, across or along, and where: "rail along y, most at 1.2 m".
std::string movement_in_words(const Structure& s, const ModeShape& shape, const ModelUnits& u) {
  const Member& member = s.members()[shape.most_moved];
  const ModeShape::Place* most = nullptr;
  for (const ModeShape::Place& p : shape.members[shape.most_moved])
    if (!most || length(p.by) > length(most->by) * (1 + 1e-9)) most = &p;
  if (!most || zero(most->by)) return "nothing moves: a part turns about its own axis";
  const double parts[] = {std::abs(most->by.x), std::abs(most->by.y), std::abs(most->by.z)};
  std::string directions;
  // Directions with at least a half of the largest component.
  const double largest = std::max({parts[0], parts[1], parts[2]});
  for (std::size_t i = 0; i < 3; ++i)
    if (parts[i] >= 0.5 * largest) directions += (directions.empty() ? "" : " and ") + std::string(1, "xyz"[i]);
  std::string place = short_number(most->at / u.length.si, 4) + " " + u.length.text;
  for (std::size_t k = 0; k < member.through.size(); ++k)
    if (std::abs(s.place_of(member, k) - most->at) < 1e-9 * s.length_of(member)) place = s[member.through[k]].name;
  return fmt::format("{} along {}, most at {}", member.name, directions, place);
}

Table vibration_table(const Structure& s, const Modes& modes, const ModelUnits& u) {
  Table t{.name = "vibration", .title = "Natural frequencies"};
  t.columns = {words_column("mode", true), number_column("frequency", "Hz"), number_column("period", "s"),
               number_column("mass x", "%"), number_column("mass y", "%")};
  if (!s.is_plane()) t.columns.push_back(number_column("mass z", "%"));
  t.columns.push_back(words_column("what moves"));
  const auto share = [](double v) { return Cell(v < 5e-7 ? 0 : 100 * v); };
  for (std::size_t i = 0; i < modes.vibration.size(); ++i) {
    const VibrationMode& m = modes.vibration[i];
    std::vector<Cell> row{std::to_string(i + 1), Cell(m.frequency.si()), m.period() ? Cell(*m.period()) : unknown(),
                          share(m.mass_share_x), share(m.mass_share_y)};
    if (!s.is_plane()) row.push_back(share(m.mass_share_z));
    row.emplace_back(m.is_free ? "a part moves freely" : movement_in_words(s, m.shape, u));
    t.row(std::move(row));
  }
  t.after =
      "Mass: what of the whole mass goes with the mode when all supports move along the axis together. Frequency 0: "
      "nothing resists that movement.";
  return t;
}

Table buckling_table(const Structure& s, const CaseBuckling& c, const ModelUnits& u) {
  Table t{.name = "buckling", .title = "Load factors of buckling in " + c.load_case, .load_case = c.load_case};
  t.columns = {words_column("mode", true), number_column("factor"), words_column("what buckles")};
  for (std::size_t i = 0; i < c.modes.size(); ++i) {
    Cell factor(c.modes[i].factor);
    if (c.modes[i].factor < 1) factor.tone = Tone::bad;
    t.row({std::to_string(i + 1), factor, movement_in_words(s, c.modes[i].shape, u)});
  }
  t.after = "The loads of the case times the factor let the structure buckle.";
  return t;
}

Table members_table(const Structure& s, const CaseBuckling& c, const ModelUnits& u) {
  Table t{.name = "buckled members", .title = "Pressed members in mode 1 of " + c.load_case, .load_case = c.load_case};
  t.columns = {words_column("member", true), number_column("force", u.force.text),
               number_column("critical force", u.force.text), number_column("effective length", u.length.text),
               number_column("effective/own")};
  const BucklingMode& m = c.modes.front();
  for (const BuckledMember& b : m.members)
    t.row({s[b.member].name, Cell(b.critical_force.in(ForceSize::si(u.force.si)) / m.factor),
           Cell(b.critical_force.in(ForceSize::si(u.force.si))), Cell(b.effective_length.si() / u.length.si),
           Cell(b.effective_length.si() / s.length_of(s[b.member]))});
  t.after =
      "Critical force: the largest compression of the member when the structure buckles. Effective length: that of the "
      "hinged column that buckles at it, also divided by the member's own; long where the member is not what "
      "buckles.";
  return t;
}

}  // namespace

Page modes_page(const Structure& s, const Modes& modes, const ModelUnits& u) {
  Page page{Heading{s.title()}};
  if (!modes.vibration.empty()) page.emplace_back(vibration_table(s, modes, u));
  for (const CaseBuckling& c : modes.buckling) {
    if (c.modes.empty()) {
      page.emplace_back(
          Words{{{"", "Nothing buckles in " + c.load_case + ": no member is pressed so that it could."}}});
      continue;
    }
    page.emplace_back(buckling_table(s, c, u));
    page.emplace_back(members_table(s, c, u));
  }
  return page;
}

}  // namespace corvex::document
