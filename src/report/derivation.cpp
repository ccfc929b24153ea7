// A derivation as chapters of a document: equations typeset, bodies drawn.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "corvex/derive.hpp"
#include "corvex/envelope.hpp"
#include "corvex/formula_text.hpp"
#include "picture/pictures.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

// "V(x)" is a course, no force of x.
Math named(const std::string& name) {
  if (!name.ends_with("(x)")) return typeset(name);
  return {Math::Kind::row, {}, {typeset(name.substr(0, name.size() - 3)), {Math::Kind::brackets, {}, {typeset("x")}}}};
}

class BookWriter {
 public:
  BookWriter(Chapter& chapter, const Structure& structure, const ModelUnits& units, const DerivationOptions& options,
             const picture::Lettering& lettering)
      : chapter_(chapter), s_(structure), units_(units), o_(options), lettering_(lettering) {}

  void operator()(const WorkedFormula& sentence) { chapter_.items.emplace_back(Words{{{"", text(sentence)}}}); }
  void operator()(const DerivationStep& s) {
    if (o_.brief && s.unknown.empty()) return;
    Worked w{.what = text(s.because), .formula = {}, .math = {}, .verdict = s.remark};
    const std::string formula = text(s.formula), result = s.result ? value(*s.result) : "";
    // A force that stands alone in its equation needs no equation.
    if (!s.equation.text.empty() && !s.formula.text.empty() && !o_.brief)
      w.before.push_back(zero(text(s.equation).substr(0, text(s.equation).rfind(" = 0"))));
    std::vector<Math> sides;
    const auto side = [&](const std::string& words, Math math) {
      w.formula += (w.formula.empty() ? "" : " = ") + words;
      sides.push_back(std::move(math));
    };
    if (!s.unknown.empty()) side(s.unknown, named(s.unknown));
    if (!formula.empty() && formula != result && !(o_.brief && s.result)) side(formula, typeset(formula));
    if (s.result && s.formula.text.empty() && s.result->si == 0)
      side("0", typeset("0"));
    else if (s.result)
      side(result, typeset(result));
    w.math = equation(std::move(sides));
    chapter_.items.emplace_back(std::move(w));
  }
  void operator()(const DerivationSystem& s) {
    Worked w{.what = text(s.because), .formula = {}, .math = {}, .verdict = {}};
    if (!o_.brief)
      for (const DerivationSystem::Equation& e : s.equations) {
        if (!e.because.text.empty()) w.remarks.push_back(text(e.because));
        w.before.push_back(zero(text(e.left)));
      }
    std::vector<Math> all;
    for (const auto& [name, v] : s.solution) {
      if (!all.empty()) all.push_back({Math::Kind::sign, ",", {}});
      w.formula += (w.formula.empty() ? "" : ", ") + name + " = " + value(v);
      all.push_back(equation({named(name), typeset(value(v))}));
    }
    w.math = {Math::Kind::row, {}, std::move(all)};
    // Which equations they are, in their order.
    if (!w.remarks.empty()) {
      std::string list;
      for (const std::string& one : w.remarks) list += (list.empty() ? "" : "; ") + one;
      w.remarks = {"The equations: " + list + "."};
    }
    chapter_.items.emplace_back(std::move(w));
  }
  void operator()(const DerivationTable& t) {
    chapter_.items.emplace_back(document::derived_table(t, units_, o_.digits));
  }
  void operator()(const FreeBody& b) {
    if (o_.brief) return;
    std::string caption = b.name;
    caption.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(caption.front())));
    // Joints and single members need less room.
    const double height = b.joints.size() <= 1 ? 170 : 300;
    PictureOptions options{.width = 643, .height = height, .letters = 10.0 / (13 * 0.6), .titled = false};
    options.units = units_;
    auto drawing = picture::free_body_picture(b, s_.is_plane(), s_.up(), options, lettering_);
    drawing.title = caption;
    chapter_.items.emplace_back(
        Figure{fmt::format("{}-{}", chapter_.name, ++figures_), caption + " cut free", std::move(drawing)});
  }

 private:
  std::string text(const WorkedFormula& line) const { return derived_text(line, units_, o_.digits); }
  std::string value(const Quantity& q) const { return derived_value(q, units_, o_.digits); }
  // left = 0
  static std::pair<std::string, Math> zero(const std::string& left) {
    return {left + " = 0", equation({typeset(left), typeset("0")})};
  }

  Chapter& chapter_;
  const Structure& s_;
  const ModelUnits& units_;
  const DerivationOptions& o_;
  const picture::Lettering& lettering_;
  int figures_ = 0;
};

// A name for links: letters and digits.
std::string plain(std::string name) {
  for (char& c : name)
    if (!std::isalnum(static_cast<unsigned char>(c))) c = '-';
  return name;
}

}  // namespace

void add_derivation(Chapter& chapter, const Source& source) {
  const std::size_t load_case = governing_case(source.solution);
  const auto derived = derive(source.solution, load_case);
  if (!derived) {
    chapter.items.emplace_back(Words{{{"", derived.error().text, Tone::warning}}});
    return;
  }
  chapter.items.emplace_back(Words{{{"", "Of " + derived->load_case + ", which governs."}}});
  const DerivationOptions options;
  BookWriter writer(chapter, source.model.structure, source.model.units, options, source.lettering);
  for (const DerivationChapter& c : derived->chapters) {
    chapter.items.emplace_back(Heading{c.title, 2});
    for (const DerivationChapter::Item& item : c.items) std::visit(writer, item);
  }
  const std::vector<BothWays> both = both_ways(*derived, source.solution);
  if (both.empty()) return;
  chapter.items.emplace_back(Heading{"Comparison", 2});
  chapter.items.emplace_back(document::both_ways_table(both, source.model.units));
}

}  // namespace corvex::reporting

namespace corvex {

Expected<std::string, Problem> derivation_document(const Model& model, const Derivation& derivation,
                                                   const std::vector<BothWays>& both, const DerivationOptions& options,
                                                   ReportFormat format) {
  const picture::Lettering lettering;
  if (const auto problem = lettering.missing_font()) return *problem;
  reporting::Book book{.title = derivation.title,
                       .changes = derivation.members.empty()
                                      ? "Check of the joints in '" + derivation.load_case + "'"
                                      : "Derivation of '" + derivation.load_case + "', by statics and virtual work",
                       .head = model.document,
                       .rows = reporting::rows_of(model),
                       .digits = options.digits};
  for (const DerivationChapter& c : derivation.chapters) {
    reporting::Chapter chapter{.name = reporting::plain(c.name), .title = c.title};
    reporting::BookWriter writer(chapter, model.structure, model.units, options, lettering);
    for (const DerivationChapter::Item& item : c.items) std::visit(writer, item);
    book.chapters.push_back(std::move(chapter));
  }
  if (!both.empty()) {
    reporting::Chapter chapter{.name = "both-ways", .title = "Comparison"};
    chapter.items.emplace_back(document::both_ways_table(both, model.units));
    book.chapters.push_back(std::move(chapter));
  }
  return format == ReportFormat::pdf ? reporting::as_pdf(book) : reporting::as_html(book);
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_write_derivation(
    const corvex::Model& model, const corvex::Derivation& derivation, const std::vector<corvex::BothWays>& both,
    const corvex::DerivationOptions& options, corvex::ReportFormat format,
    corvex::Expected<std::string, corvex::Problem>& document) {
  document = corvex::derivation_document(model, derivation, both, options, format);
}
