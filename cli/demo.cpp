#include "demo.hpp"

#include <fmt/format.h>

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <vector>

#include "demo_models.hpp"
#include "output.hpp"
#include "solve_page.hpp"

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

}  // namespace

int demo(const std::string& folder) {
  std::vector<Written> files;
  std::string told;
  for (const DemoModel& d : demo_models) {
    const fs::path path = fs::path(folder) / (std::string(d.name) + ".yaml");
    const auto model = read_model_text(d.text, path.string());
    if (!model) return refuse(describe(model.error().front()));
    const Solution solution = solve(model->structure);
    if (!solution.ok()) return refuse(describe(solution.problems().front()));
    const auto hand = verify(solution, model->hand);
    if (!hand) return refuse(describe(hand.error().front()));
    if (is_foreign({path, std::string(d.text)}))
      return refuse(
          fmt::format("'{}' is there already and differs from the demo; choose another folder", path.string()));
    files.push_back({path, std::string(d.text)});
    const auto limits = check_limits(solution, model->limits);
    if (!limits) return refuse(describe(limits.error().front()));
    files.push_back({fs::path(path).replace_extension(".txt"),
                     page_text(solve_page(*model, solution, *hand, *limits, *select(solution, {}), {}), {})});
    files.push_back(
        {fs::path(path).replace_extension(".json"),
         results_json(solution, {.stations = 11, .hand = *hand, .limits = *limits, .units = model->units})});
    told += fmt::format("\n{}\n", d.look_at);
    told += fmt::format("  model {}, results {}.txt and .json\n", path.string(),
                        fs::path(path).replace_extension().string());
  }
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) return refuse(fmt::format("the folder '{}' cannot be made: {}", folder, error.message()));
  for (const Written& w : files)
    if (const std::string why = write(w.path.string(), w.content); !why.empty()) return refuse(why);
  fmt::print("The cider works, in {0}:\n{1}\nTry: corvex solve {2}\n     corvex verify {2}\n", folder, told,
             files.front().path.string());
  return 0;
}

}  // namespace corvex::cli
