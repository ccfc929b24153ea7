#include "support/draft.hpp"

#include <algorithm>

#include "support/cases.hpp"

namespace corvex::test {
namespace {

// Ids of another structure would be refused: numbers alone are of any.
struct Freed {
  void operator()(PointLoad& l) const { l.at = PointId(l.at.index); }
  void operator()(MemberLoad& l) const { l.on = MemberId(l.on.index); }
  void operator()(LineLoad& l) const { l.on = MemberId(l.on.index); }
  void operator()(SpreadLoad& l) const {
    for (MemberId& m : l.on) m = MemberId(m.index);
  }
  void operator()(TemperatureLoad& l) const { l.on = MemberId(l.on.index); }
  void operator()(LackOfFitLoad& l) const { l.on = MemberId(l.on.index); }
  void operator()(SettlementLoad& l) const { l.at = PointId(l.at.index); }
  void operator()(GravityLoad&) const {}
};

}  // namespace

Draft Draft::of(const Structure& s, const Limits& limits) {
  Draft d{.title = s.title(),
          .plane = s.is_plane(),
          .up = s.up(),
          .analysis = s.analysis(),
          .points = s.points(),
          .sections = s.sections()};
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    DraftMember m{s.members()[i].name, {}, s.options_of(MemberId(i))};
    for (const PointId p : s.members()[i].through) m.through.push_back(p.index);
    m.options.section = SectionId(m.options.section.index);
    d.members.push_back(std::move(m));
  }
  for (const PointSupport& p : s.supports()) d.supports.push_back({p.at.index, *s.support_of(p.at)});
  for (const PointMass& m : s.point_masses()) d.masses.push_back({PointId(m.at.index), m.mass});
  for (const LoadCase& c : s.load_cases()) {
    d.cases.emplace_back(c.name(), c.loads());
    for (Load& l : d.cases.back().second) std::visit(Freed(), l);
  }
  for (const Combination& c : s.combinations()) {
    d.combinations.emplace_back(c.name, std::vector<std::pair<std::string, double>>());
    for (const Combination::Term& t : c.terms)
      d.combinations.back().second.emplace_back(s.load_cases()[t.load_case].name(), t.factor);
  }
  d.limits = limits;
  for (Limit& l : d.limits) {
    for (MemberRef& m : l.on) m = s[*s.find(m)].name;
    for (PointId& p : l.at) p = PointId(p.index);
    if (l.between) l.between = std::pair(PointId(l.between->first.index), PointId(l.between->second.index));
  }
  return d;
}

Structure Draft::build() const {
  Structure s = plane ? Structure::plane(title) : Structure::space(title, up);
  s.analysis() = analysis;
  for (const Point& p : points) s.point(p.name, p.position);
  for (const NamedSection& n : sections) s.section(n.name, n.section);
  for (const DraftMember& m : members) {
    std::vector<PointId> through;
    for (const std::size_t p : m.through) through.emplace_back(p);
    s.member(m.name, through, m.options);
  }
  for (const DraftSupport& p : supports) s.support(PointId(p.at), p.support);
  for (const PointMass& m : masses) s.point_mass(m.at, Mass::si(m.mass));
  for (const auto& [name, loads] : cases) {
    LoadsOf c = loads_in(s, name);
    for (const Load& l : loads) c.add(l);
    if (loads.empty()) c.clear();
  }
  for (const auto& [name, factors] : combinations) s.combination(name, factors);
  return s;
}

double Draft::size() const {
  return build().bounds().diagonal();
}

std::size_t Draft::members_at(std::size_t point) const {
  return static_cast<std::size_t>(std::count_if(members.begin(), members.end(), [&](const DraftMember& m) {
    return std::find(m.through.begin(), m.through.end(), point) != m.through.end();
  }));
}

}  // namespace corvex::test
