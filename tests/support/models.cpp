#include "support/models.hpp"

#include <algorithm>
#include <corvex/document.hpp>
#include <filesystem>
#include <fstream>
#include <sstream>

namespace corvex::test {
namespace {

namespace fs = std::filesystem;

std::string content(const fs::path& path) {
  std::ifstream in(path);
  std::stringstream text;
  text << in.rdbuf();
  return text.str();
}

void add_folder(const fs::path& folder, std::vector<NamedModel>& all) {
  for (const auto& entry : fs::directory_iterator(folder))
    if (entry.path().extension() == ".yaml") all.push_back({entry.path().filename().string(), content(entry.path())});
}

}  // namespace

std::vector<NamedModel> shipped_models() {
  const fs::path source = CORVEX_SOURCE;
  std::vector<NamedModel> all;
  add_folder(source / "examples/cider-works", all);
  add_folder(source / "examples/cookbook", all);
  add_folder(source / "examples/derivations", all);
  add_folder(source / "examples/stability", all);
  add_folder(source / "examples/tutorial", all);
  add_folder(source / "share/corvex/new", all);
  std::sort(all.begin(), all.end(), [](const NamedModel& a, const NamedModel& b) { return a.name < b.name; });
  std::istringstream page(content(source / "docs/model-file.md"));
  std::string line, block;
  int number = 0;
  for (bool inside = false; std::getline(page, line);) {
    if (line == "```yaml") {
      inside = true, block.clear();
    } else if (line == "```" && inside) {
      inside = false;
      const std::string name = "model-file.md, " + std::to_string(++number);
      if (const auto model = read_model_text(block, name); model && solve(model->structure).ok())
        all.push_back({name, block});
    } else if (inside) {
      block += line + "\n";
    }
  }
  return all;
}

Problems told(const Model& model) {
  const Evaluation evaluation = evaluate(model);
  if (evaluation.solution.ok()) return evaluation.findings;
  Problems all = document::inspection_of(model).findings;
  for (Problem& p : with_remedies(model.structure, evaluation.solution.problems())) all.push_back(std::move(p));
  return model.located(std::move(all));
}

}  // namespace corvex::test
