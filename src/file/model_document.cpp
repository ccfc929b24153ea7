// Model files as documents that are read once and built with any parameters.
#include "file/file_text.hpp"
#include "file/reader.hpp"
#include "file/starters.hpp"

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

Expected<ModelDocument, Problems> read_document_text(std::string_view text, const std::string& file) {
  auto tree = file::Tree::parse(text, file);
  if (!tree) return tree.error();
  ModelDocument document;
  document.tree_ = tree.value();
  document.file_ = file;
  return document;
}

Expected<ModelDocument, Problems> read_document(const std::string& path) {
  const auto text = file::text_of_file(path, true);
  if (!text) return Problems{text.error()};
  return read_document_text(*text, path == "-" ? "standard input" : path);
}

Expected<Model, Problems> build(const ModelDocument& document, const Overrides& overrides) {
  return file::Reader(document.tree_, document.file_, overrides).run();
}

Expected<Model, Problems> read_model_text(std::string_view text, const std::string& file) {
  const auto document = read_document_text(text, file);
  if (!document) return document.error();
  return build(*document);
}

Expected<Model, Problems> read_model(const std::string& path) {
  const auto document = read_document(path);
  if (!document) return document.error();
  return build(*document);
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
