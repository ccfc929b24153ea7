#include "corvex/report.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "corvex/formula.hpp"
#include "corvex/number.hpp"
#include "picture/lettering.hpp"
#include "report/book.hpp"

namespace corvex {

namespace {

using Add = void (*)(reporting::Chapter&, const reporting::Source&);
// In the order of report_parts.
constexpr Add writers[] = {reporting::add_summary,  reporting::add_model,      reporting::add_materials,
                           reporting::add_supports, reporting::add_loads,      reporting::add_findings,
                           reporting::add_results,  reporting::add_modes,      reporting::add_limits,
                           reporting::add_hand,     reporting::add_derivation, reporting::add_variants,
                           reporting::add_accuracy};

std::optional<Problem> slip(const ReportOptions& options, const Solution& solution) {
  std::vector<std::string> names;
  for (std::size_t i = 0; i < solution.size(); ++i) names.push_back(solution[i].name());
  for (const std::string& name : options.cases)
    if (std::find(names.begin(), names.end(), name) == names.end())
      return Problem{fmt::format("there is no load case or combination '{}'{}", name, did_you_mean(name, names))};
  std::vector<std::string> known;
  for (const ReportPart& p : report_parts) known.emplace_back(p.name);
  for (const std::string& part : options.parts)
    if (std::find(known.begin(), known.end(), part) == known.end())
      return Problem{fmt::format("a report has no part '{}'{}; there are: {}", part, did_you_mean(part, known),
                                 fmt::join(known, ", "))};
  if (options.digits < least_digits || options.digits > most_digits)
    return Problem{
        fmt::format("{} significant digits: from {} to {} were expected", options.digits, least_digits, most_digits)};
  return {};
}

bool has_something_to_say(const std::string& part, const reporting::Source& source) {
  if (part == "modes") return source.model.modes.vibration > 0 || !source.model.modes.buckling.empty();
  if (part == "limits") return !source.limits.verdicts.empty();
  if (part == "derivation") return !source.options.parts.empty();
  if (part == "hand") return !source.hand.comparisons.empty();
  if (part == "variants") return !source.options.variants.empty();
  return true;
}

}  // namespace

Expected<Report, Problem> report(const Model& model, const Evaluation& evaluation, const ReportOptions& options,
                                 ReportFormat format) {
  if (!evaluation.ok()) return evaluation.problems().front();
  if (const auto problem = slip(options, evaluation.solution)) return *problem;
  const picture::Lettering lettering;
  if (const auto problem = lettering.missing_font()) return *problem;
  const reporting::Source source{.model = model,
                                 .solution = evaluation.solution,
                                 .options = options,
                                 .lettering = lettering,
                                 .hand = evaluation.hand,
                                 .limits = evaluation.limits,
                                 .findings = evaluation.findings};
  reporting::Book book{.title = model.structure.title(),
                       .changes = options.changes,
                       .head = model.document,
                       .rows = reporting::rows_of(model),
                       .digits = options.digits};
  for (std::size_t i = 0; i < std::size(report_parts); ++i) {
    const ReportPart& part = report_parts[i];
    const bool wanted = options.parts.empty()
                            ? has_something_to_say(part.name, source)
                            : std::find(options.parts.begin(), options.parts.end(), part.name) != options.parts.end();
    if (!wanted) continue;
    reporting::Chapter chapter{.name = part.name, .title = part.title};
    if (has_something_to_say(part.name, source))
      writers[i](chapter, source);
    else
      chapter.items.emplace_back(reporting::Words{{{"", "None."}}});
    book.chapters.push_back(std::move(chapter));
  }
  Report made;
  switch (format) {
    case ReportFormat::html: made.text = reporting::as_html(book); break;
    case ReportFormat::pdf: made.text = reporting::as_pdf(book); break;
    case ReportFormat::markdown: made = reporting::as_markdown(book, options.name); break;
  }
  return made;
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_write_report(
    const corvex::Model& model, const corvex::Evaluation& evaluation, const corvex::ReportOptions& options,
    corvex::ReportFormat format, corvex::Expected<corvex::Report, corvex::Problem>& report) {
  report = corvex::report(model, evaluation, options, format);
}
