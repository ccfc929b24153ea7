#include "solved.hpp"

#include <fmt/format.h>

#include "findings.hpp"

namespace corvex::cli {

std::optional<Model> read(const ModelOptions& options, OutputOptions& output, Progress& progress,
                          std::optional<ModelDocument>* document) {
  // The line of progress makes room for what is said.
  const auto refused = [&](const auto& why) {
    progress.done();
    refuse(why);
    return std::nullopt;
  };
  const auto overrides = overrides_of(options);
  if (!overrides) return refused(overrides.error());
  output.read = {options.path};
  if (const std::string why = overwrites(output.output, output.read); !why.empty()) return refused(why);
  progress.doing("reading " + options.path);
  const auto text = read_document(options.path);
  if (!text) return refused(text.error());
  if (document) *document = *text;
  auto model = build(*text, *overrides);
  if (!model) return refused(model.error());
  for (const std::string& table : model->table_files) output.read.push_back(table);
  if (const std::string why = overwrites(output.output, output.read); !why.empty()) return refused(why);
  if (const std::string why = choose_units(output.units, model.value().units); !why.empty()) return refused(why);
  return std::move(model.value());
}

std::optional<Solved> read_and_solve(const ModelOptions& options, OutputOptions& output, Progress& progress,
                                     std::optional<ModelDocument>* document) {
  auto model = read(options, output, progress, document);
  if (!model) return std::nullopt;
  const Structure& s = model->structure;
  progress.doing(fmt::format("solving {} members in {} load cases", s.members().size(), s.load_cases().size()));
  Solution solution = solve(s);
  if (!solution.ok()) {
    progress.done();
    refuse(*model, solution.problems());
    return std::nullopt;
  }
  return Solved{std::move(*model), std::move(solution)};
}

}  // namespace corvex::cli
