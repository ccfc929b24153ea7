// Members: one by one, as families, repeated along families of points, from a table.
#include <algorithm>

#include "file/bounds.hpp"
#include "file/entry_order.hpp"
#include "file/parts.hpp"

namespace corvex::file {
namespace {

struct MemberEntry {
  enum class State { unread, reading, done, broken };
  std::size_t index = 0;
  State state = State::unread;
  bool family = false;
  std::vector<std::vector<PointId>> through{};
  MemberOptions options{};
};

class MemberReader : PartReader {
 public:
  MemberReader(const Context& c, TablesBeside& tables) : PartReader(c), tables_(tables) {}
  void run(const Node* n, const Node* defaults);

 private:
  void read_member_row(const std::vector<Node>& row);
  void describe_in_order(const Node& members);
  bool fits(const Node& at, std::size_t more);
  const MemberEntry* described(const Node& members, std::string_view name);
  bool describe_member(const Node& members, const Node& name, const Node& n, MemberEntry& e);
  bool repeat_member(const Node& members, const Node& name, const Node& n, MemberEntry& e);
  std::vector<const PointFamily*> point_families(const Node& along);
  static Expected<PointId, std::size_t> moved_along(const std::vector<const PointFamily*>& families, PointId p,
                                                    std::size_t k);
  bool read_options(const Node& name, const Node& n, MemberOptions& o);
  void read_defaults(const Node& n);
  // The value of a key of a member, or else of `defaults`.
  const Node* own_or_default(const Node& member, std::string_view key) const;
  bool read_end_releases(const Node& n, std::string_view end, std::vector<Component>& released);
  std::optional<MemberKind> kind_of_member(const Node& n);
  std::optional<std::vector<PointId>> through_points(const Node& n, std::string_view what);

  TablesBeside& tables_;
  std::map<std::string_view, MemberEntry> entries_;
  const Node* defaults_ = nullptr;
  bool defaults_broken_ = false;
};

void MemberReader::run(const Node* n, const Node* defaults) {
  if (defaults) read_defaults(*defaults);
  for (const auto& row : tables_.members) read_member_row(row);
  if (!n || !errors_.is_map(*n, "members")) return;
  for (std::size_t i = 0; i < tree_->entries(*n); ++i)
    entries_.emplace(tree_->entry(*n, i).key.text, MemberEntry{.index = i});
  describe_in_order(*n);
  for (std::size_t i = 0; i < tree_->entries(*n); ++i) {
    const std::string name(tree_->entry(*n, i).key.text);
    const MemberEntry* e = described(*n, name);
    if (e && !fits(tree_->entry(*n, i).key, e->through.size())) return;
    if (!e) {
      names_.mark_broken(name);
      continue;
    }
    if (!e->family) {
      structure_.member(name, e->through.front(), e->options);
      continue;
    }
    std::vector<MemberId>& family = names_.member_families[name];
    for (const auto& through : e->through)
      family.push_back(structure_.member(fmt::format("{}.{}", name, family.size() + 1), through, e->options));
    structure_.family(name, family);
  }
}

void MemberReader::read_member_row(const std::vector<Node>& row) {
  const std::string name(row[0].text);
  const std::size_t before = errors_.count();
  MemberOptions o;
  std::vector<PointId> through;
  errors_.in_file(tables_.files.at("members"), [&] {
    for (const std::size_t k : {1, 2})
      if (const auto p = names_.point(row[k])) through.push_back(*p);
    // An empty cell, or a column that is not there, means what `defaults` says.
    const auto cell = [&](std::size_t k, std::string_view key) -> const Node* {
      const bool given = k < row.size() && !row[k].text.empty();
      const Node* by_default = given || !defaults_ ? nullptr : tree_->find(*defaults_, key);
      return by_default ? by_default : k < row.size() && (given || k < 5) ? &row[k] : nullptr;
    };
    if (const auto s = names_.section(*cell(3, "section"))) o.section = *s;
    if (const auto m = names_.material(*cell(4, "material"))) o.material = *m;
    if (const Node* kind = cell(5, "kind")) o.kind = kind_of_member(*kind).value_or(MemberKind::beam);
    return true;
  });
  if (errors_.count() > before || through.size() != 2 || names_.is_broken(row[3].text) ||
      names_.is_broken(row[4].text)) {
    names_.mark_broken(name);
    return;
  }
  tables_.places["member " + name] = {tables_.files.at("members"), static_cast<int>(row[0].line),
                                      static_cast<int>(row[0].column)};
  structure_.member(name, through, o);
}

// The description of one entry of `members`, read when it is first asked for: an entry that repeats another one asks
// for that one first. Null where the description is wrong, which has been told.
const MemberEntry* MemberReader::described(const Node& members, std::string_view name) {
  const auto it = entries_.find(name);
  if (it == entries_.end()) return nullptr;
  MemberEntry& e = it->second;
  const Entry entry = tree_->entry(members, e.index);
  if (e.state == MemberEntry::State::unread) {
    e.state = MemberEntry::State::reading;
    const bool sound = describe_member(members, entry.key, entry.value, e);
    if (e.state == MemberEntry::State::reading) e.state = sound ? MemberEntry::State::done : MemberEntry::State::broken;
  }
  return e.state == MemberEntry::State::done ? &e : nullptr;
}

// Members that repeat another one after that one, however long the chain.
void MemberReader::describe_in_order(const Node& members) {
  const auto needs = [&](std::size_t i) {
    std::vector<std::size_t> all;
    if (const Node* n = tree_->find(tree_->entry(members, i).value, "repeat"); n && n->is_text())
      if (const auto it = entries_.find(n->text); it != entries_.end()) all.push_back(it->second.index);
    return all;
  };
  visit_in_order(
      tree_->entries(members), needs, [&](std::size_t i) { described(members, tree_->entry(members, i).key.text); },
      [&](std::size_t i) {
        const Node& key = tree_->entry(members, i).key;
        MemberEntry& e = entries_.find(key.text)->second;
        if (e.state != MemberEntry::State::broken)
          errors_.fail(key, fmt::format("member '{}' refers to itself", key.text));
        e.state = MemberEntry::State::broken;
      });
}

bool MemberReader::fits(const Node& at, std::size_t more) {
  const std::size_t all = structure_.members().size() + more;
  if (all <= most_members) return true;
  errors_.fail(at, fmt::format("this would make {} members; a model has at most {}", all, most_members));
  return false;
}

bool MemberReader::describe_member(const Node& members, const Node& name, const Node& n, MemberEntry& e) {
  static const Keys keys = {{"through"}, {"each"},   {"section"}, {"material"}, {"kind"},  {"hinge"}, {"release"},
                            {"roll"},    {"offset"}, {"acts"},    {"repeat"},   {"count"}, {"points"}};
  const std::string where = fmt::format("member '{}'", name.text);
  if (!n.is_map()) return errors_.is_map(n, where);
  if (!errors_.check_keys(n, where, keys)) return false;
  if (tree_->find(n, "repeat")) return repeat_member(members, name, n, e);
  for (const std::string_view key : {"count", "points"})
    if (const Node* k = tree_->find_key(n, key)) errors_.fail(*k, fmt::format("'{}' goes with 'repeat' only", key));
  const std::size_t before = errors_.count();
  bool sound = true;
  const auto add = [&](const Node& points, std::string_view what) {
    const auto through = through_points(points, what);
    sound = sound && through;
    if (through) e.through.push_back(*through);
  };
  const Node* each = tree_->find(n, "each");
  if (each && tree_->find(n, "through")) {
    errors_.fail(*tree_->find_key(n, "through"), "'through' does not go with 'each'");
  } else if (each) {
    e.family = true;
    if (!errors_.is_list(*each, "each")) return false;
    if (each->count == 0)
      errors_.fail(*each, "each: a list of lists of points was expected, for example [[A, B], [B, C]]");
    for (const Node& one : tree_->children(*each)) add(one, "the points of each member");
  } else if (const Node* points = errors_.need(n, "through", name, where)) {
    add(*points, "the points of a member");
  } else {
    sound = false;
  }
  return read_options(name, n, e.options) && sound && errors_.count() == before;
}

std::optional<std::vector<PointId>> MemberReader::through_points(const Node& n, std::string_view what) {
  if (!errors_.is_list(n, what)) return std::nullopt;
  std::vector<PointId> points;
  bool sound = true;
  for (const Node& p : tree_->children(n)) {
    const std::vector<PointId> found = names_.points(p);
    sound = sound && !found.empty();
    points.insert(points.end(), found.begin(), found.end());
    if (points.size() > most_points_of_member) {
      errors_.fail(p, fmt::format("a member has at most {} points", most_points_of_member));
      return std::nullopt;
    }
  }
  return sound ? std::optional(points) : std::nullopt;
}

bool MemberReader::repeat_member(const Node& members, const Node& name, const Node& n, MemberEntry& e) {
  const std::string where = fmt::format("the repeated member '{}'", name.text);
  const std::size_t before = errors_.count();
  errors_.check_keys(n, where, {{"repeat"}, {"count"}, {"points"}});
  const Node& of = *tree_->find(n, "repeat");
  const Node *times = errors_.need(n, "count", name, where), *along = errors_.need(n, "points", name, where);
  const auto count = times ? quantities_.whole_number(*times, "a count") : std::nullopt;
  const MemberEntry* base = nullptr;
  if (errors_.is_text(of, "the name of a member")) {
    base = described(members, of.text);
    if (!entries_.contains(of.text)) {
      std::vector<std::string> names;
      for (const auto& [known, entry] : entries_) names.emplace_back(known);
      errors_.unknown(of, "member", names);
    }
  }
  const std::vector<const PointFamily*> families = along ? point_families(*along) : std::vector<const PointFamily*>();
  if (errors_.count() > before || !base || !count || families.empty()) return false;

  const std::size_t copies = count.value_or(0);
  if (!fits(*times, copies * base->through.size())) return false;
  e.family = true;
  e.options = base->options;
  for (std::size_t k = 1; k <= copies; ++k)
    for (std::vector<PointId> through : base->through) {
      bool moves = false;
      for (PointId& p : through) {
        const auto moved = moved_along(families, p, k);
        if (!moved) {
          errors_.fail(*times, fmt::format("copy {} of '{}' would go beyond the last point of its family: {} of them "
                                           "are possible",
                                           k, of.text, moved.error()));
          return false;
        }
        moves = moves || !(*moved == p);
        p = *moved;
      }
      if (!moves) {
        errors_.fail(*along,
                     fmt::format("no point of '{}' is in these families: all copies would coincide with it", of.text));
        return false;
      }
      e.through.push_back(std::move(through));
    }
  return true;
}

std::vector<const PointFamily*> MemberReader::point_families(const Node& along) {
  std::vector<const PointFamily*> families;
  for (const Node& f : along.is_list() ? tree_->children(along) : std::span(&along, 1)) {
    if (!errors_.is_text(f, "the name of a family of points")) continue;
    if (const auto it = names_.point_families.find(f.text); it != names_.point_families.end()) {
      families.push_back(&it->second);
    } else if (!names_.is_broken(f.text)) {
      std::vector<std::string> names;
      for (const auto& [known, family] : names_.point_families) names.push_back(known);
      errors_.unknown(f, "family of points", names);
    }
  }
  return families;
}

// The point that is `k` steps further in its family, or itself where it is in none; else how many steps are possible.
Expected<PointId, std::size_t> MemberReader::moved_along(const std::vector<const PointFamily*>& families, PointId p,
                                                         std::size_t k) {
  for (const PointFamily* f : families) {
    const auto found = f->place.find(p.index);
    if (found == f->place.end()) continue;
    const std::size_t at = found->second, to = at + k * f->step;
    if (to >= f->sequence.size()) return (f->sequence.size() - 1 - at) / f->step;
    return f->sequence[to];
  }
  return p;
}

std::optional<MemberKind> MemberReader::kind_of_member(const Node& n) {
  const auto c = errors_.choice(n, "a kind of member", {{"beam"}, {"link"}});
  return c ? std::optional(*c == 0 ? MemberKind::beam : MemberKind::link) : std::nullopt;
}

void MemberReader::read_defaults(const Node& n) {
  if (!errors_.is_map(n, "defaults")) return;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "defaults", {{"section"}, {"material"}, {"kind"}});
  // Each is read once, so that an error is reported once and not at every member.
  if (const Node* section = tree_->find(n, "section")) (void)names_.section(*section);
  if (const Node* material = tree_->find(n, "material")) (void)names_.material(*material);
  if (const Node* kind = tree_->find(n, "kind")) (void)kind_of_member(*kind);
  if (errors_.count() == before)
    defaults_ = &n;
  else
    defaults_broken_ = true;
}

const Node* MemberReader::own_or_default(const Node& member, std::string_view key) const {
  const Node* own = tree_->find(member, key);
  return own || !defaults_ ? own : tree_->find(*defaults_, key);
}

bool MemberReader::read_options(const Node& name, const Node& n, MemberOptions& o) {
  const std::string where = fmt::format("member '{}'", name.text);
  const std::size_t before = errors_.count();
  const auto part = [&](std::string_view key) {
    const Node* found = own_or_default(n, key);
    return found || defaults_broken_ ? found : errors_.need(n, key, name, where);
  };
  const Node *section = part("section"), *material = part("material");
  const auto section_id = section ? names_.section(*section) : std::nullopt;
  const auto m = material ? names_.material(*material) : std::nullopt;
  if (const Node* kind = own_or_default(n, "kind")) o.kind = kind_of_member(*kind).value_or(MemberKind::beam);
  if (const Node* hinge = tree_->find(n, "hinge"))
    if (const auto c = errors_.choice(*hinge, "an end for a hinge", {{"start"}, {"end"}, {"both"}}))
      o.hinge = *c == 0 ? Hinge::start : *c == 1 ? Hinge::end : Hinge::both;
  if (const Node* roll = tree_->find(n, "roll")) o.roll = Angle::si(quantities_.read(*roll, units_.angle).value_or(0));
  if (const Node* acts = tree_->find(n, "acts"))
    if (const auto c = errors_.choice(*acts, "a direction of action", {{"tension"}, {"compression"}}))
      o.acts = *c == 0 ? Acts::tension : Acts::compression;
  if (const Node* release = tree_->find(n, "release"); release && errors_.is_map(*release, "release")) {
    errors_.check_keys(*release, "release", {{"start"}, {"end"}});
    read_end_releases(*release, "start", o.release.start);
    read_end_releases(*release, "end", o.release.end);
  }
  if (const Node* offset = tree_->find(n, "offset"); offset && errors_.is_map(*offset, "offset")) {
    errors_.check_keys(*offset, "offset", {{"start"}, {"end"}});
    for (const auto& [end, arm] :
         {std::pair<std::string_view, RigidArm*>{"start", &o.offset.start}, {"end", &o.offset.end}})
      if (const Node* v = tree_->find(*offset, end))
        if (const auto by = directions_.vector(*v, units_.length))
          *arm = {Length::si(by->x), Length::si(by->y), Length::si(by->z)};
  }
  if (section_id) o.section = *section_id;
  if (m) o.material = *m;
  return section_id && m && errors_.count() == before;
}

bool MemberReader::read_end_releases(const Node& n, std::string_view end, std::vector<Component>& released) {
  static const std::vector<Key> names = {{"axial"}, {"shear-y"}, {"shear-z"}, {"torsion"}, {"moment-y"}, {"moment-z"}};
  const Node* list = tree_->find(n, end);
  if (!list) return true;
  for (const Node& one : list->is_list() ? tree_->children(*list) : std::span(list, 1))
    if (const auto c = errors_.choice(one, "a component to release", names))
      released.push_back(static_cast<Component>(*c));
  return true;
}

}  // namespace

void read_members(const Context& c, const Node* n, const Node* defaults, TablesBeside& tables) {
  MemberReader(c, tables).run(n, defaults);
}

}  // namespace corvex::file
