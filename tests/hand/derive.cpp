// The written hand calculation against the solution: the same figures by another way, and every printed line follows
// from what stands in it.
#include <fmt/format.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/derive.hpp>
#include <corvex/document.hpp>
#include <corvex/formula_text.hpp>
#include <random>
#include <regex>
#include <set>

#include "support/models.hpp"
#include "support/plan.hpp"
#include "support/rows.hpp"

namespace tests_of_hand_derive {

using namespace corvex;
using namespace corvex::literals;

namespace {

const unsigned rows = test::rows(100U, 15U);

// Every figure both ways, to a share of the largest of its kind; forces that are only rounding beside the loads are
// left out.
void check_both_ways(const Derivation& d, const Solution& solution, double loads) {
  for (const BothWays& b : both_ways(d, solution)) {
    INFO(b.what << ": derived " << b.derived.si << ", solved " << b.solved.si);
    if (std::abs(b.derived.si) < 1e-9 * loads && std::abs(b.solved.si) < 1e-9 * loads) continue;
    CHECK(std::abs(b.difference) < 1e-9);
  }
  // Whole courses, at places between which no cubic could hide.
  const CaseResult result = solution[d.load_case];
  const Structure& s = solution.structure();
  struct Course {
    Diagram DerivedMember::*derived;
    const char* figure;
  };
  constexpr Course courses[] = {{&DerivedMember::axial, "axial"},       {&DerivedMember::shear_y, "shear_y"},
                                {&DerivedMember::shear_z, "shear_z"},   {&DerivedMember::torsion, "torsion"},
                                {&DerivedMember::moment_y, "moment_y"}, {&DerivedMember::moment_z, "moment_z"}};
  double largest = loads;
  for (const DerivedMember& m : d.members)
    for (const Course& c : courses) largest = std::max(largest, (m.*c.derived).largest().si);
  for (const DerivedMember& m : d.members) {
    const MemberResult solved = result[m.member];
    const double L = s.length_of(s[m.member]);
    for (const Course& c : courses) {
      if (s[m.member].kind == MemberKind::link && c.derived != &DerivedMember::axial) continue;
      const Diagram derived = m.*c.derived, other = find_member_figure(c.figure)->diagram(solved);
      for (int i = 0; i <= 16; ++i) {
        // Off the breaks, which are at round places.
        const Length at = Length::si(L * std::min(1.0, (i + 0.0137) / 16.02));
        if (std::abs(derived.at(at).si - other.at(at).si) > 1e-9 * largest)
          FAIL_CHECK(s[m.member].name << " at " << at.si() << ": derived " << derived.at(at).si << ", solved "
                                      << other.at(at).si);
      }
    }
  }
}

// The result of a derivation of each case; how many of them were not too long.
std::size_t check_all_cases(const Structure& s) {
  const Solution solution = solve(s);
  REQUIRE(solution.ok());
  std::size_t derived = 0;
  for (std::size_t i = 0; i < solution.size(); ++i) {
    INFO("case " << solution[i].name());
    const auto d = derive(s, solution[i].name());
    if (!d) {
      CHECK(d.error().key == too_long);
      continue;
    }
    ++derived;
    check_both_ways(*d, solution, 1);
  }
  return derived;
}

SectionId tube(Structure& s) {
  return s.section("tube", SquareTube{.width = 60_mm, .wall = 4_mm});
}

class Random {
 public:
  explicit Random(unsigned seed) : engine_(seed) {}
  double between(double low, double high) { return std::uniform_real_distribution<double>(low, high)(engine_); }
  std::size_t below(std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(engine_); }

 private:
  std::mt19937 engine_;
};

Length metres(double v) {
  return Length::si(v);
}
Force force(Random& r, bool plane) {
  return {ForceSize::si(r.between(-5e3, 5e3)), ForceSize::si(r.between(-5e3, 5e3)),
          ForceSize::si(plane ? 0 : r.between(-5e3, 5e3))};
}

// A triangle (tetrahedron) of bars, on which each further joint stands with two (three) bars.
Structure random_truss(unsigned seed, bool plane) {
  Random r(seed);
  Structure s = plane ? Structure::plane("truss") : Structure::space("truss");
  const MemberOptions bar{.section = tube(s), .material = "S235", .kind = MemberKind::link};
  const std::size_t base = plane ? 2 : 3, joints = base + 3 + r.below(8);
  std::vector<PointId> points;
  std::size_t bars = 0;
  const auto add_bar = [&](std::size_t a, std::size_t b) {
    s.member("bar" + std::to_string(bars++), {points[a], points[b]}, bar);
  };
  for (std::size_t i = 0; i < joints; ++i) {
    const double x = i == 0 ? 0 : i == 1 ? 3 : r.between(-1, 6), y = i < 2 ? 0 : r.between(0.5, 4) + 0.3 * double(i);
    const double z = plane || i < 3 ? 0 : r.between(0.5, 4) + 0.3 * double(i);
    points.push_back(s.point(std::string(1, static_cast<char>('A' + i)), metres(x), metres(y), metres(z)));
    if (i < base) {
      for (std::size_t j = 0; j < i; ++j) add_bar(j, i);
      continue;
    }
    // To different joints that do not lie on one line (in one plane) with the new one.
    std::vector<std::size_t> to;
    for (int tries = 0; to.size() < base && tries < 200; ++tries) {
      const std::size_t j = r.below(i);
      if (std::find(to.begin(), to.end(), j) != to.end()) continue;
      const Vector own = s[points[i]].position, d = s[points[j]].position - own;
      bool flat = false;
      if (to.size() == 1) {
        const Vector e = s[points[to[0]]].position - own;
        flat = length(cross(d, e)) < 0.3 * length(d) * length(e);
      }
      if (to.size() == 2) {
        const Vector e = s[points[to[0]]].position - own, f = s[points[to[1]]].position - own;
        flat = std::abs(dot(d, cross(e, f))) < 0.1 * length(d) * length(e) * length(f);
      }
      if (!flat) to.push_back(j);
    }
    if (to.size() < base) {
      points.pop_back();
      return random_truss(seed + 10007, plane);
    }
    for (const std::size_t j : to) add_bar(j, i);
  }
  if (plane) {
    s.support(points[0], Support::pinned());
    s.support(points[1], Support::hold({Dof::y}));
  } else {
    s.support(points[0], Support::pinned());
    s.support(points[1], Support::hold({Dof::y, Dof::z}));
    s.support(points[2], Support::hold({Dof::z}));
  }
  auto loads = s.load_case("loads");
  for (const PointId p : points)
    if (r.below(2) == 0) loads.at(p, force(r, plane));
  loads.at(points.back(), force(r, plane));
  if (r.below(3) == 0) loads.gravity();
  return s;
}

// Members that branch from a fixed support, in a plane or in space, with every kind of load on them.
Structure random_tree(unsigned seed, bool plane) {
  Random r(seed);
  Structure s = plane ? Structure::plane("tree") : Structure::space("tree");
  const MemberOptions beam{.section = tube(s), .material = "S235"};
  std::vector<PointId> points{s.point("A", 0_m, 0_m, 0_m)};
  std::vector<MemberId> members;
  const std::size_t count = 1 + r.below(6);
  for (std::size_t i = 0; i < count; ++i) {
    const PointId from = points[r.below(points.size())];
    const Vector at = s[from].position;
    const PointId to = s.point(std::string(1, static_cast<char>('B' + i)), metres(at.x + r.between(0.4, 2)),
                               metres(at.y + r.between(-2, 2)), metres(plane ? 0 : at.z + r.between(-2, 2)));
    points.push_back(to);
    members.push_back(s.member("m" + std::to_string(i), {from, to}, beam));
  }
  s.support(points[0], Support::fixed());
  auto loads = s.load_case("loads");
  for (const MemberId m : members) {
    const double L = s.length_of(s[m]);
    const auto line = [&] {
      return LineForce{LineForceSize::si(r.between(-2e3, 2e3)), LineForceSize::si(r.between(-2e3, 2e3)),
                       LineForceSize::si(plane ? 0 : r.between(-2e3, 2e3))};
    };
    switch (r.below(5)) {
      case 0: loads.on(m, metres(r.between(0, L)), force(r, plane)); break;
      case 1: loads.line(m, line()); break;
      case 2: loads.line(m, line(), line(), metres(0.2 * L), metres(0.7 * L)); break;
      case 3:
        loads.on(m, metres(0.4 * L),
                 Moment{MomentSize::si(plane ? 0 : r.between(-1e3, 1e3)),
                        MomentSize::si(plane ? 0 : r.between(-1e3, 1e3)), MomentSize::si(r.between(-1e3, 1e3))});
        break;
      default: loads.line(m, line(), line()); break;
    }
  }
  loads.at(points.back(), force(r, plane));
  return s;
}

// The numbers of a printed line, each with half a unit of its last of so many digits.
double tolerance(const std::string& formula, const Names& names, int digits) {
  static const std::regex number(R"([0-9]+(\.[0-9]+)?(e[-+][0-9]+)?)");
  const auto base = evaluate(formula, names);
  if (!base) return 0;
  double sum = 0;
  for (auto it = std::sregex_iterator(formula.begin(), formula.end(), number); it != std::sregex_iterator(); ++it) {
    const double v = std::stod(it->str());
    // Digits of names and of powers are no numbers.
    const auto at = static_cast<std::size_t>(it->position());
    if (v == 0 || (at > 0 && (std::isalpha(static_cast<unsigned char>(formula[at - 1])) || formula[at - 1] == '_' ||
                              formula[at - 1] == '^')))
      continue;
    const double half = 0.5 * std::pow(10.0, std::floor(std::log10(v)) - (digits - 1));
    std::string other = formula;
    other.replace(at, static_cast<std::size_t>(it->length()), fmt::format("{:.17g}", v + half));
    if (const auto e = evaluate(other, names)) sum += std::abs(e->quantity.si - base->quantity.si);
  }
  return sum;
}

class Lines {
 public:
  explicit Lines(int digits) : digits_(digits) {}

  std::size_t checked = 0;

  // "because: name = formula = result (remark)" and its shorter forms.
  void read(std::string line) {
    INFO(line);
    if (const std::size_t remark = line.find("   ("); remark != std::string::npos) line.resize(remark);
    if (line.rfind("  zero by inspection:", 0) == 0 || line.rfind("  solution:", 0) == 0) return solution(line);
    if (line.rfind("  ", 0) != 0) return;
    const std::size_t lead = line.rfind(": ");
    std::vector<std::string> sides = split(line.substr(lead == std::string::npos ? 2 : lead + 2), " = ");
    if (sides.size() < 2) return;
    if (sides.back() == "0" && line.rfind("      ", 0) != 0) return;  // an equation in names, solved in the next line
    const auto result = evaluate(sides.back(), Scope());
    if (!result) return;  // a course, in which x stands
    const auto formula = sides.size() == 3 ? sides[1] : sides[0];
    const auto value = evaluate(formula, Scope());
    if (sides.size() == 2 && !value) {
      remember(sides[0], result->quantity);
      return;
    }
    REQUIRE(value);
    const double allowed = tolerance(formula, Scope(), digits_) + tolerance(sides.back(), Scope(), digits_) + 1e-12;
    CHECK(std::abs(value->quantity.si - result->quantity.si) <= 1.01 * allowed);
    CHECK(compatible(value->quantity.dimension, result->quantity.dimension) == true);
    ++checked;
    if (sides.size() == 3) remember(sides[0], result->quantity);
  }

  // Left sides of equations that hold together, with the solution put in.
  void system(const DerivationSystem& s, const ModelUnits& units) {
    for (const auto& [name, v] : s.solution) remember(name, v);
    for (const DerivationSystem::Equation& e : s.equations) {
      const std::string text = derived_text(e.left, units, digits_);
      INFO(text);
      const auto value = evaluate(text, scope_);
      REQUIRE(value);
      CHECK(std::abs(value->quantity.si) <= 1.01 * tolerance(text, scope_, digits_) + gross(text) * 1e-9 + 1e-12);
      ++checked;
    }
  }

  // Rows whose last cell follows from the others.
  void table(const DerivationTable& t, const ModelUnits& units) {
    if (t.name == "joint steps")
      for (const auto& row : t.rows) {
        const std::string text = derived_text(row.back().formula, units, digits_);
        INFO(text);
        const auto value = evaluate(text.empty() ? "0 N" : text, Scope());
        REQUIRE(value);
        const double allowed = tolerance(text, Scope(), digits_) + 0.5e-4 * std::abs(*row[3].value) + 1e-12;
        CHECK(std::abs(value->quantity.si - *row[3].value) <= 1.01 * allowed);
        ++checked;
      }
    if (t.rule.empty()) return;
    for (const auto& row : t.rows) {
      // What the rule names stands in the columns; X1 and so on were found before.
      std::string formula = t.rule;
      for (std::size_t c = row.size() - 1; c-- > 0;) {
        if (!row[c].value) continue;
        const std::string number = "(" + derived_value({*row[c].value, *t.columns[c].dimension}, units, digits_) + ")";
        formula = std::regex_replace(formula, std::regex("\\b" + t.columns[c].head + "\\b"), number);
      }
      INFO(formula);
      const auto value = evaluate(formula, scope_);
      REQUIRE(value);
      double allowed =
          tolerance(formula, scope_, digits_) +
          tolerance(derived_value({*row.back().value, *t.columns.back().dimension}, units, digits_), scope_, digits_);
      for (const auto& [name, q] : redundants_) allowed += std::abs(q) * 1e-9;
      CHECK(std::abs(value->quantity.si - *row.back().value) <= 1.01 * allowed + 1e-9);
      ++checked;
    }
  }

 private:
  static std::vector<std::string> split(const std::string& text, const std::string& at) {
    std::vector<std::string> parts;
    std::size_t from = 0;
    for (std::size_t to; (to = text.find(at, from)) != std::string::npos; from = to + at.size())
      parts.push_back(text.substr(from, to - from));
    parts.push_back(text.substr(from));
    return parts;
  }
  double gross(const std::string& text) {
    double sum = 0;
    std::string part;
    for (const std::string& plus : split(text, " + "))
      for (const std::string& term : split(plus, " - "))
        if (const auto e = evaluate(term, scope_)) sum += std::abs(e->quantity.si);
    return sum;
  }
  void remember(const std::string& name, const Quantity& q) {
    scope_.set(name, q);
    redundants_[name] = q.si;
  }
  void solution(const std::string& line) {
    for (const std::string& one : split(line.substr(line.find(": ") + 2), ", ")) {
      const auto sides = split(one, " = ");
      if (sides.size() != 2) continue;
      if (const auto v = evaluate(sides[1], Scope())) remember(sides[0], v->quantity);
    }
  }

  int digits_;
  Scope scope_;
  std::map<std::string, double> redundants_;
};

}  // namespace

TEST_CASE("The derivation of every model that ships gives the figures of the solution") {
  std::size_t derived = 0;
  for (const test::NamedModel& named : test::shipped_models()) {
    INFO(named.name);
    const auto model = read_model_text(named.text, named.name);
    REQUIRE(model);
    if (model->structure.analysis().order != Order::first) continue;
    if (solve(model->structure).ok()) derived += check_all_cases(model->structure);
  }
  CHECK(derived > 60);
}

TEST_CASE("500 random determinate trusses and frames are derived as they are solved") {
  std::size_t derived = 0;
  for (unsigned seed = 0; seed < rows + rows / 4; ++seed)
    for (const bool plane : {true, false}) {
      INFO("seed " << seed << (plane ? " plane" : " space"));
      for (const Structure& s : {random_truss(seed, plane), random_tree(seed, plane)}) {
        const auto d = derive(s, "loads");
        REQUIRE(d);
        CHECK(d->count.degree == 0);
        derived += check_all_cases(s);
      }
    }
  CHECK(derived == 4 * (rows + rows / 4));
}

TEST_CASE("300 random indeterminate frames with every kind of load are derived as they are solved") {
  std::size_t derived = 0;
  for (unsigned seed = 0; seed < rows; ++seed)
    for (const bool plane : {true, false})
      for (const auto make : {test::random_plan, test::rich_plan}) {
        INFO("seed " << seed << (plane ? " plane" : " space"));
        const Structure s = test::build(make(seed, plane));
        const Solution solution = solve(s);
        if (!solution.ok()) continue;
        for (std::size_t i = 0; i < solution.size(); ++i) {
          const auto d = derive(s, solution[i].name());
          if (!d || d->count.degree == 0) continue;
          ++derived;
          // Loads of these frames are thousands of newtons.
          check_both_ways(*d, solution, 1e3);
        }
      }
  CHECK(derived > 3 * rows);
}

TEST_CASE("Every printed line of a derivation follows from the numbers in it") {
  std::size_t checked = 0;
  const auto check = [&](const Structure& s, const std::string& load_case, const ModelUnits& units) {
    const auto d = derive(s, load_case);
    if (!d) return;
    constexpr int digits = 5;
    Lines lines(digits);
    for (const DerivationChapter& chapter : d->chapters) {
      const Derivation one{.title = "one", .load_case = load_case, .count = {}, .chapters = {chapter}};
      const std::string text =
          document::page_text(document::derivation_page(one, {}, units, digits, false), {.digits = digits});
      std::size_t from = 0;
      INFO(chapter.title);
      for (std::size_t to; (to = text.find('\n', from)) != std::string::npos; from = to + 1)
        lines.read(text.substr(from, to - from));
      for (const DerivationChapter::Item& item : chapter.items) {
        if (const auto* system = std::get_if<DerivationSystem>(&item)) lines.system(*system, units);
        if (const auto* table = std::get_if<DerivationTable>(&item)) lines.table(*table, units);
      }
    }
    checked += lines.checked;
  };
  for (const test::NamedModel& named : test::shipped_models()) {
    const auto model = read_model_text(named.text, named.name);
    REQUIRE(model);
    if (model->structure.analysis().order != Order::first) continue;
    INFO(named.name);
    const Solution solution = solve(model->structure);
    for (std::size_t i = 0; solution.ok() && i < solution.size(); ++i)
      check(model->structure, solution[i].name(), model->units);
  }
  for (unsigned seed = 0; seed < test::rows(10U, 3U); ++seed)
    for (const bool plane : {true, false}) {
      INFO("seed " << seed << (plane ? " plane" : " space"));
      check(random_truss(seed, plane), "loads", {});
      check(random_tree(seed, plane), "loads", {});
      check(test::build(test::rich_plan(seed, plane)), "C0", {});
    }
  CHECK(checked > 5000);
}

TEST_CASE("What cannot be derived is refused with the reason, or checked joint by joint") {
  Structure s = Structure::plane("beam");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 2_m, 0_m);
  s.member("beam", {a, b}, {.section = tube(s), .material = "S235"});
  s.support(a, Support::hold({Dof::x, Dof::y}));
  s.load_case("load").at(b, Force{.y = -1_kN});
  const auto moving = derive(s, "load");
  REQUIRE(!moving);
  CHECK(moving.error().text.find("is not restrained") != std::string::npos);
  s.replace_support(a, Support::fixed());
  CHECK(derive(s, "load"));
  CHECK(derive(s, ""));
  const auto unknown = derive(s, "laod");
  REQUIRE(!unknown);
  CHECK(unknown.error().text.find("did you mean 'load'?") != std::string::npos);

  // A ladder of four bays is indeterminate to degree 15.
  Structure ladder = Structure::plane("ladder");
  const MemberOptions beam{.section = tube(ladder), .material = "S235"};
  std::vector<PointId> left, right;
  for (int i = 0; i < 6; ++i) {
    left.push_back(ladder.point("L" + std::to_string(i), 0_m, metres(i)));
    right.push_back(ladder.point("R" + std::to_string(i), 1_m, metres(i)));
    if (i > 0) ladder.member("rung" + std::to_string(i), {left.back(), right.back()}, beam);
  }
  ladder.member("left", left, beam);
  ladder.member("right", right, beam);
  ladder.support(left[0], Support::fixed());
  ladder.support(right[0], Support::fixed());
  ladder.load_case("wind").at(left.back(), Force{.x = 1_kN}).line(*ladder.find_member("left"), {.x = 2_kN_per_m});
  const auto long_one = derive(ladder, "wind");
  REQUIRE(!long_one);
  INFO(long_one.error().text);
  CHECK(long_one.error().key == too_long);
  const Solution solution = solve(ladder);
  const auto checked = derive(solution, 0);
  REQUIRE(checked);
  std::size_t sums = 0;
  for (const DerivationChapter& c : checked->chapters)
    for (const DerivationChapter::Item& item : c.items)
      if (const auto* step = std::get_if<DerivationStep>(&item)) {
        const std::string text = derived_text(step->formula, {}, 12);
        const auto value = evaluate(text, Scope());
        INFO(text);
        REQUIRE(value);
        CHECK(std::abs(value->quantity.si) < 1e-6);
        ++sums;
      }
  CHECK(sums == 36);
  // Nothing is compared with itself.
  CHECK(both_ways(*checked, solution).empty());
}

}  // namespace tests_of_hand_derive
