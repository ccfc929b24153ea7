#pragma once

#include <string>
#include <string_view>

namespace corvex::reporting {

// Words of a model as text of a page: nothing in them is markup.
inline std::string escaped(std::string_view text) {
  std::string out;
  for (const char c : text) {
    switch (c) {
      case '<': out += "&lt;"; break;
      case '>': out += "&gt;"; break;
      case '&': out += "&amp;"; break;
      case '"': out += "&quot;"; break;
      default: out += c;
    }
  }
  return out;
}

}  // namespace corvex::reporting
