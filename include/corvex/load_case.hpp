// Corvex: loads, in named cases.
//
// Forces and moments are vectors in the global axes; moments are right-handed. A load on a member acts where
// it is said to act: no point is needed there. Positions are lengths from the member's first point.
//
//     corvex::LoadCase& product = trestle.load_case("product");
//     product.at(c, corvex::Force{.y = -3.2_kN});
//     product.line(rail, corvex::LineForce{.y = -0.8_kN_per_m});
//     product.gravity();
//     fmt::print("{} loads\n", product.loads().size());   // 3 loads
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

// What the calls below record. Global axes, SI units.
struct PointLoad {
  PointId at;
  Vector force, moment;
};
struct MemberLoad {
  MemberId on;
  double at = 0;
  Vector force, moment;
};
struct LineLoad {
  MemberId on;
  double from = 0;
  std::optional<double> to;  // the member's end if not given
  Vector first, last;        // N per metre of member, changing linearly
};
struct GravityLoad {
  Vector acceleration;
};
using Load = std::variant<PointLoad, MemberLoad, LineLoad, GravityLoad>;

class LoadCase {
 public:
  LoadCase(std::string name, Vector up) : name_(std::move(name)), up_(up) {}

  const std::string& name() const { return name_; }
  const std::vector<Load>& loads() const { return loads_; }

  // On a point.
  LoadCase& at(PointId point, const Force& force);
  LoadCase& at(PointId point, const Moment& moment);
  // On a member, at a distance from its first point.
  LoadCase& on(MemberId member, Length at, const Force& force);
  LoadCase& on(MemberId member, Length at, const Moment& moment);
  // Force per length of member: all along it, or from one place to another, changing linearly.
  LoadCase& line(MemberId member, const LineForce& load);
  LoadCase& line(MemberId member, const LineForce& first, const LineForce& last);
  LoadCase& line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to);
  // Own weight of all members: standard gravity downwards, or any acceleration.
  LoadCase& gravity();
  LoadCase& gravity(const Acceleration& acceleration);

 private:
  std::string name_;
  Vector up_;
  std::vector<Load> loads_;
};

}  // namespace corvex
