#include "corvex/structure.hpp"

#include <fmt/format.h>

namespace corvex {

Support Support::fixed() {
  Support s;
  s.held_.fill(true);
  return s;
}

Support Support::pinned() {
  return hold({Freedom::x, Freedom::y, Freedom::z});
}

Support Support::roller() {
  Support s;
  s.roller_ = true;
  return s;
}

Support Support::hold(std::initializer_list<Freedom> freedoms) {
  return hold(std::vector<Freedom>(freedoms));
}

Support Support::hold(const std::vector<Freedom>& freedoms) {
  Support s;
  for (const Freedom f : freedoms) s.held_[static_cast<std::size_t>(f)] = true;
  return s;
}

Structure Structure::plane(std::string title) {
  return Structure(std::move(title), true, Up::y);
}
Structure Structure::space(std::string title, Up up) {
  return Structure(std::move(title), false, up);
}

void Structure::enter(Index& index, const std::string& name, std::size_t at, Subject::Kind kind) {
  const bool reserved = name == "all" || name == "envelope" || name == "total";
  if (reserved) while_building_.push_back({fmt::format("'{}' is a reserved name", name), {kind, name}});
  if (name.empty()) while_building_.push_back({"a name was expected", {kind, name}});
  if (name.find_first_of("\"',") != std::string::npos)
    while_building_.push_back({fmt::format("the name '{}' contains a quote or a comma", name), {kind, name}});
  if (!index.emplace(name, at).second)
    while_building_.push_back({fmt::format("the name '{}' is used twice", name), {kind, name}});
}

PointId Structure::point(std::string name, Length x, Length y, Length z) {
  enter(point_index_, name, points_.size(), Subject::Kind::point);
  points_.push_back({std::move(name), {x.si(), y.si(), z.si()}});
  return {points_.size() - 1};
}

SectionId Structure::section(std::string name, const Section& section) {
  enter(section_index_, name, sections_.size(), Subject::Kind::section);
  sections_.push_back({std::move(name), section, {}, {}});
  return {sections_.size() - 1};
}

SectionId Structure::section(std::string name, const Profile& profile) {
  const SectionId id = section(std::move(name), profile.section);
  sections_.back().designation = profile.designation;
  sections_.back().note = profile.note;
  return id;
}

MemberId Structure::member(std::string name, std::vector<PointId> through, const MemberOptions& o) {
  enter(member_index_, name, members_.size(), Subject::Kind::member);
  // The search goes backwards: neighbours usually share their material.
  std::size_t material = materials_.size();
  while (material > 0 && !(materials_[material - 1] == o.material)) --material;
  if (material == 0) {
    materials_.push_back(o.material);
    material = materials_.size();
  }
  members_.push_back({std::move(name), std::move(through), o.section, material - 1, o.kind, o.hinge, o.roll.si()});
  return {members_.size() - 1};
}

void Structure::support(PointId point, const Support& support) {
  std::array<bool, 6> held = support.held();
  if (support.is_roller()) held[up_ == Up::y ? 1 : 2] = true;
  supports_.push_back({point, held});
}

LoadCase& Structure::load_case(std::string_view name) {
  for (LoadCase& c : cases_)
    if (c.name() == name) return c;
  return cases_.emplace_back(std::string(name), up_direction());
}

namespace {

template <class Id, class Index>
std::optional<Id> look_up(const Index& index, std::string_view name) {
  const auto it = index.find(name);
  if (it == index.end()) return std::nullopt;
  return Id{it->second};
}

}  // namespace

std::optional<PointId> Structure::find_point(std::string_view name) const {
  return look_up<PointId>(point_index_, name);
}
std::optional<MemberId> Structure::find_member(std::string_view name) const {
  return look_up<MemberId>(member_index_, name);
}
std::optional<SectionId> Structure::find_section(std::string_view name) const {
  return look_up<SectionId>(section_index_, name);
}

}  // namespace corvex
