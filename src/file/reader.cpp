#include "file/reader.hpp"

#include "file/unused.hpp"

namespace corvex::file {

Reader::Reader(std::shared_ptr<const Tree> tree, std::string file, Overrides overrides)
    : tree_(std::move(tree)),
      overrides_(overrides),
      errors_(*tree_, std::move(file)),
      parameters_(*tree_, errors_, std::move(overrides)),
      model_{.structure = Structure::plane("")},
      quantities_(*tree_, errors_, parameters_.definitions(), units_),
      names_(*tree_, errors_, model_.structure),
      directions_(*tree_, errors_, quantities_, names_, units_, model_.structure),
      context_{*tree_, errors_, parameters_, units_, quantities_, names_, directions_, model_.structure} {
  model_.file = errors_.file();
}

Expected<Model, Problems> Reader::run() {
  if (errors_.is_map(tree_->root(), "a model")) {
    read_head();
    read_structure();
  }
  model_.tree = tree_;
  for (const auto& [kind, path] : tables_.files) model_.table_files.push_back(path);
  model_.table_places = std::move(tables_.places);
  model_.sources = std::move(tables_.sources);
  check_what_was_read();
  if (errors_.count() > 0) return errors_.take_problems();
  model_.notes = errors_.take_notes();
  for (Problem& p : unused(*tree_, model_.structure, !tables_.files.empty())) model_.notes.push_back(std::move(p));
  return std::move(model_);
}

void Reader::read_head() {
  const Node& root = tree_->root();
  errors_.check_keys(
      root, "a model",
      {{"corvex"},     {"$schema"},   {"title"},    {"notes"},        {"units"},   {"up"},       {"analysis"},
       {"parameters"}, {"materials"}, {"sections"}, {"points"},       {"members"}, {"supports"}, {"loads"},
       {"hand"},       {"tables"},    {"masses"},   {"combinations"}, {"limits"},  {"accept"},   {"variants"},
       {"bracing"},    {"defaults"},  {"show"},     {"choose"},       {"sweeps"},  {"document"}, {"modes"}});
  if (const Node* n = tree_->find(root, "variants")) check_variants(*n);
  if (const Node* version = tree_->find(root, "corvex"); version && version->text != "1")
    errors_.fail(*version, fmt::format("this program reads version 1 of the format, not '{}'", version->text));
  if (const Node* title = tree_->find(root, "title")) errors_.is_text(*title, "a title");
  parameters_.read();
  if (const Node* n = tree_->find(root, "units")) read_units(*tree_, errors_, *n, units_, model_.units);
  if (const Node* n = tree_->find(root, "tables")) read_tables(*tree_, errors_, *n, overrides_, tables_);
}

// Each is checked when it is built; here only that they are what they should be.
void Reader::check_variants(const Node& n) {
  if (n.is_empty() || !errors_.is_map(n, "variants")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [name, patch] = tree_->entry(n, i);
    if (!patch.is_empty()) errors_.is_map(patch, fmt::format("variant '{}'", name.text));
    if (const Node* inner = tree_->find_key(patch, "variants"))
      errors_.fail(*inner, "a variant has no variants of its own");
  }
}

void Reader::read_structure() {
  const Node& root = tree_->root();
  const auto part = [&](const char* key) {
    return tables_.named.contains(key) ? tree_->find(root, key) : errors_.need(root, key, root, "a model");
  };
  const Node* points = part("points");
  if (points && !errors_.is_map(*points, "points")) return;
  if (!points && tables_.points.empty()) return;
  begin_structure(points);
  const auto read = [&](const char* key, const auto& reader) {
    if (const Node* n = tree_->find(root, key)) reader(context_, *n);
  };
  read("analysis", read_analysis);
  read("materials", read_materials);
  read("sections", read_sections);
  read_points(context_, points, tables_);
  read_members(context_, part("members"), tree_->find(root, "defaults"), tables_);
  if (const Node* n = errors_.need(root, "supports", root, "a model")) read_supports(context_, *n);
  read("masses", read_masses);
  read("bracing", read_bracing);
  if (const Node* n = errors_.need(root, "loads", root, "a model")) {
    model_.load_entries = read_loads(context_, *n);
    model_.load_remarks = read_load_remarks(context_, *n);
  }
  read("combinations", read_combinations);
  if (const Node* n = tree_->find(root, "limits")) model_.limit_entries = read_limits(context_, *n, model_.limits);
  if (const Node* n = tree_->find(root, "accept")) read_accept(context_, *n, model_.acceptances);
  if (const Node* n = tree_->find(root, "notes")) model_.assumptions = read_assumptions(context_, *n);
  if (const Node* n = tree_->find(root, "document")) read_document_head(context_, *n, model_.document);
  if (const Node* n = tree_->find(root, "modes")) read_modes(context_, *n, model_.modes);
  if (const Node* n = tree_->find(root, "choose")) read_choose(context_, *n, model_.choose);
  if (const Node* n = tree_->find(root, "show")) read_show(context_, *n, model_.show);
  if (const Node* n = tree_->find(root, "sweeps")) read_sweeps(context_, *n, model_.sweeps);
  if (const Node* n = tree_->find(root, "hand")) model_.hand_entries = read_hand(context_, *n, model_.hand);
}

void Reader::begin_structure(const Node* points) {
  const Node& root = tree_->root();
  const auto& table = tables_.points;
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
    errors_.fail(
        *tree_->find(*tree_->find(root, "tables"), "points"),
        "the points of this table have two coordinates, others have three: a structure is either plane or in space");
  if (two && three)
    for (std::size_t i = 0; i < count; ++i) {
      const auto& [name, p] = tree_->entry(*points, i);
      if (!p.is_list() || p.count != 2) continue;
      errors_.fail(
          name, fmt::format("point {} has two coordinates, others have three: a structure is either plane or in space",
                            name.text));
      break;
    }
  const Node* title = tree_->find(root, "title");
  const std::string name(title && title->is_text() ? title->text : std::string_view("untitled"));
  Up up = Up::z;
  if (const Node* n = tree_->find(root, "up")) {
    if (const auto c = errors_.choice(*n, "a direction for up", {{"y"}, {"z"}})) {
      up = *c == 0 ? Up::y : Up::z;
      if (!three && up == Up::z) errors_.fail(*n, "in a plane structure y is up (all points have two coordinates)");
    }
  }
  model_.structure = three ? Structure::space(name, up) : Structure::plane(name);
  model_.structure.print_units(model_.units);
}

// The part of the model that could be read may contain further errors, which are reported in the same run.
void Reader::check_what_was_read() {
  // Checks of the whole structure are skipped if a part of it is missing.
  if (errors_.count() > 0)
    for (Problem& p : model_.located(model_.structure.validate()))
      if (p.subject.kind != Subject::Kind::structure) errors_.add(std::move(p));
  const Node &root = tree_->root(), *parameters = tree_->find(root, "parameters");
  if (!tree_->find(root, "hand")) return;
  for (Problem& p : model_.located(check(model_.structure, model_.hand))) {
    // A wrong parameter has been told where it stands.
    const bool told = p.subject.kind == Subject::Kind::hand_value && parameters &&
                      tree_->find(*parameters, p.subject.name) != nullptr && p.key == "is";
    if (!told) errors_.add(std::move(p));
  }
}

}  // namespace corvex::file
