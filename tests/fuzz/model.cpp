// A model file from its text to everything that is made of it.
#include <corvex/corvex.hpp>
#include <corvex/document.hpp>
#include <corvex/export.hpp>
#include <corvex/file.hpp>
#include <corvex/picture.hpp>
#include <cstdint>

using namespace corvex;

namespace {

// Larger ones cost time and show nothing that small ones do not.
bool is_small(const Structure& s) {
  constexpr std::size_t most = 60;
  return s.points().size() <= most && s.members().size() <= most && s.load_cases().size() <= 8 &&
         s.combinations().size() <= 8 && s.sections().size() <= 4;
}

// Solving a drawn outline takes long; how it is refused is seen all the same.
bool is_quick(const Structure& s) {
  for (const NamedSection& n : s.sections())
    if (const auto* o = std::get_if<Outline>(&n.section.shape()); o && o->points.size() > 12) return false;
  return true;
}

}  // namespace

// What the library of fonts keeps to the end of the program is no leak.
extern "C" const char* __lsan_default_suppressions() {
  return "leak:libfontconfig\n";
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string text(reinterpret_cast<const char*>(data), size);
  const auto model = read_model_text(text, "fuzz.yaml");
  if (!model) {
    for (const Problem& p : model.error()) static_cast<void>(describe(p));
    return 0;
  }
  if (!is_small(model->structure)) return 0;
  if (!model->structure.validate().empty() || !is_quick(model->structure)) return 0;
  const Evaluation evaluation = evaluate(*model);
  const Solution& solution = evaluation.solution;
  static_cast<void>(results_json(evaluation, {.places = 3, .units = model->units}));
  if (!evaluation.ok()) {
    for (const Problem& p : model->located(evaluation.problems())) static_cast<void>(describe(p));
    return 0;
  }
  const auto selection = document::select(solution, {});
  if (selection) {
    const auto page = document::solve_page(model->units, evaluation, *selection, {});
    static_cast<void>(document::page_text(page, {}));
    static_cast<void>(document::page_markdown(page, 4));
    for (const auto& table : document::data_tables(page)) static_cast<void>(document::csv(table));
  }
  static_cast<void>(model_text(model->structure));
  // One picture of each input, whichever it is.
  static constexpr PictureOf pictures[] = {PictureOf::structure, PictureOf::deformed, PictureOf::moment,
                                           PictureOf::stress};
  static_cast<void>(draw(solution, {.of = pictures[size % 4], .units = model->units}, ImageFormat::svg));
  return 0;
}
