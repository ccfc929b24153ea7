// What the writers of JSON share.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace corvex::file {

using Json = nlohmann::ordered_json;

// Indented by two spaces, ended by a line feed. Bytes that are not UTF-8 become U+FFFD.
inline std::string json_text(const Json& j) {
  return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace corvex::file
