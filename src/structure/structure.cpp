#include "corvex/structure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>

#include "corvex/formula.hpp"
#include "structure/checks.hpp"

namespace corvex {

Support Support::fixed() {
  Support s;
  s.held_.fill(true);
  return s;
}

Support Support::pinned() {
  return hold({Dof::x, Dof::y, Dof::z});
}

Support Support::roller() {
  Support s;
  s.roller_ = true;
  return s;
}

Support Support::hold(std::initializer_list<Dof> dofs) {
  return hold(std::vector<Dof>(dofs));
}

Support Support::hold(const std::vector<Dof>& dofs) {
  Support s;
  for (const Dof f : dofs) s.held_[static_cast<std::size_t>(f)] = true;
  return s;
}

Support Support::along(const Vector& direction) const {
  Support s = *this;
  s.along_.push_back(direction);
  return s;
}

Support Support::spring(const Springs& k) const {
  Support s = *this;
  const double six[] = {k.x.si(), k.y.si(), k.z.si(), k.rx.si(), k.ry.si(), k.rz.si()};
  for (std::size_t i = 0; i < 6; ++i) s.spring_[i] += six[i];
  return s;
}

bool PointSupport::gives(std::size_t k) const {
  if (held[k] || spring[k] != 0) return true;
  return k < 3 && std::any_of(along.begin(), along.end(), [&](const Vector& v) {
           const double parts[] = {v.x, v.y, v.z};
           return parts[k] != 0;
         });
}

namespace {

std::uint32_t next_mark() {
  static std::atomic<std::uint32_t> last = 0;
  std::uint32_t mark = ++last;
  while (mark == 0) mark = ++last;
  return mark;
}

}  // namespace

Marks::Marks() : own_(next_mark()) {}

Marks::Marks(const Marks& other) : own_(next_mark()), count_(other.count_), origins_(other.origins_) {
  // Without anything of its own nobody has an id with its mark.
  if (other.count_ > (origins_.empty() ? 0 : origins_.back().count)) origins_.push_back({other.own_, other.count_});
}

void Marks::renew(std::size_t count) {
  own_ = next_mark();
  count_ = count;
  origins_.clear();
}

std::uint32_t Marks::of(std::size_t index) const {
  for (const Origin& o : origins_)
    if (index < o.count) return o.mark;
  return own_;
}

bool Marks::made(std::uint32_t mark, std::size_t index) const {
  if (mark == own_) return true;
  return std::any_of(origins_.begin(), origins_.end(),
                     [&](const Origin& o) { return o.mark == mark && index < o.count; });
}

Structure::Structure(std::string title, bool plane, Up up) : title_(std::move(title)), plane_(plane), up_(up) {}

Structure Structure::plane(std::string title) {
  return Structure(std::move(title), true, Up::y);
}
Structure Structure::space(std::string title, Up up) {
  return Structure(std::move(title), false, up);
}

void Structure::enter(NameIndex& index, const std::string& name, std::size_t at, Subject::Kind kind) {
  const bool reserved = name == "all" || name == "envelope" || name == "total";
  if (reserved) while_building_.push_back({fmt::format("'{}' is a reserved name", name), {kind, name}});
  if (name.empty()) while_building_.push_back({"a name was expected", {kind, name}});
  if (name.find_first_of("\"',") != std::string::npos)
    while_building_.push_back({fmt::format("the name '{}' contains a quote or a comma", name), {kind, name}});
  if (!index.emplace(name, at).second)
    while_building_.push_back({fmt::format("the name '{}' is used twice", name), {kind, name}});
}

PointId Structure::point(std::string name, Length x, Length y, Length z) {
  return point_at(std::move(name), Vector{x.si(), y.si(), z.si()});
}

PointId Structure::point_at(std::string name, const Vector& position) {
  enter(point_index_, name, points_.size(), Subject::Kind::point);
  points_.push_back({std::move(name), position});
  return PointId(points_.size() - 1, point_ids_.next());
}

SectionId Structure::section(std::string name, const Section& section) {
  enter(section_index_, name, sections_.size(), Subject::Kind::section);
  sections_.push_back({std::move(name), section, {}, {}});
  return SectionId(sections_.size() - 1, section_ids_.next());
}

SectionId Structure::section(std::string name, const Profile& profile) {
  const SectionId id = section(std::move(name), profile.section);
  sections_.back().designation = profile.designation;
  sections_.back().note = profile.note;
  return id;
}

MemberId Structure::member(std::string name, std::vector<PointId> through, const MemberOptions& o) {
  enter(member_index_, name, members_.size(), Subject::Kind::member);
  members_.push_back(made(std::move(name), std::move(through), o));
  return MemberId(members_.size() - 1, member_ids_.next());
}

// As recorded, with its material among those of the structure.
Member Structure::made(std::string name, std::vector<PointId> through, const MemberOptions& o) {
  if (!o.material.fault().empty())
    while_building_.push_back({o.material.fault(), {Subject::Kind::member, name}, "material"});
  // The search goes backwards: neighbours usually share their material.
  std::size_t material = materials_.size();
  while (material > 0 && !(materials_[material - 1] == static_cast<const Material&>(o.material))) --material;
  if (material == 0) {
    materials_.push_back(o.material);
    material = materials_.size();
  }
  const auto freed = [&](Hinge here, const std::vector<Component>& components) {
    std::array<bool, 6> f{};
    if (o.hinge == here || o.hinge == Hinge::both) f[4] = f[5] = true;
    for (const Component c : components) f[static_cast<std::size_t>(c)] = true;
    return f;
  };
  const auto arm = [](const RigidArm& a) { return Vector{a.x.si(), a.y.si(), a.z.si()}; };
  return {std::move(name),
          std::move(through),
          o.section,
          material - 1,
          o.kind,
          o.hinge,
          o.roll.si(),
          freed(Hinge::start, o.release.start),
          freed(Hinge::end, o.release.end),
          arm(o.offset.start),
          arm(o.offset.end),
          o.acts};
}

MemberId Structure::member(std::string name, std::initializer_list<const char*> through, const MemberOptions& o) {
  return member(std::move(name), std::vector<std::string>(through.begin(), through.end()), o);
}

MemberId Structure::member(std::string name, const std::vector<std::string>& through, const MemberOptions& o) {
  std::vector<PointId> points;
  for (const std::string& point : through) {
    if (const auto found = find_point(point)) {
      points.push_back(*found);
      continue;
    }
    std::vector<std::string> names;
    for (const Point& p : points_) names.push_back(p.name);
    while_building_.push_back({fmt::format("there is no point '{}'{}", point, did_you_mean(point, names)),
                               {Subject::Kind::member, name},
                               "through"});
  }
  return member(std::move(name), std::move(points), o);
}

MaterialChoice::MaterialChoice(const std::string& built_in) {
  if (auto found = find_material(built_in)) {
    Material::operator=(std::move(*found));
    return;
  }
  // A substitute, so that the error is reported once.
  Material::operator=(*find_material("S235"));
  name = built_in;
  fault_ = fmt::format("there is no built-in material '{}'{}", built_in, did_you_mean(built_in, material_names()));
}

void Structure::support(PointId point, const Support& support) {
  std::array<bool, 6> held = support.held();
  if (support.is_roller()) held[up_ == Up::y ? 1 : 2] = true;
  supports_.push_back({point, held, support.directions(), support.springs()});
}

void Structure::point_mass(PointId point, Mass mass, const MassBody& b) {
  masses_.push_back(
      {point, mass.si(), {b.x.si(), b.y.si(), b.z.si()}, {b.about_x.si(), b.about_y.si(), b.about_z.si()}});
}

void Structure::brace(const MemberRef& member, const std::vector<PointId>& at, Against against) {
  // An unknown member is reported by `validate`.
  bracing_.push_back({find(member).value_or(MemberId(members_.size())), at, against});
}

LoadsOf Structure::load_case(std::string_view name) {
  LoadCases& cases = cases_.get();
  if (cases.index.emplace(name, cases.all.size()).second)
    cases.all.emplace_back(std::string(name), up_direction());
  else
    while_building_.push_back({fmt::format("the load case '{}' already exists; loads_of adds to it", name),
                               {Subject::Kind::load_case, std::string(name)}});
  return LoadsOf(cases_.place(), std::string(name));
}

std::optional<std::size_t> Structure::find_load_case(std::string_view name) const {
  const NameIndex& index = cases_.get().index;
  const auto it = index.find(name);
  return it == index.end() ? std::nullopt : std::optional(it->second);
}

void Structure::combination(std::string name, const std::vector<std::pair<std::string, double>>& factors) {
  Combination c{std::move(name), {}};
  const Subject subject{Subject::Kind::combination, c.name};
  for (const auto& [load_case, factor] : factors) {
    if (const auto number = find_load_case(load_case))
      c.terms.push_back({*number, factor});
    else
      while_building_.push_back({fmt::format("there is no load case '{}'", load_case), subject, load_case});
  }
  combinations_.push_back(std::move(c));
}

namespace {

template <class Id, class Index>
std::optional<Id> look_up(const Index& index, std::string_view name, const Marks& marks) {
  const auto it = index.find(name);
  if (it == index.end()) return std::nullopt;
  return Id(it->second, marks.of(it->second));
}

}  // namespace

std::optional<PointId> Structure::find_point(std::string_view name) const {
  return look_up<PointId>(point_index_, name, point_ids_);
}
std::optional<MemberId> Structure::find_member(std::string_view name) const {
  return look_up<MemberId>(member_index_, name, member_ids_);
}
std::optional<MemberId> Structure::find(const MemberRef& member) const {
  if (!member.id()) return find_member(member.name());
  return has(*member.id()) ? member.id() : std::nullopt;
}
MemberId Structure::at(const MemberRef& member) const {
  if (const auto found = find(member)) return *found;
  throw std::out_of_range(member.id() ? "corvex: this id is of another structure"
                                      : "corvex: there is no member '" + member.name() + "'");
}
std::optional<SectionId> Structure::find_section(std::string_view name) const {
  return look_up<SectionId>(section_index_, name, section_ids_);
}

}  // namespace corvex
