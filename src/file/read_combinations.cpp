#include <set>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class CombinationReader : PartReader {
 public:
  explicit CombinationReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);
};

void CombinationReader::run(const Node& n) {
  if (!errors_.is_map(n, "combinations")) return;
  const std::vector<std::string> names = names_.case_names();
  const std::set<std::string_view> cases(names.begin(), names.end());
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    std::vector<std::pair<std::string, double>> factors;
    bool sound = errors_.is_map(value, fmt::format("combination '{}'", key.text));
    for (std::size_t k = 0; sound && k < tree_->entries(value); ++k) {
      const auto& [load_case, factor] = tree_->entry(value, k);
      const bool known = cases.contains(load_case.text);
      if (!known) errors_.unknown(load_case, "load case", names);
      const auto f = quantities_.read(factor, units_.number);
      if (f && known) factors.emplace_back(load_case.text, *f);
      sound = sound && f && known;
    }
    // One with an error exists all the same, so that limits and hand values that name it are not errors too.
    if (!sound && factors.empty() && !names.empty()) factors.emplace_back(names.front(), 1);
    structure_.combination(std::string(key.text), factors);
  }
}

}  // namespace

void read_combinations(const Context& c, const Node& n) {
  CombinationReader(c).run(n);
}

}  // namespace corvex::file
