// A model file from its text to everything that compares it with others and hands it over: comparisons, choices,
// sweeps, derivations, reports and the data of the page.
#include <corvex/corvex.hpp>
#include <corvex/document.hpp>
#include <corvex/export.hpp>
#include <corvex/file.hpp>
#include <corvex/report.hpp>
#include <corvex/view.hpp>
#include <cstdint>

using namespace corvex;

namespace {

bool is_small(const Structure& s) {
  constexpr std::size_t most = 30;
  return s.points().size() <= most && s.members().size() <= most && s.load_cases().size() <= 4 &&
         s.combinations().size() <= 4 && s.sections().size() <= 4;
}
bool is_quick(const Structure& s) {
  for (const NamedSection& n : s.sections())
    if (const auto* o = std::get_if<Outline>(&n.section.shape()); o && o->points.size() > 12) return false;
  return s.analysis().order == Order::first;
}

}  // namespace

// What the library of fonts keeps to the end of the program is no leak.
extern "C" const char* __lsan_default_suppressions() {
  return "leak:libfontconfig\n";
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string text(reinterpret_cast<const char*>(data), size);
  const auto document = read_document_text(text, "fuzz.yaml");
  if (!document) return 0;
  static_cast<void>(document->table_files());
  const auto model = build(*document);
  if (!model || !is_small(model->structure) || !is_quick(model->structure)) return 0;
  std::vector<Candidate> candidates{{.name = "original",
                                     .structure = model->structure,
                                     .limits = model->limits,
                                     .hand = model->hand,
                                     .acceptances = model->acceptances}};
  for (const std::string& name : document->variants()) {
    if (candidates.size() > 3) break;
    const auto built = build(*document, {.variant = name});
    if (built && is_small(built->structure) && is_quick(built->structure))
      candidates.push_back({.name = name, .structure = built->structure, .limits = built->limits, .hand = built->hand});
  }
  const std::vector<Compared> compared = compare(candidates, model->show);
  static_cast<void>(comparison_json(compared, model->show));
  static_cast<void>(document::page_text(document::comparison_page("fuzz", model->units, compared, model->show, 4), {}));
  for (const Sweep& s : model->sweeps) {
    if (run_count(s) > 8) continue;
    if (const auto runs = sweep(*document, {}, s, {.threads = 1})) static_cast<void>(sweep_json(s, *runs));
  }
  const Evaluation evaluation = evaluate(*model);
  const Solution& solution = evaluation.solution;
  if (!solution.ok()) return 0;
  for (std::size_t i = 0; i < solution.size() && i < 2; ++i)
    if (const auto derivation = derive(solution, i))
      static_cast<void>(derivation_json(*derivation, both_ways(*derivation, solution), model->units));
  // Each of the larger outputs now and then.
  if (size % 4 == 0) static_cast<void>(view_page({{"", *model, evaluation}}));
  if (size % 4 == 1) static_cast<void>(report(*model, evaluation, {}, ReportFormat::html));
  if (size % 8 == 2) static_cast<void>(report(*model, evaluation, {}, ReportFormat::pdf));
  return 0;
}
