// Supports, and masses at points.
#include "file/parts.hpp"

namespace corvex::file {
namespace {

class SupportReader : PartReader {
 public:
  explicit SupportReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);
  void read_masses(const Node& n);

 private:
  std::optional<Support> read_support(const Node& name, const Node& n);
  void read_hold(const Node& n, Support& support);
  void read_springs(const Node& n, Support& support);
  std::optional<std::pair<Mass, MassBody>> body(const Node& n);
};

void SupportReader::run(const Node& n) {
  if (!errors_.is_map(n, "supports")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::vector<PointId> points = names_.points_in_key(key);
    const std::size_t before = errors_.count();
    const auto support = read_support(key, value);
    if (support && errors_.count() == before)
      for (const PointId p : points) structure_.support(p, *support);
  }
}

std::optional<Support> SupportReader::read_support(const Node& name, const Node& n) {
  if (!n.is_map()) {
    const auto c = errors_.choice(n, "a support", {{"fixed"}, {"pinned"}, {"roller"}});
    if (!c) return std::nullopt;
    return *c == 0 ? Support::fixed() : *c == 1 ? Support::pinned() : Support::roller();
  }
  if (!errors_.check_keys(n, "a support", {{"hold"}, {"spring"}})) return std::nullopt;
  const Node *hold = tree_->find(n, "hold"), *spring = tree_->find(n, "spring");
  if (!spring && !errors_.need(n, "hold", name, fmt::format("the support at {}", name.text))) return std::nullopt;
  Support support;
  if (hold) read_hold(*hold, support);
  if (spring) read_springs(*spring, support);
  return support;
}

void SupportReader::read_hold(const Node& n, Support& support) {
  static const std::vector<Key> dofs = {{"x"}, {"y"}, {"z"}, {"rx"}, {"ry"}, {"rz"}};
  if (!errors_.is_list(n, "hold")) return;
  if (n.count == 0)
    errors_.fail(n,
                 "the support restrains nothing; expected some of x, y, z, rx, ry, rz, or a direction as [0.6, 0.8]");
  std::vector<Dof> held;
  std::vector<Vector> along;
  for (const Node& f : tree_->children(n)) {
    if (f.is_list()) {
      const auto v = directions_.components(f, units_.number);
      if (v && zero(*v)) errors_.fail(f, "a direction to restrain needs a length");
      if (v) along.push_back(*v);
    } else if (const auto c = errors_.choice(f, "a degree of freedom to restrain", dofs)) {
      held.push_back(static_cast<Dof>(*c));
    }
  }
  support = Support::hold(held);
  for (const Vector& v : along) support = support.along(v);
}

void SupportReader::read_springs(const Node& n, Support& support) {
  if (!errors_.is_map(n, "spring")) return;
  if (n.count == 0) errors_.fail(n, "a spring was expected, for example {y: 500 N/mm}");
  static const Keys keys = {{"x"}, {"y"}, {"z"}, {"rx"}, {"ry"}, {"rz"}};
  errors_.check_keys(n, "spring", keys);
  double six[6] = {};
  for (std::size_t k = 0; k < 6; ++k)
    if (const Node* v = tree_->find(n, keys[k].name)) {
      six[k] = quantities_.read(*v, k < 3 ? units_.spring : units_.turning_spring).value_or(1);
      if (six[k] == 0) errors_.fail(*v, "a spring needs a stiffness greater than zero");
    }
  support = support.spring({Stiffness::si(six[0]), Stiffness::si(six[1]), Stiffness::si(six[2]),
                            TurningStiffness::si(six[3]), TurningStiffness::si(six[4]), TurningStiffness::si(six[5])});
}

void SupportReader::read_masses(const Node& n) {
  if (!errors_.is_map(n, "masses")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::vector<PointId> points = names_.points_in_key(key);
    if (const auto mass = body(value))
      for (const PointId p : points) structure_.point_mass(p, mass->first, mass->second);
  }
}

// A mass, or one with the place of its centre and its inertia.
std::optional<std::pair<Mass, MassBody>> SupportReader::body(const Node& n) {
  if (!n.is_map()) {
    const auto mass = quantities_.read(n, units_.mass);
    return mass ? std::optional(std::pair(Mass::si(*mass), MassBody())) : std::nullopt;
  }
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "mass", {{"mass"}, {"arm"}, {"inertia"}});
  MassBody body;
  double mass = 0;
  if (const Node* m = tree_->find(n, "mass"))
    mass = quantities_.read(*m, units_.mass).value_or(0);
  else
    errors_.fail(n, "its mass is missing, for example {mass: 20 kg, arm: [0, 300 mm]}");
  if (const Node* arm = tree_->find(n, "arm"))
    if (const auto v = directions_.vector(*arm, units_.length))
      body.x = Length::si(v->x), body.y = Length::si(v->y), body.z = Length::si(v->z);
  if (const Node* given = tree_->find(n, "inertia")) {
    // One figure in the plane, about z.
    if (structure_.is_plane()) {
      body.about_z = MassInertia::si(quantities_.read(*given, units_.inertia).value_or(0));
    } else if (!given->is_list() || given->count != 3) {
      errors_.fail(
          *given,
          "three moments of inertia were expected, about x, y and z, for example [1.2 kg*m^2, 1.2 kg*m^2, 0.4 kg*m^2]");
    } else {
      MassInertia* const parts[] = {&body.about_x, &body.about_y, &body.about_z};
      std::size_t k = 0;
      for (const Node& one : tree_->children(*given))
        *parts[k++] = MassInertia::si(quantities_.read(one, units_.inertia).value_or(0));
    }
  }
  if (errors_.count() > before) return std::nullopt;
  return std::pair(Mass::si(mass), body);
}

}  // namespace

void read_supports(const Context& c, const Node& n) {
  SupportReader(c).run(n);
}

void read_masses(const Context& c, const Node& n) {
  SupportReader(c).read_masses(n);
}

}  // namespace corvex::file
