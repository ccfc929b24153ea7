// Bracing: restraints of members other than supports and other members.
#include <algorithm>
#include <array>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class BracingReader : PartReader {
 public:
  explicit BracingReader(const Context& c) : PartReader(c) {}

  void run(const Node& n) {
    if (n.is_empty() || !errors_.is_list(n, "bracing")) return;
    for (const Node& entry : tree_->children(n)) read(entry);
  }

 private:
  void read(const Node& n) {
    if (!errors_.is_map(n, "bracing")) return;
    const std::size_t before = errors_.count();
    errors_.check_keys(n, "bracing", {{"on"}, {"at"}, {"against"}});
    const Node* on = errors_.need(n, "on", n, "bracing");
    if (!on || errors_.count() > before) return;
    const std::vector<MemberId> members = names_.members(*on);
    const Node* at = tree_->find(n, "at");
    const std::vector<PointId> points = at ? names_.points(*at) : std::vector<PointId>();
    const Against against = read_against(n);
    if (errors_.count() > before) return;
    if (!at) {
      for (const MemberId m : members) structure_.brace(m, {}, against);
      return;
    }
    const auto goes_through = [&](MemberId m, PointId p) {
      const auto& through = structure_[m].through;
      return std::find(through.begin(), through.end(), p) != through.end();
    };
    for (const PointId p : points)
      if (std::none_of(members.begin(), members.end(), [&](MemberId m) { return goes_through(m, p); }))
        errors_.fail(*at, fmt::format("'{}' is not a point of {}", structure_[p].name, described(members)));
    for (const MemberId m : members) {
      std::vector<PointId> own;
      std::copy_if(points.begin(), points.end(), std::back_inserter(own),
                   [&](PointId p) { return goes_through(m, p); });
      if (!own.empty())
        structure_.brace(m, own, against);
      else if (on->text != "all" && errors_.count() == before)
        errors_.fail(*at, fmt::format("none of these points is one of member '{}'", structure_[m].name));
    }
  }

  std::string described(const std::vector<MemberId>& members) const {
    if (members.size() == 1) return fmt::format("member '{}'", structure_[members.front()].name);
    return "any of these members";
  }

  Against read_against(const Node& n) {
    const Node* against = tree_->find(n, "against");
    if (!against) return Against::both;
    const auto c =
        errors_.choice(*against, "a direction of bracing", {{"both"}, {"lateral"}, {"twist"}, {"y"}, {"z"}});
    if (!c) return Against::both;
    const Against chosen = std::array{Against::both, Against::lateral, Against::twist, Against::y, Against::z}[*c];
    if (structure_.is_plane() && (chosen == Against::y || chosen == Against::z))
      errors_.fail(*against, "in a plane structure bracing acts out of the plane: against lateral, twist or both");
    return chosen;
  }
};

}  // namespace

void read_bracing(const Context& c, const Node& n) {
  BracingReader(c).run(n);
}

}  // namespace corvex::file
