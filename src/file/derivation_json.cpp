// A derivation as JSON: texts with their numbers put in, and the numbers in SI units.
#include "corvex/export.hpp"
#include "corvex/formula_text.hpp"
#include "file/json.hpp"

namespace corvex {
namespace {

using file::Json;

class DerivationWriter {
 public:
  DerivationWriter(const ModelUnits& units, int digits) : units_(units), digits_(digits) {}

  Json operator()(const WorkedFormula& sentence) const { return {{"text", text(sentence)}}; }
  Json operator()(const DerivationStep& s) const {
    Json j = Json::object();
    if (!s.because.text.empty()) j["because"] = text(s.because);
    if (!s.equation.text.empty()) j["equation"] = text(s.equation);
    if (!s.unknown.empty()) j["unknown"] = s.unknown;
    if (!s.formula.text.empty()) j["numbers"] = text(s.formula);
    if (s.result) j["result"] = s.result->si, j["unit"] = unit_for(s.result->dimension, si_units()).text;
    if (!s.remark.empty()) j["remark"] = s.remark;
    return j;
  }
  Json operator()(const DerivationSystem& s) const {
    Json j = {{"because", text(s.because)}, {"equations", Json::array()}, {"solution", Json::object()}};
    for (const DerivationSystem::Equation& e : s.equations)
      j["equations"].push_back({{"because", text(e.because)}, {"equation", text(e.left) + " = 0"}});
    for (const auto& [name, value] : s.solution) j["solution"][name] = value.si;
    return j;
  }
  Json operator()(const DerivationTable& t) const {
    Json j = {{"table", t.name}, {"title", t.title}, {"columns", Json::array()}, {"rows", Json::array()}};
    for (const DerivationTable::Column& c : t.columns)
      j["columns"].push_back(c.dimension ? Json{{"head", c.head}, {"unit", unit_for(*c.dimension, si_units()).text}}
                                         : Json{{"head", c.head}});
    for (const auto& row : t.rows) {
      Json cells = Json::array();
      for (const DerivationTable::Cell& c : row)
        cells.push_back(c.value ? Json(*c.value) : Json(c.words.empty() ? text(c.formula) : c.words));
      j["rows"].push_back(std::move(cells));
    }
    if (!t.rule.empty()) j["rule"] = t.rule;
    return j;
  }
  Json operator()(const FreeBody& b) const { return {{"body", b.name}}; }

 private:
  std::string text(const WorkedFormula& line) const { return derived_text(line, units_, digits_); }

  const ModelUnits& units_;
  int digits_;
};

}  // namespace

std::string derivation_json(const Derivation& d, const std::vector<BothWays>& both, const ModelUnits& units,
                            int digits) {
  Json j;
  j["format"] = "corvex-derivation";
  j["version"] = 1;
  j["title"] = d.title;
  j["case"] = d.load_case;
  const StaticCount& n = d.count;
  j["count"] = {{"members", n.members},   {"bars", n.bars},         {"joints", n.joints}, {"reactions", n.reactions},
                {"releases", n.releases}, {"unknowns", n.unknowns}, {"degree", n.degree}};
  j["redundants"] = d.redundants;
  Json& chapters = j["chapters"] = Json::array();
  const DerivationWriter writer(units, digits);
  for (const DerivationChapter& c : d.chapters) {
    Json items = Json::array();
    for (const DerivationChapter::Item& item : c.items) items.push_back(std::visit(writer, item));
    chapters.push_back({{"name", c.name}, {"title", c.title}, {"items", std::move(items)}});
  }
  Json& pairs = j["both_ways"] = Json::array();
  for (const BothWays& b : both)
    pairs.push_back({{"what", b.what},
                     {"unit", unit_for(b.derived.dimension, si_units()).text},
                     {"derived", b.derived.si},
                     {"solved", b.solved.si},
                     {"difference", b.difference}});
  return file::json_text(j);
}

}  // namespace corvex
