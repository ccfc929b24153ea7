// Sections of unusual proportions, sections that lie on their weak side, sections that nothing is made of.
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
        return Fault{key, fmt::format("a radius of gyration of {} with an area of {} mm^2",
                                      in_mm(std::sqrt(I->si() / A)), short_number(A * 1e6, 4))};
    for (const auto& [I, W, key] : {std::tuple(g.Iy, g.Wy, "Wy"), {g.Iz, g.Wz, "Wz"}}) {
      if (!I || !W) continue;
      // The outermost fibre lies 1 to 4 radii of gyration from the middle.
      const double fibres = I->si() / W->si() / std::sqrt(I->si() / A);
      if (fibres < 0.9 || fibres > 6)
        return Fault{key, fmt::format("its outermost fibre would be {} from the middle, {} radii of gyration",
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
               fmt::format("no member has the section '{}'", n.name), "remove it, or assign it to members");
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

  // The section is as large as its members are long, or a wire compared with their length.
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
             fmt::format("section '{}' is larger than the length of any of its members", name),
             "check the units of its dimensions");
    else if (bends && ratio > 2000)
      f_.add("section-suspect", {Subject::Kind::section, name},
             fmt::format("section '{}' is a wire compared with the length of its members: 1/{:.0f}", name, ratio),
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
                            fmt::format("{}: section '{}' bends about its weak axis under vertical loads", list(names),
                                        s_.sections()[i].name),
                            "if not intended, exchange height and width or rotate it with roll: 90 deg");
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

}  // namespace corvex::inspection
