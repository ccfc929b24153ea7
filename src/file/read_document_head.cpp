// Head of a report, and assumptions.
#include "file/parts.hpp"

namespace corvex::file {
namespace {

using Head = DocumentHead;

void read_text(const Context& c, const Node& n, std::string& text) {
  if (c.errors.is_text(n, "a text")) text = n.text;
}

// A name, or {name: …, date: …}.
void read_person(const Context& c, const Node& n, std::string_view key, std::string& name, std::string& date) {
  if (!n.is_map()) return read_text(c, n, name);
  c.errors.check_keys(n, key, {{"name"}, {"date"}});
  if (const Node* value = c.tree.find(n, "name")) read_text(c, *value, name);
  if (const Node* value = c.tree.find(n, "date")) read_text(c, *value, date);
}

void read_revisions(const Context& c, const Node& n, std::vector<Head::Revision>& revisions) {
  if (n.is_empty() || !c.errors.is_list(n, "revisions")) return;
  using Revision = Head::Revision;
  static constexpr std::pair<const char*, std::string Revision::*> fields[] = {{"revision", &Revision::revision},
                                                                               {"date", &Revision::date},
                                                                               {"text", &Revision::text},
                                                                               {"author", &Revision::author}};
  for (const Node& entry : c.tree.children(n)) {
    if (!c.errors.is_map(entry, "a revision, for example {revision: A, date: 2026-11-28, text: First issue}")) continue;
    Keys known;
    for (const auto& [key, field] : fields) known.push_back({key});
    c.errors.check_keys(entry, "a revision", known);
    Revision revision;
    for (const auto& [key, field] : fields)
      if (const Node* value = c.tree.find(entry, key)) read_text(c, *value, revision.*field);
    revisions.push_back(std::move(revision));
  }
}

}  // namespace

void read_document_head(const Context& c, const Node& n, DocumentHead& head) {
  if (n.is_empty() || !c.errors.is_map(n, "document")) return;
  static constexpr std::pair<const char*, std::string Head::*> texts[] = {{"project", &Head::project},
                                                                          {"number", &Head::number},
                                                                          {"client", &Head::client},
                                                                          {"revision", &Head::revision},
                                                                          {"date", &Head::date}};
  struct Person {
    const char* key;
    std::string Head::*name;
    std::string Head::*date;
  };
  static constexpr Person persons[] = {{"author", &Head::author, &Head::author_date},
                                       {"checked", &Head::checked, &Head::checked_date},
                                       {"approved", &Head::approved, &Head::approved_date}};
  Keys known = {{"revisions"}};
  for (const auto& [key, field] : texts) known.push_back({key});
  for (const Person& p : persons) known.push_back({p.key});
  c.errors.check_keys(n, "document", known);
  for (const auto& [key, field] : texts)
    if (const Node* value = c.tree.find(n, key)) read_text(c, *value, head.*field);
  for (const Person& p : persons)
    if (const Node* value = c.tree.find(n, p.key)) read_person(c, *value, p.key, head.*p.name, head.*p.date);
  if (const Node* value = c.tree.find(n, "revisions")) read_revisions(c, *value, head.revisions);
}

std::vector<std::string> read_assumptions(const Context& c, const Node& n) {
  if (n.is_empty()) return {};
  if (n.is_text()) return {std::string(n.text)};
  std::vector<std::string> all;
  if (!n.is_list()) {
    c.errors.fail(n, "notes: a text or a list of texts was expected");
    return all;
  }
  for (const Node& entry : c.tree.children(n))
    if (c.errors.is_text(entry, "a text")) all.emplace_back(entry.text);
  return all;
}

}  // namespace corvex::file
