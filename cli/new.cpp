#include "new.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <memory>

#include "command.hpp"
#include "corvex/formula.hpp"
#include "output.hpp"

namespace corvex::cli {
namespace {

namespace fs = std::filesystem;

// Relative to the running program, wherever its tree was moved to; otherwise where it was to be installed.
fs::path schema_path() {
  constexpr const char* name = "model.schema.json";
  std::error_code error;
  const fs::path program = fs::read_symlink("/proc/self/exe", error);
  const fs::path beside = program.parent_path().parent_path() / "share/corvex" / name;
  return !error && fs::exists(beside, error) ? beside : fs::path(CORVEX_SHARE) / name;
}

}  // namespace

int begin_model(const NewOptions& o) {
  const auto starter = starter_model(o.kind);
  if (!starter) return refuse(fmt::format("there is no model of the kind '{}'", o.kind));
  const bool to_file = !o.output.empty() && o.output != "-";
  std::error_code error;
  if (to_file && fs::exists(fs::symlink_status(o.output, error)))
    return refuse(fmt::format("'{}' already exists; choose another name", o.output));
  const std::string text =
      fmt::format("# yaml-language-server: $schema=file://{}\n{}", schema_path().string(), *starter);
  if (const std::string why = write(o.output, text); !why.empty()) return refuse(why);
  if (to_file) say("wrote {}; next: corvex solve {}\n", o.output, o.output);
  return 0;
}

namespace {

Run add_new_options(CLI::App& app) {
  const auto options = std::make_shared<NewOptions>();
  NewOptions& o = *options;
  app.add_option("--kind", o.kind, fmt::format("Select the model: {}", fmt::join(starter_kinds(), ", ")))
      ->check(one_of(starter_kinds()))
      ->type_name("KIND")
      ->capture_default_str();
  app.add_option("-o,--output", o.output, "Write to this file, which must not already exist")
      ->type_name("FILE")
      ->check(some_name())
      ->group(groups::output);
  return run_with(options, begin_model);
}

}  // namespace

extern const Command new_command{
    .name = "new",
    .group = "Describe",
    .description = "Write a small commented model to start from",
    .details =
        "The kinds are beam, trestle, truss, frame (in space) and mast (with ropes). The first line of the model names the JSON Schema of the format, so that an editor completes and checks the file while it is typed. An existing file is not overwritten.",
    .add_options = add_new_options,
    .reads_models = false};

}  // namespace corvex::cli
