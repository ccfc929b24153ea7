#include <algorithm>

#include "file/reader.hpp"

namespace corvex::file {

void Reader::read_top() {
  const Node& root = tree_->root();
  if (!is_map(root, "a model")) return;
  check_keys(root, "a model", {{"corvex"},   {"$schema"},    {"title"},     {"notes"},    {"units"},  {"up"},
                               {"analysis"}, {"parameters"}, {"materials"}, {"sections"}, {"points"}, {"members"},
                               {"supports"}, {"loads"},      {"hand"},      {"tables"},   {"masses"}, {"combinations"},
                               {"limits"},   {"accept"},     {"variants"},  {"defaults"}});
  // Parts that add to the results without changing them: the rest is solved, and what is left out is told.
  if (const Node* n = tree_->find_key(root, "accept")) warn(*n, "'accept' is not built yet: it is left out");
  if (const Node* n = tree_->find_key(root, "variants"))
    warn(*n, "'variants' is not built yet: the model is solved as it stands");
  if (const Node* version = tree_->find(root, "corvex"); version && version->text != "1")
    fail(*version, fmt::format("this program reads version 1 of the format, not '{}'", version->text));
  if (const Node* title = tree_->find(root, "title")) is_text(*title, "a title");
  const Node* parameters = tree_->find(root, "parameters");
  if (parameters) read_parameters(*parameters);
  for (const auto& [name, value] : overrides_.parameters) {
    if (parameters && parameters->is_map() && tree_->find(*parameters, name)) continue;
    std::vector<std::string> names;
    for (std::size_t i = 0; parameters && parameters->is_map() && i < tree_->entries(*parameters); ++i)
      names.emplace_back(tree_->entry(*parameters, i).key.text);
    std::string hint = did_you_mean(name, names);
    if (hint.empty() && names.empty()) hint = "; the file has no parameters";
    fail(parameters ? *parameters : root, fmt::format("there is no parameter '{}'{}", name, hint));
  }
  if (const Node* n = tree_->find(root, "units")) read_units(*n);
  if (const Node* n = tree_->find(root, "tables")) read_tables(*n);
  const TableRows &point_rows = table_rows_["points"], &member_rows = table_rows_["members"];
  const auto part = [&](std::string_view key) {
    const bool in_table = table_rows_.at(std::string(key)).empty() == false || table_files_.contains(std::string(key));
    return in_table ? tree_->find(root, key) : need(root, key, root, "a model");
  };
  const Node* points = part("points");
  if (points && !is_map(*points, "points")) return;
  if (!points && point_rows.empty()) return;
  begin_structure(points, point_rows);
  if (const Node* n = tree_->find(root, "analysis")) read_analysis(*n);
  if (const Node* n = tree_->find(root, "materials")) read_materials(*n);
  if (const Node* n = tree_->find(root, "sections")) read_sections(*n);
  read_points(points, point_rows);
  if (const Node* n = tree_->find(root, "defaults")) read_defaults(*n);
  if (const Node* n = part("members"); n || !member_rows.empty()) read_members(n, member_rows);
  if (const Node* n = need(root, "supports", root, "a model")) read_supports(*n);
  if (const Node* n = tree_->find(root, "masses")) read_masses(*n);
  if (const Node* n = need(root, "loads", root, "a model")) read_loads(*n);
  if (const Node* n = tree_->find(root, "combinations")) read_combinations(*n);
  if (const Node* n = tree_->find(root, "limits")) read_limits(*n);
  if (const Node* n = tree_->find(root, "hand")) read_hand(*n);
}

void Reader::read_parameters(const Node& n) {
  if (!is_map(n, "parameters")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (const std::string why = why_not_a_parameter(key.text); !why.empty())
      fail(key, fmt::format("'{}' cannot be a parameter: {}", key.text, why));
    else
      parameters_.add(std::string(key.text), parameter_text(key, value));
  }
  // Each once, so that an unused one is checked too.
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const auto error = parameters_.own_error(key.text);
    const auto given = overrides_.parameters.find(std::string(key.text));
    if (error && given != overrides_.parameters.end())
      fail(value, fmt::format("'{}', given for {}: {}", given->second, key.text, error->text));
    else if (error && value.is_empty())
      fail(key, fmt::format("'{}': a number or a formula was expected, but there is nothing", key.text));
    else if (error && !value.is_text())
      fail(value, fmt::format("'{}': a number or a formula was expected, but this is {}", key.text, kind_name(value)));
    else if (error)
      fail(value, fmt::format("'{}': {}", value.text, error->text), error->offset);
  }
}

std::string Reader::parameter_text(const Node& name, const Node& value) const {
  const auto given = overrides_.parameters.find(std::string(name.text));
  return given == overrides_.parameters.end() ? std::string(value.text) : given->second;
}

void Reader::begin_structure(const Node* points, const TableRows& table) {
  const Node& root = tree_->root();
  const std::size_t count = points ? tree_->entries(*points) : 0;
  const bool table_in_space = !table.empty() && table.front().size() == 4;
  bool two = !table.empty() && !table_in_space, three = table_in_space;
  for (std::size_t i = 0; i < count; ++i) {
    const Node& p = tree_->entry(*points, i).value;
    if (!p.is_list()) continue;
    two |= p.count == 2;
    three |= p.count == 3;
  }
  if (two && three && !table.empty() && !table_in_space)
    fail(*tree_->find(*tree_->find(root, "tables"), "points"),
         "the points of this table have two coordinates, others have three: a structure is either plane or in space");
  if (two && three)
    for (std::size_t i = 0; i < count; ++i) {
      const auto& [name, p] = tree_->entry(*points, i);
      if (!p.is_list() || p.count != 2) continue;
      fail(name, fmt::format("point {} has two coordinates, others have three: a structure is either plane or in space",
                             name.text));
      break;
    }
  const Node* title = tree_->find(root, "title");
  const std::string name(title && title->is_text() ? title->text : std::string_view("untitled"));
  Up up = Up::z;
  if (const Node* n = tree_->find(root, "up")) {
    if (const auto c = choice(*n, "a direction for up", {{"y"}, {"z"}})) {
      up = *c == 0 ? Up::y : Up::z;
      if (!three && up == Up::z) fail(*n, "in a plane structure y is up (all points have two coordinates)");
    }
  }
  structure_ = three ? Structure::space(name, up) : Structure::plane(name);
}

void Reader::read_analysis(const Node& n) {
  if (!is_map(n, "analysis")) return;
  check_keys(n, "analysis", {{"shear"}, {"through"}});
  if (const Node* shear = tree_->find(n, "shear"))
    if (const auto c = choice(*shear, "on or off", {{"on"}, {"off"}})) structure_.analysis().shear = *c == 0;
  if (const Node* where = tree_->find(n, "through"))
    if (const auto place = through(*where)) structure_.analysis().through = *place;
}

void Reader::read_materials(const Node& n) {
  if (!is_map(n, "materials")) return;
  // Materials may build on each other in any order; each round reads those whose base is known.
  for (std::size_t i = 0; i < tree_->entries(n); ++i) broken_[std::string(tree_->entry(n, i).key.text)] = true;
  std::vector<bool> done(tree_->entries(n), false);
  for (bool progress = true; progress;) {
    progress = false;
    for (std::size_t i = 0; i < done.size(); ++i) {
      const auto& [key, value] = tree_->entry(n, i);
      const Node* like = tree_->find(value, "like");
      const bool waits = !done[i] && like && like->is_text() && like->text != key.text && tree_->find(n, like->text) &&
                         !materials_.contains(like->text);
      if (done[i] || waits) continue;
      read_material(key, value);
      done[i] = progress = true;
    }
  }
  for (std::size_t i = 0; i < done.size(); ++i)
    if (!done[i])
      fail(tree_->entry(n, i).key,
           fmt::format("material '{}' waits for one that is not known", tree_->entry(n, i).key.text));
}

std::optional<Material> Reader::material_named(const Node& n) {
  if (!is_text(n, "the name of a material")) return std::nullopt;
  if (const auto it = materials_.find(n.text); it != materials_.end()) return it->second;
  if (auto known = find_material(n.text)) return known;
  if (broken_.contains(n.text)) return std::nullopt;
  std::vector<std::string> names = material_names();
  for (const auto& [name, material] : materials_) names.push_back(name);
  unknown(n, "material", names);
  return std::nullopt;
}

void Reader::read_material(const Node& name, const Node& n) {
  Material m;
  if (n.is_text() && !n.is_empty()) {
    const auto same = material_named(n);
    if (!same) return;
    m = *same;
  } else {
    const std::string where = fmt::format("material '{}'", name.text);
    if (!is_map(n, where)) return;
    check_keys(n, where, {{"like"}, {"E"}, {"poisson"}, {"G"}, {"density"}, {"expansion"}, {"yield"}, {"allowable"}});
    if (const Node* like = tree_->find(n, "like")) {
      const auto base = material_named(*like);
      if (!base) return;
      m = *base;
    } else if (!tree_->find(n, "E")) {
      fail(name, fmt::format("{} needs 'E', or 'like' and the name of a material", where));
      return;
    }
    const auto read = [&](const char* key, const Wanted& wanted, const auto& put) {
      if (const Node* v = tree_->find(n, key))
        if (const auto q = quantity(*v, wanted)) put(*q);
    };
    read("E", stress_, [&](double v) { m.E = Stress::si(v); });
    // A new Poisson's ratio makes the shear modulus anew; both together would contradict each other.
    if (tree_->find(n, "poisson") && tree_->find(n, "G"))
      fail(*tree_->find_key(n, "G"), fmt::format("{} has both 'poisson' and 'G'; one follows from the other", where));
    read("poisson", number_, [&](double v) { m.poisson = v, m.G.reset(); });
    read("G", stress_, [&](double v) { m.G = Stress::si(v); });
    read("density", density_, [&](double v) { m.density = Density::si(v); });
    read("expansion", expansion_, [&](double v) { m.expansion = Expansion::si(v); });
    read("yield", stress_, [&](double v) { m.yield = Stress::si(v), m.by_thickness.clear(); });
    read("allowable", stress_, [&](double v) { m.allowable = Stress::si(v); });
  }
  m.name = name.text;
  materials_[m.name] = m;
}

bool Reader::is_broken(std::string_view name) const {
  if (broken_.contains(name)) return true;
  const std::size_t dot = name.rfind('.');
  return dot != std::string_view::npos && broken_.contains(name.substr(0, dot));
}

template <class Id, class Things>
std::optional<Id> Reader::named(const Node& n, std::string_view what, std::optional<Id> found, const Things& things) {
  if (!is_text(n, fmt::format("the name of a {}", what))) return std::nullopt;
  if (found || is_broken(n.text)) return found;
  std::vector<std::string> names;
  for (const auto& thing : things) names.push_back(thing.name);
  unknown(n, what, names);
  return std::nullopt;
}

std::optional<PointId> Reader::point_named(const Node& n) {
  if (n.is_text() && point_families_.contains(n.text) && !structure_.find_point(n.text)) {
    fail(n, fmt::format("'{0}' is a family of points; one of them was expected, as '{0}.1'", n.text));
    return std::nullopt;
  }
  return named(n, "point", structure_.find_point(n.text), structure_.points());
}

std::optional<MemberId> Reader::member_named(const Node& n) {
  if (n.is_text() && member_families_.contains(n.text) && !structure_.find_member(n.text)) {
    fail(n, fmt::format("'{0}' is a family of members; one of them was expected, as '{0}.1'", n.text));
    return std::nullopt;
  }
  return named(n, "member", structure_.find_member(n.text), structure_.members());
}

std::optional<SectionId> Reader::section_named(const Node& n) {
  if (n.is_map()) {
    fail(n, "the name of a section was expected; describe it under sections:");
    return std::nullopt;
  }
  const auto known = structure_.find_section(n.text);
  if (!known && !is_broken(n.text) && is_designation(n)) return designated(n);
  return named(n, "section", known, structure_.sections());
}

template <class Id, class Families, class One>
std::vector<Id> Reader::several(const Node& n, std::size_t count, const Families& families, const One& one) {
  std::vector<Id> ids;
  if (n.is_text() && n.text == "all") {
    for (std::size_t i = 0; i < count; ++i) ids.emplace_back(i);
    return ids;
  }
  for (const Node& name : n.is_list() ? tree_->children(n) : std::span(&n, 1)) {
    const auto family = name.is_text() ? families(name.text) : std::nullopt;
    if (family)
      ids.insert(ids.end(), family->begin(), family->end());
    else if (const auto id = one(name))
      ids.push_back(*id);
  }
  return ids;
}

std::vector<PointId> Reader::points_named(const Node& n) {
  return several<PointId>(
      n, structure_.points().size(),
      [&](std::string_view name) -> std::optional<std::vector<PointId>> {
        const auto it = point_families_.find(name);
        return it == point_families_.end() ? std::nullopt : std::optional(it->second.members);
      },
      [&](const Node& name) { return point_named(name); });
}

std::vector<PointId> Reader::points_in_key(const Node& key) {
  if (key.text.find(',') == std::string_view::npos) return points_named(key);
  std::vector<PointId> all;
  for (std::size_t at = 0; at <= key.text.size();) {
    const std::size_t end = std::min(key.text.find(',', at), key.text.size());
    const std::string_view part = key.text.substr(at, end - at);
    const std::size_t first = part.find_first_not_of(' '), last = part.find_last_not_of(' ');
    Node one = key;
    one.quoted = false;
    one.text = first == std::string_view::npos ? std::string_view() : part.substr(first, last - first + 1);
    one.column += static_cast<std::uint32_t>(at + (first == std::string_view::npos ? 0 : first) + (key.quoted ? 1 : 0));
    if (one.text.empty())
      fail(one, "the name of a point was expected beside the comma");
    else
      for (const PointId p : points_named(one)) all.push_back(p);
    at = end + 1;
  }
  return all;
}

std::vector<MemberId> Reader::members_named(const Node& n) {
  return several<MemberId>(
      n, structure_.members().size(),
      [&](std::string_view name) -> std::optional<std::vector<MemberId>> {
        const auto it = member_families_.find(name);
        return it == member_families_.end() ? std::nullopt : std::optional(it->second);
      },
      [&](const Node& name) { return member_named(name); });
}

void Reader::read_supports(const Node& n) {
  if (!is_map(n, "supports")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::vector<PointId> points = points_in_key(key);
    const std::size_t before = problems_.size();
    const auto support = read_support(key, value);
    if (support && problems_.size() == before)
      for (const PointId p : points) structure_.support(p, *support);
  }
}

std::optional<Support> Reader::read_support(const Node& name, const Node& n) {
  if (!n.is_map()) {
    const auto c = choice(n, "a support", {{"fixed"}, {"pinned"}, {"roller"}});
    if (!c) return std::nullopt;
    return *c == 0 ? Support::fixed() : *c == 1 ? Support::pinned() : Support::roller();
  }
  if (!check_keys(n, "a support", {{"hold"}, {"spring"}})) return std::nullopt;
  const Node *hold = tree_->find(n, "hold"), *spring = tree_->find(n, "spring");
  if (!spring && !need(n, "hold", name, fmt::format("the support at {}", name.text))) return std::nullopt;
  Support support;
  if (hold) read_hold(*hold, support);
  if (spring) read_springs(*spring, support);
  return support;
}

void Reader::read_hold(const Node& n, Support& support) {
  static const std::vector<Key> freedoms = {{"x"}, {"y"}, {"z"}, {"rx"}, {"ry"}, {"rz"}};
  if (!is_list(n, "hold")) return;
  if (n.count == 0)
    fail(n, "the support holds nothing; expected some of x, y, z, rx, ry, rz, or a direction as [0.6, 0.8]");
  std::vector<Freedom> held;
  std::vector<Vector> along;
  for (const Node& f : tree_->children(n)) {
    if (f.is_list()) {
      const auto v = components(f, number_);
      if (v && zero(*v)) fail(f, "a direction to hold needs a length");
      if (v) along.push_back(*v);
    } else if (const auto c = choice(f, "a freedom to hold", freedoms)) {
      held.push_back(static_cast<Freedom>(*c));
    }
  }
  support = Support::hold(held);
  for (const Vector& v : along) support = support.along(v);
}

void Reader::read_springs(const Node& n, Support& support) {
  if (!is_map(n, "spring")) return;
  if (n.count == 0) fail(n, "a spring was expected, as {y: 500 N/mm}");
  static const Keys keys = {{"x"}, {"y"}, {"z"}, {"rx"}, {"ry"}, {"rz"}};
  check_keys(n, "spring", keys);
  double six[6] = {};
  for (std::size_t k = 0; k < 6; ++k)
    if (const Node* v = tree_->find(n, keys[k].name)) {
      six[k] = quantity(*v, k < 3 ? spring_ : turning_spring_).value_or(1);
      if (six[k] == 0) fail(*v, "a spring needs a stiffness greater than zero");
    }
  support = support.spring({Stiffness::si(six[0]), Stiffness::si(six[1]), Stiffness::si(six[2]),
                            TurningStiffness::si(six[3]), TurningStiffness::si(six[4]), TurningStiffness::si(six[5])});
}

void Reader::read_masses(const Node& n) {
  if (!is_map(n, "masses")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::vector<PointId> points = points_in_key(key);
    if (const auto mass = quantity(value, mass_))
      for (const PointId p : points) structure_.point_mass(p, Mass::si(*mass));
  }
}

}  // namespace corvex::file
