// Stress along the exact diagrams, at the section's own points.
#pragma once

#include "corvex/solution.hpp"
#include "result/inner.hpp"

namespace corvex::result {

class StressCourse {
 public:
  StressCourse(const Structure& structure, const Member& member, const Inner& inner);

  // The largest (sign +1) or smallest (−1) normal stress.
  std::optional<StressExtreme> normal(double sign) const;
  std::optional<StressExtreme> von_mises() const;

 private:
  // sigma = n·N + my·My + mz·Mz; tau = vy·Vy + vz·Vz + t·T.
  struct Line {
    double n = 0, my = 0, mz = 0, vy = 0, vz = 0, t = 0;
    std::optional<Length> y{}, z{};
  };
  void add_points(const StressMap& map, const SectionProperties& p, bool held);
  void add_moduli(const GivenProperties& given, bool plane, bool turned);

  StressExtreme rim_normal(double sign) const;
  StressExtreme rim_von_mises() const;

  const Inner& inner_;
  double area_ = 0, inertia_ = 0;
  const StressMap* rim_ = nullptr;
  std::vector<Line> lines_;
  bool shear_known_ = true;
};

}  // namespace corvex::result
