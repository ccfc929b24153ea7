#include "draw.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <memory>

#include "command.hpp"
#include "corvex/document.hpp"
#include "findings.hpp"
#include "pictures.hpp"
#include "solved.hpp"

namespace corvex::cli {
namespace {

template <class T>
T chosen(const std::vector<std::string>& names, const std::string& name) {
  return static_cast<T>(std::find(names.begin(), names.end(), name) - names.begin());
}

// The requested variants, each built and solved, after the original model. Reports an error if one cannot be solved.
std::optional<std::vector<PictureSide>> sides_of(const DrawOptions& o, const ModelDocument& document,
                                                 const Solution& as_it_stands) {
  std::vector<PictureSide> sides{{"original", as_it_stands}};
  const std::vector<std::string> known = document.variants();
  for (const std::string& name : o.variants.size() == 1 && o.variants.front() == "all" ? known : o.variants) {
    auto with = overrides_of(o.model);
    with.value().variant = name;
    const auto model = build(document, *with);
    if (!model) return refuse(model.error()), std::nullopt;
    Solution solution = solve(model->structure);
    if (!solution.ok()) {
      Problems problems = model->located(solution.problems());
      for (Problem& p : problems) p.text = fmt::format("variant '{}': {}", name, p.text);
      return refuse(problems), std::nullopt;
    }
    sides.push_back({name, std::move(solution)});
  }
  if (sides.size() < 2) return refuse(std::string("the model has no variants")), std::nullopt;
  return sides;
}

}  // namespace

const std::vector<std::string>& pictures() {
  static const std::vector<std::string> all = {"structure", "deformed", "axial",       "shear",   "moment",
                                               "torsion",   "stress",   "utilisation", "section", "sheet",
                                               "reactions", "faces",    "vibration",   "buckling"};
  return all;
}

const std::vector<std::string>& views() {
  static const std::vector<std::string> all = {"front", "side", "top", "space"};
  return all;
}

namespace {

// Options that would have no effect were meant for another picture: why they are refused.
std::string contradiction(const DrawOptions& o) {
  const auto only_with = [&](bool given, const char* option, const char* what) {
    return given && o.what != what ? fmt::format("{} goes with --what {}", option, what) : std::string();
  };
  for (const std::string& why :
       {only_with(o.dimensions, "--dimensions", "structure"), only_with(o.real_width, "--real-width", "structure"),
        only_with(o.scale > 0, "--scale", "deformed"), only_with(o.true_scale, "--true-scale", "deformed")})
    if (!why.empty()) return why;
  if (o.mode > 0 && o.what != "vibration" && o.what != "buckling")
    return "--mode goes with --what vibration or buckling";
  if (o.side_by_side && o.variants.empty()) return "--side-by-side goes with --variants";
  if (!o.variants.empty() && !o.model.variant.empty())
    return "--variant draws one variant, --variants several with the original model";
  return {};
}

// The same of what the model does not have.
std::string contradiction(const DrawOptions& o, PictureOf what, const Structure& s) {
  if (s.is_plane() && !o.view.empty()) return "--view is for structures in space; this one is plane";
  if (s.is_plane() && what == PictureOf::torsion) return "a plane structure has no torsion";
  return {};
}

PictureOptions picture_of(const DrawOptions& o) {
  PictureOptions picture{.of = chosen<PictureOf>(pictures(), o.what),
                         .dark = o.dark,
                         .dimensions = o.dimensions,
                         .real_width = o.real_width,
                         .moving = o.animate,
                         .digits = o.digits};
  if (o.mode > 0) picture.mode = static_cast<std::size_t>(o.mode);
  picture.moments_on_tension_side = o.moment_side != "compression";
  if (!o.view.empty()) picture.view = chosen<View>(views(), o.view);
  if (o.true_scale) picture.scale = 1;
  if (o.scale > 0) picture.scale = o.scale;
  return picture;
}

// The case and the members that are asked for; why they are refused.
std::string select_for(const DrawOptions& o, const Solution& solution, PictureOptions& picture) {
  Choice wanted{.members = o.only};
  if (!o.load_case.empty()) wanted.cases = {o.load_case};
  const auto shown = select(solution, wanted);
  if (!shown)
    return o.load_case.find(',') == std::string::npos
               ? shown.error()
               : fmt::format("--case '{}': a picture shows one load case or combination", o.load_case);
  if (!o.load_case.empty())
    picture.load_case = shown->only_envelope ? "envelope" : solution[shown->cases.front()].name();
  for (std::size_t i = 0; i < shown->members.size(); ++i)
    if (!o.only.empty() && shown->members[i]) picture.only.push_back(MemberId{i});
  const bool of_one = picture.of == PictureOf::sheet || picture.of == PictureOf::section;
  if (of_one && o.only.empty() && shown->members.size() == 1) picture.only.push_back(MemberId{0});
  if (of_one && picture.only.size() != 1)
    return fmt::format("a {} shows one member: select it by --member NAME", o.what);
  return {};
}

}  // namespace

int draw(const DrawOptions& o) {
  const auto format = picture_format(o.output);
  if (!format)
    return refuse(
        fmt::format("'{}': a picture ends with .svg, .png or .pdf, an animated one with .svg or .gif", o.output));
  if (const std::string why = contradiction(o); !why.empty()) return refuse(why);
  PictureOptions picture = picture_of(o);
  if (const std::string why = picture_size(o.size, picture); !why.empty()) return refuse(why);
  Progress progress;
  OutputOptions output{.output = o.output, .units = o.units};
  std::optional<ModelDocument> document;
  const auto solved = read_and_solve(o.model, output, progress, &document);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  progress.done();
  if (const std::string why = contradiction(o, picture.of, model.structure); !why.empty()) return refuse(why);
  if (const std::string why = select_for(o, solution, picture); !why.empty()) return refuse(why);
  picture.units = model.units;
  picture.findings = evaluate(model, solution).findings;
  tell_briefly(picture.findings, o.model.path);
  Expected<std::string, Problem> bytes = Problem{};
  if (o.variants.empty()) {
    bytes = drawn(solution, picture, *format);
  } else {
    const auto sides = sides_of(o, *document, solution);
    if (!sides) return refused;
    bytes = drawn(*sides, o.side_by_side ? Together::side_by_side : Together::overlaid, picture, *format);
  }
  if (!bytes) return refuse(bytes.error().text);
  const std::string why = write(o.output, *bytes);
  return why.empty() ? 0 : refuse(why);
}

namespace {

Run add_draw_options(CLI::App& app) {
  const auto options = std::make_shared<DrawOptions>();
  DrawOptions& o = *options;
  add_model_options(app, o.model);
  app.add_option("--what", o.what, fmt::format("Select the picture: {}", fmt::join(pictures(), ", ")))
      ->check(one_of(pictures()))
      ->type_name("PICTURE")
      ->capture_default_str();
  app.add_option("--case", o.load_case,
                 "Draw this load case, combination or \"envelope\"; the governing case if not given")
      ->type_name("CASE");
  app.add_option("--view", o.view, "Select the view: front, side, top or space")
      ->check(one_of(views()))
      ->type_name("VIEW");
  app.add_option("--member", o.only, "Draw these members or families only; a sheet shows one member")
      ->type_name("MEMBER")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_option("--variants", o.variants,
                 "Overlay these variants, or \"all\", on the model: deformed shapes, N, V, M or T")
      ->type_name("VARIANT")
      ->delimiter(',')
      ->allow_extra_args(false);
  app.add_flag("--side-by-side", o.side_by_side, "Draw the variants side by side at one scale");
  CLI::Option* scale = app.add_option("--scale", o.scale, "Multiply displacements by this factor")
                           ->check(positive(1e9))
                           ->type_name("TIMES");
  app.add_flag("--true-scale", o.true_scale, "Draw displacements at true scale")->excludes(scale);
  app.add_option("--size", o.size,
                 "Set width and height in pixels, for example 1280x800, or a paper size: a3, a4, a5 (landscape)")
      ->type_name("WxH");
  app.add_option("--moment-side", o.moment_side, "Draw bending moments on the side in tension or in compression")
      ->check(one_of({"tension", "compression"}))
      ->type_name("SIDE")
      ->capture_default_str();
  app.add_flag("--dark", o.dark, "Use a dark background");
  app.add_flag("--dimensions", o.dimensions, "Draw the distances between the points");
  app.add_flag("--real-width", o.real_width, "Draw members as wide as their sections are high");
  app.add_flag("--animate", o.animate, "Animate the deformed shape: SVG or GIF");
  app.add_option("--mode", o.mode, "Draw this mode of vibration or buckling; the first if not given")
      ->check(between(1, 1000))
      ->type_name("N");
  refuse_renamed(app, "--only", "--member");
  add_print_options(app, o.units, o.digits);
  app.add_option("-o,--output", o.output,
                 "Write to this file, which ends with .svg, .png, .pdf or .gif; SVG on standard output if not given")
      ->type_name("FILE")
      ->check(some_name())
      ->group(groups::output);
  return run_with(options, draw);
}

}  // namespace

extern const Command draw_command{
    .name = "draw",
    .group = "Look",
    .description = "Draw the structure, its deformed shape, diagrams or stresses",
    .details =
        "Pictures are to scale: the structure with its loads, the deformed shape, axial and shear force, bending and torsional moment, stress, utilisation, normal stress of both faces, reactions, mode shapes of vibration and buckling, a cross-section, or a sheet of one member with loads, N, V, M, rotation and deflection. With the case \"envelope\", N, V, M, T, stress and utilisation of all assessed cases are drawn. The end of the file name selects SVG, PNG, PDF or GIF; without a file SVG is printed.",
    .add_options = add_draw_options};

}  // namespace corvex::cli
