// Numbers and words on terminals.
#pragma once

#include <string>

#include "corvex/number.hpp"
#include "corvex/page.hpp"
#include "format/sizes.hpp"

namespace corvex::document {

// How many rows short tables have.
inline constexpr std::size_t short_members = 6, short_points = 8;

using format::noise;

// Columns that a terminal needs to show the text: two for characters of East Asian scripts, none for marks that stand
// on the character before them (Unicode Standard Annex 11).
std::size_t width(const std::string& text);

// "1 point", "3 points"
std::string count(std::size_t n, const char* what);

// The numbers of the columns from this one on are added up: they have the same decimals.
void add_up(Table& table, std::size_t from);

// The rows that people read, with the words beneath them; none of a table for other programs.
Table for_people(const Table& table);

}  // namespace corvex::document
