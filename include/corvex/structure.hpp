// Corvex: what the engineer describes: points, members, materials, supports, loads.
//
// Plane structures have x to the right and y up; nothing can leave the plane, and no support against that is needed.
// Space structures have z up unless y is asked for. A member through several points is one piece, joined to
// the others at every point that it names; members that only cross are not joined.
//
// Building never fails: errors (a name used twice, a wall thicker than its tube, a load outside its
// member) is collected by `validate` and refused by `solve`, each with where it is.
//
//     corvex::Structure beam = corvex::Structure::plane("walkway beam");
//     const auto a = beam.point("A", 0_m, 0_m), b = beam.point("B", 3_m, 0_m);
//     const auto tube = beam.section("tube", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
//     beam.member("beam", {a, b}, {.section = tube, .material = corvex::material("S235")});
//     beam.support(a, corvex::Support::pinned());
//     beam.support(b, corvex::Support::roller());
//     fmt::print("{:.2f} kg\n", beam.mass()->in(corvex::units::kg));   // 21.10 kg
#pragma once

#include <array>
#include <concepts>
#include <deque>
#include <initializer_list>
#include <map>
#include <optional>
#include <stdexcept>
#include <string>
#include <string_view>
#include <unordered_map>
#include <utility>
#include <vector>

#include "corvex/catalogue.hpp"
#include "corvex/load_case.hpp"
#include "corvex/material.hpp"
#include "corvex/model_units.hpp"
#include "corvex/problem.hpp"
#include "corvex/section.hpp"
#include "corvex/vector.hpp"

#pragma GCC visibility push(default)

namespace corvex {

enum class Up { y, z };
enum class MemberKind { beam, link };
// At which ends of the whole member both bending moments are free; torsion and axial force stay.
enum class Hinge { none, start, end, both };
// The degrees of freedom of a point: translations and rotations along and about the global axes.
enum class Dof { x, y, z, rx, ry, rz };
// Components that one end of a member transfers to its point, in the member's local axes.
enum class Component { axial, shear_y, shear_z, torsion, moment_y, moment_z };
// One-way members: ties and ropes, props and struts. In the other direction they are slack.
enum class Acts { always, tension, compression };

// Stiffness of springs along and about the global axes; zero: no spring there.
struct Springs {
  Stiffness x{}, y{}, z{};
  TurningStiffness rx{}, ry{}, rz{};
};

// Support of a point: any degrees of freedom, inclined directions, springs.
//
//     const auto incline = corvex::Support().along({-0.6, 0.8, 0});
//     const auto rail = corvex::Support::hold({corvex::Dof::x}).spring({.y = 500_N_per_mm});
//     fmt::print("{} {}\n", incline.directions().size(), rail.springs()[1]);   // 1 500000
class Support {
 public:
  // Holds nothing, to be added to.
  Support() = default;
  // Everything held.
  static Support fixed();
  // No translation.
  static Support pinned();
  // Holds the up direction only.
  static Support roller();
  static Support hold(std::initializer_list<Dof> dofs);
  static Support hold(const std::vector<Dof>& dofs);
  // In addition: displacement along a direction restrained (its length does not matter), springs.
  [[nodiscard]] Support along(const Vector& direction) const;
  [[nodiscard]] Support spring(const Springs& springs) const;

  bool is_roller() const { return roller_; }
  const std::array<bool, 6>& held() const { return held_; }
  const std::vector<Vector>& directions() const { return along_; }
  const std::array<double, 6>& springs() const { return spring_; }

 private:
  std::array<bool, 6> held_{};
  std::vector<Vector> along_;
  std::array<double, 6> spring_{};
  bool roller_ = false;
};

// Components that each end does not transfer to its point. The member must remain stable: a mechanism is
// reported by `validate`.
struct Release {
  std::vector<Component> start{}, end{};
};
// Rigid arms from the first and the last point to the ends of the member's axis, along the global axes. Points in
// between are joined to it by arms as well, each at the same share of the way.
struct RigidArm {
  Length x{}, y{}, z{};
};
struct Offset {
  RigidArm start{}, end{};
};

// A material, or the name of a built-in one; an unknown name is reported by `validate`.
class MaterialChoice : public Material {
 public:
  MaterialChoice() = default;
  MaterialChoice(Material material) : Material(std::move(material)) {}             // NOLINT: meant to convert
  MaterialChoice(const std::string& built_in);                                     // NOLINT: meant to convert
  MaterialChoice(const char* built_in) : MaterialChoice(std::string(built_in)) {}  // NOLINT: meant to convert

  // Error text if no material has this name, otherwise empty.
  const std::string& fault() const { return fault_; }

 private:
  std::string fault_;
};

struct MemberOptions {
  SectionId section{};
  MaterialChoice material{};
  MemberKind kind = MemberKind::beam;
  Hinge hinge = Hinge::none;
  // Turns the section about the member's axis, right-handed.
  Angle roll{};
  // In addition to the hinges.
  Release release{};
  Offset offset{};
  Acts acts = Acts::always;
};

// As recorded. SI units.
struct Point {
  std::string name;
  Vector position;
};
struct Member {
  std::string name;
  std::vector<PointId> through;
  SectionId section;
  std::size_t material = 0;
  MemberKind kind = MemberKind::beam;
  Hinge hinge = Hinge::none;
  double roll = 0;
  // By component, hinges included.
  std::array<bool, 6> freed_start{}, freed_end{};
  Vector arm_start{}, arm_end{};
  Acts acts = Acts::always;
};
struct NamedSection {
  std::string name;
  Section section;
  // Of the catalogue; empty for a shape of one's own.
  std::string designation{};
  std::string note{};
};
struct PointSupport {
  PointId at;
  std::array<bool, 6> held{};
  std::vector<Vector> along{};     // further restrained directions
  std::array<double, 6> spring{};  // N/m, N·m/rad
  // Whether a reaction can have this component: x y z, then about x y z.
  bool gives(std::size_t component) const;
};
struct PointMass {
  PointId at;
  double mass = 0;   // kg
  Vector arm{};      // from the point to its centre, along the global axes, in m
  Vector inertia{};  // about the global axes through its centre, in kg·m²

  bool turns() const { return !zero(arm) || !zero(inertia); }
};
// Of a mass with an extent: its centre relative to the point that carries it, and its moments of inertia about
// the global axes through its centre. It is rigid and turns with the point.
struct MassBody {
  Length x{}, y{}, z{};
  MassInertia about_x{}, about_y{}, about_z{};
};

// Lateral restraint of a member by purlins, a deck or a wall, in addition to supports and other members. Bracing
// restrains the member's axis against displacement across it, or its section against twist, at some of its points or
// along its whole length. It enters the checks of stability and of vibration, not statics. In a plane structure it acts
// out of the plane.
enum class Against { both, lateral, twist, y, z };
struct Bracing {
  MemberId member;
  std::vector<PointId> at{};  // points of the member; its whole length if empty
  // `lateral` is both directions across the member; y and z are its local axes, in space only.
  Against against = Against::both;
};

// A sum of load cases with factors, which scale heat, lack of fit and settlements too.
struct Combination {
  struct Term {
    std::size_t load_case = 0;
    double factor = 1;
  };
  std::string name;
  std::vector<Term> terms;
};

// Geometry for which equilibrium is formulated: undeformed; displaced under its loads, rotated
// by small angles (second order: the effect of axial forces on bending, P-Δ and P-δ); or with turns of any size. Other
// than at first order each case and combination is solved by itself, and results are never added up.
enum class Order { first, second, large };

// Initial imperfections (EN 1993-1-1, 5.3.2), for second order.
struct Imperfection {
  // Sway by this angle (displacement over height, for example 1/200), and members in compression bent by this share of
  // their length (the height of a parabola, as 1/250).
  double sway = 0, bow = 0;
  // Where to: of length 1, horizontal. Members that lie along it are bowed downwards. Nothing: both directions of each
  // horizontal axis; each case is solved for all of them (Solution::base_of).
  std::optional<Vector> toward{};
};

struct AnalysisOptions {
  // Deformation by shear forces. Most hand calculations leave it out; it matters for short, deep beams.
  bool shear = true;
  // Where loads act that do not say it themselves.
  Through through{};
  Order order = Order::first;
  std::optional<Imperfection> imperfection{};
};

// The corners of a box with edges along the axes.
struct Box {
  Vector low, high;

  // In m.
  double diagonal() const { return length(high - low); }
};

// Names and the numbers of what has them.
struct NameHash : std::hash<std::string_view> {
  using is_transparent = void;
};
using NameIndex = std::unordered_map<std::string, std::size_t, NameHash, std::equal_to<>>;

// Which structure made the ids of one kind. A copy has a mark of its own, and accepts the ids that were made before it
// was copied.
class Marks {
 public:
  Marks();
  Marks(const Marks& other);
  Marks(Marks&&) noexcept = default;
  Marks& operator=(const Marks& other) { return *this = Marks(other); }
  Marks& operator=(Marks&&) noexcept = default;

  // The mark of the next thing.
  std::uint32_t next() { return ++count_, own_; }
  // Ids issued before become invalid.
  void renew(std::size_t count);
  // Of the structure that made the thing of this number.
  std::uint32_t of(std::size_t index) const;
  template <class What>
  bool accept(Id<What> id, std::size_t count) const {
    return id.index < count && (id.structure == 0 || made(id.structure, id.index));
  }
  template <class What>
  std::size_t checked(Id<What> id, std::size_t count) const {
    if (!accept(id, count)) throw std::out_of_range("corvex: this id is of another structure");
    return id.index;
  }

 private:
  struct Origin {
    std::uint32_t mark;
    std::size_t count;  // of things when it was copied
  };
  bool made(std::uint32_t mark, std::size_t index) const;

  std::uint32_t own_;
  std::size_t count_ = 0;
  std::vector<Origin> origins_;  // the first structure of the line first
};

struct LoadCases {
  std::deque<LoadCase> all;
  NameIndex index;
};

// A value at a place of its own, where others can find it as long as it is there. Copied with what holds it.
template <class T>
class Kept {
 public:
  Kept() : value_(std::make_shared<T>()) {}
  Kept(const Kept& other) : value_(std::make_shared<T>(other.get())) {}
  Kept(Kept&&) noexcept = default;
  // In place: who found the value here finds what it has become.
  Kept& operator=(const Kept& other) {
    if (this != &other) get() = other.get();
    return *this;
  }
  Kept& operator=(Kept&&) noexcept = default;

  const T& get() const {
    static const T none;
    return value_ ? *value_ : none;
  }
  T& get() {
    if (!value_) value_ = std::make_shared<T>();
    return *value_;
  }
  std::weak_ptr<T> place() const { return value_; }

 private:
  std::shared_ptr<T> value_;
};

class Structure {
 public:
  static Structure plane(std::string title);
  static Structure space(std::string title, Up up = Up::z);

  PointId point(std::string name, Length x, Length y, Length z = {});
  // At a place found by placement.hpp. Never from bare numbers in braces.
  template <std::same_as<Vector> Position>
  PointId point(std::string name, const Position& position) {
    return point_at(std::move(name), position);
  }
  SectionId section(std::string name, const Section& section);
  // From the catalogue; where the size is not a listed one, `Solution::notes` says so.
  SectionId section(std::string name, const Profile& profile);
  MemberId member(std::string name, std::vector<PointId> through, const MemberOptions& options);
  // Points by their names.
  MemberId member(std::string name, std::initializer_list<const char*> through, const MemberOptions& options);
  MemberId member(std::string name, const std::vector<std::string>& through, const MemberOptions& options);
  void support(PointId point, const Support& support);
  // At these points of a member, or along its whole length.
  void brace(const MemberRef& member, const std::vector<PointId>& at = {}, Against against = Against::both);
  // A mass on a point: a motor, a filled vessel. Gravity acts on it as on the members.
  void point_mass(PointId point, Mass mass, const MassBody& body = {});
  // A new load case, to add loads to. A name that is there already is reported by `validate`.
  LoadsOf load_case(std::string_view name);
  // One that already exists; throws std::out_of_range with the nearest name if there is none.
  LoadsOf loads_of(std::string_view name);
  // Its number in load_cases(); nothing if there is none.
  std::optional<std::size_t> find_load_case(std::string_view name) const;
  // Of load cases that are there already, by their names. Where the structure has combinations, they are what tables,
  // limits and the envelope look at.
  void combination(std::string name, const std::vector<std::pair<std::string, double>>& factors);
  AnalysisOptions& analysis() { return analysis_; }
  // The units in which messages about this structure give lengths, forces and the like. No effect on results.
  void print_units(ModelUnits units) { print_units_ = std::move(units); }
  // Members, or points, that are spoken of by one name.
  void family(std::string name, std::vector<MemberId> members);
  void family(std::string name, std::vector<PointId> points);

  // Changes of what is there already, under the names it has. An unknown name throws std::out_of_range with the nearest
  // known one; what something else still needs is not removed but throws std::invalid_argument.
  //
  //     trestle.replace_section("leg", corvex::SquareTube{.width = 60_mm, .wall = 5_mm});
  //     trestle.replace_material("S235", "6082-T6");
  //     corvex::MemberOptions brace = trestle.options_of("brace");
  //     brace.kind = corvex::MemberKind::link;
  //     trestle.change("brace", brace);
  //     trestle.loads_of("product").clear();
  void replace_section(std::string_view name, const Section& section);
  void replace_section(std::string_view name, const Profile& profile);
  // The section must not be used by a member. Ids of sections issued before become invalid.
  void remove_section(std::string_view name);
  // Of all members that are made of it.
  void replace_material(std::string_view name, const MaterialChoice& material);
  MemberOptions options_of(const MemberRef& member) const;
  void change(const MemberRef& member, const MemberOptions& options);
  // The support of the point; empty if it has none.
  std::optional<Support> support_of(PointId point) const;
  // Instead of what held the point, if anything did.
  void replace_support(PointId point, const Support& support);
  // Whether something held it.
  bool remove_support(PointId point);
  bool remove_point_mass(PointId point);
  // Of no combination.
  void remove_load_case(std::string_view name);
  void remove_combination(std::string_view name);

  const std::string& title() const& { return title_; }
  std::string title() && { return std::move(title_); }
  bool is_plane() const { return plane_; }
  Up up() const { return up_; }
  Vector up_direction() const { return up_ == Up::y ? Vector{0, 1, 0} : Vector{0, 0, 1}; }
  const AnalysisOptions& analysis() const { return analysis_; }
  const ModelUnits& print_units() const { return print_units_; }
  const std::vector<Point>& points() const& { return points_; }
  std::vector<Point> points() && { return std::move(points_); }
  // Around all points; of no size where there are none.
  Box bounds() const;
  const std::vector<Member>& members() const& { return members_; }
  std::vector<Member> members() && { return std::move(members_); }
  const std::vector<NamedSection>& sections() const& { return sections_; }
  std::vector<NamedSection> sections() && { return std::move(sections_); }
  const std::vector<Material>& materials() const& { return materials_; }
  std::vector<Material> materials() && { return std::move(materials_); }
  const std::vector<PointSupport>& supports() const& { return supports_; }
  std::vector<PointSupport> supports() && { return std::move(supports_); }
  const std::vector<PointMass>& point_masses() const& { return masses_; }
  std::vector<PointMass> point_masses() && { return std::move(masses_); }
  const std::vector<Bracing>& bracing() const& { return bracing_; }
  std::vector<Bracing> bracing() && { return std::move(bracing_); }
  const std::deque<LoadCase>& load_cases() const& { return cases_.get().all; }
  std::deque<LoadCase> load_cases() && { return cases_.get().all; }
  const std::vector<Combination>& combinations() const& { return combinations_; }
  std::vector<Combination> combinations() && { return std::move(combinations_); }
  using PointFamilies = std::map<std::string, std::vector<PointId>, std::less<>>;
  using MemberFamilies = std::map<std::string, std::vector<MemberId>, std::less<>>;
  const PointFamilies& point_families() const& { return point_families_; }
  PointFamilies point_families() && { return std::move(point_families_); }
  const MemberFamilies& member_families() const& { return member_families_; }
  MemberFamilies member_families() && { return std::move(member_families_); }

  // Throws std::out_of_range for an id of another structure.
  const Point& operator[](PointId id) const& { return points_[point_ids_.checked(id, points_.size())]; }
  Point operator[](PointId id) && { return static_cast<const Structure&>(*this)[id]; }
  const Member& operator[](MemberId id) const& { return members_[member_ids_.checked(id, members_.size())]; }
  Member operator[](MemberId id) && { return static_cast<const Structure&>(*this)[id]; }
  bool has(PointId id) const { return point_ids_.accept(id, points_.size()); }
  bool has(MemberId id) const { return member_ids_.accept(id, members_.size()); }
  bool has(SectionId id) const { return section_ids_.accept(id, sections_.size()); }
  // Throw std::out_of_range for a member whose section or material is not of this structure.
  const Section& section_of(const Member& m) const {
    return sections_[section_ids_.checked(m.section, sections_.size())].section;
  }
  const Material& material_of(const Member& m) const { return materials_.at(m.material); }

  // By name; nothing if there is none.
  std::optional<PointId> find_point(std::string_view name) const;
  std::optional<MemberId> find_member(std::string_view name) const;
  std::optional<SectionId> find_section(std::string_view name) const;
  // One by its name, or all of a family; none if there is neither.
  std::vector<PointId> find_points(std::string_view name) const;
  std::vector<MemberId> find_members(std::string_view name) const;
  // The member meant; nothing if it is none of this structure's.
  std::optional<MemberId> find(const MemberRef& member) const;
  // The same; throws std::out_of_range where there is none.
  MemberId at(const MemberRef& member) const;

  // The member's axis: from its first point to its last, moved by its arms.
  Vector axis_start(const Member& m) const;
  Vector axis_end(const Member& m) const;
  // Its length and the place of the k-th of its points along it, in metres. A member without points, or with points of
  // another structure, throws std::out_of_range.
  double length_of(const Member& m) const;
  double place_of(const Member& m, std::size_t k) const;
  // Of all members and masses on points; nothing where the material of a member has no density, or where the member has
  // no section or no points of this structure.
  std::optional<Mass> mass() const;

  // Everything that is wrong with the description, without solving. Notes may be among them.
  Problems validate() const;

 private:
  Structure(std::string title, bool plane, Up up);

  PointId point_at(std::string name, const Vector& position);
  void enter(NameIndex& index, const std::string& name, std::size_t at, Subject::Kind kind);
  std::size_t section_named(std::string_view name) const;
  Member made(std::string name, std::vector<PointId> through, const MemberOptions& options);

  Marks point_ids_, member_ids_, section_ids_;
  std::string title_;
  bool plane_;
  Up up_;
  AnalysisOptions analysis_;
  ModelUnits print_units_;
  std::vector<Point> points_;
  std::vector<Member> members_;
  std::vector<NamedSection> sections_;
  std::vector<Material> materials_;
  std::vector<PointSupport> supports_;
  std::vector<PointMass> masses_;
  std::vector<Bracing> bracing_;
  Kept<LoadCases> cases_;
  std::vector<Combination> combinations_;
  PointFamilies point_families_;
  MemberFamilies member_families_;
  NameIndex point_index_, member_index_, section_index_;
  Problems while_building_;
};

// Local axes of a member, unit vectors: x along its axis from the first point to the last; y is the upward direction
// projected normal to x, or for a member within 1° of vertical global +x projected normal to x; z completes a
// right-handed system; roll turns y and z about x.
struct Axes {
  Vector x, y, z;
  // Components of a global vector along these axes, and back.
  Vector local(const Vector& global) const { return {dot(x, global), dot(y, global), dot(z, global)}; }
  Vector global(const Vector& local) const { return x * local.x + y * local.y + z * local.z; }
};
Axes local_axes(const Structure& structure, const Member& member);

// About which axes of its section a member bends: in space about both; in a plane structure about the one that is
// normal to the plane, z, or y where the member is rolled by a quarter turn. A section that is alike in all directions
// may be rolled by any angle and then bends about both.
struct BendingAxes {
  bool y = true, z = true;
};
BendingAxes bending_axes(const Structure& structure, const Member& member);

}  // namespace corvex

#pragma GCC visibility pop
