// Models that are made to break the reader: long chains, large families, texts that are orders to a terminal.
#include <fmt/format.h>
#include <pthread.h>

#include <atomic>
#include <catch2/catch.hpp>
#include <cmath>
#include <corvex/corvex.hpp>
#include <corvex/export.hpp>
#include <corvex/file.hpp>
#include <corvex/writing.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <functional>
#include <new>
#include <thread>

// Counted, to see how work grows. Sanitizers have allocations of their own.
#ifndef CORVEX_SHORT_ROWS
namespace {
std::atomic<std::size_t> allocated{0};
}
void* operator new(std::size_t size) {
  ++allocated;
  if (void* p = std::malloc(size > 0 ? size : 1)) return p;
  throw std::bad_alloc();
}
void operator delete(void* p) noexcept {
  std::free(p);
}
void operator delete(void* p, std::size_t) noexcept {
  std::free(p);
}
#endif

namespace tests_of_file_hostile {

using namespace corvex;
using Catch::Matchers::Contains;

namespace {

struct Parts {
  std::string before{}, points = "{A: [0, 0], B: [2, 0]}",
                        members = "{beam: {through: [A, B], section: t, material: S235}}",
                        loads = "{x: [{on: beam, at: 1, force: {down: 1}}]}";

  std::string text() const {
    return before + "\ncorvex: 1\nunits: {length: m, force: kN}\npoints: " + points +
           "\nsections: {t: SHS 60x60x4}\nmembers: " + members + "\nsupports: {A: pinned, B: roller}\nloads: " + loads +
           "\n";
  }
};

std::string first_error(const std::string& text) {
  const auto model = read_model_text(text, "m.yaml");
  REQUIRE_FALSE(model.ok());
  return model.error().front().text;
}

std::string lines(std::size_t n, const std::function<std::string(std::size_t)>& line) {
  std::string all = "\n";
  for (std::size_t i = 0; i < n; ++i) all += "  " + line(i) + "\n";
  return all;
}

std::string str(std::size_t i) {
  return std::to_string(i);
}

// In a thread with the smallest stack that programs give to threads.
void on_a_small_stack(const std::function<void()>& work) {
  pthread_attr_t attributes;
  pthread_attr_init(&attributes);
#if defined(CORVEX_SANITIZED) || !defined(NDEBUG)
  constexpr std::size_t size = 2 << 20;  // frames are larger there
#else
  constexpr std::size_t size = 64 << 10;
#endif
  REQUIRE(pthread_attr_setstacksize(&attributes, size) == 0);
  pthread_t thread;
  const auto run = [](void* f) -> void* {
    (*static_cast<const std::function<void()>*>(f))();
    return nullptr;
  };
  REQUIRE(pthread_create(&thread, &attributes, run, const_cast<std::function<void()>*>(&work)) == 0);
  pthread_join(thread, nullptr);
  pthread_attr_destroy(&attributes);
}

constexpr std::size_t long_chain = 20000;

}  // namespace

TEST_CASE("Chains of any length are read on a small stack") {
  Parts p;
  SECTION("parameters") {
    p.before = "parameters:" + lines(long_chain, [](std::size_t i) { return "a" + str(i) + ": a" + str(i + 1); }) +
               "  a" + str(long_chain) + ": 2 m\n";
    p.points = "{A: [0, 0], B: [a0, 0]}";
  }
  SECTION("parameters in brackets") {
    const std::string open(20, '('), shut(20, ')');
    p.before = "parameters:" +
               lines(500, [&](std::size_t i) { return "a" + str(i) + ": " + open + "a" + str(i + 1) + shut; }) +
               "  a500: 2 m\n";
    p.points = "{A: [0, 0], B: [a0, 0]}";
  }
  SECTION("one formula full of brackets") {
    p.before = "parameters: {a0: \"" + std::string(30, '(') + "2 m" + std::string(30, ')') + "\"}";
    p.points = "{A: [0, 0], B: [a0, 0]}";
  }
  SECTION("points from each other") {
    p.points = "\n  A: [0, 0]\n  B: [2, 0]" +
               lines(long_chain,
                     [](std::size_t i) { return "p" + str(i) + ": {from: p" + str(i + 1) + ", by: [0, 0.001]}"; }) +
               "  p" + str(long_chain) + ": {from: A, by: [0, 1]}";
  }
  SECTION("materials like each other") {
    p.before =
        "materials:" + lines(long_chain, [](std::size_t i) { return "s" + str(i) + ": {like: s" + str(i + 1) + "}"; }) +
        "  s" + str(long_chain) + ": {like: S235}\n";
    p.members = "{beam: {through: [A, B], section: t, material: s0}}";
  }
  const std::string text = p.text();
  bool read = false;
  on_a_small_stack([&] { read = read_model_text(text, "m.yaml").ok(); });
  CHECK(read);
}

TEST_CASE("A model is read, solved and told on a small stack") {
  const std::string text = Parts().text();
  std::string json;
  on_a_small_stack([&] {
    const auto model = read_model_text(text, "m.yaml");
    const Solution solution = solve(model->structure);
    json = results_json({.solution = solution}, {.places = 3});
  });
  CHECK_THAT(json, Contains("\"beam\""));
}

TEST_CASE("Chains that come back to their beginning are refused once, where they begin") {
  Parts p;
  const auto next = [](std::size_t i) { return str((i + 1) % long_chain); };
  SECTION("parameters") {
    p.before = "parameters:" + lines(long_chain, [&](std::size_t i) { return "a" + str(i) + ": a" + next(i); });
    CHECK_THAT(first_error(p.text()), Contains("circular definition"));
  }
  SECTION("points") {
    p.points = "\n  A: [0, 0]\n  B: [2, 0]" + lines(long_chain, [&](std::size_t i) {
                 return "p" + str(i) + ": {from: p" + next(i) + ", by: [0, 1]}";
               });
    CHECK_THAT(first_error(p.text()), Contains("'p0' refers to itself"));
  }
  SECTION("members") {
    p.points = "{A: [0, 0], B: [2, 0], f: {repeat: B, count: 2, by: [1, 0]}}";
    p.members = "\n  beam: {through: [A, B], section: t, material: S235}" + lines(long_chain, [&](std::size_t i) {
                  return "m" + str(i) + ": {repeat: m" + next(i) + ", count: 1, points: f}";
                });
    CHECK_THAT(first_error(p.text()), Contains("'m0' refers to itself"));
  }
}

TEST_CASE("A name that a formula asks a figure of is no definition that it waits for") {
  Parts p;
  p.before = "parameters: {a: 2 m, t: a}";
  const auto model = read_model_text(p.text() + "hand: {let: {I: Iz(t), u: I/I}, expect: []}\n", "m.yaml");
  CHECK(model.ok());
}

TEST_CASE("Families that multiply are refused before they are made") {
  Parts p;
  SECTION("copies of copies") {
    p.points =
        "{A: [0, 0], B: [2, 0], a: {repeat: A, count: 3000, by: [1, 0]}, b: {repeat: a, count: 3000, by: [0, 1]}}";
    CHECK_THAT(first_error(p.text()), Contains("9003002 points") && Contains("at most 500000"));
  }
  SECTION("a member through all of a family") {
    p.points = "{A: [0, 0], B: [2, 0], a: {repeat: B, count: 100000, by: [0.01, 0]}}";
    p.members = "{beam: {through: [A, a], section: t, material: S235}}";
    CHECK_THAT(first_error(p.text()), Contains("at most 2000 points"));
  }
  SECTION("members") {
    p.points = "{A: [0, 0], B: [2, 1], a: {repeat: A, count: 1000, by: [1, 0]}}";
    p.members =
        "{beam: {through: [A, B], section: t, material: S235}, f: {repeat: beam, count: 1000, points: a}, "
        "g: {repeat: f, count: 1000, points: a}}";
    CHECK_THAT(first_error(p.text()), Contains("members; a model has at most 500000"));
  }
}

TEST_CASE("Texts that a terminal takes for orders, or that are shown in another order, are refused") {
  const auto [text, what] = GENERATE(table<const char*, const char*>({
      {R"("be\x1b[31mam")", "U+001B"},
      {R"("be\0am")", "U+0000"},
      {R"("be\u202eam")", "U+202E"},
      {R"("be\u200fam")", "U+200F"},
      {R"("be\ufffeam")", "U+FFFE"},
      {R"("be\u0085am")", "U+0085"},
      {R"("be\nam")", "one line"},
      {R"("be\tam")", "one line"},
  }));
  Parts p;
  p.members = std::string("{") + text + ": {through: [A, B], section: t, material: S235}}";
  p.loads = "{x: [{at: A, force: {down: 1}}]}";
  const auto model = read_model_text(p.text(), "m.yaml");
  REQUIRE_FALSE(model.ok());
  CHECK_THAT(model.error().front().text, Contains(what));
  CHECK(model.error().front().place.line == 6);
  CHECK(model.error().front().place.column == 11);
}

TEST_CASE("The same names are refused where they come from code") {
  using namespace literals;
  Structure s = Structure::plane("frame");
  const PointId a = s.point("A\x1b[2J", 0_m, 0_m), b = s.point(std::string(300, 'b'), 1_m, 0_m);
  s.member("Tr\xe4ger", {a, b},
           {.section = s.section("t", SquareTube{.width = 60_mm, .wall = 4_mm}), .material = "S235"});
  s.support(a, Support::fixed());
  s.load_case("x").at(b, Force{.y = -1_kN});
  std::string all;
  for (const Problem& p : solve(s).problems()) all += p.text + "\n";
  CHECK_THAT(all, Contains("U+001B") && Contains("longer than 200 bytes") && Contains("not UTF-8"));
  CHECK_THAT(all, !Contains("\x1b"));
}

TEST_CASE("Thousands of mistakes are told in a moment, and a long name does not fill the screen") {
  Parts p;
  p.points = "{A: [0, 0], B: [2, 0], a: {repeat: B, count: 20000, by: [0.01, 0]}}";
  p.loads = "\n  x:" + lines(3000, [](std::size_t i) { return "  - {at: baem" + str(i) + ", force: {down: 1}}"; });
  const auto model = read_model_text(p.text(), "m.yaml");
  REQUIRE_FALSE(model.ok());
  CHECK(model.error().size() == 1000);
  p.loads = "{x: [{at: " + std::string(60000, 'b') + ", force: {down: 1}}]}";
  CHECK(first_error(p.text()).size() < 2000);
}

TEST_CASE("Thousands of wrong formulas, and hundreds of combinations of hundreds of cases, are read in a moment") {
  Parts p;
  p.before = "parameters:" + lines(20000, [](std::size_t i) { return "l" + str(i) + ": zz" + str(i) + "*2"; });
  CHECK_THAT(first_error(p.text()), Contains("'zz0'"));
  p.before = "combinations:" + lines(300, [](std::size_t i) {
               std::string terms;
               for (std::size_t k = 0; k < 300; ++k) terms += (k ? ", c" : "c") + str(k) + ": 1";
               return "k" + str(i) + ": {" + terms + "}";
             });
  p.loads = lines(300, [](std::size_t i) { return "c" + str(i) + ": [{on: beam, at: 1, force: {down: 1}}]"; });
  const auto model = read_model_text(p.text(), "m.yaml");
  REQUIRE(model.ok());
  CHECK(model->structure.combinations().size() == 300);
  CHECK(model->structure.combinations().back().terms.size() == 300);
}

TEST_CASE("A name before a colon that is too long is told as that") {
  Parts p;
  p.members = "{" + std::string(1500, 'b') + ": {through: [A, B], section: t, material: S235}}";
  CHECK_THAT(first_error(p.text()), Contains("at most 1024 bytes"));
}

TEST_CASE("JSON writes characters beyond U+FFFF as pairs") {
  const auto model = read_model_text(
      R"({"corvex": 1, "title": "\ud83d\ude00 and \\ud83d", "units": {"length": "m", "force": "kN"},
          "points": {"A": [0, 0], "B": [2, 0]}, "sections": {"t": "SHS 60x60x4"},
          "members": {"beam": {"through": ["A", "B"], "section": "t", "material": "S235"}},
          "supports": {"A": "pinned", "B": "roller"}, "loads": {"x": [{"on": "beam", "at": 1, "force": {"down": 1}}]}})",
      "m.json");
  REQUIRE(model.ok());
  CHECK(model->structure.title() == "\xF0\x9F\x98\x80 and \\ud83d");
}

TEST_CASE("A share is no length of a coordinate") {
  Parts p;
  p.points = "{A: [0, 0], B: [50 %, 0]}";
  CHECK_THAT(first_error(p.text()), Contains("'50 %' is a share"));
}

TEST_CASE("A structure whose parts come from another one is checked without reading beyond its own") {
  using namespace literals;
  Structure other = Structure::plane("other");
  SectionId foreign = other.section("a", SquareTube{.width = 60_mm, .wall = 4_mm});
  for (int i = 0; i < 50; ++i)
    foreign = other.section("s" + std::to_string(i), SquareTube{.width = 60_mm, .wall = 4_mm});
  Structure s = Structure::plane("frame");
  const PointId a = s.point("A", 0_m, 0_m), b = s.point("B", 1_m, 0_m);
  const MemberId beam = s.member("beam", {a, b}, {.section = foreign, .material = "S235"});
  s.support(a, Support::fixed());
  s.load_case("x").temperature_gradient_y(beam, Temperature::si(10), Temperature::si(0));
  CHECK_THAT(solve(s).problems().front().text, Contains("does not belong to this structure"));
}

TEST_CASE("Files that are staged and not committed are as they were, hard links too") {
  namespace fs = std::filesystem;
  char name[] = "/tmp/corvex-test-XXXXXX";
  REQUIRE(mkdtemp(name));
  const fs::path folder = name;
  for (const char* file : {"plain", "linked"}) std::ofstream(folder / file) << "old";
  fs::create_hard_link(folder / "linked", folder / "other name");
  {
    FileWriter files;
    for (const char* file : {"plain", "linked", "new"})
      CHECK(files.stage((folder / file).string(), std::string(100000, 'x')).empty());
  }
  for (const char* file : {"plain", "linked", "other name"}) CHECK(fs::file_size(folder / file) == 3);
  CHECK_FALSE(fs::exists(folder / "new"));
  CHECK(std::distance(fs::directory_iterator(folder), {}) == 3);
  FileWriter files;
  for (const char* file : {"plain", "linked", "new"})
    CHECK(files.stage((folder / file).string(), std::string(100000, 'x')).empty());
  CHECK(files.commit().empty());
  for (const char* file : {"plain", "linked", "other name", "new"}) CHECK(fs::file_size(folder / file) == 100000);
  fs::remove_all(folder);
}

TEST_CASE("An outline that would take hours is refused with the reason, one of a thousand sides is solved") {
  const auto star = [](int n) {
    std::string points;
    for (int i = 0; i < n; ++i)
      points += fmt::format("[{:.6f}, {:.6f}], ", (i % 2 ? 30 : 60) * std::cos(6.283185307179586 * i / n),
                            (i % 2 ? 30 : 60) * std::sin(6.283185307179586 * i / n));
    return "sections: {t: {shape: outline, points: [" + points.substr(0, points.size() - 2) + "]}}";
  };
  const std::string text = Parts().text();
  const std::string designation = "sections: {t: SHS 60x60x4}";
  std::string hostile = text;
  hostile.replace(hostile.find(designation), designation.size(), star(400));
  hostile.replace(hostile.find("force: kN"), 9, "force: kN, section: mm");
  const auto model = read_model_text(hostile, "m.yaml");
  REQUIRE(model.ok());
  CHECK_THAT(solve(model->structure).problems().front().text, Contains("2000 pieces") && Contains("up to 1000"));
}

TEST_CASE("A link that is swapped while a table is read never leads out of the folder") {
  namespace fs = std::filesystem;
  std::string name = (fs::temp_directory_path() / "corvex-swap-XXXXXX").string();
  REQUIRE(mkdtemp(name.data()));
  const fs::path outer = name, folder = outer / "model";
  fs::create_directories(folder / "real");
  fs::create_directories(outer / "secret");
  std::ofstream(outer / "secret/p.csv") << "SECRET,OF,ANOTHER\n";
  std::ofstream(folder / "real/p.csv") << "name,x,y\nA,0,0\nB,2,0\n";
  std::ofstream(folder / "m.yaml")
      << "corvex: 1\nunits: {length: m, force: kN}\ntables: {points: way/p.csv}\nsections: "
         "{t: SHS 60x60x4}\nmembers: {b: {through: [A, B], section: t, material: "
         "S235}}\nsupports: {A: fixed}\nloads: {x: [{at: B, force: {down: 1}}]}\n";
  std::atomic<bool> ended{false};
  // Now the link leads beside the model, now out of its folder.
  std::thread swap([&] {
    for (int i = 0; !ended; ++i) {
      const fs::path link = folder / ("link" + std::to_string(i % 2));
      std::error_code ignored;
      fs::create_directory_symlink(i % 2 ? "real" : "../secret", link, ignored);
      fs::rename(link, folder / "way", ignored);
    }
  });
  int read = 0, refused = 0;
  for (int i = 0; i < 4000; ++i) {
    const auto model = read_model((folder / "m.yaml").string());
    model.ok() ? ++read : ++refused;
    if (!model)
      for (const Problem& p : model.error()) {
        INFO(p.text);
        REQUIRE(p.text.find("SECRET") == std::string::npos);
      }
  }
  ended = true;
  swap.join();
  CHECK(read > 0);
  CHECK(refused > 0);
  fs::remove_all(outer);
}

#ifndef CORVEX_SHORT_ROWS
TEST_CASE("A sweep does not read its list again for each run") {
  // What a run allocates does not depend on how many there are.
  const auto allocations = [](int runs) {
    const auto document = read_document_text(
        "corvex: 1\nunits: {length: m, force: kN}\nparameters: {w: 4 mm}\npoints: {A: [0, 0], B: [2, 0]}\nsections: {t: "
        "{shape: square tube, width: 60 mm, wall: w}}\nmembers: {b: {through: [A, B], section: t, material: "
        "S235}}\nsupports: {A: fixed}\nloads: {x: [{at: B, force: {down: 1}}]}\nsweeps: {n: {vary: {w: {from: 2 mm, to: 5 "
        "mm, count: " +
            std::to_string(runs) + "}}, show: [{mass: total}]}}\n",
        "m.yaml");
    REQUIRE(document.ok());
    const auto model = build(*document);
    REQUIRE(model.ok());
    const std::size_t before = allocated;
    const auto all = sweep(*document, {}, model->sweeps.front(), {.threads = 1});
    REQUIRE(all.ok());
    REQUIRE(all->size() == static_cast<std::size_t>(runs));
    return static_cast<double>(allocated - before) / runs;
  };
  const double few = allocations(100), many = allocations(800);
  CHECK(many < 1.2 * few);
}
#endif

}  // namespace tests_of_file_hostile
