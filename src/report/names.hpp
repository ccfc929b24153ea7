#pragma once

#include <string>

namespace corvex::reporting {

// The name of a load case or member as part of the name of a file: letters and digits, hyphens for the rest.
inline std::string file_name(const std::string& name) {
  std::string out;
  for (const char c : name) {
    const bool kept = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
    if (kept)
      out += c;
    else if (!out.empty() && out.back() != '-')
      out += '-';
  }
  while (!out.empty() && out.back() == '-') out.pop_back();
  return out;
}

}  // namespace corvex::reporting
