#include "hand/work_out.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "corvex/modes.hpp"
#include "hand/names.hpp"
#include "quantity/ascii.hpp"
#include "structure/checks.hpp"
#include "structure/words.hpp"

namespace corvex::hand {
namespace {

using Kind = Figure::Kind;
using Of = FigureKind::Of;

// Expected dimension of a formula, and the unit of a plain number.
struct Wanted {
  const char* what;
  const char* example;
  const char* unit_key;
  std::optional<double> bare;
};

class Work {
 public:
  Work(const Structure& s, const HandCalculation& hand)
      : s_(s), hand_(hand), figures_(s), names_(Definitions::Within{figures_}) {}

  Expected<WorkedOut, Problems> operator()() {
    read_values();
    WorkedOut out;
    for (entry_ = 0; entry_ < hand_.expect.size(); ++entry_) out.expectations.push_back(one(hand_.expect[entry_]));
    if (!problems_.empty()) return problems_;
    for (const HandValue& v : hand_.let) {
      WorkedValue w{v.name, {v.is.text, {}}, {}};
      w.value = v.is.value ? *v.is.value : evaluate(v.is.text, names_, w.formula.uses)->quantity;
      out.values.push_back(std::move(w));
    }
    return out;
  }

 private:
  void tell(Subject subject, std::string key, std::string text, std::size_t offset) {
    Problem& p = problems_.emplace_back();
    p.text = std::move(text);
    p.subject = std::move(subject);
    p.key = std::move(key);
    p.offset = offset;
  }
  void fail(std::string key, std::string text, std::size_t offset = 0) {
    tell({Subject::Kind::expectation, "", entry_}, std::move(key), std::move(text), offset);
  }

  void read_values() {
    const auto told = [&](const HandValue& v, const char* key, std::string text, std::size_t offset = 0) {
      tell({Subject::Kind::hand_value, v.name, 0}, key, std::move(text), offset);
    };
    for (const HandValue& v : hand_.let) {
      if (const std::string why = why_not_a_parameter(v.name); !why.empty())
        refused_.push_back(v.name),
            told(v, "", fmt::format("'{}' cannot be a name of a hand calculation: {}", v.name, why));
      else if (!(v.is.value ? names_.add(v.name, *v.is.value) : names_.add(v.name, v.is.text)))
        told(v, "", fmt::format("the name '{}' is used for another value already", v.name));
    }
    for (const HandValue& v : hand_.let)
      if (const auto error = names_.own_error(v.name); error && !uses_refused(v.is.text))
        told(v, "is", fmt::format("'{}': {}", v.is.text, error->text), error->offset);
  }

  // A refused name means something else in a formula: one error is reported once.
  bool uses_refused(std::string_view formula) const {
    const auto in_word = [](char c) { return ascii::is_letter(c) || ascii::is_digit(c) || c == '_'; };
    for (std::size_t at = 0; at < formula.size();) {
      std::size_t end = at;
      while (end < formula.size() && in_word(formula[end])) ++end;
      if (std::find(refused_.begin(), refused_.end(), formula.substr(at, end - at)) != refused_.end()) return true;
      at = std::max(end, at + 1);
    }
    return false;
  }

  std::optional<Evaluated> evaluated(const HandFormula& f, const char* key, std::vector<Use>& uses) {
    if (f.value) return Evaluated{*f.value, false, !f.value->dimension.none()};
    if (uses_refused(f.text)) {
      broken_ = true;
      return std::nullopt;
    }
    const auto e = evaluate(f.text, names_, uses);
    if (e) return *e;
    if (e.error().text.empty())
      broken_ = true;  // told where the name stands
    else
      fail(key, fmt::format("'{}': {}", f.text, e.error().text), e.error().offset);
    return std::nullopt;
  }

  // Adds the unit to a plain number, or reports what was expected.
  std::optional<Quantity> as(const Dimension& d, const HandFormula& f, const Evaluated& e, const char* key) {
    const Quantity& q = e.quantity;
    if (q.dimension.none() && !d.none() && q.si == 0) return Quantity(0, d);
    const Wanted w = wanted(d);
    if (q.dimension.none() && !d.none() && !e.units && w.bare) return Quantity(q.si * *w.bare, d);
    if (compatible(q.dimension, d) && (!q.dimension.none() || d.none() || e.units)) return Quantity(q.si, d);
    const std::string written = f.value ? "the value" : "'" + f.text + "'";
    if (q.dimension.none()) {
      std::string text =
          fmt::format("{} {}; {} was expected, for example {}", written,
                      e.units ? "is a dimensionless number, since its units cancel" : "has no unit", w.what, w.example);
      if (!e.units) text += fmt::format(" (or name {} under units:)", w.unit_key);
      fail(key, std::move(text));
    } else {
      fail(key,
           fmt::format("{} is {}; {} was expected, for example {}", written, name(q.dimension), w.what, w.example));
    }
    return std::nullopt;
  }

  Wanted wanted(const Dimension& d) const {
    const BareUnits& u = hand_.units;
    if (d == dimension::force) return {"a force", "3.2 kN", "force", u.force};
    if (d == dimension::moment) return {"a moment", "1.5 kN*m", "moment", u.moment};
    if (d == dimension::length) return {"a movement", "2.8 mm", "deflection", u.deflection};
    if (d == dimension::stress) return {"a stress", "120 MPa", "stress", u.stress};
    if (d == Frequency::dimension()) return {"a frequency", "12 Hz", "", std::nullopt};
    if (d == dimension::mass) return {"a mass", "31.4 kg", "mass", u.mass};
    if (d.none()) return {"a plain number", "2.7", "", std::nullopt};
    return {"an angle", "0.2 deg", "angle", u.angle};
  }

  template <class Things>
  void no_such(const char* key, const char* kind, const std::string& name, const Things& things) {
    std::vector<std::string> known;
    for (const auto& thing : things) known.push_back(name_of(thing));
    fail(key, fmt::format("there is no {} '{}'{}", kind, name, did_you_mean(name, known)));
  }
  static const std::string& name_of(const std::string& name) { return name; }
  template <class Thing>
  static const std::string& name_of(const Thing& thing) {
    return thing.name;
  }

  void find_case(const Expectation& e, Worked& w) {
    // In the order in which a solution has them.
    std::vector<std::string> cases;
    for (const LoadCase& c : s_.load_cases()) cases.push_back(c.name());
    for (const Combination& c : s_.combinations()) cases.push_back(c.name);
    if (!is_of_case(e.figure.kind)) {
      w.target.stressed = e.figure.kind == Kind::frequency && !e.load_case.empty();
      if (!w.target.stressed && !e.load_case.empty())
        fail("case", fmt::format("the {} is the same in all load cases", describe_kind(e.figure.kind).name));
      if (!w.target.stressed) return;
    }
    if (e.load_case.empty()) {
      if (cases.size() > 1)
        fail("", fmt::format("there are {} load cases{}; name one, for example case: {}", cases.size(),
                             s_.combinations().empty() ? "" : " and combinations", cases[0]));
      return;
    }
    const auto it = std::find(cases.begin(), cases.end(), e.load_case);
    if (it == cases.end()) return no_such("case", "load case", e.load_case, cases);
    w.load_case = static_cast<std::size_t>(it - cases.begin());
  }

  void find_target(const Figure& f, Worked& w) {
    const FigureKind& kind = describe_kind(f.kind);
    if (kind.of == Of::mode) {
      constexpr std::size_t most_digits = 3;
      const bool counts = !f.of.empty() && f.of.size() <= most_digits &&
                          std::all_of(f.of.begin(), f.of.end(), [](char c) { return c >= '0' && c <= '9'; });
      w.target.mode = counts ? static_cast<std::size_t>(std::stoul(f.of)) : 0;
      if (w.target.mode == 0) fail(kind.name, fmt::format("'{}' is not the number of a mode, from 1 to 999", f.of));
      return;
    }
    if (kind.of == Of::point) {
      if (const auto point = s_.find_point(f.of))
        w.target.point = *point;
      else
        return no_such(kind.name, "point", f.of, s_.points());
      check_part(f);
      const auto here = [&](const PointSupport& p) { return p.at == w.target.point; };
      if (f.kind == Kind::reaction && std::none_of(s_.supports().begin(), s_.supports().end(), here))
        fail(kind.name, fmt::format("there is no support at '{}', hence no reaction", f.of));
    } else if (kind.of == Of::member) {
      if (f.of == "all" && !s_.find_member(f.of)) {
        w.target.all_members = s_.members().size();
        return check_all(f);
      }
      if (const auto member = s_.find_member(f.of))
        w.target.member = *member;
      else
        return no_such(kind.name, "member", f.of, s_.members());
      check_take(f);
      if (f.at) find_place(f, w);
    }
  }

  void check_all(const Figure& f) {
    if (f.at)
      fail("at", "a place needs one member; for all members the largest value is taken");
    else if (f.take == Take::start || f.take == Take::end)
      fail("take", "for all members the largest value is taken; expected: extreme, size, max, min");
    else
      check_take(f);
  }
  void check_take(const Figure& f) {
    if (f.kind == Kind::safety && f.take != Take::extreme)
      fail("take", "the safety factor has one value: the smallest along the member, or the one at a place");
  }

  void check_part(const Figure& f) {
    if (f.part == Part::size) return;
    if (f.kind != Kind::reaction && f.part >= Part::mx)
      return fail("part", "a moment is a part of a reaction only; expected: x, y, z, size");
    if (!s_.is_plane()) return;
    const bool turns = f.kind == Kind::rotation;
    const bool exists = turns ? f.part == Part::z : f.part == Part::x || f.part == Part::y || f.part == Part::mz;
    if (!exists)
      fail("part", turns ? "in a plane structure a rotation is about z; expected: z, size"
                         : "a plane structure has no such part; expected: x, y, mz, size");
  }

  void find_place(const Figure& f, Worked& w) {
    std::vector<Use> ignored;
    const double L = s_.length_of(s_[w.target.member]);
    const auto e = evaluated(*f.at, "at", ignored);
    if (!e) return;
    double x = 0;
    if (e->quantity.dimension.plain() && e->percent) {
      x = e->quantity.si * L;
    } else if (e->quantity.dimension.none() && !e->units && hand_.units.length) {
      x = e->quantity.si * *hand_.units.length;
    } else if (compatible(e->quantity.dimension, dimension::length) || e->quantity.si == 0) {
      x = e->quantity.si;
    } else {
      return fail("at", fmt::format("'{}' is {}; a place on the member was expected, for example 1.2 m or 50 %",
                                    f.at->text, name(e->quantity.dimension)));
    }
    if (!(x >= -1e-9 * L && x <= L * (1 + 1e-9)))
      return fail("at", fmt::format("{} is not on member '{}', which is {} long", length_words(s_, x), f.of,
                                    length_words(s_, L)));
    w.target.at = Length::si(std::clamp(x, 0.0, L));
    if (f.take == Take::start || f.take == Take::end)
      fail("take", "the place is given by 'at' already");
    else if (f.take != Take::extreme && f.take != Take::size && f.kind != Kind::stress)
      fail("take", "a single place has one value; only stress has a largest and a smallest value in the section");
  }

  void find_tolerance(const Expectation& e, Worked& w) {
    std::vector<Use> ignored;
    const auto t = evaluated(e.within, "within", ignored);
    if (!t) return;
    w.absolute = !t->quantity.dimension.plain() || t->quantity.dimension == dimension::angle;
    const Dimension d = dimension_of(e.figure);
    if (w.absolute && !compatible(t->quantity.dimension, d))
      return fail("within", fmt::format("'{}' is {}; a share, for example 1 %, or {} was expected", e.within.text,
                                        name(t->quantity.dimension), name(d)));
    w.within = t->quantity.si;
    if (!(w.within >= 0)) return fail("within", "the allowed difference cannot be negative");
    if (!w.absolute && w.value.si == 0 && !broken_)
      fail("within",
           fmt::format(
               "the hand value is 0, so a relative difference is not possible: give the allowed difference as {}",
               name(d)));
  }

  Worked one(const Expectation& e) {
    Worked w;
    w.formula.text = e.is.text;
    broken_ = false;
    find_target(e.figure, w);
    find_case(e, w);
    if (const auto value = evaluated(e.is, "is", w.formula.uses)) {
      if (const auto q = as(dimension_of(e.figure), e.is, *value, "is"))
        w.value = *q;
      else
        broken_ = true;
    } else {
      broken_ = true;
    }
    find_tolerance(e, w);
    return w;
  }

  const Structure& s_;
  const HandCalculation& hand_;
  StructureNames figures_;
  Definitions names_;
  std::vector<std::string> refused_;  // names of `let` that cannot be any
  Problems problems_;
  std::size_t entry_ = 0;
  bool broken_ = false;
};

}  // namespace

Expected<WorkedOut, Problems> work_out(const Structure& structure, const HandCalculation& hand) {
  return Work(structure, hand)();
}

}  // namespace corvex::hand

namespace corvex {

Problems check(const Structure& structure, const HandCalculation& hand) {
  if (!is_whole(structure)) return errors_of(structure);
  const auto worked = hand::work_out(structure, hand);
  return worked ? Problems{} : worked.error();
}

}  // namespace corvex
