// Loads that do nothing, that are there twice, or that never reach the structure.
#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include "corvex/load_words.hpp"
#include "corvex/number.hpp"
#include "inspect/findings.hpp"
#include "structure/load_parts.hpp"

namespace corvex::inspection {
namespace {

// Whether two loads have the same size, whatever their point of action. Gravity is reported as gravity-twice.
bool same(const Load& a, const Load& b) {
  if (a.index() != b.index() || std::holds_alternative<GravityLoad>(a)) return false;
  Load one = a, other = b;
  for (Load* l : {&one, &other})
    std::visit(
        [](auto& load) {
          if constexpr (requires { load.through; }) load.through.reset();
        },
        *l);
  return one == other;
}

class Loads {
 public:
  explicit Loads(Findings& f) : f_(f), s_(f.structure()), support_(s_.points().size(), nullptr) {
    for (const PointSupport& p : s_.supports()) support_[p.at.index] = &p;
  }

  void run() {
    for (const LoadCase& c : s_.load_cases()) {
      std::map<std::tuple<std::size_t, std::size_t, std::size_t>, std::vector<std::size_t>> by_target;
      for (std::size_t i = 0; i < c.loads().size(); ++i) {
        const Load& load = c.loads()[i];
        if (is_zero(load)) {
          tell_nothing(c, i);
          continue;
        }
        std::vector<std::size_t>& before = by_target[key(load)];
        if (std::any_of(before.begin(), before.end(), [&](std::size_t k) { return same(c.loads()[k], load); }))
          tell_twice(c, i);
        else
          before.push_back(i);
        if (const auto* l = std::get_if<PointLoad>(&load); l && goes_into_support(*l)) tell_on_support(c, i, *l);
      }
    }
  }

 private:
  Subject load(const LoadCase& c, std::size_t i) const { return {Subject::Kind::load, c.name(), i}; }
  // Loads of one kind on one point or member.
  static std::tuple<std::size_t, std::size_t, std::size_t> key(const Load& load) {
    const LoadTarget on = target(load);
    const auto* point = std::get_if<PointId>(&on);
    const auto* member = std::get_if<MemberId>(&on);
    return {load.index(), on.index(), point ? point->index : member ? member->index : 0};
  }
  void add_target(Problem& p, const Load& load) const {
    const LoadTarget on = target(load);
    if (const auto* point = std::get_if<PointId>(&on)) p.others.push_back(f_.point(*point));
    if (const auto* member = std::get_if<MemberId>(&on)) p.others.push_back(f_.member(member->index));
  }
  // The place of a load, with the name of its point or member in quotes: "'rail' at 800 mm".
  std::string place(const Load& load) const {
    const std::string on = load_words(s_, load, {}).on;
    const LoadTarget to = target(load);
    const auto* point = std::get_if<PointId>(&to);
    const auto* member = std::get_if<MemberId>(&to);
    if (!point && !member) return on;
    const std::string& name = point ? s_[*point].name : s_[*member].name;
    return fmt::format("'{}'{}", name, on.substr(name.size()));
  }

  // "force on 'C'", "line load on 'rail'"
  std::string words(const LoadCase& c, std::size_t i) const {
    const Load& load = c.loads()[i];
    const LoadKind kind = kind_of(load, s_.up_direction());
    if (kind == LoadKind::self_weight || kind == LoadKind::acceleration) return name(kind);
    return fmt::format("{} on {}", name(kind), place(load));
  }

  void tell_nothing(const LoadCase& c, std::size_t i) {
    add_target(f_.add("zero-load", load(c, i), fmt::format("the {} in case '{}' is zero", words(c, i), c.name()),
                      "give its size, or remove it"),
               c.loads()[i]);
  }

  void tell_twice(const LoadCase& c, std::size_t i) {
    add_target(f_.add("double-load", load(c, i),
                      fmt::format("the {} appears twice in case '{}', with the same size", words(c, i), c.name()),
                      "remove one, or write their sum as one load"),
               c.loads()[i]);
  }

  // Every component of the load is one that the support holds.
  bool goes_into_support(const PointLoad& l) const {
    const PointSupport* p = support_[l.at.index];
    if (!p) return false;
    const double parts[] = {l.force.x, l.force.y, l.force.z, l.moment.x, l.moment.y, l.moment.z};
    if (!p->along.empty()) {
      const HeldAxes held = held_axes(s_, *p);
      Vector rest = l.force;
      const Vector axes[] = {held.axes.x, held.axes.y, held.axes.z};
      for (int k = 0; held.skew && k < held.count; ++k) rest = rest - axes[k] * dot(rest, axes[k]);
      if (held.skew) return zero(l.moment) && length(rest) <= 1e-9 * length(l.force);
    }
    for (std::size_t k = 0; k < 6; ++k)
      if (parts[k] != 0 && !p->held[k]) return false;
    return true;
  }

  // A row of equal loads often has its last ones on the supports.
  bool is_one_of_a_row(const LoadCase& c, const PointLoad& l) const {
    return std::any_of(c.loads().begin(), c.loads().end(), [&](const Load& other) {
      const auto* o = std::get_if<PointLoad>(&other);
      return o && !(o->at == l.at) && !support_[o->at.index] &&
             length(cross(o->force, l.force)) <= 1e-9 * dot(l.force, l.force) && dot(o->force, l.force) > 0 &&
             length(o->force) <= 2.001 * length(l.force) && length(o->force) >= 0.999 * length(l.force);
    });
  }

  void tell_on_support(const LoadCase& c, std::size_t i, const PointLoad& l) {
    Problem& p =
        f_.add("load-on-support", load(c, i),
               fmt::format("the {} in case '{}' acts at a supported point and causes no stress", words(c, i), c.name()),
               "move it to its point of action; or accept it if only the reaction is of interest");
    p.others.push_back(f_.point(l.at));
    if (is_one_of_a_row(c, l)) p.severity = Problem::Severity::note;
  }

  Findings& f_;
  const Structure& s_;
  std::vector<const PointSupport*> support_;
};

// Standard gravity, m/s².
constexpr double gn = 9.80665;

class Gravity {
 public:
  explicit Gravity(Findings& f) : f_(f), s_(f.structure()), weighs_(s_.load_cases().size()) {}

  void run() {
    for (std::size_t c = 0; c < s_.load_cases().size(); ++c) check(c);
    for (const Combination& c : s_.combinations()) check(c);
  }

 private:
  // How much of an acceleration acts downwards.
  double down(const Vector& a) const { return -dot(s_.up_direction(), a); }

  void check(std::size_t number) {
    const LoadCase& c = s_.load_cases()[number];
    for (std::size_t i = 0; i < c.loads().size(); ++i) {
      const auto* g = std::get_if<GravityLoad>(&c.loads()[i]);
      if (!g || zero(g->acceleration)) continue;
      const Subject subject{Subject::Kind::load, c.name(), i};
      const double size = length(g->acceleration), downwards = down(g->acceleration);
      // Accelerations of a moving machine and of an earthquake are smaller than gravity and act to any side.
      const bool weight = downwards > 0.9 * size;
      if (!weight && (downwards < -0.1 * size || (size > 0.8 * gn && downwards < 0.5 * gn)))
        f_.add(
            "gravity-direction", subject,
            fmt::format("gravity in case '{}' acts along {}, not downwards", c.name(), direction(s_, g->acceleration)),
            fmt::format("write gravity: down, or along {}", s_.up() == Up::y ? "-y" : "-z"));
      else if (size > 3 * gn || (weight && size < gn / 3))
        f_.add("gravity-size", subject,
               fmt::format("gravity in case '{}' is {} m/s^2, {} times standard gravity", c.name(),
                           short_number(size, 4), short_number(size / gn, 3)),
               "write gravity: down, or the acceleration with its unit: 9.81 m/s^2");
      if (downwards <= 0.5 * size) continue;
      if (weighs_[number])
        f_.add("gravity-twice", subject, fmt::format("gravity acts twice in case '{}'", c.name()),
               "remove one of them");
      weighs_[number] = true;
    }
  }

  void check(const Combination& c) {
    std::vector<std::string> with;
    for (const Combination::Term& t : c.terms)
      if (t.factor != 0 && weighs_[t.load_case]) with.push_back(s_.load_cases()[t.load_case].name());
    if (with.size() < 2) return;
    f_.add("gravity-twice", {Subject::Kind::combination, c.name},
           fmt::format("combination '{}' has gravity {} times: in {}", c.name, with.size(), list(with)),
           "keep gravity in one of these cases");
  }

  Findings& f_;
  const Structure& s_;
  std::vector<bool> weighs_;  // of each case
};

}  // namespace

void check_loads(Findings& f) {
  Loads(f).run();
}

void check_gravity(Findings& f) {
  Gravity(f).run();
}

void check_cases(Findings& f) {
  const Structure& s = f.structure();
  std::vector<bool> combined(s.load_cases().size());
  for (const Combination& c : s.combinations())
    for (const Combination::Term& t : c.terms) combined[t.load_case] = true;
  std::vector<std::string> names;
  for (std::size_t i = 0; i < s.load_cases().size(); ++i) {
    const std::string& name = s.load_cases()[i].name();
    const Subject subject{Subject::Kind::load_case, name};
    if (s.load_cases()[i].loads().empty())
      f.add("empty-case", subject, fmt::format("load case '{}' is empty", name), "add loads, or remove it");
    else if (!s.combinations().empty() && !combined[i])
      f.add("uncombined-case", subject,
            fmt::format("load case '{}' is in no combination: tables, limits and the envelope ignore it", name),
            "add it to a combination");
    names.push_back(name);
  }
  if (s.combinations().empty() && names.size() > 1)
    f.add("no-combination", {Subject::Kind::load_case, names.front()},
          fmt::format("the cases {} are assessed one by one: no combination adds them", list(names)),
          "if they act together, list them under combinations");
}

}  // namespace corvex::inspection
