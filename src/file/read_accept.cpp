// Accepted findings, with the reason.
#include <algorithm>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class AcceptReader : PartReader {
 public:
  explicit AcceptReader(const Context& c) : PartReader(c) {}

  void run(const Node& n, std::vector<Acceptance>& all) {
    if (n.is_empty() || !errors_.is_list(n, "accept")) return;
    for (const Node& entry : tree_->children(n))
      if (auto a = read(entry)) all.push_back(std::move(*a));
  }

 private:
  std::optional<Acceptance> read(const Node& n) {
    const std::size_t before = errors_.count();
    if (!errors_.is_map(n, "an acceptance")) return std::nullopt;
    errors_.check_keys(n, "an acceptance", {{"finding"}, {"on"}, {"because"}});
    const Node* finding = errors_.need(n, "finding", n, "an acceptance");
    const Node* because = errors_.need(n, "because", n, "an acceptance");
    Acceptance a;
    if (finding && errors_.is_text(*finding, "the identifier of a finding")) {
      std::vector<std::string> known;
      for (const FindingKind& k : finding_kinds()) known.emplace_back(k.name);
      if (std::find(known.begin(), known.end(), finding->text) == known.end())
        errors_.unknown(*finding, "finding", known);
      a.finding = finding->text;
    }
    if (because && errors_.is_text(*because, "a reason")) {
      if (because->text.empty()) errors_.fail(*because, "a reason was expected: why this is intended");
      a.because = because->text;
    }
    if (const Node* on = tree_->find(n, "on"))
      for (const Node& one : on->is_list() ? tree_->children(*on) : std::span(on, 1))
        if (errors_.is_text(one, "the name of a point, member, section, material or case")) a.on.emplace_back(one.text);
    if (errors_.count() > before) return std::nullopt;
    return a;
  }
};

}  // namespace

void read_accept(const Context& c, const Node& n, std::vector<Acceptance>& all) {
  AcceptReader(c).run(n, all);
}

}  // namespace corvex::file
