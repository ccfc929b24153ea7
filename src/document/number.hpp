// Numbers and words on terminals.
#pragma once

#include <algorithm>
#include <string>

#include "corvex/number.hpp"
#include "corvex/page.hpp"

namespace corvex::document {

// How many rows short tables have.
inline constexpr std::size_t short_members = 6, short_points = 8;

// Below this share of its largest neighbour a figure is rounding noise, and is shown as 0.
inline constexpr double noise = 1e-9;

// Columns that a terminal needs to show the text.
inline std::size_t width(const std::string& text) {
  return static_cast<std::size_t>(
      std::count_if(text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

// The rows that people read, with the words beneath them; none of a table for other programs.
Table for_people(const Table& table);

}  // namespace corvex::document
