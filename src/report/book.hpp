// A report before it is written in one form or another: chapters of headings, words, tables, pictures and formulas.
#pragma once

#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "corvex/document.hpp"
#include "corvex/picture.hpp"
#include "corvex/report.hpp"
#include "picture/drawing.hpp"
#include "picture/lettering.hpp"
#include "report/math.hpp"

namespace corvex::reporting {

using document::Heading;
using document::Line;
using document::Table;
using document::Tone;
using document::Words;

struct Figure {
  std::string name;  // of its file: "moment-service"
  std::string caption;
  picture::Drawing drawing;
  bool half = false;  // half as wide as the page: two stand side by side
};

// A hand value: what was worked out, how, and what was computed.
struct Worked {
  std::string what;     // "reaction A y in product"
  std::string formula;  // as written, with the numbers put in, and the result: "P/2 = 3.2 kN/2 = 1.6 kN"
  Math math;            // the same, to be typeset
  // Text above it: the equation that it solves.
  std::vector<std::pair<std::string, Math>> before{};
  std::string verdict;  // "computed 1.6 kN, deviation 0 %: agrees"
  Tone tone = Tone::plain;
  std::vector<std::string> remarks{};
};

using Item = std::variant<Heading, Words, Table, Figure, Worked>;

struct Chapter {
  std::string name, title;
  std::vector<Item> items{};
};

struct Book {
  std::string title, changes;
  DocumentHead head;
  // Entries of the head in order: names and values.
  std::vector<std::pair<std::string, std::string>> rows{};
  int digits = 4;
  std::vector<Chapter> chapters{};
};

// Entries of the head of a report, in order; those that are not given are left out.
std::vector<std::pair<std::string, std::string>> rows_of(const Model& model);
// The table of revisions; without rows if none is given.
Table revisions_table(const DocumentHead& head);
// The date for the properties of a file: SOURCE_DATE_EPOCH of the environment, otherwise the date of the head if it is
// like 2026-12-02; otherwise empty.
std::string creation_date(const DocumentHead& head);

// Values of `let`, then what was worked out, each as an equation; with the table that compares them.
struct HandFormulas {
  Table table;
  std::vector<Worked> values{}, worked{};
};
HandFormulas hand_formulas(const Verification& hand, const ModelUnits& units, int digits);

// Context for writing the chapters.
struct Source {
  const Model& model;
  const Solution& solution;
  const ReportOptions& options;
  const picture::Lettering& lettering;
  const Verification& hand;
  const LimitCheck& limits;
  const Problems& findings;
};

// A figure of local axes and positive internal forces.
void add_signs(Chapter& chapter, const Source& source);
// The theory of the calculation in sentences.
std::string theory_in_words(const AnalysisOptions& analysis);
// Standards of the materials and profiles that members use, with the edition that the catalogue follows.
Table standards_table(const Structure& structure);

void add_summary(Chapter& chapter, const Source& source);
void add_model(Chapter& chapter, const Source& source);
void add_materials(Chapter& chapter, const Source& source);
void add_modes(Chapter& chapter, const Source& source);
void add_supports(Chapter& chapter, const Source& source);
void add_loads(Chapter& chapter, const Source& source);
void add_findings(Chapter& chapter, const Source& source);
void add_results(Chapter& chapter, const Source& source);
void add_limits(Chapter& chapter, const Source& source);
void add_hand(Chapter& chapter, const Source& source);
void add_derivation(Chapter& chapter, const Source& source);
void add_variants(Chapter& chapter, const Source& source);
void add_accuracy(Chapter& chapter, const Source& source);

// A picture as wide as the text of a page of A4; empty if the section has no shape.
struct PictureTitle {
  std::string file;  // its name without an ending
  std::string caption;
};
void add_picture(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options,
                 double height = 320, const Modes& shapes = {});
// A diagram: half as wide as the page where the structure is plane and small enough.
void add_diagram(Chapter& chapter, const Source& source, PictureTitle title, PictureOptions options,
                 const Modes& shapes = {});

std::string as_html(const Book& book);
std::string as_pdf(const Book& book);
// With pictures whose names begin with `name`.
Report as_markdown(const Book& book, const std::string& name);

}  // namespace corvex::reporting
