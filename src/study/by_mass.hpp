// Choices of one of several things from each of several lists, in the order of their summed mass.
#pragma once

#include <cstddef>
#include <queue>
#include <set>
#include <vector>

namespace corvex::study {

// One number a list: which of its entries.
using Pick = std::vector<std::size_t>;

class ByMass {
 public:
  // The masses of each list, from light to heavy.
  explicit ByMass(std::vector<std::vector<double>> masses) : masses_(std::move(masses)) {
    push(Pick(masses_.size(), 0));
  }

  // The next one; empty after the last. Of equal masses the one with the lower numbers comes first.
  Pick next() {
    if (queue_.empty()) return {};
    const Pick pick = queue_.top().second;
    queue_.pop();
    seen_.erase(pick);
    for (std::size_t i = 0; i < pick.size(); ++i) {
      Pick heavier = pick;
      if (++heavier[i] < masses_[i].size()) push(std::move(heavier));
    }
    return pick;
  }

  double mass(const Pick& pick) const {
    double sum = 0;
    for (std::size_t i = 0; i < pick.size(); ++i) sum += masses_[i][pick[i]];
    return sum;
  }

 private:
  void push(Pick pick) {
    if (!seen_.insert(pick).second) return;
    const double m = mass(pick);
    queue_.emplace(m, std::move(pick));
  }

  using Entry = std::pair<double, Pick>;
  std::vector<std::vector<double>> masses_;
  std::priority_queue<Entry, std::vector<Entry>, std::greater<Entry>> queue_;
  std::set<Pick> seen_;  // those in the queue
};

}  // namespace corvex::study
