// Points found from other points, families, members along them, tables.
#include <filesystem>
#include <fstream>

#include "support/near.hpp"
#include "support/text.hpp"

namespace tests_of_file_points {

using namespace corvex;
using namespace corvex::units;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

// A model with these points and members; whatever else it needs holds the point A.
std::string model(const std::string& points,
                  const std::string& members = "post: {through: [A, B], section: leg, material: S235}",
                  const std::string& more = "") {
  const auto indented = [](const std::string& text) {
    std::string t = "  ";
    for (const char c : text) t += c == '\n' ? std::string("\n  ") : std::string(1, c);
    return t + "\n";
  };
  return "corvex: 1\nunits: {length: mm, force: kN, moment: kN*mm, line: kN/mm}\nparameters: {h: 900 mm, n: 3}\n"
         "sections: {leg: {shape: square tube, width: 60 mm, wall: 4 mm}}\npoints:\n" +
         indented(points) + "members:\n" + indented(members) +
         "supports: {A: fixed}\nloads: {push: [{at: A, force: {x: 2}}]}\n" + more;
}

Vector place(const Structure& s, const std::string& name) {
  const auto id = s.find_point(name);
  INFO(name);
  REQUIRE(id);
  return s[*id].position;
}

void check_place(const Structure& s, const std::string& name, const Vector& v) {
  INFO(name);
  CHECK(length(place(s, name) - v) < 1e-12);
}

std::vector<std::string> through(const Structure& s, const std::string& member) {
  std::vector<std::string> names;
  INFO(member);
  const auto id = s.find_member(member);
  REQUIRE(id);
  for (const PointId p : s[*id].through) names.push_back(s[p].name);
  return names;
}

}  // namespace

TEST_CASE("Points are found from others, whichever stands first") {
  const Structure s = read(model("M: {between: [A, E], at: 25 %}\n"
                                 "A: [0, 0]\n"
                                 "B: {from: A, by: [0, h]}\n"
                                 "C: {from: B, by: {down: 100, x: 2*h}}\n"
                                 "D: {from: B, length: 2 m, angle: 30 deg}\n"
                                 "E: {mirror: C, about: {y: 0}}\n"
                                 "F: {between: [A, B], at: 300}\n"
                                 "G: {between: [A, B], at: 100 %/3}\n"
                                 "H: {mirror: D, about: {x: h}}"))
                          .structure;
  check_place(s, "B", {0, 0.9, 0});
  check_place(s, "C", {1.8, 0.8, 0});
  check_place(s, "D", {std::sqrt(3), 1.9, 0});
  check_place(s, "E", {1.8, -0.8, 0});
  check_place(s, "F", {0, 0.3, 0});
  check_place(s, "G", {0, 0.3, 0});
  check_place(s, "H", {1.8 - std::sqrt(3), 1.9, 0});
  check_place(s, "M", {0.45, -0.2, 0});
  // Numbered as they stand in the file.
  CHECK(s.points()[0].name == "M");
  CHECK(s.points()[8].name == "H");
}

TEST_CASE("In space points are moved, mirrored and repeated by three components") {
  const Structure s = read(model("A: [0, 0, 0]\nB: {from: A, by: {up: h}}\nC: {mirror: B, about: {z: 1 m}}\n"
                                 "R: {repeat: B, count: 2, by: [1 m, 0, 0.5 m]}"))
                          .structure;
  check_place(s, "B", {0, 0, 0.9});
  check_place(s, "C", {0, 0, 1.1});
  check_place(s, "R.2", {2, 0, 1.9});
}

TEST_CASE("Repeated points are a family: NAME.1 is one step from the first") {
  const Structure s =
      read(model("A: [0, 0]\n"
                 "B: [0, 900]\n"
                 "feet: {repeat: A, count: n, by: [2 m, 0]}\n"
                 "heads: {repeat: B, count: n, by: [2 m, 0]}\n"
                 "roof: {mirror: heads, about: {y: 1 m}}\n"
                 "grid: {repeat: feet, count: 2, by: [0, -1 m]}",
                 "post: {through: [A, B], section: leg, material: S235}\n"
                 "posts: {repeat: post, count: 3, points: [feet, heads]}\n"
                 "brace: {through: [A, heads.1], section: leg, material: S235, kind: link}\n"
                 "braces: {repeat: brace, count: 2, points: [feet, heads]}\n"
                 "rail: {through: [B, heads], section: leg, material: S235}\n"
                 "webs: {each: [[A, feet.1], [feet.1, feet.2]], section: leg, material: S235, hinge: both}\n"
                 "more webs: {repeat: webs, count: 1, points: feet}",
                 "masses: {heads: 20 kg}\n"))
          .structure;
  check_place(s, "feet.1", {2, 0, 0});
  check_place(s, "feet.3", {6, 0, 0});
  check_place(s, "roof.2", {4, 1.1, 0});
  check_place(s, "grid.1", {2, -1, 0});
  check_place(s, "grid.4", {2, -2, 0});
  CHECK(s.points().size() == 2 + 3 + 3 + 3 + 6);
  CHECK(through(s, "posts.1") == std::vector<std::string>{"feet.1", "heads.1"});
  CHECK(through(s, "posts.3") == std::vector<std::string>{"feet.3", "heads.3"});
  CHECK(through(s, "braces.2") == std::vector<std::string>{"feet.2", "heads.3"});
  CHECK(s[*s.find_member("braces.2")].kind == MemberKind::link);
  CHECK(through(s, "rail") == std::vector<std::string>{"B", "heads.1", "heads.2", "heads.3"});
  CHECK(through(s, "webs.2") == std::vector<std::string>{"feet.1", "feet.2"});
  CHECK(through(s, "more webs.1") == std::vector<std::string>{"feet.1", "feet.2"});
  CHECK(through(s, "more webs.2") == std::vector<std::string>{"feet.2", "feet.3"});
  CHECK(s[*s.find_member("more webs.1")].hinge == Hinge::both);
  CHECK(s.point_masses().size() == 3);
}

TEST_CASE("Loads and supports take families, lists and all") {
  const std::string loads =
      GENERATE(as<std::string>(), "{on: posts, heat: 20 K}", "{on: [posts.1, posts.2], heat: 20 K}");
  std::string text = model(
      "A: [0, 0]\nB: [0, 900]\nfeet: {repeat: A, count: 2, by: [2 m, 0]}\nheads: {repeat: B, count: 2, by: [2 m, 0]}",
      "post: {through: [A, B], section: leg, material: S235}\n"
      "posts: {repeat: post, count: 2, points: [feet, heads]}");
  text = replaced(text, "{A: fixed}", "{A: fixed, feet: pinned}");
  const Structure s = read(replaced(text, "{at: A, force: {x: 2}}",
                                    loads + ", {at: heads, force: {x: 1}}, {on: all, spread: {down: 9}}"))
                          .structure;
  CHECK(s.supports().size() == 3);
  const auto& all = s.load_cases()[0].loads();
  REQUIRE(all.size() == 5);
  CHECK(std::get<TemperatureLoad>(all[1]).on == *s.find_member("posts.2"));
  CHECK(std::get<PointLoad>(all[3]).at == *s.find_point("heads.2"));
  CHECK(std::get<SpreadLoad>(all[4]).on.size() == 3);
}

TEST_CASE("Slips among points and members are told at their place") {
  const auto [what, by, message] = GENERATE(table<std::string, std::string, std::string>({
      {"B: [0, 900]", "B: {from: C, by: [0, 1]}", "7:13: error: there is no point 'C'; there are: A, B"},
      {"B: [0, 900]", "B: {from: B, by: [0, 1]}", "point 'B' refers to itself"},
      {"B: [0, 900]", "B: {from: X, by: [0, 1]}\n  X: {mirror: B, about: {x: 1}}", "refers to itself"},
      {"B: [0, 900]", "B: {from: A}", "7:3: error: point 'B' from another needs 'by', or 'length' and 'angle'"},
      {"B: [0, 900]", "B: {from: A, length: 2 m}", "needs 'angle'"},
      {"B: [0, 900]", "B: {from: A, by: [0, 1], angle: 3 deg}", "'by' does not go with 'length' and 'angle'"},
      {"B: [0, 900]", "B: {from: A, by: [0, 1, 2]}", "2 components were expected in a plane structure"},
      {"B: [0, 900]", "B: {from: A, about: {x: 1}}", "7:16: error: 'about' does not go with 'from' in point 'B'"},
      {"B: [0, 900]", "B: {length: 3, angle: 2 deg}", "one of: from, between, mirror, repeat"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {between: [A, B], at: 901}",
       "901 mm is not between the points, which are 900 mm apart"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {between: [A], at: 50 %}", "two points were expected"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {between: [A, A], at: 50 %}", "both points are at the same place"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {mirror: A, about: {x: 1, y: 2}}", "one plane to mirror about was expected"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {mirror: A, about: {z: 1}}", "'z' is not a key of about"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {repeat: A, count: 2.5, by: [0, 1]}", "'2.5' is not a count"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {repeat: A, count: 2, by: [0, 0]}", "would be at the first one"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {repeat: A, count: 2}", "the repeated point 'C' needs 'by'"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {repeat: A, count: 2, by: [1, 0]}\n  D: {from: C, by: [0, 1]}",
       "'C' is a family of points; one of them was expected, for example 'C.1'"},
      {"B: [0, 900]", "B: [0, 900]\n  C: {repeat: A, count: 2, by: [1, 0]}\n  C.1: [5, 5]",
       "the name 'C.1' is used twice"},
      {"[A, B]", "[A, B.1]", "there is no point 'B.1'"},
      {"{through: [A, B], section: leg, material: S235}", "{each: [], section: leg, material: S235}",
       "a list of lists of points"},
      {"through: [A, B]", "each: [A, B]", "a list was expected"},
      {"through: [A, B]", "through: [A, B], each: [[A, B]]", "'through' does not go with 'each'"},
      {"through: [A, B]", "through: [A, B], count: 3", "'count' goes with 'repeat' only"},
      {"{through: [A, B], section: leg, material: S235}",
       "{through: [A, B], section: leg, material: S235}\n  posts: {repeat: pots, count: 2, points: [B]}",
       "there is no member 'pots'; did you mean 'post'?"},
      {"{through: [A, B], section: leg, material: S235}",
       "{through: [A, B], section: leg, material: S235}\n  posts: {repeat: posts, count: 2, points: [B]}",
       "member 'posts' refers to itself"},
      {"S235}", "S235, release: {start: [moment-x]}}",
       "'moment-x' is not a component to release; did you mean 'moment-y'?"},
      {"S235}", "S235, release: {beginning: [axial]}}", "'beginning' is not a key of release"},
      {"S235}", "S235, acts: pull}", "'pull' is not a direction of action; expected: tension, compression"},
      {"S235}", "S235, offset: {start: 40 mm}}", "a direction is missing"},
  }));
  const std::string text = refusal(replaced(model("A: [0, 0]\nB: [0, 900]"), what, by));
  INFO(text);
  CHECK_THAT(text, Contains(message));
}

TEST_CASE("Copies that go beyond their family, or lie on what they copy, are told") {
  const std::string points =
      "A: [0, 0]\nB: [0, 900]\nfeet: {repeat: A, count: 3, by: [2 m, 0]}\nheads: {repeat: B, count: 3, by: [2 m, 0]}";
  const std::string post = "post: {through: [A, B], section: leg, material: S235}\n";
  CHECK_THAT(refusal(model(points, post + "posts: {repeat: post, count: 4, points: [feet, heads]}")),
             Contains("copy 4 of 'post' would go beyond the last point of its family: 3 of them are possible"));
  CHECK_THAT(refusal(model(points + "\nC: [9, 9]",
                           "post: {through: [B, C], section: leg, material: S235}\n"
                           "posts: {repeat: post, count: 2, points: [feet]}")),
             Contains("no point of 'post' is in these families"));
}

namespace {

class TableFolder {
 public:
  TableFolder() : path_(std::filesystem::temp_directory_path() / ("corvex-tables-" + std::to_string(getpid()))) {
    std::filesystem::create_directories(path_);
  }
  ~TableFolder() { std::filesystem::remove_all(path_); }
  void write(const std::string& name, const std::string& text) const {
    std::ofstream(path_ / name, std::ios::binary) << text;
  }
  Expected<Model, Problems> model(const std::string& text) const {
    return read_model_text(text, (path_ / "model.yaml").string());
  }
  std::string refusal(const std::string& text) const {
    const auto m = model(text);
    const Problems problems = m ? m->located(m->structure.validate()) : m.error();
    std::string all;
    for (const Problem& p : problems) all += describe(p) + "\n";
    for (std::size_t at; (at = all.find(path_.string() + "/")) != std::string::npos;)
      all.erase(at, path_.string().size() + 1);
    return all;
  }

 private:
  std::filesystem::path path_;
};

const std::string with_tables = R"(corvex: 1
units: {length: mm, force: kN, moment: kN*mm, line: kN/mm}
parameters: {h: 900 mm}
sections: {leg: {shape: square tube, width: 60 mm, wall: 4 mm}}
tables: {points: points.csv, members: members.csv}
supports: {A: fixed}
loads: {push: [{at: B, force: {x: 2}}, {on: post, line: {x: 1}}]}
)";

}  // namespace

TEST_CASE("Points and members come from tables beside the model") {
  const TableFolder folder;
  const std::string separator = GENERATE(",", ";");
  const auto table = [&](std::string text) {
    for (char& c : text)
      if (c == ',') c = separator[0];
    return text;
  };
  // Quotes, blanks, a byte-order mark, lines of another system, empty lines; columns in any order.
  folder.write("points.csv",
               table("\xEF\xBB\xBFname,y,x\r\nA, 0 ,0\r\n\"B\",h,0\r\n\r\n\"C \"\"top\"\"\",2*h,1 m\r\n"));
  folder.write("members.csv", table("name,from,to,section,material,kind\npost,A,B,leg,S235,\ntie,A,B,leg,S235,link"));
  const auto refused = folder.refusal(with_tables);
  CHECK_THAT(refused, Contains("points.csv:5:1: error: the name 'C \"top\"' contains a quote or a comma"));
  folder.write("points.csv", table("name,y,x\nA, 0 ,0\n\"B\",h,0\nC,2*h,1 m\n"));
  const auto m = folder.model(with_tables);
  REQUIRE(m.ok());
  const Structure& s = m->structure;
  check_place(s, "B", {0, 0.9, 0});
  check_place(s, "C", {1, 1.8, 0});
  CHECK(through(s, "post") == std::vector<std::string>{"A", "B"});
  CHECK(s[*s.find_member("tie")].kind == MemberKind::link);
  // What the file adds goes on from there.
  const auto more = folder.model(
      with_tables +
      "points: {D: {from: C, by: [0, 1 m]}}\nmembers: {top: {through: [B, C], section: leg, material: S235}}\n");
  REQUIRE(more.ok());
  check_place(more->structure, "D", {1, 2.8, 0});
  CHECK(more->structure.members().size() == 3);
}

TEST_CASE("Defaults hold for the members of a table") {
  const TableFolder folder;
  folder.write("points.csv", "name,x,y\nA,0,0\nB,0,900\nC,0,1800\n");
  const std::string defaults = with_tables + "defaults: {kind: link, material: S355, section: leg}\n";
  // A column that is not there, empty cells, cells that say otherwise.
  folder.write("members.csv", "name,from,to,section,material\npost,A,B,leg,S235\nupper,B,C,,\n");
  const auto m = folder.model(defaults);
  REQUIRE(m.ok());
  const Structure& s = m->structure;
  CHECK(s.members()[0].kind == MemberKind::link);
  CHECK(s.material_of(s.members()[0]).name == "S235");
  CHECK(s.members()[1].kind == MemberKind::link);
  CHECK(s.material_of(s.members()[1]).name == "S355");
  CHECK(s.sections()[s.members()[1].section.index].name == "leg");
  folder.write("members.csv", "name,from,to,section,material,kind\npost,A,B,leg,S235,beam\nupper,B,C,leg,,\n");
  const auto with_kinds = folder.model(defaults);
  REQUIRE(with_kinds.ok());
  CHECK(with_kinds->structure.members()[0].kind == MemberKind::beam);
  CHECK(with_kinds->structure.members()[1].kind == MemberKind::link);
  // Without defaults an empty cell is a mistake, told where it stands.
  CHECK_THAT(folder.refusal(with_tables), Contains("members.csv:3:"));
}

TEST_CASE("Slips in tables are told with the table's own line and column") {
  const TableFolder folder;
  const std::string good_points = "name,x,y\nA,0,0\nB,0,900\n",
                    good_members = "name,from,to,section,material\npost,A,B,leg,S235\n";
  const auto [points, members, message] = GENERATE_COPY(table<std::string, std::string, std::string>({
      {"name,x,y\nA,0,0\nB,0,900 kN\n", good_members,
       "points.csv:3:5: error: '900 kN' is a force; a length was expected"},
      {"name,x,y\nA,0,0\nB,0\n", good_members,
       "points.csv:3:1: error: this line has 2 cells, the first line names 3 columns"},
      {"point,x,y\nA,0,0\n", good_members,
       "points.csv:1:1: error: the first line names the columns: name,x,y or name,x,y,z was expected"},
      {"", good_members, "points.csv: error: the table is empty"},
      {"name,x,y\n\"A,0,0\n", good_members, "points.csv:2:1: error: this quote is not closed"},
      {"name,x,y\n\"A\" b,0,0\n", good_members, "points.csv:2:5: error: ',' was expected after the closing quote"},
      {"name,x,y\n,0,0\n", good_members, "points.csv:2:1: error: a name was expected"},
      {"name,x,y\nÄpfel,0,0\nB,q,900\nA,0,0\n", good_members,
       "points.csv:3:3: error: 'q': 'q' is neither a parameter nor a unit"},
      {good_points, "name,from,to,section,material\npost,A,Q,leg,S235\n",
       "members.csv:2:8: error: there is no point 'Q'"},
      {good_points, "name,from,to,section,material\npost,A,B,lug,S235\n",
       "members.csv:2:10: error: there is no section 'lug'; did you mean 'leg'?"},
      {good_points, "name,from,to,section,material,kind\npost,A,B,leg,S235,rod\n",
       "members.csv:2:19: error: 'rod' is not a kind of member"},
      {good_points, "name,from,to,section,material\npost,A,A,leg,S235\n",
       "members.csv:2:1: error: 'post' starts and ends at the same place"},
      {"name,x,y\nA,0,0\nB,0,900\nB,0,800\n", good_members, "points.csv:4:1: error: the name 'B' is used twice"},
  }));
  folder.write("points.csv", points);
  folder.write("members.csv", members);
  const std::string text = folder.refusal(with_tables);
  INFO(text);
  CHECK_THAT(text, Contains(message));
}

TEST_CASE("A table that is not there is told") {
  const TableFolder folder;
  CHECK_THAT(folder.refusal(with_tables),
             Contains("model.yaml:5:18: error: 'points.csv': the file does not exist") && !Contains("needs 'points'"));
}

}  // namespace tests_of_file_points
