// Every table that the program writes, read back and held against the results as JSON: as CSV, Markdown, spreadsheet
// and text, in any units.
#include "support/tables.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <set>
#include <sstream>

#include "support/program.hpp"

namespace tests_of_program_tables {

using namespace corvex::test;
using Catch::Matchers::Contains;
using Json = nlohmann::json;

namespace {

const std::string examples = CORVEX_EXAMPLES "/cider-works/";
const std::map<std::string, std::string> figures = {{"N", "axial"},
                                                    {"Vy", "shear_y"},
                                                    {"Vz", "shear_z"},
                                                    {"T", "torsion"},
                                                    {"My", "moment_y"},
                                                    {"Mz", "moment_z"},
                                                    {"Fx", "x"},
                                                    {"Fy", "y"},
                                                    {"Fz", "z"},
                                                    {"Mx", "mx"},
                                                    {"about x", "rx"},
                                                    {"about y", "ry"},
                                                    {"about z", "rz"},
                                                    {"defl. y", "deflection_y"},
                                                    {"x", "x"},
                                                    {"y", "y"},
                                                    {"z", "z"},
                                                    {"stress", "stress"},
                                                    {"defl. z", "deflection_z"}};

// Of a reaction: its My is not that of a member.
std::string reaction_key(const std::string& head) {
  return head == "My" ? "my" : head == "Mz" ? "mz" : figures.at(head);
}

// To so many digits; rounding noise beside `size` prints as 0.
class Comparison {
 public:
  Comparison(const ReadTable& table, double digits) : t_(table), within_(0.6 * std::pow(10, 1 - digits)) {}

  void number(std::size_t row, const std::string& head, const Json& json, double size = 0) {
    INFO(t_.name << ", row " << row << ", " << head << ": " << t_.cell(row, head) << " for " << json);
    const std::string& cell = t_.cell(row, head);
    if (json.is_null()) {
      CHECK((cell.empty() || cell == "–"));
      return;
    }
    const double exact = json.get<double>();
    if (cell == "0" || cell.empty() || cell == "–")
      CHECK(std::abs(exact) <= 1.1e-9 * size);
    else
      CHECK(t_.si(row, head) == Approx(exact).epsilon(within_).margin(1e-300));
    ++compared;
  }
  // To the decimals that are printed: numbers that are added up have those of the largest.
  void added(std::size_t row, const std::string& head, const Json& json) {
    INFO(t_.name << ", row " << row << ", " << head << ": " << t_.cell(row, head) << " for " << json);
    const std::string& cell = t_.cell(row, head);
    const std::size_t point = cell.find('.');
    const double decimals = point == std::string::npos ? 0 : static_cast<double>(cell.size() - point - 1);
    const double unit =
        t_.units[static_cast<std::size_t>(std::find(t_.heads.begin(), t_.heads.end(), head) - t_.heads.begin())];
    CHECK(std::abs(t_.si(row, head) - json.get<double>()) <= 0.51 * std::pow(10, -decimals) * unit);
    ++compared;
  }
  // In a column of places: nothing where there is no value to place.
  void place(std::size_t row, const std::string& head, const Json& extreme) {
    if (t_.cell(row, head).empty()) return;
    INFO(t_.name << ", row " << row << ", " << head << " for " << extreme);
    CHECK(t_.si(row, head) == Approx(extreme["at"].get<double>()).epsilon(within_).margin(1e-9));
  }
  void word(std::size_t row, const std::string& head, const std::string& expected) {
    if (!t_.cell(row, head).empty()) CHECK(t_.cell(row, head) == expected);
  }

  int compared = 0;

 private:
  const ReadTable& t_;
  double within_;
};

// The largest figure in a member's results of the kind of `key`, in all members.
double largest(const Json& members, const std::string& key) {
  const bool moment = key.find("moment") != std::string::npos || key == "torsion", moves = key == "sag";
  double most = 0;
  for (const Json& m : members)
    for (const char* k :
         {"axial", "shear_y", "shear_z", "torsion", "moment_y", "moment_z", "stress", "von_mises", "sag"}) {
      const std::string kind = k;
      const bool is_moment = kind.find("moment") == 0 || kind == "torsion";
      const bool is_stress = kind == "stress" || kind == "von_mises";
      const bool wants_stress = key == "stress" || key == "von_mises";
      if (is_moment != moment || is_stress != wants_stress || (kind == "sag") != moves) continue;
      for (const char* end : {"max", "min"})
        if (m[k].contains(end) && m[k][end]["value"].is_number())
          most = std::max(most, std::abs(m[k][end]["value"].get<double>()));
    }
  return most;
}

void check_table(const ReadTable& t, const Json& j, int& compared) {
  Comparison c(t, 15);
  const Json& cases = j["cases"];
  const Json& envelope = cases["envelope"];
  const auto load_case = [&](std::size_t r) -> const Json& { return cases.at(t.cell(r, "case")); };
  for (std::size_t r = 0; r < t.rows.size(); ++r) {
    if (t.name == "model") {
      c.word(r, "title", j["model"]["title"]);
      c.number(r, "points", j["model"]["points"]);
      c.number(r, "mass", j["model"]["mass"]);
    } else if (t.name == "cases") {
      double worst = 0, moved = 0;
      for (const auto& [name, m] : load_case(r)["members"].items())
        if (m["von_mises"]["max"]["value"].is_number())
          worst = std::max(worst, m["von_mises"]["max"]["value"].get<double>());
      for (const auto& [name, d] : load_case(r)["displacements"].items())
        moved = std::max(moved, std::hypot(d["x"].get<double>(), d["y"].get<double>(), d["z"].get<double>()));
      c.number(r, "von Mises", worst);
      c.number(r, "safety factor", load_case(r)["members"][t.cell(r, "von Mises in")]["safety"]);
      c.number(r, "reliable digits", load_case(r)["digits"]);
      CHECK(t.si(r, "largest displacement") >= moved * (1 - 1e-12));
    } else if (t.name == "reactions" || t.name == "displacements") {
      const bool forces = t.name == "reactions";
      const Json& point = load_case(r)[forces ? "reactions" : "displacements"].at(t.cell(r, "point"));
      for (const std::string& head : t.heads)
        if (head != "case" && head != "point")
          c.number(r, head, point[forces ? reaction_key(head) : figures.at(head)], forces ? 1e6 : 1);
    } else if (t.name == "balance") {
      const Json& sum = load_case(r)["balance"][t.cell(r, "of") == "loads" ? "applied" : "reacted"];
      for (const std::string& head : t.heads)
        if (head != "case" && head != "of") c.number(r, head, sum[reaction_key(head)], 1e6);
    } else if (t.name == "internal-forces" || t.name == "internal-moments") {
      const Json& members = load_case(r)["members"];
      const std::string key = figures.at(t.cell(r, "figure"));
      for (const std::string end : {"max", "min"}) {
        const Json& e = members.at(t.cell(r, "member"))[key][end];
        c.number(r, end, e["value"], std::max(largest(members, key), 1.0));
        c.place(r, end + " at", e);
      }
    } else if (t.name == "stress" || t.name == "envelope-stress") {
      const bool all = t.name != "stress";
      const Json& members = all ? envelope["members"] : load_case(r)["members"];
      const Json& m = members.at(t.cell(r, "member"));
      for (const auto& [head, e] : {std::pair<std::string, const Json&>{"tension", m["stress"]["max"]},
                                    {"compression", m["stress"]["min"]},
                                    {"von Mises", m["von_mises"]["max"]},
                                    {"deflection", m["sag"]["max"]}}) {
        const double value = e["value"].get<double>();
        const bool other_side = (head == "tension" && value < 0) || (head == "compression" && value > 0);
        c.number(r, head, other_side ? Json(0.0) : e["value"],
                 std::max(largest(members, head == "deflection" ? "sag" : "stress"), 1e-3));
        c.place(r, head + " at", e);
        if (all) c.word(r, head + " case", e["case"]);
      }
      c.number(r, "safety factor", m["safety"]);
    } else if (t.name.starts_with("envelope-reactions")) {
      for (const std::string end : {"max", "min"}) {
        const Json& e = envelope["reactions"].at(t.cell(r, "point"))[reaction_key(t.cell(r, "figure"))][end];
        c.number(r, end, e["value"], 1e6);
        c.word(r, end + " case", e["case"]);
      }
    } else if (t.name == "envelope-displacements" || t.name == "envelope-rotations") {
      for (const std::string end : {"max", "min"}) {
        const Json& e = envelope["displacements"].at(t.cell(r, "point"))[figures.at(t.cell(r, "figure"))][end];
        c.number(r, end, e["value"], 1);
        c.word(r, end + " case", e["case"]);
      }
    } else if (t.name == "envelope-forces" || t.name == "envelope-moments") {
      const std::string key = figures.at(t.cell(r, "figure"));
      for (const std::string end : {"max", "min"}) {
        const Json& e = envelope["members"].at(t.cell(r, "member"))[key][end];
        c.number(r, end, e["value"], std::max(largest(envelope["members"], key), 1.0));
        c.place(r, end + " at", e);
        c.word(r, end + " case", e["case"]);
      }
    } else if (t.name == "limits" || t.name == "hand") {
      const Json& row = j[t.name].at(r);
      const bool limits = t.name == "limits";
      CHECK(t.cell(r, limits ? "of" : "figure") == row[limits ? "on" : "what"]);
      const bool good = row[limits ? "met" : "agrees"].get<bool>();
      CHECK(t.cell(r, "verdict") == (limits ? good ? "met" : "EXCEEDED" : good ? "agrees" : "DIFFERS"));
      // Their units stand in a column.
      ReadTable in = t;
      if (!t.cell(r, "unit").empty()) {
        const ReadTable unit = read_csv("unit", "[" + t.cell(r, "unit") + "]\nx [" + t.cell(r, "unit") + "]\n");
        const ReadTable head = read_csv("unit", "x [" + t.cell(r, "unit") + "]\n0\n");
        in.units.assign(in.units.size(), head.units[0]);
      }
      Comparison with_unit(in, 15);
      for (const auto& [head, key] :
           limits ? std::vector<std::pair<std::string, std::string>>{{"value", "value"}, {"required", "required"}}
                  : std::vector<std::pair<std::string, std::string>>{{"hand", "hand"}, {"computed", "computed"}})
        with_unit.number(r, head, row[key], 1);
      compared += with_unit.compared;
    } else {
      FAIL("no test reads the table " << t.name);
    }
  }
  compared += c.compared;
}

}  // namespace

TEST_CASE("Every table as CSV holds the figures of the JSON, in three sets of units") {
  const std::string model = GENERATE("pipe-rack", "agitator-bracket", "tank-skid", "conveyor-trestle");
  const std::string units = GENERATE("", " --units 'mm, N'", " --units 'ft, kip, deflection: in, ksi, deg'");
  INFO(model << units);
  const Folder folder;
  const Outcome json = folder.run("solve '" + examples + model + ".yaml' --json");
  const Outcome out = folder.run("solve '" + examples + model + ".yaml' --csv tables" + units);
  REQUIRE(out.status == 0);
  CHECK(out.out.empty());
  int compared = 0;
  std::set<std::string> names;
  const Json j = Json::parse(json.out);
  for (const ReadTable& t : read_csv_folder(folder.path() / "tables")) {
    INFO(t.name);
    names.insert(t.name);
    CHECK_FALSE(t.rows.empty());
    check_table(t, j, compared);
    CHECK_THAT(out.err, Contains(t.name));
  }
  for (const char* name :
       {"model", "cases", "reactions", "balance", "displacements", "internal-forces", "stress", "hand"})
    CHECK(names.count(name) == 1);
  CHECK(names.count("limits") == !j["limits"].empty());
  CHECK(names.count("envelope-forces") == (names.count("envelope-stress")));
  CHECK(compared > 100);
  // Whole: every point of every case that is assessed, with none left out.
  const ReadTable movements = read_csv("displacements", folder.content("tables/displacements.csv"));
  const ReadTable cases = read_csv("cases", folder.content("tables/cases.csv"));
  CHECK(movements.rows.size() == cases.rows.size() * j["model"]["points"].get<std::size_t>());
}

TEST_CASE("A spreadsheet has the tables of the CSV, numbers as numbers") {
  const std::string model = GENERATE("pipe-rack", "agitator-bracket");
  const Folder folder;
  REQUIRE(folder.run("solve '" + examples + model + ".yaml' --csv tables").status == 0);
  REQUIRE(folder.run("solve '" + examples + model + ".yaml' -o results.xlsx").status == 0);
  CHECK_FALSE(folder.has("results.xlsx.part"));
  const auto sheets = read_spreadsheet(folder.path() / "results.xlsx");
  CHECK(sheets.size() == read_csv_folder(folder.path() / "tables").size());
  for (const ReadTable& sheet : sheets) {
    const ReadTable t = read_csv(sheet.name, folder.content("tables/" + sheet.name + ".csv"));
    INFO(t.name);
    CHECK(sheet.heads == t.heads);
    CHECK(sheet.units == t.units);
    REQUIRE(sheet.rows.size() == t.rows.size());
    for (std::size_t r = 0; r < t.rows.size(); ++r)
      for (std::size_t c = 0; c < t.heads.size(); ++c) {
        // Behind an apostrophe a spreadsheet that reads the CSV takes no text for a formula.
        const std::string &a = sheet.rows[r][c], &in_csv = t.rows[r][c];
        const std::string b = in_csv.starts_with('\'') ? in_csv.substr(1) : in_csv;
        INFO(t.heads[c] << ": " << a << ", " << b);
        char* end = nullptr;
        const double value = std::strtod(b.c_str(), &end);
        if (!b.empty() && !*end)
          CHECK(std::stod(a) == Approx(value).epsilon(1e-14).margin(1e-300));
        else
          CHECK(a == b);
      }
  }
}

namespace {

// What a person reads of one case, held against the JSON, to the digits that are shown.
void check_read(const std::vector<ReadTable>& tables, const Json& c, double digits) {
  const auto named = [&](const std::string& name) {
    const auto it = std::find_if(tables.begin(), tables.end(), [&](const ReadTable& t) { return t.name == name; });
    return it == tables.end() ? ReadTable() : *it;
  };
  const ReadTable reactions = named("Reactions, global axes"), movements = named("Displacements, global axes"),
                  bars = named("Bars"), inner = named("Internal forces, local axes"),
                  stress = named("Stress, safety factor, deflection");
  Comparison of_reactions(reactions, digits);
  for (std::size_t r = 0; r + 2 < reactions.rows.size(); ++r)
    for (std::size_t k = 1; k < reactions.heads.size(); ++k)
      if (!reactions.rows[r][k].empty())
        of_reactions.added(r, reactions.heads[k],
                           c["reactions"].at(reactions.rows[r][0])[reaction_key(reactions.heads[k])]);
  CHECK(reactions.rows[reactions.rows.size() - 2][0] == "sum");
  CHECK(reactions.rows.back()[0] == "loads");
  of_reactions.added(reactions.rows.size() - 2, "Fy", c["balance"]["reacted"]["y"]);
  of_reactions.added(reactions.rows.size() - 1, "Fy", c["balance"]["applied"]["y"]);
  Comparison of_movements(movements, digits);
  REQUIRE(movements.rows.size() == c["displacements"].size());
  for (std::size_t r = 0; r < movements.rows.size(); ++r)
    for (std::size_t k = 1; k < movements.heads.size(); ++k)
      if (!movements.rows[r][k].empty())
        of_movements.number(r, movements.heads[k],
                            c["displacements"].at(movements.rows[r][0])[figures.at(movements.heads[k])], 1);
  for (std::size_t r = 0; r < inner.rows.size(); ++r) {
    const std::string key = figures.at(inner.rows[r][1]);
    // The unit of the row stands in a column.
    ReadTable in = inner;
    in.units.assign(in.units.size(), read_csv("", "x [" + inner.rows[r][2] + "]\n0\n").units[0]);
    Comparison of_row(in, digits);
    // What is the same all along stands under max alone.
    for (const std::string end : {"max", "min"})
      of_row.number(r, in.cell(r, end).empty() ? "max" : end, c["members"].at(inner.rows[r][0])[key][end]["value"],
                    std::max(largest(c["members"], key), 1.0));
  }
  Comparison of_bars(bars, digits);
  for (std::size_t r = 0; r < bars.rows.size(); ++r) {
    const Json& m = c["members"].at(bars.rows[r][0]);
    CHECK(m["kind"] == "link");
    const double high = m["axial"]["max"]["value"], low = m["axial"]["min"]["value"];
    of_bars.number(r, "N", std::abs(high) >= std::abs(low) ? high : low, largest(c["members"], "axial"));
    of_bars.number(r, "length", m["length"]);
  }
  CHECK(stress.rows.size() + bars.rows.size() == c["members"].size());
  Comparison of_stress(stress, digits);
  Comparison of_safety(stress, std::min(digits, 3.0));
  for (std::size_t r = 0; r < stress.rows.size(); ++r) {
    const Json& m = c["members"].at(stress.rows[r][0]);
    of_stress.number(r, "von Mises", m["von_mises"]["max"]["value"], largest(c["members"], "stress"));
    of_safety.number(r, "safety factor", m["safety"]);
  }
}

// The cells of each line without the space between them, and without what a group does not repeat.
std::vector<std::string> squeezed(const std::string& line) {
  std::istringstream in(line);
  std::vector<std::string> words;
  for (std::string w; in >> w;) words.push_back(w);
  return words;
}

}  // namespace

TEST_CASE("Markdown and text hold the figures of the JSON, in three sets of units and with more or fewer digits") {
  const std::string model = GENERATE("press-frame", "agitator-bracket");
  const auto [units, digits] = GENERATE(table<std::string, int>(
      {{"", 4}, {" --units 'm, kN, deflection: um' --digits 7", 7}, {" --units 'in, lbf' --digits 2", 2}}));
  const Folder folder;
  const Json j = Json::parse(folder.run("solve '" + examples + model + ".yaml' --json").out);
  for (const auto& [name, c] : j["cases"].items()) {
    if (name == "envelope") continue;
    INFO(model << units << " " << name);
    const std::string call = "solve '" + examples + model + ".yaml' --all --case '" + name + "'" + units;
    const std::string markdown = folder.run(call + " -o results.md").out.empty() ? folder.content("results.md") : "";
    auto tables = read_markdown(markdown, name);
    std::erase_if(tables, [](const ReadTable& t) { return t.name.rfind("Hand", 0) == 0; });
    check_read(tables, c, digits);
    // The text has the same cells in the same order.
    const std::string text = folder.run(call).out;
    for (const ReadTable& t : tables) {
      std::istringstream in(text.substr(text.find("\n" + t.name + "\n") + t.name.size() + 2));
      std::string line, before;
      std::getline(in, line);
      std::getline(in, line);
      for (const auto& row : t.rows) {
        REQUIRE(std::getline(in, line));
        std::string expected;
        for (std::size_t k = 0; k < row.size(); ++k)
          if (k > 0 || t.name != "Internal forces, local axes" || row[0] != before) expected += " " + row[k];
        before = row[0];
        CHECK(squeezed(line) == squeezed(expected));
      }
    }
  }
}

TEST_CASE("A trace as CSV holds the figures of its JSON, of a case and of the envelope") {
  const std::string load_case = GENERATE("winter", "envelope");
  const std::string places = GENERATE("", " --steps 7", " --at '1 m,50 %,upper.2'");
  const Folder folder;
  const std::string call = "trace '" + examples + "pipe-rack.yaml' 'upper chord' --case " + load_case + places;
  const Json j = Json::parse(folder.run(call + " --json").out);
  REQUIRE(folder.run(call + " --csv tables --units 'm, N'").status == 0);
  const auto tables = read_csv_folder(folder.path() / "tables");
  std::size_t rows = 0, cells = 0;
  for (const ReadTable& t : tables) {
    Comparison c(t, 15);
    for (std::size_t r = 0; r < t.rows.size(); ++r) {
      // In the envelope a row tells of one figure at a place.
      const std::string figure = load_case == "envelope" ? t.cell(r, "figure") : "";
      const auto here = [&](const Json& s) {
        return std::abs(s["at"].get<double>() - t.si(r, "at")) < 1e-9 &&
               (t.cell(r, "side").empty() || t.cell(r, "side") == s["side"]);
      };
      const auto& places = j["places"];
      const auto place = std::find_if(places.begin(), places.end(), here);
      REQUIRE(place != places.end());
      if (figure.empty())
        for (const std::string& head : t.heads)
          if (figures.count(head)) c.number(r, head, (*place)[figures.at(head)], 1e5), ++cells;
      if (figure.empty() || figure == "von Mises") {
        const Json& e = (*place)["von_mises"]["max"];
        c.number(r, figure.empty() ? "von Mises" : "max", e["value"], 1e5);
        if (!figure.empty()) c.word(r, "max case", e["case"]);
      }
      for (const std::string end : {"max", "min"}) {
        if (figure == "von Mises") continue;
        const bool stress = figure.empty() || figure == "stress";
        const double side = !stress ? 0 : end == "max" ? 1 : -1;
        const Json& e = (*place)[figure.empty() ? "stress" : figures.at(figure)][end];
        const double value = e["value"].get<double>();
        c.number(r,
                 !figure.empty() ? end
                 : end == "max"  ? "tension"
                                 : "compression",
                 side * value < 0 ? 0 : value, 1e5);
        if (!figure.empty()) c.word(r, end + " case", e["case"]);
      }
      ++rows;
    }
  }
  // N, Vy, Mz, the deflection, x, y, the normal stress and von Mises.
  CHECK(rows == j["places"].size() * (load_case == "envelope" ? 8 : 1));
  CHECK(cells == (load_case == "envelope" ? 0 : rows * 6));
}

}  // namespace tests_of_program_tables
