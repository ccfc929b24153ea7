// Model files as documents that are read once and built with any parameters, variants and values.
#include <fmt/ranges.h>

#include <algorithm>
#include <filesystem>

#include "file/file_text.hpp"
#include "file/patch.hpp"
#include "file/reader.hpp"
#include "file/starters.hpp"
#include "file/tree_text.hpp"

namespace corvex {

std::vector<std::pair<std::string, std::string>> ModelDocument::parameters() const {
  std::vector<std::pair<std::string, std::string>> all;
  const file::Node* n = tree_->find(tree_->root(), "parameters");
  for (std::size_t i = 0; n && n->is_map() && i < tree_->entries(*n); ++i) {
    const auto& [key, value] = tree_->entry(*n, i);
    all.emplace_back(key.text, value.text);
  }
  return all;
}

std::vector<std::string> ModelDocument::variants() const {
  std::vector<std::string> names;
  const file::Node* n = tree_->find(tree_->root(), "variants");
  for (std::size_t i = 0; n && n->is_map() && i < tree_->entries(*n); ++i)
    names.emplace_back(tree_->entry(*n, i).key.text);
  return names;
}

std::vector<std::string> ModelDocument::changed_keys(std::string_view variant) const {
  std::vector<std::string> keys;
  const file::Node* variants = tree_->find(tree_->root(), "variants");
  const file::Node* n = variants && variants->is_map() ? tree_->find(*variants, variant) : nullptr;
  for (std::size_t i = 0; n && n->is_map() && i < tree_->entries(*n); ++i)
    keys.emplace_back(tree_->entry(*n, i).key.text);
  return keys;
}

std::vector<std::string> ModelDocument::table_files() const {
  std::vector<std::string> files;
  const auto add = [&](const file::Node& within) {
    const file::Node* tables = within.is_map() ? tree_->find(within, "tables") : nullptr;
    for (std::size_t i = 0; tables && tables->is_map() && i < tree_->entries(*tables); ++i)
      if (const file::Node& name = tree_->entry(*tables, i).value; name.is_text() && !name.text.empty())
        files.push_back(file::table_path(file_, name.text));
  };
  add(tree_->root());
  const file::Node* variants = tree_->find(tree_->root(), "variants");
  for (std::size_t i = 0; variants && variants->is_map() && i < tree_->entries(*variants); ++i)
    add(tree_->entry(*variants, i).value);
  std::sort(files.begin(), files.end());
  files.erase(std::unique(files.begin(), files.end()), files.end());
  return files;
}

Expected<ModelDocument, Problems> read_document_text(std::string_view text, const std::string& file) {
  auto tree = file::Tree::parse(text, file);
  if (!tree) return tree.error();
  ModelDocument document;
  document.tree_ = tree.value();
  document.text_ = std::make_shared<const std::string>(text);
  document.file_ = file;
  return document;
}

Expected<ModelDocument, Problems> read_document(const std::string& path, FileKind kind) {
  if (path.empty()) return Problems{Problem{"the name of a model file was expected, but it is empty"}};
  const auto text = file::text_of_file(path, kind == FileKind::any);
  if (!text) return Problems{text.error()};
  return read_document_text(*text, path == "-" ? "standard input" : path);
}

namespace {

using file::Draft;
using file::Node;
using file::Tree;

Problems whole(const std::string& file, std::string text) {
  return {problem_at({file, 0, 0}, std::move(text))};
}

// A value that is not given in the file has no position in it.
void without_places(Draft& d) {
  d.head.line = d.head.column = 0;
  for (Draft& child : d.children) without_places(child);
}

// The last part of a pointer as a text of its own.
std::string quoted(const std::string& pointer) {
  const std::vector<std::string> parts = file::parts_of(pointer);
  std::string text = "'";
  for (const char c : parts.empty() ? std::string() : parts.back()) text += c == '\'' ? "''" : std::string(1, c);
  return text + "'";
}

// The tree with the variant and the values that are asked for.
Expected<std::shared_ptr<const Tree>, Problems> patched(const std::shared_ptr<const Tree>& tree,
                                                        const std::string& file, const Overrides& o,
                                                        const std::string& changed_by) {
  if (o.variant.empty() && o.set.empty() && o.show.empty()) return tree;
  Draft root = file::draft_of(*tree, tree->root());
  std::vector<std::shared_ptr<const Tree>> sources{tree};
  if (!o.variant.empty()) {
    const Node* variants = tree->find(tree->root(), "variants");
    const Node* patch = variants ? tree->find(*variants, o.variant) : nullptr;
    if (!patch) {
      std::vector<std::string> names;
      for (std::size_t i = 0; variants && variants->is_map() && i < tree->entries(*variants); ++i)
        names.emplace_back(tree->entry(*variants, i).key.text);
      std::string hint = did_you_mean(o.variant, names);
      if (hint.empty())
        hint = names.empty() ? "; the file has no variants" : fmt::format("; there are: {}", fmt::join(names, ", "));
      return whole(file, fmt::format("there is no variant '{}'{}", o.variant, hint));
    }
    if (!patch->is_map())
      return Problems{
          problem_at({file, static_cast<int>(patch->line), static_cast<int>(patch->column)},
                     fmt::format("variant '{}' is a map of its changes, for example {{sections: {{leg: …}}}}, but "
                                 "this is {}",
                                 o.variant, file::kind_name(*patch)))};
    merge(root, draft_of(*tree, *patch));
  }
  for (const auto& [pointer, text] : o.set) {
    const std::string name = changed_by + pointer;
    auto value = Tree::parse(text, name);
    if (!value) return whole(file, fmt::format("{}: {}", name, value.error().front().text));
    sources.push_back(*value);
    Draft draft = draft_of(**value, (*value)->root());
    without_places(draft);
    auto key = Tree::parse(quoted(pointer), name);
    if (!key) return whole(file, fmt::format("{}: {}", name, key.error().front().text));
    sources.push_back(*key);
    Draft key_draft = draft_of(**key, (*key)->root());
    without_places(key_draft);
    if (const std::string why = file::set(root, pointer, key_draft, draft); !why.empty())
      return whole(file, fmt::format("{}: {}", name, why));
  }
  for (const std::string& figure : o.show) {
    const std::string name = o.names.show + " '" + figure + "'";
    auto entry = Tree::parse(
        figure.find('{') == std::string::npos ? "show: [{" + figure + "}]" : "show: [" + figure + "]", name);
    if (!entry) return whole(file, fmt::format("{}: {}", name, entry.error().front().text));
    sources.push_back(*entry);
    Draft draft = draft_of(**entry, (*entry)->root());
    without_places(draft);
    if (Draft* there = root.value("show"); there && there->head.is_list())
      there->children.push_back(draft.children[1].children.front());
    else if (!there && root.head.is_map())
      root.children.insert(root.children.end(), draft.children.begin(), draft.children.end());
  }
  return Tree::from(root, std::move(sources));
}

}  // namespace

Expected<std::string, Problems> changed_text(const ModelDocument& document, const Overrides& overrides) {
  Overrides all = overrides;
  for (const auto& [name, value] : overrides.parameters) all.set.emplace_back("/parameters/" + name, value);
  const auto tree = patched(document.tree_, document.file_, all, all.names.set + " ");
  if (!tree) return tree.error();
  return file::tree_text(**tree);
}

Expected<Model, Problems> build(const ModelDocument& document, const Overrides& overrides) {
  return build_changed(document, overrides, overrides.names.set + " ");
}

Expected<Model, Problems> build_changed(const ModelDocument& document, const Overrides& overrides,
                                        const std::string& changed_by) {
  const auto tree = patched(document.tree_, document.file_, overrides, changed_by);
  if (!tree) return tree.error();
  auto model = file::Reader(*tree, document.file_, overrides).run();
  if (model) {
    if (document.text_)
      model->sources.insert(model->sources.begin(),
                            {std::filesystem::path(document.file_).filename().string(), document.text_});
    return model;
  }
  Problems problems = model.error();
  for (Problem& p : problems) {
    if (!overrides.variant.empty()) p.text = fmt::format("variant '{}': {}", overrides.variant, p.text);
    if (overrides.set.size() == 1 && overrides.show.empty() && p.place.line == 0)
      p.text = fmt::format("{}{}: {}", changed_by, overrides.set.front().first, p.text);
    else if (!(overrides.set.empty() && overrides.show.empty()) && p.place.line == 0)
      p.text = "a value given for this run: " + p.text;
  }
  return problems;
}

Expected<ModelDocument, Problems> document_for_runs(const ModelDocument& document, const Overrides& overrides,
                                                    const Sweep& sweep) {
  const auto tree = patched(document.tree_, document.file_, overrides, overrides.names.set + " ");
  if (!tree) return tree.error();
  Draft root = draft_of(**tree, (*tree)->root());
  for (const char* key : {"sweeps", "variants", "hand", "show", "choose", "document"}) {
    const std::string within = "/" + std::string(key);
    const auto changes_it = [&](const Varied& v) { return v.name == within || v.name.starts_with(within + "/"); };
    if (std::none_of(sweep.vary.begin(), sweep.vary.end(), changes_it)) root.erase(key);
  }
  ModelDocument runs;
  runs.tree_ = Tree::from(root, {*tree});
  runs.file_ = document.file_;
  return runs;
}

Expected<Model, Problems> read_model_text(std::string_view text, const std::string& file) {
  const auto document = read_document_text(text, file);
  if (!document) return document.error();
  return build(*document);
}

Expected<Model, Problems> read_model(const std::string& path, const Overrides& overrides) {
  const auto document = read_document(path);
  if (!document) return document.error();
  return build(*document, overrides);
}

std::vector<std::string> starter_kinds() {
  std::vector<std::string> kinds;
  for (const file::Starter& s : file::starters) kinds.emplace_back(s.kind);
  return kinds;
}

std::optional<std::string> starter_model(std::string_view kind) {
  for (const file::Starter& s : file::starters)
    if (s.kind == kind) return std::string(s.text);
  return std::nullopt;
}

}  // namespace corvex
