// The live page follows its model through every kind of replacement, answers while work is under way, and ends at once
// when asked to.
#include <linux/landlock.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <unistd.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <csignal>
#include <functional>
#include <regex>
#include <thread>

#include "page_server.hpp"
#include "support/program.hpp"
#include "support/trestle.hpp"

namespace tests_of_following {

using namespace corvex::test;
using Catch::Matchers::Contains;
using Json = nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct Model : Folder {
  explicit Model(const std::string& text = corvex::test::trestle) { write("m.yaml", text); }
  fs::path file() const { return path() / "m.yaml"; }
};

bool is_sound(const Json& answer) {
  return answer["problems"].empty() && answer.contains("model");
}

// With displacements that are followed through many steps: about half a minute of work.
// A sanitizer makes it ten times as slow: it is shorter then.
std::string slow_model(const std::string& force) {
  const int members = watched ? 16 : 60;
  const std::string count = std::to_string(members), others = std::to_string(members - 1);
  return "corvex: 1\ntitle: chain\nunits: {length: mm, force: kN}\nparameters: {f: " + force +
         "}\nanalysis: {order: large}\nsections: {t: SHS 60x60x4}\npoints:\n  A: [0, 0]\n  P: {repeat: A, count: " +
         count +
         ", by: [0, 500]}\nmembers:\n  a: {through: [A, P.1], section: t, material: S235}\n  m: {repeat: a, count: " +
         others + ", points: [P]}\nsupports: {A: fixed}\nloads: {x: [{at: P." + count +
         ", force: {x: f, down: f}}]}\nvariants: {heavy: {parameters: {f: 50000 kN}}, light: {parameters: {f: 0.002 kN}}}\n";
}

}  // namespace

TEST_CASE("A model is followed through everything that takes its place and recovers by itself") {
  const Model folder;
  const PageServer server(folder.path(), "m.yaml");
  const auto put_back = [&] {
    std::error_code ignored;
    fs::remove_all(folder.file(), ignored);
    folder.write("m.yaml", corvex::test::trestle);
  };
  const auto instead = [&](const std::function<void()>& make) {
    return [&folder, make] {
      fs::remove(folder.file());
      make();
    };
  };
  const auto link = [&](const char* to) { return instead([&folder, to] { fs::create_symlink(to, folder.file()); }); };
  const std::pair<const char*, std::function<void()>> changes[] = {
      {"deleted", instead([] {})},
      {"a folder", instead([&] { fs::create_directory(folder.file()); })},
      {"a pipe that nobody writes to", instead([&] { REQUIRE(mkfifo(folder.file().c_str(), 0600) == 0); })},
      {"a link to an endless device", link("/dev/zero")},
      {"a link to a terminal", link("/dev/tty")},
      {"a link to a file that waits for the kernel", link("/proc/kmsg")},
      {"a link to itself", link("m.yaml")},
      {"a link to the standard input", link("/dev/stdin")},
      {"a link to nothing", link("nothing")},
      {"300 MB of nothing", [&] { REQUIRE(truncate(folder.file().c_str(), 300 << 20) == 0); }},
      {"half of it",
       [&] { folder.write("m.yaml", corvex::test::trestle.substr(0, corvex::test::trestle.size() / 2)); }},
      {"empty", [&] { folder.write("m.yaml", ""); }},
      {"no text", [&] { folder.write("m.yaml", std::string("\xff\xfe\x00\x01", 4)); }}};
  for (const auto& [what, change] : changes) {
    INFO(what);
    change();
    CHECK(server.becomes([](const Json& a) { return !a["problems"].empty() && a.contains("model"); }));
    put_back();
    CHECK(server.becomes(is_sound));
  }
}

TEST_CASE("Each save is shown, however it is written and however fast one follows another") {
  const Model folder;
  const PageServer server(folder.path(), "m.yaml");
  const auto titled = [](const std::string& title) {
    return std::regex_replace(corvex::test::trestle, std::regex("title: .*"), "title: " + title);
  };
  const auto shows = [&](const std::string& title) {
    return server.becomes([&](const Json& a) { return a["model"]["title"] == title; });
  };
  folder.write("m.yaml", titled("written in place"));
  CHECK(shows("written in place"));
  folder.write("other.yaml", titled("renamed"));
  fs::rename(folder.path() / "other.yaml", folder.file());
  CHECK(shows("renamed"));
  folder.write("real.yaml", titled("behind a link"));
  fs::remove(folder.file());
  fs::create_symlink("real.yaml", folder.file());
  CHECK(shows("behind a link"));
  folder.write("real.yaml", titled("behind a link 2"));
  CHECK(shows("behind a link 2"));
  // The same size within one step of the file system's clock.
  for (int i = 0; i < 300; ++i) folder.write("real.yaml", titled("save " + std::to_string(1000 + i)));
  CHECK(shows("save 1299"));
}

TEST_CASE("Tables are followed like the model, also where they are broken or missing") {
  const Folder folder;
  folder.write("m.yaml",
               "corvex: 1\ntitle: t\nunits: {length: mm, force: kN}\ntables: {points: p.csv}\nsections: {tube: SHS "
               "60x60x4}\nmembers: {m: {through: [A, B], section: tube, material: S235}}\nsupports: {A: fixed}\nloads: "
               "{push: [{at: B, force: {x: 2}}]}\n");
  const std::string good = "name,x,y\nA,0,0\nB,0,900\n", other = "name,x,y\nA,0,0\nB,0,950\n";
  folder.write("p.csv", good);
  const PageServer server(folder.path(), "m.yaml");
  const auto at = [&](double y) {
    return [y](const Json& a) { return is_sound(a) && a["model"]["points"][1]["at"][1] == Approx(y); };
  };
  for (const char* broken : {"name,x,y\nA,0,0\nB,0\n", "name,x,y\nA,0,0\nB,0,x\n", "", "name,x,y\nA,0,0\nB,0,0\n"}) {
    INFO(broken);
    folder.write("p.csv", broken);
    CHECK(server.becomes([](const Json& a) { return !a["problems"].empty(); }));
    folder.write("p.csv", other);
    CHECK(server.becomes(at(0.95)));
    folder.write("p.csv", good);
    CHECK(server.becomes(at(0.9)));
  }
  fs::remove(folder.path() / "p.csv");
  CHECK(server.becomes([](const Json& a) { return !a["problems"].empty(); }));
  // A table that the file names only now, while it is not there yet.
  folder.write("m.yaml", std::regex_replace(folder.content("m.yaml"), std::regex("p\\.csv"), "q.csv"));
  folder.write("q.csv", other);
  CHECK(server.becomes(at(0.95)));
}

TEST_CASE("A variant that takes long to solve holds nothing up, and may be left for another") {
  const Model folder(slow_model("0.001 kN"));
  PageServer server(folder.path(), "m.yaml");
  Client slow(server.port());
  slow.send("GET /" + server.token() +
            "/model?variant=heavy HTTP/1.1\r\nHost: 127.0.0.1:" + std::to_string(server.port()) + "\r\n\r\n");
  std::this_thread::sleep_for(300ms);
  // Its figures are worked out for each answer, here while another variant is solved.
  CHECK(server.model("", watched ? 10s : soon));
  CHECK(server.model("?variant=light", watched ? 120s : 20s));
  CHECK(server.get("", soon).starts_with("HTTP/1.1 200"));
  // A model that takes as long is mended before it is solved.
  folder.write("m.yaml", slow_model("50000 kN"));
  std::this_thread::sleep_for(500ms);
  folder.write("m.yaml", slow_model("0.003 kN"));
  CHECK(server.becomes([](const Json& a) { return is_sound(a) && a["version"] >= 2; }, watched ? 120s : 10s));
  // The one who waits gets the variant of the model as it is now, or is told.
  folder.write("m.yaml", slow_model("50000 kN"));
  std::this_thread::sleep_for(300ms);
  Seconds taken{};
  CHECK(server.end(SIGINT, &taken) == 0);
  CHECK(taken < soon);
}

TEST_CASE("The first model is as slow as it likes: an interruption ends the program") {
  for (const int signal : {SIGINT, SIGTERM}) {
    const Model folder(slow_model("50000 kN"));
    const Outcome o = folder.run("view m.yaml > address 2> words & { p=$!; sleep 0.7; kill -" + std::to_string(signal) +
                                 " $p; begun=$(date +%s%N); wait $p; status=$?; "
                                 "echo status $status after $(( ($(date +%s%N) - begun) / 1000000 )) ms; }");
    INFO(o.out << folder.content("words"));
    std::smatch found;
    REQUIRE(std::regex_search(o.out, found, std::regex("status 0 after ([0-9]+) ms")));
    CHECK(std::stoi(found[1]) < soon / Seconds(1e-3));
  }
}

TEST_CASE("The page is served until it is ended, not for the time that other commands have") {
  const Model folder;
  PageServer server(folder.path(), "m.yaml", {.arguments = "--max-time '2 s'"});
  std::this_thread::sleep_for(1s);
  CHECK(server.is_running());
  std::this_thread::sleep_for(2s);
  CHECK_FALSE(server.is_running());
  // Without the option no timer is set: its signal keeps the default action.
  PageServer unbounded(folder.path(), "m.yaml");
  CHECK(unbounded.end(SIGALRM) == 128 + SIGALRM);
}

TEST_CASE("Where nobody reads what it tells the page is served, followed and ended") {
  const Model folder;
  PageServer server(folder.path(), "m.yaml", {.read_errors = false});
  std::string many = corvex::test::trestle;
  for (int i = 0; i < 60; ++i) many += "bad" + std::to_string(i) + ": 1\n";
  for (int i = 0; i < 40; ++i) {
    folder.write("m.yaml", many + "# " + std::to_string(i) + "\n");
    std::this_thread::sleep_for(60ms);
  }
  CHECK(server.becomes([](const Json& a) { return !a["problems"].empty(); }));
  folder.write("m.yaml", corvex::test::trestle);
  CHECK(server.becomes(is_sound));
  Seconds taken{};
  CHECK(server.end(SIGTERM, &taken) == 0);
  CHECK(taken < soon);
}

TEST_CASE("Variants that are asked for do not add up in memory") {
  std::string text = corvex::test::trestle + "variants:\n";
  for (int i = 0; i < 200; ++i)
    text += "  v" + std::to_string(i) + ": {parameters: {span: " + std::to_string(2000 + i) + " mm}}\n";
  const Model folder(text);
  const PageServer server(folder.path(), "m.yaml");
  for (int i = 0; i < 20; ++i) REQUIRE(server.model("?variant=v" + std::to_string(i)));
  const double before = server.highest_memory();
  for (int i = 20; i < 200; ++i) REQUIRE(server.model("?variant=v" + std::to_string(i)));
  CHECK(server.highest_memory() < before + (watched ? 60 : 10));
  // What is no variant is told.
  const auto none = server.model("?variant=none");
  REQUIRE(none);
  CHECK_THAT((*none)["refused"].dump(), Contains("there is no variant 'none'"));
}

TEST_CASE("A variant that the command names is what the page begins with") {
  const Model folder(corvex::test::trestle + "variants:\n  heavy: {parameters: {wall: 5 mm}}\n");
  const PageServer server(folder.path(), "m.yaml", {.arguments = "--variant heavy"});
  const auto first = server.model(), plain = server.model("?variant=");
  REQUIRE((first && plain));
  CHECK((*first)["model"]["variant"] == "heavy");
  CHECK((*plain)["model"]["variant"] == "");
}

TEST_CASE("The program that serves a page can write no file") {
  const bool has_landlock = ::syscall(SYS_landlock_create_ruleset, nullptr, 0, LANDLOCK_CREATE_RULESET_VERSION) > 0;
  const Model folder;
  const PageServer server(folder.path(), "m.yaml");
  // It is set on the way to giving the rights up, and cannot be taken back.
  CHECK(std::stoi(server.status("NoNewPrivs")) == (has_landlock ? 1 : 0));
}

}  // namespace tests_of_following
