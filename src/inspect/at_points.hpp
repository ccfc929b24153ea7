// Parts at each point: members, a support, loads, masses.
#pragma once

#include <span>
#include <vector>

#include "corvex/structure.hpp"

namespace corvex::inspection {

class AtPoints {
 public:
  explicit AtPoints(const Structure& structure);

  // The members that name the point.
  std::span<const std::size_t> members(std::size_t point) const {
    return std::span(members_).subspan(first_[point], first_[point + 1] - first_[point]);
  }
  bool is_used(std::size_t point) const { return first_[point] < first_[point + 1]; }
  bool is_held(std::size_t point) const { return held_[point]; }
  // By a force, a moment or a mass.
  bool is_loaded(std::size_t point) const { return loaded_[point]; }
  // A member, a support, a load: something that needs the point.
  bool has_something(std::size_t point) const { return is_used(point) || held_[point] || loaded_[point]; }

 private:
  std::vector<std::size_t> first_, members_;
  std::vector<bool> held_, loaded_;
};

}  // namespace corvex::inspection
