// Sections of unusual proportions, sections that lie on their weak side, sections that nothing is made of; limits of
// unusual size.
#include <algorithm>
#include <cmath>
#include <set>

#include "corvex/number.hpp"
#include "inspect/findings.hpp"

namespace corvex::inspection {
namespace {

// Why the proportions of a shape are unusual, and by which key; empty where they are usual.
struct Proportions {
  struct Fault {
    std::string key, text;
  };
  using Result = std::optional<Fault>;

  static Result tube(double side, double wall, const char* what) {
    if (wall > side / 4)
      return Fault{"wall",
                   fmt::format("a wall of {} is more than a quarter of the {} of {}", in_mm(wall), what, in_mm(side))};
    if (wall < side / 200)
      return Fault{"wall",
                   fmt::format("a wall of {} is less than 1/200 of the {} of {}", in_mm(wall), what, in_mm(side))};
    return std::nullopt;
  }
  static Result sides(double height, double width) {
    const double longer = std::max(height, width), shorter = std::min(height, width);
    if (longer <= 30 * shorter) return std::nullopt;
    return Fault{height > width ? "height" : "width",
                 fmt::format("{} by {} is a proportion of 1 : {:.0f}", in_mm(height), in_mm(width), longer / shorter)};
  }
  static Result flanges(Length height, Length width, Length web, Length flange) {
    if (const Result r = sides(height.si(), width.si())) return r;
    for (const auto& [thick, of, key] : {std::tuple(web, width, "web"), {flange, height, "flange"}}) {
      if (thick > of / 4.0)
        return Fault{key,
                     fmt::format("a {} of {} is more than a quarter of {}", key, in_mm(thick.si()), in_mm(of.si()))};
      if (thick < of / 300.0)
        return Fault{key, fmt::format("a {} of {} is less than 1/300 of {}", key, in_mm(thick.si()), in_mm(of.si()))};
    }
    return std::nullopt;
  }

  Result operator()(const SquareTube& s) const { return tube(s.width.si(), s.wall.si(), "width"); }
  Result operator()(const RectangularTube& s) const {
    if (const Result r = sides(s.height.si(), s.width.si())) return r;
    const bool upright = s.height > s.width;
    if (const Result r = tube((upright ? s.width : s.height).si(), s.wall.si(), upright ? "width" : "height");
        r && s.wall > (upright ? s.width : s.height) / 4.0)
      return r;
    return s.wall < std::max(s.height, s.width) / 200.0
               ? tube(std::max(s.height, s.width).si(), s.wall.si(), upright ? "height" : "width")
               : Result();
  }
  Result operator()(const RoundTube& s) const { return tube(s.diameter.si(), s.wall.si(), "diameter"); }
  Result operator()(const RoundBar&) const { return std::nullopt; }
  Result operator()(const RectangularBar& s) const { return sides(s.height.si(), s.width.si()); }
  Result operator()(const IProfile& s) const { return flanges(s.height, s.width, s.web, s.flange); }
  Result operator()(const Channel& s) const { return flanges(s.height, s.width, s.web, s.flange); }
  Result operator()(const Tee& s) const { return flanges(s.height, s.width, s.web, s.flange); }
  Result operator()(const AngleProfile& s) const {
    if (const Result r = sides(s.height.si(), s.width.si())) return r;
    const Length leg = std::min(s.height, s.width);
    if (s.wall > leg / 3.0)
      return Fault{"wall", fmt::format("a wall of {} is more than a third of the leg of {}", in_mm(s.wall.si()),
                                       in_mm(leg.si()))};
    if (s.wall < leg / 200.0)
      return Fault{
          "wall", fmt::format("a wall of {} is less than 1/200 of the leg of {}", in_mm(s.wall.si()), in_mm(leg.si()))};
    return std::nullopt;
  }
  Result operator()(const Outline&) const { return std::nullopt; }
  // Radii of gyration and fibres that no section has.
  Result operator()(const GivenProperties& g) const {
    const double A = g.A.si();
    for (const auto& [I, key] : {std::pair(g.Iy, "Iy"), {g.Iz, "Iz"}})
      if (I && (I->si() > 400 * A * A || I->si() < A * A / 400))
        return Fault{key, fmt::format("a radius of gyration of {} beside an area of {} mm^2",
                                      in_mm(std::sqrt(I->si() / A)), short_number(A * 1e6, 4))};
    for (const auto& [I, W, key] : {std::tuple(g.Iy, g.Wy, "Wy"), {g.Iz, g.Wz, "Wz"}}) {
      if (!I || !W) continue;
      // The outermost fibre lies 1 to 4 radii of gyration from the middle.
      const double fibres = I->si() / W->si() / std::sqrt(I->si() / A);
      if (fibres < 0.9 || fibres > 6)
        return Fault{key, fmt::format("its outermost fibre would lie {} from the middle, {} radii of gyration",
                                      in_mm(I->si() / W->si()), short_number(fibres, 2))};
    }
    return std::nullopt;
  }
};

class Sections {
 public:
  explicit Sections(Findings& f) : f_(f), s_(f.structure()), members_(s_.sections().size()) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) members_[s_.members()[i].section.index].push_back(i);
  }

  void run() {
    for (std::size_t i = 0; i < s_.sections().size(); ++i) {
      const NamedSection& n = s_.sections()[i];
      if (members_[i].empty()) {
        f_.add("unused-section", {Subject::Kind::section, n.name},
               fmt::format("no member has the section '{}'", n.name),
               "remove it, or give it to the members that it was meant for");
        continue;
      }
      // Listed sizes are what they are.
      if (n.designation.empty() || !n.note.empty())
        if (const auto fault = std::visit(Proportions(), n.section.shape())) tell_proportions(n, *fault);
      check_lengths(i);
      check_lying(i);
    }
  }

 private:
  void tell_proportions(const NamedSection& n, const Proportions::Fault& fault) {
    f_.add("section-suspect", {Subject::Kind::section, n.name}, fmt::format("section '{}': {}", n.name, fault.text),
           "check its dimensions and their units; a diameter is not a radius")
        .key = fault.key;
  }

  // The section is as large as its members are long, or a wire beside their length.
  void check_lengths(std::size_t i) {
    const AreaProperties& p = s_.sections()[i].section.area_properties();
    if (!(p.A.si() > 0)) return;
    const double thick = std::sqrt(std::max({p.Iy.si(), p.Iz.si(), 0.0}) / p.A.si());
    if (!(thick > 0)) return;
    double longest = 0;
    bool bends = false;
    for (const std::size_t m : members_[i]) {
      longest = std::max(longest, s_.length_of(s_.members()[m]));
      bends = bends || s_.members()[m].kind == MemberKind::beam;
    }
    const double ratio = longest / thick;
    const std::string& name = s_.sections()[i].name;
    // A radius of gyration is about 0.4 of a section's height.
    if (ratio < 1.5)
      f_.add("section-suspect", {Subject::Kind::section, name},
             fmt::format("section '{}' is larger than any of its members is long", name),
             "check the units of its dimensions");
    else if (bends && ratio > 2000)
      f_.add("section-suspect", {Subject::Kind::section, name},
             fmt::format("section '{}' is a wire beside the length of its members: 1/{:.0f}", name, ratio),
             "check the units of its dimensions");
  }

  // Level beams whose section resists bending by vertical forces least.
  void check_lying(std::size_t i) {
    const AreaProperties& p = s_.sections()[i].section.area_properties();
    constexpr double clearly = 1.5;
    std::vector<std::size_t> lying;
    for (const std::size_t k : members_[i]) {
      const Member& m = s_.members()[k];
      if (m.kind != MemberKind::beam || !(p.Iy.si() > 0) || !(p.Iz.si() > 0)) continue;
      const Vector up = s_.up_direction();
      const Axes axes = local_axes(s_, m);
      if (std::abs(dot(axes.x, up)) > 0.1) continue;
      const double c = dot(axes.y, up), n = dot(axes.z, up);
      const double upright = p.Iz.si() * c * c + p.Iy.si() * n * n, sideways = p.Iz.si() * n * n + p.Iy.si() * c * c;
      if (clearly * upright < sideways) lying.push_back(k);
    }
    if (lying.empty()) return;
    std::vector<std::string> names;
    for (const std::size_t k : lying) names.push_back(s_.members()[k].name);
    Problem& found = f_.add("weak-axis-up", f_.member(lying.front()),
                            fmt::format("{}: section '{}' lies on its weak side against vertical loads", list(names),
                                        s_.sections()[i].name),
                            "if it was meant to stand, exchange height and width or turn it by roll: 90 deg");
    for (const std::size_t k : lying) found.others.push_back(f_.member(k));
    found.others.push_back({Subject::Kind::section, s_.sections()[i].name});
  }

  Findings& f_;
  const Structure& s_;
  std::vector<std::vector<std::size_t>> members_;  // of each section
};

}  // namespace

void check_sections(Findings& f) {
  Sections(f).run();
}

namespace {

// There are beams, and all limits of safety together are on links.
bool covers_ties_alone(const Structure& s, const Limits& limits) {
  const auto is_beam = [&](const Member& m) { return m.kind == MemberKind::beam; };
  if (std::none_of(s.members().begin(), s.members().end(), is_beam)) return false;
  for (const Limit& l : limits) {
    if (l.kind != Limit::Kind::safety) continue;
    if (l.on.empty()) return false;
    for (const MemberRef& m : l.on)
      if (const auto id = s.find(m); id && is_beam(s[*id])) return false;
  }
  return true;
}

// What is unusual in the limits, kind by kind.
class LimitChecks {
 public:
  LimitChecks(Findings& f, const Limits& limits) : f_(f), s_(f.structure()), limits_(limits) {}

  void operator()() {
    for (number_ = 0; number_ < limits_.size(); ++number_) {
      const Limit& l = limits_[number_];
      switch (l.kind) {
        case Limit::Kind::safety: safety(l); break;
        case Limit::Kind::drift:
        case Limit::Kind::sag: deflection(l); break;
        case Limit::Kind::movement: movement(l); break;
        case Limit::Kind::buckling: buckling(l); break;
        case Limit::Kind::frequency: frequency(l); break;
        case Limit::Kind::figure:
        case Limit::Kind::range: break;
      }
    }
  }

 private:
  Subject subject() const { return {Subject::Kind::limit, "", number_}; }
  void suspect(const char* key, std::string text, std::string remedy) {
    f_.add("limit-suspect", subject(), std::move(text), std::move(remedy)).key = key;
  }

  void safety(const Limit& l) {
    const double v = l.required.si();
    if (v < 1)
      suspect("safety", fmt::format("a safety of {} allows stress beyond the strength", short_number(v, 4)),
              "write a number over 1");
    else if (v > 30)
      suspect("safety", fmt::format("a safety of {} is unusually high", short_number(v, 4)), "check the number");
    if (covers_ties_alone(s_, limits_))
      suspect("on", "limits of safety cover members in tension or compression alone, and no beam",
              "leave out 'on', or name the beams too");
    std::set<std::size_t> without;
    const auto look = [&](std::size_t m) {
      if (!s_.material_of(s_.members()[m]).strength()) without.insert(m);
    };
    for (const MemberRef& m : l.on)
      if (const auto id = s_.find(m)) look(id->index);
    for (std::size_t m = 0; l.on.empty() && m < s_.members().size(); ++m) look(m);
    if (without.empty()) return;
    std::vector<std::string> names;
    for (const std::size_t m : without) names.push_back(s_.members()[m].name);
    const std::string& material = s_.material_of(s_.members()[*without.begin()]).name;
    Problem& p = f_.add(
        "no-strength", subject(),
        fmt::format("the safety of {} cannot be checked: the material '{}' has no strength", list(names), material),
        fmt::format("give '{}' a yield or an allowable stress", material));
    for (const std::size_t m : without) p.others.push_back(f_.member(m));
    p.others.push_back({Subject::Kind::material, material});
  }

  bool is_unusual_length(double v) const {
    const double size = s_.bounds().diagonal();
    return v > size / 10 || v < size * 1e-7;
  }

  void deflection(const Limit& l) {
    const double v = l.required.si();
    if (l.required.quantity().dimension == dimension::length) {
      if (is_unusual_length(v))
        suspect(
            l.kind == Limit::Kind::sag ? "sag" : "drift",
            fmt::format("a deflection of {} is unusual in a structure of {}", in_mm(v), in_mm(s_.bounds().diagonal())),
            "check its unit");
    } else if (v >= 1) {
      suspect("sag", fmt::format("a sag of {} times the span", short_number(v, 4)),
              fmt::format("write 1/{} if that was meant", short_number(v, 4)));
    } else if (v > 1.0 / 20 || v < 1.0 / 20000) {
      suspect("sag", fmt::format("a sag of 1/{} of the span is unusual", short_number(1 / v, 4)), "write it as 1/300");
    }
  }

  void movement(const Limit& l) {
    const double v = l.required.si();
    if (is_unusual_length(v))
      suspect("movement",
              fmt::format("a movement of {} is unusual in a structure of {}", in_mm(v), in_mm(s_.bounds().diagonal())),
              "check its unit");
    for (const PointId p : l.at)
      for (const PointSupport& support : s_.supports())
        if (s_.has(p) && support.at == p && holds(support, l.part))
          suspect("at", fmt::format("the support at '{}' holds this movement: the limit is always met", s_[p].name),
                  "name the point that moves");
  }
  bool holds(const PointSupport& support, Part part) const {
    const std::size_t dims = s_.is_plane() ? 2 : 3;
    for (std::size_t k = 0; k < dims; ++k)
      if ((part == Part::size || static_cast<std::size_t>(part) == k + 1) && !support.held[k]) return false;
    return true;
  }

  void buckling(const Limit& l) {
    if (const double v = l.required.si(); v < 1)
      suspect("buckling", fmt::format("a load factor of {} allows buckling", short_number(v, 4)),
              "write a number over 1");
  }

  void frequency(const Limit& l) {
    if (const double v = l.required.si(); !l.band_end && (v < 0.5 || v > 1e4))
      suspect("frequency", fmt::format("a frequency of {} Hz is unusual", short_number(v, 4)), "check its unit");
  }

  Findings& f_;
  const Structure& s_;
  const Limits& limits_;
  std::size_t number_ = 0;
};

}  // namespace

void check_limits(Findings& f, const Limits& limits) {
  LimitChecks(f, limits)();
}

}  // namespace corvex::inspection
