// The hand block of a model file: what it says, and where a slip stands.
#include "support/near.hpp"
#include "support/text.hpp"

namespace tests_of_file_hand {

using namespace corvex;
using namespace corvex::units;
using corvex::test::near;
using corvex::test::read;
using corvex::test::refusal;

namespace {

// A post of 900 mm with a push at its head; the hand block begins in line 14.
std::string post(const std::string& hand, const std::string& units = "length: mm, force: kN, moment: kN*mm") {
  return "corvex: 1\nunits: {" + units +
         "}\nparameters: {h: 0.9 m, push: 2 kN}\nsections:\n  leg: {shape: square tube, width: 60 mm, wall: 4 mm}\n"
         "points: {A: [0, 0], B: [0, h]}\nmembers:\n  post: {through: [A, B], section: leg, material: S235}\n"
         "supports: {A: fixed}\nloads:\n  wind:\n    - {at: B, force: {x: push}}\nhand:\n" +
         hand;
}

Comparison compared(const std::string& expectation, const std::string& units = "length: mm, force: kN, moment: kN*mm") {
  const Model model = read(post("  expect: [" + expectation + "]\n", units));
  const auto v = verify(solve(model.structure), model.hand);
  REQUIRE(v.ok());
  return v->comparisons.at(0);
}

}  // namespace

TEST_CASE("Every key of an expectation reaches its figure") {
  const auto [text, what, computed] = GENERATE(table<std::string, std::string, double>({
      {"reaction: A, part: x, is: -2", "reaction A x", -2000},
      {"reaction: A, part: mz, is: push*h", "reaction A mz", 1800},
      {"reaction: A, is: push", "reaction A", 2000},
      {"axial: post, is: 0, within: 1 N", "axial post", 0},
      {"shear: post, take: start, is: -push", "shear post start", -2000},
      {"shear-y: post, take: min, is: -push", "shear post min", -2000},
      {"shear-z: post, is: 0, within: 1 N", "shear-z post", 0},
      {"moment: post, at: 300, is: push*(h - 300 mm)", "moment post at 300", 1200},
      {"moment: post, at: h/3, is: push*(h - 300 mm)", "moment post at h/3", 1200},
      {"moment-z: post, at: 100 %/3, is: push*2*h/3", "moment post at 100 %/3", 1200},
      {"moment-y: post, is: 0, within: 1 N*m", "moment-y post", 0},
      {"torsion: post, is: 0, within: 1 N*m", "torsion post", 0},
      {"stress: post, take: max, is: push*h/Wz(leg)", "stress post max", 0},
      {"mass: total, is: density(S235)*A(post)*h", "mass total", 0.9 * 7850 * 896e-6},
      {"rotation: B, part: z, is: -push*h^2/(2*E(S235)*Iz(leg))", "rotation B z", 0},
      {"displacement: B, part: x, is: 4.8 mm, within: 5 %", "displacement B x", 0},
      {"deflection: post, take: end, is: 4.8 mm, within: 5 %", "deflection post end", 0},
      {"sag: post, is: 5 mm, within: 1 mm", "sag post", 0},
  }));
  const Comparison c = compared("{" + text + "}");
  INFO(text << ": hand " << c.hand.si << ", computed " << c.computed.si);
  CHECK(c.what == what);
  CHECK(c.agrees);
  if (computed != 0) CHECK(c.computed.si == near(computed));
}

TEST_CASE("A bare number takes the unit that the model names") {
  CHECK(compared("{reaction: A, is: 2}").hand.si == near(2000));
  CHECK(compared("{reaction: A, part: mz, is: 1800}").hand.si == near(1800));  // kN·mm
  CHECK(compared("{displacement: B, is: 5}", "length: m, force: kN, deflection: mm").hand.si == near(5e-3));
  CHECK(compared("{stress: post, is: 100}", "length: m, force: kN, stress: MPa").hand.si == near(1e8));
  CHECK(compared("{rotation: B, is: 0.5}", "length: m, force: kN, angle: deg").hand.si ==
        near(0.5 * 3.14159265358979 / 180));
  CHECK(compared("{rotation: B, is: 1 mm/200 mm}", "length: m, force: kN, angle: deg").hand.si == near(5e-3));
  const auto refused = [](const std::string& text) { return refusal(post("  expect: [" + text + "]\n")); };
  CHECK_THAT(refused("{displacement: B, is: 5}"), Catch::Contains("name deflection under units:"));
  CHECK_THAT(refused("{stress: post, is: 5}"), Catch::Contains("name stress under units:"));
}

TEST_CASE("Slips in the hand block are told where they stand") {
  const auto [hand, message] = GENERATE(table<std::string, std::string>({
      {"  expekt: []\n", "model.yaml:14:3: error: 'expekt' is not a key of hand; did you mean 'expect'?"},
      {"  let: {a: 1 m + push}\n  expect: [{reaction: A, is: push}]\n",
       "model.yaml:14:16: error: '1 m + push': a length and a force cannot be added"},
      {"  let: {h: 1 m}\n  expect: [{reaction: A, is: push}]\n",
       "model.yaml:14:9: error: the name 'h' is used for another value already"},
      {"  expect: [{raction: A, is: push}]\n",
       "model.yaml:14:13: error: 'raction' is not a key of an expectation; did you mean 'reaction'?"},
      {"  expect: [{reaction: C, is: push}]\n", "model.yaml:14:23: error: there is no point 'C'"},
      {"  expect: [{moment: past, is: push*h}]\n",
       "model.yaml:14:21: error: there is no member 'past'; did you mean 'post'?"},
      {"  expect: [{reaction: A, is: push + h}]\n",
       "model.yaml:14:35: error: 'push + h': a force and a length cannot be added"},
      {"  expect: [{reaction: A, is: \"push + hh\"}]\n",
       "model.yaml:14:38: error: 'push + hh': 'hh' is neither a parameter nor a unit; did you mean 'h'?"},
      {"  expect: [{reaction: A, part: w, is: push}]\n",
       "model.yaml:14:32: error: 'w' is not a part; expected: size, x, y, z, mx, my, mz"},
      {"  expect: [{moment: post, take: maxi, is: push*h}]\n", "did you mean 'max'?"},
      {"  expect: [{moment: post, part: x, is: push*h}]\n",
       "model.yaml:14:27: error: 'part' goes with reaction, displacement and rotation only"},
      {"  expect: [{reaction: A, at: 1 m, is: push}]\n",
       "model.yaml:14:26: error: 'at' goes with a figure along a member only"},
      {"  expect: [{reaction: A, part: x}]\n", "model.yaml:14:12: error: an expectation needs 'is'"},
      {"  expect: [{reaction: A, moment: post, is: push}]\n", "an expectation compares one figure"},
      {"  expect: [{is: push}]\n", "model.yaml:14:12: error: an expectation names what is compared"},
      {"  expect: [{mass: all, is: 1 kg}]\n", "'all' is not the mass of the whole; expected: total"},
      {"  expect: [{reaction: A, is: push, case: wnd}]\n",
       "model.yaml:14:42: error: there is no load case 'wnd'; did you mean 'wind'?"},
      {"  expect: [{moment: post, at: 901, is: push*h}]\n",
       "model.yaml:14:31: error: 901 mm is not on member 'post', which is 900 mm long"},
      {"  expect: [{reaction: A, part: y, is: 0}]\n", "the hand value is 0"},
      {"  expect: {reaction: A}\n", "expect: a list was expected, but this is a map"},
      {"  expect: [{reaction: A, is: [push]}]\n", "'is': a number or a formula was expected, but this is a list"},
  }));
  CHECK_THAT(refusal(post(hand)), Catch::Contains(message));
}

TEST_CASE("A wrong parameter or point is no second mistake in the hand block") {
  const std::string model = post("  expect: [{reaction: B, part: x, is: push*h/(1 m)}, {reaction: A, is: push}]\n");
  const std::string text =
      refusal(test::replaced(test::replaced(model, "push: 2 kN", "push: 2 kN + 1 m"), "B: [0, h]", "B: [0]"));
  INFO(text);
  CHECK(std::count(text.begin(), text.end(), '\n') == 2);
}

TEST_CASE("Units for print are the model's, and can be read again") {
  const ModelUnits metric, inches{{"in", 0.0254},
                                  {"lbf", 4.4482216152605},
                                  {"lbf·in", 4.4482216152605 * 0.0254},
                                  {"lbf/in", 4.4482216152605 / 0.0254},
                                  {"psi", 6894.757293168},
                                  {"in", 0.0254},
                                  {"deg", 0.017453292519943295},
                                  {"lb", 0.45359237},
                                  {"in", 0.0254}};
  for (const ModelUnits& units : {metric, inches})
    for (int l = -6; l <= 6; ++l)
      for (int m = -1; m <= 1; ++m)
        for (int t = -2; t <= 0; ++t) {
          const Dimension d = Dimension::of(l, m, t);
          const NamedUnit unit = unit_for(d, units);
          if (d.none()) continue;
          INFO(unit.text);
          const auto read = evaluate("2 " + (unit.text.front() == '1' ? unit.text.substr(1) : unit.text), Scope());
          REQUIRE(read.ok());
          CHECK(read->quantity.dimension == d);
          CHECK(read->quantity.si == near(2 * unit.si));
        }
  CHECK(unit_for(dimension::line_force, metric).text == "kN/m");
  CHECK(unit_for(dimension::second_moment, metric).text == "cm⁴");
  CHECK(unit_for(dimension::density, metric).text == "kg/m^3");
  CHECK(unit_for(dimension::second_moment, inches).text == "in⁴");
}

}  // namespace tests_of_file_hand
