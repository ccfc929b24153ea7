// Findings as JSON, for results too.
#pragma once

#include "corvex/findings.hpp"
#include "file/json.hpp"

namespace corvex::file {

Json findings_list(const Problems& findings);
// Title, kind, counts and mass.
Json model_json(const Structure& structure);

}  // namespace corvex::file
