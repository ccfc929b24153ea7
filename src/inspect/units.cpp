// Values that are probably in another unit than was meant: far from their neighbours, or from what there is.
#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"
#include "inspect/findings.hpp"

namespace corvex::inspection {
namespace {

double median(std::vector<double> values) {
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

class Coordinates {
 public:
  explicit Coordinates(Findings& f) : f_(f), s_(f.structure()) {}

  void run() {
    if (s_.points().size() < 3 ||
        std::any_of(s_.points().begin(), s_.points().end(), [](const Point& p) { return !finite(p.position); }))
      return;
    find_far();
    find_other_unit();
    find_small();
    find_short();
  }

 private:
  static constexpr double Vector::*axes[] = {&Vector::x, &Vector::y, &Vector::z};

  void tell(std::size_t p, int axis, const std::string& why) {
    f_.add("unit-suspect", {Subject::Kind::point, s_.points()[p].name},
           fmt::format("{} = {} of point {} {}", "xyz"[axis], in_mm(s_.points()[p].position.*axes[axis]),
                       s_.points()[p].name, why),
           "check its unit: a value in m instead of mm, or the reverse");
  }

  // A point many times further from the middle of the others than they are.
  void find_far() {
    constexpr double many = 50;
    Vector middle;
    for (double Vector::*axis : axes) {
      std::vector<double> values;
      for (const Point& p : s_.points()) values.push_back(p.position.*axis);
      middle.*axis = median(std::move(values));
    }
    std::vector<double> away;
    for (const Point& p : s_.points()) away.push_back(length(p.position - middle));
    const double usual = median(away);
    for (std::size_t p = 0; p < away.size(); ++p) {
      if (!(usual > 0) || away[p] < many * usual) continue;
      const Vector d = s_.points()[p].position - middle;
      int axis = 0;
      for (int k = 1; k < 3; ++k)
        if (std::abs(d.*axes[k]) > std::abs(d.*axes[axis])) axis = k;
      constexpr double counted = 1e9;
      const double times = away[p] / usual;
      tell(p, axis,
           times < counted ? fmt::format("is {:.0f} times as far out as the other points", times)
                           : std::string("is far away from all other points"));
      far_.push_back(p);
    }
  }

  // A coordinate that no other point has, far beyond the others, and that would be a coordinate of several of them in
  // another unit: feet among inches, cm among mm.
  void find_other_unit() {
    constexpr std::size_t several = 3;
    constexpr double beyond = 2;
    for (int k = 0; k < 3; ++k) {
      std::vector<double> values;
      for (const Point& p : s_.points()) values.push_back(p.position.*axes[k]);
      const auto by_size = [](double a, double b) { return std::abs(a) < std::abs(b); };
      const auto p = static_cast<std::size_t>(std::max_element(values.begin(), values.end(), by_size) - values.begin());
      const double value = values[p];
      values[p] = 0;
      const double next = std::abs(*std::max_element(values.begin(), values.end(), by_size));
      if (!(std::abs(value) > beyond * next) || std::find(far_.begin(), far_.end(), p) != far_.end()) continue;
      for (const double times : {10.0, 12.0, 25.4, 100.0, 304.8}) {
        const auto same = std::count_if(values.begin(), values.end(), [&](double v) {
          return v != 0 && std::abs(value / times - v) <= 1e-6 * std::abs(v);
        });
        if (static_cast<std::size_t>(same) < several) continue;
        tell(p, k, fmt::format("is {:g} times the value of {} other points", times, same));
        far_.push_back(p);
        break;
      }
    }
  }

  // A coordinate that would fit among the others if it were a thousand times larger. Of a cambered line many are so.
  void find_small() {
    double size = 0;
    std::size_t others = 0;
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      if (std::find(far_.begin(), far_.end(), p) == far_.end())
        for (double Vector::*axis : axes) size = std::max(size, std::abs(s_.points()[p].position.*axis)), ++others;
    std::vector<std::pair<std::size_t, int>> small;
    for (std::size_t p = 0; p < s_.points().size(); ++p)
      for (int k = 0; k < 3; ++k)
        if (const double c = std::abs(s_.points()[p].position.*axes[k]); c > 2e-5 * size && c <= 1.0001e-3 * size)
          small.emplace_back(p, k);
    if (small.size() * 10 > others && small.size() > 1) return;
    for (const auto& [p, k] : small) tell(p, k, "is a thousandth of the others");
  }

  // Neighbours on a member that nearly coincide, while the structure is hundreds of times as large.
  void find_short() {
    constexpr double share = 2e-3;
    const double size = s_.bounds().diagonal();
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Member& m = s_.members()[i];
      for (std::size_t k = 0; k + 1 < m.through.size(); ++k) {
        if (!s_.has(m.through[k]) || !s_.has(m.through[k + 1])) continue;
        const Point &a = s_[m.through[k]], &b = s_[m.through[k + 1]];
        const double L = length(b.position - a.position);
        if (!(L < share * size)) continue;
        Problem& p = f_.add("unit-suspect", {Subject::Kind::member, m.name},
                            fmt::format("'{}' is only {} long between '{}' and '{}'", m.name, in_mm(L), a.name, b.name),
                            "check the coordinates and their units");
        p.others = {{Subject::Kind::point, a.name}, {Subject::Kind::point, b.name}};
      }
    }
  }

  Findings& f_;
  const Structure& s_;
  std::vector<std::size_t> far_;
};

// Usual properties of materials with these densities.
struct Class {
  const char* words;
  double density_from, density_to;  // kg/m³
  double E_from, E_to;              // Pa
  double yield_from, yield_to;
};
constexpr Class classes[] = {{"iron and steel", 6900, 8400, 60e9, 250e9, 80e6, 2.5e9},
                             {"aluminium", 2550, 2900, 55e9, 90e9, 20e6, 800e6},
                             {"titanium", 4300, 4700, 90e9, 130e9, 150e6, 1.5e9},
                             {"copper and its alloys", 8450, 9000, 80e9, 150e9, 40e6, 1.5e9}};

class Materials {
 public:
  Materials(Findings& f, const Material& m) : f_(f), m_(m) {}

  void run() {
    const Class* of = nullptr;
    const double density = m_.density ? m_.density->si() : 0;
    for (const Class& c : classes)
      if (density >= c.density_from && density <= c.density_to) of = &c;
    const double E = m_.E.si();
    // From soft plastics to diamond; in between nearly everything has some material.
    if (E < 5e7 || E > 1.2e12)
      tell("E", fmt::format("E = {} GPa is unusual for any material", short_number(E / 1e9, 4)));
    else if (of && (E < of->E_from || E > of->E_to))
      tell("E", fmt::format("E = {} GPa is unusual for {}, according to its density of {:.0f} kg/m^3",
                            short_number(E / 1e9, 4), of->words, density));
    if (density > 0 && (density < 20 || density > 23000))
      tell("density", fmt::format("a density of {} kg/m^3 is unusual for any material", short_number(density, 4)));
    for (const auto& [strength, key] : {std::pair(m_.yield, "yield"), {m_.allowable, "allowable"}}) {
      if (!strength) continue;
      const double MPa = strength->si() / 1e6;
      const bool yield = *key == 'y';
      if (strength->si() < 1e6 * (yield ? 1 : 0.2) || strength->si() > 5e9 || strength->si() > E / 15)
        tell(key, fmt::format("a strength of {} MPa is unusual with E = {} GPa", short_number(MPa, 4),
                              short_number(E / 1e9, 4)));
      else if (of && (strength->si() > of->yield_to || (yield && strength->si() < of->yield_from)))
        tell(key, fmt::format("a yield strength of {} MPa is unusual for {}", short_number(MPa, 4), of->words));
    }
    if (const double a = std::abs(m_.expansion.si()); a > 0 && (a > 5e-4 || a < 5e-7))
      tell("expansion", fmt::format("an expansion of {} 1/K is unusual for any material", short_number(a, 3)));
    if (m_.G && (m_.G->si() > E || m_.G->si() < E / 30))
      tell("G", fmt::format("G = {} GPa is unusual with E = {} GPa", short_number(m_.G->si() / 1e9, 4),
                            short_number(E / 1e9, 4)));
  }

 private:
  void tell(const char* key, const std::string& text) {
    Problem& p = f_.add("unit-suspect", {Subject::Kind::material, m_.name},
                        fmt::format("material '{}': {}", m_.name, text), "check the number and its unit");
    p.key = key;
  }

  Findings& f_;
  const Material& m_;
};

// Largest forces that a cross-section can carry: those of its strength, or of an elongation of 1/500 where the strength
// is not known.
struct Capacity {
  double force = 0, moment = 0;
};

class LoadSizes {
 public:
  explicit LoadSizes(Findings& f) : f_(f), s_(f.structure()), at_point_(s_.points().size()) {
    for (const Member& m : s_.members()) {
      const Section& section = s_.section_of(m);
      const auto strength = s_.material_of(m).strength();
      const double stress = strength ? strength->si() : s_.material_of(m).E.si() / 500;
      const AreaProperties& p = section.area_properties();
      const double I = std::max(p.Iy.si(), p.Iz.si());
      // No fibre lies nearer to the middle than half of what the radius of gyration says.
      const double moment = I > 0 ? 2 * stress * std::sqrt(I * p.A.si()) : 0;
      const Capacity c{stress * p.A.si(), moment};
      of_member_.push_back(c);
      for (const PointId q : m.through) {
        at_point_[q.index].force += c.force;
        at_point_[q.index].moment += c.moment;
      }
    }
    if (const auto mass = s_.mass()) weight_ = mass->si() * 9.80665;
  }

  void run() {
    for (const LoadCase& c : s_.load_cases())
      for (std::size_t i = 0; i < c.loads().size(); ++i)
        std::visit([&](const auto& l) { look(c, i, l); }, c.loads()[i]);
    for (const PointMass& m : s_.point_masses())
      if (9.80665 * m.mass > at_point_[m.at.index].force && at_point_[m.at.index].force > 0)
        f_.add("unit-suspect", {Subject::Kind::mass, s_[m.at].name},
               fmt::format("the mass of {} kg at '{}' weighs more than its members carry in tension",
                           short_number(m.mass, 4), s_[m.at].name),
               "check its unit")
            .others.push_back(f_.point(m.at));
    compare(forces_, "force");
    compare(lines_, "line load");
    compare_with_weight();
  }

 private:
  struct Sized {
    Subject subject, on;
    double size;
    std::string words;
  };
  struct Sum {
    Vector force;
    double sizes = 0;
    bool other = false;  // gravity, heat: something other than forces
  };

  Subject load(const LoadCase& c, std::size_t i) const { return {Subject::Kind::load, c.name(), i}; }

  void look(const LoadCase& c, std::size_t i, const PointLoad& l) {
    sums_[c.name()].sizes += length(l.force);
    if (!zero(l.moment)) sums_[c.name()].other = true;
    if (!zero(l.force))
      forces_.push_back({load(c, i), f_.point(l.at), length(l.force),
                         fmt::format("the force of {} on '{}'", in_kN(length(l.force)), s_[l.at].name)});
    const Capacity& most = at_point_[l.at.index];
    if (length(l.force) > most.force && most.force > 0)
      tell(load(c, i), f_.point(l.at), fmt::format("the force of {} on '{}'", in_kN(length(l.force)), s_[l.at].name));
    else if (length(l.moment) > most.moment && most.moment > 0)
      tell(load(c, i), f_.point(l.at),
           fmt::format("the moment of {} kN·m on '{}'", short_number(length(l.moment) / 1e3, 4), s_[l.at].name));
  }
  void look(const LoadCase& c, std::size_t i, const MemberLoad& l) {
    sums_[c.name()].sizes += length(l.force);
    if (!zero(l.moment)) sums_[c.name()].other = true;
    const Subject on = f_.member(l.on.index);
    if (!zero(l.force))
      forces_.push_back(
          {load(c, i), on, length(l.force), fmt::format("the force of {} on '{}'", in_kN(length(l.force)), on.name)});
    const Capacity& most = of_member_[l.on.index];
    if (length(l.force) > most.force)
      tell(load(c, i), on, fmt::format("the force of {} on '{}'", in_kN(length(l.force)), on.name));
    else if (length(l.moment) > most.moment && most.moment > 0)
      tell(load(c, i), on,
           fmt::format("the moment of {} kN·m on '{}'", short_number(length(l.moment) / 1e3, 4), on.name));
  }
  void look(const LoadCase& c, std::size_t i, const LineLoad& l) {
    const Member& m = s_[l.on];
    const double q = std::max(length(l.first), length(l.last)), L = s_.length_of(m);
    const double loaded = std::max(0.0, l.to.value_or(L) - l.from);
    sums_[c.name()].sizes += (length(l.first) + length(l.last)) / 2 * loaded;
    const std::string words = fmt::format("the line load of {} kN/m on '{}'", short_number(q / 1e3, 4), m.name);
    if (q > 0) lines_.push_back({load(c, i), f_.member(l.on.index), q, words});
    // Between points, held at both ends of the longest piece, nothing bends less than q·L²/24.
    double longest = 0;
    for (std::size_t k = 0; k + 1 < m.through.size(); ++k)
      longest = std::max(longest, s_.place_of(m, k + 1) - s_.place_of(m, k));
    longest = std::min(longest, loaded);
    const Capacity& most = of_member_[l.on.index];
    if (q * loaded > most.force || (most.moment > 0 && q * longest * longest / 24 > most.moment))
      tell(load(c, i), f_.member(l.on.index), words);
  }
  void look(const LoadCase& c, std::size_t i, const SpreadLoad& l) {
    sums_[c.name()].sizes += length(l.force);
    double most = 0;
    for (const MemberId m : l.on) most += of_member_[m.index].force;
    if (length(l.force) > most && !l.on.empty())
      tell(load(c, i), f_.member(l.on.front().index), fmt::format("the spread load of {}", in_kN(length(l.force))));
  }
  void look(const LoadCase& c, std::size_t i, const TemperatureLoad& l) {
    sums_[c.name()].other = true;
    const double most = std::max(std::abs(l.plus), std::abs(l.minus));
    if (most > 1500)
      unusual(load(c, i), f_.member(l.on.index),
              fmt::format("the temperature change of '{}' by {} K is more than steel withstands", s_[l.on].name,
                          short_number(most, 4)));
  }
  void look(const LoadCase& c, std::size_t i, const LackOfFitLoad& l) {
    sums_[c.name()].other = true;
    if (std::abs(l.by) > s_.length_of(s_[l.on]) / 20)
      unusual(load(c, i), f_.member(l.on.index),
              fmt::format("'{}' is {} too short, more than 1/20 of its length", s_[l.on].name, in_mm(l.by)));
  }
  void look(const LoadCase& c, std::size_t i, const SettlementLoad& l) {
    sums_[c.name()].other = true;
    if (length(l.move) > s_.bounds().diagonal() / 20)
      unusual(load(c, i), f_.point(l.at),
              fmt::format("the support at '{}' moves by {}, more than 1/20 of the structure's size", s_[l.at].name,
                          in_mm(length(l.move))));
  }
  // Gravity, and every kind without a size that could be unusual.
  template <class L>
  void look(const LoadCase& c, std::size_t, const L&) {
    sums_[c.name()].other = true;
  }

  void unusual(Subject subject, Subject on, std::string text) {
    f_.add("unit-suspect", std::move(subject), std::move(text), "check the number and its unit")
        .others.push_back(std::move(on));
  }
  void tell(Subject subject, Subject on, const std::string& what) {
    told_.push_back(subject);
    unusual(std::move(subject), std::move(on),
            fmt::format("{} in case '{}' is more than the section can carry in any way", what, told_.back().name));
  }

  // A load hundreds of times larger or smaller than most of its kind.
  void compare(const std::vector<Sized>& loads, const char* kind) {
    constexpr double far = 300;
    if (loads.size() < 3) return;
    std::vector<double> sizes;
    for (const Sized& l : loads) sizes.push_back(l.size);
    const double usual = median(std::move(sizes));
    for (const Sized& l : loads) {
      const bool larger = l.size > far * usual;
      if (!larger && l.size * far > usual) continue;
      const auto is = [&](const Subject& s) { return s.name == l.subject.name && s.entry == l.subject.entry; };
      if (std::any_of(told_.begin(), told_.end(), is)) continue;
      unusual(l.subject, l.on,
              fmt::format("{} in case '{}' is {} times the usual {} of this model", l.words, l.subject.name,
                          short_number(l.size / usual, 3), kind));
      told_.push_back(l.subject);
    }
  }

  // A case of forces alone that comes to almost nothing compared with the self-weight.
  void compare_with_weight() {
    constexpr double share = 1e-3;
    for (const LoadCase& c : s_.load_cases()) {
      const Sum& sum = sums_[c.name()];
      if (sum.other || !(sum.sizes > 0) || sum.sizes > share * weight_) continue;
      Problem& p = f_.add("unit-suspect", {Subject::Kind::load_case, c.name()},
                          fmt::format("the loads of case '{}' sum to {}, while the structure weighs {}", c.name(),
                                      in_kN(sum.sizes), in_kN(weight_)),
                          "check their unit");
      for (std::size_t i = 0; i < c.loads().size(); ++i) p.others.push_back(load(c, i));
    }
  }

  Findings& f_;
  const Structure& s_;
  std::vector<Capacity> of_member_, at_point_;
  std::vector<Sized> forces_, lines_;
  std::vector<Subject> told_;
  std::map<std::string, Sum> sums_;
  double weight_ = 0;
};

}  // namespace

void check_coordinates(Findings& f) {
  Coordinates(f).run();
}

void check_materials(Findings& f) {
  for (const Material& m : f.structure().materials())
    if (!find_material(m.name) || *find_material(m.name) != m) Materials(f, m).run();
}

void check_load_sizes(Findings& f) {
  LoadSizes(f).run();
}

}  // namespace corvex::inspection
