// Helpers shared by the writers of JSON.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace corvex::file {

using Json = nlohmann::ordered_json;

// A further entry of an object whose keys are known to differ: looking for the key first would cost a search each.
inline void add(Json& object, std::string key, Json value) {
  object.get_ref<Json::object_t&>().emplace_back(std::move(key), std::move(value));
}

// Indented by two spaces, ended by a line feed. Bytes that are not UTF-8 become U+FFFD.
inline std::string json_text(const Json& j) {
  return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace corvex::file
