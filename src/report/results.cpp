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
constexpr std::size_t most_members = 60, most_cases = 3, most_sheets = 3;

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
  add_picture(chapter, source, {"deformed-" + file_name(name), "Deformed shape in " + name},
              {.of = PictureOf::deformed, .load_case = name});
  for (const Shown& s : all)
    if (is_there(source, index, s.of))
      add_picture(chapter, source, {s.file + ("-" + file_name(name)), fmt::format("{} in {}", s.caption, name)},
                  {.of = s.of, .load_case = name});
  add_picture(chapter, source, {"reactions-" + file_name(name), "Reactions in " + name},
              {.of = PictureOf::reactions, .load_case = name});
  const bool use = strength_known(source, index);
  add_picture(chapter, source,
              {(use ? "use-" : "stress-") + file_name(name),
               use ? "Von Mises stress as a share of the strength in " + name : "Largest normal stress in " + name},
              {.of = use ? PictureOf::use : PictureOf::stress, .load_case = name});
}

void add_case(Chapter& chapter, const Source& source, std::size_t index) {
  chapter.items.emplace_back(Heading{source.solution[index].name(), 2});
  for (Words& w : document::summaries_of(source.model.units, source.solution, {index}, true, source.options.digits)) {
    // The case is in the heading.
    for (Line& line : w.lines) line.label.clear();
    chapter.items.emplace_back(std::move(w));
  }
  add_pictures(chapter, source, index);
  for (Table& t : document::tables_of_case(source.model.units, source.solution, index, selection(source)))
    chapter.items.emplace_back(std::move(t));
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
  if (order.size() > most_sheets) order.resize(most_sheets);
  if (order.empty()) return;
  chapter.items.emplace_back(
      Heading{order.size() == 1 ? "Governing member" : "Members with the highest utilisation", 2});
  for (const Used& u : order) {
    const std::string &name = s.members()[u.member].name, load_case = source.solution[u.load_case].name();
    add_picture(chapter, source, {"sheet-" + file_name(name), fmt::format("{} in {}", name, load_case)},
                {.of = PictureOf::sheet, .load_case = load_case, .only = {MemberId(u.member)}}, 412);
  }
  const Used& first = order.front();
  const std::string &name = s.members()[first.member].name, load_case = source.solution[first.load_case].name();
  add_picture(chapter, source,
              {"section-" + file_name(name),
               fmt::format("Section of {} with the stress at the place of the largest von Mises stress, {}", name, load_case)},
              {.of = PictureOf::section, .load_case = load_case, .only = {MemberId(first.member)}}, 480);
}

}  // namespace

void add_results(Chapter& chapter, const Source& source) {
  std::vector<std::size_t> judged = source.solution.judged();
  // Other directions of an imperfection are in the envelope.
  std::erase_if(judged, [&](std::size_t c) { return source.solution.base_of(c) != c; });
  if (judged.size() > 1) {
    chapter.items.emplace_back(
        Heading{fmt::format("Envelope of {} {}", judged.size(),
                            source.model.structure.combinations().empty() ? "load cases" : "combinations"),
                2});
    struct Enveloped {
      PictureOf of;
      const char *file, *caption;
    };
    for (const Enveloped& e : {Enveloped{PictureOf::shear, "envelope-shear", "Shear force V, envelope"},
                               {PictureOf::moment, "envelope-moment", "Bending moment M, envelope"}})
      if (std::any_of(judged.begin(), judged.end(), [&](std::size_t i) { return is_there(source, i, e.of); }))
        add_picture(chapter, source, {e.file, e.caption}, {.of = e.of, .load_case = "envelope"});
    for (Table& t : document::tables_of_envelope(source.model.units, source.solution, selection(source)))
      chapter.items.emplace_back(std::move(t));
  }
  if (judged.size() <= most_cases || source.options.all) {
    for (const std::size_t i : judged) add_case(chapter, source, i);
  } else {
    add_case(chapter, source, governing_case(source.solution));
    chapter.items.emplace_back(
        Words{{{"", fmt::format("The other {} are in the envelope; {} governs.", judged.size() - 1,
                                source.solution[governing_case(source.solution)].name())}}});
  }
  add_governing_members(chapter, source);
}

}  // namespace corvex::reporting
