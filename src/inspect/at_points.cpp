#include "inspect/at_points.hpp"

namespace corvex::inspection {

AtPoints::AtPoints(const Structure& s)
    : first_(s.points().size() + 1), held_(s.points().size()), loaded_(s.points().size()) {
  for (const Member& m : s.members())
    for (const PointId p : m.through) ++first_[p.index + 1];
  for (std::size_t i = 0; i + 1 < first_.size(); ++i) first_[i + 1] += first_[i];
  members_.resize(first_.back());
  std::vector<std::size_t> next(first_.begin(), first_.end() - 1);
  for (std::size_t i = 0; i < s.members().size(); ++i)
    for (const PointId p : s.members()[i].through) members_[next[p.index]++] = i;
  for (const PointSupport& p : s.supports()) held_[p.at.index] = true;
  for (const PointMass& m : s.point_masses()) loaded_[m.at.index] = true;
  for (const LoadCase& c : s.load_cases())
    for (const Load& load : c.loads())
      if (const auto* l = std::get_if<PointLoad>(&load)) loaded_[l->at.index] = true;
}

}  // namespace corvex::inspection
