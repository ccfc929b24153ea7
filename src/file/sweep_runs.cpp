// Sweeps over model files: each run is the model built with its values.
#include "corvex/number.hpp"
#include "file/patch.hpp"

namespace corvex {
namespace {

std::string written(const SweptValue& v) {
  constexpr int all_digits = 17;
  return v.words.empty() && v.quantity ? to_text(*v.quantity, all_digits) : v.words;
}

}  // namespace

Expected<std::vector<SweepRun>, Problems> sweep(const ModelDocument& document, const Overrides& overrides,
                                                const Sweep& wanted, const SweepOptions& options) {
  if (const auto as_it_stands = build(document, overrides); !as_it_stands) return as_it_stands.error();
  const auto runs = document_for_runs(document, overrides, wanted);
  if (!runs) return runs.error();
  const auto candidate = [&](const Picks& picks) -> Candidate {
    Overrides with{
        .parameters = overrides.parameters, .table_folders = overrides.table_folders, .names = overrides.names};
    for (std::size_t i = 0; i < picks.size(); ++i) {
      const Varied& v = wanted.vary[i];
      const std::string value = written(v.values[picks[i]]);
      if (v.name.starts_with('/'))
        with.set.emplace_back(v.name, value);
      else
        with.parameters[v.name] = value;
    }
    auto model = build_changed(*runs, with, "");
    if (!model) return {.structure = Structure::plane(wanted.name), .refused = model.error()};
    return {.structure = std::move(model->structure),
            .limits = std::move(model->limits),
            .acceptances = std::move(model->acceptances)};
  };
  return sweep(wanted, candidate, options);
}

}  // namespace corvex
