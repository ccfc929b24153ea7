// A structure as a model file.
//
// Every number is written so that it reads back to the same double: in a handy unit where the product is exact, else in
// the SI unit, with as many digits as it takes.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <cmath>

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "corvex/number.hpp"
#include "section/shape_dimensions.hpp"

namespace corvex {
namespace {

std::string in_quotes(std::string_view text) {
  std::string out = "\"";
  for (const char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += c;
  }
  return out + "\"";
}

// The first of these units in which the value reads back the same.
std::string in_units(double si, std::initializer_list<const char*> units) {
  if (si == 0) return "0";
  const char* last = "";
  for (const char* unit : units) {
    last = unit;
    const auto one = evaluate(fmt::format("1 {}", unit), Scope());
    // Numbers as people write them first: 60 mm, not 0.060000000000000005 m.
    for (const int digits : {6, 9, 12, 15}) {
      const std::string text = fmt::format("{} {}", short_number(si / one->quantity.si, digits), unit);
      if (const auto back = evaluate(text, Scope()); back && back->quantity.si == si) return text;
    }
  }
  return fmt::format("{} {}", si, last);
}

std::string length_text(double v) {
  return in_units(v, {"mm", "m"});
}
std::string force_text(double v) {
  return in_units(v, {"kN", "N"});
}
std::string moment_text(double v) {
  return in_units(v, {"kN*m", "N*m"});
}
std::string line_text(double v) {
  return in_units(v, {"kN/m", "N/m"});
}
std::string kelvin_text(double v) {
  return in_units(v, {"K"});
}

class Writer {
 public:
  explicit Writer(const Structure& s) : s_(s) {}

  Expected<std::string, Problems> operator()() {
    problems_ = s_.validate();
    std::erase_if(problems_, [](const Problem& p) { return p.severity != Problem::Severity::error; });
    if (!problems_.empty()) return problems_;
    line("corvex: 1");
    line("title: {}", in_quotes(s_.title()));
    if (!s_.is_plane()) line("up: {}", s_.up() == Up::y ? "y" : "z");
    analysis();
    materials();
    sections();
    line("points:");
    for (const Point& p : s_.points()) line("  {}: {}", in_quotes(p.name), vector(p.position, length_text));
    members();
    supports();
    masses();
    bracing();
    loads();
    combinations();
    if (!problems_.empty()) return problems_;
    return std::move(text_);
  }

 private:
  template <class... T>
  void line(fmt::format_string<T...> format, T&&... parts) {
    text_ += fmt::format(format, std::forward<T>(parts)...) + "\n";
  }
  void refuse(std::string text, Subject::Kind kind, const std::string& name) {
    problems_.push_back({std::move(text), {kind, name}});
  }

  template <class Text>
  std::string vector(const Vector& v, const Text& text) const {
    return s_.is_plane() ? fmt::format("[{}, {}]", text(v.x), text(v.y))
                         : fmt::format("[{}, {}, {}]", text(v.x), text(v.y), text(v.z));
  }
  template <class Ids>
  std::string names(const Ids& ids) const {
    std::vector<std::string> all;
    for (const auto id : ids) all.push_back(in_quotes(s_[id].name));
    return fmt::format("[{}]", fmt::join(all, ", "));
  }

  static std::string place(const Through& t) {
    if (t.place == Through::Place::shear_centre) return "shear centre";
    if (t.place == Through::Place::centroid) return "centroid";
    return fmt::format("{{y: {}, z: {}}}", length_text(t.y.si()), length_text(t.z.si()));
  }

  void analysis() {
    const AnalysisOptions& a = s_.analysis();
    std::vector<std::string> all;
    if (!a.shear) all.push_back("shear: off");
    if (a.through.place != Through::Place::shear_centre) all.push_back("through: " + place(a.through));
    if (a.order != Order::first) all.push_back(fmt::format("order: {}", a.order == Order::second ? "second" : "large"));
    if (a.imperfection) {
      const Vector v = a.imperfection->toward.value_or(Vector{1, 0, 0});
      const bool back = v.x + v.y + v.z < 0;
      const char axis = v.x != 0 ? 'x' : v.y != 0 ? 'y' : 'z';
      if (std::abs(v.x) + std::abs(v.y) + std::abs(v.z) != 1)
        return refuse("an imperfection that does not go along an axis cannot be written", Subject::Kind::structure, {});
      const std::string toward = a.imperfection->toward ? fmt::format(", toward: {}{}", back ? "-" : "", axis) : "";
      all.push_back(
          fmt::format("imperfection: {{sway: {}, bow: {}{}}}", a.imperfection->sway, a.imperfection->bow, toward));
    }
    if (!all.empty()) line("analysis: {{{}}}", fmt::join(all, ", "));
  }

  // Built-in ones are not written. Others are written as differences from the built-in one that they resemble.
  void materials() {
    std::string all;
    std::swap(all, text_);
    for (const Material& m : s_.materials()) material(m);
    std::swap(all, text_);
    if (!all.empty()) text_ += "materials:\n" + all;
  }

  void material(const Material& m) {
    if (const auto known = find_material(m.name); known && *known == m) return;
    std::vector<Material> bases{Material()};
    for (const std::string& name : material_names()) bases.push_back(*find_material(name));
    for (const Material& base : bases) {
      Material same = base;
      std::string keys = base.name.empty() ? "" : "like: " + in_quotes(base.name);
      const auto add = [&](const char* key, const std::string& value) {
        keys += fmt::format("{}{}: {}", keys.empty() ? "" : ", ", key, value);
      };
      if (same.E != m.E || base.name.empty()) add("E", in_units(m.E.si(), {"MPa", "Pa"})), same.E = m.E;
      // Poisson's ratio makes the shear modulus anew.
      if (same.poisson != m.poisson)
        add("poisson", fmt::format("{}", m.poisson)), same.poisson = m.poisson, same.G.reset();
      if (m.G && same.G != m.G && same.poisson == base.poisson)
        add("G", in_units(m.G->si(), {"MPa", "Pa"})), same.G = m.G;
      if (m.density && same.density != m.density)
        add("density", in_units(m.density->si(), {"kg/m^3"})), same.density = m.density;
      if (same.expansion != m.expansion)
        add("expansion", fmt::format("{}/K", m.expansion.si())), same.expansion = m.expansion;
      if (m.yield && same.yield != m.yield)
        add("yield", in_units(m.yield->si(), {"MPa", "Pa"})), same.yield = m.yield, same.by_thickness.clear();
      if (m.allowable && same.allowable != m.allowable)
        add("allowable", in_units(m.allowable->si(), {"MPa", "Pa"})), same.allowable = m.allowable;
      same.name = m.name;
      // Made by the reader for a material with values of its own.
      if (m.source.find(" of the model file") != std::string::npos) same.source = m.source;
      if (!(same == m)) continue;
      line("  {}: {{{}}}", in_quotes(m.name), keys);
      return;
    }
    refuse(
        fmt::format(
            "material '{}' has properties that a model file cannot express: strengths by thickness, in heat-affected zones or in "
            "tension, a source or a note of its own",
            m.name),
        Subject::Kind::structure, "");
  }

  void sections() {
    line("sections:");
    for (const NamedSection& n : s_.sections()) {
      const std::string what = section(n);
      if (what.empty())
        refuse(fmt::format("section '{}' has properties that a model file cannot express", n.name),
               Subject::Kind::section, n.name);
      else
        line("  {}: {}", in_quotes(n.name), what);
    }
  }

  static std::string section(const NamedSection& n) {
    if (!n.designation.empty())
      if (const auto known = profile(n.designation); known && same(known->section, n.section)) return n.designation;
    if (!same(Section(n.section.shape()), n.section)) return {};
    return std::visit([](const auto& shape) { return shape_text(shape); }, n.section.shape());
  }
  // The same shape with the same torsion constant: equal figures follow from equal dimensions alone.
  static bool same(const Section& a, const Section& b) {
    const AreaProperties &p = a.area_properties(), &q = b.area_properties();
    if (&p == &q) return true;
    return a.shape().index() == b.shape().index() && p.A == q.A && p.Iy == q.Iy && p.Iz == q.Iz && p.Iyz == q.Iyz &&
           p.height == q.height && p.width == q.width && a.properties().J == b.properties().J;
  }

  // Empty where the shape has more than its dimensions in the model file.
  template <section::HasDimensions S>
  static std::string shape_text(const S& s) {
    if constexpr (requires { s.inside_corner; })
      if (s.inside_corner) return {};
    if constexpr (std::is_same_v<S, Channel>)
      if (s.toe.si() != 0 || s.slope != 0) return {};
    std::string text = fmt::format("{{shape: {}", section::ShapeDimensions<S>::name);
    for (const auto& d : section::ShapeDimensions<S>::all)
      if ((s.*d.value).si() != 0) text += fmt::format(", {}: {}", d.key, length_text((s.*d.value).si()));
    return text + "}";
  }
  static std::string corners(const std::vector<Outline::Point>& points) {
    std::vector<std::string> all;
    for (const Outline::Point& p : points)
      all.push_back(fmt::format("[{}, {}]", length_text(p.z.si()), length_text(p.y.si())));
    return fmt::format("[{}]", fmt::join(all, ", "));
  }
  static std::string shape_text(const Outline& s) {
    std::string text = "{shape: outline, points: " + corners(s.points);
    std::vector<std::string> holes;
    for (const auto& hole : s.holes) holes.push_back(corners(hole));
    if (!holes.empty()) text += fmt::format(", holes: [{}]", fmt::join(holes, ", "));
    return text + "}";
  }
  static std::string shape_text(const GivenProperties& g) {
    std::string text = "{shape: properties, A: " + in_units(g.A.si(), {"cm^2", "m^2"});
    const auto add = [&](const char* key, const auto& q, std::initializer_list<const char*> units) {
      if (q) text += fmt::format(", {}: {}", key, in_units(q->si(), units));
    };
    add("Iy", g.Iy, {"cm^4", "m^4"}), add("Iz", g.Iz, {"cm^4", "m^4"}), add("J", g.J, {"cm^4", "m^4"});
    add("Wy", g.Wy, {"cm^3", "m^3"}), add("Wz", g.Wz, {"cm^3", "m^3"});
    add("Ay", g.Ay, {"cm^2", "m^2"}), add("Az", g.Az, {"cm^2", "m^2"});
    return text + "}";
  }

  void members() {
    static constexpr const char* components[] = {"axial", "shear-y", "shear-z", "torsion", "moment-y", "moment-z"};
    line("members:");
    for (std::size_t i = 0; i < s_.members().size(); ++i) {
      const Member& m = s_.members()[i];
      const MemberOptions o = s_.options_of(MemberId(i));
      std::string text =
          fmt::format("  {}: {{through: {}, section: {}, material: {}", in_quotes(m.name), names(m.through),
                      in_quotes(s_.sections()[m.section.index].name), in_quotes(o.material.name));
      if (o.kind == MemberKind::link) text += ", kind: link";
      if (o.hinge != Hinge::none)
        text += fmt::format(", hinge: {}", o.hinge == Hinge::start ? "start" : o.hinge == Hinge::end ? "end" : "both");
      if (o.roll.si() != 0) text += ", roll: " + in_units(o.roll.si(), {"deg", "rad"});
      if (o.acts != Acts::always)
        text += fmt::format(", acts: {}", o.acts == Acts::tension ? "tension" : "compression");
      const auto ends = [&](const char* key, const std::string& start, const std::string& end) {
        if (start.empty() && end.empty()) return;
        text += fmt::format(", {}: {{{}{}{}}}", key, start.empty() ? "" : "start: " + start,
                            start.empty() || end.empty() ? "" : ", ", end.empty() ? "" : "end: " + end);
      };
      const auto released = [&](const std::vector<Component>& list) {
        std::vector<std::string> words;
        for (const Component c : list) words.emplace_back(components[static_cast<std::size_t>(c)]);
        return words.empty() ? std::string() : fmt::format("[{}]", fmt::join(words, ", "));
      };
      ends("release", released(o.release.start), released(o.release.end));
      const auto arm = [&](const Vector& v) { return zero(v) ? std::string() : vector(v, length_text); };
      ends("offset", arm(m.arm_start), arm(m.arm_end));
      line("{}}}", text);
    }
  }

  void bracing() {
    if (s_.bracing().empty()) return;
    static constexpr const char* words[] = {"both", "lateral", "twist", "y", "z"};
    line("bracing:");
    for (const Bracing& b : s_.bracing()) {
      const std::string at = b.at.empty() ? "" : fmt::format(", at: {}", names(b.at));
      line("  - {{on: {}{}, against: {}}}", in_quotes(s_[b.member].name), at,
           words[static_cast<std::size_t>(b.against)]);
    }
  }

  void supports() {
    static constexpr const char* dofs[] = {"x", "y", "z", "rx", "ry", "rz"};
    line("supports:");
    for (const PointSupport& p : s_.supports()) {
      std::vector<std::string> held, springs;
      for (std::size_t k = 0; k < 6; ++k) {
        if (p.held[k]) held.emplace_back(dofs[k]);
        if (p.spring[k] != 0)
          springs.push_back(fmt::format(
              "{}: {}", dofs[k],
              k < 3 ? in_units(p.spring[k], {"N/mm", "N/m"}) : in_units(p.spring[k], {"kN*m/rad", "N*m/rad"})));
      }
      for (const Vector& v : p.along) held.push_back(vector(v, [](double c) { return fmt::format("{}", c); }));
      std::string text;
      if (!held.empty()) text = fmt::format("hold: [{}]", fmt::join(held, ", "));
      if (!springs.empty()) text += fmt::format("{}spring: {{{}}}", held.empty() ? "" : ", ", fmt::join(springs, ", "));
      line("  {}: {{{}}}", in_quotes(s_[p.at].name), text);
    }
  }

  void masses() {
    if (s_.point_masses().empty()) return;
    line("masses:");
    const auto inertia = [](double v) { return in_units(v, {"kg*m^2"}); };
    for (const PointMass& m : s_.point_masses()) {
      std::string text = in_units(m.mass, {"kg"});
      if (m.turns()) {
        text = fmt::format("{{mass: {}", text);
        if (!zero(m.arm)) text += fmt::format(", arm: {}", vector(m.arm, length_text));
        if (!zero(m.inertia))
          text += fmt::format(", inertia: {}", s_.is_plane() ? inertia(m.inertia.z) : vector(m.inertia, inertia));
        text += "}";
      }
      line("  {}: {}", in_quotes(s_[m.at].name), text);
    }
  }

  void loads() {
    line("loads:");
    for (const LoadCase& c : s_.load_cases()) {
      line("  {}:{}", in_quotes(c.name()), c.loads().empty() ? " []" : "");
      for (const Load& l : c.loads()) std::visit([&](const auto& load) { put(load); }, l);
    }
  }
  static std::string own(LoadAxes axes) { return axes == LoadAxes::member ? ", axes: member" : ""; }
  static std::string through(const std::optional<Through>& t) { return t ? ", through: " + place(*t) : ""; }
  std::string moment(const Vector& m) const { return s_.is_plane() ? moment_text(m.z) : vector(m, moment_text); }

  void put(const PointLoad& l) {
    const std::string at = "    - {at: " + in_quotes(s_[l.at].name);
    if (!zero(l.force) || zero(l.moment))
      line("{}, force: {}{}}}", at, vector(l.force, force_text), through(l.through));
    if (!zero(l.moment)) line("{}, moment: {}{}}}", at, moment(l.moment), through(l.through));
  }
  void put(const MemberLoad& l) {
    const std::string on = fmt::format("    - {{on: {}, at: {}", in_quotes(s_[l.on].name), length_text(l.at));
    if (!zero(l.force) || zero(l.moment))
      line("{}, force: {}{}{}}}", on, vector(l.force, force_text), own(l.axes), through(l.through));
    // In a plane structure a moment has no direction to choose.
    if (!zero(l.moment))
      line("{}, moment: {}{}{}}}", on, moment(l.moment), s_.is_plane() ? "" : own(l.axes), through(l.through));
  }
  void put(const LineLoad& l) {
    const bool even = l.first.x == l.last.x && l.first.y == l.last.y && l.first.z == l.last.z;
    const std::string first = vector(l.first, line_text);
    std::string text = fmt::format("    - {{on: {}, line: {}", in_quotes(s_[l.on].name),
                                   even ? first : fmt::format("[{}, {}]", first, vector(l.last, line_text)));
    if (l.from != 0) text += ", from: " + length_text(l.from);
    if (l.to) text += ", to: " + length_text(*l.to);
    if (l.per == Per::plan) text += ", per: plan";
    line("{}{}{}}}", text, own(l.axes), through(l.through));
  }
  void put(const SpreadLoad& l) {
    line("    - {{on: {}, spread: {}{}{}}}", names(l.on), vector(l.force, force_text), own(l.axes), through(l.through));
  }
  void put(const TemperatureLoad& l) {
    const char axis = l.across == TemperatureLoad::Across::y ? 'y' : 'z';
    const std::string heat =
        l.across == TemperatureLoad::Across::nothing
            ? kelvin_text(l.plus)
            : fmt::format("{{plus-{0}: {1}, minus-{0}: {2}}}", axis, kelvin_text(l.plus), kelvin_text(l.minus));
    line("    - {{on: {}, heat: {}}}", in_quotes(s_[l.on].name), heat);
  }
  void put(const LackOfFitLoad& l) {
    line("    - {{on: {}, shorten: {}}}", in_quotes(s_[l.on].name), length_text(l.by));
  }
  void put(const SettlementLoad& l) {
    std::vector<std::string> parts;
    const auto add = [&](const char* key, double v, std::initializer_list<const char*> units) {
      if (v != 0) parts.push_back(fmt::format("{}: {}", key, in_units(v, units)));
    };
    add("x", l.move.x, {"mm", "m"}), add("y", l.move.y, {"mm", "m"}), add("z", l.move.z, {"mm", "m"});
    add("rx", l.turn.x, {"deg", "rad"}), add("ry", l.turn.y, {"deg", "rad"}), add("rz", l.turn.z, {"deg", "rad"});
    if (parts.empty()) parts.emplace_back("x: 0");
    line("    - {{at: {}, settle: {{{}}}}}", in_quotes(s_[l.at].name), fmt::join(parts, ", "));
  }
  void put(const GravityLoad& l) {
    line("    - {{gravity: {}{}}}", vector(l.acceleration, [](double v) { return in_units(v, {"m/s^2"}); }),
         through(l.through));
  }

  void combinations() {
    if (s_.combinations().empty()) return;
    line("combinations:");
    for (const Combination& c : s_.combinations()) {
      std::vector<std::string> terms;
      for (const Combination::Term& t : c.terms)
        terms.push_back(fmt::format("{}: {}", in_quotes(s_.load_cases()[t.load_case].name()), t.factor));
      line("  {}: {{{}}}", in_quotes(c.name), fmt::join(terms, ", "));
    }
  }

  const Structure& s_;
  std::string text_;
  Problems problems_;
};

}  // namespace

Expected<std::string, Problems> model_text(const Structure& structure) {
  return Writer(structure)();
}

}  // namespace corvex
