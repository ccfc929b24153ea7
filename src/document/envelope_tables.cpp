#include <algorithm>
#include <cmath>
#include <numeric>

#include "corvex/envelope.hpp"
#include "document/number.hpp"
#include "document/result_tables.hpp"

namespace corvex::document {
namespace {

double size_of(const Range& r) {
  return std::max(std::abs(r.max.value.si), std::abs(r.min.value.si));
}

Column case_column(const std::string& data_head) {
  Column c = words_column("case");
  c.data_head = data_head;
  c.tied = true;
  return c;
}

// A name, what of it, its unit, then the largest and the least value with the case of each.
Table ranges(const char* name, const char* title, const char* of, const std::string* place_unit) {
  Table t{.name = name, .title = title};
  Column whose = words_column(of, true), what = words_column("", true), unit = words_column("unit", true);
  whose.grouped = true;
  what.data_head = "figure";
  unit.use = For::people;
  t.columns = {whose, what, unit};
  for (const std::string which : {"max", "min"}) {
    t.columns.push_back(number_column(which));
    t.columns.back().unit_of_row = true;
    if (place_unit) t.columns.push_back(place_column(*place_unit, which + " at"));
    t.columns.push_back(case_column(which + " case"));
  }
  return t;
}

struct Figure {
  const char* name;
  const char* part;  // where it goes in data
  const NamedUnit& unit;
  double size;  // reference size for rounding error
};

// Where along which member the extremes are.
struct Along {
  const Structure& structure;
  const Member& member;
  const NamedUnit& length;
};

// With places if they are along a member.
void add_range(Table& t, const std::string& whose, const Figure& f, const Range& r, const Along* along = nullptr) {
  Row row{.part = f.part, .unit = f.unit.text};
  row.cells = {whose, f.name, f.unit.text};
  const bool nothing = size_of(r) <= noise * f.size;
  if (nothing) row.use = For::data;
  for (const GoverningExtreme* e : {&r.max, &r.min}) {
    const double value = clean(e->value.si, f.unit, f.size);
    row.cells.push_back(value);
    if (along)
      row.cells.push_back(nothing ? Cell() : place_cell(along->structure, along->member, e->at, along->length));
    row.cells.push_back(nothing ? "" : e->load_case);
    // Nothing has no place and is of no case.
    if (value == 0)
      for (std::size_t k = row.cells.size() - (along ? 2 : 1); k < row.cells.size(); ++k) row.cells[k].data_only = true;
  }
  t.rows.push_back(std::move(row));
}

// Those that are marked; the first few, the largest of them first, where tables are short.
Rows chosen(const std::vector<double>& size, const std::vector<bool>& marked, bool whole, std::size_t most,
            bool always_sorted) {
  Rows rows;
  for (std::size_t i = 0; i < marked.size(); ++i)
    if (marked[i]) rows.shown.push_back(i);
  rows.all = rows.shown.size();
  if (whole || (!always_sorted && rows.all <= most)) return rows;
  const double largest = size.empty() ? 0 : *std::max_element(size.begin(), size.end());
  std::stable_sort(rows.shown.begin(), rows.shown.end(), [&](std::size_t a, std::size_t b) {
    return size[a] > size[b] * (1 + noise) + noise * noise * largest;
  });
  if (rows.all > most) rows.shown.resize(most);
  return rows;
}

// The six components of what happens at each of some points, and how large they are.
struct Sixes {
  std::vector<std::array<Range, 6>> all;
  std::vector<double> size;  // of the first three, for each point
  double first, second;      // the largest of the first three, and of the others, of all points

  void add(const std::array<Range, 6>& six) {
    all.push_back(six);
    size.push_back(std::max({size_of(six[0]), size_of(six[1]), size_of(six[2])}));
    first = std::max(first, size.back());
    second = std::max({second, size_of(six[3]), size_of(six[4]), size_of(six[5])});
  }
};

}  // namespace

EnvelopeTables::EnvelopeTables(const ModelUnits& units, const Solution& solution, const Selection& selection)
    : s_(solution.structure()), u_(units), solution_(solution), selection_(selection) {
  std::vector<double> use;
  bool known = true;
  for (std::size_t i = 0; i < s_.members().size(); ++i) {
    const MemberEnvelope& e = members_.emplace_back(envelope(solution, MemberId{i}));
    for (const MemberFigure& f : member_figures()) {
      if (!f.envelope) continue;
      using Kind = MemberFigure::Kind;
      double& size = f.kind == Kind::force ? sizes_.force : f.kind == Kind::moment ? sizes_.moment : sizes_.move;
      size = std::max(size, size_of(e.*f.envelope));
    }
    for (const auto* worst : {&e.max_stress, &e.min_stress, &e.von_mises})
      if (worst->stress) sizes_.stress = std::max(sizes_.stress, std::abs(worst->stress->value.si()));
    use.push_back(e.safety ? 1 / *e.safety : 0);
    known = known && (e.safety || !e.von_mises.stress || e.von_mises.stress->value.si() == 0);
  }
  // Where some strength is not known, stress replaces utilisation.
  if (!known)
    for (std::size_t i = 0; i < use.size(); ++i)
      use[i] = members_[i].von_mises.stress ? members_[i].von_mises.stress->value.si() : 0;
  rows_ = chosen(use, selection.members, selection.all, short_members, true);
}

Table EnvelopeTables::inner_forces() const {
  Table t = ranges("envelope", "Internal forces, local axes", "member", &u_.length.text);
  for (const std::size_t i : rows_.shown) {
    const MemberEnvelope& e = members_[i];
    const Member& m = s_.members()[i];
    const Along along{s_, m, u_.length};
    for (const MemberFigure& f : internal_forces(s_, m)) {
      const bool force = f.kind == MemberFigure::Kind::force;
      const Figure shown{f.symbol, force ? "forces" : "moments", force ? u_.force : u_.moment,
                         force ? sizes_.force : sizes_.moment};
      add_range(t, m.name, shown, e.*f.envelope, &along);
    }
  }
  t.after = rows_.rest("member", selection_.requests.member, selection_.requests);
  return t;
}

Table EnvelopeTables::stresses() const {
  const std::string& l = u_.length.text;
  Table t{.name = "envelope-stress", .title = "Stress, safety factor, deflection"};
  t.columns = {words_column("member", true)};
  for (const std::string head : {"tension", "compression", "von Mises"})
    t.columns.insert(t.columns.end(),
                     {number_column(head, u_.stress.text), place_column(l, head + " at"), case_column(head + " case")});
  t.columns.push_back(number_column("safety factor"));
  t.columns.back().most_digits = 3;
  t.columns.insert(t.columns.end(), {number_column("deflection", u_.deflection.text), place_column(l, "deflection at"),
                                     case_column("deflection case")});
  const auto without = [&](std::size_t i) { return leaves_out_warping(solution_, MemberId{i}); };
  const bool left_out = std::any_of(rows_.shown.begin(), rows_.shown.end(), without);
  if (left_out) t.columns.push_back(words_column("without"));
  for (const std::size_t i : rows_.shown) {
    const MemberEnvelope& e = members_[i];
    const Member& m = s_.members()[i];
    std::vector<Cell> cells{m.name};
    const auto add = [&](double value, Length at, const std::string& load_case) {
      cells.emplace_back(value);
      cells.push_back(value == 0 ? Cell() : place_cell(s_, m, at, u_.length));
      cells.push_back(value == 0 ? "" : load_case);
    };
    for (const auto& [worst, side] : {std::pair{&e.max_stress, 1.0}, {&e.min_stress, -1.0}, {&e.von_mises, 0.0}}) {
      if (!worst->stress) {
        cells.insert(cells.end(), {unknown(), Cell(), Cell()});
        continue;
      }
      const double si = worst->stress->value.si();
      add(si * side > 0 || side == 0 ? clean(si, u_.stress, sizes_.stress) : 0, worst->stress->at, worst->load_case);
    }
    const bool stressed = e.von_mises.stress && std::abs(e.von_mises.stress->value.si()) > noise * sizes_.stress;
    cells.push_back(e.safety && stressed ? Cell(*e.safety) : unknown());
    if (e.safety && stressed && *e.safety < 1) cells.back().tone = Tone::bad;
    add(clean(e.sag.value.si, u_.deflection, sizes_.move), e.sag.at, e.sag.load_case);
    if (left_out) cells.emplace_back(without(i) ? "warping stress" : "");
    t.row(std::move(cells));
  }
  t.after = rows_.rest("member", selection_.requests.member, selection_.requests);
  return t;
}

Table EnvelopeTables::movements() const {
  static constexpr const char* names[] = {"x", "y", "z", "about x", "about y", "about z"};
  Sixes moves{.all = {}, .size = {}, .first = sizes_.move, .second = 0};
  for (std::size_t i = 0; i < s_.points().size(); ++i) moves.add(displacement_envelope(solution_, PointId{i}));
  Table t = ranges("envelope", "Displacements, global axes", "point", nullptr);
  const Rows rows = chosen(moves.size, selection_.points, selection_.all, short_points / 2, true);
  for (const std::size_t i : rows.shown) {
    const bool turns = solution_[solution_.assessed().front()].turns(PointId{i});
    for (std::size_t k = 0; k < 6; ++k) {
      if (s_.is_plane() && k >= 2 && k <= 4) continue;
      if (k >= 3 && !turns) continue;
      const Figure figure = k < 3 ? Figure{names[k], "displacements", u_.deflection, moves.first}
                                  : Figure{names[k], "rotations", u_.angle, moves.second};
      add_range(t, s_.points()[i].name, figure, moves.all[i][k]);
    }
  }
  t.after = rows.rest("point", selection_.requests.point, selection_.requests);
  return t;
}

Table EnvelopeTables::reactions() const {
  static constexpr const char* names[] = {"Fx", "Fy", "Fz", "Mx", "My", "Mz"};
  Sixes reactions{.all = {}, .size = {}, .first = sizes_.force, .second = sizes_.moment};
  std::vector<bool> marked;
  for (const PointSupport& p : s_.supports()) {
    reactions.add(reaction_envelope(solution_, p.at));
    marked.push_back(selection_.points[p.at.index]);
  }
  Table t = ranges("envelope-reactions", "Reactions, global axes", "point", nullptr);
  const Rows rows = chosen(reactions.size, marked, selection_.all, short_points, false);
  for (const std::size_t i : rows.shown)
    for (std::size_t k = 0; k < 6; ++k) {
      const PointSupport& p = s_.supports()[i];
      if (!p.gives(k) || (s_.is_plane() && k >= 2 && k <= 4)) continue;
      const Figure figure = k < 3 ? Figure{names[k], "forces", u_.force, reactions.first}
                                  : Figure{names[k], "moments", u_.moment, reactions.second};
      add_range(t, s_[p.at].name, figure, reactions.all[i][k]);
    }
  t.after = rows.rest("support", selection_.requests.point, selection_.requests);
  return t;
}

}  // namespace corvex::document
