#include "support/yaml.hpp"

#include <yaml.h>

#include <regex>
#include <stdexcept>

namespace corvex::test {
namespace {

using Json = nlohmann::json;

std::string text_of(const yaml_node_t& n) {
  return {reinterpret_cast<const char*>(n.data.scalar.value), n.data.scalar.length};
}

Json scalar(const yaml_node_t& n) {
  static const std::regex number(R"([-+]?(\.[0-9]+|[0-9]+(\.[0-9]*)?)([eE][-+]?[0-9]+)?)");
  const std::string text = text_of(n);
  if (n.data.scalar.style != YAML_PLAIN_SCALAR_STYLE) return text;
  if (text.empty() || text == "~" || text == "null") return nullptr;
  if (text == "true" || text == "false") return text == "true";
  if (std::regex_match(text, number)) return std::stod(text);
  return text;
}

Json node(yaml_document_t& d, int index) {
  const yaml_node_t& n = *yaml_document_get_node(&d, index);
  if (n.type == YAML_SCALAR_NODE) return scalar(n);
  if (n.type == YAML_SEQUENCE_NODE) {
    Json list = Json::array();
    for (auto* i = n.data.sequence.items.start; i != n.data.sequence.items.top; ++i) list.push_back(node(d, *i));
    return list;
  }
  Json map = Json::object();
  for (auto* p = n.data.mapping.pairs.start; p != n.data.mapping.pairs.top; ++p)
    map[text_of(*yaml_document_get_node(&d, p->key))] = node(d, p->value);
  return map;
}

}  // namespace

Json yaml_as_json(const std::string& text) {
  yaml_parser_t parser;
  yaml_document_t document;
  yaml_parser_initialize(&parser);
  yaml_parser_set_input_string(&parser, reinterpret_cast<const unsigned char*>(text.data()), text.size());
  if (yaml_parser_load(&parser, &document) == 0) {
    yaml_parser_delete(&parser);
    throw std::runtime_error("not YAML");
  }
  const Json json = node(document, 1);
  yaml_document_delete(&document);
  yaml_parser_delete(&parser);
  return json;
}

}  // namespace corvex::test
