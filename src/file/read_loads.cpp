#include "file/bounds.hpp"
#include "file/parts.hpp"

namespace corvex::file {
namespace {

Force force_of(const Vector& v) {
  return {ForceSize::si(v.x), ForceSize::si(v.y), ForceSize::si(v.z)};
}

Moment moment_of(const Vector& v) {
  return {MomentSize::si(v.x), MomentSize::si(v.y), MomentSize::si(v.z)};
}

LineForce line_of(const Vector& v) {
  return {LineForceSize::si(v.x), LineForceSize::si(v.y), LineForceSize::si(v.z)};
}

// Each thing of a list in turn; the same mistake on every one of them is one mistake.
template <class Ids, class Read>
void each_until_wrong(const Errors& errors, const Ids& ids, const Read& read) {
  const std::size_t before = errors.count();
  for (const auto id : ids) {
    read(id);
    if (errors.count() > before) return;
  }
}

class LoadReader : PartReader {
 public:
  explicit LoadReader(const Context& c) : PartReader(c), context_(c) {}
  std::vector<Entries> run(const Node& n);

 private:
  void read_load(LoadCase& loads, const Node& n);
  // Errors for keys other than these, `kind`, and the remarks of an entry.
  bool only_with(const Node& n, std::string_view kind, std::vector<std::string_view> keys);
  void read_point_load(LoadCase& loads, const Node& n);
  void read_member_load(LoadCase& loads, const Node& n);
  void read_line_load(LoadCase& loads, const Node& n, MemberId member);
  void read_place_load(LoadCase& loads, const Node& n, MemberId member);
  void read_spread(LoadCase& loads, const Node& n);
  void read_heat(LoadCase& loads, const Node& n);
  void read_shorten(LoadCase& loads, const Node& n);
  void read_settle(LoadCase& loads, const Node& n);
  void read_gravity(LoadCase& loads, const Node& n);
  std::optional<Directed> load_direction(const Node& load, std::string_view key, const Wanted& wanted,
                                         DirectionRules rules);
  std::optional<Directed> moment(const Node& load, const DirectionRules& rules);

  const Context& context_;
};

std::vector<Entries> LoadReader::run(const Node& n) {
  std::vector<Entries> origin;
  std::size_t total = 0;
  if (!errors_.is_map(n, "loads")) return origin;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (key.text.empty()) errors_.fail(key, "a load case needs a name");
    LoadsOf loads = structure_.load_case(key.text);
    origin.emplace_back();
    if (value.is_empty()) continue;
    if (!errors_.is_list(value, fmt::format("load case '{}'", key.text))) continue;
    const auto entries = tree_->children(value);
    for (std::size_t k = 0; k < entries.size(); ++k) {
      const Node* where = entries[k].is_map() ? tree_->find(entries[k], "through") : nullptr;
      LoadCase own(loads.name(), structure_.up_direction());
      read_load(own, entries[k]);
      const auto place = where ? read_through(context_, *where) : std::nullopt;
      for (const Load& load : own.loads()) {
        loads.add(load);
        if (place) loads.through(*place);
      }
      total += own.loads().size();
      if (total > most_loads) {
        errors_.fail(entries[k],
                     fmt::format("loads on families count for each of their members: more than {} loads", most_loads));
        return origin;
      }
      origin.back().resize(loads.loads().size(), k);
    }
  }
  return origin;
}

bool LoadReader::only_with(const Node& n, std::string_view kind, std::vector<std::string_view> keys) {
  keys.insert(keys.end(), {"note", "source"});
  return errors_.only_with(n, kind, keys);
}

void LoadReader::read_load(LoadCase& loads, const Node& n) {
  static const Keys keys = {{"at"},     {"on"},      {"force"},   {"moment"}, {"line"},  {"from"},
                            {"to"},     {"per"},     {"axes"},    {"spread"}, {"heat"},  {"shorten"},
                            {"settle"}, {"gravity"}, {"through"}, {"note"},   {"source"}};
  if (!errors_.is_map(n, "a load")) return;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "a load", keys);
  if (errors_.count() > before) return;
  const auto has = [&](std::string_view key) { return tree_->find(n, key) != nullptr; };
  if (has("gravity")) {
    if (only_with(n, "gravity", {"through"})) read_gravity(loads, n);
  } else if (has("settle")) {
    if (only_with(n, "settle", {"at"}) && errors_.need(n, "at", n, "a settlement")) read_settle(loads, n);
  } else if (has("heat")) {
    if (only_with(n, "heat", {"on"}) && errors_.need(n, "on", n, "a temperature change")) read_heat(loads, n);
  } else if (has("shorten")) {
    if (only_with(n, "shorten", {"on"}) && errors_.need(n, "on", n, "a lack of fit")) read_shorten(loads, n);
  } else if (has("spread")) {
    if (only_with(n, "spread", {"on", "axes", "through"}) && errors_.need(n, "on", n, "a spread force"))
      read_spread(loads, n);
  } else if (has("line")) {
    if (only_with(n, "line", {"on", "from", "to", "per", "axes", "through"}) && errors_.need(n, "on", n, "a line load"))
      read_member_load(loads, n);
  } else if (has("force") || has("moment")) {
    const std::string_view kind = has("force") ? "force" : "moment";
    if (!only_with(n, kind, {"at", "on", "force", "moment", "axes", "through"})) return;
    if (has("on")) {
      if (errors_.need(n, "at", n, "a load at one place of a member")) read_member_load(loads, n);
    } else if (errors_.need(n, "at", n, "a force or moment")) {
      read_point_load(loads, n);
    }
  } else {
    errors_.fail(n, "a load needs one of: force, moment, line, spread, heat, shorten, settle, gravity");
  }
}

// A direction with the `axes` of the load.
std::optional<Directed> LoadReader::load_direction(const Node& load, std::string_view key, const Wanted& wanted,
                                                   DirectionRules rules) {
  const Node& n = *tree_->find(load, key);
  const Node* axes = tree_->find(load, "axes");
  std::optional<std::size_t> whose;
  if (axes) {
    if (!rules.on_member) {
      errors_.fail(*tree_->find_key(load, "axes"), "only loads on members can be given in a member's axes");
      return std::nullopt;
    }
    whose = errors_.choice(*axes, "whose axes", {{"member"}, {"global"}});
    if (!whose) return std::nullopt;
  }
  auto d = directions_.read(n, wanted, rules);
  if (!d || !whose || *whose != 0) return d;
  for (const std::string_view global : {"up", "down", "toward"})
    if (const Node* k = n.is_map() ? tree_->find_key(n, global) : nullptr) {
      errors_.fail(*k, fmt::format("'{}' is a global direction; in the member's axes there are x, y, z", global));
      return std::nullopt;
    }
  d->axes = LoadAxes::member;
  return d;
}

std::optional<Directed> LoadReader::moment(const Node& load, const DirectionRules& rules) {
  const Node& n = *tree_->find(load, "moment");
  if (structure_.is_plane()) {
    const auto m = quantities_.read(n, units_.moment);
    return m ? std::optional(Directed{{0, 0, *m}, {0, 0, *m}}) : std::nullopt;
  }
  if (n.is_text()) {
    errors_.fail(n, "in space a moment is a vector, for example [0, 0, 1.5 kN*m] or {z: 1.5 kN*m}");
    return std::nullopt;
  }
  return load_direction(load, "moment", units_.moment, rules);
}

void LoadReader::read_point_load(LoadCase& loads, const Node& n) {
  const auto points = names_.points(*tree_->find(n, "at"));
  // Read even where `at` is wrong, so that a second error is reported too.
  if (points.empty()) {
    if (tree_->find(n, "force")) load_direction(n, "force", units_.force, {.place = Vector{1e300, 0, 0}});
    if (tree_->find(n, "moment")) moment(n, {});
    return;
  }
  each_until_wrong(errors_, points, [&](PointId p) {
    const DirectionRules rules{.place = structure_[p].position};
    if (tree_->find(n, "force"))
      if (const auto d = load_direction(n, "force", units_.force, rules)) loads.at(p, force_of(d->first));
    if (tree_->find(n, "moment"))
      if (const auto d = moment(n, rules)) loads.at(p, moment_of(d->first));
  });
}

void LoadReader::read_member_load(LoadCase& loads, const Node& n) {
  const auto members = names_.members(*tree_->find(n, "on"));
  const bool line = tree_->find(n, "line") != nullptr;
  // Read even where `on` is wrong, so that a second error is reported too.
  if (line && members.empty()) load_direction(n, "line", units_.line, {.may_change = true, .on_member = true});
  each_until_wrong(errors_, members, [&](MemberId id) {
    if (structure_[id].through.size() < 2) return;
    if (line)
      read_line_load(loads, n, id);
    else
      read_place_load(loads, n, id);
  });
}

void LoadReader::read_place_load(LoadCase& loads, const Node& n, MemberId id) {
  const Member& m = structure_[id];
  const double L = structure_.length_of(m);
  const auto at = quantities_.position(*tree_->find(n, "at"), L);
  const Vector a = structure_.axis_start(m), b = structure_.axis_end(m);
  const DirectionRules rules{.on_member = true, .place = L > 0 ? a + (b - a) * (at.value_or(0) / L) : a};
  const auto force = tree_->find(n, "force") ? load_direction(n, "force", units_.force, rules) : std::nullopt;
  const auto turn = tree_->find(n, "moment") ? moment(n, rules) : std::nullopt;
  if (!at) return;
  if (force) loads.on(id, Length::si(*at), force_of(force->first), force->axes);
  if (turn) loads.on(id, Length::si(*at), moment_of(turn->first), turn->axes);
}

void LoadReader::read_line_load(LoadCase& loads, const Node& n, MemberId id) {
  const auto d = load_direction(n, "line", units_.line, {.may_change = true, .on_member = true});
  const double L = structure_.length_of(structure_[id]);
  double from = 0, to = L;
  for (const auto& [key, target] : {std::pair<std::string_view, double*>{"from", &from}, {"to", &to}})
    if (const Node* p = tree_->find(n, key)) {
      const auto x = quantities_.position(*p, L);
      if (!x) return;
      *target = *x;
    }
  Per per = Per::length;
  if (const Node* p = tree_->find(n, "per")) {
    const auto c = errors_.choice(*p, "a reference length of a line load", {{"plan"}, {"length"}});
    if (!c) return;
    per = *c == 0 ? Per::plan : Per::length;
  }
  if (d)
    loads.line(id, line_of(d->first), line_of(d->last),
               {.from = Length::si(from), .to = Length::si(to), .axes = d->axes, .per = per});
}

void LoadReader::read_spread(LoadCase& loads, const Node& n) {
  auto members = names_.members(*tree_->find(n, "on"));
  const auto d = load_direction(n, "spread", units_.force, {.on_member = true});
  if (d && !members.empty()) loads.spread(std::move(members), force_of(d->first), d->axes);
}

void LoadReader::read_heat(LoadCase& loads, const Node& n) {
  const auto members = names_.members(*tree_->find(n, "on"));
  const Node& heat = *tree_->find(n, "heat");
  if (!heat.is_map()) {
    const auto change = quantities_.read(heat, units_.temperature);
    if (!change) return;
    for (const MemberId m : members) loads.heat(m, Temperature::si(*change));
    return;
  }
  const std::size_t before = errors_.count();
  errors_.check_keys(heat, "heat", {{"plus-y"}, {"minus-y"}, {"plus-z"}, {"minus-z"}});
  if (errors_.count() > before) return;
  const bool y = tree_->find(heat, "plus-y") || tree_->find(heat, "minus-y");
  if (heat.count == 0 || (y && (tree_->find(heat, "plus-z") || tree_->find(heat, "minus-z"))))
    return errors_.fail(heat, "across one direction a load: {plus-y: …, minus-y: …}, or the same with z");
  const Node *plus = errors_.need(heat, y ? "plus-y" : "plus-z", heat, "heat across a member"),
             *minus = errors_.need(heat, y ? "minus-y" : "minus-z", heat, "heat across a member");
  if (!plus || !minus) return;
  const auto high = quantities_.read(*plus, units_.temperature), low = quantities_.read(*minus, units_.temperature);
  if (!high || !low) return;
  for (const MemberId m : members)
    y ? loads.temperature_gradient_y(m, Temperature::si(*high), Temperature::si(*low))
      : loads.temperature_gradient_z(m, Temperature::si(*high), Temperature::si(*low));
}

void LoadReader::read_shorten(LoadCase& loads, const Node& n) {
  const auto members = names_.members(*tree_->find(n, "on"));
  const auto by = quantities_.read(*tree_->find(n, "shorten"), units_.length);
  if (!by) return;
  for (const MemberId m : members) loads.shorten(m, Length::si(*by));
}

// Movements, and turns of supports that hold them.
void LoadReader::read_settle(LoadCase& loads, const Node& n) {
  const auto points = names_.points(*tree_->find(n, "at"));
  const Node& settle = *tree_->find(n, "settle");
  Settlement s;
  Vector move;
  const std::size_t before = errors_.count();
  if (settle.is_map()) {
    errors_.check_keys(settle, "a settlement", {{"x"}, {"y"}, {"z"}, {"up"}, {"down"}, {"rx"}, {"ry"}, {"rz"}});
    if (settle.count == 0) errors_.fail(settle, "a displacement was expected, for example {down: 3 mm}");
    for (std::size_t i = 0; i < tree_->entries(settle); ++i) {
      const auto& [key, value] = tree_->entry(settle, i);
      Angle* turn = key.text == "rx" ? &s.rx : key.text == "ry" ? &s.ry : key.text == "rz" ? &s.rz : nullptr;
      if (turn)
        *turn = Angle::si(quantities_.read(value, units_.angle).value_or(0));
      else if (Vector ignored; directions_.add(ignored, key.text, 0))
        directions_.add(move, key.text, quantities_.read(value, units_.length).value_or(0));
    }
  } else if (const auto v = directions_.vector(settle, units_.length)) {
    move = *v;
  }
  if (errors_.count() > before) return;
  s.x = Length::si(move.x), s.y = Length::si(move.y), s.z = Length::si(move.z);
  for (const PointId p : points) loads.settle(p, s);
}

void LoadReader::read_gravity(LoadCase& loads, const Node& n) {
  const Node& g = *tree_->find(n, "gravity");
  if (g.is_text() && !g.is_empty()) {
    if (const auto c = errors_.choice(g, "a direction of gravity", {{"down"}})) loads.gravity();
  } else if (const auto v = directions_.vector(g, units_.acceleration)) {
    loads.gravity({AccelerationSize::si(v->x), AccelerationSize::si(v->y), AccelerationSize::si(v->z)});
  }
}

}  // namespace

std::vector<Entries> read_loads(const Context& c, const Node& n) {
  return LoadReader(c).run(n);
}

std::vector<std::vector<LoadRemark>> read_load_remarks(const Context& c, const Node& n) {
  std::vector<std::vector<LoadRemark>> all;
  for (std::size_t i = 0; n.is_map() && i < c.tree.entries(n); ++i) {
    std::vector<LoadRemark>& remarks = all.emplace_back();
    const Node& entries = c.tree.entry(n, i).value;
    if (!entries.is_list()) continue;
    for (const Node& entry : c.tree.children(entries)) {
      LoadRemark& remark = remarks.emplace_back();
      const auto read = [&](std::string_view key, std::string& text) {
        const Node* value = entry.is_map() ? c.tree.find(entry, key) : nullptr;
        if (value && c.errors.is_text(*value, "a text")) text = value->text;
      };
      read("note", remark.note), read("source", remark.source);
    }
  }
  return all;
}

}  // namespace corvex::file
