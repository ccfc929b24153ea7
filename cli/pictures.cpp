#include "pictures.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <new>
#include <tuple>

#ifdef CORVEX_PICTURES_LIBRARY
#include <dlfcn.h>
#endif

namespace corvex::cli {

#ifdef CORVEX_PICTURES_LIBRARY

namespace {

// A function of a library that is loaded when it is first needed, found where the program finds its other libraries,
// and never closed.
Expected<void*, Problem> entry_of(const char* library, const char* name) {
  void* const loaded = dlopen(library, RTLD_NOW | RTLD_LOCAL);
  if (void* const entry = loaded ? dlsym(loaded, name) : nullptr) return entry;
  const std::string why = dlerror();
  // The loader's words for memory that it did not get.
  for (const char* words : {"cannot map", "cannot allocate", "Cannot allocate", "failed to map", "cannot create"})
    if (why.find(words) != std::string::npos) throw std::bad_alloc();
  return Problem{"a library of the program cannot be loaded: " + why};
}

template <class Entry, class Result = std::string, class... Given>
Expected<Result, Problem> called(const char* library, const char* name, const Given&... given) {
  const auto entry = entry_of(library, name);
  if (!entry) return entry.error();
  Expected<Result, Problem> result = Problem{};
  reinterpret_cast<Entry> (*entry)(given..., result);
  return result;
}

template <class Entry, class Result = std::string, class... Given>
Expected<Result, Problem> from_library(const char* name, const Given&... given) {
  return called<Entry, Result>(CORVEX_PICTURES_LIBRARY, name, given...);
}

}  // namespace

Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  return from_library<PictureEntry>(picture_entry, solution, options, format);
}
Expected<std::string, Problem> drawn(const std::vector<PictureSide>& sides, Together together,
                                     const PictureOptions& options, ImageFormat format) {
  return from_library<SidesEntry>(sides_entry, sides, together, options, format);
}
Expected<std::string, Problem> drawn(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                                     const PictureOptions& options, ImageFormat format) {
  return from_library<SweepEntry>(sweep_entry, sweep, runs, title, options, format);
}

Expected<Report, Problem> reported(const Model& model, const Evaluation& evaluation, const ReportOptions& options,
                                   ReportFormat format) {
  return from_library<ReportEntry, Report>(report_entry, model, evaluation, options, format);
}

Expected<std::string, Problem> derivation_written(const Model& model, const Derivation& derivation,
                                                  const std::vector<BothWays>& both, const DerivationOptions& options,
                                                  ReportFormat format) {
  return from_library<DerivationEntry>(derivation_entry, model, derivation, both, options, format);
}

Expected<std::string, Problem> viewed(const std::vector<Viewed>& all, int digits) {
  return from_library<ViewPageEntry>(view_page_entry, all, digits);
}
Expected<std::string, Problem> served(const ViewServer& server) {
  return called<ViewServerEntry>(CORVEX_SERVER_LIBRARY, view_server_entry, server);
}

#else

Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  return draw(solution, options, format);
}
Expected<std::string, Problem> drawn(const std::vector<PictureSide>& sides, Together together,
                                     const PictureOptions& options, ImageFormat format) {
  return draw(sides, together, options, format);
}
Expected<std::string, Problem> drawn(const Sweep& sweep, const std::vector<SweepRun>& runs, const std::string& title,
                                     const PictureOptions& options, ImageFormat format) {
  return draw(sweep, runs, title, options, format);
}
Expected<Report, Problem> reported(const Model& model, const Evaluation& evaluation, const ReportOptions& options,
                                   ReportFormat format) {
  return report(model, evaluation, options, format);
}
Expected<std::string, Problem> derivation_written(const Model& model, const Derivation& derivation,
                                                  const std::vector<BothWays>& both, const DerivationOptions& options,
                                                  ReportFormat format) {
  return derivation_document(model, derivation, both, options, format);
}
Expected<std::string, Problem> viewed(const std::vector<Viewed>& all, int digits) {
  return view_page(all, digits);
}
Expected<std::string, Problem> served(const ViewServer& server) {
  if (auto problem = serve_view(server)) return *problem;
  return std::string();
}

#endif

std::string picture_size(const std::string& text, PictureOptions& picture) {
  if (text.empty()) return {};
  // Sheets of ISO 216 on their side, at 96 pixels an inch, with letters and lines of a drawing office: capitals are
  // 2.5 mm high (ISO 3098).
  constexpr double pixels = 96 / 25.4, letter = 2.5 / 0.729 * pixels, usual_letter = 13;
  for (const auto& [name, w, h] : {std::tuple("a3", 420.0, 297.0), {"a4", 297.0, 210.0}, {"a5", 210.0, 148.0}})
    if (text == name) {
      picture.width = w * pixels;
      picture.height = h * pixels;
      picture.letters =
          letter / (usual_letter * std::clamp(std::min(picture.width / 1280, picture.height / 800), 0.6, 4.0));
      return {};
    }
  const std::size_t cross = text.find('x');
  const auto number = [](std::string_view t, double& v) {
    const auto [end, error] = std::from_chars(t.data(), t.data() + t.size(), v);
    return error == std::errc() && end == t.data() + t.size();
  };
  const std::string_view all = text;
  if (cross != std::string::npos && number(all.substr(0, cross), picture.width) &&
      number(all.substr(cross + 1), picture.height))
    return {};
  return fmt::format("--size '{}': width and height in pixels were expected, for example 1280x800, or a3, a4, a5",
                     text);
}

std::optional<ImageFormat> picture_format(const std::string& path) {
  return path.empty() || path == "-" ? ImageFormat::svg : image_format(path);
}

}  // namespace corvex::cli
