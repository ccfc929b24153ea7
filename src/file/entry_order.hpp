// Order of entries that depend on each other: each after those that it needs.
#pragma once

#include <cstddef>
#include <utility>
#include <vector>

namespace corvex::file {

// Calls `visit(i)` for each of `count` entries, after those that `needs(i)` lists, and `circle(i)` where an entry needs
// itself through others. Keeps its place in memory of its own, so that chains of any length do not fill the stack.
template <class Needs, class Visit, class Circle>
void visit_in_order(std::size_t count, const Needs& needs, const Visit& visit, const Circle& circle) {
  enum class State : unsigned char { unseen, open, done };
  struct Open {
    std::size_t entry;
    std::vector<std::size_t> needed;
    std::size_t next;
  };
  std::vector<State> states(count, State::unseen);
  std::vector<Open> open;
  const auto begin = [&](std::size_t i) {
    states[i] = State::open;
    open.push_back({i, needs(i), 0});
  };
  for (std::size_t first = 0; first < count; ++first) {
    if (states[first] == State::unseen) begin(first);
    while (!open.empty()) {
      Open& top = open.back();
      if (top.next == top.needed.size()) {
        const std::size_t entry = top.entry;
        open.pop_back();
        visit(entry);
        states[entry] = State::done;
        continue;
      }
      const std::size_t needed = top.needed[top.next++];
      if (states[needed] == State::unseen)
        begin(needed);
      else if (states[needed] == State::open)
        circle(needed);
    }
  }
}

}  // namespace corvex::file
