// The installed tree, as a project that knows nothing of this one finds and uses it.
#include "support.hpp"
#include "support/rows.hpp"

using Catch::Matchers::Contains;
using corvex::test::Workshop;

namespace {

const char* consumer = R"(#include <corvex/corvex.hpp>
#include <corvex/file.hpp>
#include <cstdio>
using namespace corvex::literals;
using namespace corvex::units;

int main(int, char** argv) {
  corvex::Structure beam = corvex::Structure::plane("beam");
  const auto a = beam.point("A", 0_m, 0_m), b = beam.point("B", 2_m, 0_m);
  const auto tube = beam.section("tube", corvex::SquareTube{.width = 60_mm, .wall = 4_mm});
  beam.member("beam", {a, b}, {.section = tube, .material = corvex::material("S235")});
  beam.support(a, corvex::Support::fixed());
  beam.load_case("tip").at(b, corvex::Force{.y = -1_kN});
  const corvex::Solution solution = corvex::solve(beam);
  std::printf("%.1f N·m\n", solution["tip"]["beam"].moment_z().min().value.in(corvex::units::N_m));
  const auto model = corvex::read_model(argv[1]);
  std::printf("%zu members, %s\n", model->structure.members().size(),
              corvex::verify(corvex::solve(model->structure), model->hand)->all_agree() ? "all agree" : "some differ");
}
)";
const std::string expected = "-2000.0 N·m\n3 members, all agree\n";
const std::string model = std::string(" '") + CORVEX_EXAMPLES + "/cider-works/conveyor-trestle.yaml'";
const std::string install =
    std::string("'") + CORVEX_CMAKE + "' --install '" + CORVEX_BUILD + "' --prefix \"$PWD/tree\"";

}  // namespace

TEST_CASE("A small project finds the installed libraries by CMake and links them") {
  const Workshop shop;
  shop.run(install);
  shop.write("main.cpp", consumer);
  shop.write("CMakeLists.txt",
             "cmake_minimum_required(VERSION 3.25)\nproject(consumer LANGUAGES CXX)\n"
             "find_package(corvex 0.1 REQUIRED COMPONENTS core files)\n"
             "add_executable(consumer main.cpp)\ntarget_link_libraries(consumer PRIVATE corvex::files)\n");
  shop.run(std::string("'") + CORVEX_CMAKE + "' -S . -B build -DCMAKE_CXX_COMPILER='" + CORVEX_CXX +
           "' -DCMAKE_CXX_FLAGS='" + CORVEX_FLAGS + "' -DCMAKE_PREFIX_PATH=\"$PWD/tree\" && '" + CORVEX_CMAKE +
           "' --build build");
  CHECK(shop.run("build/consumer" + model) == expected);
}

TEST_CASE("pkg-config tells how to compile and link") {
  const Workshop shop;
  shop.run(install);
  shop.write("main.cpp", consumer);
  shop.run(std::string("export PKG_CONFIG_PATH=$(dirname $(find $PWD/tree -name corvex.pc)) && '") + CORVEX_CXX +
           "' -std=c++20 " + CORVEX_FLAGS + " main.cpp -o consumer $(pkg-config --cflags --libs corvex-files)");
  CHECK(shop.run("LD_LIBRARY_PATH=$(dirname $(find $PWD/tree -name libcorvex.so)) ./consumer" + model) == expected);
}

TEST_CASE("The installed tree can be moved, and holds what the program needs") {
  const Workshop shop;
  shop.run(install);
  shop.run("mv tree elsewhere");
  CHECK_THAT(shop.run("elsewhere/bin/corvex verify" + model), Contains("all 10 values agree"));
  CHECK_THAT(shop.run("elsewhere/bin/corvex new"), Contains("/elsewhere/share/corvex/model.schema.json\n"));
  const std::string files = shop.run("cd elsewhere && find . -type f -o -type l");
  for (const char* file :
       {"include/corvex/corvex.hpp", "share/man/man1/corvex.1", "share/corvex/model.schema.json",
        "share/corvex/results.schema.json", "bash-completion/completions/corvex", "corvex-config.cmake",
        "corvex-config-version.cmake", "examples/cider-works/walkway-beam.yaml"})
    CHECK_THAT(files, Contains(file));
}

TEST_CASE("Debian packages: the library, what is needed to build with it, the program") {
  const Workshop shop;
  shop.run(std::string("cpack --config '") + CORVEX_BUILD + "/CPackConfig.cmake' -B packages");
  const std::string all = shop.run("ls packages/*.deb");
  CHECK_THAT(all, Contains("libcorvex0_0.1.0") && Contains("libcorvex-dev_0.1.0") && Contains("/corvex_0.1.0"));
  const auto field = [&](const std::string& package, const std::string& name) {
    return shop.run("dpkg-deb -f packages/" + package + "_*.deb " + name);
  };
  // The libraries of others that it needs, found by dpkg-shlibdeps; GPL ones are not among them.
  CHECK_THAT(field("libcorvex0", "Depends"), Contains("libmumps-seq-5.5") && Contains("libscotch-7.0") &&
                                                 Contains("libyaml-0-2") && !Contains("cholmod"));
  CHECK_THAT(field("libcorvex-dev", "Depends"), Contains("libcorvex0 (= 0.1.0)"));
  CHECK_THAT(field("corvex", "Depends"), Contains("libcorvex0 (= 0.1.0)"));
  // What a user of the program reads comes with the program.
  CHECK_THAT(shop.run("dpkg-deb -c packages/corvex_*.deb"),
             Contains("model-file.md") && Contains("commands.md") && Contains("scope.md") && Contains("signs.md"));
  shop.run("for p in packages/*.deb; do dpkg-deb -x $p root; done");
  CHECK_THAT(shop.run("root/usr/bin/corvex verify" + model), Contains("all 10 values agree"));
  shop.run("test -e root/usr/lib/libcorvex.so.0 && test -e root/usr/lib/libcorvex.so");
}

TEST_CASE("Every installed header compiles without a warning, in g++ and in clang++, and stands by itself") {
  const Workshop shop;
  shop.run(install);
  const std::string strict =
      " -std=c++20 -Wall -Wextra -Wshadow -Wconversion -Wpedantic -Werror -fsyntax-only -Itree/include ";
  shop.run("(cd tree/include && ls corvex/*.hpp) | sed 's/.*/#include <&>/' > all.cpp");
  for (const std::string compiler : {"g++", "clang++"}) {
    INFO(compiler);
    CHECK(shop.run(compiler + strict + "all.cpp 2>&1 || echo FAILED") == "");
  }
  // Alone, since another header may bring what one lacks.
  if (corvex::test::whole())
    CHECK(shop.run("for h in $(cd tree/include && ls corvex/*.hpp); do echo \"#include <$h>\" > one.cpp; clang++" +
                   strict + "one.cpp 2>&1 || echo FAILED $h; done") == "");
}

TEST_CASE("The libraries export what the public headers declare, and nothing internal") {
  const Workshop shop;
  shop.run(install);
  const std::string symbols = shop.run(
      "for l in $(find tree -name 'libcorvex*.so'); do nm -DC --defined-only $l; done | grep -E ' [TDBR] ' | "
      "sed 's/^[0-9a-f]* . //' | sort");
  CHECK_THAT(symbols, Contains("corvex::solve(corvex::Structure const&)") && Contains("corvex::read_model("));
  std::istringstream lines(symbols);
  for (std::string line; std::getline(lines, line);) {
    INFO(line);
    for (const char* room :
         {"corvex::algebra::", "corvex::solver::", "corvex::section::", "corvex::result::", "corvex::hand::",
          "corvex::file::", "corvex::picture::", "corvex::ascii::", "fmt::", "Eigen::"})
      CHECK(line.rfind(room, 0) != 0);
  }
}
