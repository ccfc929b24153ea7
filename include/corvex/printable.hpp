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

// Empty if the text is UTF-8 without control characters, marks of writing direction and characters that do not exist;
// else what it has, as the rest of a sentence. Line breaks and tabs are allowed unless it is to be one line.
std::string why_not_printable(std::string_view text, bool one_line);

}  // namespace corvex

#pragma GCC visibility pop
