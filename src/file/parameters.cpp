#include "file/parameters.hpp"

namespace corvex::file {
Parameters::Parameters(const Tree& tree, Errors& errors, Overrides overrides)
    : tree_(&tree), errors_(errors), overrides_(std::move(overrides)) {}

void Parameters::read() {
  const Node& root = tree_->root();
  const Node* parameters = tree_->find(root, "parameters");
  if (parameters) read_all(*parameters);
  for (const auto& [name, value] : overrides_.parameters) {
    if (parameters && parameters->is_map() && tree_->find(*parameters, name)) continue;
    std::vector<std::string> names;
    for (std::size_t i = 0; parameters && parameters->is_map() && i < tree_->entries(*parameters); ++i)
      names.emplace_back(tree_->entry(*parameters, i).key.text);
    std::string hint = did_you_mean(name, names);
    if (hint.empty() && names.empty()) hint = "; the file has no parameters";
    errors_.fail(parameters ? *parameters : root, fmt::format("there is no parameter '{}'{}", name, hint));
  }
}

std::vector<std::pair<std::string, std::string>> Parameters::all() const {
  std::vector<std::pair<std::string, std::string>> all;
  const Node* n = tree_->find(tree_->root(), "parameters");
  for (std::size_t i = 0; n && n->is_map() && i < tree_->entries(*n); ++i) {
    const auto& [key, value] = tree_->entry(*n, i);
    if (why_not_a_parameter(key.text).empty()) all.emplace_back(key.text, text(key, value));
  }
  return all;
}

void Parameters::read_all(const Node& n) {
  if (!errors_.is_map(n, "parameters")) return;
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    if (const std::string why = why_not_a_parameter(key.text); !why.empty())
      errors_.fail(key, fmt::format("'{}' cannot be a parameter: {}", key.text, why));
    else
      definitions_.add(std::string(key.text), text(key, value));
  }
  // Each once, so that an unused one is checked too.
  for (std::size_t i = 0; i < tree_->entries(n); ++i) {
    const auto& [key, value] = tree_->entry(n, i);
    const auto error = definitions_.own_error(key.text);
    const auto given = overrides_.parameters.find(std::string(key.text));
    if (error && given != overrides_.parameters.end())
      errors_.fail(value, fmt::format("'{}', given for {}: {}", given->second, key.text, error->text));
    else if (error && value.is_empty())
      errors_.fail(key, fmt::format("'{}': a number or a formula was expected, but there is nothing", key.text));
    else if (error && !value.is_text())
      errors_.fail(value,
                   fmt::format("'{}': a number or a formula was expected, but this is {}", key.text, kind_name(value)));
    else if (error)
      errors_.fail(value, fmt::format("'{}': {}", value.text, error->text), error->offset);
  }
}

std::string Parameters::text(const Node& name, const Node& value) const {
  const auto given = overrides_.parameters.find(std::string(name.text));
  return given == overrides_.parameters.end() ? std::string(value.text) : given->second;
}

}  // namespace corvex::file
