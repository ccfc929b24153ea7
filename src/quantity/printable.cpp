#include "corvex/printable.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <iterator>

#include "quantity/utf8.hpp"

namespace corvex {
namespace {

// Characters without a look of their own, fillers, and marks that only programs read. Those that join letters of some
// scripts (U+200C, U+200D) and choose their look (U+FE00 and on) are parts of words.
bool is_invisible(char32_t c) {
  struct Range {
    char32_t from, to;
  };
  static constexpr Range all[] = {{0x00AD, 0x00AD},   {0x034F, 0x034F},  {0x115F, 0x1160}, {0x17B4, 0x17B5},
                                  {0x180B, 0x180F},   {0x200B, 0x200B},  {0x2060, 0x2064}, {0x206A, 0x206F},
                                  {0x3164, 0x3164},   {0xFEFF, 0xFEFF},  {0xFFA0, 0xFFA0}, {0xFFF0, 0xFFFB},
                                  {0x1D173, 0x1D17A}, {0xE0000, 0xE0FFF}};
  return std::any_of(std::begin(all), std::end(all), [c](const Range& r) { return c >= r.from && c <= r.to; });
}

const char* kind_of(char32_t c, bool one_line) {
  if (c == '\n' || c == '\r') return one_line ? "a line break" : "";
  if (c == '\t') return one_line ? "a tab" : "";
  if (c < 0x20 || (c >= 0x7F && c < 0xA0)) return "the control character";
  if (c == 0x2028 || c == 0x2029) return one_line ? "a line break" : "";
  if (c == 0x200E || c == 0x200F || c == 0x061C || (c >= 0x202A && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069))
    return "the mark of writing direction";
  if (is_invisible(c)) return "the invisible character";
  if ((c & 0xFFFE) == 0xFFFE || (c >= 0xFDD0 && c <= 0xFDEF)) return "the code of no character";
  return "";
}

}  // namespace

std::string why_not_printable(std::string_view text, bool one_line) {
  for (std::size_t i = 0; i < text.size();) {
    const Character c = first_character(text.substr(i));
    if (c.length == 0) return "it is not UTF-8 text";
    if (const std::string kind = kind_of(c.code, one_line); !kind.empty())
      return kind.starts_with("the") ? fmt::format("it has {} U+{:04X}", kind, static_cast<unsigned>(c.code))
                                     : "it has " + kind;
    i += c.length;
  }
  return {};
}

std::string made_printable(std::string_view text) {
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const Character c = first_character(text.substr(i));
    if (c.length == 0)
      out += fmt::format("<byte {:02X}>", static_cast<unsigned char>(text[i]));
    else if (*kind_of(c.code, false) != 0 || c.code == '\r')
      out += fmt::format("<U+{:04X}>", static_cast<unsigned>(c.code));
    else
      out += text.substr(i, c.length);
    i += std::max<std::size_t>(c.length, 1);
  }
  return out;
}

}  // namespace corvex
