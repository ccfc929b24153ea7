#include "hand/write_work.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace corvex::hand {
namespace {

using WorkKind = WorkTerm::Kind;

const Dimension stiffness = dimension::force * dimension::area;  // of EI and GJ

struct Described {
  const char* word;
  bool moment;         // of the virtual force
  Dimension rigidity;  // of EA, EI, …
};
// `turned`: about the principal axes 1 and 2 of the section, which are not y and z.
Described described(WorkKind kind, bool turned) {
  switch (kind) {
    case WorkKind::axial: return {"axial", false, dimension::force};
    case WorkKind::bending_z: return {turned ? "bending about axis 1" : "bending", true, stiffness};
    case WorkKind::bending_y: return {turned ? "bending about axis 2" : "bending about y", true, stiffness};
    case WorkKind::shear_y: return {turned ? "shear across axis 1" : "shear", false, dimension::force};
    case WorkKind::shear_z: return {turned ? "shear across axis 2" : "shear along z", false, dimension::force};
    case WorkKind::torsion: return {"torsion", true, stiffness};
    case WorkKind::coupled: return {"shear across both axes", false, dimension::force};
    case WorkKind::spring: return {"spring", false, dimension::line_force};
    case WorkKind::elongation: return {"temperature change and lack of fit", false, {}};
    case WorkKind::curvature_z: return {"temperature gradient", true, {}};
    case WorkKind::curvature_y: return {"temperature gradient, about y", true, {}};
    case WorkKind::settlement: return {"settlement", false, {}};
  }
  return {"", false, {}};
}

bool is_even(const std::vector<double>& v) {
  const double size =
      std::max(std::abs(*std::max_element(v.begin(), v.end())), std::abs(*std::min_element(v.begin(), v.end())));
  return std::all_of(v.begin(), v.end(), [&](double x) { return std::abs(x - v.front()) <= 1e-12 * size; });
}

class WorkWriter {
 public:
  WorkWriter(const Skeleton& k, const Dimension& per_real, const Dimension& per_virtual, DerivationChapter& chapter)
      : k_(k), real_(per_real), virtual_(per_virtual), chapter_(chapter) {}

  void term(const WorkTerm& t) {
    DerivationStep step;
    step.result = Quantity(t.value, work_dimension(real_, virtual_));
    const bool of_support = t.kind == WorkKind::spring || t.kind == WorkKind::settlement;
    const Described d = described(t.kind, !of_support && k_.pieces[t.index].turn != 0);
    if (of_support) {
      single(t, d, step);
    } else {
      const Piece& p = k_.pieces[t.index];
      Line because;
      because.say(fmt::format("{}, {}", p.name, d.word));
      if (t.from > 0 || t.to < p.length * (1 - 1e-9))
        because.say(", from ").put(t.from, dimension::length).say(" to ").put(t.to, dimension::length);
      step.because = because.take();
      step.formula = integral(t, d);
    }
    chapter_.items.emplace_back(std::move(step));
  }

 private:
  void single(const WorkTerm& t, const Described& d, DerivationStep& step) {
    const Hold& h = k_.holds[t.index];
    const Dimension force = h.turning ? dimension::moment : dimension::force;
    step.because = sentence(fmt::format("{}, {}", h.name, d.word));
    Line line;
    const double value = t.a[0] * t.b[0] * (t.kind == WorkKind::settlement ? -1 : 1);
    line.say(value < 0 ? "-" : "");
    if (t.kind == WorkKind::spring) {
      line.put(std::abs(t.a[0]), force / real_).say("·").put(std::abs(t.b[0]), force / virtual_).say("/");
      line.put(1 / t.flexibility, h.turning ? TurningStiffness::dimension() : Stiffness::dimension());
    } else {
      line.put(std::abs(t.a[0]), h.turning ? dimension::angle : dimension::length).say("·");
      line.put(std::abs(t.b[0]), force / virtual_);
    }
    step.formula = line.take();
  }

  // L·a·b/EI of even courses, else by Simpson's or Boole's rule.
  WorkedFormula integral(const WorkTerm& t, const Described& d) const {
    const bool strain =
        t.kind == WorkKind::elongation || t.kind == WorkKind::curvature_y || t.kind == WorkKind::curvature_z;
    const Dimension force = d.moment ? dimension::moment : dimension::force;
    const Dimension of_a = t.kind == WorkKind::elongation ? dimension::number
                           : strain                       ? dimension::number / dimension::length
                                                          : force / real_;
    const Dimension of_b = force / virtual_;
    Line line;
    const double h = t.to - t.from;
    if (is_even(t.a) && is_even(t.b)) {
      line.say(t.a[0] * t.b[0] < 0 ? "-" : "").put(h, dimension::length).say("·");
      line.put(std::abs(t.a[0]), of_a).say("·").put(std::abs(t.b[0]), of_b);
    } else {
      static constexpr int simpson[] = {1, 4, 1}, boole[] = {7, 32, 12, 32, 7};
      const bool three = t.a.size() == 3;
      line.put(h, dimension::length).say("/").put(three ? 6 : 90, dimension::number).say("·(");
      bool first = true;
      for (std::size_t i = 0; i < t.a.size(); ++i) {
        if (t.a[i] == 0 || t.b[i] == 0) continue;
        const bool minus = t.a[i] * t.b[i] < 0;
        line.say(first ? (minus ? "-" : "") : (minus ? " - " : " + "));
        first = false;
        const int weight = three ? simpson[i] : boole[i];
        if (weight != 1) line.say(std::to_string(weight)).say("·");
        line.put(std::abs(t.a[i]), of_a).say("·").put(std::abs(t.b[i]), of_b);
      }
      if (first) line.say("0");
      line.say(")");
    }
    if (!strain) line.say("/").put(1 / t.flexibility, d.rigidity);
    return line.take();
  }

  const Skeleton& k_;
  Dimension real_, virtual_;
  DerivationChapter& chapter_;
};

// The bars of a truss: L·S·s/EA, one row each.
bool is_table_of_bars(const std::vector<WorkTerm>& terms) {
  return terms.size() >= 5 && std::all_of(terms.begin(), terms.end(), [](const WorkTerm& t) {
           return t.kind == WorkKind::axial && is_even(t.a) && is_even(t.b);
         });
}

DerivationTable table_of_bars(const Skeleton& k, const std::vector<WorkTerm>& terms, const Dimension& real,
                              const Dimension& other, const std::string& name) {
  DerivationTable t{.name = "work", .title = fmt::format("Shares of the bars in {}", name)};
  t.columns = {{"bar", {}},
               {"L", dimension::length},
               {"S", dimension::force / real},
               {"s", dimension::force / other},
               {"EA", dimension::force},
               {"share", work_dimension(real, other)}};
  for (const WorkTerm& w : terms)
    t.rows.push_back({{k.pieces[w.index].name, {}},
                      {{}, w.to - w.from},
                      {{}, w.a[0]},
                      {{}, w.b[0]},
                      {{}, 1 / w.flexibility},
                      {{}, w.value}});
  t.rule = "L*S*s/EA";
  return t;
}

enum class Share { bending, shear, axial, torsion, springs, imposed };
Share part_of(WorkKind kind) {
  switch (kind) {
    case WorkKind::bending_z:
    case WorkKind::bending_y: return Share::bending;
    case WorkKind::shear_y:
    case WorkKind::shear_z:
    case WorkKind::coupled: return Share::shear;
    case WorkKind::axial: return Share::axial;
    case WorkKind::torsion: return Share::torsion;
    case WorkKind::spring: return Share::springs;
    default: return Share::imposed;
  }
}

// Zero if only rounding error of terms that cancel is left.
double sum_of(const std::vector<double>& values) {
  double sum = 0, largest = 0;
  for (const double v : values) sum += v, largest = std::max(largest, std::abs(v));
  return std::abs(sum) <= 1e-12 * largest ? 0 : sum;
}

void add_sum(DerivationChapter& chapter, WorkedFormula because, const std::string& name,
             const std::vector<double>& values, const Dimension& d) {
  Line line;
  bool first = true;
  for (const double v : values) {
    line.say(first ? (v < 0 ? "-" : "") : (v < 0 ? " - " : " + ")).put(std::abs(v), d);
    first = false;
  }
  if (first) line.put(0, d);
  chapter.items.emplace_back(
      DerivationStep{std::move(because), {}, name, line.take(), Quantity(sum_of(values), d), {}});
}

}  // namespace

Dimension work_dimension(const Dimension& real, const Dimension& other) {
  return dimension::moment / real / other;
}

void write_work(const Skeleton& k, const std::vector<WorkTerm>& terms, const Dimension& real, const Dimension& other,
                const std::string& name, DerivationChapter& chapter) {
  const Dimension d = work_dimension(real, other);
  if (terms.empty()) {
    add_sum(chapter, sentence("no work is done"), name, {}, d);
    return;
  }
  if (is_table_of_bars(terms)) {
    chapter.items.emplace_back(table_of_bars(k, terms, real, other, name));
    std::vector<double> values;
    for (const WorkTerm& t : terms) values.push_back(t.value);
    add_sum(chapter, sentence("sum of all bars"), name, values, d);
    return;
  }
  WorkWriter writer(k, real, other, chapter);
  std::vector<double> sums;
  static constexpr std::pair<Share, const char*> parts[] = {{Share::bending, "M"}, {Share::shear, "V"},
                                                            {Share::axial, "N"},   {Share::torsion, "T"},
                                                            {Share::springs, "C"}, {Share::imposed, "0"}};
  static constexpr const char* words[] = {"bending", "shear",   "axial forces",
                                          "torsion", "springs", "imposed displacements"};
  const std::set<Share> present = [&] {
    std::set<Share> all;
    for (const WorkTerm& t : terms) all.insert(part_of(t.kind));
    return all;
  }();
  for (const auto& [part, letter] : parts) {
    std::vector<double> values;
    for (const WorkTerm& t : terms) {
      if (part_of(t.kind) != part) continue;
      writer.term(t);
      values.push_back(t.value);
    }
    if (values.empty()) continue;
    if (const double sum = sum_of(values); sum != 0) sums.push_back(sum);
    const std::string word = words[static_cast<std::size_t>(part)];
    if (present.size() > 1 && values.size() > 1)
      add_sum(chapter, sentence("share of " + word), name + letter, values, d);
  }
  add_sum(chapter, sentence("sum"), name, sums.size() == 1 ? [&] {
    std::vector<double> values;
    for (const WorkTerm& t : terms) values.push_back(t.value);
    return values;
  }() : sums, d);
}

}  // namespace corvex::hand
