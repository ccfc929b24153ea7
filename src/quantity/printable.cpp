#include "corvex/printable.hpp"

#include <fmt/format.h>

#include "quantity/utf8.hpp"

namespace corvex {
namespace {

const char* kind_of(char32_t c, bool one_line) {
  if (c == '\n' || c == '\r') return one_line ? "a line break" : "";
  if (c == '\t') return one_line ? "a tab" : "";
  if (c < 0x20 || (c >= 0x7F && c < 0xA0)) return "the control character";
  if (c == 0x2028 || c == 0x2029) return one_line ? "a line break" : "";
  if (c == 0x200E || c == 0x200F || c == 0x061C || (c >= 0x202A && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069))
    return "the mark of writing direction";
  if (c == 0x200B || c == 0x2060 || c == 0xFEFF || (c >= 0xE0000 && c <= 0xE007F)) return "the invisible character";
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

}  // namespace corvex
