// Reads a model file and prints the bending moment of a member at a place, in every load case:
//   moment_at walkway-beam.yaml walkway "1.2 m"
#include <fmt/format.h>

#include <corvex/corvex.hpp>
#include <corvex/file.hpp>

namespace {

int refuse(const corvex::Problems& problems) {
  for (const corvex::Problem& p : problems) fmt::print(stderr, "{}\n", describe(p));
  return 2;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 4) {
    fmt::print(stderr, "usage: moment_at MODEL MEMBER PLACE\n");
    return 2;
  }
  const auto model = corvex::read_model(argv[1]);
  if (!model) return refuse(model.error());
  const auto member = model->structure.find_member(argv[2]);
  const auto place = corvex::evaluate(argv[3], corvex::Scope());
  if (!member || !place || !(place->quantity.dimension == corvex::dimension::length)) {
    fmt::print(stderr, "'{}' is not a member, or '{}' is not a length\n", argv[2], argv[3]);
    return 2;
  }
  const corvex::Length at = corvex::Length::si(place->quantity.si);
  const double length = model->structure.length_of(model->structure[*member]);
  if (at.si() < 0 || at.si() > length) {
    fmt::print(stderr, "{} is not on '{}', which is {:g} m long\n", argv[3], argv[2], length);
    return 2;
  }

  const corvex::Solution solution = corvex::solve(model->structure);
  if (!solution.ok()) return refuse(model->located(solution.problems()));
  for (std::size_t i = 0; i < solution.size(); ++i) {
    const corvex::Diagram moment = solution[i][*member].moment_z();
    const corvex::Extreme most = moment.max();
    fmt::print("{}: {:.4f} kN·m there, at most {:.4f} kN·m at {:.3f} m\n", solution[i].name(),
               moment.at(at).in(corvex::units::kN_m), most.value.in(corvex::units::kN_m), most.at.in(corvex::units::m));
  }
}
