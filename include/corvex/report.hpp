// Corvex: the calculation as a document that another engineer can check. (Target corvex::pictures.)
//
//     const auto model = corvex::read_model("trestle.yaml");
//     const corvex::Evaluation evaluation = corvex::evaluate(*model);
//     const auto report = corvex::report(*model, evaluation, {}, corvex::ReportFormat::html);
//     fmt::print("{}\n", report ? report->text.substr(0, 15) : report.error().text);   // <!DOCTYPE html>
//
// HTML is one file with its pictures, formulas as MathML; it needs no network. PDF is A4 with contents, page numbers
// and links. Markdown names its pictures, which are SVG files in the same folder. The same input gives the same bytes.
// May be called from several threads at once. Letters are those of DejaVu Sans: a problem where it is not installed.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "corvex/compare.hpp"
#include "corvex/derive.hpp"
#include "corvex/evaluation.hpp"
#include "corvex/expected.hpp"
#include "corvex/file.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// A chapter of a report.
struct ReportPart {
  const char* name;   // "hand"
  const char* title;  // "Hand calculation"
};
// All chapters, in their order. The derivation of the case that governs is written where it is asked for by name.
inline constexpr ReportPart report_parts[] = {{"summary", "Summary"},
                                              {"model", "Model"},
                                              {"materials", "Materials and sections"},
                                              {"supports", "Supports"},
                                              {"loads", "Loads"},
                                              {"findings", "Findings"},
                                              {"results", "Results"},
                                              {"modes", "Buckling and vibration"},
                                              {"limits", "Limits"},
                                              {"hand", "Hand calculation"},
                                              {"derivation", "Derivation"},
                                              {"variants", "Variants"},
                                              {"accuracy", "Theory and accuracy"}};

struct ReportOptions {
  // The names of chapters; if empty, all that have something to say.
  std::vector<std::string> parts{};
  int digits = 4;
  // Results of every assessed case, and every row of every table; otherwise the envelope and the governing case with
  // pictures, other cases as tables, and of large models the members with the highest utilisation.
  bool all = false;
  // Names of load cases and combinations in the chapter of results; all assessed ones if empty.
  std::vector<std::string> cases{};
  // For the chapter of variants (compare.hpp); none if empty.
  std::vector<Compared> variants{};
  // Printed below the title: "variant heavy, wall = 4 mm".
  std::string changes{};
  // Base name of the pictures of a Markdown report: "trestle" gives "trestle-structure.svg".
  std::string name = "report";
};

enum class ReportFormat { html, pdf, markdown };

struct Report {
  std::string text{};  // the bytes of the file
  // Of Markdown: the name of each picture and its bytes.
  std::vector<std::pair<std::string, std::string>> pictures{};
};

// The document, or an error: an unknown chapter or case, a hand value or limit of an object that the structure does
// not have, a missing font. The evaluation must be ok, and of the model.
Expected<Report, Problem> report(const Model& model, const Evaluation& evaluation, const ReportOptions& options,
                                 ReportFormat format);

struct DerivationOptions {
  int digits = 5;
  bool brief = false;  // the result of each step only
};
// A derivation (derive.hpp) as a document, typeset, with the bodies that are cut free drawn: HTML or PDF; `both`: both
// calculations side by side at its end. An error if no font is found.
Expected<std::string, Problem> derivation_document(const Model& model, const Derivation& derivation,
                                                   const std::vector<BothWays>& both, const DerivationOptions& options,
                                                   ReportFormat format);

// By the end of a file's name: .html, .pdf, .md; nothing where it is none of them.
inline std::optional<ReportFormat> report_format(std::string_view path) {
  if (path.ends_with(".html")) return ReportFormat::html;
  if (path.ends_with(".pdf")) return ReportFormat::pdf;
  if (path.ends_with(".md")) return ReportFormat::markdown;
  return {};
}

// For programs that load the library only when they need it: the name of `report` in it, and its kind.
inline constexpr const char* report_entry = "corvex_write_report";
inline constexpr const char* derivation_entry = "corvex_write_derivation";
using DerivationEntry = void (*)(const Model&, const Derivation&, const std::vector<BothWays>&,
                                 const DerivationOptions&, ReportFormat, Expected<std::string, Problem>& document);
using ReportEntry = void (*)(const Model&, const Evaluation&, const ReportOptions&, ReportFormat,
                             Expected<Report, Problem>& report);

}  // namespace corvex

#pragma GCC visibility pop
