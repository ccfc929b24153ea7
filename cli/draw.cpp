#include "draw.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>

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

// SVG goes to standard output too.
std::optional<ImageFormat> format_of(const std::string& path) {
  return path.empty() || path == "-" ? ImageFormat::svg : image_format(path);
}

// "1280x800"; an empty answer means success.
std::string size(const std::string& text, PictureOptions& picture) {
  if (text.empty()) return {};
  const std::size_t cross = text.find('x');
  const auto number = [](std::string_view t, double& v) {
    const auto [end, error] = std::from_chars(t.data(), t.data() + t.size(), v);
    return error == std::errc() && end == t.data() + t.size();
  };
  const std::string_view all = text;
  if (cross != std::string::npos && number(all.substr(0, cross), picture.width) &&
      number(all.substr(cross + 1), picture.height))
    return {};
  return fmt::format("--size '{}': width and height in pixels were expected, as 1280x800", text);
}

}  // namespace

const std::vector<std::string>& pictures() {
  static const std::vector<std::string> all = {"structure", "deformed", "axial", "shear",   "moment",
                                               "torsion",   "stress",   "use",   "section", "sheet"};
  return all;
}

const std::vector<std::string>& views() {
  static const std::vector<std::string> all = {"front", "side", "top", "space"};
  return all;
}

int draw(const DrawOptions& o) {
  const auto format = format_of(o.output);
  if (!format)
    return refuse(
        fmt::format("'{}': a picture ends with .svg, .png or .pdf, a moving one with .svg or .gif", o.output));
  // What would have no effect is refused: it was meant for another picture.
  const auto only_with = [&](bool given, const char* option, const char* what) {
    return given && o.what != what ? fmt::format("{} goes with --what {}", option, what) : std::string();
  };
  for (const std::string& why :
       {only_with(o.dimensions, "--dimensions", "structure"), only_with(o.real_width, "--real-width", "structure"),
        only_with(o.scale > 0, "--scale", "deformed"), only_with(o.true_scale, "--true-scale", "deformed")})
    if (!why.empty()) return refuse(why);
  PictureOptions picture{.of = chosen<PictureOf>(pictures(), o.what),
                         .dark = o.dark,
                         .dimensions = o.dimensions,
                         .real_width = o.real_width,
                         .moving = o.animate,
                         .digits = o.digits};
  if (!o.view.empty()) picture.view = chosen<View>(views(), o.view);
  if (o.true_scale) picture.scale = 1;
  if (o.scale > 0) picture.scale = o.scale;
  if (const std::string why = size(o.size, picture); !why.empty()) return refuse(why);
  Progress progress;
  OutputOptions output{.output = o.output, .units = o.units};
  const auto solved = read_and_solve(o.model, output, progress);
  if (!solved) return refused;
  const auto& [model, solution] = *solved;
  if (model.structure.is_plane() && !o.view.empty()) {
    progress.done();
    return refuse(std::string("--view is for structures in space; this one is plane"));
  }
  if (model.structure.is_plane() && picture.of == PictureOf::torsion) {
    progress.done();
    return refuse(std::string("a plane structure has no torsion"));
  }
  Choice wanted{.members = o.only};
  if (!o.load_case.empty()) wanted.cases = {o.load_case};
  const auto shown = select(solution, wanted);
  progress.done();
  if (!shown)
    return refuse(o.load_case.find(',') == std::string::npos
                      ? shown.error()
                      : fmt::format("--case '{}': a picture is of one load case or combination", o.load_case));
  if (shown->only_envelope)
    return refuse(std::string("--case envelope is not built yet for pictures: a picture is of one case"));
  picture.units = model.units;
  if (!o.load_case.empty()) picture.load_case = solution[shown->cases.front()].name();
  for (std::size_t i = 0; i < shown->members.size(); ++i)
    if (!o.only.empty() && shown->members[i]) picture.only.push_back(MemberId{i});
  if ((picture.of == PictureOf::sheet || picture.of == PictureOf::section) && picture.only.size() != 1)
    return refuse(fmt::format("a {} is of one member: say which, as --only 'NAME'", o.what));
  picture.findings = findings_of(model, solution, {}, {}, false);
  tell_briefly(picture.findings, o.model.path);
  const auto bytes = drawn(solution, picture, *format);
  if (!bytes) return refuse(bytes.error().text);
  const std::string why = write(o.output, *bytes);
  return why.empty() ? 0 : refuse(why);
}

}  // namespace corvex::cli
