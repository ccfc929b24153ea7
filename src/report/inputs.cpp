// The chapters that say what was described: model, materials and sections, supports, loads.
#include <fmt/format.h>

#include "corvex/findings.hpp"
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

}  // namespace

void add_picture(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options, double height,
                 const Modes& shapes) {
  constexpr double a4_text = 643;  // 170 mm
  options.width = a4_text;
  options.height = height;
  options.letters = 10.0 / (13 * 0.6);  // 10 pixels: 2.6 mm
  options.titled = false;
  options.units = source.model.units;
  options.digits = source.options.digits;
  auto drawing = picture::drawing_of(source.solution, options, source.lettering, {}, shapes);
  if (!drawing) return;
  drawing->title = title.caption;
  chapter.items.emplace_back(Figure{std::move(title.file), std::move(title.caption), std::move(*drawing)});
}

void add_model(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  const ModelUnits& u = source.model.units;
  if (s.is_plane()) {
    add_picture(chapter, source, {"structure", "Structure with the names of points and members"},
                {.load_case = "", .dimensions = true, .loads = false}, 420);
  } else {
    add_picture(chapter, source, {"structure", "Structure with the names of points and members"}, {.loads = false},
                460);
    add_picture(chapter, source, {"front", "From the front"}, {.view = View::front, .dimensions = true, .loads = false},
                360);
    add_picture(chapter, source, {"side", "From the right"}, {.view = View::side, .dimensions = true, .loads = false},
                360);
  }
  chapter.items.emplace_back(shortened(document::points_table(u, s), source));
  chapter.items.emplace_back(shortened(document::members_table(u, s), source));
  chapter.items.emplace_back(document::parts_table(u, s));
}

void add_materials(Chapter& chapter, const Source& source) {
  chapter.items.emplace_back(document::materials_table(source.model.units, source.model.structure));
  chapter.items.emplace_back(document::sections_table(source.model.units, source.model.structure));
}

void add_supports(Chapter& chapter, const Source& source) {
  chapter.items.emplace_back(shortened(document::supports_table(source.model.units, source.model.structure), source));
  if (!source.model.structure.bracing().empty())
    chapter.items.emplace_back(shortened(document::bracing_table(source.model.structure), source));
}

void add_loads(Chapter& chapter, const Source& source) {
  const Structure& s = source.model.structure;
  constexpr std::size_t most_pictures = 12;
  for (std::size_t i = 0; i < s.load_cases().size(); ++i) {
    const LoadCase& c = s.load_cases()[i];
    chapter.items.emplace_back(Heading{c.name(), 2});
    if (i < most_pictures || source.options.all)
      add_picture(chapter, source, {"loads-" + file_name(c.name()), "Loads of " + c.name()}, {.load_case = c.name()},
                  340);
    Table loads = shortened(document::loads_table(source.model.units, s, i), source);
    loads.title = "Loads of " + c.name();
    chapter.items.emplace_back(std::move(loads));
  }
  if (!s.combinations().empty()) chapter.items.emplace_back(document::combinations_table(s));
  chapter.items.emplace_back(document::load_sums_table(source.model.units, s));
}

}  // namespace corvex::reporting
