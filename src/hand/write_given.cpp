#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "hand/write_chapters.hpp"

namespace corvex::hand {
namespace {

using Cell = DerivationTable::Cell;

Cell word_cell(std::string text) {
  return {std::move(text), {}};
}
Cell number_cell(double v) {
  return {{}, v};
}

DerivationTable joints_table(const Skeleton& k) {
  DerivationTable t{.name = "joints", .title = "Joints"};
  t.columns = {{"joint", {}}, {"x", dimension::length}, {"y", dimension::length}};
  if (!k.plane) t.columns.push_back({"z", dimension::length});
  for (std::size_t p = 0; p < k.used.size(); ++p) {
    if (!k.used[p]) continue;
    const Point& point = k.structure->points()[p];
    t.rows.push_back({word_cell(point.name), number_cell(point.position.x), number_cell(point.position.y)});
    if (!k.plane) t.rows.back().push_back(number_cell(point.position.z));
  }
  return t;
}

DerivationTable pieces_table(const Skeleton& k) {
  DerivationTable t{.name = "parts", .title = "Members between their joints, with the cosines of their axes"};
  t.columns = {{"part", {}},
               {"member", {}},
               {"kind", {}},
               {"L", dimension::length},
               {"cos x", dimension::number},
               {"cos y", dimension::number}};
  if (!k.plane) t.columns.push_back({"cos z", dimension::number});
  const bool beams = std::any_of(k.pieces.begin(), k.pieces.end(), [](const Piece& p) { return p.beam; });
  if (beams) {
    t.columns.push_back({"across: x", dimension::number});
    t.columns.push_back({"across: y", dimension::number});
    if (!k.plane) t.columns.push_back({"across: z", dimension::number});
  }
  for (const Piece& p : k.pieces) {
    std::vector<Cell> row{word_cell(p.name), word_cell(k.structure->members()[p.member].name),
                          word_cell(p.beam ? "beam" : "bar"), number_cell(p.length)};
    const auto add = [&](const Vector& v) {
      row.push_back(number_cell(v.x)), row.push_back(number_cell(v.y));
      if (!k.plane) row.push_back(number_cell(v.z));
    };
    add(p.axes.x);
    if (beams) add(p.axes.y);
    t.rows.push_back(std::move(row));
  }
  return t;
}

// In space a section without an axis of symmetry along y or z bends about its principal axes.
bool has_turned_sections(const Skeleton& k) {
  return std::any_of(k.pieces.begin(), k.pieces.end(), [](const Piece& p) { return p.beam && p.turn != 0; });
}

DerivationTable rigidities_table(const ForceMethod& m) {
  const Skeleton& k = m.skeleton();
  DerivationTable t{.name = "rigidities", .title = "Rigidities"};
  t.columns = {{"member", {}}, {"section", {}}, {"material", {}}, {"EA", dimension::force}};
  const Dimension bending = dimension::force * dimension::area;
  const auto any = [&](double Flexibility::*f) {
    return std::any_of(k.pieces.begin(), k.pieces.end(), [&](const Piece& p) { return p.flexible.*f != 0; });
  };
  struct Column {
    const char* head;
    Dimension dimension;
    double Flexibility::*flexibility;
  };
  std::vector<Column> columns;
  const bool turned = has_turned_sections(k);
  const auto head = [&](const char* plane, const char* space, const char* principal) {
    return k.plane ? plane : turned ? principal : space;
  };
  for (const Column& c : {Column{head("EI", "EIz", "EI1"), bending, &Flexibility::EIz},
                          {head("", "EIy", "EI2"), bending, &Flexibility::EIy},
                          {"GJ", bending, &Flexibility::GJ},
                          {head("GAs", "GAy", "GA1"), dimension::force, &Flexibility::GAy},
                          {head("", "GAz", "GA2"), dimension::force, &Flexibility::GAz}}) {
    const bool counts = !k.plane || (c.flexibility != &Flexibility::EIy && c.flexibility != &Flexibility::GAz);
    if (counts && any(c.flexibility)) columns.push_back(c), t.columns.push_back({c.head, c.dimension});
  }
  if (turned) t.columns.push_back({"α", dimension::angle});
  for (std::size_t i = 0; i + 1 < k.first.size(); ++i) {
    const Member& member = k.structure->members()[i];
    const Piece& p = k.pieces[k.first[i]];
    std::vector<Cell> row{word_cell(member.name), word_cell(k.structure->sections()[member.section.index].name),
                          word_cell(k.structure->material_of(member).name), number_cell(1 / p.flexible.EA)};
    for (const Column& c : columns) {
      const double f = p.flexible.*c.flexibility;
      row.push_back(f > 0 ? number_cell(1 / f) : word_cell("–"));
    }
    if (turned) row.push_back(number_cell(p.turn));
    t.rows.push_back(std::move(row));
  }
  return t;
}

void add_vector(std::vector<Cell>& row, const Vector& v, bool plane) {
  row.push_back(number_cell(v.x)), row.push_back(number_cell(v.y));
  if (!plane) row.push_back(number_cell(v.z));
}

// The tables of what acts, one for each kind of load; those without rows are left out.
class LoadTables {
 public:
  explicit LoadTables(const ForceMethod& m) : k_(m.skeleton()), s_(*k_.structure), a_(m.acting) {}

  void operator()(DerivationChapter& chapter) const {
    for (DerivationTable& t : std::array{forces(), lines(), turning(), changes(), strains(), settlements(), springs()})
      if (!t.rows.empty()) chapter.items.emplace_back(std::move(t));
  }

 private:
  void add_axes(DerivationTable& t, const char* prefix, const Dimension& d) const {
    for (const char* axis : {"x", "y", "z"})
      if (!k_.plane || *axis != 'z') t.columns.push_back({std::string(prefix) + axis, d});
  }

  DerivationTable forces() const {
    DerivationTable t{.name = "forces", .title = "Loads at places"};
    t.columns = {{"load", {}}, {"kind", {}}, {"at", {}}, {"place", dimension::length}};
    add_axes(t, "F", dimension::force);
    if (k_.plane)
      t.columns.push_back({"M", dimension::moment});
    else
      add_axes(t, "M", dimension::moment);
    const auto add = [&](const auto& load, const std::string& at, Cell place) {
      std::vector<Cell> row{word_cell(load.name), word_cell(name(load.kind)), word_cell(at), std::move(place)};
      add_vector(row, load.force, k_.plane);
      if (k_.plane)
        row.push_back(number_cell(load.moment.z));
      else
        add_vector(row, load.moment, false);
      t.rows.push_back(std::move(row));
    };
    for (const JointOn& l : a_.joints) add(l, s_.points()[l.point].name, word_cell(""));
    for (const PlaceOn& l : a_.places) {
      const Piece& p = k_.pieces[l.piece];
      add(l, s_.members()[p.member].name, number_cell(p.start + l.at));
    }
    return t;
  }

  DerivationTable lines() const {
    DerivationTable t{.name = "line loads", .title = "Line loads"};
    t.columns = {{"load", {}}, {"kind", {}}, {"on", {}}, {"from", dimension::length}, {"to", dimension::length}};
    add_axes(t, "first ", dimension::line_force);
    add_axes(t, "last ", dimension::line_force);
    for (const LineOn& l : a_.lines) {
      std::vector<Cell> row{word_cell(l.name), word_cell(name(l.kind)), word_cell(s_.members()[l.member].name),
                            number_cell(l.from), number_cell(l.to)};
      add_vector(row, l.first, k_.plane);
      add_vector(row, l.last, k_.plane);
      t.rows.push_back(std::move(row));
    }
    return t;
  }

  DerivationTable turning() const {
    DerivationTable t{.name = "line moments", .title = "Moments per length from levers about the axis"};
    t.columns = {{"load", {}}, {"on", {}}};
    add_axes(t, "first ", dimension::force);
    add_axes(t, "last ", dimension::force);
    for (const LineOn& l : a_.lines) {
      if (zero(l.first_moment) && zero(l.last_moment)) continue;
      std::vector<Cell> row{word_cell("m" + l.name), word_cell(s_.members()[l.member].name)};
      add_vector(row, l.first_moment, k_.plane);
      add_vector(row, l.last_moment, k_.plane);
      t.rows.push_back(std::move(row));
    }
    return t;
  }

  DerivationTable changes() const {
    DerivationTable t{.name = "free changes", .title = "Temperature changes and lack of fit"};
    t.columns = {{"kind", {}},
                 {"member", {}},
                 {"on the side of +", dimension::temperature},
                 {"on that of -", dimension::temperature},
                 {"too short by", dimension::length}};
    for (const FreeChange& c : a_.changes) {
      const bool heat = c.kind == LoadKind::temperature_change;
      const auto cell = [](bool shown, double value) { return shown ? number_cell(value) : word_cell(""); };
      t.rows.push_back({word_cell(name(c.kind)), word_cell(s_.members()[c.member].name), cell(heat, c.plus),
                        cell(heat, c.minus), cell(!heat, c.shorter_by)});
    }
    return t;
  }

  DerivationTable strains() const {
    DerivationTable t{.name = "strains", .title = "Elongation per length and curvatures caused by them"};
    t.columns = {
        {"member", {}}, {"elongation", dimension::number}, {"curvature", dimension::number / dimension::length}};
    if (!k_.plane) t.columns.push_back({"curvature in x-z", dimension::number / dimension::length});
    for (std::size_t i = 0; i < a_.strains.size(); ++i) {
      if (a_.strains[i].none()) continue;
      std::vector<Cell> row{word_cell(s_.members()[i].name), number_cell(a_.strains[i].along),
                            number_cell(a_.strains[i].curve_y)};
      if (!k_.plane) row.push_back(number_cell(a_.strains[i].curve_z));
      t.rows.push_back(std::move(row));
    }
    return t;
  }

  DerivationTable settlements() const {
    DerivationTable t{.name = "settlements", .title = "Settlements along the reactions"};
    t.columns = {{"reaction", {}}, {"movement", dimension::length}};
    for (std::size_t i = 0; i < a_.ground.size(); ++i)
      if (a_.ground[i] != 0) t.rows.push_back({word_cell(k_.holds[i].name), number_cell(a_.ground[i])});
    return t;
  }

  DerivationTable springs() const {
    DerivationTable t{.name = "springs", .title = "Springs"};
    t.columns = {{"reaction", {}}, {"stiffness", Stiffness::dimension()}};
    for (const Hold& h : k_.holds)
      if (h.stiffness > 0) t.rows.push_back({word_cell(h.name), number_cell(h.stiffness)});
    return t;
  }

  const Skeleton& k_;
  const Structure& s_;
  const Acting& a_;
};

}  // namespace

DerivationChapter given_chapter(const ForceMethod& m) {
  DerivationChapter c{.name = "given", .title = "Given"};
  c.items.emplace_back(joints_table(m.skeleton()));
  c.items.emplace_back(pieces_table(m.skeleton()));
  c.items.emplace_back(rigidities_table(m));
  if (has_turned_sections(m.skeleton()))
    c.items.emplace_back(sentence(
        "1 and 2 are the principal axes of a section: its z and y axes turned by the angle α from y towards z. EI1 is "
        "the bending stiffness about axis 1, GA1 the shear stiffness across it. The internal forces My, Mz, Vy, Vz are "
        "about and along the axes y and z of the member."));
  const LoadTables tables(m);
  tables(c);
  const bool plane = m.skeleton().plane;
  c.items.emplace_back(sentence(
      plane
          ? "Names: A_x, A_y, M_A are reactions on the structure at A, M counter-clockwise. S_AB is the "
            "force in the bar from A to B; N_AB, V_AB and M_AB are the internal forces of a member at its end at A, "
            "N_BA and so on those at B. N is tension; V = dM/dx; M is positive if it causes tension on the side opposite to "
            "the member's y axis (across)."
          : "Names: A_x and M_Ax are reactions on the structure at A, along and about x. S_AB is the "
            "force in the bar from A to B; N_AB, Vy_AB, Vz_AB, T_AB, My_AB, Mz_AB are the internal forces of a member "
            "at its end at A, N_BA and so on those at B. N is tension; Mz is positive if it causes tension on the −y side, "
            "My on the −z side; V = dM/dx."));
  return c;
}

DerivationChapter count_chapter(const ForceMethod& m, std::vector<std::string>& redundants) {
  const StaticCount& n = m.statics->count();
  const Skeleton& k = m.skeleton();
  DerivationChapter c{.name = "count", .title = "Unknowns and equations"};
  const std::size_t of_beam = k.plane ? 3 : 6, slack = m.slack.size();
  std::string text;
  if (n.members > 0)
    text += fmt::format("{} {} with {} unknown forces{}, ", n.members,
                        n.members == 1 ? "part of a beam" : "parts of beams", of_beam, n.members == 1 ? "" : " each");
  if (n.bars > slack)
    text += fmt::format("{} {} with one unknown force{}, ", n.bars - slack, n.bars - slack == 1 ? "bar" : "bars",
                        n.bars - slack == 1 ? "" : " each");
  text += fmt::format("{} reactions", n.reactions);
  if (n.releases > 0) text += fmt::format(", less {} released", n.releases);
  text += fmt::format(": {} unknowns. Equilibrium of {} joints gives {} independent equations. ", n.unknowns, n.joints,
                      n.equations);
  if (n.degree == 0)
    text += fmt::format("{} − {} = 0: the structure is statically determinate.", n.unknowns, n.equations);
  else
    text += fmt::format("{} − {} = {}: the structure is statically indeterminate to degree {}.", n.unknowns,
                        n.equations, n.degree, n.degree);
  c.items.emplace_back(sentence(std::move(text)));
  if (n.degree == 0) return c;
  c.items.emplace_back(
      sentence("The following redundants are released to obtain a stable, statically determinate primary structure:"));
  DerivationTable t{.name = "redundants", .title = "Redundants"};
  t.columns = {{"name", {}}, {"is", {}}};
  for (std::size_t i = 0; i < n.degree; ++i) {
    redundants.push_back(fmt::format("{} = {}", redundant_name(i), in_words(m, m.redundant(i))));
    t.rows.push_back({word_cell(redundant_name(i)), word_cell(in_words(m, m.redundant(i)))});
  }
  c.items.emplace_back(std::move(t));
  return c;
}

std::string redundant_name(std::size_t i) {
  return fmt::format("X{}", i + 1);
}

Dimension dimension_of(const Skeleton& k, const Unknown& u) {
  const bool moment = u.reaction ? k.holds[u.index].turning : u.component >= T;
  return moment ? dimension::moment : dimension::force;
}

std::size_t key_of(const Ledger& l, const Unknown& u) {
  return u.reaction ? l.of_hold(u.index) : l.of_end(u.index, u.component, true);
}

std::string in_words(const ForceMethod& m, const Unknown& u) {
  const Skeleton& k = m.skeleton();
  const Structure& s = *k.structure;
  if (u.reaction) {
    const Hold& h = k.holds[u.index];
    const std::string at = s.points()[h.point].name, name = fmt::format(" ({})", h.name);
    const std::string what = h.stiffness > 0 ? "force of the spring" : "reaction";
    if (h.turning) return (h.stiffness > 0 ? "moment of the spring at " : "fixing moment at ") + at + name;
    const double up = std::abs(dot(h.direction, s.up_direction()));
    if (up > 1 - 1e-9) return fmt::format("vertical {} at {}{}", what, at, name);
    if (k.plane && up < 1e-9) return fmt::format("horizontal {} at {}{}", what, at, name);
    if (k.plane) return fmt::format("inclined {} at {}{}", what, at, name);
    const char* axis = std::abs(h.direction.x) > 0.999 ? "x" : std::abs(h.direction.y) > 0.999 ? "y" : "its direction";
    return fmt::format("{} at {} along {}{}", what, at, axis, name);
  }
  const Piece& p = k.pieces[u.index];
  static constexpr const char* words[] = {
      "axial force",   "shear force", "shear force along z", "torsional moment", "bending moment about y",
      "bending moment"};
  if (!p.beam) return fmt::format("force in bar {} ({})", s.members()[p.member].name, "S_" + p.name);
  return fmt::format("{} in {} at {}", words[u.component], s.members()[p.member].name, s.points()[p.a].name);
}

}  // namespace corvex::hand
