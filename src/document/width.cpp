#include <algorithm>
#include <iterator>

#include "document/number.hpp"
#include "quantity/utf8.hpp"

namespace corvex::document {
namespace {

struct Range {
  char32_t from, to;
};

// The blocks whose characters are wide or full-width.
constexpr Range wide[] = {{0x1100, 0x115F},   {0x2E80, 0x303E},   {0x3041, 0x33FF},   {0x3400, 0x4DBF},
                          {0x4E00, 0x9FFF},   {0xA000, 0xA4CF},   {0xA960, 0xA97F},   {0xAC00, 0xD7A3},
                          {0xF900, 0xFAFF},   {0xFE30, 0xFE6F},   {0xFF01, 0xFF60},   {0xFFE0, 0xFFE6},
                          {0x1F300, 0x1F64F}, {0x1F680, 0x1F6FF}, {0x1F900, 0x1F9FF}, {0x20000, 0x3FFFD}};
constexpr Range upon[] = {{0x0300, 0x036F}, {0x1AB0, 0x1AFF}, {0x1DC0, 0x1DFF}, {0x200C, 0x200D},
                          {0x20D0, 0x20FF}, {0xFE00, 0xFE0F}, {0xFE20, 0xFE2F}};

template <class Ranges>
bool is_in(const Ranges& ranges, char32_t c) {
  return std::any_of(std::begin(ranges), std::end(ranges), [c](const Range& r) { return c >= r.from && c <= r.to; });
}

}  // namespace

std::size_t width(const std::string& text) {
  std::size_t columns = 0;
  for (std::size_t i = 0; i < text.size();) {
    const Character c = first_character(std::string_view(text).substr(i));
    i += std::max<std::size_t>(c.length, 1);
    if (c.code < 0x300)
      ++columns;
    else
      columns += is_in(wide, c.code) ? 2 : is_in(upon, c.code) ? 0 : 1;
  }
  return columns;
}

}  // namespace corvex::document
