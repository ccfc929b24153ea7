// Changes of a structure that stands.
#include <fmt/format.h>

#include <algorithm>

#include "corvex/formula.hpp"
#include "structure/checks.hpp"

namespace corvex {
namespace {

[[noreturn]] void no_such(const char* what, std::string_view name, const std::vector<std::string>& known) {
  throw std::out_of_range(fmt::format("corvex: there is no {} '{}'{}", what, name, did_you_mean(name, known)));
}

template <class Things>
std::vector<std::string> names_of(const Things& things) {
  std::vector<std::string> names;
  for (const auto& thing : things) names.push_back(thing.name);
  return names;
}

std::vector<std::string> names_of_cases(const std::deque<LoadCase>& cases) {
  std::vector<std::string> names;
  for (const LoadCase& c : cases) names.push_back(c.name());
  return names;
}

template <class Things, class Is>
bool erase_from(Things& things, const Is& is) {
  const auto it = std::find_if(things.begin(), things.end(), is);
  if (it == things.end()) return false;
  things.erase(it);
  return true;
}

}  // namespace

void Structure::family(std::string name, std::vector<MemberId> members) {
  member_families_[std::move(name)] = std::move(members);
}
void Structure::family(std::string name, std::vector<PointId> points) {
  point_families_[std::move(name)] = std::move(points);
}

std::vector<PointId> Structure::find_points(std::string_view name) const {
  if (const auto one = find_point(name)) return {*one};
  const auto it = point_families_.find(name);
  return it == point_families_.end() ? std::vector<PointId>() : it->second;
}
std::vector<MemberId> Structure::find_members(std::string_view name) const {
  if (const auto one = find_member(name)) return {*one};
  const auto it = member_families_.find(name);
  return it == member_families_.end() ? std::vector<MemberId>() : it->second;
}

std::size_t Structure::section_named(std::string_view name) const {
  if (const auto id = find_section(name)) return id->index;
  no_such("section", name, names_of(sections_));
}

void Structure::replace_section(std::string_view name, const Section& section) {
  NamedSection& s = sections_[section_named(name)];
  s = {s.name, section, {}, {}};
}

void Structure::replace_section(std::string_view name, const Profile& profile) {
  NamedSection& s = sections_[section_named(name)];
  s = {s.name, profile.section, profile.designation, profile.note};
}

void Structure::remove_section(std::string_view name) {
  const std::size_t gone = section_named(name);
  for (const Member& m : members_)
    if (m.section.index == gone)
      throw std::invalid_argument(fmt::format("corvex: section '{}' is that of member '{}'", name, m.name));
  sections_.erase(sections_.begin() + static_cast<std::ptrdiff_t>(gone));
  section_index_.clear();
  for (std::size_t i = 0; i < sections_.size(); ++i) section_index_.emplace(sections_[i].name, i);
  // Ids that were given before would mean other sections now.
  section_ids_.renew(sections_.size());
  for (Member& m : members_) {
    const std::size_t number = m.section.index - (m.section.index > gone ? 1 : 0);
    m.section = SectionId(number, section_ids_.of(number));
  }
}

void Structure::replace_material(std::string_view name, const MaterialChoice& material) {
  bool found = false;
  for (std::size_t i = 0; i < members_.size(); ++i) {
    if (material_of(members_[i]).name != name) continue;
    found = true;
    MemberOptions o = options_of(MemberId(i));
    o.material = material;
    change(MemberId(i), o);
  }
  if (!found) no_such("material", name, names_of(materials_));
}

MemberOptions Structure::options_of(const MemberRef& member) const {
  const Member& m = (*this)[at(member)];
  MemberOptions o{.section = m.section, .material = materials_[m.material], .kind = m.kind, .hinge = m.hinge};
  o.roll = Angle::si(m.roll);
  o.acts = m.acts;
  const auto released = [&](const std::array<bool, 6>& freed, Hinge here) {
    std::vector<Component> components;
    for (std::size_t k = 0; k < 6; ++k) {
      const bool by_hinge = k > 3 && (m.hinge == here || m.hinge == Hinge::both);
      if (freed[k] && !by_hinge) components.push_back(static_cast<Component>(k));
    }
    return components;
  };
  o.release = {released(m.freed_start, Hinge::start), released(m.freed_end, Hinge::end)};
  const auto arm = [](const Vector& v) { return RigidArm{Length::si(v.x), Length::si(v.y), Length::si(v.z)}; };
  o.offset = {arm(m.arm_start), arm(m.arm_end)};
  return o;
}

void Structure::change(const MemberRef& member, const MemberOptions& options) {
  Member& m = members_[at(member).index];
  m = made(m.name, m.through, options);
}

std::optional<Support> Structure::support_of(PointId point) const {
  (void)(*this)[point];
  const auto p = std::find_if(supports_.begin(), supports_.end(), [&](const PointSupport& s) { return s.at == point; });
  if (p == supports_.end()) return std::nullopt;
  std::vector<Dof> held;
  for (std::size_t k = 0; k < 6; ++k)
    if (p->held[k]) held.push_back(static_cast<Dof>(k));
  Support support = Support::hold(held);
  for (const Vector& v : p->along) support = support.along(v);
  const std::array<double, 6>& k = p->spring;
  return support.spring({Stiffness::si(k[0]), Stiffness::si(k[1]), Stiffness::si(k[2]), TurningStiffness::si(k[3]),
                         TurningStiffness::si(k[4]), TurningStiffness::si(k[5])});
}

void Structure::replace_support(PointId point, const Support& s) {
  remove_support(point);
  support(point, s);
}
bool Structure::remove_support(PointId point) {
  (void)(*this)[point];
  return erase_from(supports_, [&](const PointSupport& s) { return s.at == point; });
}
bool Structure::remove_point_mass(PointId point) {
  (void)(*this)[point];
  return erase_from(masses_, [&](const PointMass& m) { return m.at == point; });
}

LoadsOf Structure::loads_of(std::string_view name) {
  if (!find_load_case(name)) no_such("load case", name, names_of_cases(load_cases()));
  return LoadsOf(cases_.place(), std::string(name));
}

void Structure::remove_load_case(std::string_view name) {
  const auto gone = find_load_case(name);
  if (!gone) no_such("load case", name, names_of_cases(load_cases()));
  for (const Combination& c : combinations_)
    for (const Combination::Term& t : c.terms)
      if (t.load_case == *gone)
        throw std::invalid_argument(fmt::format("corvex: load case '{}' is in combination '{}'", name, c.name));
  LoadCases& cases = cases_.get();
  cases.all.erase(cases.all.begin() + static_cast<std::ptrdiff_t>(*gone));
  cases.index.clear();
  for (std::size_t i = 0; i < cases.all.size(); ++i) cases.index.emplace(cases.all[i].name(), i);
  for (Combination& c : combinations_)
    for (Combination::Term& t : c.terms) t.load_case -= t.load_case > *gone ? 1 : 0;
}

void Structure::remove_combination(std::string_view name) {
  if (!erase_from(combinations_, [&](const Combination& c) { return c.name == name; }))
    no_such("combination", name, names_of(combinations_));
}

}  // namespace corvex
