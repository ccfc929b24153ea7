// The stress over a whole cross-section for any mixture of the six internal forces, and its worst place.
//
// Normal stress is linear in y and z, shear stress is a sum of three unit fields (docs/theory.md, "Torsion and shear of
// any outline"):
//   σ = n + gy·y + gz·z        τ = −a·∇φy − b·∇φz + t·τT
// The outline is kept as samples so dense that each field differs from the chord between neighbouring samples by less
// than 0.05 % of its largest value. √(σ² + 3τ²) is a convex function of the fields, so between two samples it exceeds
// both by no more than that. Solid parts are kept as Taylor expansions of the fields about places inside.
//
// A field is constant once it is built and may be read from several threads.
#pragma once

#include <array>
#include <cmath>
#include <complex>
#include <cstddef>
#include <functional>
#include <memory>
#include <mutex>
#include <utility>
#include <vector>

#include "outline/outline.hpp"

namespace corvex::section {

// Stresses caused by the internal forces at one cross-section. SI units.
struct Actions {
  double n = 0, gy = 0, gz = 0;  // normal stress: Pa, Pa/m
  double a = 0, b = 0;           // growth of the gradients of bending stress along the member: Pa/m²
  double t = 0;                  // torsion: N·m
};

// All values that differ from the middle by no more than the radius.
struct Around {
  double middle = 0, radius = 0;

  static Around between(double low, double high) { return {(low + high) / 2, (high - low) / 2}; }
  double largest() const { return std::abs(middle) + radius; }
};
inline Around operator+(const Around& a, const Around& b) {
  return {a.middle + b.middle, a.radius + b.radius};
}
inline Around operator-(const Around& a, const Around& b) {
  return {a.middle - b.middle, a.radius + b.radius};
}
inline Around operator*(const Around& a, const Around& b) {
  return {a.middle * b.middle, std::abs(a.middle) * b.radius + a.radius * b.largest()};
}

// The actions along a piece of a member.
struct ActionRanges {
  Around n{}, gy{}, gz{}, a{}, b{}, t{};
};

// A place on the outline. The shear stress runs along the unit tangent; a complex number is z + i·y.
struct EdgeSample {
  Complex at, tangent;
  double up = 0, right = 0, twist = 0;  // ∇φy, ∇φz and the unit torsion along the tangent

  double normal(const Actions& f) const { return f.n + f.gy * at.imag() + f.gz * at.real(); }
  double shear(const Actions& f) const { return f.t * twist - f.a * up - f.b * right; }
};

// A place inside, with the derivatives of the harmonic parts of the three fields there: W′, W″ and W‴ of the analytic
// functions whose real parts they are. They describe the fields as far as `reach` to either side along z and y, all of
// it inside.
struct InnerSample {
  Complex at;
  Complex reach;
  Complex up[3], right[3], twist[3];
};

class StressField {
 public:
  // Samples along one edge, or along several that continue each other smoothly. On an arc places between samples lie on
  // the arc, else on the straight line.
  struct Chain {
    std::size_t first = 0, count = 0;
    bool arc = false;
    Complex centre{};
  };
  struct Place {
    double von_mises = 0, y = 0, z = 0;
    EdgeSample fields{};  // the unit fields there, along the shear stress of these actions
  };

  void add(const std::vector<EdgeSample>& samples, bool arc = false, Complex centre = {});
  void add(const InnerSample& sample) { given_.push_back(sample); }
  // Or the samples inside are worked out when shear forces first ask for them; what the source refers to outlives the
  // field.
  using InnerSource = std::function<std::vector<InnerSample>()>;
  void inside_by(InnerSource source);
  // J scales the torsion of inner samples; call once after all samples were added.
  void finish(double J);

  // Samples that follow each other, with the ranges of their places and fields: a bound of the stress of all of them
  // costs as much as the stress of one.
  struct Run {
    std::size_t first = 0, count = 0;
    Around y{}, z{}, up{}, right{}, twist{};

    // No less than σ² + 3τ² of every sample.
    double most(const Actions& f) const {
      const double sigma =
          std::abs(f.n + f.gy * y.middle + f.gz * z.middle) + std::abs(f.gy) * y.radius + std::abs(f.gz) * z.radius;
      const double tau = std::abs(f.t * twist.middle - f.a * up.middle - f.b * right.middle) +
                         std::abs(f.t) * twist.radius + std::abs(f.a) * up.radius + std::abs(f.b) * right.radius;
      return sigma * sigma + 3 * tau * tau;
    }
    // The same for all these actions.
    double most(const ActionRanges& f) const {
      const double sigma = (f.n + f.gy * y + f.gz * z).largest();
      const double tau = (f.t * twist - f.a * up - f.b * right).largest();
      return sigma * sigma + 3 * tau * tau;
    }
  };
  const std::vector<Run>& runs() const { return runs_; }

  bool empty() const { return edge_.empty(); }
  const std::vector<EdgeSample>& edge() const { return edge_; }

  // The sample of the outline with the largest von Mises stress: a lower bound of it, in a fraction of the time.
  struct Sampled {
    std::size_t sample = 0;
    double von_mises = 0;
  };
  Sampled worst_sample(const Actions& f) const;
  // The largest von Mises stress of the section and its place, beginning from its worst sample.
  Place worst(const Actions& f, const Sampled& sampled) const;
  Place worst(const Actions& f) const { return worst(f, worst_sample(f)); }
  // No more than this is the worst stress of the section.
  double most(const Actions& f, const Sampled& sampled) const;
  // The same for all these actions.
  double most(const ActionRanges& f) const;
  // No more than this is the stress anywhere in the section, whatever the signs of the actions.
  double bound(const Actions& sizes) const;
  // The worst place near one sample of the outline.
  Place near_edge(std::size_t sample, const Actions& f) const;
  // Shear stress (z + i·y) at a place near an inner sample.
  Complex shear_at(const InnerSample& sample, Complex off, const Actions& f) const;

 private:
  struct Unit {
    Complex up, right, twist;
  };
  Unit unit(const InnerSample& sample, Complex off) const;
  struct Sizes {
    double up = 0, right = 0, twist = 0;
  };
  EdgeSample along_shear(const InnerSample& sample, Complex off, const Actions& f) const;
  double with_inside(double outline, double a, double b, bool twisted) const;
  // The samples inside, with the fields at the place of each and the largest size of each within its reach; several
  // together, one array a figure, for speed. A short block repeats the last sample.
  static constexpr std::size_t samples_together = 8;
  struct InnerBlock {
    using Figures = std::array<double, samples_together>;
    Figures y, z, up_y, up_z, right_y, right_z, twist_y, twist_z;
    Figures y_reach, z_reach, most_up, most_right, most_twist;

    // σ² + 3τ² at the place of each sample, and what it stays below within the reach of each.
    Figures here(const Actions& f) const;
    Figures most(const Actions& f) const;
  };
  struct Inside {
    std::vector<InnerSample> samples;
    std::vector<InnerBlock> blocks;
  };
  const Inside& inside() const;
  bool inner_matters(const Actions& f, double best_square) const;
  Sizes largest_within_reach(const InnerSample& sample) const;
  void climb(const InnerSample& sample, const Actions& f, Place& best) const;

  std::vector<EdgeSample> edge_;
  std::vector<InnerSample> given_;
  struct WorkedInside {
    std::once_flag once;
    InnerSource source;
    Inside inside;
  };
  std::shared_ptr<WorkedInside> inside_;  // null where nothing is inside
  std::vector<Chain> chains_;
  std::vector<std::size_t> chain_of_;  // of each edge sample
  std::vector<Run> runs_;
  // The samples of each run once more, one array a figure, for speed. A short run repeats its last sample.
  static constexpr std::size_t most_in_run = 12;
  using Figure = std::array<double, most_in_run>;
  struct Block {
    Figure y, z, up, right, twist;
  };
  std::vector<Block> blocks_;
  // The ranges of several runs together, in the same way: middles, and radii.
  static constexpr std::size_t runs_together = 8;
  struct RangeBlock {
    using Figures = std::array<double, runs_together>;
    Figures y, z, up, right, twist, y_radius, z_radius, up_radius, right_radius, twist_radius;

    // No less than σ² + 3τ² of every sample of each run: Run::most.
    Figures most(const Actions& f) const;
  };
  std::vector<RangeBlock> ranges_;
  double J_ = 0, largest_up_ = 0, largest_right_ = 0, largest_twist_ = 0;
  double furthest_y_ = 0, furthest_z_ = 0;
};

}  // namespace corvex::section
