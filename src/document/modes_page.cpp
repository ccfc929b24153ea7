// Tables of natural frequencies and critical load factors.
#include <fmt/format.h>

#include <cmath>

#include "corvex/document.hpp"
#include "corvex/number.hpp"

namespace corvex::document {
namespace {

// The largest displacement of a mode, its direction and place: "rail along y, most at 1.2 m".
std::string movement_in_words(const Structure& s, const ModeShape& shape, const ModelUnits& u) {
  const Member& member = s.members()[shape.member_of_largest];
  const ModeShape::Place* most = nullptr;
  for (const ModeShape::Place& p : shape.members[shape.member_of_largest])
    if (!most || length(p.by) > length(most->by) * (1 + 1e-9)) most = &p;
  if (!most || zero(most->by)) return "no displacement: a part rotates about its axis";
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

// ", most at 1.2 m": where what moves most does so, unless that is a point.
std::string place_in_words(const Structure& s, const ModeShape& shape, const ModelUnits& u) {
  const std::string all = movement_in_words(s, shape, u);
  const std::size_t at = all.find(", most at ");
  if (at == std::string::npos) return "";
  const std::string place = all.substr(at + 10);
  return s.find_point(place) ? "" : ", most at " + place;
}

Table vibration_table(const Structure& s, const Modes& modes, const ModelUnits& u) {
  Table t{.name = "vibration", .title = "Natural frequencies"};
  t.columns = {words_column("mode", true), number_column("frequency", "Hz"), number_column("period", "s"),
               number_column("mass x", "%"), number_column("mass y", "%")};
  if (!s.is_plane()) t.columns.push_back(number_column("mass z", "%"));
  t.columns.push_back(words_column("mode shape"));
  const auto share = [](double v) { return Cell(v < 5e-7 ? 0 : 100 * v); };
  for (std::size_t i = 0; i < modes.vibration.size(); ++i) {
    const VibrationMode& m = modes.vibration[i];
    std::vector<Cell> row{std::to_string(i + 1), Cell(m.frequency.si()), m.period() ? Cell(*m.period()) : unknown(),
                          share(m.effective_mass_x), share(m.effective_mass_y)};
    if (!s.is_plane()) row.push_back(share(m.effective_mass_z));
    row.emplace_back(m.is_free ? "rigid-body motion" : movement_in_words(s, m.shape, u));
    t.row(std::move(row));
  }
  t.after = modes.possible ? fmt::format("The masses have {} natural frequencies. ", *modes.possible) : "";
  if (!modes.untensioned.empty()) {
    std::string names;
    for (const MemberId m : modes.untensioned) names += (names.empty() ? "'" : ", '") + s[m].name + "'";
    t.say_beneath(fmt::format(
        "! without {}, one-way members without force{}", names,
        modes.if_all_acted ? fmt::format("; {} Hz if they acted too", short_number(modes.if_all_acted->si(), 4)) : ""));
  }
  if (const OutOfPlaneVibration& out = modes.out_of_plane; out.lowest)
    t.say_beneath(fmt::format("Out of the plane: '{}' between its restraints at {} Hz (estimated)", s[*out.member].name,
                              short_number(out.lowest->si(), 4)));
  t.after +=
      "Mass: effective modal mass along each axis, as a share of the total mass. Frequency 0: a rigid-body motion.";
  return t;
}

Table buckling_table(const Structure& s, const CaseBuckling& c, const ModelUnits& u) {
  Table t{.name = "buckling", .title = "Critical load factors, '" + c.load_case + "'", .load_case = c.load_case};
  t.columns = {words_column("mode", true), number_column("load factor"), words_column("mode shape")};
  const auto row = [&](std::string mode, double value, std::string what) {
    Cell factor(value);
    if (value < 1) factor.tone = Tone::bad;
    t.row({std::move(mode), factor, std::move(what)});
  };
  for (std::size_t i = 0; i < c.modes.size(); ++i)
    row(std::to_string(i + 1), c.modes[i].factor,
        fmt::format("{}{}", c.modes[i].description, place_in_words(s, c.modes[i].shape, u)));
  if (c.is_mechanism) row("1", 0, c.governing(s));
  // Estimates are lines of their own: the lowest few.
  constexpr std::size_t most_estimates = 5;
  for (std::size_t i = 0; i < std::min(most_estimates, c.estimates.members.size()); ++i)
    row("estimated", c.estimates.members[i].factor, words(s, c.estimates.members[i], false));
  t.after = s.is_plane() ? "Numbered modes: bending in the plane. " : "Numbered modes: bending. ";
  t.after +=
      "Estimated: lower bounds for single members between their restraints. Elastic critical load = load of the case "
      "multiplied by the factor.";
  for (const UncoveredMember& m : c.estimates.not_checked)
    t.say_beneath(fmt::format("! not checked: '{}': {}; {}", s[m.member].name, m.reason, m.remedy));
  if (c.if_all_acted)
    t.say_beneath(fmt::format("! factors without the untensioned members; {} if they acted too",
                              short_number(*c.if_all_acted, 4)));
  return t;
}

Table members_table(const Structure& s, const CaseBuckling& c, const ModelUnits& u) {
  Table t{.name = "buckled members",
          .title = "Members in compression, mode 1 of '" + c.load_case + "'",
          .load_case = c.load_case};
  t.columns = {words_column("member", true),
               number_column("force", u.force.text),
               number_column("critical force", u.force.text),
               words_column("about"),
               number_column("effective length", u.length.text),
               number_column("ratio")};
  const BucklingMode& m = c.modes.front();
  for (const BuckledMember& b : m.members)
    t.row({s[b.member].name, Cell(b.critical_force.in(ForceSize::si(u.force.si)) / m.factor),
           Cell(b.critical_force.in(ForceSize::si(u.force.si))), std::string(1, b.axis),
           Cell(b.effective_length.si() / u.length.si), Cell(b.effective_length.si() / s.length_of(s[b.member]))});
  t.after =
      "Critical force: largest compression of the member at the critical load. Effective length: length of the pinned "
      "column that buckles at this force; ratio: effective length over length of the member. Not meaningful for a member "
      "that does not take part in the mode.";
  return t;
}

}  // namespace

Page modes_page(const Structure& s, const Modes& modes, const ModelUnits& u) {
  Page page{Heading{s.title()}};
  if (!modes.vibration.empty()) page.emplace_back(vibration_table(s, modes, u));
  for (const CaseBuckling& c : modes.buckling) {
    if (c.modes.empty() && !c.is_mechanism && c.estimates.members.empty() && c.estimates.not_checked.empty()) {
      page.emplace_back(
          Words{{{"", "No elastic buckling in '" + c.load_case + "': no compression that could cause it."}}});
      continue;
    }
    page.emplace_back(buckling_table(s, c, u));
    if (c.modes.empty()) continue;
    page.emplace_back(members_table(s, c, u));
  }
  return page;
}

}  // namespace corvex::document
