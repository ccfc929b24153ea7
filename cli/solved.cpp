#include "solved.hpp"

#include <fmt/format.h>

namespace corvex::cli {

std::optional<Solved> read_and_solve(const std::string& path, OutputOptions& output, Progress& progress) {
  // The line of progress makes room for what is said.
  const auto refused = [&](const auto& why) {
    progress.done();
    refuse(why);
    return std::nullopt;
  };
  output.read = {path};
  if (const std::string why = overwrites(output.output, output.read); !why.empty()) return refused(why);
  progress.doing("reading " + path);
  auto model = read_model(path);
  if (!model) return refused(model.error());
  for (const std::string& table : model->table_files) output.read.push_back(table);
  if (const std::string why = overwrites(output.output, output.read); !why.empty()) return refused(why);
  if (const std::string why = choose_units(output.units, model.value().units); !why.empty()) return refused(why);
  const Structure& s = model->structure;
  progress.doing(fmt::format("solving {} members in {} load cases", s.members().size(), s.load_cases().size()));
  Solution solution = solve(s);
  if (!solution.ok()) return refused(model->located(solution.problems()));
  return Solved{std::move(model.value()), std::move(solution)};
}

}  // namespace corvex::cli
