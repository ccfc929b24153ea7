#include "demo_studies.hpp"

#include "corvex/document.hpp"
#include "pictures.hpp"

namespace corvex::cli {
namespace {

using namespace document;
using Files = std::vector<std::pair<std::string, std::string>>;

std::string compared(const ModelDocument& document, const Model& model, const Solution& solution, Files& files) {
  std::vector<Candidate> candidates{{.name = "original",
                                     .structure = model.structure,
                                     .limits = model.limits,
                                     .hand = model.hand,
                                     .acceptances = model.acceptances}};
  std::vector<PictureSide> sides{{"original", solution}};
  for (const std::string& variant : document.variants()) {
    const auto other = build(document, {.variant = variant});
    if (!other) return describe(other.error().front());
    candidates.push_back({.name = variant,
                          .structure = other->structure,
                          .limits = other->limits,
                          .hand = other->hand,
                          .acceptances = other->acceptances});
    sides.push_back({variant, solve(other->structure)});
  }
  if (candidates.size() < 2) return {};
  const Style style;
  files.emplace_back("-compare.txt",
                     page_text(comparison_page(model.structure.title(), model.units, compare(candidates, model.show),
                                               model.show, style.digits),
                               style));
  for (const auto& [name, of] :
       {std::pair("-variants-deformed.svg", PictureOf::deformed), {"-variants-moment.svg", PictureOf::moment}}) {
    const auto bytes = drawn(sides, Together::overlaid, {.of = of, .units = model.units}, ImageFormat::svg);
    if (!bytes) return bytes.error().text;
    files.emplace_back(name, *bytes);
  }
  return {};
}

std::string swept(const ModelDocument& document, const Model& model, Files& files) {
  for (const Sweep& s : model.sweeps) {
    const auto runs = sweep(document, {}, s);
    if (!runs) return describe(runs.error().front());
    files.emplace_back("-sweep-" + s.name + ".txt",
                       page_text(sweep_page(model.structure.title(), model.units, s, *runs), {}));
    const auto bytes = drawn(s, *runs, model.structure.title(), {.units = model.units}, ImageFormat::svg);
    if (!bytes) return bytes.error().text;
    files.emplace_back("-sweep-" + s.name + ".svg", *bytes);
  }
  return {};
}

std::string chosen(const Model& model, Files& files) {
  if (model.choose.empty()) return {};
  const auto choice = choose(model.structure, {.groups = model.choose, .limits = model.limits});
  if (!choice) return describe(choice.error().front());
  files.emplace_back("-choose.txt",
                     page_text(choice_page(model.structure.title(), model.units, *choice, model.choose), {}));
  return {};
}

}  // namespace

Expected<Files, std::string> demo_studies(const ModelDocument& document, const Model& model, const Solution& solution) {
  Files files;
  std::string why = compared(document, model, solution, files);
  if (why.empty()) why = swept(document, model, files);
  if (why.empty()) why = chosen(model, files);
  if (!why.empty()) return why;
  return files;
}

}  // namespace corvex::cli
