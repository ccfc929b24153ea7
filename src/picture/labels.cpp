#include "picture/labels.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace corvex::picture {
namespace {

constexpr double cell = 32;
// So many lines through a cell fill it: more make it no worse.
constexpr std::size_t full = 120;
// So many labels fill a page of 1280 by 800.
constexpr double most_labels = 320;

// How much of a line lies in a box.
double length_within(const Box& b, const Spot& from, const Spot& to) {
  double t0 = 0, t1 = 1;
  const Spot d = to - from;
  for (const auto& [start, step, low, high] :
       {std::tuple(from.x, d.x, b.left, b.right), std::tuple(from.y, d.y, b.top, b.bottom)}) {
    if (step == 0) {
      if (start < low || start > high) return 0;
      continue;
    }
    const double ta = (low - start) / step, tb = (high - start) / step;
    t0 = std::max(t0, std::min(ta, tb));
    t1 = std::min(t1, std::max(ta, tb));
  }
  return t1 > t0 ? (t1 - t0) * length(d) : 0;
}

}  // namespace

template <class Visit>
void Labels::cells(const Box& b, const Visit& visit) {
  const auto at = [](double v) { return static_cast<long>(std::floor(v / cell)); };
  for (long i = at(b.left); i <= at(b.right); ++i)
    for (long j = at(b.top); j <= at(b.bottom); ++j) visit(grid_[i * 100003 + j]);
}

void Labels::avoid_line(const Spot& from, const Spot& to) {
  // Piece by piece, so that a long line is not in every cell of its box.
  const int pieces = std::max(1, static_cast<int>(length(to - from) / cell));
  for (int i = 0; i < pieces; ++i) {
    const Spot a = from + (to - from) * (static_cast<double>(i) / pieces);
    const Spot b = from + (to - from) * (static_cast<double>(i + 1) / pieces);
    cells({std::min(a.x, b.x), std::min(a.y, b.y), std::max(a.x, b.x), std::max(a.y, b.y)}, [&](Cell& c) {
      if (c.lines.size() < full) c.lines.emplace_back(a, b);
    });
  }
}

void Labels::avoid(const Box& box) {
  cells(box, [&](Cell& c) { c.boxes.push_back(box); });
}

bool Labels::taken(const Box& box) {
  bool any = false;
  cells(box, [&](Cell& c) {
    any = any || std::any_of(c.boxes.begin(), c.boxes.end(), [&](const Box& b) { return b.overlaps(box); });
  });
  return any;
}

double Labels::cost(const Box& box) {
  double most = 0;
  cells(box, [&](Cell& c) {
    double on = 0;
    for (const auto& [a, b] : c.lines) on += length_within(box, a, b);
    most = std::max(most, on);
  });
  return most;
}

std::vector<Text> Labels::placed(std::size_t& left_out) {
  std::stable_sort(labels_.begin(), labels_.end(),
                   [](const Label& a, const Label& b) { return a.importance > b.importance; });
  std::vector<Text> all;
  left_out = 0;
  const double room = (page_.right - page_.left) * (page_.bottom - page_.top) / (1280.0 * 800);
  for (const Label& label : labels_) {
    if (static_cast<double>(all.size()) > most_labels * std::max(room, 0.2)) {
      ++left_out;
      continue;
    }
    const double w = lettering_.width(label.text.words, label.text.size, label.text.bold), h = label.text.size;
    std::optional<Box> best;
    double least = 1e30;
    constexpr int directions = 16;
    std::vector<Spot> places{label.of};
    places.insert(places.end(), label.else_of.begin(), label.else_of.end());
    for (std::size_t place = 0; place < places.size(); ++place)
      for (const double further : {0.0, 12.0, 26.0, 44.0})
        for (int i = 0; i < directions; ++i) {
          const double angle = 2 * std::numbers::pi * i / directions;
          const Spot away{std::cos(angle), -std::sin(angle)};
          // The middle of the box, so that its nearest edge is `distance` off.
          const double reach = label.distance + further + std::abs(away.x) * w / 2 + std::abs(away.y) * h / 2;
          const Spot middle = places[place] + away * reach;
          const Box box{middle.x - w / 2, middle.y - h / 2, middle.x + w / 2, middle.y + h / 2};
          if (!page_.holds(box) || taken(box.grown(1.5))) continue;
          const Spot wish = unit(label.towards);
          const double aside = length(label.towards) > 0 ? 1 - (away.x * wish.x + away.y * wish.y) : 0;
          const double straight = i % 4 == 0 ? 0 : i % 2 == 0 ? 1 : 2;
          const double sum =
              2.0 * cost(box.grown(2)) + 14 * aside + 1.2 * further + straight + 3.0 * static_cast<double>(place);
          if (sum < least) least = sum, best = box;
        }
    if (!best) {
      ++left_out;
      continue;
    }
    avoid(*best);
    Text text = label.text;
    text.anchor = Anchor::middle;
    text.at = {(best->left + best->right) / 2, (best->top + best->bottom) / 2};
    all.push_back(std::move(text));
  }
  return all;
}

}  // namespace corvex::picture
