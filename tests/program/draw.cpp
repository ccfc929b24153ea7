// `corvex draw`.
#include <catch2/catch.hpp>

#include "support/program.hpp"

namespace tests_of_program_draw {

using namespace corvex::test;
using Catch::Matchers::Contains;
using Catch::Matchers::StartsWith;

namespace {

const std::string examples = CORVEX_EXAMPLES "/cider-works/";
const std::string trestle = "draw '" + examples + "conveyor-trestle.yaml'";

}  // namespace

TEST_CASE("draw writes SVG, PNG and PDF by the end of the file's name") {
  const Folder folder;
  for (const auto& [file, begin] :
       {std::pair<std::string, std::string>{"a.svg", "<svg"}, {"a.png", "\x89PNG"}, {"a.pdf", "%PDF"}}) {
    const Outcome o = folder.run(trestle + " --what moment -o " + file);
    INFO(o.err);
    CHECK(o.status == 0);
    CHECK(o.out.empty());
    CHECK_THAT(folder.content(file), StartsWith(begin));
  }
  CHECK(folder.run(trestle + " --what moment").out == folder.content("a.svg"));
}

TEST_CASE("draw takes cases, views, scales, sizes, members and units") {
  const Folder folder;
  CHECK_THAT(folder.run(trestle + " --case push").out, Contains("Structure with the loads of push"));
  CHECK_THAT(folder.run(trestle + " --what deformed --scale 40").out, Contains("magnified 40 times"));
  CHECK_THAT(folder.run(trestle + " --what deformed --true-scale").out, Contains("true scale"));
  CHECK_THAT(folder.run(trestle + " --size 640x400").out, Contains("width=\"640\" height=\"400\""));
  CHECK_THAT(folder.run(trestle + " --what moment --units 'm, N'").out, Contains("1458 N·m"));
  CHECK_THAT(folder.run(trestle + " --what moment --digits 2").out, Contains(">1.5 kN·m<"));
  const std::string one = folder.run(trestle + " --member 'left leg'").out;
  CHECK_THAT(one, Contains(">left leg<") && !Contains(">right leg<"));
  CHECK(folder.run(trestle + " --dark").out != folder.run(trestle).out);
  const std::string skid = "draw '" + examples + "tank-skid.yaml'";
  CHECK(folder.run(skid + " --view top").out != folder.run(skid + " --view side").out);
  CHECK_THAT(folder.run(trestle + " --what sheet --member rail").out, Contains("rail, 2400 mm long, in product"));
}

TEST_CASE("Without its font draw says so, and draws nothing") {
  const Folder folder;
  folder.write("fonts.conf", "<?xml version=\"1.0\"?><fontconfig></fontconfig>");
  const Outcome o = folder.run(trestle + " -o a.svg", "", "FONTCONFIG_FILE=$PWD/fonts.conf");
  CHECK(o.status == 2);
  CHECK_THAT(o.err, Contains("the font DejaVu Sans is not installed") && Contains("fonts-dejavu-core"));
  CHECK_FALSE(folder.has("a.svg"));
}

TEST_CASE("A sheet or a section of a model with one member needs no name") {
  const Folder folder;
  folder.write("one.yaml",
               "corvex: 1\nunits: {length: mm, force: kN}\nsections: {t: SHS 60x60x4}\n"
               "points: {A: [0, 0], B: [2000, 0]}\nmembers: {beam: {through: [A, B], section: t, material: S235}}\n"
               "supports: {A: fixed}\nloads: {tip: [{at: B, force: [0, -1]}]}\n");
  for (const char* what : {"sheet", "section"}) {
    const Outcome o = folder.run(std::string("draw one.yaml --what ") + what);
    INFO(o.err);
    CHECK(o.status == 0);
    CHECK_THAT(o.out, Contains("beam"));
  }
}

TEST_CASE("draw refuses what it cannot draw") {
  const Folder folder;
  for (const auto& [options, why] :
       {std::pair<std::string, std::string>{"-o picture.bmp", "ends with .svg, .png or .pdf"},
        {"--what moments", "--what"},
        {"--case storm", "there is no load case or combination 'storm'"},
        {"--member beam", "there is no member 'beam'"},
        {"--what sheet", "select it by --member NAME"},
        {"--what section", "select it by --member NAME"},
        {"--animate", "only deformed shapes and mode shapes can be animated"},
        {"--what moment -o a.gif", "only deformed shapes and mode shapes can be animated"},
        {"--what deformed --animate -o a.png", "PNG and PDF cannot be animated"},
        {"--size 1280", "1280x800"},
        {"--size 10x10", "from 200 to 10000"},
        {"--scale 0", "--scale"},
        {"--scale 2 --true-scale", "--scale"},
        {"--view below", "--view"},
        {"--units parsec", "parsec"}}) {
    const Outcome o = folder.run(trestle + " " + options);
    INFO(options << ": " << o.err);
    CHECK(o.status == 2);
    CHECK(o.out.empty());
    CHECK_THAT(o.err, Contains(why));
  }
  CHECK(std::filesystem::is_empty(folder.path()));
}

TEST_CASE("Options that would have no effect on a picture are refused") {
  const Folder folder;
  const std::string plane = " '" CORVEX_EXAMPLES "/cider-works/conveyor-trestle.yaml' ";
  const auto refused = [&](const std::string& options) {
    const Outcome o = folder.run("draw" + plane + options);
    CHECK(o.status == 2);
    CHECK(o.out.empty());
    return o.err;
  };
  CHECK_THAT(refused("--what moment --dimensions"), Contains("--dimensions goes with --what structure"));
  CHECK_THAT(refused("--what moment --real-width"), Contains("--real-width goes with --what structure"));
  CHECK_THAT(refused("--what stress --scale 20"), Contains("--scale goes with --what deformed"));
  CHECK_THAT(refused("--view top"), Contains("--view is for structures in space"));
  CHECK_THAT(refused("--what torsion"), Contains("a plane structure has no torsion"));
}

}  // namespace tests_of_program_draw
