#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "hand/write_chapters.hpp"
#include "hand/write_equilibrium.hpp"
#include "hand/write_members.hpp"
#include "hand/write_work.hpp"

namespace corvex::hand {
namespace {

// The redundants are known in every state: nothing, or one.
Ledger ledger_of(const ForceMethod& m, const Acting& acting, const State& state, std::optional<std::size_t> unit,
                 const Dimension& per) {
  Ledger l(m, acting, state, per);
  for (std::size_t i = 0; i < m.statics->redundants().size(); ++i) {
    const std::size_t key = key_of(l, m.redundant(i));
    l.learn(key);
    if (unit == i) l.rename(key, redundant_name(i));
  }
  return l;
}

bool is_moment(const Dimension& d) {
  return d == dimension::moment;
}

std::string delta(std::size_t i, std::size_t k) {
  return fmt::format("d_{}{}", i, k);
}

DerivationTable superposition(const ForceMethod& m, bool moments) {
  const std::size_t n = m.statics->redundants().size();
  DerivationTable t{.name = moments ? "moments" : "forces",
                    .title = moments ? "Sum of the states: moments" : "Sum of the states: forces"};
  const Dimension own = moments ? dimension::moment : dimension::force;
  t.columns = {{moments ? "moment" : "force", {}}, {"S0", own}};
  t.rule = "S0";
  for (std::size_t i = 0; i < n; ++i) {
    t.columns.push_back({fmt::format("S{}", i + 1), own / dimension_of(m.skeleton(), m.redundant(i))});
    t.rule += fmt::format(" + {}*S{}", redundant_name(i), i + 1);
  }
  t.columns.push_back({"sum", own});
  const Ledger final(m, m.acting, m.final, dimension::number), primary(m, m.acting, m.primary, dimension::number);
  std::vector<Ledger> units;
  for (std::size_t i = 0; i < n; ++i) units.emplace_back(m, m.nothing, m.unit[i], dimension::number);
  const Skeleton& k = m.skeleton();
  // Of each force its entry in every ledger: a force that is one all along a piece in a state without loads may be two
  // where loads act.
  struct Row {
    std::size_t hold, piece, component;
    bool at_a, reaction;
  };
  std::vector<Row> rows;
  for (std::size_t i = 0; i < k.holds.size(); ++i) rows.push_back({i, 0, 0, true, true});
  for (std::size_t i = 0; i < k.pieces.size(); ++i)
    for (std::size_t c = 0; c < 6; ++c)
      for (const bool at_a : {true, false}) {
        if (!at_a && final.of_end(i, c, true) == final.of_end(i, c, false)) continue;
        rows.push_back({0, i, c, at_a, false});
      }
  for (const Row& r : rows) {
    const auto key = [&](const Ledger& l) { return r.reaction ? r.hold : l.of_end(r.piece, r.component, r.at_a); };
    const std::size_t f = key(final);
    if (!final.exists(f)) continue;
    if ((r.reaction ? k.holds[r.hold].turning : r.component >= T) != moments) continue;
    std::vector<DerivationTable::Cell> row{{final.name(f), {}}, {{}, primary.value(key(primary))}};
    for (const Ledger& l : units) row.push_back({{}, l.value(key(l))});
    row.push_back({{}, final.value(f)});
    t.rows.push_back(std::move(row));
  }
  return t;
}

}  // namespace

DerivationChapter forces_chapter(const ForceMethod& m) {
  const bool determinate = m.statics->redundants().empty();
  DerivationChapter c{
      .name = determinate ? "forces" : "state 0",
      .title = determinate ? "Reactions and internal forces" : "State 0: the loads on the primary structure"};
  Ledger l = ledger_of(m, m.acting, m.primary, std::nullopt, dimension::number);
  write_equilibrium(l, c);
  return c;
}

std::vector<DerivationChapter> force_method_chapters(const ForceMethod& m) {
  std::vector<DerivationChapter> all;
  const std::size_t n = m.statics->redundants().size();
  if (n == 0) return all;
  const Skeleton& k = m.skeleton();
  for (std::size_t i = 0; i < n; ++i) {
    const Dimension per = dimension_of(k, m.redundant(i));
    DerivationChapter c{.name = fmt::format("state {}", i + 1),
                        .title = fmt::format("State {}: {} = 1 alone", i + 1, redundant_name(i))};
    c.items.emplace_back(sentence(
        is_moment(per) ? "The unit moment is dimensionless: moments are numbers, forces have the dimension 1/length."
                       : "The unit force is dimensionless: forces are numbers, moments are lengths."));
    Ledger l = ledger_of(m, m.nothing, m.unit[i], i, per);
    write_equilibrium(l, c);
    all.push_back(std::move(c));
  }
  DerivationChapter c{.name = "flexibility", .title = "Displacements of the primary structure"};
  c.items.emplace_back(sentence(
      "d_ik is the displacement in the direction of Xi from Xk = 1, d_i0 that from the loads: the sum over all members of "
      "the integrals of M·m/EI, V·v/GAs and N·n/EA. Of linear courses the integral over a length L is L/6·(a·b at the "
      "start + 4·a·b in the middle + a·b at the end); where a product is of a higher degree than three, five places "
      "are taken with the weights 7, 32, 12, 32, 7 and L/90."));
  DerivationSystem equations{.because = sentence("no displacement at the redundants")};
  std::vector<Line> lines(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Dimension of_i = dimension_of(k, m.redundant(i));
    c.items.emplace_back(sentence(fmt::format("{}, from the loads:", delta(i + 1, 0))));
    write_work(k, m.load_terms[i], dimension::number, of_i, delta(i + 1, 0), c);
    for (std::size_t j = i; j < n; ++j) {
      c.items.emplace_back(sentence(fmt::format("{}, from {} = 1:", delta(i + 1, j + 1), redundant_name(j))));
      write_work(k, m.terms[i][j], of_i, dimension_of(k, m.redundant(j)), delta(i + 1, j + 1), c);
    }
  }
  for (std::size_t i = 0; i < n; ++i) {
    const Dimension of_i = dimension_of(k, m.redundant(i));
    Line& line = lines[i];
    bool first = true;
    const auto sign = [&](double v) { line.say(first ? (v < 0 ? "-" : "") : (v < 0 ? " - " : " + ")), first = false; };
    for (std::size_t j = 0; j < n; ++j) {
      const double d = sum(m.terms[std::min(i, j)][std::max(i, j)]);
      if (d == 0) continue;
      sign(d);
      line.put(std::abs(d), work_dimension(of_i, dimension_of(k, m.redundant(j)))).say("·").say(redundant_name(j));
    }
    const double loads = sum(m.load_terms[i]);
    sign(loads);
    line.put(std::abs(loads), work_dimension(dimension::number, of_i));
    equations.equations.push_back({{}, line.take()});
    equations.solution.emplace_back(redundant_name(i), Quantity(m.redundants[i], of_i));
  }
  c.items.emplace_back(std::move(equations));
  all.push_back(std::move(c));
  DerivationChapter total{.name = "sum", .title = "Sum of all states"};
  for (const bool moments : {false, true})
    if (DerivationTable t = superposition(m, moments); !t.rows.empty()) total.items.emplace_back(std::move(t));
  all.push_back(std::move(total));
  return all;
}

DerivationChapter members_chapter(const ForceMethod& m, const std::vector<MemberId>& members) {
  DerivationChapter c{.name = "members", .title = "Internal forces along the members"};
  write_members(Ledger(m, m.acting, m.final, dimension::number), members, c);
  return c;
}

std::optional<DerivationTable> bars_table(const ForceMethod& m) {
  const Skeleton& k = m.skeleton();
  DerivationTable t{.name = "bars", .title = "Forces in the bars"};
  t.columns = {{"bar", {}}, {"member", {}}, {"S", dimension::force}, {"", {}}};
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Piece& p = k.pieces[i];
    if (p.beam) continue;
    const double s = m.final.start[i][N];
    t.rows.push_back({{p.name, {}},
                      {k.structure->members()[p.member].name, {}},
                      {{}, s},
                      {s > 0                    ? "tension"
                       : s < 0                  ? "compression"
                       : m.statics->is_slack(i) ? "slack"
                                                : "no force",
                       {}}});
  }
  if (t.rows.empty()) return {};
  return t;
}

namespace {

// How far the ends of a slack piece move apart, and how much longer it becomes by itself.
void write_gap(const ForceMethod& m, const ForceMethod::Slack& slack, bool pulls, DerivationChapter& c) {
  const Skeleton& k = m.skeleton();
  const Piece& p = k.pieces[slack.piece];
  const std::string name = k.structure->members()[p.member].name;
  c.items.emplace_back(sentence(fmt::format(
      "{} ({}) is slack. Increase of the distance between its ends, by unit forces on both:", name, p.name)));
  const Acting load = pushed_apart(k, slack.piece);
  const auto [state, terms] = m.displacement(load);
  Ledger l(m, load, state, dimension::force);
  for (const Unknown& u : m.statics->redundants()) l.learn(key_of(l, u));
  write_equilibrium(l, c);
  write_work(k, terms, dimension::number, dimension::force, "e_" + p.name, c);
  const double e = sum(terms), own = e - slack.gap;
  if (std::abs(own) > 1e-12 * std::abs(e)) {
    Line line;
    line.put(e, dimension::length, "e_" + p.name).say(own < 0 ? " + " : " - ").put(std::abs(own), dimension::length);
    c.items.emplace_back(DerivationStep{sentence("less the free elongation of the member"),
                                        {},
                                        "g_" + p.name,
                                        line.take(),
                                        Quantity(slack.gap, dimension::length),
                                        {}});
  }
  c.items.emplace_back(sentence(pulls
                                    ? "The distance is less than the length of the member: it is slack, as assumed."
                                    : "The distance is more than the length of the member: it is slack, as assumed."));
}

}  // namespace

DerivationChapter one_way_chapter(const ForceMethod& m) {
  DerivationChapter c{.name = "one way", .title = "One-way members"};
  const Skeleton& k = m.skeleton();
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const Member& member = k.structure->members()[k.pieces[i].member];
    if (member.acts == Acts::always) continue;
    const bool pulls = member.acts == Acts::tension;
    const auto slack = std::find_if(m.slack.begin(), m.slack.end(), [&](const auto& s) { return s.piece == i; });
    if (slack != m.slack.end()) {
      write_gap(m, *slack, pulls, c);
      continue;
    }
    Line line;
    line.say(fmt::format("{} ({}) acts: its force is ", member.name, k.pieces[i].name))
        .put(std::abs(m.final.start[i][N]), dimension::force)
        .say(pulls ? ", tension, as required." : ", compression, as required.");
    c.items.emplace_back(line.take());
  }
  return c;
}

DerivationChapter joints_chapter(const Ledger& l) {
  DerivationChapter c{.name = "joints", .title = "Check: the forces at each joint"};
  const Skeleton& k = l.skeleton();
  static constexpr Vector axes[] = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
  static constexpr const char* letters[] = {"x", "y", "z"};
  for (std::size_t p = 0; p < k.used.size(); ++p) {
    if (!k.used[p]) continue;
    const Body body = joint(k, p);
    const std::vector<Action> forces = forces_on(l, body);
    const Vector at = k.structure->points()[p].position;
    for (std::size_t i = 0; i < 6; ++i) {
      if (k.plane && i != 0 && i != 1 && i != 5) continue;
      const bool moments = i >= 3;
      const Condition condition{
          moments, axes[i % 3], at,
          sentence(fmt::format("{}: {} {}", body.title, moments ? "moments about" : "forces along",
                               moments && k.plane ? "it" : letters[i % 3]))};
      const std::vector<Term> all = terms(l, forces, condition);
      Sum sum;
      for (const Term& t : all) {
        if (t.force->key && l.value(*t.force->key) == 0) continue;
        for (const Product& f : t.factor) {
          if (t.force->key)
            sum.push_back(times({.parts = {{t.force->name, l.value(*t.force->key), l.dimension(*t.force->key)}}}, f));
          else
            for (const Product& size : t.force->size) sum.push_back(times(size, f));
        }
      }
      if (sum.size() < 2) continue;
      DerivationStep step{.because = condition.words};
      Line numbers;
      write(numbers, sum, Show::numbers);
      step.formula = numbers.take();
      step.result = Quantity(0, moments ? dimension::moment : dimension::force);
      c.items.emplace_back(std::move(step));
    }
  }
  return c;
}

}  // namespace corvex::hand
