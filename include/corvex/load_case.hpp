// Corvex: loads, in named cases.
//
// Forces and moments are vectors in the global axes; moments are right-handed. A load on a member acts where
// it is said to act: no point is needed there. Positions are lengths from the member's first point.
//
//     corvex::LoadCase& product = trestle.load_case("product");
//     product.at(c, corvex::Force{.y = -3.2_kN});
//     product.line(rail, corvex::LineForce{.y = -0.8_kN_per_m});
//     product.heat(rail, 30_K);
//     product.gravity();
//     fmt::print("{} loads\n", product.loads().size());   // 4 loads
//
// Loads are kept as given; what they bring is exact for piecewise linear and single loads anywhere (docs/theory.md).
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "corvex/quantity.hpp"
#include "corvex/vector.hpp"

namespace corvex {

struct PointId {
  std::size_t index = 0;
  bool operator==(const PointId&) const = default;
};
struct MemberId {
  std::size_t index = 0;
  bool operator==(const MemberId&) const = default;
};
struct SectionId {
  std::size_t index = 0;
  bool operator==(const SectionId&) const = default;
};

struct Force {
  ForceSize x{}, y{}, z{};
};
struct Moment {
  MomentSize x{}, y{}, z{};
};
struct LineForce {
  LineForceSize x{}, y{}, z{};
};
struct Acceleration {
  AccelerationSize x{}, y{}, z{};
};
// Movement of a support: along and about the global axes.
struct Settlement {
  Length x{}, y{}, z{};
  Angle rx{}, ry{}, rz{};
};

// In which axes a load on a member is given.
enum class LoadAxes { global, member };
// What a line load is counted per: length of member, or length of its ground plan (snow on a rafter).
enum class Per { length, plan };
struct LineOptions {
  std::optional<Length> from{}, to{};  // the member's ends if not given
  LoadAxes axes = LoadAxes::global;
  Per per = Per::length;
};

// The place of a member's section through which a load acts. Forces across the member through its shear centre only
// bend it, as textbooks assume; through any other place they twist it too, by their lever about the shear centre.
// Forces along the member act at its centroid, or where a place is given there, with their lever about the centroid. In
// a plane structure the section is held against twisting.
struct Through {
  enum class Place { shear_centre, centroid, at };
  Place place = Place::shear_centre;
  Length y{}, z{};  // of Place::at: from the centroid, in the member's own axes

  static Through shear_centre() { return {}; }
  static Through centroid() { return {Place::centroid, {}, {}}; }
  static Through at(Length y, Length z) { return {Place::at, y, z}; }
};

// What the calls below record. SI units; global axes, or the member's own.
// `through`: as the analysis says where it is not given.
struct PointLoad {
  PointId at;
  Vector force, moment;
  std::optional<Through> through{};  // of the section of the one beam that goes through the point
};
struct MemberLoad {
  MemberId on;
  double at = 0;
  Vector force, moment;
  LoadAxes axes = LoadAxes::global;
  std::optional<Through> through{};
};
struct LineLoad {
  MemberId on;
  double from = 0;
  std::optional<double> to;  // the member's end if not given
  Vector first, last;        // N/m, changing linearly
  LoadAxes axes = LoadAxes::global;
  Per per = Per::length;
  std::optional<Through> through{};
};
struct SpreadLoad {
  std::vector<MemberId> on;
  Vector force;
  LoadAxes axes = LoadAxes::global;
  std::optional<Through> through{};
};
struct HeatLoad {
  enum class Across { nothing, y, z };
  MemberId on;
  Across across = Across::nothing;
  double plus = 0, minus = 0;  // K, on the sides of +y and −y, or +z and −z; `plus` everywhere if across nothing
};
struct ShortenLoad {
  MemberId on;
  double by = 0;
};
struct SettleLoad {
  PointId at;
  Vector move, turn;
};
struct GravityLoad {
  Vector acceleration;
  std::optional<Through> through{};
};
using Load = std::variant<PointLoad, MemberLoad, LineLoad, SpreadLoad, HeatLoad, ShortenLoad, SettleLoad, GravityLoad>;

class LoadCase {
 public:
  LoadCase(std::string name, Vector up) : name_(std::move(name)), up_(up) {}

  const std::string& name() const { return name_; }
  const std::vector<Load>& loads() const { return loads_; }

  // On a point.
  LoadCase& at(PointId point, const Force& force);
  LoadCase& at(PointId point, const Moment& moment);
  // On a member, at a distance from its first point.
  LoadCase& on(MemberId member, Length at, const Force& force, LoadAxes axes = LoadAxes::global);
  LoadCase& on(MemberId member, Length at, const Moment& moment, LoadAxes axes = LoadAxes::global);
  // Force per length of member: all along it, or from one place to another, changing linearly.
  LoadCase& line(MemberId member, const LineForce& load);
  LoadCase& line(MemberId member, const LineForce& first, const LineForce& last);
  LoadCase& line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to);
  LoadCase& line(MemberId member, const LineForce& first, const LineForce& last, const LineOptions& options);
  // One total force, spread evenly over the summed length of these members.
  LoadCase& spread(std::vector<MemberId> members, const Force& force, LoadAxes axes = LoadAxes::global);
  // Change of temperature: the same everywhere in the member, or changing linearly from the side of −y (−z) to that of
  // +y (+z) across the height (width) of its section.
  LoadCase& heat(MemberId member, Temperature change);
  LoadCase& heat_across_y(MemberId member, Temperature plus, Temperature minus);
  LoadCase& heat_across_z(MemberId member, Temperature plus, Temperature minus);
  // A member made too short: lack of fit, pretension. Negative: too long.
  LoadCase& shorten(MemberId member, Length by);
  // A support that moves, in directions that it holds or where it has a spring.
  LoadCase& settle(PointId point, const Settlement& settlement);
  // Own weight of all members and of masses on points: standard gravity downwards, or any acceleration.
  LoadCase& gravity();
  LoadCase& gravity(const Acceleration& acceleration);
  // The place of the section through which the load just added acts. No effect on heat, lack of fit and settlements.
  //
  //     product.on(rail, 800_mm, corvex::Force{.z = -2_kN}).through(corvex::Through::centroid());
  LoadCase& through(const Through& place);
  // As recorded by one of the calls above.
  LoadCase& add(Load load);

 private:
  std::string name_;
  Vector up_;
  std::vector<Load> loads_;
};

}  // namespace corvex
