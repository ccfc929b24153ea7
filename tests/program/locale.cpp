// The program under a locale whose decimal sign is a comma gives the same bytes.
#include <catch2/catch.hpp>
#include <cstdlib>

#include "support/program.hpp"

namespace tests_of_program_locale {

using corvex::test::Folder;
using corvex::test::Outcome;

TEST_CASE("A comma locale changes nothing") {
  const Folder folder;
  // A locale of its own, so that the machine need not have one installed.
  const std::string make =
      "localedef -i de_DE -f UTF-8 '" + (folder.path() / "de_DE.UTF-8").string() + "' >/dev/null 2>&1";
  REQUIRE(std::system(make.c_str()) == 0);
  const std::string german = "export LOCPATH='" + folder.path().string() + "' LC_ALL=de_DE.UTF-8;";
  const std::string comma = german + " test \"$(locale decimal_point)\" = , || exit 99;";
  for (const char* model :
       {"conveyor-trestle", "walkway-beam", "press-frame", "agitator-bracket", "pipe-rack", "tank-skid"})
    for (const char* form : {"", " --json --places 5"}) {
      const std::string call = "solve '" CORVEX_EXAMPLES "/cider-works/" + std::string(model) + ".yaml'" + form;
      const Outcome plain = folder.run(call, "", "LC_ALL=C"), local = folder.run(call, "", comma);
      REQUIRE(local.status != 99);  // the locale is in force
      CHECK(plain.status == 0);
      CHECK(local.status == 0);
      CHECK(local.out == plain.out);
      CHECK(local.err == plain.err);
    }
  folder.write("wrong.yaml", "corvex: 1\npoints: {A: [0, 1.5 kg]}\n");
  CHECK(folder.run("solve wrong.yaml", "", comma).err == folder.run("solve wrong.yaml").err);
}

}  // namespace tests_of_program_locale
