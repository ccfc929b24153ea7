// Numbers and formulas with units.
#pragma once

#include "corvex/file.hpp"
#include "corvex/formula.hpp"
#include "file/errors.hpp"

namespace corvex::file {

// A kind of quantity in the model file, and what a number without a unit means there.
struct Wanted {
  const char* what;  // "a length"
  Dimension dimension;
  const char* example;                        // "2.4 m"
  const char* unit_key = nullptr;             // the entry of `units` that gives a bare number its unit
  std::optional<double> bare = std::nullopt;  // SI value of one bare unit, if there is one
  const char* bare_refused = nullptr;         // why `units` gives a bare number no unit here
};

// The kinds of quantity that the model file has.
struct WantedUnits {
  Wanted length{"a length", dimension::length, "2.4 m", "length"};
  Wanted force{"a force", dimension::force, "3.2 kN", "force"};
  Wanted moment{"a moment", dimension::moment, "1.5 kN*m", "moment"};
  Wanted line{"a force per length", dimension::line_force, "0.8 kN/m", "line"};
  Wanted stress{"a stress", dimension::stress, "235 MPa", "stress"};
  Wanted section{"a section dimension", dimension::length, "60 mm", "section"};
  Wanted angle{"an angle", dimension::angle, "30 deg", "angle"};
  Wanted density{"a density", dimension::density, "7850 kg/m^3"};
  Wanted acceleration{"an acceleration", dimension::acceleration, "9.81 m/s^2"};
  Wanted number{"a plain number", dimension::number, "0.3", nullptr, 1.0};
  Wanted temperature{"a temperature change", dimension::temperature, "60 K", "temperature"};
  Wanted mass{"a mass", dimension::mass, "20 kg", "mass"};
  Wanted spring{"a stiffness", dimension::line_force, "500 N/mm"};
  Wanted turning_spring{"a stiffness against turning", TurningStiffness::dimension(), "2 kN*m/rad"};
  Wanted expansion{"a coefficient of expansion", dimension::expansion, "12e-6 /K"};
  Wanted inertia{"a moment of inertia of a mass", MassInertia::dimension(), "1.2 kg*m^2"};
  Wanted frequency{"a frequency", Dimension::of(0, 0, -1), "12 Hz"};
  Wanted movement{"a length", dimension::length, "2.4 m", "length"};
  // The unit named for sections: bare areas and moments of area are in its powers.
  std::optional<double> section_length;
  // The unit named for deflections.
  std::optional<double> deflection;
};

// Reads quantities; formulas may use the parameters of the model.
class Quantities {
 public:
  Quantities(const Tree& tree, Errors& errors, const Names& parameters, const WantedUnits& units)
      : tree_(&tree), errors_(errors), parameters_(parameters), units_(units) {}

  // In SI units.
  std::optional<double> read(const Node& n, const Wanted& wanted);
  // A place on a member: a length from its start, or a share of its length where % is written.
  std::optional<double> position(const Node& n, double member_length);
  // The same, kept as it is written.
  std::optional<PlaceAlong> place_along(const Node& n);
  // One of two kinds; a bare number is of the first.
  std::optional<Quantity> read_either(const Node& n, const Wanted& first, const Wanted& second);
  // From 1 to 100,000.
  std::optional<std::size_t> whole_number(const Node& n, std::string_view what);
  // One value, or a first and a last one in a list if `may_change`.
  std::optional<std::pair<double, double>> first_and_last(const Node& n, const Wanted& wanted, bool may_change);

 private:
  std::optional<Evaluated> formula(const Node& n, std::string_view what);
  std::optional<double> convert(const Node& n, const Evaluated& e, const Wanted& wanted);

  const Tree* tree_;
  Errors& errors_;
  const Names& parameters_;
  const WantedUnits& units_;
};

}  // namespace corvex::file
