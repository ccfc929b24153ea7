// Corvex: loads, in named cases.
//
// Forces and moments are vectors in the global axes; moments are right-handed. A load on a member acts where
// it is said to act: no point is needed there. Positions are lengths from the member's first point.
//
//     corvex::LoadsOf product = trestle.load_case("product");
//     product.at(c, corvex::Force{.y = -3.2_kN});
//     product.line(rail, corvex::LineForce{.y = -0.8_kN_per_m});
//     product.heat(rail, 30_K);
//     product.gravity();
//     fmt::print("{} loads\n", product.loads().size());   // 4 loads
//
// Loads are kept as given; what they bring is exact for piecewise linear and single loads anywhere (docs/theory.md).
#pragma once

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "corvex/quantity.hpp"
#include "corvex/vector.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// The number of a point, member or section of a structure, which makes it. An id that another structure made is
// reported by `validate`, and refused by results with std::out_of_range. `PointId(i)` is the i-th point of any
// structure. What a structure has when it is copied keeps its ids in the copy; what is added later to one of them has
// no id in the other.
template <class What>
struct Id {
  std::size_t index = 0;
  std::uint32_t structure = 0;  // the mark of the structure that made it; 0: any

  constexpr Id() = default;
  // A letter is not a number: pointers to the end of a text would be accepted as ids.
  template <std::integral Number>
  requires(!std::same_as<Number, char> && !std::same_as<Number, bool>) explicit constexpr Id(Number number,
                                                                                             std::uint32_t of = 0)
      : index(static_cast<std::size_t>(number)), structure(of) {}
  // Ids of different structures differ; one of any structure equals what has its number.
  constexpr bool operator==(const Id& o) const {
    return index == o.index && (structure == o.structure || structure == 0 || o.structure == 0);
  }
};
using PointId = Id<struct PointKind>;
using MemberId = Id<struct MemberKindOfId>;
using SectionId = Id<struct SectionKind>;

// A member by its id or by its name.
class MemberRef {
 public:
  MemberRef(MemberId id) : id_(id) {}                      // NOLINT: meant to convert
  MemberRef(const char* name) : name_(name) {}             // NOLINT: meant to convert
  MemberRef(std::string name) : name_(std::move(name)) {}  // NOLINT: meant to convert
  MemberRef(std::string_view name) : name_(name) {}        // NOLINT: meant to convert
  MemberRef(std::nullptr_t) = delete;

  const std::optional<MemberId>& id() const { return id_; }
  const std::string& name() const { return name_; }

 private:
  std::optional<MemberId> id_;
  std::string name_;
};

// Sums, differences and multiples of these are taken by component.
struct Force {
  ForceSize x{}, y{}, z{};
  bool operator==(const Force&) const = default;
};
struct Moment {
  MomentSize x{}, y{}, z{};
  bool operator==(const Moment&) const = default;
};
struct LineForce {
  LineForceSize x{}, y{}, z{};
  bool operator==(const LineForce&) const = default;
};
struct Acceleration {
  AccelerationSize x{}, y{}, z{};
  bool operator==(const Acceleration&) const = default;
};
template <class T>
concept ThreeComponents =
    std::same_as<T, Force> || std::same_as<T, Moment> || std::same_as<T, LineForce> || std::same_as<T, Acceleration>;
template <ThreeComponents T>
constexpr T operator+(const T& a, const T& b) {
  return {a.x + b.x, a.y + b.y, a.z + b.z};
}
template <ThreeComponents T>
constexpr T operator-(const T& a, const T& b) {
  return {a.x - b.x, a.y - b.y, a.z - b.z};
}
template <ThreeComponents T>
constexpr T operator-(const T& a) {
  return {-a.x, -a.y, -a.z};
}
template <ThreeComponents T>
constexpr T operator*(const T& a, double factor) {
  return {a.x * factor, a.y * factor, a.z * factor};
}
template <ThreeComponents T>
constexpr T operator*(double factor, const T& a) {
  return a * factor;
}
template <ThreeComponents T>
constexpr T operator/(const T& a, double divisor) {
  return {a.x / divisor, a.y / divisor, a.z / divisor};
}
// Movement of a support: along and about the global axes.
struct Settlement {
  Length x{}, y{}, z{};
  Angle rx{}, ry{}, rz{};
};

// In which axes a load on a member is given.
enum class LoadAxes { global, member };
// Reference length of a line load: length of the member, or its horizontal projection (snow on a rafter).
enum class Per { length, plan };
struct LineOptions {
  std::optional<Length> from{}, to{};  // the member's ends if not given
  LoadAxes axes = LoadAxes::global;
  Per per = Per::length;
};

// The place of a member's section through which a load acts. Forces across the member through its shear centre only
// bend it, as textbooks assume; through any other place they twist it too, by their lever about the shear centre.
// Forces along the member act at its centroid, or where a place is given there, with their lever about the centroid. In
// a plane structure the section is restrained against twisting.
struct Through {
  enum class Place { shear_centre, centroid, at };
  Place place = Place::shear_centre;
  Length y{}, z{};  // of Place::at: from the centroid, in the member's local axes

  static Through shear_centre() { return {}; }
  static Through centroid() { return {Place::centroid, {}, {}}; }
  static Through at(Length y, Length z) { return {Place::at, y, z}; }
  bool operator==(const Through&) const = default;
};

// Records of the calls below. SI units; global axes, or local axes of the member.
// `through`: as the analysis says where it is not given.
struct PointLoad {
  PointId at;
  Vector force, moment;
  std::optional<Through> through{};  // of the section of the one beam that goes through the point

  bool operator==(const PointLoad&) const = default;
};
struct MemberLoad {
  MemberId on;
  double at = 0;
  Vector force, moment;
  LoadAxes axes = LoadAxes::global;
  std::optional<Through> through{};

  bool operator==(const MemberLoad&) const = default;
};
struct LineLoad {
  MemberId on;
  double from = 0;
  std::optional<double> to;  // the member's end if not given
  Vector first, last;        // N/m, changing linearly
  LoadAxes axes = LoadAxes::global;
  Per per = Per::length;
  std::optional<Through> through{};

  bool operator==(const LineLoad&) const = default;
};
struct SpreadLoad {
  std::vector<MemberId> on;
  Vector force;
  LoadAxes axes = LoadAxes::global;
  std::optional<Through> through{};

  bool operator==(const SpreadLoad&) const = default;
};
struct TemperatureLoad {
  enum class Across { nothing, y, z };
  MemberId on;
  Across across = Across::nothing;
  double plus = 0, minus = 0;  // K, on the sides of +y and −y, or +z and −z; `plus` everywhere if across nothing

  bool operator==(const TemperatureLoad&) const = default;
};
struct LackOfFitLoad {
  MemberId on;
  double by = 0;

  bool operator==(const LackOfFitLoad&) const = default;
};
struct SettlementLoad {
  PointId at;
  Vector move, turn;

  bool operator==(const SettlementLoad&) const = default;
};
struct GravityLoad {
  Vector acceleration;
  std::optional<Through> through{};

  bool operator==(const GravityLoad&) const = default;
};
using Load = std::variant<PointLoad, MemberLoad, LineLoad, SpreadLoad, TemperatureLoad, LackOfFitLoad, SettlementLoad,
                          GravityLoad>;

// The kinds of loads, in the terms of the field.
enum class LoadKind {
  force,               // a force, or a force with a moment, at a point or at a place of a member
  moment,              // a moment alone
  line_load,           // force per length of a member
  spread_force,        // one force, spread evenly over members
  temperature_change,  //
  lack_of_fit,         // a lack of fit or too long
  settlement,          // of a support
  self_weight,         // standard gravity, downwards
  acceleration         // any other acceleration of all masses
};

class LoadCase;

// The calls that add loads, each of which returns the case. `Self` is a LoadCase, or a LoadsOf, which adds to one.
template <class Self>
class LoadCalls {
 public:
  // On a point.
  Self& at(PointId point, const Force& force);
  Self& at(PointId point, const Moment& moment);
  // On a member, at a distance from its first point.
  Self& on(MemberId member, Length at, const Force& force, LoadAxes axes = LoadAxes::global);
  Self& on(MemberId member, Length at, const Moment& moment, LoadAxes axes = LoadAxes::global);
  // Force per length of member: all along it, or from one place to another, changing linearly.
  Self& line(MemberId member, const LineForce& load);
  Self& line(MemberId member, const LineForce& first, const LineForce& last);
  Self& line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to);
  Self& line(MemberId member, const LineForce& first, const LineForce& last, const LineOptions& options);
  // One total force, spread evenly over the summed length of these members.
  Self& spread(std::vector<MemberId> members, const Force& force, LoadAxes axes = LoadAxes::global);
  // Change of temperature: the same everywhere in the member, or changing linearly from the side of −y (−z) to that of
  // +y (+z) across the height (width) of its section.
  Self& heat(MemberId member, Temperature change);
  Self& temperature_gradient_y(MemberId member, Temperature plus, Temperature minus);
  Self& temperature_gradient_z(MemberId member, Temperature plus, Temperature minus);
  // A member made too short: lack of fit, pretension. Negative: too long.
  Self& shorten(MemberId member, Length by);
  // A support that moves, in directions that it holds or where it has a spring.
  Self& settle(PointId point, const Settlement& settlement);
  // Self-weight of all members and of masses on points: standard gravity downwards, or any acceleration.
  Self& gravity();
  Self& gravity(const Acceleration& acceleration);
  // The place of the section through which the load just added acts. No effect on heat, lack of fit and settlements.
  //
  //     product.on(rail, 800_mm, corvex::Force{.z = -2_kN}).through(corvex::Through::centroid());
  Self& through(const Through& place);
  // As recorded by one of the calls above.
  Self& add(Load load);
  // Changes of what is there, by its number in loads(); throws std::out_of_range beyond the last.
  Self& replace(std::size_t number, Load load);
  Self& remove(std::size_t number);
  Self& clear();

 private:
  Self& self() { return static_cast<Self&>(*this); }
  LoadCase& target_case();
};

// A load case by itself. `up` is needed for gravity.
class LoadCase : public LoadCalls<LoadCase> {
 public:
  LoadCase(std::string name, Vector up) : name_(std::move(name)), up_(up) {}

  const std::string& name() const { return name_; }
  const std::vector<Load>& loads() const { return loads_; }

 private:
  template <class Self>
  friend class LoadCalls;
  std::string name_;
  Vector up_;
  std::vector<Load> loads_;
};

struct LoadCases;

// Adds loads to a case of a structure (Structure::load_case, loads_of). It follows a structure that is
// moved, and finds its case by name in one that is assigned to. If the structure no longer exists, every call
// throws std::logic_error; where it has no such case, std::out_of_range.
class LoadsOf : public LoadCalls<LoadsOf> {
 public:
  [[gnu::visibility("hidden")]] LoadsOf(std::weak_ptr<LoadCases> cases, std::string name)
      : cases_(std::move(cases)), name_(std::move(name)) {}

  const std::string& name() const { return name_; }
  // Those that are there already.
  const std::vector<Load>& loads() const;

 private:
  friend class LoadCalls<LoadsOf>;
  LoadCase& load_case() const;

  std::weak_ptr<LoadCases> cases_;
  std::string name_;
};

}  // namespace corvex

#pragma GCC visibility pop
