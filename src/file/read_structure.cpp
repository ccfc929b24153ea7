#include <algorithm>

#include "file/reader.hpp"

namespace corvex::file {

void Reader::read_top() {
  const Node& root = tree_->root();
  if (!is_map(root, "a model")) return;
  check_keys(root, "a model",
             {{"corvex"},
              {"title"},
              {"notes"},
              {"units"},
              {"up"},
              {"analysis"},
              {"parameters"},
              {"materials"},
              {"sections"},
              {"points"},
              {"members"},
              {"supports"},
              {"loads"},
              {"hand"},
              {"tables", false},
              {"masses", false},
              {"combinations", false},
              {"limits", false},
              {"accept", false},
              {"variants", false}});
  if (const Node* version = tree_->find(root, "corvex"); version && version->text != "1")
    fail(*version, fmt::format("this program reads version 1 of the format, not '{}'", version->text));
  if (const Node* title = tree_->find(root, "title")) is_text(*title, "a title");
  if (const Node* n = tree_->find(root, "parameters")) read_parameters(*n);
  if (const Node* n = tree_->find(root, "units")) read_units(*n);
  const Node* points = need(root, "points", root, "a model");
  if (!points || !is_map(*points, "points")) return;
  begin_structure(*points);
  if (const Node* n = tree_->find(root, "analysis")) read_analysis(*n);
  if (const Node* n = tree_->find(root, "materials")) read_materials(*n);
  if (const Node* n = tree_->find(root, "sections")) read_sections(*n);
  read_points(*points);
  if (const Node* n = need(root, "members", root, "a model")) read_members(*n);
  if (const Node* n = need(root, "supports", root, "a model")) read_supports(*n);
  if (const Node* n = need(root, "loads", root, "a model")) read_loads(*n);
  if (const Node* n = tree_->find(root, "hand")) read_hand(*n);
}

void Reader::read_parameters(const Node& n) {
  if (!is_map(n, "parameters")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (const std::string why = why_not_a_parameter(key.text); !why.empty())
      fail(key, fmt::format("'{}' cannot be a parameter: {}", key.text, why));
    else
      parameters_.add(std::string(key.text), std::string(value.text));
  }
  // Each once, so that an unused one is checked too.
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const auto error = parameters_.own_error(key.text);
    if (error && value.is_empty())
      fail(key, fmt::format("'{}': a number or a formula was expected, but there is nothing", key.text));
    else if (error && !value.is_text())
      fail(value, fmt::format("'{}': a number or a formula was expected, but this is {}", key.text, kind_name(value)));
    else if (error)
      fail(value, fmt::format("'{}': {}", value.text, error->text), error->offset);
  }
}

void Reader::begin_structure(const Node& points) {
  const Node& root = tree_->root();
  bool two = false, three = false;
  for (std::size_t i = 0; i < tree_->entries(points); ++i) {
    const Node& p = tree_->entry(points, i).value;
    if (!p.is_list()) continue;
    two |= p.count == 2;
    three |= p.count == 3;
  }
  if (two && three)
    for (std::size_t i = 0; i < tree_->entries(points); ++i) {
      const auto& [name, p] = tree_->entry(points, i);
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
  check_keys(n, "analysis", {{"shear"}});
  if (const Node* shear = tree_->find(n, "shear"))
    if (const auto c = choice(*shear, "on or off", {{"on"}, {"off"}})) structure_.analysis().shear = *c == 0;
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

void Reader::read_points(const Node& n) {
  const std::size_t size = structure_.is_plane() ? 2 : 3;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    double c[3] = {0, 0, 0};
    bool ok = value.is_list() && value.count == size;
    if (value.is_map()) {
      if (check_keys(value, fmt::format("point '{}'", key.text),
                     {{"from", false},
                      {"by", false},
                      {"length", false},
                      {"angle", false},
                      {"between", false},
                      {"at", false},
                      {"mirror", false},
                      {"about", false},
                      {"repeat", false},
                      {"count", false}}))
        fail(value, fmt::format("point '{}': a list of coordinates was expected, as [0, 900 mm]", key.text));
    } else if (!value.is_list() || (value.count != 2 && value.count != 3)) {
      fail(value.is_list() ? value : key,
           fmt::format("point '{}': two coordinates (plane) or three (space) were expected, as [0, 900 mm]", key.text));
    }
    for (std::size_t k = 0; ok && k < size; ++k) {
      const auto q = quantity(tree_->children(value)[k], length_);
      ok = ok && q.has_value();
      c[k] = q.value_or(0);
    }
    if (ok)
      structure_.point(std::string(key.text), Length::si(c[0]), Length::si(c[1]), Length::si(c[2]));
    else
      broken_[std::string(key.text)] = true;
  }
}

template <class Id, class Things>
std::optional<Id> Reader::named(const Node& n, std::string_view what, std::optional<Id> found, const Things& things) {
  if (!is_text(n, fmt::format("the name of a {}", what))) return std::nullopt;
  if (found || broken_.contains(n.text)) return found;
  std::vector<std::string> names;
  for (const auto& thing : things) names.push_back(thing.name);
  unknown(n, what, names);
  return std::nullopt;
}

std::optional<PointId> Reader::point_named(const Node& n) {
  return named(n, "point", structure_.find_point(n.text), structure_.points());
}

std::optional<MemberId> Reader::member_named(const Node& n) {
  return named(n, "member", structure_.find_member(n.text), structure_.members());
}

void Reader::read_members(const Node& n) {
  if (!is_map(n, "members")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const std::size_t before = structure_.members().size();
    read_member(key, value);
    if (structure_.members().size() == before) broken_[std::string(key.text)] = true;
  }
}

void Reader::read_member(const Node& name, const Node& n) {
  static const Keys keys = {{"through"},      {"section"},       {"material"},       {"kind"},
                            {"hinge"},        {"roll"},          {"each", false},    {"repeat", false},
                            {"count", false}, {"points", false}, {"release", false}, {"offset", false},
                            {"acts", false}};
  const auto where = [&] { return fmt::format("member '{}'", name.text); };
  if (!n.is_map()) return (void)is_map(n, where());
  if (!check_keys(n, where(), keys)) return;
  const std::size_t before = problems_.size();
  const Node* through = need(n, "through", name, where());
  std::vector<PointId> points;
  if (through && is_list(*through, "the points of a member"))
    for (const Node& p : tree_->children(*through)) {
      const auto id = point_named(p);
      if (id)
        points.push_back(*id);
      else
        broken_[std::string(name.text)] = true;
    }
  MemberOptions o;
  const Node* section = need(n, "section", name, where());
  std::optional<SectionId> section_id;
  if (section && section->is_map()) {
    fail(*section, "the name of a section was expected; describe it under sections:");
  } else if (section && is_text(*section, "the name of a section")) {
    section_id = structure_.find_section(section->text);
    if (!section_id && !broken_.contains(section->text)) {
      std::vector<std::string> names;
      for (const NamedSection& s : structure_.sections()) names.push_back(s.name);
      unknown(*section, "section", names);
    }
  }
  const Node* material = need(n, "material", name, where());
  const auto m = material ? material_named(*material) : std::nullopt;
  if (const Node* kind = tree_->find(n, "kind"))
    if (const auto c = choice(*kind, "a kind of member", {{"beam"}, {"link"}}))
      o.kind = *c == 0 ? MemberKind::beam : MemberKind::link;
  if (const Node* hinge = tree_->find(n, "hinge"))
    if (const auto c = choice(*hinge, "an end for a hinge", {{"start"}, {"end"}, {"both"}}))
      o.hinge = *c == 0 ? Hinge::start : *c == 1 ? Hinge::end : Hinge::both;
  if (const Node* roll = tree_->find(n, "roll")) o.roll = Angle::si(quantity(*roll, angle_).value_or(0));
  if (problems_.size() > before || !section_id || !m || broken_.contains(name.text)) return;
  o.section = *section_id;
  o.material = *m;
  structure_.member(std::string(name.text), std::move(points), o);
}

void Reader::read_supports(const Node& n) {
  if (!is_map(n, "supports")) return;
  static const std::vector<Key> freedoms = {{"x"}, {"y"}, {"z"}, {"rx"}, {"ry"}, {"rz"}};
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const auto point = point_named(key);
    std::optional<Support> support;
    if (value.is_map()) {
      if (!check_keys(value, "a support", {{"hold"}, {"spring", false}})) continue;
      const Node* hold = need(value, "hold", key, fmt::format("the support at {}", key.text));
      if (!hold || !is_list(*hold, "hold")) continue;
      std::vector<Freedom> held;
      for (const Node& f : tree_->children(*hold)) {
        if (f.is_list())
          not_built(f, "a support that holds along a vector");
        else if (const auto c = choice(f, "a freedom to hold", freedoms))
          held.push_back(static_cast<Freedom>(*c));
      }
      if (hold->count == 0) fail(*hold, "the support holds nothing; expected some of x, y, z, rx, ry, rz");
      support = Support::hold(held);
    } else if (const auto c = choice(value, "a support", {{"fixed"}, {"pinned"}, {"roller"}})) {
      support = *c == 0 ? Support::fixed() : *c == 1 ? Support::pinned() : Support::roller();
    }
    if (point && support) structure_.support(*point, *support);
  }
}

}  // namespace corvex::file
