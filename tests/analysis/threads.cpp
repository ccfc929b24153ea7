// Several threads at once: equal figures, and nothing of the host's is touched. Built with the thread sanitizer by
// `./run-tests threads`.
#include <atomic>
#include <corvex/corvex.hpp>
#include <csignal>
#include <thread>

#include "support/near.hpp"

namespace tests_of_analysis_threads {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;

namespace {

// The same work in four threads; what each came to.
template <class Work>
auto in_four_threads(const Work& work) {
  std::array<decltype(work(0)), 4> results{};
  std::vector<std::thread> threads;
  for (int t = 0; t < 4; ++t) threads.emplace_back([&, t] { results[static_cast<std::size_t>(t)] = work(t); });
  for (std::thread& t : threads) t.join();
  return results;
}

// Three beams hinged at both ends, from the ground to a top that is free to turn.
double sinking_of_a_tripod(double wall_mm) {
  Structure s = Structure::space("tripod");
  const Section tube = RoundTube{.diameter = 48.3_mm, .wall = Length::si(wall_mm / 1000)};
  const MemberOptions leg{.section = s.section("tube", tube), .material = material("S235"), .hinge = Hinge::both};
  const PointId top = s.point("top", 0_m, 0_m, 1.2_m);
  const PointId feet[] = {s.point("A", 1_m, 0_m, 0_m), s.point("B", -0.6_m, 0.8_m, 0_m),
                          s.point("C", -0.6_m, -0.8_m, 0_m)};
  for (const PointId foot : feet) {
    s.member(s.points()[foot.index].name + " leg", {foot, top}, leg);
    s.support(foot, Support::pinned());
  }
  s.load_case("tank").at(top, Force{.z = -4_kN}).gravity();
  const Solution solved = solve(s);
  const double safety = solved[0]["A leg"].safety().value_or(0);
  return safety > 0 ? solved[0].displacement(top).z.si() : 0;
}

#ifndef CORVEX_WATCH_THREADS  // MUMPS is not built with it
// Cubes of rigid joints: Scotch orders them, MUMPS factorises all but the smallest.
double sinking_of_a_lattice(int n) {
  Structure s = Structure::space("lattice");
  const MemberOptions o{.section = s.section("bar", RoundBar{.diameter = 20_mm}), .material = material("S235")};
  std::vector<PointId> points;
  const auto at = [&](int i, int j, int k) { return points[static_cast<std::size_t>((k * n + j) * n + i)]; };
  for (int k = 0; k < n; ++k)
    for (int j = 0; j < n; ++j)
      for (int i = 0; i < n; ++i)
        points.push_back(s.point("P" + std::to_string(points.size()), Length::si(i), Length::si(j), Length::si(k)));
  int member = 0;
  const auto join = [&](PointId a, PointId b) { s.member("m" + std::to_string(member++), {a, b}, o); };
  for (int k = 0; k < n; ++k)
    for (int j = 0; j < n; ++j)
      for (int i = 0; i < n; ++i) {
        if (i + 1 < n) join(at(i, j, k), at(i + 1, j, k));
        if (j + 1 < n) join(at(i, j, k), at(i, j + 1, k));
        if (k + 1 < n) join(at(i, j, k), at(i, j, k + 1));
        if (k == 0) s.support(at(i, j, k), Support::fixed());
      }
  s.load_case("corner").at(points.back(), Force{.x = 1_kN, .z = -2_kN});
  return solve(s)[0].displacement(points.back()).z.si();
}
#endif

#if defined(CORVEX_SHORT_ROWS) && !defined(CORVEX_WATCH_THREADS)
constexpr int tripods = 60;
[[maybe_unused]] constexpr int largest_lattice = 8;
#else
constexpr int tripods = 500;
[[maybe_unused]] constexpr int largest_lattice = 12;
#endif

[[maybe_unused]] volatile std::sig_atomic_t terminated = 0;

}  // namespace

TEST_CASE("Four threads solve their own tripods, and all come to the same figures") {
  const auto work = [](int) {
    std::vector<double> sinkings;
    for (int i = 0; i < tripods; ++i) sinkings.push_back(sinking_of_a_tripod(2 + 0.1 * (i % 20)));
    return sinkings;
  };
  const auto results = in_four_threads(work);
  CHECK(results[0].front() < 0);
  CHECK(results[0][0] != results[0][1]);
  for (const auto& r : results) CHECK(r == results[0]);
}

#ifndef CORVEX_WATCH_THREADS
TEST_CASE("Four threads solve lattices that Scotch orders and MUMPS factorises") {
  const auto work = [](int) {
    std::vector<double> sinkings;
    for (int n = 8; n <= largest_lattice; ++n) sinkings.push_back(sinking_of_a_lattice(n));
    return sinkings;
  };
  const auto results = in_four_threads(work);
  CHECK(results[0].front() < 0);
  for (const auto& r : results) CHECK(r == results[0]);
}

TEST_CASE("Signal handlers of the host stay in place while other threads solve") {
  const auto handler = [](int) { terminated = 1; };
  struct sigaction before {};
  REQUIRE(sigaction(SIGTERM, nullptr, &before) == 0);
  std::signal(SIGTERM, handler);
  std::atomic<bool> done = false;
  std::thread solving([&] {
    for (int i = 0; i < 40; ++i) sinking_of_a_lattice(8);
    done = true;
  });
  int changed = 0;
  while (!done) {
    struct sigaction now {};
    sigaction(SIGTERM, nullptr, &now);
    changed += now.sa_handler != static_cast<void (*)(int)>(handler);
  }
  solving.join();
  sigaction(SIGTERM, &before, nullptr);
  CHECK(changed == 0);
}
#endif

TEST_CASE("A shape is worked out once for all structures and threads") {
  const auto shape = [](double wall) {
    return RectangularTube{.height = 80_mm, .width = 40_mm, .wall = Length::si(wall)};
  };
  const Section kept(shape(0.00301));
  const auto work = [&](int) {
    const Section same(shape(0.00301));
    return &same.properties();
  };
  // The same values stand at the same place: they were not worked out again.
  for (const auto* properties : in_four_threads(work)) CHECK(properties == &kept.properties());
  // A wall that differs by a nanometre is another shape, and so is another torsion constant.
  const Section other(shape(0.003010001)), given = kept.with_torsion_constant(1_cm4);
  CHECK(&other.properties() != &kept.properties());
  CHECK(other.properties().A > Area());
  CHECK(given.properties().J == 1_cm4);
}

TEST_CASE("One solution is read by four threads at once") {
  Structure s = Structure::plane("frame");
  const auto a = s.point("A", 0_m, 0_m), b = s.point("B", 0_m, 2_m), c = s.point("C", 3_m, 2_m),
             d = s.point("D", 3_m, 0_m);
  const MemberOptions o{.section = s.section("SHS", profile("SHS 60x60x4")->section), .material = material("S235")};
  s.member("left", {a, b}, o);
  const auto rail = s.member("rail", {b, c}, o);
  s.member("right", {d, c}, o);
  s.support(a, Support::fixed());
  s.support(d, Support::pinned());
  s.load_case("product").line(rail, LineForce{.y = -2_kN_per_m});
  s.load_case("wind").at(b, Force{.x = 1_kN});
  const Solution solution = solve(s);
  const auto work = [&](int) {
    std::vector<double> read;
    for (std::size_t k = 0; k < solution.size(); ++k)
      for (const char* name : {"left", "rail", "right"}) {
        const MemberResult m = solution[k][name];
        read.push_back(m.moment_z().max().value.si());
        read.push_back(m.von_mises()->value.si());
        read.push_back(m.sag().value.si);
      }
    read.push_back(envelope(solution, rail).moment_z.max.value.si);
    read.push_back(static_cast<double>(solution.notes().size()));
    return read;
  };
  const auto results = in_four_threads(work);
  for (const auto& r : results) CHECK(r == results[0]);
}

TEST_CASE("Definitions are evaluated when first used, by any of four threads") {
  for (int round = 0; round < 20; ++round) {
    Definitions names;
    constexpr int count = 100;
    REQUIRE(names.add("a0", "2 mm"));
    for (int k = 1; k < count; ++k) {
      const std::string before = "a" + std::to_string(k - 1);
      REQUIRE(names.add("a" + std::to_string(k), before + " + 2 mm"));
    }
    // Each thread begins elsewhere.
    const auto work = [&](int thread) {
      double sum = 0;
      for (int k = 0; k < count; ++k) {
        const std::string name = "a" + std::to_string((count - 1 - k + 25 * thread) % count);
        if (const auto found = evaluate(name, names)) sum += found->quantity.si;
      }
      return sum;
    };
    for (const double sum : in_four_threads(work)) CHECK(sum == test::near(0.002 * count * (count + 1) / 2));
  }
}

}  // namespace tests_of_analysis_threads
