#include "sweep.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "pictures.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

Expected<const Sweep*, std::string> chosen_sweep(const std::vector<Sweep>& all, const std::string& name) {
  if (all.empty())
    return std::string(
        "the model has no sweeps: write one as sweeps: {wall: {vary: {wall: [2 mm, 3 mm]}, show: [{safety: all}]}}");
  std::vector<std::string> names;
  for (const Sweep& s : all) {
    if (s.name == name) return &s;
    names.push_back(s.name);
  }
  if (name.empty() && all.size() == 1) return &all.front();
  if (name.empty()) return fmt::format("the model has several sweeps; name one: {}", fmt::join(names, ", "));
  std::string hint = did_you_mean(name, names);
  if (hint.empty()) hint = fmt::format("; there are: {}", fmt::join(names, ", "));
  return fmt::format("there is no sweep '{}'{}", name, hint);
}

// Why each of the runs without results has none; the same reason once.
void tell_refusals(const std::vector<SweepRun>& runs, const Sweep& sweep) {
  std::vector<std::string> told;
  for (const SweepRun& r : runs) {
    if (r.refused.empty() || std::find(told.begin(), told.end(), r.refused.front().text) != told.end()) continue;
    told.push_back(r.refused.front().text);
    Problem named = r.refused.front();
    std::string values;
    for (std::size_t i = 0; i < r.picks.size(); ++i)
      values += fmt::format("{}{} = {}", i > 0 ? ", " : "", sweep.vary[i].name, sweep.vary[i].values[r.picks[i]].words);
    named.text = values + ": " + named.text;
    tell(named);
  }
}

}  // namespace

int sweep(SweepCommand o) {
  const std::string file = o.output.output;
  const std::optional<ImageFormat> image = image_format(file);
  if (image && (o.output.json || !o.output.format.empty()))
    return refuse(fmt::format("'{}' is a picture; --format and --json are for tables", file));
  const auto only_plots = [&](bool given, const char* option) {
    return given && !image ? fmt::format("{} is for a plot: add -o FILE.svg, .png or .pdf", option) : std::string();
  };
  for (const std::string& why : {only_plots(o.dark, "--dark"), only_plots(!o.size.empty(), "--size")})
    if (!why.empty()) return refuse(why);
  if (image) o.output.output.clear();
  const auto form = form_of(o.output);
  if (!form) return refuse(form.error());
  o.output.output = file;
  PictureOptions picture{.dark = o.dark};
  if (o.output.digits > 0) picture.digits = o.output.digits;
  if (const std::string why = picture_size(o.size, picture); !why.empty()) return refuse(why);
  Progress progress;
  std::optional<ModelDocument> document;
  const auto model = read(o.model, o.output, progress, &document);
  if (!model) return refused;
  const auto refuse = [&](const auto& why) {
    progress.done();
    return cli::refuse(why);
  };
  const auto wanted = chosen_sweep(model->sweeps, o.name);
  if (!wanted) return refuse(wanted.error());
  const Sweep& s = **wanted;
  const std::size_t count = run_count(s);
  progress.doing(fmt::format("solving {} runs", count));
  const SweepOptions options{
      .progress = [&](std::size_t done) { progress.doing(fmt::format("{} of {} runs solved", done, count)); }};
  const auto runs = corvex::sweep(*document, *overrides_of(o.model), s, options);
  if (!runs) return refuse(runs.error());
  const auto is_refused = [](const SweepRun& r) { return !r.refused.empty(); };
  if (std::all_of(runs->begin(), runs->end(), is_refused)) return refuse(runs->front().refused);
  progress.done();
  tell_refusals(*runs, s);
  int status = 0;
  if (image) {
    picture.units = model->units;
    const auto bytes = drawn(s, *runs, model->structure.title(), picture, *image);
    if (!bytes) return cli::refuse(bytes.error().text);
    if (const std::string why = write(file, *bytes); !why.empty()) return cli::refuse(why);
  } else if (*form == Form::json) {
    status = put_text(sweep_json(s, *runs), o.output);
  } else {
    status = put_page(sweep_page(model->structure.title(), model->units, s, *runs), model->structure.title(), *form,
                      o.output);
  }
  if (status != 0) return status;
  return std::any_of(runs->begin(), runs->end(), is_refused) ? limit_not_met : 0;
}

namespace {

Run add_sweep_options(CLI::App& app) {
  const auto options = std::make_shared<SweepCommand>();
  SweepCommand& o = *options;
  add_model_options(app, o.model);
  app.add_option("SWEEP", o.name, "Name of the sweep in the model; not needed if there is only one");
  app.add_flag("--dark", o.dark, "Use a dark background for the plot");
  app.add_option("--size", o.size,
                 "Set width and height of the plot in pixels, for example 1280x800, or a paper size: a3, a4, a5")
      ->type_name("WxH");
  add_output_options(app, o.output);
  app.get_option("--output")
      ->description("Write to this file: a plot if it ends with .svg, .png or .pdf, a spreadsheet if with .xlsx");
  return run_with(options, sweep);
}

}  // namespace

extern const Command sweep_command{
    .name = "sweep",
    .group = "Vary",
    .description = "Tabulate or plot results over a range of parameters",
    .details =
        "The sweep is one of those under \"sweeps\" in the model. A file that ends with .svg, .png or .pdf is a plot with the limits as lines.",
    .add_options = add_sweep_options};

}  // namespace corvex::cli
