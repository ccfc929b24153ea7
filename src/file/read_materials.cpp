#include <unordered_map>

#include "file/entry_order.hpp"
#include "file/parts.hpp"

namespace corvex::file {
namespace {

class MaterialReader : PartReader {
 public:
  explicit MaterialReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);

 private:
  void read_material(const Node& name, const Node& n);
};

void MaterialReader::run(const Node& n) {
  if (!errors_.is_map(n, "materials")) return;
  // Materials may build on each other in any order.
  std::unordered_map<std::string_view, std::size_t> place;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const std::string_view name = tree_->entry(n, i).key.text;
    names_.mark_broken(name);
    place.emplace(name, i);
  }
  const auto needs = [&](std::size_t i) {
    std::vector<std::size_t> all;
    const auto& [key, value] = tree_->entry(n, i);
    const Node* like = value.is_text() ? &value : tree_->find(value, "like");
    if (like && like->is_text() && like->text != key.text)
      if (const auto it = place.find(like->text); it != place.end()) all.push_back(it->second);
    return all;
  };
  std::vector<bool> circles(tree_->entries(n), false);
  visit_in_order(
      circles.size(), needs,
      [&](std::size_t i) {
        if (!circles[i]) read_material(tree_->entry(n, i).key, tree_->entry(n, i).value);
      },
      [&](std::size_t i) {
        const Node& key = tree_->entry(n, i).key;
        if (!circles[i]) errors_.fail(key, fmt::format("material '{}' refers to one that is not known", key.text));
        circles[i] = true;
      });
}

void MaterialReader::read_material(const Node& name, const Node& n) {
  Material m;
  if (n.is_text() && !n.is_empty()) {
    const auto same = names_.material(n);
    if (!same) return;
    m = *same;
  } else {
    const std::string where = fmt::format("material '{}'", name.text);
    if (!errors_.is_map(n, where)) return;
    errors_.check_keys(n, where,
                       {{"like"}, {"E"}, {"poisson"}, {"G"}, {"density"}, {"expansion"}, {"yield"}, {"allowable"}});
    if (const Node* like = tree_->find(n, "like")) {
      const auto base = names_.material(*like);
      if (!base) return;
      m = *base;
    } else if (!tree_->find(n, "E")) {
      errors_.fail(name, fmt::format("{} needs 'E', or 'like' and the name of a material", where));
      return;
    }
    std::vector<std::string> changed;
    const auto read = [&](const char* key, const Wanted& wanted, const auto& put) {
      const Node* const v = tree_->find(n, key);
      if (!v) return;
      changed.emplace_back(key);
      if (const auto q = quantities_.read(*v, wanted)) put(*q);
    };
    read("E", units_.stress, [&](double v) { m.E = Stress::si(v); });
    // A new Poisson's ratio makes the shear modulus anew; both together would contradict each other.
    if (tree_->find(n, "poisson") && tree_->find(n, "G"))
      errors_.fail(*tree_->find_key(n, "G"),
                   fmt::format("{} has both 'poisson' and 'G'; one follows from the other", where));
    read("poisson", units_.number, [&](double v) { m.poisson = v, m.G.reset(); });
    read("G", units_.stress, [&](double v) { m.G = Stress::si(v); });
    read("density", units_.density, [&](double v) { m.density = Density::si(v); });
    read("expansion", units_.expansion, [&](double v) { m.expansion = Expansion::si(v); });
    read("yield", units_.stress, [&](double v) { m.yield = Stress::si(v), m.by_thickness.clear(); });
    read("allowable", units_.stress, [&](double v) { m.allowable = Stress::si(v); });
    if (!changed.empty()) {
      const std::string base = m.name.empty() ? "" : fmt::format("; otherwise {}, {}", m.name, m.source);
      m.source = fmt::format("{} of the model file{}", fmt::join(changed, ", "), base);
    }
  }
  m.name = name.text;
  names_.materials[m.name] = m;
}

}  // namespace

void read_materials(const Context& c, const Node& n) {
  MaterialReader(c).run(n);
}

}  // namespace corvex::file
