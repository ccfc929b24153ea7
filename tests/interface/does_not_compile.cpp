// What must not compile does not: each line is given to the compiler, beside a sound one that differs by just the
// mistake.
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>

namespace {

// Whether a program with this line in it compiles.
bool compiles(const std::string& line) {
  namespace fs = std::filesystem;
  std::string name = (fs::temp_directory_path() / "corvex-compile-XXXXXX").string();
  REQUIRE(mkdtemp(name.data()));
  std::ofstream(name + "/line.cpp") << "#include <corvex/quantity.hpp>\n#include <corvex/load_case.hpp>\n"
                                       "using namespace corvex::literals;\nusing namespace corvex;\n"
                                       "int main() {\n  "
                                    << line << "\n}\n";
  const std::string command = "'" CORVEX_CXX "' -std=c++20 -fsyntax-only -w -I'" CORVEX_SOURCE "/include' '" + name +
                              "/line.cpp' >/dev/null 2>&1";
  const int status = std::system(command.c_str());
  fs::remove_all(name);
  return status == 0;
}

}  // namespace

TEST_CASE("Quantities of different kinds do not mix, and the compiler says so") {
  const auto [sound, mistake] = GENERATE(table<std::string, std::string>({
      {"auto x = 3_kN + 2_N;", "auto x = 3_kN + 2_m;"},
      {"auto x = 3_m - 2_mm;", "auto x = 3_m - 2_N_m;"},
      {"auto x = 3_kN; x += 2_N;", "auto x = 3_kN; x += 2_MPa;"},
      {"Length x = 2_m;", "Length x = 2.0;"},
      {"Length x = 6_m / 3;", "Length x = 6_m / 3_m;"},
      {"MomentSize x = 3_kN * 2_m;", "MomentSize x = 3_kN * 2;"},
      {"Stress x = 3_kN / 2_mm2;", "Stress x = 3_kN / 2_mm;"},
      {"double x = (2_m).in(mm);", "double x = (2_m).in(kN);"},
      {"bool x = 2_m < 3_mm;", "bool x = 2_m < 3_kN;"},
      {"Force f{.y = -3_kN};", "Force f{.y = -3_m};"},
      {"Angle x = 30_deg;", "Angle x = 0.5;"},
  }));
  INFO(sound << " against " << mistake);
  CHECK(compiles(sound));
  CHECK_FALSE(compiles(mistake));
}
