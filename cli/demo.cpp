#include "demo.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <memory>
#include <sstream>
#include <vector>

#include "command.hpp"
#include "corvex/document.hpp"
#include "corvex/export.hpp"
#include "corvex/writing.hpp"
#include "demo_models.hpp"
#include "demo_studies.hpp"
#include "output.hpp"
#include "pictures.hpp"
#include "report.hpp"

namespace corvex::cli {
namespace {

namespace fs = std::filesystem;

struct Written {
  fs::path path;
  std::string content;
};

// A model that was changed since an earlier demo is somebody's work.
bool is_foreign(const Written& w) {
  std::ifstream in(w.path, std::ios::binary);
  if (!in) return false;
  std::stringstream there;
  there << in.rdbuf();
  return there.str() != w.content;
}

// The pictures of a model: those that say something about it.
std::vector<Written> pictures_of(const Model& model, const Solution& solution, const fs::path& stem, std::string& why) {
  std::vector<std::pair<std::string, PictureOptions>> all = {
      {"structure", {.dimensions = model.structure.is_plane()}},
      {"deformed", {.of = PictureOf::deformed, .moving = true}},
      {"axial", {.of = PictureOf::axial}},
      {"shear", {.of = PictureOf::shear}},
      {"moment", {.of = PictureOf::moment}},
      {"stress", {.of = PictureOf::stress}},
      {"utilisation", {.of = PictureOf::utilisation}},
      {"section", {.of = PictureOf::section, .only = {MemberId{0}}}},
      {"sheet", {.of = PictureOf::sheet, .only = {MemberId{0}}}}};
  if (!model.structure.is_plane()) all.insert(all.begin() + 5, {"torsion", {.of = PictureOf::torsion}});
  std::vector<Written> files;
  for (auto& [name, options] : all) {
    options.units = model.units;
    const auto bytes = drawn(solution, options, ImageFormat::svg);
    if (!bytes) {
      why = bytes.error().text;
      return {};
    }
    files.push_back({fs::path(stem).concat("-" + name + ".svg"), *bytes});
  }
  return files;
}

// The report of a model as a page; of the first model as a PDF too.
std::string reports(const ModelDocument& document, const Model& model, const Evaluation& evaluation,
                    const std::string& name, const fs::path& folder, std::vector<Written>& files) {
  ReportOptions options{.name = name};
  options.variants = compared_variants(document, model, {});
  for (const auto& [format, end] :
       {std::pair(ReportFormat::html, "-report.html"), {ReportFormat::pdf, "-report.pdf"}}) {
    if (format == ReportFormat::pdf && name != demo_models[0].name) continue;
    const auto made = reported(model, evaluation, options, format);
    if (!made) return made.error().text;
    files.push_back({folder / (name + end), made->text});
  }
  return {};
}

std::string for_page(const std::string& text) {
  std::string out;
  for (const char c : text) out += c == '<' ? "&lt;" : c == '&' ? "&amp;" : std::string(1, c);
  return out;
}

constexpr const char* page_head =
    "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>The cider works</title>\n<style>\n"
    "body{font:15px/1.5 'DejaVu Sans',sans-serif;color:#1c2630;max-width:1320px;margin:2em auto;padding:0 1.5em}\n"
    "h2{margin-top:2.5em;border-bottom:1px solid #bcc4cc}\npre{font:inherit;white-space:pre-wrap}\n"
    "div{display:grid;grid-template-columns:repeat(auto-fit,minmax(560px,1fr));gap:12px}\n"
    "img{width:100%;border:1px solid #dde2e6}\n</style>\n</head>\n<body>\n<h1>The cider works</h1>\n";

// Output for one model: its files, its part of the page of pictures, and its description.
struct Shown {
  std::vector<Written> files;
  std::string page, told;
  std::optional<Viewed> viewed;
};

// The links and pictures of a model, as HTML.
std::string part_of_page(const DemoModel& d, const Model& model, const std::vector<Written>& pictures,
                         const DemoFiles& studies) {
  std::string page = fmt::format(
      "<h2>{0}</h2>\n<pre>{1}</pre>\n<p><a href=\"{2}-report.html\">report</a>, <a href=\"{2}.yaml\">model</a>, <a "
      "href=\"{2}.txt\">results</a>, <a href=\"{2}.json\">JSON</a></p>\n<div>\n",
      for_page(model.structure.title()), for_page(std::string(d.look_at)), d.name);
  const auto image = [&](const std::string& name) {
    page += fmt::format("<a href=\"{0}\"><img src=\"{0}\" alt=\"{0}\"></a>\n", name);
  };
  for (const Written& w : pictures) image(w.path.filename().string());
  std::string tables;
  for (const auto& [name, content] : studies) {
    const std::string file = for_page(std::string(d.name) + name);
    name.ends_with(".svg") ? image(file) : static_cast<void>(tables += fmt::format(" <a href=\"{0}\">{0}</a>", file));
  }
  page += "</div>\n";
  if (!tables.empty()) page += fmt::format("<p>Tried out:{}</p>\n", tables);
  return page;
}

std::string words_about(const DemoModel& d, const fs::path& path, const DemoFiles& studies) {
  std::string words = fmt::format("\n{}\n", d.look_at);
  words +=
      fmt::format("  model {}, results {}.txt and .json\n", path.string(), fs::path(path).replace_extension().string());
  std::string tried;
  for (const auto& [name, content] : studies)
    tried += (tried.empty() ? "  tried out: " : ", ") + std::string(d.name) + name;
  constexpr std::size_t width = 100;
  for (const std::string& line : wrapped(tried, width, "    ")) words += line + "\n";
  return words;
}

Expected<Shown, std::string> shown(const DemoModel& d, const std::string& folder) {
  const fs::path path = fs::path(folder) / (std::string(d.name) + ".yaml"), stem = fs::path(path).replace_extension();
  const auto document = read_document_text(d.text, path.string());
  if (!document) return describe(document.error().front());
  const auto model = build(*document);
  if (!model) return describe(model.error().front());
  Evaluation evaluation = evaluate(*model);
  if (!evaluation.ok()) return describe(evaluation.problems().front());
  const Solution& solution = evaluation.solution;
  Shown all;
  all.files.push_back({path, std::string(d.text)});
  all.files.push_back(
      {fs::path(stem).concat(".txt"),
       page_text(solve_page(model->units, evaluation, *select(solution, {.requests = requests()}), {}), {})});
  all.files.push_back(
      {fs::path(stem).concat(".json"), results_json(evaluation, {.places = 11, .units = model->units})});
  std::string why;
  const std::vector<Written> pictures = pictures_of(*model, solution, stem, why);
  if (!why.empty()) return why;
  all.files.insert(all.files.end(), pictures.begin(), pictures.end());
  const auto studies = demo_studies(*document, *model, solution);
  if (!studies) return studies.error();
  for (const auto& [name, content] : *studies) all.files.push_back({fs::path(stem).concat(name), content});
  const std::string why_not = reports(*document, *model, evaluation, std::string(d.name), folder, all.files);
  if (!why_not.empty()) return why_not;
  all.page = part_of_page(d, *model, pictures, *studies);
  all.told = words_about(d, path, *studies);
  all.viewed.emplace(Viewed{model->structure.title(), *model, std::move(evaluation)});
  return all;
}

// Nothing of somebody else's is written over. Empty if that was done, else the reason.
std::string write_all(const std::string& folder, const std::vector<Written>& files) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) return fmt::format("the folder '{}' cannot be made: {}", folder, error.message());
  FileWriter writer;
  for (const Written& w : files) {
    if (is_foreign(w))
      return fmt::format("'{}' already exists and differs from the demo; choose another folder", w.path.string());
    if (std::string why = writer.stage(w.path.string(), w.content); !why.empty()) return why;
  }
  return writer.commit();
}

}  // namespace

int demo(const std::string& folder) {
  std::vector<Written> files;
  std::string told, page = page_head;
  std::vector<Viewed> all;
  for (const DemoModel& d : demo_models) {
    auto one = shown(d, folder);
    if (!one) return refuse(one.error());
    Shown& s = one.value();
    files.insert(files.end(), s.files.begin(), s.files.end());
    page += s.page, told += s.told;
    // The first has no name: it is shown when the page is opened.
    if (all.empty()) s.viewed->name.clear();
    all.push_back(std::move(*s.viewed));
  }
  files.push_back({fs::path(folder) / "pictures.html", page + "</body>\n</html>\n"});
  const auto live = viewed(all, 4);
  if (!live) return refuse(live.error().text);
  files.push_back({fs::path(folder) / "index.html", *live});
  if (const std::string why = write_all(folder, files); !why.empty()) return refuse(why);
  const std::string words = fmt::format(
      "The cider works, in {0}: interactive page {0}/index.html, all pictures {0}/pictures.html\n{1}\nTry: corvex solve {2}\n     corvex verify {2}\n     corvex compare {2}\n     corvex sweep {2} -o rail.svg\n     corvex view {2}\nThe report of the first model: {0}/{3}-report.pdf; the page of all: {0}/index.html\n",
      folder, told, files.front().path.string(), demo_models[0].name);
  const std::string why = write("", words);
  return why.empty() ? 0 : refuse(why);
}

namespace {

Run add_demo_options(CLI::App& app) {
  const auto options = std::make_shared<std::string>();
  std::string& o = *options;
  app.add_option("DIR", o, "Folder for the models and results")->required();
  return run_with(options, demo);
}

}  // namespace

extern const Command demo_command{.name = "demo",
                                  .group = "Catalogue",
                                  .description = "Write example models of an orchard's cider works with their results",
                                  .details = "The folder is made if it does not exist.",
                                  .add_options = add_demo_options,
                                  .reads_models = false};

}  // namespace corvex::cli
