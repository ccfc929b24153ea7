// What must not compile does not: lines with a mistake are given to the compiler, beside sound ones that differ by just
// the mistake. Each line is a function in a file of its own name, so that what the compiler says can be told apart.
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <string>
#include <utility>
#include <vector>

namespace {

namespace fs = std::filesystem;

struct Pair {
  std::string sound, mistake;
};

// What the compiler says of functions with these lines in them, after `before`.
std::string said_of(const std::vector<std::string>& lines, const std::string& before) {
  std::string folder = (fs::temp_directory_path() / "corvex-compile-XXXXXX").string();
  REQUIRE(mkdtemp(folder.data()));
  std::ofstream source(folder + "/lines.cpp");
  source << "#include <corvex/corvex.hpp>\n#include <corvex/file.hpp>\n"
            "using namespace corvex::literals;\nusing namespace corvex;\nusing namespace corvex::units;\n";
  for (std::size_t i = 0; i < lines.size(); ++i)
    source << "#line 1 \"line_" << i << "_\"\nvoid f" << i << "() { " << before << lines[i] << " }\n";
  source.close();
  const std::string command = "'" CORVEX_CXX "' -std=c++20 -fsyntax-only -Werror=unused-result " CORVEX_EVERY_ERROR
                              " -I'" CORVEX_SOURCE "/include' '" +
                              folder + "/lines.cpp' >'" + folder + "/said' 2>&1";
  const int status = std::system(command.c_str());
  std::ifstream said(folder + "/said");
  std::string text{std::istreambuf_iterator<char>(said), {}};
  fs::remove_all(folder);
  CHECK((status == 0) == text.empty());
  return text;
}

void check(const std::vector<Pair>& pairs, const std::string& before = {}) {
  std::vector<std::string> sound, mistakes;
  for (const Pair& p : pairs) sound.push_back(p.sound), mistakes.push_back(p.mistake);
  CHECK(said_of(sound, before).empty());
  const std::string said = said_of(mistakes, before);
  for (std::size_t i = 0; i < pairs.size(); ++i) {
    INFO(pairs[i].mistake);
    const bool named = said.find("line_" + std::to_string(i) + "_:1:") != std::string::npos;
    // Of some mistakes g++ names only the place in its own headers. They are compiled alone.
    CHECK((named || !said_of({pairs[i].mistake}, before).empty()));
  }
}

}  // namespace

TEST_CASE("Quantities of different kinds do not mix, and the compiler says so") {
  check({
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
  });
}

TEST_CASE("Slips that look right do not compile, beside what is meant") {
  const std::vector<Pair> pairs = {
      // An integer or a text is no id.
      {"s.support(a, Support::fixed());", "s.support(0, Support::fixed());"},
      {"s.support(PointId(0), Support::fixed());", "s.support({0}, Support::fixed());"},
      {"(void)MemberId(1);", "(void)MemberId('1');"},
      {"(void)MemberId(1);", "MemberId m = 1; (void)m;"},
      {"std::vector<PointId> p{a, b};", "std::vector<PointId> p{\"A\", \"B\"};"},
      {"s.member(\"m\", {\"A\", \"B\"}, {});", "s.member(\"m\", {0, 1}, {});"},
      // 0 is no name of a member or a point.
      {"(void)solve(s)[0][\"m\"];", "(void)solve(s)[0][0];"},
      {"(void)solve(s)[0].reaction(\"A\");", "(void)solve(s)[0].reaction(0);"},
      {"(void)solve(s)[0].displacement(a);", "(void)solve(s)[0].displacement(0);"},
      // What a temporary holds does not dangle.
      {"const auto m = read_model_text(\"\", \"\").value();", "auto& m = read_model_text(\"\", \"\").value();"},
      {"const Problems p = solve(s).notes();", "Problems& p = const_cast<Problems&>(solve(s).notes());"},
      // A scope within another is not a copy of it.
      {"Definitions outer; Definitions inner(Definitions::Within{outer});",
       "Definitions outer; Definitions inner(outer);"},
      // A case is not held by reference.
      {"auto c = s.load_case(\"x\");", "auto& c = s.load_case(\"x\");"},
      {"auto c = s.load_case(\"x\");", "LoadCase& c = s.load_case(\"x\");"},
      // Bare numbers are no metres.
      {"s.point(\"C\", 0_m, 900_mm, 0_m);", "s.point(\"C\", {0, 900, 0});"},
      {"s.point(\"C\", moved({}, 0_m, 900_mm));", "s.point(\"C\", 0, 900);"},
      // What returns a changed copy is not thrown away.
      {"const Support t = Support().along({1, 0, 0});", "Support().along({1, 0, 0});"},
      {"const Support t = Support().spring({.x = 1_N_per_m});", "Support().spring({.x = 1_N_per_m});"},
      {"const Section t = Section(RoundBar{.diameter = 20_mm}).with_torsion_constant(1_mm4);",
       "Section(RoundBar{.diameter = 20_mm}).with_torsion_constant(1_mm4);"},
      {"(void)solve(s);", "solve(s);"},
      {"(void)evaluate(s);", "evaluate(s);"},
      // What a temporary solution holds is moved out of it.
      {"const std::vector<Member>& m = solve(s).structure().members(); (void)m;",
       "std::vector<Member>& m = solve(s).structure().members(); (void)m;"},
      // A diagram knows its kind.
      {"(void)solve(s)[0][\"m\"].moment_z().max().value.in(kN_m);",
       "(void)solve(s)[0][\"m\"].moment_z().max().value.in(kN);"},
      {"(void)solve(s)[0][\"m\"].axial().at(1_m).in(N);", "(void)solve(s)[0][\"m\"].axial().at(1_m).in(mm);"},
      {"Force f = Force{.x = 1_N} + Force{.y = 2_N};", "Force f = Force{.x = 1_N} + Moment{.y = 2_N_m};"},
      // What is asked for is looked at.
      {"(void)(1 / 2_m + 1 / 3_mm);", "(void)(1 / 2_m + 3_m);"},
      {"(void)sqrt(4_mm2);", "(void)sqrt(4_mm3);"},
  };
  const std::string before =
      "Structure s = Structure::plane(\"s\"); const PointId a = s.point(\"A\", 0_m, 0_m), b = s.point(\"B\", 1_m, "
      "0_m); (void)a; (void)b; ";
  check(pairs, before);
}
