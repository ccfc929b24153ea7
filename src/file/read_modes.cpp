// How many modes of vibration and buckling are asked for.
#include <algorithm>

#include "file/parts.hpp"

namespace corvex::file {

std::optional<std::string> case_name(const Context& c, const Node& n) {
  if (!c.errors.is_text(n, "the name of a load case or combination")) return std::nullopt;
  std::vector<std::string> names = c.names.case_names();
  for (const Combination& known : c.structure.combinations()) names.push_back(known.name);
  if (std::find(names.begin(), names.end(), n.text) != names.end()) return std::string(n.text);
  c.errors.unknown(n, "load case or combination", names);
  return std::nullopt;
}

namespace {

class ModesReader : PartReader {
 public:
  explicit ModesReader(const Context& c) : PartReader(c), context_(c) {}

  void run(const Node& n, ModesOptions& modes) {
    if (n.is_empty() || !errors_.is_map(n, "modes")) return;
    errors_.check_keys(n, "modes", {{"vibration"}, {"under"}, {"buckling"}});
    if (const Node* v = tree_->find(n, "vibration")) modes.vibration = count(*v);
    if (const Node* under = tree_->find(n, "under")) modes.under = case_name(context_, *under).value_or("");
    const Node* buckling = tree_->find(n, "buckling");
    if (!buckling || !errors_.is_map(*buckling, "buckling")) return;
    for (std::size_t i = 0; i < tree_->entries(*buckling); ++i) {
      const auto& [key, value] = tree_->entry(*buckling, i);
      const auto name = case_name(context_, key);
      const std::size_t n_modes = count(value);
      if (name && n_modes > 0) modes.buckling.emplace_back(*name, n_modes);
    }
  }

 private:
  std::size_t count(const Node& n) {
    constexpr std::size_t most = 1000;
    const auto v = quantities_.whole_number(n, "a number of modes");
    if (!v) return 0;
    if (*v >= 1 && *v <= most) return *v;
    errors_.fail(n, fmt::format("the number of modes is from 1 to {}", most));
    return 0;
  }

  const Context& context_;
};

}  // namespace

void read_modes(const Context& c, const Node& n, ModesOptions& modes) {
  ModesReader(c).run(n, modes);
}

}  // namespace corvex::file
