// Placement of labels: not on each other, not on lines if there is space next to them; the least
// important goes where there is none.
#pragma once

#include <unordered_map>

#include "picture/drawing.hpp"
#include "picture/lettering.hpp"

namespace corvex::picture {

struct Label {
  Text text{};                  // `at` and `anchor` are found
  Spot of{};                    // the labelled point
  std::vector<Spot> else_of{};  // other places that would do
  Spot towards{};               // the preferred side; none if zero
  double distance = 6;          // from there, beyond any symbol
  int importance = 0;           // larger ones first
};

class Labels {
 public:
  Labels(const Lettering& lettering, const Box& page) : lettering_(lettering), page_(page) {}

  void add(Label label) { labels_.push_back(std::move(label)); }
  // Lines and areas to stay clear of.
  void avoid_line(const Spot& from, const Spot& to);
  void avoid(const Box& box);

  // The labels that were placed; `left_out` is the number of the others.
  std::vector<Text> placed(std::size_t& left_out);

 private:
  struct Cell {
    std::vector<Box> boxes;
    std::vector<std::pair<Spot, Spot>> lines;
  };
  template <class Visit>
  void cells(const Box& box, const Visit& visit);
  double cost(const Box& box);
  bool taken(const Box& box);

  const Lettering& lettering_;
  Box page_;
  std::vector<Label> labels_;
  std::unordered_map<long, Cell> grid_;
};

}  // namespace corvex::picture
