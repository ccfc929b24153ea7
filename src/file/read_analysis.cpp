// How the structure is analysed, and where loads act on the section.
#include "file/parts.hpp"

namespace corvex::file {
namespace {

class AnalysisReader : PartReader {
 public:
  explicit AnalysisReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);
  std::optional<Through> through(const Node& n);
};

void AnalysisReader::run(const Node& n) {
  if (!errors_.is_map(n, "analysis")) return;
  errors_.check_keys(n, "analysis", {{"shear"}, {"through"}});
  if (const Node* shear = tree_->find(n, "shear"))
    if (const auto c = errors_.choice(*shear, "on or off", {{"on"}, {"off"}})) structure_.analysis().shear = *c == 0;
  if (const Node* where = tree_->find(n, "through"))
    if (const auto place = through(*where)) structure_.analysis().through = *place;
}

// "shear centre", "centroid", or a place of the section.
std::optional<Through> AnalysisReader::through(const Node& n) {
  if (!n.is_map()) {
    const auto c = errors_.choice(n, "the place of the section", {{"shear centre"}, {"centroid"}});
    if (!c) return std::nullopt;
    return *c == 0 ? Through::shear_centre() : Through::centroid();
  }
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "a place of the section", {{"y"}, {"z"}});
  if (n.count == 0) errors_.fail(n, "a place of the section was expected, as {y: 40 mm, z: 0}, from its centroid");
  const auto part = [&](std::string_view key) {
    const Node* v = tree_->find(n, key);
    return Length::si(v ? quantities_.read(*v, units_.length).value_or(0) : 0);
  };
  const Through place = Through::at(part("y"), part("z"));
  return errors_.count() > before ? std::nullopt : std::optional(place);
}

}  // namespace

void read_analysis(const Context& c, const Node& n) {
  AnalysisReader(c).run(n);
}

std::optional<Through> read_through(const Context& c, const Node& n) {
  return AnalysisReader(c).through(n);
}

}  // namespace corvex::file
