// Pictures side by side on one page.
#include <algorithm>
#include <cmath>

#include "picture/pictures.hpp"

namespace corvex::picture {
namespace {

void shift(std::variant<Path, Text>& shape, const Spot& by) {
  if (auto* text = std::get_if<Text>(&shape)) {
    text->at = text->at + by;
    return;
  }
  auto& path = std::get<Path>(shape);
  for (auto* lines : {&path.lines, &path.rest})
    for (auto& line : *lines)
      for (Spot& s : line) s = s + by;
}

}  // namespace

Grid grid_for(std::size_t count, double width, double height) {
  // As near to the shape of a whole page as can be.
  Grid best;
  double least = 1e300;
  for (std::size_t columns = 1; columns <= count; ++columns) {
    const std::size_t rows = (count + columns - 1) / columns;
    const double w = width / static_cast<double>(columns), h = height / static_cast<double>(rows);
    const double off = std::abs(std::log(w / h / (width / height))) + 0.2 * static_cast<double>(columns * rows - count);
    if (off < least - 1e-9) least = off, best = {columns, rows, w, h};
  }
  return best;
}

Drawing side_by_side(std::vector<Drawing> parts, const Grid& grid, const std::string& title, double width,
                     double height) {
  Drawing page{.width = width, .height = height, .page = parts.front().page, .title = title, .shapes = {}};
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const Spot by{grid.width * static_cast<double>(i % grid.columns),
                  grid.height * static_cast<double>(i / grid.columns)};
    for (auto& shape : parts[i].shapes) {
      shift(shape, by);
      page.shapes.push_back(std::move(shape));
    }
  }
  return page;
}

}  // namespace corvex::picture
