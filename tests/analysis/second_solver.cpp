// Random frames with every kind of joint, support and load against a second solver that shares nothing with the first.
#include <corvex/corvex.hpp>
#include <filesystem>
#include <fstream>
#include <random>

#include "oracle/dense.hpp"
#include "support/near.hpp"
#include "support/plan.hpp"

namespace tests_of_analysis_second_solver {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;

namespace {

constexpr unsigned frames_tried = 500;  // in the plane, and as many in space
constexpr double agreed = 1e-8;         // of the largest value of its kind

// The largest value of each kind in one case, and what is compared against it.
class Comparison {
 public:
  Comparison(const Solution& s, const DenseSolution& other, std::size_t load_case)
      : s_(s.structure()), case_(s[load_case]), other_(other), c_(load_case) {
    for (std::size_t i = 0; i < s_.members().size(); ++i) members_.push_back(case_[MemberId{i}]);
  }

  void run(std::mt19937& random) {
    points();
    supports();
    for (std::size_t i = 0; i < members_.size(); ++i) stations(i, random);
    // Levers here are metres: a moment counts as that force, a rotation as that movement.
    const double force = std::max(largest_[0], largest_[1]), move = std::max(largest_[2], largest_[3]);
    for (const auto& [kind, value, expected] : pairs_) {
      const double size = kind < 2 ? force : move;
      if (!(std::abs(value - expected) <= agreed * size)) {
        CAPTURE(kind, size, c_);
        CHECK(value == Approx(expected).margin(agreed * size).epsilon(0));
      }
    }
    CHECK(pairs_.size() > 20);
  }

 private:
  enum Kind { force, moment, move, turn };

  void pair(Kind kind, double value, double expected) {
    largest_[kind] = std::max({largest_[kind], std::abs(value), std::abs(expected)});
    pairs_.push_back({kind, value, expected});
  }

  void points() {
    for (std::size_t p = 0; p < s_.points().size(); ++p) {
      const Displacement d = case_.displacement(PointId{p});
      const double six[] = {d.x.si(), d.y.si(), d.z.si(), d.rx.si(), d.ry.si(), d.rz.si()};
      const auto expected = other_.displacement(c_, PointId{p});
      for (std::size_t k = 0; k < 6; ++k) pair(k < 3 ? move : turn, six[k], expected[k]);
    }
  }

  void supports() {
    for (std::size_t i = 0; i < s_.supports().size(); ++i) {
      const Reaction r = case_.reaction(s_.supports()[i].at);
      const double six[] = {r.x.si(), r.y.si(), r.z.si(), r.mx.si(), r.my.si(), r.mz.si()};
      const auto expected = other_.reaction(c_, i);
      for (std::size_t k = 0; k < 6; ++k) pair(k < 3 ? force : moment, six[k], expected[k]);
    }
  }

  void stations(std::size_t i, std::mt19937& random) {
    const MemberResult& m = members_[i];
    const Member& member = s_.members()[i];
    const double L = m.length().si();
    std::vector<double> places{1e-6 * L, (1 - 1e-6) * L};
    for (int n = 0; n < 4; ++n) places.push_back(std::uniform_real_distribution<double>(0, L)(random));
    for (std::size_t k = 1; k + 1 < member.through.size(); ++k)
      for (const double beside : {-1e-6, 1e-6}) places.push_back(s_.place_of(member, k) + beside * L);
    const bool beam = member.kind == MemberKind::beam;
    for (const double x : places) {
      const SectionState s = m.at(Length::si(x));
      const auto expected = other_.at(c_, MemberId{i}, x);
      pair(force, s.axial.si(), expected[0]);
      const Extreme along = {m.deflection_x().at(Length::si(x)), {}};
      pair(move, along.value.si, expected[6]);
      if (!beam) continue;
      pair(force, s.shear_y.si(), expected[1]);
      pair(force, s.shear_z.si(), expected[2]);
      pair(moment, s.torsion.si(), expected[3]);
      pair(moment, s.moment_y.si(), expected[4]);
      pair(moment, s.moment_z.si(), expected[5]);
      pair(move, s.deflection_y.si(), expected[7]);
      pair(move, s.deflection_z.si(), expected[8]);
    }
  }

  struct Pair {
    Kind kind;
    double value, expected;
  };
  const Structure& s_;
  CaseResult case_;
  const DenseSolution& other_;
  std::size_t c_;
  std::vector<MemberResult> members_;
  std::vector<Pair> pairs_;
  double largest_[4] = {0, 0, 0, 0};
};

void compare(const Structure& structure, const Solution& s, unsigned seed) {
  const DenseSolution other(structure);
  std::mt19937 random(seed);
  for (std::size_t c = 0; c < s.size(); ++c) Comparison(s, other, c).run(random);
}

void compare_frames(bool plane) {
  for (unsigned seed = 1; seed <= frames_tried; ++seed) {
    INFO((plane ? "plane" : "space") << " frame " << seed);
    const Structure structure = build(rich_plan(seed, plane));
    const Solution s = solve(structure);
    for (const Problem& p : s.problems()) UNSCOPED_INFO(describe(p));
    REQUIRE(s.ok());
    compare(structure, s, seed);
  }
}

}  // namespace

TEST_CASE("Plane frames of every kind agree with the second solver") {
  compare_frames(true);
}

TEST_CASE("Space frames of every kind agree with the second solver") {
  compare_frames(false);
}

TEST_CASE("Loads through places of the section agree with the second solver") {
  for (unsigned seed = 1; seed <= 200; ++seed) {
    const bool plane = seed % 4 == 0;
    INFO("frame " << seed);
    Structure structure = build(rich_plan(seed, plane));
    const Through places[] = {Through::centroid(), Through::at(Length::si(0.01), Length::si(-0.03)),
                              Through::at(Length::si(-0.05), Length::si(0.02))};
    structure.analysis().through = places[seed % 3];
    // Every kind of load with a place of its own besides.
    LoadsOf own = structure.load_case("own");
    for (std::size_t i = 0; i < structure.members().size(); ++i) {
      const Member& m = structure.members()[i];
      if (m.kind == MemberKind::link) continue;
      const double L = structure.length_of(m), out = plane ? 0 : 300;
      own.on(MemberId{i}, Length::si(0.3 * L), Force{ForceSize::si(100), ForceSize::si(-200), ForceSize::si(out)})
          .through(places[(seed + 1) % 3]);
      own.line(MemberId{i}, LineForce{LineForceSize::si(40), LineForceSize::si(-30), LineForceSize::si(out / 10)},
               LineForce{LineForceSize::si(-10), LineForceSize::si(50), LineForceSize::si(0)}, Length::si(0.2 * L),
               Length::si(0.9 * L))
          .through(places[(seed + 2) % 3]);
    }
    own.gravity().through(places[seed % 2]);
    const Solution s = solve(structure);
    for (const Problem& p : s.problems()) UNSCOPED_INFO(describe(p));
    // A twist that a release leaves free is refused.
    if (!s.ok() && s.problems().front().text.find("turns") != std::string::npos) continue;
    REQUIRE(s.ok());
    compare(structure, s, seed);
  }
}

TEST_CASE("Random frames hold everything that they are to test") {
  // So that a slip in the making of frames cannot quietly leave a feature out.
  std::map<std::string, int> seen;
  const auto count = [&](const std::string& what, bool there) { seen[what] += there; };
  for (const bool plane : {true, false})
    for (unsigned seed = 1; seed <= frames_tried; ++seed) {
      const Plan p = rich_plan(seed, plane);
      const std::string where = plane ? "plane " : "space ";
      count(where + "shear off", !p.shear);
      count(where + "up y", p.up == Up::y);
      if (!plane) count(where + "up z", p.up == Up::z);
      count(where + "masses", !p.masses.empty());
      for (const PlanMember& m : p.members) {
        const auto any = [](const std::array<bool, 6>& f) { return f != std::array<bool, 6>{}; };
        count(where + "link", m.link);
        count(where + "link with arm", m.link && (!zero(m.arm_start) || !zero(m.arm_end)));
        count(where + "three points", m.through.size() == 3);
        count(where + "three points with arms", m.through.size() == 3 && !zero(m.arm_start));
        count(where + "hinge at one end", m.hinge == Hinge::start || m.hinge == Hinge::end);
        count(where + "hinge at both ends", m.hinge == Hinge::both);
        count(where + "release", any(m.release_start));
        count(where + "releases at both ends", any(m.release_start) && any(m.release_end));
        count(where + "upright", p.plan_share(m) == 0);
        count(where + "roll", m.roll != 0);
        count(where + "arms", !zero(m.arm_start) || !zero(m.arm_end));
      }
      for (const PlanSupport& s : p.supports) {
        count(where + "skew support", !s.along.empty());
        count(where + "spring", s.spring != std::array<double, 6>{});
      }
      for (const auto& loads : p.cases)
        for (const PlanLoad& l : loads) {
          count(where + "load kind " + std::to_string(static_cast<int>(l.kind)), true);
          count(where + "member axes", l.axes == LoadAxes::member);
          count(where + "per plan", l.per == Per::plan);
        }
    }
  for (const auto& [what, times] : seen) {
    INFO(what);
    CHECK(times >= 15);
  }
  CHECK(seen.size() >= 60);
}

TEST_CASE("The second solver includes nothing of the first") {
  for (const char* name : {"dense.hpp", "dense.cpp"}) {
    std::ifstream in(std::filesystem::path(CORVEX_SOURCE) / "tests/oracle" / name);
    REQUIRE(in);
    std::string line;
    int includes = 0;
    while (std::getline(in, line)) {
      if (line.rfind("#include", 0) != 0) continue;
      ++includes;
      INFO(line);
      // Of ours only itself and the description, which knows nothing of solving.
      const bool ours = line.find("corvex/") != std::string::npos || line.find('"') != std::string::npos;
      CHECK((!ours || line == "#include <corvex/structure.hpp>" || line == "#include \"oracle/dense.hpp\""));
    }
    CHECK(includes > 2);
  }
  for (const auto& entry :
       std::filesystem::directory_iterator(std::filesystem::path(CORVEX_SOURCE) / "include/corvex")) {
    std::ifstream in(entry.path());
    std::string line;
    while (std::getline(in, line))
      CHECK((line.rfind("#include \"", 0) != 0 || line.rfind("#include \"corvex/", 0) == 0));
  }
}

}  // namespace tests_of_analysis_second_solver
