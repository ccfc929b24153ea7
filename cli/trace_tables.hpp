// Places of a member in lines, what is asked of them in columns.
#pragma once

#include "corvex/file.hpp"
#include "table.hpp"

namespace corvex::cli {

Table trace_table(const Structure& s, const MemberResult& m, const std::vector<TracePlace>& places, const ModelUnits& u,
                  const std::string& load_case);
// Of each figure the largest and least value over the cases that are judged, and the case.
Table trace_envelope_table(const Solution& solution, MemberId member, const std::vector<TracePlace>& places,
                           const ModelUnits& u);

}  // namespace corvex::cli
