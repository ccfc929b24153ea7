// Every shape of the model-file page, and designations of the catalogue, read into the shapes that C++ has; and what is
// said of wrong ones.
#include "support/near.hpp"
#include "support/text.hpp"

namespace tests_of_file_sections {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;
using corvex::test::cantilever;
using corvex::test::near;
using corvex::test::read;
using corvex::test::refusal;

namespace {

const std::string load = "    - {at: B, force: {down: 1}}";

SectionProperties of(const std::string& section) {
  return read(cantilever(load, section)).structure.sections()[0].section.properties();
}

void same(const SectionProperties& a, const SectionProperties& b) {
  CHECK(a.A.si() == near(b.A.si()));
  CHECK(a.Iz.si() == near(b.Iz.si()));
  CHECK(a.Iy.si() == near(b.Iy.si()));
  CHECK(a.J.si() == near(b.J.si()));
}

}  // namespace

TEST_CASE("Every shape is read with its radii") {
  const auto [text, shape] = GENERATE(table<std::string, Shape>(
      {{"{shape: square tube, width: 60 mm, wall: 4 mm, corner: 8 mm}", SquareTube{60_mm, 4_mm, 8_mm}},
       {"{shape: rectangular tube, height: 80 mm, width: 40 mm, wall: 4 mm, corner: 6 mm}",
        RectangularTube{80_mm, 40_mm, 4_mm, 6_mm}},
       {"{shape: i profile, height: 200 mm, width: 100 mm, web: 5.6 mm, flange: 8.5 mm, root: 12 mm}",
        IProfile{200_mm, 100_mm, 5.6_mm, 8.5_mm, 12_mm}},
       {"{shape: channel, height: 200 mm, width: 80 mm, web: 6 mm, flange: 11 mm, root: 13 mm}",
        Channel{200_mm, 80_mm, 6_mm, 11_mm, 13_mm}},
       {"{shape: angle, height: 100 mm, width: 50 mm, wall: 8 mm, root: 8 mm, toe: 4 mm}",
        AngleProfile{100_mm, 50_mm, 8_mm, 8_mm, 4_mm}},
       {"{shape: tee, height: 100 mm, width: 80 mm, web: 8 mm, flange: 9 mm, root: 5 mm}",
        Tee{100_mm, 80_mm, 8_mm, 9_mm, 5_mm}},
       {"{shape: outline, points: [[0 mm, 0 mm], [50 mm, 0 mm], [0 mm, 80 mm]]}",
        Outline{{{0_mm, 0_mm}, {50_mm, 0_mm}, {0_mm, 80_mm}}, {}}},
       {"{shape: outline, points: [[0 mm, 0 mm], [50 mm, 0 mm], [50 mm, 50 mm], [0 mm, 50 mm]], holes: [[[10 mm, 10 mm], [20 mm, "
        "10 mm], [20 mm, 30 mm]]]}",
        Outline{{{0_mm, 0_mm}, {50_mm, 0_mm}, {50_mm, 50_mm}, {0_mm, 50_mm}},
                {{{10_mm, 10_mm}, {20_mm, 10_mm}, {20_mm, 30_mm}}}}}}));
  INFO(text);
  same(of(text), Section(shape).properties());
  CHECK(name(read(cantilever(load, text)).structure.sections()[0].section.shape()) == name(shape));
}

TEST_CASE("A text is a designation of the catalogue") {
  for (const char* d : {"IPE 200", "SHS 60x60x4", "HFRHS 100x50x5", "CHS 48.3x3.2", "L 100x50x8", "SHS 4x4x1/4 in A500",
                        "PIPE DN50 SCH40"}) {
    INFO(d);
    const NamedSection n = read(cantilever(load, d)).structure.sections()[0];
    CHECK(n.designation == profile(d)->designation);
    same(n.section.properties(), profile(d)->section.properties());
  }
}

TEST_CASE("Radii are optional, and dimensions may be bare where units settle them") {
  same(of("{shape: i profile, height: 100 mm, width: 60 mm, web: 5 mm, flange: 7 mm}"),
       Section(IProfile{100_mm, 60_mm, 5_mm, 7_mm}).properties());
  const std::string text = test::replaced(cantilever(load, "{shape: angle, height: 60, width: 40, wall: 5, root: 6}"),
                                          "force: kN}", "force: kN, section: mm}");
  same(read(text).structure.sections()[0].section.properties(),
       Section(AngleProfile{60_mm, 40_mm, 5_mm, 6_mm}).properties());
}

TEST_CASE("A size that is not listed, and a section that twists, are noted") {
  const Model model = read(cantilever(load, "SHS 61x61x4"));
  const Problems notes = model.located(solve(model.structure).notes());
  REQUIRE(notes.size() == 1);
  CHECK(
      describe(notes[0]) ==
      "model.yaml:3:12: note: section 'tube', SHS 61x61x4: not in the list of EN 10219-2; the nearest there is SHS 60x60x4 "
      "[unlisted-size]");
  const Model angle = read(cantilever(load, "L 80x80x8"));
  const Problems said = angle.located(solve(angle.structure).notes());
  REQUIRE(said.size() == 2);
  CHECK_THAT(describe(said[0]), Contains("model.yaml:5:11: warning: 'arm': section 'tube' has a product of inertia"));
  CHECK_THAT(describe(said[1]), Contains("note: 'arm': the shear centre of section 'tube'"));
}

TEST_CASE("Aluminium is noted to be softer beside welds, until an allowable stress is given") {
  const std::string text = test::replaced(cantilever(load), "material: S235", "material: 6082-T6");
  const Problems notes = solve(read(text).structure).notes();
  REQUIRE(notes.size() == 1);
  CHECK_THAT(notes[0].text, Contains("'arm': in heat-affected zones '6082-T6' yields at 125 MPa"));
  const std::string allowed =
      test::replaced(test::replaced(text, "material: 6082-T6", "material: welded"),
                     "points:", "materials: {welded: {like: 6082-T6, allowable: 110 MPa}}\npoints:");
  const Solution solution = solve(read(allowed).structure);
  CHECK(solution.notes().empty());
  CHECK(*solution[0]["arm"].safety() == near(110e6 / solution[0]["arm"].von_mises()->value.si()));
}

TEST_CASE("In the plane an angle rolls by quarter turns only") {
  const std::string text =
      test::replaced(cantilever(load, "L 80x80x8"), "material: S235", "material: S235, roll: 45 deg");
  CHECK_THAT(refusal(text), Contains("rolled by 45 deg, section 'tube' would bend out of the plane"));
}

TEST_CASE("Wrong shapes and designations are told where they stand") {
  const auto [section, message] = GENERATE(table<std::string, std::string>(
      {{"IPE 210", "model.yaml:3:18: error: there is no IPE 210; the nearest is IPE 200"},
       {"IPX 200", "model.yaml:3:18: error: there is no series of profiles 'IPX'; did you mean 'IPE'?"},
       {"{shape: i profile, height: 100 mm, width: 60 mm, web: 5 mm}",
        "error: section 'tube' (i profile) needs 'flange'"},
       {"{shape: i profile, height: 100 mm, width: 60 mm, web: 5 mm, flange: 7 mm, rot: 5 mm}",
        "error: 'rot' is not a key of an i profile; did you mean 'root'?"},
       {"{shape: angle, height: 100 mm, width: 60 mm, wall: 8 mm, toe: 9 mm}",
        "model.yaml:3:80: error: 'toe' is greater than the wall"},
       {"{shape: square tube, width: 60 mm, wall: 4 mm, corner: 31 mm}",
        "a corner of 31 mm is more than half of a width of 60 mm"},
       {"{shape: outline, points: [[0 mm, 0 mm], [50 mm, 0 mm]]}", "the outline needs at least three points"},
       {"{shape: outline, points: [[0 mm, 0 mm], [50 mm], [0 mm, 9 mm]]}",
        "model.yaml:3:58: error: the points of an outline: a point was expected as [z, y], to the right and up, but this is a list of 1"},
       {"{shape: outline, points: [[0 mm, 0 mm], [50 mm, 0 kN], [0 mm, 9 mm]]}",
        "'0 kN' is a force; a section dimension was expected"},
       {"{shape: outline}", "error: section 'tube' (outline) needs 'points'"},
       {"{shape: outline, points: [[0 mm, 0 mm], [9 mm, 9 mm], [9 mm, 0 mm], [0 mm, 9 mm]]}",
        "of the outline meet near"}}));
  const std::string text = refusal(cantilever(load, section));
  INFO(text);
  CHECK_THAT(text, Contains(message));
}

TEST_CASE("Strength follows the thickness of the wall, unless the file gives it") {
  const std::string thick = "{shape: rectangular bar, height: 60 mm, width: 40 mm}";
  const Model model = read(cantilever(load, thick));
  const MemberResult r = solve(model.structure)[0]["arm"];
  CHECK(*r.safety() == near(225e6 / r.von_mises()->value.si()));
  const Model own = read(test::replaced(test::replaced(cantilever(load, thick), "material: S235", "material: own"),
                                        "points:", "materials: {own: {like: S235, yield: 235 MPa}}\npoints:"));
  const MemberResult q = solve(own.structure)[0]["arm"];
  CHECK(*q.safety() == near(235e6 / q.von_mises()->value.si()));
}

}  // namespace tests_of_file_sections
