// Likely slips of factors, directions, sizes and heights that are not errors by themselves.
#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "corvex/number.hpp"
#include "inspect/findings.hpp"
#include "structure/acting_loads.hpp"

namespace corvex::inspection {
namespace {

bool has_gravity(const LoadCase& c) {
  return std::any_of(c.loads().begin(), c.loads().end(),
                     [](const Load& l) { return std::holds_alternative<GravityLoad>(l); });
}

// Factors that leave out a case, or the weight, or turn it round.
void check_factors(Findings& f) {
  const Structure& s = f.structure();
  for (const Combination& c : s.combinations())
    for (const Combination::Term& t : c.terms) {
      const LoadCase& part = s.load_cases()[t.load_case];
      const Subject subject{Subject::Kind::combination, c.name};
      constexpr double least_of_weight = 0.5;
      std::string text, remedy;
      if (t.factor == 0) {
        text = fmt::format("combination '{}' contains case '{}' with the factor 0", c.name, part.name());
        remedy = "give a factor, or omit it";
      } else if (has_gravity(part) && t.factor < 0) {
        text = fmt::format("combination '{}' reverses the self-weight in case '{}': its factor is {}", c.name,
                           part.name(), short_number(t.factor, 4));
        remedy = "self-weight does not change its direction: use a positive factor";
      } else if (has_gravity(part) && t.factor < least_of_weight) {
        text = fmt::format("combination '{}' has only {} of the self-weight in case '{}'", c.name,
                           short_number(t.factor, 4), part.name());
        remedy = "permanent loads have factors of about 1 (0.9 to 1.35)";
      } else {
        continue;
      }
      f.add("factor-suspect", subject, std::move(text), std::move(remedy))
          .others.push_back({Subject::Kind::load_case, part.name()});
    }
}

// Wind and the like may act upwards; a floor does not.
bool may_act_upwards(std::string name) {
  for (char& c : name) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  static constexpr const char* words[] = {"wind",     "up",    "lift", "suction", "buoy",
                                          "pressure", "water", "jack", "thrust"};
  return std::any_of(std::begin(words), std::end(words),
                     [&](const char* w) { return name.find(w) != std::string::npos; });
}

class Sizes {
 public:
  explicit Sizes(Findings& f) : f_(f), s_(f.structure()), up_(s_.up_direction()) {}

  void run() {
    for (const LoadCase& c : s_.load_cases())
      for (std::size_t i = 0; i < c.loads().size(); ++i) {
        const Subject subject{Subject::Kind::load, c.name(), i};
        const Load& load = c.loads()[i];
        if (const auto* l = std::get_if<LineLoad>(&load)) line(c, *l, subject);
        if (const auto* l = std::get_if<SpreadLoad>(&load); l && !l->on.empty())
          upwards(c, s_[l->on.front()], in_global_axes(s_, s_[l->on.front()], l->force, l->axes), subject);
        if (const auto* l = std::get_if<PointLoad>(&load); l && zero(l->force)) moment(c, length(l->moment), subject);
        if (const auto* l = std::get_if<MemberLoad>(&load); l && zero(l->force)) moment(c, length(l->moment), subject);
      }
  }

 private:
  void upwards(const LoadCase& c, const Member& m, const Vector& q, const Subject& subject) {
    constexpr double mostly = 0.7;
    if (std::abs(dot(local_axes(s_, m).x, up_)) > mostly || !(dot(q, up_) > mostly * length(q))) return;
    if (may_act_upwards(c.name())) return;
    if (!told_.emplace("upwards", c.name()).second) return;
    f_.add("load-suspect", subject, fmt::format("in case '{}' a load along '{}' acts upwards", c.name(), m.name),
           "use 'down', or give the case a name that explains the uplift")
        .others.push_back({Subject::Kind::member, m.name});
  }

  // A load downwards that is small compared with the weight of the member alone has likely lost a factor of 1,000.
  void line(const LoadCase& c, const LineLoad& l, const Subject& subject) {
    const Member& m = s_[l.on];
    const Vector q = in_global_axes(s_, m, length(l.first) > length(l.last) ? l.first : l.last, l.axes);
    upwards(c, m, q, subject);
    constexpr double little = 0.1, gravity = 9.80665;
    const auto density = s_.material_of(m).density;
    if (!density || !(-dot(q, up_) > 0.7 * length(q))) return;
    const double weight = density->si() * s_.section_of(m).area().si() * gravity;
    if (length(q) >= little * weight || !told_.emplace("line", c.name()).second) return;
    f_.add("load-suspect", subject,
           fmt::format(
               "in case '{}' the line load of {} N/m on '{}' is small compared with the weight of the member, {} N/m",
               c.name(), short_number(length(q), 3), m.name, short_number(weight, 3)),
           "check its unit")
        .others.push_back({Subject::Kind::member, m.name});
  }

  // A moment compared with the forces of its case and the size of the structure.
  void moment(const LoadCase& c, double size, const Subject& subject) {
    constexpr double little = 3e-4;
    double force = 0;
    for (const Load& load : c.loads()) {
      if (const auto* l = std::get_if<PointLoad>(&load)) force = std::max(force, length(l->force));
      if (const auto* l = std::get_if<MemberLoad>(&load)) force = std::max(force, length(l->force));
    }
    if (!(size > 0) || !(force > 0) || size >= little * force * s_.bounds().diagonal()) return;
    if (!told_.emplace("moment", c.name()).second) return;
    f_.add("load-suspect", subject,
           fmt::format("in case '{}' the moment of {} N·m is small compared with a force of {} N in a structure of {}",
                       c.name(), short_number(size, 3), short_number(force, 3), in_mm(s_.bounds().diagonal())),
           "check its unit");
  }

  Findings& f_;
  const Structure& s_;
  const Vector up_;
  std::set<std::pair<std::string, std::string>> told_;  // of each kind the first one of a case
};

// Nearly the same height, but not the same.
void check_heights(Findings& f) {
  const Structure& s = f.structure();
  const Vector up = s.up_direction(), low = s.bounds().low, high = s.bounds().high;
  const double height = dot(high - low, up);
  constexpr double alike = 1e-6, near = 0.05;
  std::vector<std::pair<double, PointId>> feet;
  for (const PointSupport& p : s.supports())
    if (p.held[s.up() == Up::y ? 1 : 2] || !p.along.empty()) feet.emplace_back(dot(s[p.at].position, up), p.at);
  if (feet.size() < 2) return;
  std::sort(feet.begin(), feet.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  // The level that most of them share.
  double level = feet.front().first;
  std::size_t most = 0;
  for (const auto& [at, point] : feet) {
    const double here = at;
    const auto count = static_cast<std::size_t>(std::count_if(
        feet.begin(), feet.end(), [&](const auto& o) { return std::abs(o.first - here) <= alike * height; }));
    if (count > most) most = count, level = at;
  }
  for (const auto& [at, point] : feet) {
    const double off = std::abs(at - level);
    if (off <= alike * height || off > near * height) continue;
    f.add(
        "uneven-supports", {Subject::Kind::point, f.structure()[point].name},
        fmt::format("the support at {} is {} {} the others", f.name(point), in_mm(off), at < level ? "below" : "above"),
        "check its coordinates");
  }
}

void check_masses(Findings& f) {
  const Structure& s = f.structure();
  const double size = s.bounds().diagonal();
  for (const PointMass& m : s.point_masses())
    if (length(m.arm) > size && size > 0)
      f.add("unit-suspect", {Subject::Kind::mass, s[m.at].name},
            fmt::format("the mass at '{}' has an arm of {} in a structure of {}", s[m.at].name, in_mm(length(m.arm)),
                        in_mm(size)),
            "check its unit")
          .key = "arm";
  const bool weighs = std::any_of(s.load_cases().begin(), s.load_cases().end(), has_gravity);
  if (!s.point_masses().empty() && !weighs && !s.load_cases().empty())
    f.add("weightless-mass", {Subject::Kind::mass, s[s.point_masses().front().at].name},
          "no load case has gravity: the masses have no weight", "add gravity: down to the case in which they act");
}

void check_analysis(Findings& f) {
  const auto& given = f.structure().analysis().imperfection;
  constexpr double large = 1.0 / 100;
  if (!given) return;
  for (const auto& [what, size, usual] :
       {std::tuple("sway", given->sway, "1/200"), std::tuple("bow", given->bow, "1/250")})
    if (size > large)
      f.add("imperfection-suspect", {Subject::Kind::structure, ""},
            fmt::format("a {} of 1/{} is unusually large", what, short_number(1 / size, 3)),
            fmt::format("a usual value is {}", usual))
          .key = "analysis";
}

void check_allowable(Findings& f) {
  for (const Material& m : f.structure().materials())
    if (m.allowable && m.yield && m.allowable->si() > m.yield->si() * (1 + 1e-9))
      f.add("strength-suspect", {Subject::Kind::material, m.name},
            fmt::format("material '{}' allows {} MPa, more than its yield strength of {} MPa", m.name,
                        short_number(m.allowable->in(units::MPa), 4), short_number(m.yield->in(units::MPa), 4)),
            "an allowable stress is below the yield strength")
          .key = "allowable";
}

}  // namespace

void check_slips(Findings& f) {
  check_factors(f);
  Sizes(f).run();
  check_heights(f);
  check_masses(f);
  check_analysis(f);
  check_allowable(f);
}

}  // namespace corvex::inspection
