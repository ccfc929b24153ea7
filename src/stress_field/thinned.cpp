#include "stress_field/thinned.hpp"

#include <algorithm>
#include <cmath>

namespace corvex::section {

void FieldScale::include(const EdgeSample& s) {
  length = std::max(length, std::abs(s.at));
  up = std::max(up, std::abs(s.up));
  right = std::max(right, std::abs(s.right));
  twist = std::max(twist, std::abs(s.twist));
}

namespace {

// How far a sample lies from the chord between two others, as a share of the scale.
double deviation(const EdgeSample& s, const EdgeSample& a, const EdgeSample& b, const FieldScale& scale) {
  const Complex along = b.at - a.at;
  const double whole = std::norm(along);
  const double share = whole > 0 ? std::clamp((std::conj(along) * (s.at - a.at)).real() / whole, 0.0, 1.0) : 0;
  const auto off = [&](double own, double from, double to, double size) {
    return size > 0 ? std::abs(own - from - share * (to - from)) / size : 0;
  };
  double most = scale.length > 0 ? std::abs(s.at - a.at - share * along) / scale.length : 0;
  most = std::max(most, off(s.up, a.up, b.up, scale.up));
  most = std::max(most, off(s.right, a.right, b.right, scale.right));
  return std::max(most, off(s.twist, a.twist, b.twist, scale.twist));
}

}  // namespace

std::vector<EdgeSample> thinned(const std::vector<EdgeSample>& samples, const FieldScale& scale, double tolerance) {
  if (samples.size() < 3) return samples;
  std::vector<EdgeSample> kept{samples.front()};
  std::size_t from = 0;
  for (std::size_t to = 2; to < samples.size(); ++to) {
    bool close = true;
    for (std::size_t i = from + 1; i < to && close; ++i)
      close = deviation(samples[i], samples[from], samples[to], scale) <= tolerance;
    if (close) continue;
    from = to - 1;
    kept.push_back(samples[from]);
  }
  // A parabola needs three.
  if (kept.size() == 1) kept.push_back(samples[samples.size() / 2]);
  kept.push_back(samples.back());
  return kept;
}

}  // namespace corvex::section
