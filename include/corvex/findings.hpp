// Corvex: likely mistakes, found before and after solving.
//
// A finding is a Problem with an identifier that does not change, a severity, the objects that it is about, a sentence
// that describes it and one that gives a remedy. `inspect` examines the description alone, `assess` the results.
// An intentional finding can be accepted with a reason. docs/findings.md lists all of them with examples.
//
//     const corvex::Inspection inspection = corvex::inspect(trestle);
//     for (const corvex::Problem& f : inspection.findings) fmt::print("{}\n", describe(f));
//     fmt::print("{} redundants\n", *inspection.indeterminacy);   // 3 redundants
//
// Severities: an error means that results cannot be trusted, or that there are none; a warning is probably not what was
// meant; a note is for information.
//
// Threads: every function may be called from several threads at once.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "corvex/finding.hpp"
#include "corvex/hand.hpp"
#include "corvex/limits.hpp"
#include "corvex/solution.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct Inspection {
  Problems findings;
  std::vector<LoadTotal> totals;  // of each load case
  // The number of unknown member forces and reactions less that of the equations of equilibrium. Zero or more in a
  // structure that cannot move: its degree of static indeterminacy. Nothing where the description is not sound.
  std::optional<int> indeterminacy;
};
// Findings that need no results. A structure of up to 2,000 members is solved for it, since that finds
// motions that nothing resists and loads that nothing carries; of a larger one only `solve` reports them.
Inspection inspect(const Structure& structure, const Limits& limits = {});
// The same without solving: of a structure that is known to have no solution.
Inspection inspect_description(const Structure& structure, const Limits& limits = {});
// The same of a structure that was solved, or refused.
Inspection inspect(const Solution& solution, const Limits& limits = {});

// Findings of results: stress beyond the strength, force beyond Euler's, large displacements, uplift, hand values that
// differ by a usual slip. Of the load cases and combinations that are assessed; none for a refused solution.
Problems assess(const Solution& solution, const LimitCheck& limits = {}, const Verification& hand = {});

// The findings that `solve` refuses with because the structure can move, with the smallest change that would hold it.
Problems with_remedies(const Structure& structure, Problems problems);

}  // namespace corvex

#pragma GCC visibility pop
