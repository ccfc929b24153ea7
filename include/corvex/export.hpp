// Corvex: results and catalogues as JSON and CSV. (Target corvex::files.)
//
// All values are in SI units at full precision unless a function says otherwise; docs/commands.md describes the JSON,
// and share/corvex/results.schema.json is its schema.
//
//     const auto model = corvex::read_model("trestle.yaml");
//     const corvex::Solution solution = corvex::solve(model->structure);
//     const std::string json = corvex::results_json({.solution = solution}, {.places = 11});
//     fmt::print("{}\n", json.find("corvex-results") != std::string::npos);   // true
//
// Threads: every function may be called from several threads at once.
#pragma once

#include <string>
#include <vector>

#include "corvex/catalogue.hpp"
#include "corvex/choose.hpp"
#include "corvex/compare.hpp"
#include "corvex/derive.hpp"
#include "corvex/envelope.hpp"
#include "corvex/evaluation.hpp"
#include "corvex/findings.hpp"
#include "corvex/model_units.hpp"
#include "corvex/modes.hpp"
#include "corvex/solution.hpp"
#include "corvex/sweep.hpp"
#include "corvex/trace.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct JsonOptions {
  // Evenly spaced places a member, ends included; none if 0.
  int places = 0;
  ModelUnits units{};  // for the formulas with their numbers put in
  // Origin of the results, for example "corvex 0.1.0, trestle.yaml, 2026-11-27 17:40"; not written if empty.
  std::string record{};
};
// Findings of a model, with the resultants of its loads: {"format": "corvex-findings", …}. SI units.
std::string findings_json(const Structure& structure, const Inspection& inspection);
// {"format": "corvex-comparison", …}. SI units.
std::string comparison_json(const std::vector<Compared>& all, const std::vector<ShownFigure>& show);
// {"format": "corvex-sweep", …}. SI units.
std::string sweep_json(const Sweep& sweep, const std::vector<SweepRun>& runs);
// {"format": "corvex-choice", …}. SI units.
std::string choice_json(const SectionChoice& choice, const std::vector<ChoiceGroup>& groups);
// All results in SI units at full precision, as docs/commands.md describes them.
// Of a refused solution its problems alone.
std::string results_json(const Evaluation& evaluation, const JsonOptions& options = {});
// The hand calculation alone, in the same form.
std::string verification_json(const Evaluation& evaluation, const JsonOptions& options = {});

// One member of one case at some places, in the same form; with the largest and least normal stress of each section.
std::string trace_json(const Solution& solution, const MemberResult& member, const std::string& load_case,
                       const std::vector<TracePlace>& places);

// The envelope of one member at some places: of each figure `max` and `min`, each with the case that governs.
std::string trace_json(const Solution& solution, const MemberRef& member, const std::vector<TracePlace>& places);

// The derivation with every step as text and as numbers in SI units; `both` compares it with the solution.
std::string derivation_json(const Derivation& derivation, const std::vector<BothWays>& both, const ModelUnits& units,
                            int digits = 5);

// Frequencies and load factors with their shapes, SI units.
std::string modes_json(const Structure& structure, const Modes& modes);

// In SI units at full precision.
std::string catalogue_json(const std::vector<Profile>& profiles, const CatalogueFormat& format = {});
// One line a profile, the units in the heading; eight significant digits, or as many as asked for.
std::string catalogue_csv(const std::vector<Profile>& profiles, const CatalogueFormat& format = {}, int digits = 0);
std::string materials_json(const std::vector<Material>& materials);
std::string materials_csv(const std::vector<Material>& materials);
// The available series of profiles, and these materials.
std::string contents_json(const std::vector<Material>& materials);

}  // namespace corvex

#pragma GCC visibility pop
