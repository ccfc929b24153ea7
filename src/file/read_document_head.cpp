// Head of a report.
#include "file/parts.hpp"

namespace corvex::file {

void read_document_head(const Context& c, const Node& n, DocumentHead& head) {
  if (n.is_empty() || !c.errors.is_map(n, "document")) return;
  const std::pair<const char*, std::string DocumentHead::*> keys[] = {
      {"project", &DocumentHead::project}, {"number", &DocumentHead::number},     {"author", &DocumentHead::author},
      {"checked", &DocumentHead::checked}, {"revision", &DocumentHead::revision}, {"date", &DocumentHead::date}};
  Keys known;
  for (const auto& [key, field] : keys) known.push_back({key});
  c.errors.check_keys(n, "document", known);
  for (const auto& [key, field] : keys)
    if (const Node* value = c.tree.find(n, key); value && c.errors.is_text(*value, "a text")) head.*field = value->text;
}

}  // namespace corvex::file
