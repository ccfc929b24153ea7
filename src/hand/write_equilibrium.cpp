#include "hand/write_equilibrium.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace corvex::hand {
namespace {

// The forces of a body with their terms in each of its conditions.
struct Written {
  Body body{};
  std::vector<Action> forces{};
  std::vector<Condition> conditions{};
  std::vector<std::vector<Term>> terms{};  // of each condition, of unknown forces and of those known as not zero
};

double product(const std::vector<double>& a, const std::vector<double>& b) {
  return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}

// Rows of which none is made up of others, by the method of Gram and Schmidt, twice for what rounding leaves.
class IndependentRows {
 public:
  // Whether the row, which is not zero, is independent of those before it; then it is one of them.
  bool take(std::vector<double> row) {
    constexpr double least = 1e-3;
    normalise(row);
    for (int twice = 0; twice < 2; ++twice)
      for (const std::vector<double>& b : basis_) {
        const double share = product(b, row);
        for (std::size_t i = 0; i < row.size(); ++i) row[i] -= share * b[i];
      }
    if (normalise(row) < least) return false;
    basis_.push_back(std::move(row));
    return true;
  }

 private:
  static double normalise(std::vector<double>& row) {
    const double size = std::sqrt(product(row, row));
    for (double& v : row) v /= size;
    return size;
  }

  std::vector<std::vector<double>> basis_;
};

class EquilibriumWriter {
 public:
  EquilibriumWriter(Ledger& ledger, DerivationChapter& chapter) : l_(ledger), chapter_(chapter) {}

  void run() {
    const Skeleton& k = l_.skeleton();
    std::vector<Body> bodies{whole(k)};
    for (Body& b : rigid_parts(k)) bodies.push_back(std::move(b));
    const std::size_t first_piece = bodies.size();
    for (std::size_t i = 0; i < k.pieces.size(); ++i) bodies.push_back(piece_alone(k, i));
    for (std::size_t p = 0; p < k.used.size(); ++p)
      if (k.used[p]) bodies.push_back(joint(k, p));
    for (Body& b : bodies) prepared_.push_back(prepared(std::move(b)));
    find_zero_bars(first_piece + k.pieces.size());
    while (anything_unknown()) {
      if (one_body() || section() || together_in_a_body() || pair() || all_that_is_left()) continue;
      break;
    }
  }

 private:
  Written prepared(Body body) const {
    Written w{.body = std::move(body)};
    w.forces = forces_on(l_, w.body);
    w.conditions = conditions(l_, w.body, w.forces);
    return w;
  }

  // Terms are found when first needed.
  const std::vector<Term>& terms_of(Written& w, std::size_t condition) const {
    if (w.terms.empty())
      for (const Condition& c : w.conditions) w.terms.push_back(terms(l_, w.forces, c));
    return w.terms[condition];
  }

  bool is_unknown(const Term& t) const { return t.force->key && !l_.known(*t.force->key); }
  bool is_nothing(const Term& t) const {
    return t.force->key && l_.known(*t.force->key) && l_.value(*t.force->key) == 0;
  }

  std::vector<std::size_t> unknowns(const Written& w) const {
    std::vector<std::size_t> keys;
    for (const Action& f : w.forces)
      if (f.key && !l_.known(*f.key) && std::find(keys.begin(), keys.end(), *f.key) == keys.end())
        keys.push_back(*f.key);
    return keys;
  }

  bool anything_unknown() const {
    for (std::size_t i = 0; i < l_.size(); ++i)
      if (l_.exists(i) && !l_.known(i)) return true;
    return false;
  }

  void title(Written& w) {
    if (last_title_ == w.body.title) return;
    last_title_ = w.body.title;
    chapter_.items.emplace_back(sketch(l_, w.body, w.forces));
  }

  // The condition with the fewest terms that leaves one unknown; moments about the point that kills most forces.
  std::optional<std::pair<std::size_t, std::size_t>> isolating(Written& w, std::size_t most_terms = 1000) const {
    std::optional<std::pair<std::size_t, std::size_t>> best;
    double score = 0;
    for (std::size_t i = 0; i < w.conditions.size(); ++i) {
      const auto& all = terms_of(w, i);
      std::optional<std::size_t> key;
      std::size_t count = 0;
      bool one = true;
      double coefficient = 0, largest = 0;
      for (const Term& t : all) {
        if (is_nothing(t)) continue;
        count += t.factor.size();
        largest = std::max(largest, std::abs(t.value));
        if (!is_unknown(t)) continue;
        one = one && (!key || *key == *t.force->key);
        key = *t.force->key;
        coefficient += t.value;
      }
      if (!key || !one || count > most_terms || std::abs(coefficient) < 1e-6 * std::max(largest, 1e-300)) continue;
      // A short lever of the unknown makes large numbers of small ones.
      const double s = static_cast<double>(count) + (w.conditions[i].moments ? 0.5 : 0) +
                       (std::abs(coefficient) < 0.05 * largest ? 20 : 0);
      if (best && s >= score) continue;
      score = s;
      best = {i, *key};
    }
    return best;
  }

  // Size of a term: that of its force, with its factor.
  Sum product_of(const Term& t) const {
    Sum sum;
    if (t.force->key) {
      const Factor force{l_.name(*t.force->key), l_.value(*t.force->key), l_.dimension(*t.force->key)};
      if (t.factor.size() == 1) {
        Product p{.parts = {force}};
        return {times(std::move(p), t.factor.front())};
      }
      for (const Product& f : t.factor) sum.push_back(times(Product{.parts = {force}}, f));
      return sum;
    }
    for (const Product& f : t.factor)
      for (const Product& p : t.force->size) sum.push_back(times(p, f));
    return sum;
  }

  void step(Written& w, std::size_t condition, std::size_t key) {
    title(w);
    Sum unknown, others;
    Sum all;
    for (const Term& t : terms_of(w, condition)) {
      if (is_nothing(t)) continue;
      const Sum s = product_of(t);
      all.insert(all.end(), s.begin(), s.end());
      if (is_unknown(t))
        unknown.insert(unknown.end(), t.factor.begin(), t.factor.end());
      else
        others.insert(others.end(), s.begin(), s.end());
    }
    DerivationStep step{.because = w.conditions[condition].words, .unknown = l_.name(key)};
    Line equation;
    write(equation, all, Show::names);
    step.equation = equation.say(" = 0").take();
    const double coefficient = value(unknown);
    if (!others.empty()) {
      // unknown = −Σ others / coefficient, written without needless signs.
      const double sign = coefficient < 0 ? 1 : -1;
      for (Product& p : others) p.sign *= sign;
      for (Product& p : unknown) p.sign *= -sign;
      step.formula = quotient(others, unknown);
    }
    step.result = Quantity(l_.value(key), l_.dimension(key));
    step.remark = remark(key);
    l_.learn(key);
    chapter_.items.emplace_back(std::move(step));
  }

  static WorkedFormula quotient(const Sum& above, const Sum& below) {
    Line line;
    const bool divided = below.size() > 1 || !below.front().parts.empty();
    if (divided && above.size() > 1) line.say("(");
    write(line, above, Show::numbers);
    if (divided && above.size() > 1) line.say(")");
    if (!divided) return line.take();
    const bool brackets = below.size() > 1 || below.front().parts.size() > 1;
    line.say(brackets ? "/(" : "/");
    write(line, below, Show::numbers);
    return line.say(brackets ? ")" : "").take();
  }

  std::string remark(std::size_t key) const {
    const double v = l_.value(key);
    if (l_.is_bar(key) && l_.name(key).front() == 'S') return v > 0 ? "tension" : v < 0 ? "compression" : "no force";
    return {};
  }

  // Bars without force by inspection: a joint at which one bar alone has a share in some direction.
  void find_zero_bars(std::size_t first_joint) {
    for (bool found = true; found;) {
      found = false;
      for (std::size_t i = first_joint; i < prepared_.size(); ++i)
        while (const auto best = isolating(prepared_[i], 1)) {
          if (!l_.is_bar(best->second)) break;
          step(prepared_[i], best->first, best->second);
          found = true;
        }
    }
  }

  bool one_body() {
    return std::any_of(prepared_.begin(), prepared_.end(), [&](Written& w) { return all_steps(w); });
  }

  // All results of a body by equations with one unknown; whether there are any.
  bool all_steps(Written& w) {
    bool any = false;
    while (const auto next = isolating(w)) step(w, next->first, next->second), any = true;
    return any;
  }

  bool section() {
    const std::size_t most = l_.skeleton().plane ? 3 : 6;
    if (l_.skeleton().pieces.size() > 200) return false;
    std::vector<Written> sides;
    for (Body& b : sections(l_, most)) sides.push_back(prepared(std::move(b)));
    // The side of a cut on which fewer forces act is shorter to write.
    std::stable_sort(sides.begin(), sides.end(),
                     [](const Written& a, const Written& b) { return a.forces.size() < b.forces.size(); });
    return std::any_of(sides.begin(), sides.end(), [&](Written& w) { return all_steps(w); });
  }

  // Equations of one body that hold together.
  bool together_in_a_body() {
    Written* best = nullptr;
    std::size_t fewest = l_.skeleton().plane ? 4 : 7;
    for (Written& w : prepared_) {
      const std::vector<std::size_t> keys = unknowns(w);
      if (keys.empty() || keys.size() >= fewest) continue;
      if (chosen({&w}, keys).size() < keys.size()) continue;
      best = &w, fewest = keys.size();
    }
    if (!best) return false;
    title(*best);
    const std::vector<std::size_t> keys = unknowns(*best);
    system(fmt::format("{} simultaneous equations of {}", keys.size(), best->body.title), chosen({best}, keys), keys);
    return true;
  }

  // Two equations of different bodies in the same two unknowns.
  bool pair() {
    struct Candidate {
      Written* body;
      std::size_t condition;
      std::size_t a, b;
      double of_a, of_b;
    };
    std::vector<Candidate> all;
    for (Written& w : prepared_)
      for (std::size_t i = 0; i < w.conditions.size(); ++i) {
        std::vector<std::pair<std::size_t, double>> in;
        for (const Term& t : terms_of(w, i)) {
          if (!is_unknown(t)) continue;
          const auto it = std::find_if(in.begin(), in.end(), [&](const auto& x) { return x.first == *t.force->key; });
          if (it == in.end())
            in.emplace_back(*t.force->key, t.value);
          else
            it->second += t.value;
        }
        if (in.size() != 2) continue;
        if (in[0].first > in[1].first) std::swap(in[0], in[1]);
        all.push_back({&w, i, in[0].first, in[1].first, in[0].second, in[1].second});
      }
    for (std::size_t i = 0; i < all.size(); ++i)
      for (std::size_t j = i + 1; j < all.size(); ++j) {
        const Candidate &p = all[i], &q = all[j];
        if (p.a != q.a || p.b != q.b) continue;
        const double det = p.of_a * q.of_b - p.of_b * q.of_a;
        if (std::abs(det) < 0.02 * (std::abs(p.of_a * q.of_b) + std::abs(p.of_b * q.of_a))) continue;
        title(*p.body);
        last_title_.clear();
        title(*q.body);
        system("two simultaneous equations", {{p.body, p.condition}, {q.body, q.condition}}, {p.a, p.b});
        return true;
      }
    return false;
  }

  bool all_that_is_left() {
    std::vector<Written*> bodies;
    std::vector<std::size_t> keys;
    for (std::size_t i = 0; i < l_.size(); ++i)
      if (l_.exists(i) && !l_.known(i)) keys.push_back(i);
    for (Written& w : prepared_)
      if (!unknowns(w).empty() && (w.body.joints.size() == 1 || w.body.pieces.size() == 1)) bodies.push_back(&w);
    const auto equations = chosen(bodies, keys);
    if (equations.size() < keys.size()) return false;
    last_title_.clear();
    system(fmt::format("{} simultaneous equations of joints and parts", keys.size()), equations, keys);
    return true;
  }

  using Equations = std::vector<std::pair<Written*, std::size_t>>;

  // Independent conditions, as many as there are unknowns, the shortest first.
  Equations chosen(const std::vector<Written*>& bodies, const std::vector<std::size_t>& keys) const {
    struct Row {
      Written* body;
      std::size_t condition, length;
      std::vector<double> row;
    };
    std::vector<Row> rows;
    for (Written* w : bodies)
      for (std::size_t i = 0; i < w->conditions.size(); ++i) {
        Row r{w, i, 0, std::vector<double>(keys.size(), 0)};
        for (const Term& t : terms_of(*w, i)) {
          if (is_nothing(t)) continue;
          r.length += t.factor.size();
          if (!is_unknown(t)) continue;
          const auto it = std::find(keys.begin(), keys.end(), *t.force->key);
          if (it != keys.end()) r.row[static_cast<std::size_t>(it - keys.begin())] += t.value;
        }
        if (std::sqrt(product(r.row, r.row)) > 1e-9) rows.push_back(std::move(r));
      }
    std::stable_sort(rows.begin(), rows.end(), [](const Row& a, const Row& b) { return a.length < b.length; });
    Equations found;
    IndependentRows independent;
    for (Row& r : rows) {
      if (!independent.take(std::move(r.row))) continue;
      found.emplace_back(r.body, r.condition);
      if (found.size() == keys.size()) break;
    }
    return found;
  }

  void system(std::string why, const Equations& equations, const std::vector<std::size_t>& keys) {
    DerivationSystem s{.because = sentence(std::move(why))};
    for (const auto& [body, condition] : equations) {
      Line line;
      line.say("");
      bool first = true;
      for (const Term& t : terms_of(*body, condition)) {
        if (is_nothing(t)) continue;
        const Sum sum = product_of(t);
        write(line, sum, is_unknown(t) ? Show::names : Show::numbers, first);
        first = false;
      }
      WorkedFormula words = body->conditions[condition].words;
      const std::string of = body->body.title + ", ";
      for (Use& u : words.uses) u.offset += of.size();
      words.text = of + words.text;
      s.equations.push_back({std::move(words), line.take()});
    }
    for (const std::size_t key : keys) {
      s.solution.emplace_back(l_.name(key), Quantity(l_.value(key), l_.dimension(key)));
      l_.learn(key);
    }
    chapter_.items.emplace_back(std::move(s));
  }

  Ledger& l_;
  DerivationChapter& chapter_;
  std::vector<Written> prepared_;
  std::string last_title_;
};

}  // namespace

namespace {

// The joints of a truss with many bars, one row for each bar instead of a sketch and two lines.
constexpr std::size_t many_steps = 24;

bool is_bar_step(const DerivationChapter::Item& item) {
  const auto* step = std::get_if<DerivationStep>(&item);
  return step && step->unknown.starts_with("S_");
}

// The end of a row of joints, each with steps of bars alone, that begins at an item.
std::size_t end_of_joints(const std::vector<DerivationChapter::Item>& items, std::size_t from, std::size_t& steps) {
  std::size_t end = from;
  steps = 0;
  while (end < items.size()) {
    const auto* body = std::get_if<FreeBody>(&items[end]);
    if (!body || !body->name.starts_with("joint ")) break;
    std::size_t next = end + 1;
    while (next < items.size() && is_bar_step(items[next])) ++next;
    if (next == end + 1 || (next < items.size() && !std::holds_alternative<FreeBody>(items[next]))) break;
    steps += next - end - 1;
    end = next;
  }
  return end;
}

DerivationTable table_of_joints(const std::vector<DerivationChapter::Item>& items, std::size_t from, std::size_t end) {
  DerivationTable t{.name = "joint steps",
                    .title = "Joints in an order that leaves at most as many unknown bars as equations"};
  std::string joint;
  for (std::size_t i = from; i < end; ++i) {
    if (const auto* body = std::get_if<FreeBody>(&items[i])) {
      joint = body->name.substr(std::string("joint ").size());
      continue;
    }
    const DerivationStep& s = std::get<DerivationStep>(items[i]);
    if (t.columns.empty())
      t.columns = {{"joint", {}}, {"sum of", {}}, {"bar", {}}, {"force", s.result->dimension}, {"", {}}, {"from", {}}};
    DerivationTable::Cell because, formula;
    because.formula = s.because, formula.formula = s.formula;
    t.rows.push_back(
        {{joint, {}, {}}, because, {s.unknown, {}, {}}, {{}, s.result->si, {}}, {s.remark, {}, {}}, formula});
  }
  return t;
}

void shorten(std::vector<DerivationChapter::Item>& items) {
  std::vector<DerivationChapter::Item> all;
  for (std::size_t i = 0; i < items.size();) {
    std::size_t steps = 0;
    const std::size_t end = end_of_joints(items, i, steps);
    if (steps >= many_steps) {
      all.emplace_back(table_of_joints(items, i, end));
      i = end;
    } else {
      all.push_back(std::move(items[i++]));
    }
  }
  items = std::move(all);
}

}  // namespace

void write_equilibrium(Ledger& ledger, DerivationChapter& chapter) {
  DerivationChapter own;
  EquilibriumWriter(ledger, own).run();
  shorten(own.items);
  for (DerivationChapter::Item& item : own.items) chapter.items.push_back(std::move(item));
}

}  // namespace corvex::hand
