// Model files as documents that are read once and built with any parameters.
#include <filesystem>
#include <fstream>
#include <iostream>

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
  const std::string name = path == "-" ? "standard input" : path;
  std::string text;
  if (path == "-") {
    text.assign(std::istreambuf_iterator<char>(std::cin), {});
  } else {
    std::error_code ignored;
    if (std::filesystem::is_directory(path, ignored))
      return Problems{problem_at({path, 0, 0}, "this is a folder; a model file was expected")};
    std::ifstream in(path, std::ios::binary);
    if (!in) return Problems{problem_at({path, 0, 0}, "the file cannot be opened")};
    text.assign(std::istreambuf_iterator<char>(in), {});
  }
  return read_document_text(text, name);
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
