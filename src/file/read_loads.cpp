#include <algorithm>

#include "file/reader.hpp"

namespace corvex::file {

void Reader::read_loads(const Node& n) {
  if (!is_map(n, "loads")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (key.text.empty()) fail(key, "a load case needs a name");
    LoadCase& loads = structure_.load_case(key.text);
    load_entries_.emplace_back();
    if (value.is_empty()) continue;
    if (!is_list(value, fmt::format("load case '{}'", key.text))) continue;
    const auto entries = tree_->children(value);
    for (std::size_t k = 0; k < entries.size(); ++k) {
      read_load(loads, entries[k]);
      load_entries_.back().resize(loads.loads().size(), k);
    }
  }
}

void Reader::read_load(LoadCase& loads, const Node& n) {
  static const Keys keys = {{"at"},
                            {"on"},
                            {"force"},
                            {"moment"},
                            {"line"},
                            {"from"},
                            {"to"},
                            {"gravity"},
                            {"per", false},
                            {"axes", false},
                            {"spread", false},
                            {"heat", false},
                            {"shorten", false},
                            {"settle", false}};
  if (!is_map(n, "a load")) return;
  if (!check_keys(n, "a load", keys)) return;
  const auto has = [&](std::string_view key) { return tree_->find(n, key) != nullptr; };
  const auto alone = [&](std::initializer_list<std::string_view> others, std::string_view with) {
    bool ok = true;
    for (const std::string_view o : others)
      if (const Node* key = tree_->find_key(n, o))
        fail(*key, fmt::format("'{}' does not go with '{}'", o, with)), ok = false;
    return ok;
  };
  if (has("gravity")) {
    if (alone({"at", "on", "force", "moment", "line", "from", "to"}, "gravity")) read_gravity(loads, n);
  } else if (has("line")) {
    if (!alone({"at", "force", "moment"}, "line")) return;
    if (need(n, "on", n, "a line load")) read_member_load(loads, n);
  } else if (has("force") || has("moment")) {
    if (!alone({"from", "to"}, has("force") ? "force" : "moment")) return;
    if (has("on")) {
      if (need(n, "at", n, "a load at one place of a member")) read_member_load(loads, n);
    } else if (need(n, "at", n, "a force or moment")) {
      read_point_load(loads, n);
    }
  } else if (std::none_of(misspelt_.begin(), misspelt_.end(), [&](const auto& m) { return m.first == &n; })) {
    fail(n, "a load needs one of: force, moment, line, gravity");
  }
}

std::optional<Moment> Reader::moment(const Node& n) {
  if (structure_.is_plane()) {
    const auto m = quantity(n, moment_);
    return m ? std::optional(Moment{.z = MomentSize::si(*m)}) : std::nullopt;
  }
  if (n.is_text()) {
    fail(n, "in space a moment is a vector, as [0, 0, 1.5 kN*m] or {z: 1.5 kN*m}");
    return std::nullopt;
  }
  const auto m = vector(n, moment_);
  return m ? std::optional(Moment{MomentSize::si(m->x), MomentSize::si(m->y), MomentSize::si(m->z)}) : std::nullopt;
}

namespace {

Force force_of(const Vector& v) {
  return {ForceSize::si(v.x), ForceSize::si(v.y), ForceSize::si(v.z)};
}

LineForce line_of(const Vector& v) {
  return {LineForceSize::si(v.x), LineForceSize::si(v.y), LineForceSize::si(v.z)};
}

// One name, a list of names, or all.
template <class Id, class Named>
std::vector<Id> several(const Tree& tree, const Node& n, std::size_t count, const Named& named) {
  std::vector<Id> ids;
  if (n.is_text() && n.text == "all") {
    for (std::size_t i = 0; i < count; ++i) ids.push_back({i});
  } else {
    for (const Node& name : n.is_list() ? tree.children(n) : std::span(&n, 1))
      if (const auto id = named(name)) ids.push_back(*id);
  }
  return ids;
}

}  // namespace

void Reader::read_point_load(LoadCase& loads, const Node& n) {
  const auto points = several<PointId>(*tree_, *tree_->find(n, "at"), structure_.points().size(),
                                       [this](const Node& name) { return point_named(name); });
  if (const Node* f = tree_->find(n, "force"))
    if (const auto v = vector(*f, force_))
      for (const PointId p : points) loads.at(p, force_of(*v));
  if (const Node* m = tree_->find(n, "moment"))
    if (const auto v = moment(*m))
      for (const PointId p : points) loads.at(p, *v);
}

void Reader::read_member_load(LoadCase& loads, const Node& n) {
  const auto members = several<MemberId>(*tree_, *tree_->find(n, "on"), structure_.members().size(),
                                         [this](const Node& name) { return member_named(name); });
  const Node *line = tree_->find(n, "line"), *f = tree_->find(n, "force"), *m = tree_->find(n, "moment");
  // Read even where `on` is wrong, so that a second mistake is told too.
  const auto force = f ? vector(*f, force_) : std::nullopt;
  const auto turn = m ? moment(*m) : std::nullopt;
  if (line && members.empty()) vector_pair(*line, line_);
  for (const MemberId id : members) {
    if (structure_[id].through.size() < 2) continue;
    const std::size_t before = problems_.size();
    if (line) {
      read_line_load(loads, n, id);
    } else if (const auto at = position(*tree_->find(n, "at"), structure_.length_of(structure_[id]))) {
      if (force) loads.on(id, Length::si(*at), force_of(*force));
      if (turn) loads.on(id, Length::si(*at), *turn);
    }
    // The same mistake on every member of a list is one mistake.
    if (problems_.size() > before) return;
  }
}

void Reader::read_line_load(LoadCase& loads, const Node& n, MemberId id) {
  const auto values = vector_pair(*tree_->find(n, "line"), line_);
  const double L = structure_.length_of(structure_[id]);
  double from = 0, to = L;
  for (const auto& [key, target] : {std::pair<std::string_view, double*>{"from", &from}, {"to", &to}})
    if (const Node* p = tree_->find(n, key)) {
      const auto x = position(*p, L);
      if (!x) return;
      *target = *x;
    }
  if (values) loads.line(id, line_of(values->first), line_of(values->second), Length::si(from), Length::si(to));
}

void Reader::read_gravity(LoadCase& loads, const Node& n) {
  const Node& g = *tree_->find(n, "gravity");
  if (g.is_text() && !g.is_empty()) {
    if (const auto c = choice(g, "a direction of gravity", {{"down"}})) loads.gravity();
  } else if (const auto v = vector(g, acceleration_)) {
    loads.gravity({AccelerationSize::si(v->x), AccelerationSize::si(v->y), AccelerationSize::si(v->z)});
  }
}

}  // namespace corvex::file
