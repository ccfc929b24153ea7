// How the structure is analysed, and where loads act on the section.
#include <fmt/format.h>

#include "file/parts.hpp"

namespace corvex::file {
namespace {

class AnalysisReader : PartReader {
 public:
  explicit AnalysisReader(const Context& c) : PartReader(c) {}
  void run(const Node& n);
  std::optional<Through> through(const Node& n);

 private:
  void order(const Node& n);
  void imperfection(const Node& n);
  double share(const Node& of, std::string_view key);
  std::optional<Vector> toward(const Node& n);
};

void AnalysisReader::run(const Node& n) {
  if (!errors_.is_map(n, "analysis")) return;
  errors_.check_keys(n, "analysis", {{"shear"}, {"through"}, {"order"}, {"imperfection"}});
  if (const Node* shear = tree_->find(n, "shear"))
    if (const auto c = errors_.choice(*shear, "on or off", {{"on"}, {"off"}})) structure_.analysis().shear = *c == 0;
  if (const Node* where = tree_->find(n, "through"))
    if (const auto place = through(*where)) structure_.analysis().through = *place;
  if (const Node* given = tree_->find(n, "order")) order(*given);
  if (const Node* given = tree_->find(n, "imperfection")) imperfection(*given);
}

void AnalysisReader::order(const Node& n) {
  static constexpr Order orders[] = {Order::first, Order::second, Order::large};
  if (const auto c = errors_.choice(n, "first, second or large", {{"first"}, {"second"}, {"large"}}))
    structure_.analysis().order = orders[*c];
}

void AnalysisReader::imperfection(const Node& n) {
  if (!errors_.is_map(n, "imperfection")) return;
  const std::size_t before = errors_.count();
  errors_.check_keys(n, "imperfection", {{"sway"}, {"bow"}, {"toward"}});
  Imperfection i;
  i.sway = share(n, "sway"), i.bow = share(n, "bow");
  const Node* where = tree_->find(n, "toward");
  if (where) i.toward = toward(*where);
  if (i.sway == 0 && i.bow == 0 && errors_.count() == before)
    errors_.fail(n, "a sway or a bow was expected, for example {sway: 1/200, toward: x}");
  if (structure_.analysis().order != Order::second && errors_.count() == before)
    errors_.fail(
        n,
        "an imperfection belongs to second order: say {order: second}; for large displacements give the points themselves");
  if (errors_.count() == before) structure_.analysis().imperfection = i;
}

double AnalysisReader::share(const Node& of, std::string_view key) {
  const Node* n = tree_->find(of, key);
  if (!n) return 0;
  const double v = quantities_.read(*n, units_.number).value_or(0);
  constexpr double most = 0.1;
  if (v >= 0 && v <= most) return v;
  errors_.fail(*n, fmt::format("a share from 0 to 1/10 was expected for the {}, for example 1/200", key));
  return 0;
}

std::optional<Vector> AnalysisReader::toward(const Node& n) {
  const auto c = errors_.choice(n, "a direction across the vertical", {{"x"}, {"-x"}, {"y"}, {"-y"}, {"z"}, {"-z"}});
  if (!c) return std::nullopt;
  const double sign = *c % 2 == 0 ? 1 : -1;
  const Vector v{*c < 2 ? sign : 0, *c / 2 == 1 ? sign : 0, *c / 2 == 2 ? sign : 0};
  if (dot(v, structure_.up_direction()) != 0 || (structure_.is_plane() && v.z != 0)) {
    errors_.fail(n, structure_.is_plane() ? "in a plane structure the direction is x or -x"
                                          : "the direction must be horizontal");
    return std::nullopt;
  }
  return v;
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
  if (n.count == 0)
    errors_.fail(n, "a place of the section was expected, for example {y: 40 mm, z: 0}, from its centroid");
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
