// The characters of UTF-8 texts.
#pragma once

#include <cstddef>
#include <string_view>

namespace corvex {

struct Character {
  std::size_t length = 0;  // in bytes; 0 where none begins (Unicode 15, table 3-7)
  char32_t code = 0;
};

inline Character first_character(std::string_view s) {
  const auto byte = [&](std::size_t i) { return i < s.size() ? static_cast<unsigned char>(s[i]) : 0u; };
  const unsigned first = byte(0);
  if (first < 0x80) return {1, first};
  const std::size_t length = first >= 0xF0 && first <= 0xF4 ? 4 : first >= 0xE0 ? 3 : 2;
  if (first < 0xC2 || first > 0xF4) return {};
  char32_t code = first & (0xFFu >> (length + 1));
  for (std::size_t i = 1; i < length; ++i) {
    if ((byte(i) & 0xC0) != 0x80) return {};
    code = code << 6 | (byte(i) & 0x3F);
  }
  static constexpr char32_t least[] = {0, 0, 0x80, 0x800, 0x10000};
  const bool surrogate = code >= 0xD800 && code <= 0xDFFF;
  if (code < least[length] || code > 0x10FFFF || surrogate) return {};
  return {length, code};
}

}  // namespace corvex
