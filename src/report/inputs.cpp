// The chapters that say what was described: model, materials and sections, supports, loads.
#include <fmt/format.h>

#include "corvex/findings.hpp"
#include "corvex/load_words.hpp"
#include "picture/pictures.hpp"
#include "report/book.hpp"
#include "report/names.hpp"

namespace corvex::reporting {
namespace {

// Of larger models the model file says the rest.
constexpr std::size_t most_rows = 500;

Table shortened(Table t, const Source& source) {
  if (source.options.all || t.rows.size() <= most_rows) return t;
  t.after = fmt::format("The first {} of {}.", most_rows, t.rows.size()) + (t.after.empty() ? "" : " " + t.after);
  t.rows.resize(most_rows);
  std::erase_if(t.beneath, [](const auto& b) { return b.first >= most_rows; });
  return t;
}

constexpr double a4_text = 643;                      // 170 mm in pixels
constexpr double gap = 16;                           // between two side by side
constexpr double small_letters = 10.0 / (13 * 0.6);  // 10 pixels: 2.6 mm

// What the calculation assumes: its theory, then the notes of the model.
void add_assumptions(Chapter& chapter, const Source& source) {
  chapter.items.emplace_back(Heading{"Assumptions", 2});
  Words words{{{"Theory", theory_in_words(source.model.structure.analysis())}}};
  for (std::size_t i = 0; i < source.model.assumptions.size(); ++i)
    words.lines.push_back({fmt::format("Note {}", i + 1), source.model.assumptions[i]});
  chapter.items.emplace_back(std::move(words));
}

}  // namespace

namespace {

struct PictureSize {
  double width, height;
  bool half;
};

void add_sized(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options,
               const PictureSize& size, const Modes& shapes) {
  options.width = size.width;
  options.height = size.height;
  options.letters = size.half ? 0.85 * small_letters : small_letters;
  options.titled = false;
  options.explained = !size.half;
  options.units = source.model.units;
  options.digits = source.options.digits;
  auto drawing = picture::drawing_of(source.solution, options, source.lettering, {}, shapes);
  if (!drawing) return;
  drawing->title = title.caption;
  chapter.items.emplace_back(Figure{std::move(title.file), std::move(title.caption), std::move(*drawing), size.half});
}

}  // namespace

void add_picture(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options, double height,
                 const Modes& shapes) {
  add_sized(chapter, source, std::move(title), std::move(options), {a4_text, height, false}, shapes);
}

namespace {

// Plane structures of few members are readable at half of the width of a page.
bool has_small_diagrams(const Structure& s) {
  constexpr std::size_t few = 12;
  return s.is_plane() && s.members().size() <= few;
}

}  // namespace

void add_diagram(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options,
                 const Modes& shapes) {
  const Structure& s = source.model.structure;
  const bool half = has_small_diagrams(s);
  // Three on a page, or twice as many side by side.
  const PictureSize size =
      half ? PictureSize{(a4_text - gap) / 2, 172, true} : PictureSize{a4_text, s.is_plane() ? 235.0 : 360.0, false};
  add_sized(chapter, source, std::move(title), std::move(options), size, shapes);
}

void add_signs(Chapter& chapter, const Source& source) {
  const bool plane = source.model.structure.is_plane();
  PictureOptions options;
  options.width = a4_text, options.height = plane ? 160 : 250, options.letters = small_letters, options.titled = false;
  options.explained = !plane;
  chapter.items.emplace_back(Figure{
      "signs",
      plane ? "Local axes and positive internal forces: N + is tension, Mz + causes tension on the -y side, Vy = dMz/dx"
            : "Local axes and positive internal forces",
      picture::signs_drawing(plane, options, source.lettering)});
}

void add_model(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  const ModelUnits& u = source.model.units;
  if (s.is_plane()) {
    add_picture(chapter, source, {"structure", "Structure with the names of points and members"},
                {.load_case = "", .dimensions = true, .loads = false}, 260);
  } else {
    add_picture(chapter, source, {"structure", "Structure with the names of points and members"}, {.loads = false},
                380);
    add_picture(chapter, source, {"front", "From the front"}, {.view = View::front, .dimensions = true, .loads = false},
                360);
    add_picture(chapter, source, {"side", "From the right"}, {.view = View::side, .dimensions = true, .loads = false},
                360);
  }
  add_assumptions(chapter, source);
  chapter.items.emplace_back(shortened(document::points_table(u, s), source));
  chapter.items.emplace_back(shortened(document::members_table(u, s), source));
  chapter.items.emplace_back(document::parts_table(u, s));
}

void add_materials(Chapter& chapter, const Source& source) {
  chapter.items.emplace_back(document::materials_table(source.model.units, source.model.structure));
  chapter.items.emplace_back(document::sections_table(source.model.units, source.model.structure));
  if (Table standards = standards_table(source.model.structure); !standards.rows.empty())
    chapter.items.emplace_back(std::move(standards));
}

void add_supports(Chapter& chapter, const Source& source) {
  chapter.items.emplace_back(shortened(document::supports_table(source.model.units, source.model.structure), source));
  if (!source.model.structure.bracing().empty())
    chapter.items.emplace_back(shortened(document::bracing_table(source.model.structure), source));
}

namespace {

// Notes and sources of the loads of a case: one row for each load that has one.
Table remarks_table(const Source& source, std::size_t load_case) {
  const Structure& s = source.model.structure;
  Table t{.name = "load-remarks", .title = "Notes and sources of the loads"};
  t.columns = {document::words_column("on", true), document::words_column("load", true), document::words_column("note"),
               document::words_column("source")};
  const LoadCase& c = s.load_cases()[load_case];
  const auto& entries = source.model.load_entries;
  const auto& remarks = source.model.load_remarks;
  if (load_case >= entries.size() || load_case >= remarks.size()) return t;
  for (std::size_t i = 0, last = remarks[load_case].size(); i < c.loads().size() && i < entries[load_case].size();
       ++i) {
    const std::size_t entry = entries[load_case][i];
    if (entry == last || entry >= remarks[load_case].size()) continue;
    last = entry;
    const LoadRemark& remark = remarks[load_case][entry];
    if (remark.note.empty() && remark.source.empty()) continue;
    const LoadWords words = load_words(s, c.loads()[i], source.model.units);
    t.row({words.on, words.parts.empty() ? words.kind : words.parts.front().name, remark.note, remark.source});
  }
  return t;
}

}  // namespace

void add_loads(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  constexpr std::size_t most_pictures = 12;
  const auto picture = [&](std::size_t i) {
    const std::string& name = s.load_cases()[i].name();
    if (i < most_pictures || source.options.all)
      add_diagram(chapter, source, {"loads-" + file_name(name), "Loads of '" + name + "'"}, {.load_case = name});
  };
  // Small pictures stand side by side, before the tables.
  const bool small = has_small_diagrams(s);
  for (std::size_t i = 0; small && i < s.load_cases().size(); ++i) picture(i);
  for (std::size_t i = 0; i < s.load_cases().size(); ++i) {
    const std::string& name = s.load_cases()[i].name();
    if (!small) chapter.items.emplace_back(Heading{name, 2}), picture(i);
    Table loads = shortened(document::loads_table(source.model.units, s, i), source);
    loads.title = "Loads of '" + name + "'";
    chapter.items.emplace_back(std::move(loads));
    if (Table remarks = remarks_table(source, i); !remarks.rows.empty()) chapter.items.emplace_back(std::move(remarks));
  }
  if (!s.combinations().empty()) chapter.items.emplace_back(document::combinations_table(s));
  chapter.items.emplace_back(document::load_sums_table(source.model.units, s));
}

}  // namespace corvex::reporting
