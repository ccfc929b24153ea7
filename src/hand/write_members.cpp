#include "hand/write_members.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace corvex::hand {
namespace {

// One shear force with its bending moment, or an axial force or torsion alone.
struct ForcePair {
  std::size_t force;                  // N, Vy, Vz or T
  std::optional<std::size_t> moment;  // Mz of Vy, My of Vz
};

// Coefficients of a course: names with values, each with what it is divided by and the power of x.
struct Coefficient {
  Factor part;
  double divisor = 1, sign = 1;
  int power = 0;
  double length = 0;  // m, further divisor; 0 if none
};

class MemberWriter {
 public:
  MemberWriter(const Ledger& l, DerivationChapter& chapter) : l_(l), k_(l.skeleton()), chapter_(chapter) {}

  void piece(std::size_t index) {
    index_ = index;
    const Piece& p = k_.pieces[index];
    const PieceCourse& course = l_.state().course[index];
    std::vector<ForcePair> kinds{{N, {}}, {Vy, Mz}};
    if (!k_.plane) kinds = {{N, {}}, {Vy, Mz}, {Vz, My}, {T, {}}};
    if (!p.beam) kinds = {{N, {}}};
    std::erase_if(kinds, [&](const ForcePair& kind) { return is_nothing(course, kind); });
    if (kinds.empty() || (!p.beam && course.stretches.size() == 1 && is_even(course.stretches[0].forces[N]))) return;
    say_piece(p, course);
    for (const ForcePair& kind : kinds) along(p, course, kind);
  }

 private:
  static bool is_even(const Course& c) { return c[1] == 0 && c[2] == 0 && c[3] == 0; }
  static bool is_zero(const Course& c) { return c[0] == 0 && is_even(c); }
  bool is_nothing(const PieceCourse& course, const ForcePair& kind) const {
    double largest = 0;
    for (const Forces& f : l_.state().start)
      for (const double v : f) largest = std::max(largest, std::abs(v));
    const auto none = [&](std::size_t c) {
      return std::all_of(course.stretches.begin(), course.stretches.end(), [&](const Stretch& s) {
        const double h = s.to - s.from;
        return std::abs(s.forces[c][0]) <= 1e-11 * largest && std::abs(at(s.forces[c], h)) <= 1e-11 * largest &&
               std::abs(at(s.forces[c], h / 2)) <= 1e-11 * largest;
      });
    };
    return none(kind.force) && (!kind.moment || none(*kind.moment));
  }

  void say_piece(const Piece& p, const PieceCourse& course) {
    Line line;
    line.say(fmt::format("{} {} of {}, from {} to {}", p.beam ? "Part" : "Bar", p.name,
                         k_.structure->members()[p.member].name, k_.structure->points()[p.a].name,
                         k_.structure->points()[p.b].name));
    line.say(", length ").put(p.length, dimension::length);
    if (course.stretches.size() > 1) {
      line.say("; x starts again at each break: ");
      for (std::size_t i = 1; i < course.stretches.size(); ++i) {
        if (i > 1) line.say(", ");
        line.put(course.stretches[i].from, dimension::length);
      }
    } else {
      line.say("; x starts at ").say(k_.structure->points()[p.a].name);
    }
    chapter_.items.emplace_back(line.say(".").take());
  }

  static const char* word(std::size_t component, bool plane) {
    static constexpr const char* space[] = {"N", "Vy", "Vz", "T", "My", "Mz"};
    static constexpr const char* flat[] = {"N", "V", "V", "T", "M", "M"};
    return (plane ? flat : space)[component];
  }
  std::string name(std::size_t component) const { return word(component, k_.plane); }
  Dimension dimension_of(std::size_t component) const { return component >= T ? dimension::moment : dimension::force; }

  // The load along or across a stretch, at its start and end, from the loads of the member.
  struct Spread {
    double first = 0, last = 0;
    std::string name{};
  };
  Spread spread(const Piece& p, const Stretch& s, std::size_t component, bool moment, const std::string& name) {
    const Vector axis = component == 0 ? p.axes.x : component == 1 ? p.axes.y : p.axes.z;
    Spread q{.name = name};
    Sum first, last;
    for (const LineOn& l : l_.acting().lines) {
      const double begin = l.from - p.start, end = l.to - p.start, same = 1e-9 * p.length;
      if (l.member != p.member || begin > s.from + same || end < s.to - same) continue;
      for (Sum* sum : {&first, &last}) {
        const double x = (sum == &first ? s.from : s.to) + p.start;
        const Vector v = moment ? l.moment_at(x) : l.at(x);
        const double parts[] = {v.x, v.y, v.z}, along[] = {axis.x, axis.y, axis.z};
        for (std::size_t i = 0; i < 3; ++i) {
          if (std::abs(parts[i] * along[i]) <= 1e-12 * length(v)) continue;
          Product product{.sign = parts[i] < 0 ? -1.0 : 1.0,
                          .parts = {{moment ? "m" + l.name : l.name, std::abs(parts[i]),
                                     moment ? dimension::force : dimension::line_force}}};
          sum->push_back(times(std::move(product), number_of(along[i])));
        }
      }
    }
    q.first = value(first), q.last = value(last);
    const double largest = std::max(std::abs(q.first), std::abs(q.last));
    if (largest == 0) return q;
    if (std::abs(q.first - q.last) <= 1e-12 * largest) {
      q.last = q.first;
      add_load(q.name, first, q.first, moment, component);
    } else {
      if (q.first != 0) add_load(q.name + "_a", first, q.first, moment, component);
      if (q.last != 0) add_load(q.name + "_e", last, q.last, moment, component);
    }
    return q;
  }
  void add_load(const std::string& unknown, const Sum& sum, double value, bool moment, std::size_t component) {
    Line line;
    write(line, sum, Show::numbers);
    DerivationStep step{.unknown = unknown, .formula = line.take()};
    step.because = sentence(fmt::format("{} per length {}", moment ? "moment" : "load",
                                        component == 0   ? "along x"
                                        : component == 1 ? "across, along y"
                                                         : "across, along z"));
    step.result = Quantity(value, moment ? dimension::force : dimension::line_force);
    chapter_.items.emplace_back(std::move(step));
  }

  // Σ coefficients · xⁱ, with x by its name or a number in its place.
  static WorkedFormula course(const std::vector<Coefficient>& all, std::optional<double> x) {
    Line line;
    bool first = true;
    for (const Coefficient& c : all) {
      if (c.part.value == 0 && !(all.size() == 1)) continue;
      const bool minus = c.sign * c.part.value < 0;
      line.say(first ? (minus ? "-" : "") : (minus ? " - " : " + "));
      first = false;
      line.put(std::abs(c.part.value), c.part.dimension, c.part.name);
      if (c.length > 0) {
        line.say("/(");
        if (c.divisor != 1) line.put(c.divisor, dimension::number).say("·");
        line.put(c.length, dimension::length).say(")");
      } else if (c.divisor != 1) {
        line.say("/").put(c.divisor, dimension::number);
      }
      if (c.power == 0) continue;
      line.say("·");
      if (x)
        line.put(*x, dimension::length);
      else
        line.say("x");
      static constexpr const char* powers[] = {"", "", "²", "³"};
      line.say(powers[c.power]);
    }
    if (first) line.put(0, all.front().part.dimension);
    return line.take();
  }
  void step(WorkedFormula because, std::string unknown, WorkedFormula formula, std::optional<Quantity> result,
            std::string remark = {}) {
    chapter_.items.emplace_back(
        DerivationStep{std::move(because), {}, std::move(unknown), std::move(formula), result, std::move(remark)});
  }

  static std::optional<double> inside(double x, double h) {
    if (x > 1e-9 * h && x < h * (1 - 1e-9)) return x;
    return {};
  }

  // Results of the previous formula: internal force and moment, and their names.
  struct Before {
    double force, moment;
    std::string force_name, moment_name;
  };
  // Of one stretch.
  struct Formulas {
    std::vector<Coefficient> forces, moments;
    Spread q;
  };

  void along(const Piece& p, const PieceCourse& all, const ForcePair& kind) {
    Before before{l_.state().start[index_][kind.force], kind.moment ? l_.state().start[index_][*kind.moment] : 0,
                  l_.name(l_.of_end(index_, kind.force, true)),
                  kind.moment ? l_.name(l_.of_end(index_, *kind.moment, true)) : ""};
    for (std::size_t i = 0; i < all.stretches.size(); ++i) {
      const Stretch& s = all.stretches[i];
      if (jumps(p, s.from, kind)) add_jump(p, s.from, kind, before, i == 0 ? "0" : std::to_string(i));
      before.force = snapped(s.forces[kind.force][0]);
      if (kind.moment) before.moment = snapped(s.forces[*kind.moment][0]);
      const Formulas f = formulas(p, s, kind, before);
      step({}, name(kind.force) + "(x)", course(f.forces, std::nullopt), std::nullopt);
      if (kind.moment) step({}, name(*kind.moment) + "(x)", course(f.moments, std::nullopt), std::nullopt);
      if (kind.moment) extremes(s, before, f, kind);
      const bool last = i + 1 == all.stretches.size();
      const std::string mark = std::to_string(i + 1);
      const bool jump_behind = last && jumps(p, p.length, kind);
      const auto end_name = [&](std::size_t component) {
        return last && !jump_behind ? l_.name(l_.of_end(index_, component, false)) : name(component) + "_" + mark;
      };
      const double h = s.to - s.from;
      WorkedFormula where = last ? sentence("at " + k_.structure->points()[p.b].name)
                                 : Line().say("at x = ").put(h, dimension::length).take();
      const std::string next_force = f.forces.size() > 1 ? end_name(kind.force) : before.force_name;
      before.force = at(s.forces[kind.force], h);
      if (f.forces.size() > 1)
        step(where, next_force, course(f.forces, h), Quantity(snapped(before.force), dimension_of(kind.force)));
      before.force_name = next_force;
      if (kind.moment) {
        before.moment = at(s.forces[*kind.moment], h);
        const std::string next = end_name(*kind.moment);
        step(where, next, course(f.moments, h), Quantity(snapped(before.moment), dimension::moment));
        before.moment_name = next;
      }
      if (jump_behind) add_jump(p, p.length, kind, before, mark);
    }
  }

  // q and m change linearly: q·x + (qe − qa)/h·x²/2.
  Formulas formulas(const Piece& p, const Stretch& s, const ForcePair& kind, const Before& before) {
    const double h = s.to - s.from;
    const std::size_t axis = kind.force == N ? 0 : kind.force == Vz ? 2 : kind.force == Vy ? 1 : 0;
    const Spread q = spread(p, s, axis, kind.force == T, kind.force == N ? "n" : kind.force == T ? "t" : "q");
    const Spread m = kind.moment ? spread(p, s, *kind.moment == Mz ? 2 : 1, true, "m") : Spread{};
    const double sign = kind.force == N || kind.force == T ? -1 : 1;
    std::vector<Coefficient> forces{{{before.force_name, before.force, dimension_of(kind.force)}, 1, 1, 0}};
    std::vector<Coefficient> moments;
    if (kind.moment)
      moments = {{{before.moment_name, before.moment, dimension::moment}, 1, 1, 0}, {forces[0].part, 1, 1, 1}};
    const Dimension per_length = kind.force == T ? dimension::force : dimension::line_force;
    if (q.first != 0 || q.last != 0) {
      const bool even = q.first == q.last;
      const Factor at_start{even ? q.name : q.name + "_a", q.first, per_length};
      forces.push_back({at_start, 1, sign, 1});
      moments.push_back({at_start, 2, 1, 2});
      if (!even) {
        const Factor by = change_of(q, per_length);
        forces.push_back({by, 2, sign, 2, h});
        moments.push_back({by, 6, 1, 3, h});
      }
    }
    if (kind.moment && (m.first != 0 || m.last != 0)) {
      const double sign_m = *kind.moment == Mz ? -1 : 1;
      const bool even = m.first == m.last;
      moments.push_back({{even ? m.name : m.name + "_a", m.first, dimension::force}, 1, sign_m, 1});
      if (!even) moments.push_back({{"km", (m.last - m.first) / h, dimension::line_force}, 2, sign_m, 2});
    }
    return {std::move(forces), std::move(moments), q};
  }

  // Change of a load along a stretch; written down if it is not a given value.
  Factor change_of(const Spread& q, const Dimension& per_length) {
    const double change = q.last - q.first;
    std::string name_of_change = q.first == 0 ? q.name + "_e" : q.last == 0 ? q.name + "_a" : q.name + "_d";
    if (q.first != 0 && q.last != 0) {
      Line line;
      line.put(q.last, per_length, q.name + "_e").say(q.first < 0 ? " + " : " - ");
      line.put(std::abs(q.first), per_length, q.name + "_a");
      step(sentence("its change over the stretch"), name_of_change, line.take(), Quantity(change, per_length));
    }
    return {name_of_change, change, per_length};
  }

  // Rounding error relative to the largest force is zero.
  double snapped(double v) const {
    double largest = 0;
    for (const Forces& f : l_.state().start)
      for (const double x : f) largest = std::max(largest, std::abs(x));
    return std::abs(v) <= 1e-11 * largest ? 0 : v;
  }

  // Where V = 0 inside a stretch.
  void extremes(const Stretch& s, const Before& before, const Formulas& formulas, const ForcePair& kind) {
    const std::vector<Coefficient>&forces = formulas.forces, &moments = formulas.moments;
    const Spread& q = formulas.q;
    const std::string& force_name = before.force_name;
    const double h = s.to - s.from;
    const Course& v = s.forces[kind.force];
    if (v[1] == 0 && v[2] == 0) return;
    const auto at_root = [&](double x, WorkedFormula formula) {
      step(sentence(name(kind.force) + " = 0"), "x_0", std::move(formula), Quantity(x, dimension::length));
      step(sentence("extreme of " + name(*kind.moment)), name(*kind.moment) + "_0", course(moments, x),
           Quantity(at(s.forces[*kind.moment], x), dimension::moment));
    };
    const Dimension per_length = dimension::line_force;
    if (v[2] == 0) {
      if (const auto x = inside(-v[0] / v[1], h)) {
        Line line;
        line.say("-").put(v[0], dimension::force, force_name).say("/").put(v[1], per_length, q.name);
        at_root(*x, line.take());
      }
      return;
    }
    const double under = v[1] * v[1] - 4 * v[0] * v[2];
    if (under < 0) return;
    for (const double sign : {-1.0, 1.0}) {
      const auto x = inside((-v[1] + sign * std::sqrt(under)) / (2 * v[2]), h);
      if (!x) continue;
      // V0 + q·x + d/(2·L)·x² = 0, where the load changes by d over the stretch of length L.
      const Factor &d = forces[2].part, &b = forces[1].part;
      Line line;
      if (b.value == 0) {
        line.say("sqrt(-2·").put(v[0], dimension::force, force_name).say("·").put(h, dimension::length);
        line.say("/").put(d.value, d.dimension, d.name).say(")");
      } else {
        line.say("(-").put(b.value, b.dimension, b.name).say(sign < 0 ? " - sqrt(" : " + sqrt(");
        line.put(b.value, b.dimension, b.name).say("² - 2·").put(v[0], dimension::force, force_name).say("·");
        line.put(d.value, d.dimension, d.name).say("/").put(h, dimension::length).say("))·");
        line.put(h, dimension::length).say("/").put(d.value, d.dimension, d.name);
      }
      at_root(*x, line.take());
    }
  }

  bool jumps(const Piece& p, double x, const ForcePair& kind) const {
    return std::any_of(l_.acting().places.begin(), l_.acting().places.end(), [&](const PlaceOn& l) {
      if (l.piece != index_ || std::abs(l.at - x) > 1e-9 * p.length) return false;
      const Vector f = p.axes.local(l.force), m = p.axes.local(l.moment);
      return share(kind.force, f, m) != 0 || (kind.moment && share(*kind.moment, f, m) != 0);
    });
  }
  // By how much an internal force jumps at a load.
  static double share(std::size_t component, const Vector& f, const Vector& m) {
    const double all[] = {-f.x, f.y, f.z, -m.x, m.y, -m.z};
    return std::abs(all[component]) <= 1e-12 * (length(f) + length(m)) ? 0 : all[component];
  }
  void add_jump(const Piece& p, double x, const ForcePair& kind, Before& all, const std::string& mark) {
    const auto add = [&](std::size_t component, double& before, std::string& name_before) {
      Line line;
      line.put(before, dimension_of(component), name_before);
      double sum = before;
      bool any = false;
      for (const PlaceOn& l : l_.acting().places) {
        if (l.piece != index_ || std::abs(l.at - x) > 1e-9 * p.length) continue;
        const Vector f = p.axes.local(l.force), m = p.axes.local(l.moment);
        if (share(component, f, m) == 0) continue;
        any = true;
        sum += share(component, f, m);
        // The component of the load along the axis, from its global ones.
        const bool turning = component >= T;
        const std::size_t axis = component == N || component == T ? 0 : component == Vy || component == My ? 1 : 2;
        const Vector d = axis == 0 ? p.axes.x : axis == 1 ? p.axes.y : p.axes.z, given = turning ? l.moment : l.force;
        const double sign = component == N || component == T || component == Mz ? -1 : 1;
        const double parts[] = {given.x, given.y, given.z}, along[] = {d.x, d.y, d.z};
        Sum products;
        for (std::size_t i = 0; i < 3; ++i)
          if (std::abs(parts[i] * along[i]) > 1e-12 * length(given)) {
            Product product{.sign = sign * (parts[i] < 0 ? -1 : 1),
                            .parts = {{l.name, std::abs(parts[i]), dimension_of(component)}}};
            products.push_back(times(std::move(product), number_of(along[i])));
          }
        write(line, products, Show::numbers, false);
      }
      if (!any) return;
      std::string after = fmt::format("{}_{}r", name(component), mark);
      step(sentence("after the load"), after, line.take(), Quantity(snapped(sum), dimension_of(component)));
      before = sum, name_before = std::move(after);
    };
    add(kind.force, all.force, all.force_name);
    if (kind.moment) add(*kind.moment, all.moment, all.moment_name);
  }

  const Ledger& l_;
  const Skeleton& k_;
  DerivationChapter& chapter_;
  std::size_t index_ = 0;
};

}  // namespace

void write_members(const Ledger& ledger, const std::vector<MemberId>& members, DerivationChapter& chapter) {
  const Skeleton& k = ledger.skeleton();
  MemberWriter writer(ledger, chapter);
  for (std::size_t i = 0; i < k.pieces.size(); ++i) {
    const bool wanted = members.empty() || std::any_of(members.begin(), members.end(), [&](const MemberId& m) {
                          return m.index == k.pieces[i].member;
                        });
    if (wanted) writer.piece(i);
  }
}

}  // namespace corvex::hand
