// Formulas with units: values, dimensions, binding, and errors that help.
#include <corvex/formula.hpp>
#include <string>

#include "support/near.hpp"

namespace tests_of_quantity_formula {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;
using corvex::test::near;

namespace {

Quantity value(const std::string& text, const Names& names = Scope()) {
  const auto e = evaluate(text, names);
  INFO(text << (e ? "" : ": " + e.error().text));
  REQUIRE(e.ok());
  return e->quantity;
}

FormulaError error(const std::string& text, const Names& names = Scope()) {
  const auto e = evaluate(text, names);
  INFO(text);
  REQUIRE(!e.ok());
  return e.error();
}

}  // namespace

TEST_CASE("Units bind tighter than products, powers tighter than units") {
  const auto [text, si, dimension] = GENERATE(table<std::string, double, Dimension>({
      {"4.2 cm^2", 4.2e-4, dimension::area},
      {"10 kN/2 m", 5000, dimension::line_force},
      {"10 kN/2/m", 5000, dimension::line_force},
      {"-2^2", -4, dimension::number},
      {"2^3^2", 512, dimension::number},
      {"2^-1", 0.5, dimension::number},
      {"2*3 m + 50 mm", 6.05, dimension::length},
      {"(1 + 2)*3", 9, dimension::number},
      {"12/2*3", 18, dimension::number},
      {"2 - 3 - 4", -5, dimension::number},
      {"--2", 2, dimension::number},
      {"2*-3", -6, dimension::number},
      {"1.5e3 N", 1500, dimension::force},
      {".5 m", 0.5, dimension::length},
      {"3 kN·m", 3000, dimension::moment},
      {"3 kN*m", 3000, dimension::moment},
      {"3 kN × 2 m", 6000, dimension::moment},
      {"5 m²", 5, dimension::area},
      {"5 m³", 5, dimension::section_modulus},
      {"7850 kg/m^3", 7850, dimension::density},
      {"9.81 m/s²", 9.81, dimension::acceleration},
      {"12e-6 /K", 12e-6, dimension::expansion},
      {"12e-6/K", 12e-6, dimension::expansion},
      {"sqrt(4 m^2)", 2, dimension::length},
      {"min(1 m, 50 cm, 2 ft)", 0.5, dimension::length},
      {"max(1 kN, 2 kN)", 2000, dimension::force},
      {"abs(-3 mm)", 0.003, dimension::length},
      {"sin(30 deg)", 0.5, dimension::number},
      {"cos(60°)", 0.5, dimension::number},
      {"tan(pi/4)", 1, dimension::number},
      {"2 kg*gn", 19.6133, dimension::force},
      {"50 %", 0.5, dimension::number},
      {"100 %/3", 1.0 / 3, dimension::number},
      {"−3 kN", -3000, dimension::force},
      {"1 m + 0 * 2 m", 1, dimension::length},
      {"1 rad + 1", 2, dimension::angle},
      {"5 kN/m * 2 m / (3 mm)", 10000 / 0.003, dimension::line_force},
  }));
  const Quantity q = value(text);
  CHECK(q.si == near(si));
  CHECK(q.dimension == dimension);
}

TEST_CASE("Every unit of the page has its exact value") {
  const auto [text, si] = GENERATE(table<std::string, double>({
      {"1 m", 1},
      {"1 mm", 1e-3},
      {"1 cm", 1e-2},
      {"1 dm", 0.1},
      {"1 km", 1e3},
      {"1 um", 1e-6},
      {"1 µm", 1e-6},
      {"1 nm", 1e-9},
      {"1 g", 1e-3},
      {"1 kg", 1},
      {"1 Mg", 1000},
      {"1 tonne", 1000},
      {"1 lb", 0.45359237},
      {"1 N", 1},
      {"1 kN", 1e3},
      {"1 MN", 1e6},
      {"1 daN/1 daN", 0},
      {"1 lbf", 4.4482216152605},
      {"1 kip", 4448.2216152605},
      {"1 kgf", 9.80665},
      {"1 Pa", 1},
      {"1 kPa", 1e3},
      {"1 MPa", 1e6},
      {"1 GPa", 1e9},
      {"1 N/mm^2", 1e6},
      {"1 psi", 4.4482216152605 / (0.0254 * 0.0254)},
      {"1 ksi", 4448.2216152605 / (0.0254 * 0.0254)},
      {"1 in", 0.0254},
      {"1 ft", 0.3048},
      {"1 rad", 1},
      {"1 mrad", 1e-3},
      {"180 deg", 3.14159265358979323846},
      {"1 s", 1},
      {"1 ms", 1e-3},
      {"1 Hz", 1},
      {"1 kHz", 1e3},
      {"1 K", 1},
      {"9 degF", 5},
      {"1 degC", 1},
      {"1 °C", 1},
      {"1 lbf*in", 4.4482216152605 * 0.0254},
      {"1 %", 0.01},
  }));
  if (text == "1 daN/1 daN") {
    CHECK_THAT(error(text).text, Contains("'daN' is not a unit"));
    return;
  }
  CHECK(value(text).si == near(si));
}

TEST_CASE("Names stand for their values") {
  Scope scope;
  scope.set("span", 2.4_m);
  scope.set("P", 3.2_kN);
  scope.set("E", 210_GPa);
  scope.set("I", Quantity(1e-6, dimension::second_moment));
  CHECK(value("2*span + 50 mm", scope).si == near(4.85));
  const Quantity deflection = value("P*span^3/(48*E*I)", scope);
  CHECK(deflection.si == near(3200 * 2.4 * 2.4 * 2.4 / (48 * 210e9 * 1e-6)));
  CHECK(deflection.dimension == dimension::length);
  CHECK(value("P*span^2/(2*E*I)", scope).dimension.plain());  // a rotation
  CHECK_THAT(error("P*spam", scope).text, Contains("did you mean 'span'"));
  CHECK_THAT(error("3 span", scope).text, Contains("write *"));
  CHECK_THAT(error("P + span", scope).text, Contains("a force") && Contains("a length"));
}

TEST_CASE("Errors say what was read, where, and what was expected") {
  const auto [text, offset, phrase] = GENERATE(table<std::string, std::size_t, std::string>({
      {"2 m + 3 kN", 4, "a length and a force cannot be added"},
      {"2 m - 3", 4, "a length and a plain number cannot be subtracted"},
      {"3 kn", 2, "did you mean 'kN'"},
      {"3 Mpa", 2, "did you mean 'MPa'"},
      {"3 t", 2, "a metric ton is written tonne"},
      {"3 in-lb", 2, "lbf"},
      {"3 ft-lb", 2, "lbf"},
      {"2,5 m", 1, "the decimal sign is a point"},
      {"(2 m", 0, "not closed"},
      {"2 m)", 3, "a closing bracket"},
      {"2 m 3", 4, "operator"},
      {"2 **3", 2, "a power is written with ^"},
      {"1/0", 1, "division by zero"},
      {"1e999", 0, "too large"},
      {"sqrt(-1)", 0, "square root of a negative"},
      {"sqrt 2", 0, "in brackets"},
      {"sqrt(1, 2)", 0, "takes one value"},
      {"sin(2 m)", 0, "takes an angle"},
      {"min(1 m, 2 N)", 0, "a length with a force"},
      {"2^(1 m)", 1, "a plain number"},
      {"(-8)^0.5", 4, "not a finite number"},
      {"2 +", 3, "ends where a value was expected"},
      {"", 0, "there is nothing"},
      {"$", 0, "was not expected"},
      {"hello", 0, "neither a parameter nor a unit"},
  }));
  const FormulaError e = error(text);
  INFO(text << ": " << e.text);
  CHECK(e.offset == offset);
  CHECK_THAT(e.text, Contains(phrase));
}

TEST_CASE("Depth is limited, not the stack") {
  CHECK_THAT(error(std::string(100000, '(')).text, Contains("deep"));
  CHECK_THAT(error("2" + std::string(100000, '^') + "2").text, Contains("expected"));
  std::string powers = "1";
  for (int i = 0; i < 100000; ++i) powers += "^1";
  CHECK_THAT(error(powers).text, Contains("powers"));
  CHECK(value(std::string(100000, '-') + "2").si == 2);
}

TEST_CASE("A parameter may not bear the name of something else") {
  for (const char* taken : {"m", "N", "s", "g", "K", "kN", "mm", "pi", "gn", "sqrt"})
    CHECK(!why_not_a_parameter(taken).empty());
  CHECK_THAT(why_not_a_parameter("m"), Contains("unit"));
  for (const char* free : {"t", "span", "L", "q_1", "P2", "ß"}) CHECK(why_not_a_parameter(free).empty());
  for (const char* broken : {"", "2P", "a b", "a-b"}) CHECK(!why_not_a_parameter(broken).empty());
}

TEST_CASE("The nearest word is one that may have been meant") {
  const std::vector<std::string> words = {"section", "material", "through", "kind"};
  CHECK(nearest("setcion", words) == "section");
  CHECK(nearest("Material", words) == "material");
  CHECK(nearest("thru", words).empty());
  CHECK(nearest("xyz", words).empty());
  CHECK(nearest(std::string(100000, 'a'), words).empty());
}

TEST_CASE("Every prefix of a formula, and noise, is read or refused without harm") {
  const std::string text = "min(2*(3.5 kN·m)/sqrt(4 m^2), -5e3 N)^2 + 10 %*gn − pi°²";
  for (std::size_t n = 0; n <= text.size(); ++n) (void)evaluate(text.substr(0, n), Scope());
  unsigned state = 1;
  for (int i = 0; i < 20000; ++i) {
    std::string noise;
    for (int k = 0; k < 12; ++k) {
      state = state * 1664525u + 1013904223u;
      noise += "0123456789.eE+-*/^(), mkNPa%\xc2\xb2\xe2\x88\x92$#"[(state >> 16) % 36];
    }
    const auto e = evaluate(noise, Scope());
    if (!e) CHECK(e.error().offset <= noise.size());
  }
}

}  // namespace tests_of_quantity_formula
