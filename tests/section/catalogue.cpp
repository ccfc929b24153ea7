// Figures of listed profiles against those that section tables print, to the last printed digit.
#include <cmath>
#include <corvex/catalogue.hpp>
#include <corvex/material.hpp>
#include <map>
#include <set>

#include "support/near.hpp"

namespace tests_of_section_catalogue {

using namespace corvex;
using namespace corvex::literals;
using namespace corvex::units;
using Catch::Matchers::Contains;
using corvex::test::near;

namespace {

// Half a unit of the last digit that is printed: tables print at least three, and fill up with zeros.
double half_digit(const std::string& printed) {
  const double value = std::stod(printed);
  const std::size_t point = printed.find('.');
  if (point != std::string::npos) return 0.5 * std::pow(10, -static_cast<double>(printed.size() - point - 1));
  std::size_t zeros = 0;
  while (zeros + 3 < printed.size() && printed[printed.size() - 1 - zeros] == '0') ++zeros;
  return value == 0 ? 0 : 0.5 * std::pow(10, static_cast<double>(zeros));
}

void compare(const std::string& what, double computed, const std::string& printed) {
  if (printed.empty()) return;
  INFO(what << ": computed " << computed << ", printed " << printed);
  CHECK(std::abs(computed - std::stod(printed)) <= half_digit(printed) * 1.001);
}

struct Row {
  const char* designation;
  // In the tables' names; cm.
  std::string A, Iy, Wely, Wply, Iz, Welz, Wplz;
};

void compare(const Row& r) {
  const auto p = profile(r.designation);
  REQUIRE(p);
  INFO(r.designation);
  const AreaProperties& a = p->section.area_properties();
  const SectionDetails& d = p->section.details();
  compare("A", a.A.in(cm2), r.A);
  compare("Iy", a.Iz.in(cm4), r.Iy);
  compare("Wel,y", a.Wz.in(cm3), r.Wely);
  compare("Wpl,y", d.plastic_z.in(cm3), r.Wply);
  compare("Iz", a.Iy.in(cm4), r.Iz);
  compare("Wel,z", a.Wy.in(cm3), r.Welz);
  compare("Wpl,z", d.plastic_y.in(cm3), r.Wplz);
}

}  // namespace

TEST_CASE("I profiles of EN 10365 as the tables print them") {
  const std::vector<Row> rows = {{"IPE 80", "7.64", "80.1", "20.0", "23.2", "8.49", "3.69", "5.82"},
                                 {"IPE 100", "10.3", "171", "34.2", "39.4", "15.9", "5.79", "9.15"},
                                 {"IPE 120", "13.2", "318", "53.0", "60.7", "27.7", "8.65", "13.6"},
                                 {"IPE 140", "16.4", "541", "77.3", "88.3", "44.9", "12.3", "19.2"},
                                 {"IPE 160", "20.1", "869", "109", "124", "68.3", "16.7", "26.1"},
                                 {"IPE 180", "23.9", "1317", "146", "166", "101", "22.2", "34.6"},
                                 {"IPE 200", "28.5", "1943", "194", "221", "142", "28.5", "44.6"},
                                 {"IPE 220", "33.4", "2772", "252", "285", "205", "37.3", "58.1"},
                                 {"IPE 240", "39.1", "3892", "324", "367", "284", "47.3", "73.9"},
                                 {"IPE 270", "45.9", "5790", "429", "484", "420", "62.2", "97.0"},
                                 {"IPE 300", "53.8", "8356", "557", "628", "604", "80.5", "125"},
                                 {"IPE 330", "62.6", "11770", "713", "804", "788", "98.5", "154"},
                                 {"IPE 360", "72.7", "16270", "904", "1019", "1043", "123", "191"},
                                 {"IPE 400", "84.5", "23130", "1156", "1307", "1318", "146", "229"},
                                 {"IPE 450", "98.8", "33740", "1500", "1702", "1676", "176", "276"},
                                 {"IPE 500", "115.5", "48200", "1928", "2194", "2142", "214", "336"},
                                 {"IPE 550", "134", "67120", "2441", "2787", "2668", "254", "401"},
                                 {"IPE 600", "156", "92080", "3069", "3512", "3387", "308", "486"},
                                 {"HEA 100", "21.2", "349", "72.8", "83.0", "134", "26.8", "41.1"},
                                 {"HEA 120", "25.3", "606", "106", "119", "231", "38.5", "58.9"},
                                 {"HEA 140", "31.4", "1033", "155", "173", "389", "55.6", "84.8"},
                                 {"HEA 160", "38.8", "1673", "220", "245", "616", "76.9", "118"},
                                 {"HEA 180", "45.3", "2510", "294", "325", "925", "103", "156"},
                                 {"HEA 200", "53.8", "3692", "389", "429", "1336", "134", "204"},
                                 {"HEA 220", "64.3", "5410", "515", "568", "1955", "178", "271"},
                                 {"HEA 240", "76.8", "7763", "675", "745", "2769", "231", "352"},
                                 {"HEA 260", "86.8", "10450", "836", "920", "3668", "282", "430"},
                                 {"HEA 280", "97.3", "13670", "1013", "1112", "4763", "340", "518"},
                                 {"HEA 300", "112.5", "18260", "1260", "1383", "6310", "421", "641"},
                                 {"HEA 400", "159", "45070", "2311", "2562", "8564", "571", "873"},
                                 {"HEA 600", "226", "141200", "4787", "5350", "11270", "751", "1156"},
                                 {"HEA 1000", "346.8", "553800", "11190", "12820", "14000", "934", "1470"},
                                 {"HEB 100", "26.0", "450", "89.9", "104", "167", "33.5", "51.4"},
                                 {"HEB 120", "34.0", "864", "144", "165", "318", "52.9", "81.0"},
                                 {"HEB 140", "43.0", "1509", "216", "245", "550", "78.5", "120"},
                                 {"HEB 160", "54.3", "2492", "311", "354", "889", "111", "170"},
                                 {"HEB 180", "65.3", "3831", "426", "481", "1363", "151", "231"},
                                 {"HEB 200", "78.1", "5696", "570", "643", "2003", "200", "306"},
                                 {"HEB 220", "91.0", "8091", "736", "827", "2843", "258", "394"},
                                 {"HEB 240", "106", "11260", "938", "1053", "3923", "327", "498"},
                                 {"HEB 260", "118", "14920", "1148", "1283", "5135", "395", "602"},
                                 {"HEB 280", "131", "19270", "1376", "1534", "6595", "471", "718"},
                                 {"HEB 300", "149", "25170", "1678", "1869", "8563", "571", "870"},
                                 {"HEB 400", "198", "57680", "2884", "3232", "10820", "721", "1104"},
                                 {"HEB 500", "239", "107200", "4287", "4815", "12620", "842", "1292"},
                                 {"HEB 600", "270", "171000", "5701", "6425", "13530", "902", "1391"},
                                 {"HEB 1000", "400", "644700", "12890", "14860", "16280", "1085", "1716"},
                                 {"HEM 100", "53.2", "1143", "190", "236", "399", "75.3", "116"},
                                 {"HEM 120", "66.4", "2018", "288", "351", "703", "112", "172"},
                                 {"HEM 140", "80.6", "3291", "411", "494", "1144", "157", "241"},
                                 {"HEM 160", "97.1", "5098", "566", "675", "1759", "212", "325"},
                                 {"HEM 180", "113", "7483", "748", "883", "2580", "277", "425"},
                                 {"HEM 200", "131", "10640", "967", "1135", "3651", "354", "543"},
                                 {"HEM 300", "303", "59200", "3482", "4078", "19400", "1252", "1913"},
                                 {"HEM 400", "326", "104100", "4820", "5571", "19340", "1260", "1934"},
                                 {"HEM 600", "364", "237400", "7660", "8772", "18980", "1244", "1930"}};
  for (const Row& r : rows) compare(r);
}

// About the strong axis the tables' digits come out, but for UPE 140 and UPN 100, where they print 0.1 % and 0.3 %
// more; about the weak axis they print up to 0.6 % more than the standard's own dimensions and radii give. Areas agree,
// and the outline itself is held against closed forms in outlines.cpp; the tables seem to have been worked out another
// way.
TEST_CASE("Channels as the tables print them") {
  const auto close = [](const std::string& what, double computed, const std::string& printed) {
    INFO(what << ": computed " << computed << ", printed " << printed);
    CHECK(computed <= std::stod(printed) + half_digit(printed));
    CHECK(computed >= std::stod(printed) * 0.994);
  };
  const std::vector<Row> rows = {{"UPE 80", "10.1", "107", "26.8", "", "25.5", "8.00", ""},
                                 {"UPE 100", "12.5", "207", "41.4", "", "38.3", "10.6", ""},
                                 {"UPE 120", "15.4", "364", "60.6", "", "55.5", "13.8", ""},
                                 {"UPE 140", "18.4", "600", "85.6", "", "78.8", "18.2", ""},
                                 {"UPE 160", "21.7", "911", "114", "", "107", "22.6", ""},
                                 {"UPE 180", "25.1", "1350", "150", "", "144", "28.6", ""},
                                 {"UPE 200", "29.0", "1910", "191", "", "187", "34.5", ""},
                                 {"UPE 220", "33.9", "2680", "244", "", "247", "42.5", ""},
                                 {"UPE 240", "38.5", "3600", "300", "", "311", "50.1", ""},
                                 {"UPE 270", "44.8", "5250", "389", "", "401", "60.7", ""},
                                 {"UPE 300", "56.6", "7820", "522", "", "538", "75.6", ""},
                                 {"UPE 400", "91.9", "20980", "1050", "", "", "", ""},
                                 {"UPN 80", "11.0", "106", "26.5", "", "19.4", "6.36", ""},
                                 {"UPN 100", "13.5", "206", "41.2", "", "29.3", "8.49", ""},
                                 {"UPN 120", "17.0", "364", "60.7", "", "43.2", "11.1", ""},
                                 {"UPN 140", "20.4", "605", "86.4", "", "62.7", "14.8", ""},
                                 {"UPN 160", "24.0", "925", "116", "", "85.3", "18.3", ""},
                                 {"UPN 180", "28.0", "1350", "150", "", "114", "22.4", ""},
                                 {"UPN 200", "32.2", "1910", "191", "", "148", "27.0", ""},
                                 {"UPN 240", "42.3", "3600", "300", "", "248", "39.6", ""},
                                 {"UPN 300", "58.8", "8030", "535", "", "495", "67.8", ""}};
  const std::set<std::string> apart = {"UPE 140", "UPN 100"};
  for (const Row& r : rows) {
    INFO(r.designation);
    const AreaProperties a = profile(r.designation)->section.area_properties();
    compare("A", a.A.in(cm2), r.A);
    if (apart.contains(r.designation)) {
      close("Iy", a.Iz.in(cm4), r.Iy);
      close("Wel,y", a.Wz.in(cm3), r.Wely);
    } else {
      compare("Iy", a.Iz.in(cm4), r.Iy);
      compare("Wel,y", a.Wz.in(cm3), r.Wely);
    }
    if (r.Iz.empty()) continue;
    close("Iz", a.Iy.in(cm4), r.Iz);
    close("Wel,z", a.Wy.in(cm3), r.Welz);
  }
}

TEST_CASE("Angles of EN 10056 as the tables print them") {
  struct AngleRow {
    const char* designation;
    std::string A, ez, ey, Iy, Iz, Iu, Iv;
  };
  const std::vector<AngleRow> rows = {{"L 20x20x3", "1.12", "0.598", "", "0.392", "", "0.618", "0.165"},
                                      {"L 25x25x3", "1.42", "0.723", "", "0.803", "", "1.27", "0.334"},
                                      {"L 30x30x3", "1.74", "0.835", "", "1.40", "", "2.22", "0.585"},
                                      {"L 40x40x4", "3.08", "1.12", "", "4.47", "", "7.09", "1.86"},
                                      {"L 50x50x5", "4.80", "1.40", "", "11.0", "", "17.4", "4.55"},
                                      {"L 60x60x6", "6.91", "1.69", "", "22.8", "", "36.1", "9.44"},
                                      {"L 70x70x7", "9.40", "1.97", "", "42.3", "", "67.1", "17.5"},
                                      {"L 80x80x8", "12.3", "2.26", "", "72.2", "", "115", "29.9"},
                                      {"L 90x90x9", "15.5", "2.54", "", "116", "", "184", "47.9"},
                                      {"L 100x100x10", "19.2", "2.82", "", "177", "", "280", "73.0"},
                                      {"L 120x120x12", "27.5", "3.40", "", "368", "", "584", "152"},
                                      {"L 150x150x15", "43.0", "4.25", "", "898", "", "1430", "370"},
                                      {"L 200x200x20", "76.3", "5.68", "", "2850", "", "4530", "1170"},
                                      {"L 60x40x5", "4.79", "1.96", "0.972", "17.2", "6.11", "19.7", "3.54"},
                                      {"L 80x40x6", "6.89", "2.85", "0.884", "44.9", "7.59", "47.6", "4.93"},
                                      {"L 75x50x6", "7.19", "2.44", "1.21", "40.5", "14.4", "46.6", "8.36"},
                                      {"L 100x50x8", "11.4", "3.60", "1.13", "116", "19.7", "123", "12.8"},
                                      {"L 100x75x10", "16.6", "3.19", "1.95", "162", "77.6", "197", "42.2"},
                                      {"L 120x80x10", "19.1", "3.92", "1.95", "276", "98.1", "317", "56.8"},
                                      {"L 200x100x10", "29.2", "6.93", "2.01", "1220", "210", "1290", "135"}};
  for (const AngleRow& r : rows) {
    INFO(r.designation);
    const auto p = profile(r.designation);
    REQUIRE(p);
    const AreaProperties& a = p->section.area_properties();
    compare("A", a.A.in(cm2), r.A);
    compare("ez", a.centroid_y.in(cm), r.ez);
    compare("ey", a.centroid_z.in(cm), r.ey);
    compare("Iy", a.Iz.in(cm4), r.Iy);
    compare("Iz", a.Iy.in(cm4), r.Iz);
    compare("Iu", p->section.properties().I1.in(cm4), r.Iu);
    compare("Iv", p->section.properties().I2.in(cm4), r.Iv);
  }
}

TEST_CASE("Hollow sections of EN 10210 and EN 10219 as the tables print them") {
  struct HollowRow {
    Row row;
    std::string It, Ct;
  };
  const std::vector<HollowRow> rows = {
      {{"HFSHS 40x40x4", "5.59", "11.8", "5.91", "7.44", "", "", ""}, "19.5", "8.54"},
      {{"HFSHS 50x50x4", "7.19", "25.0", "9.99", "12.3", "", "", ""}, "40.4", "14.5"},
      {{"HFSHS 60x60x4", "8.79", "45.4", "15.1", "18.3", "", "", ""}, "72.5", "22.0"},
      {{"HFSHS 80x80x5", "14.7", "137", "34.2", "41.1", "", "", ""}, "217", "49.8"},
      {{"HFSHS 100x100x5", "18.7", "279", "55.9", "66.4", "", "", ""}, "439", "81.8"},
      {{"HFSHS 120x120x6.3", "28.2", "603", "100", "120", "", "", ""}, "950", "147"},
      {{"HFSHS 150x150x8", "44.8", "1491", "199", "237", "", "", ""}, "2351", "291"},
      {{"HFSHS 200x200x10", "74.9", "4471", "447", "531", "", "", ""}, "7031", "655"},
      {{"HFRHS 80x40x4", "8.79", "68.2", "17.1", "21.8", "22.2", "11.1", "13.2"}, "55.2", "18.9"},
      {{"HFRHS 100x50x5", "13.7", "167", "33.3", "42.6", "54.3", "21.7", "25.8"}, "135", "36.9"},
      {{"HFRHS 150x100x8", "36.8", "1087", "145", "180", "569", "114", "135"}, "1203", "183"},
      {{"HFRHS 200x100x8", "44.8", "2234", "223", "282", "739", "148", "172"}, "1804", "251"},
      {{"CFSHS 40x40x3", "4.21", "9.32", "4.66", "5.72", "", "", ""}, "15.8", "7.07"},
      {{"CFSHS 50x50x3", "5.41", "19.5", "7.79", "9.39", "", "", ""}, "32.1", "11.8"},
      {{"CFSHS 60x60x4", "8.55", "43.6", "14.5", "17.6", "", "", ""}, "72.6", "22.0"},
      {{"CFSHS 80x80x4", "11.7", "111", "27.8", "33.1", "", "", ""}, "180", "41.8"},
      {{"CFSHS 100x100x4", "14.9", "226", "45.3", "53.3", "", "", ""}, "362", "68.1"},
      {{"CFSHS 100x100x5", "18.4", "271", "54.2", "64.6", "", "", ""}, "441", "81.7"},
      {{"CFSHS 120x120x5", "22.4", "485", "80.9", "95.4", "", "", ""}, "778", "122"},
      {{"CFSHS 150x150x6", "33.6", "1146", "153", "180", "", "", ""}, "1833", "230"},
      {{"CFSHS 200x200x8", "59.2", "3566", "357", "421", "", "", ""}, "", ""},
      {{"CHS 26.9x2.3", "1.78", "1.36", "1.01", "1.40", "", "", ""}, "2.71", "2.02"},
      {{"CHS 33.7x2.6", "2.54", "3.09", "1.84", "2.52", "", "", ""}, "6.19", "3.67"},
      {{"CHS 42.4x3.2", "3.94", "7.62", "3.59", "4.93", "", "", ""}, "15.2", "7.19"},
      {{"CHS 48.3x3.2", "4.53", "11.6", "4.80", "6.52", "", "", ""}, "23.2", "9.59"},
      {{"CHS 60.3x3.2", "5.74", "23.5", "7.78", "10.4", "", "", ""}, "46.9", "15.6"},
      {{"CHS 76.1x3.2", "7.33", "48.8", "12.8", "17.0", "", "", ""}, "97.6", "25.6"},
      {{"CHS 88.9x4", "10.7", "96.3", "21.7", "28.9", "", "", ""}, "193", "43.3"},
      {{"CHS 114.3x5", "17.2", "257", "45.0", "59.8", "", "", ""}, "514", "89.9"},
      {{"CHS 139.7x5", "21.2", "481", "68.8", "90.8", "", "", ""}, "961", "138"},
      {{"CHS 168.3x6.3", "32.1", "1053", "125", "165", "", "", ""}, "2107", "250"},
      {{"CHS 219.1x8", "53.1", "2960", "270", "357", "", "", ""}, "5919", "540"}};
  for (const HollowRow& r : rows) {
    compare(r.row);
    INFO(r.row.designation);
    const auto p = profile(r.row.designation);
    const SectionProperties& q = p->section.properties();
    compare("It", q.J.in(cm4), r.It);
    if (!p->torsion) {
      compare("Ct", q.Wt.in(cm3), r.Ct);
      continue;
    }
    compare("Ct", p->torsion->Wt.in(cm3), r.Ct);
    // The standard's formula against the exact torsion of the same outline: within 4 %, most in small thick ones.
    CHECK(q.J == p->torsion->J);
    const SectionProperties exact = Section(p->section.shape()).properties();
    CHECK(exact.J.si() == Approx(q.J.si()).epsilon(0.04));
    // The exact one counts the peak of stress in the rounded inside corners, which the standard's formula leaves out:
    // up to a tenth in hot-finished sections and a quarter in cold-formed ones, whose inside corners are tighter.
    CHECK(exact.Wt.si() < p->torsion->Wt.si() * 1.04);
    CHECK(exact.Wt.si() > p->torsion->Wt.si() * 0.75);
  }
}

TEST_CASE("Torsion and warping of I profiles: the tables' formulas, and the exact figures beside") {
  // The tables print It by El Darwish and Johnston and Iw = tf b³ (h − tf)²/24, which leave the corners and the web
  // out.
  struct TorsionRow {
    const char* designation;
    std::string It, Iw;  // cm⁴, 10³ cm⁶
  };
  const std::vector<TorsionRow> rows = {
      {"IPE 80", "0.70", "0.12"},  {"IPE 100", "1.20", "0.35"}, {"IPE 120", "1.74", "0.89"},
      {"IPE 160", "3.60", "3.96"}, {"IPE 200", "6.98", "13.0"}, {"IPE 240", "12.9", "37.4"},
      {"IPE 300", "20.1", "126"},  {"IPE 400", "51.1", "490"},  {"IPE 500", "89.3", "1249"},
      {"IPE 600", "165", "2846"},  {"HEA 100", "5.24", "2.58"}, {"HEA 200", "21.0", "108"},
      {"HEA 300", "85.2", "1200"}, {"HEB 100", "9.25", "3.38"}, {"HEB 200", "59.3", "171"},
      {"HEB 300", "185", "1688"},  {"HEB 600", "667", "10970"}, {"HEM 100", "68.2", "9.93"},
      {"HEM 200", "259", "346"},   {"HEM 300", "1408", "4386"}};
  for (const TorsionRow& r : rows) {
    INFO(r.designation);
    const auto p = profile(r.designation);
    REQUIRE(p->torsion);
    compare("It", p->torsion->J.in(cm4), r.It);
    const double exact = p->section.properties().J.si();
    CHECK(exact == Approx(p->torsion->J.si()).epsilon(0.06));
    const auto& i = std::get<IProfile>(p->section.shape());
    const double tf = i.flange.si(), h = i.height.si() - tf, Iw = tf * std::pow(i.width.si(), 3) * h * h / 24;
    compare("Iw", Iw * 1e9, r.Iw);
    CHECK(p->section.details().Cw.si() == Approx(Iw).epsilon(0.06));
  }
}

TEST_CASE("Inch tubes and pipes") {
  // Tables for A500 tubes, in inches: A, I, Wel, Wpl; they round the design wall to a thousandth of an inch, which
  // shows in the third digit.
  const auto [designation, A, I, W, Z] =
      GENERATE(table<const char*, double, double, double, double>({{"SHS 4x4x1/4 in A500", 3.37, 7.80, 3.90, 4.69},
                                                                   {"SHS 3x3x3/16 in A500", 1.89, 2.46, 1.64, 1.97},
                                                                   {"SHS 2x2x1/8 in A500", 0.840, 0.486, 0.486, 0.584},
                                                                   {"SHS 6x6x3/8 in A500", 7.58, 39.5, 13.2, 15.8},
                                                                   {"SHS 8x8x1/2 in A500", 13.5, 125, 31.2, 37.5},
                                                                   {"RHS 6x4x1/4 in A500", 4.30, 20.9, 6.96, 8.53},
                                                                   // At nominal walls.
                                                                   {"SHS 4x4x1/4 in", 3.59, 8.22, 4.11, 4.97},
                                                                   {"PIPE 2 in SCH40", 1.075, 0.666, 0.561, 0.761},
                                                                   {"PIPE 4 in STD", 3.174, 7.233, 3.214, 4.31}}));
  INFO(designation);
  const auto p = profile(designation);
  REQUIRE(p);
  const AreaProperties& a = p->section.area_properties();
  CHECK(a.A.in(inch * inch) == Approx(A).epsilon(4e-3));
  CHECK(a.Iz.in(inch * inch * inch * inch) == Approx(I).epsilon(4e-3));
  CHECK(a.Wz.in(inch * inch * inch) == Approx(W).epsilon(5e-3));
  CHECK(p->section.details().plastic_z.in(inch * inch * inch) == Approx(Z).epsilon(5e-3));
}

TEST_CASE("Designations are read as people write them") {
  const auto [written, meant] =
      GENERATE(table<const char*, const char*>({{"IPE200", "IPE 200"},
                                                {"ipe 200", "IPE 200"},
                                                {"HE 200 B", "HEB 200"},
                                                {"SHS 60x4", "SHS 60x60x4"},
                                                {"SHS 60×60×4", "SHS 60x60x4"},
                                                {"SHS 60 X 60 X 4 mm", "SHS 60x60x4"},
                                                {"RHS 50*100*5", "RHS 50x100x5"},
                                                {"L 50x5", "L 50x50x5"},
                                                {"L50x100x8", "L 50x100x8"},
                                                {"CHS 48.3x3.2", "CHS 48.3x3.2"},
                                                {"SHS 4 x 4 x 1/4 in", "SHS 4x4x1/4 in"},
                                                {"SHS 2 1/2x2 1/2x3/16\"", "SHS 2-1/2x2-1/2x3/16 in"},
                                                {"PIPE DN 50 SCH 40", "PIPE DN50 SCH40"},
                                                {"pipe 1-1/2 in std", "PIPE 1 1/2 in SCH40"},
                                                {"FLAT 10x80", "FLAT 10x80"}}));
  INFO(written);
  const auto p = profile(written);
  REQUIRE(p);
  CHECK(p->designation == meant);
  CHECK(p->listed);
}

TEST_CASE("Heights come first: a lying profile is the standing one turned") {
  const auto up = profile("RHS 100x50x5")->section.area_properties(),
             flat = profile("RHS 50x100x5")->section.area_properties();
  CHECK(up.Iz.si() == near(flat.Iy.si()));
  const auto leg = profile("L 100x50x8")->section.area_properties(),
             foot = profile("L 50x100x8")->section.area_properties();
  CHECK(leg.Iz.si() == near(foot.Iy.si()));
  CHECK(leg.centroid_y.si() == near(foot.centroid_z.si()));
}

TEST_CASE("Any size of a tube or bar is valid, and one outside of the list says so") {
  for (const char* d : {"SHS 61x61x4", "RHS 95x50x3", "HFSHS 55x55x4", "CHS 50x2", "L 55x55x5", "FLAT 83x7", "ROUND 33",
                        "SHS 4.2x4.2x1/4 in"}) {
    INFO(d);
    const auto p = profile(d);
    REQUIRE(p);
    CHECK_FALSE(p->listed);
    CHECK_THAT(p->note, Contains("not in the list of") || Contains("not among the usual sizes"));
    CHECK(p->section.area().si() > 0);
  }
  CHECK_THAT(profile("SHS 61x61x4")->note, Contains("the nearest there is SHS 60x60x4"));
}

TEST_CASE("What is no designation is told with what was expected") {
  const auto [written, text] = GENERATE(
      table<const char*, const char*>({{"IPX 200", "there is no series of profiles 'IPX'; did you mean 'IPE'?"},
                                       {"IPE 210", "there is no IPE 210; the nearest is IPE 200"},
                                       {"IPE", "for example 'IPE 200'"},
                                       {"IPE 200x100", "for example 'IPE 200'"},
                                       {"SHS 60x40x4", "SHS is square; a rectangular one is written as 'RHS 60x40x4'"},
                                       {"HFSHS 60x40x4", "'HFRHS 60x40x4'"},
                                       {"RHS 100x50", "for example 'RHS 100x50x5'"},
                                       {"SHS 20x20x10", "leaves no hole"},
                                       {"SHS 60x60x", "is not a designation of a profile"},
                                       {"60x60x4", "is not a designation of a profile"},
                                       {"", "is not a designation of a profile"},
                                       {"PIPE DN50", "a wall series was expected after the size of the pipe (SCH40"},
                                       {"PIPE DN51 SCH40", "there is no pipe of DN51"},
                                       {"PIPE 50 SCH40", "for example 'PIPE DN50 SCH40'"},
                                       {"SHS 4x4x1/4 in A36", "only 'A500'"},
                                       {"CHS 48.3x30", "leaves no hole"},
                                       {"SHS 4x4x1/0 in", "is not a designation"}}));
  const auto p = profile(written);
  REQUIRE_FALSE(p);
  CHECK_THAT(p.error(), Contains(text));
}

TEST_CASE("Every listed profile is read by its own name and can be") {
  std::set<std::string> seen;
  for (const ProfileSeries& s : profile_series()) {
    CHECK(profile(s.example));
    const std::vector<Profile> all = profiles_of(s.name);
    CHECK(all.size() >= 14);
    for (const Profile& p : all) {
      INFO(p.designation);
      CHECK(seen.insert(p.designation).second);
      CHECK(p.listed);
      CHECK(p.section.area().si() > 0);
    }
  }
  CHECK(seen.size() > 1000);
  CHECK(profiles_of("XYZ").empty());
}

TEST_CASE("A search finds what lies within its bounds, the lightest first") {
  const std::vector<Profile> found =
      search({.series = {"SHS", "RHS"}, .bounds = {{"Iz", 200e-8, {}}, {"height", {}, 0.1}}, .sort = "mass"});
  REQUIRE(found.size() > 5);
  double before = 0;
  for (const Profile& p : found) {
    CHECK(p.section.area_properties().Iz.in(cm4) >= 200);
    CHECK(p.section.area_properties().height.in(mm) <= 100 * (1 + 1e-9));
    CHECK(mass_per_metre(p.section) >= before);
    before = mass_per_metre(p.section);
  }
  // Nothing that would fit was passed over.
  std::size_t fit = 0;
  for (const char* series : {"SHS", "RHS"})
    for (const Profile& p : profiles_of(series))
      fit += p.section.area_properties().Iz.in(cm4) >= 200 && p.section.area_properties().height.in(mm) < 100.01;
  CHECK(found.size() == fit);
  CHECK(search({.series = {"IPE"}, .bounds = {{"mass", 20.0, 30.0}}, .density = Density::si(2700)}).size() > 0);
}

TEST_CASE("Strength by thickness") {
  const Material s355 = material("S355");
  CHECK(s355.yield_at(16_mm)->in(MPa) == 355);
  CHECK(s355.yield_at(16.5_mm)->in(MPa) == 345);
  CHECK(s355.yield_at(100_mm)->in(MPa) == 315);
  CHECK_FALSE(s355.yield_at(300_mm));
  Material own = s355;
  own.yield = 380_MPa;  // from a certificate
  CHECK(own.yield_at(60_mm)->in(MPa) == 380);
  CHECK(material("6060-T66").yield_at(5_mm)->in(MPa) == 150);
  CHECK_THAT(material("6060-T66").note, Contains("heat-affected"));
  CHECK_FALSE(material("C24").strength());
  CHECK(material("C24").shear_modulus().in(MPa) == near(690.0));
  for (const std::string& name : material_names()) {
    INFO(name);
    const Material m = material(name);
    CHECK_FALSE(m.source.empty());
    CHECK(m.tensile);
    CHECK(m.E.si() > 0);
    CHECK(m.density->si() > 0);
    CHECK(m.expansion.si() > 0);
    for (std::size_t i = 1; i < m.by_thickness.size(); ++i)
      CHECK(m.by_thickness[i].up_to > m.by_thickness[i - 1].up_to);
  }
}

TEST_CASE("Pipes of EN 10255 have that standard's diameters, 5083 the strength of extruded profiles") {
  for (const auto& [designation, diameter, wall] :
       std::vector<std::tuple<const char*, double, double>>{{"PIPE DN20 MEDIUM", 26.9, 2.6},
                                                            {"PIPE DN25 HEAVY", 33.7, 4.0},
                                                            {"PIPE DN40 HEAVY", 48.3, 4.0},
                                                            {"PIPE DN65 MEDIUM", 76.1, 3.6},
                                                            {"PIPE DN150 HEAVY", 165.1, 5.4}}) {
    INFO(designation);
    const auto p = profile(designation);
    REQUIRE(p);
    const RoundTube& tube = std::get<RoundTube>(p->section.shape());
    CHECK(tube.diameter.in(mm) == Approx(diameter));
    CHECK(tube.wall.in(mm) == Approx(wall));
    CHECK(p->standard == "EN 10255");
  }
  CHECK(std::get<RoundTube>(profile("PIPE DN25 SCH40")->section.shape()).diameter.in(mm) == Approx(33.4));
  CHECK(material("5083").yield_at(5_mm)->in(MPa) == Approx(110));
}

}  // namespace tests_of_section_catalogue
