// Corvex: texts that are safe to print anywhere.
//
//     fmt::print("{}\n", corvex::why_not_printable("post\x1b", true));   // it has the control character U+001B
//
// A name or title goes to terminals, pages, spreadsheets and other programs, which take control characters for orders
// and marks of writing direction for a reason to show the text in another order. May be called from several threads.
#pragma once

#include <string>
#include <string_view>

#pragma GCC visibility push(default)

namespace corvex {

// Empty if the text is UTF-8 without control characters, marks of writing direction, invisible characters and codes of
// no character; else what it has, as the rest of a sentence. Line breaks and tabs are allowed unless it is to be one
// line.
std::string why_not_printable(std::string_view text, bool one_line);

// The text with what is not printable written out, as "<U+001B>", or "<byte FF>" where it is not UTF-8. Line breaks and
// tabs stay.
std::string made_printable(std::string_view text);

}  // namespace corvex

#pragma GCC visibility pop
