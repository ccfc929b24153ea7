// The binaries of the build and of the packages: they load libraries from their own folders only, and are compiled and
// linked with the usual hardening.
#include <fmt/format.h>

#include <set>

#include "support.hpp"

using Catch::Matchers::Contains;
using corvex::test::Workshop;

namespace {

namespace fs = std::filesystem;

bool is_elf(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  char magic[4] = {};
  in.read(magic, 4);
  return std::string(magic, 4) ==
         "\x7f"
         "ELF";
}

// Executable files and shared libraries; objects and archives are not loaded.
std::vector<fs::path> binaries(const fs::path& folder) {
  std::vector<fs::path> all;
  for (const auto& entry : fs::recursive_directory_iterator(folder)) {
    const std::string end = entry.path().extension();
    if (entry.is_regular_file() && !entry.is_symlink() && end != ".o" && end != ".a" && is_elf(entry.path()))
      all.push_back(entry.path());
  }
  return all;
}

// The entries of RPATH and RUNPATH.
std::vector<std::string> run_paths(const Workshop& shop, const fs::path& file) {
  std::istringstream lines(
      shop.run("readelf -dW '" + file.string() + "' | sed -n 's/.*R[UN]*PATH.*\\[\\(.*\\)\\]/\\1/p'"));
  std::vector<std::string> all;
  for (std::string line; std::getline(lines, line);) {
    // An empty entry at the end counts too.
    std::istringstream entries(line + ":");
    for (std::string entry; std::getline(entries, entry, ':');) all.push_back(entry);
  }
  return all;
}

void check_run_paths(const Workshop& shop, const std::vector<fs::path>& all) {
  for (const fs::path& file : all) {
    INFO(file);
    for (const std::string& entry : run_paths(shop, file))
      CHECK((entry == "$ORIGIN" || entry == "$ORIGIN/../lib" || entry.rfind("$ORIGIN/../lib/", 0) == 0));
  }
}

}  // namespace

TEST_CASE("No binary of the build looks for libraries in the current folder") {
  const Workshop shop;
  const auto all = binaries(CORVEX_BUILD);
  CHECK(all.size() > 10);
  check_run_paths(shop, all);
  // A library in the folder of the model is not loaded. (It would print a line.)
  shop.write("evil.c",
             "#include <stdio.h>\n__attribute__((constructor)) static void run(void) { puts(\"loaded\"); }\n");
  for (const char* name : {"libdmumps_seq-5.5.so", "libcorvex.so.0", "libcorvex-pictures.so.0", "libcorvex-server.so.0", "libfmt.so.9"})
    shop.run(std::string("cc -shared -fPIC evil.c -o ") + name + " -Wl,-soname," + name);
  CHECK_THAT(shop.run("'" CORVEX_PROGRAM "' --version"), !Contains("loaded"));
  CHECK_THAT(shop.run("'" CORVEX_PROGRAM "' new > m.yaml && '" CORVEX_PROGRAM "' draw m.yaml"), !Contains("loaded"));
}

TEST_CASE("Packaged binaries are hardened, and have no path of the build") {
  const Workshop shop;
  shop.run(std::string("cpack --config '") + CORVEX_BUILD + "/CPackConfig.cmake' -B packages");
  shop.run("for p in packages/*.deb; do dpkg-deb -x $p root; done");
  const auto all = binaries(shop.path() / "root");
  CHECK(all.size() >= 6);
  check_run_paths(shop, all);
  std::set<std::string> checked_calls;
  for (const fs::path& file : all) {
    INFO(file);
    const std::string name = "'" + file.string() + "'";
    const std::string head = shop.run("readelf -hlW " + name), dynamic = shop.run("readelf -dW " + name);
    CHECK_THAT(head, Contains("Type:                              DYN"));
    CHECK_THAT(head, Contains("GNU_RELRO"));
    CHECK(shop.run("readelf -lW " + name + " | grep GNU_STACK | grep -c RWE || true") == "0\n");
    CHECK_THAT(dynamic, Contains("BIND_NOW"));
    if (file.filename() == "corvex") CHECK_THAT(dynamic, Contains("PIE"));
#ifndef CORVEX_SHORT_ROWS
    // Sanitizers replace both by more.
    const std::string symbols =
        shop.run("readelf -sW --dyn-syms " + name + " | grep -oE '__[a-z]+_chk(_fail)?' | sort -u");
    CHECK_THAT(symbols, Contains("__stack_chk_fail"));
    if (symbols.find("_chk\n") != std::string::npos) checked_calls.insert(file.filename());
    CHECK(std::stoi(shop.run("objdump -d " + name + " | grep -c endbr64")) > 100);
    CHECK(shop.run("strings -a " + name + " | grep -cF '" CORVEX_SOURCE "' || true") == "0\n");
#endif
  }
#ifndef CORVEX_SHORT_ROWS
  CHECK(checked_calls.size() >= 3);
#endif
}

TEST_CASE("The bill of materials states the code of others that the page has") {
  const Workshop shop;
  const std::string sbom = corvex::test::content(CORVEX_SOURCE "/packaging/sbom.spdx.json"),
                    lock = corvex::test::content(CORVEX_SOURCE "/src/view/page/package-lock.json");
  const std::size_t at = lock.find("\"node_modules/three\"");
  REQUIRE(at != std::string::npos);
  const std::size_t begin = lock.find("\"version\": \"", at) + 12;
  const std::string version = lock.substr(begin, lock.find('"', begin) - begin);
  CHECK_THAT(sbom, Contains("\"versionInfo\": \"" + version + "\"") && Contains("\"versionInfo\": \"0.1.0\""));
}
