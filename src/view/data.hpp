// Data of the page: the structure, and the results of each case. SI units; axes as in the structure.
#pragma once

#include <nlohmann/json.hpp>

#include "corvex/view.hpp"

#pragma GCC visibility push(default)

namespace corvex::view {

using Json = nlohmann::ordered_json;

// The structure with its sections, loads, findings, limits and hand calculation.
Json model_data(const Viewed& viewed, const std::vector<std::string>& variants, int digits);
// Diagrams, places with their values, displacements, reactions and tables of one case.
Json case_data(const Viewed& viewed, std::size_t index, int digits);
// All of them stop where they are asked to (corvex/stop.hpp).

// The part that takes most time: of each member and each of its places tension, compression, shear and von Mises
// stress, and the largest of all.
Json stress_data(const Viewed& viewed, std::size_t index);
// Findings and errors for the list next to the picture.
Json problems_data(const Problems& problems);

// The page with this data in it; with an empty text it asks the server that it came from.
std::string page_with(const std::string& title, const std::string& data);

// Permissions of the page, for the header Content-Security-Policy.
std::string page_policy();

// A document of JSON as part of a page: no part of it can end the surrounding element.
std::string for_script(const Json& json);

}  // namespace corvex::view

#pragma GCC visibility pop
