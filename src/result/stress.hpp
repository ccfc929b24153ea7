// Stress along the exact diagrams, over the whole section.
#pragma once

#include "corvex/solution.hpp"
#include "result/inner.hpp"
#include "section/worked.hpp"

namespace corvex::result {

// Stresses of one piece of the diagram at a section, as polynomials of the place along the piece.
struct ActionCourse {
  double from = 0, length = 0;
  bool loaded = false;
  solver::Polynomial n, gy, gz, a, b, t;
  section::Actions at(double x) const { return {n(x), gy(x), gz(x), a(x), b(x), t(x)}; }
};

class StressCourse {
 public:
  StressCourse(const Structure& structure, const Member& member, const Inner& inner);

  // The largest (sign +1) or smallest (−1) normal stress.
  std::optional<StressExtreme> normal(double sign) const;
  std::optional<StressExtreme> von_mises() const;
  // The largest shear stress of the section.
  std::optional<StressExtreme> shear() const;
  // Largest and least normal stress along one fibre.
  std::optional<std::pair<StressExtreme, StressExtreme>> along(double y, double z) const;
  // Of a single cross-section.
  std::optional<Stress> normal_at(double y, double z) const;

 private:
  // sigma = n·N + my·My + mz·Mz, at no place that is known: of links and of sections given by their moduli.
  struct Line {
    double n = 0, my = 0, mz = 0;
    std::optional<Length> y{}, z{};
  };
  void add_moduli(const GivenProperties& given, const BendingAxes& about);
  void add_actions(const SectionProperties& p, bool held);

  std::optional<StressExtreme> line_normal(double sign) const;
  StressExtreme field_normal(double sign) const;
  StressExtreme field_von_mises(const std::vector<ActionCourse>& actions) const;

  const Inner& inner_;
  double area_ = 0;
  const section::Solved* section_ = nullptr;  // of a section with a stress field
  std::vector<ActionCourse> actions_;
  std::vector<Line> lines_;
  bool shear_known_ = true;
};

}  // namespace corvex::result
