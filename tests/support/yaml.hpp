// A YAML text as JSON, as an editor reads it before it checks it against a schema.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace corvex::test {

// By the core schema of YAML 1.2: plain numbers are numbers, true and false are truth, an empty value is null, the rest
// text.
nlohmann::json yaml_as_json(const std::string& text);

}  // namespace corvex::test
