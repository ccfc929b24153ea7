// Limits of buckling and frequency are read and evaluated; what stands under `modes` is checked.
#include <corvex/modes.hpp>

#include "support/text.hpp"

namespace tests_of_file_not_built {

using namespace corvex;
using namespace corvex::units;
using Catch::Matchers::Contains;
using namespace corvex::test;

TEST_CASE("Limits of buckling and of frequency are assessed by the modes") {
  const Model model =
      read(replaced(sound, "corvex: 1", "limits: [{buckling: 3}, {frequency: 12 Hz}, {frequency: 1 MHz}]"));
  CHECK(model.notes.empty());
  const auto check = check_limits(solve(model.structure), model.limits);
  REQUIRE(check.ok());
  REQUIRE(check->verdicts.size() == 3);
  const std::string load_case = model.structure.load_cases().front().name();
  const auto found = modes(model.structure, {.vibration = 1, .buckling = {{load_case, 1}}});
  REQUIRE(found);
  const Verdict& buckling = check->verdicts[0];
  CHECK(buckling.state == Verdict::State::not_checked);
  // Nothing holds the frame out of its plane.
  CHECK(check->verdicts[1].state == Verdict::State::not_checked);
  CHECK_FALSE(check->verdicts[1].value);
  CHECK(check->verdicts[2].state == Verdict::State::exceeded);
  CHECK(check->verdicts[2].value->si == found->vibration.front().frequency.si());
  // Braced, the figures are those of the modes.
  Structure braced = model.structure;
  for (std::size_t i = 0; i < braced.members().size(); ++i) braced.brace(MemberId(i));
  const auto again = check_limits(solve(braced), model.limits);
  REQUIRE(again.ok());
  const auto& factors = found->buckling.front().modes;
  REQUIRE(again->verdicts[0].value.has_value() == !factors.empty());
  if (!factors.empty()) CHECK(again->verdicts[0].value->si == Approx(factors.front().factor));
  CHECK((again->verdicts[0].state == Verdict::State::met) == (factors.empty() || factors.front().factor >= 3));
  CHECK(again->verdicts[1].value->si == found->vibration.front().frequency.si());
  CHECK((again->verdicts[1].state == Verdict::State::met) == (again->verdicts[1].value->si >= 12));
}

TEST_CASE("Modes that are asked for are read, with their mistakes") {
  const std::string load_case = read(sound).structure.load_cases().front().name();
  const Model model = read(replaced(
      sound, "corvex: 1", "modes: {vibration: 4, under: " + load_case + ", buckling: {" + load_case + ": 2}}"));
  CHECK(model.modes.vibration == 4);
  CHECK(model.modes.under == load_case);
  REQUIRE(model.modes.buckling.size() == 1);
  CHECK(model.modes.buckling.front() == std::pair<std::string, std::size_t>(load_case, 2));
  for (const auto& [text, message] : {std::pair{"modes: {vibration: 2.5}", "a whole number from 1 to"},
                                      {"modes: {vibration: 5000}", "the number of modes is from 1 to 1000"},
                                      {"modes: {buckling: {lode: 3}}", "load case or combination"},
                                      {"modes: {under: lode}", "load case or combination"},
                                      {"modes: {shapes: 3}", "'shapes' is not a key of modes"}}) {
    const auto wrong = read_model_text(replaced(sound, "corvex: 1", text), "model.yaml");
    REQUIRE(!wrong);
    CHECK_THAT(describe(wrong.error().front()), Contains(message));
  }
}

}  // namespace tests_of_file_not_built
