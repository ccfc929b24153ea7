// The chapter of results: the envelope, the cases, the members that govern.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/envelope.hpp"
#include "picture/pictures.hpp"
#include "report/book.hpp"
#include "report/names.hpp"

namespace corvex::reporting {
namespace {

// Tables are complete up to this number of members, each case is listed up to this number.
constexpr std::size_t most_members = 60, most_cases = 12, most_sheets = 3;

document::Selection selection(const Source& source) {
  document::Selection shown = *document::select(source.solution, {});
  shown.all = source.options.all || source.model.structure.members().size() <= most_members;
  return shown;
}

bool is_there(const Source& source, std::size_t index, PictureOf what) {
  const CaseResult c = source.solution[index];
  double size = 0, shown = 0;
  for (std::size_t i = 0; i < source.model.structure.members().size(); ++i) {
    const MemberResult m = c[MemberId(i)];
    const auto largest = [](const Diagram& d) { return std::abs(d.largest().si); };
    const double force = std::max({largest(m.axial()), largest(m.shear_y()), largest(m.shear_z())});
    const double moment = std::max(largest(m.moment_y()), largest(m.moment_z()));
    const double torsion = largest(m.torsion());
    const bool bends = what == PictureOf::moment || what == PictureOf::torsion;
    size = std::max(size, bends ? std::max(moment, torsion) : force);
    const double own = what == PictureOf::axial    ? largest(m.axial())
                       : what == PictureOf::shear  ? std::max(largest(m.shear_y()), largest(m.shear_z()))
                       : what == PictureOf::moment ? moment
                                                   : torsion;
    shown = std::max(shown, own);
  }
  return shown > 1e-9 * size;
}

bool strength_known(const Source& source, std::size_t index) {
  const CaseResult c = source.solution[index];
  for (std::size_t i = 0; i < source.model.structure.members().size(); ++i)
    if (c[MemberId(i)].strength()) return true;
  return false;
}

void add_pictures(Chapter& chapter, const Source& source, std::size_t index) {
  const std::string& name = source.solution[index].name();
  struct Shown {
    PictureOf of;
    const char *file, *caption;
  };
  static constexpr Shown all[] = {{PictureOf::axial, "axial", "Axial force N"},
                                  {PictureOf::shear, "shear", "Shear force V"},
                                  {PictureOf::moment, "moment", "Bending moment M"},
                                  {PictureOf::torsion, "torsion", "Torsional moment T"}};
  add_diagram(chapter, source, {"deformed-" + file_name(name), "Deformed shape in '" + name + "'"},
              {.of = PictureOf::deformed, .load_case = name});
  for (const Shown& s : all)
    if (is_there(source, index, s.of))
      add_diagram(chapter, source, {s.file + ("-" + file_name(name)), fmt::format("{} in '{}'", s.caption, name)},
                  {.of = s.of, .load_case = name});
  const bool use = strength_known(source, index);
  add_diagram(chapter, source,
              {(use ? "utilisation-" : "stress-") + file_name(name),
               (use ? "Utilisation: von Mises stress over strength, in '" : "Largest normal stress in '") + name + "'"},
              {.of = use ? PictureOf::utilisation : PictureOf::stress, .load_case = name});
  add_picture(chapter, source, {"reactions-" + file_name(name), "Reactions in '" + name + "'"},
              {.of = PictureOf::reactions, .load_case = name}, 175);
}

// Of a case without pictures: the envelope has the extremes of displacements and stresses.
bool is_brief(const Table& t) {
  return t.title.rfind("Reactions", 0) == 0 || t.title.rfind("Internal forces", 0) == 0;
}

void add_case(Chapter& chapter, const Source& source, std::size_t index, bool with_pictures) {
  chapter.items.emplace_back(Heading{source.solution[index].name(), 2});
  for (Words& w : document::summaries_of(source.model.units, source.solution, {index}, true, source.options.digits)) {
    // The case is in the heading.
    for (Line& line : w.lines) line.label.clear();
    chapter.items.emplace_back(std::move(w));
  }
  if (with_pictures) add_pictures(chapter, source, index);
  for (Table& t : document::tables_of_case(source.model.units, source.solution, index, selection(source)))
    if (with_pictures || is_brief(t)) chapter.items.emplace_back(std::move(t));
}

// The beams that are used most, each by its worst case.
void add_governing_members(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  struct Used {
    std::size_t member, load_case;
    double use;
  };
  std::vector<Used> order;
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    if (s.members()[i].kind != MemberKind::beam) continue;
    const std::size_t worst = governing_case(source.solution, MemberId(i));
    const MemberResult m = source.solution[worst][MemberId(i)];
    const auto stress = m.von_mises();
    const auto strength = m.strength();
    if (stress) order.push_back({i, worst, stress->value.si() / (strength ? strength->si() : 1e300)});
  }
  std::stable_sort(order.begin(), order.end(), [](const Used& a, const Used& b) { return a.use > b.use * (1 + 1e-9); });
  const std::size_t sheets = source.options.all ? most_sheets : 1;
  if (order.size() > sheets) order.resize(sheets);
  if (order.empty()) return;
  chapter.items.emplace_back(
      Heading{order.size() == 1 ? "Governing member" : "Members with the highest utilisation", 2});
  for (const Used& u : order) {
    const std::string &name = s.members()[u.member].name, load_case = source.solution[u.load_case].name();
    add_picture(chapter, source, {"sheet-" + file_name(name), fmt::format("Member '{}' in '{}'", name, load_case)},
                {.of = PictureOf::sheet, .load_case = load_case, .only = {MemberId(u.member)}}, 370);
  }
  const Used& first = order.front();
  const std::string &name = s.members()[first.member].name, load_case = source.solution[first.load_case].name();
  add_picture(chapter, source,
              {"section-" + file_name(name),
               fmt::format("Section of '{}' with the stress at the place of the largest von Mises stress, in '{}'",
                           name, load_case)},
              {.of = PictureOf::section, .load_case = load_case, .only = {MemberId(first.member)}}, 390);
}

std::vector<std::size_t> cases_named(const Solution& solution, const std::vector<std::string>& names) {
  std::vector<std::size_t> found;
  for (std::size_t i = 0; i < solution.size(); ++i)
    if (std::find(names.begin(), names.end(), solution[i].name()) != names.end()) found.push_back(i);
  return found;
}

// The governing case, if it is one of these; otherwise the first.
std::size_t governing(const Source& source, const std::vector<std::size_t>& cases) {
  const std::size_t governs = governing_case(source.solution);
  return std::find(cases.begin(), cases.end(), governs) == cases.end() ? cases.front() : governs;
}

}  // namespace

void add_results(Chapter& chapter, const Source& source) {
  std::vector<std::size_t> assessed = source.solution.assessed();
  // Other directions of an imperfection are in the envelope.
  std::erase_if(assessed, [&](std::size_t c) { return source.solution.base_of(c) != c; });
  const std::vector<std::string>& wanted = source.options.cases;
  if (!wanted.empty()) assessed = cases_named(source.solution, wanted);
  if (assessed.size() > 1 && wanted.empty()) {
    chapter.items.emplace_back(
        Heading{fmt::format("Envelope of {} {}", assessed.size(),
                            source.model.structure.combinations().empty() ? "load cases" : "combinations"),
                2});
    struct Enveloped {
      PictureOf of;
      const char *file, *caption;
    };
    for (const Enveloped& e : {Enveloped{PictureOf::shear, "envelope-shear", "Shear force V, envelope"},
                               {PictureOf::moment, "envelope-moment", "Bending moment M, envelope"}})
      if (std::any_of(assessed.begin(), assessed.end(), [&](std::size_t i) { return is_there(source, i, e.of); }))
        add_diagram(chapter, source, {e.file, e.caption}, {.of = e.of, .load_case = "envelope"});
    for (Table& t : document::tables_of_envelope(source.model.units, source.solution, selection(source)))
      chapter.items.emplace_back(std::move(t));
  }
  const std::size_t first = governing(source, assessed);
  add_case(chapter, source, first, true);
  std::erase(assessed, first);
  const bool all = source.options.all || !source.options.cases.empty();
  for (std::size_t k = 0; k < assessed.size(); ++k)
    if (all || k < most_cases) add_case(chapter, source, assessed[k], all);
  if (!all && assessed.size() > most_cases)
    chapter.items.emplace_back(
        Words{{{"", fmt::format("The other {} cases are in the envelope only.", assessed.size() - most_cases)}}});
  add_governing_members(chapter, source);
}

}  // namespace corvex::reporting
