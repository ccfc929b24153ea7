// `report`: every chapter in every form, every figure of the tables in the PDF, formulas typeset, names as text.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <pugixml.hpp>
#include <regex>
#include <set>

#include "support/models.hpp"
#include "support/program.hpp"
#include "support/rows.hpp"
#include "support/trestle.hpp"

namespace tests_of_program_report {

using namespace corvex;
using namespace corvex::test;
using Catch::Matchers::Contains;

namespace {

const std::string judged_trestle =
    trestle + R"model(document: {project: Cider works, number: CW-7, author: E. Russet, revision: B}
limits: [{safety: 1.5}, {sag: 1/300}]
hand:
  let: {P: 3.2 kN, L: span}
  expect:
    - {displacement: C, part: y, is: "-P*L^3/(48*E(S235)*Iz(rail))", within: 60 %, case: product, note: a simple beam}
    - {reaction: A, part: y, is: P/2 + 0.8 kN/m*L/2, case: product}
variants:
  heavy: {parameters: {wall: 5 mm}}
accept: [{finding: no-combination, because: the push comes alone}]
)model";

// The text of a page with blanks for markup.
std::string all_text(const pugi::xml_node& node) {
  std::string text;
  for (const pugi::xml_node& child : node.children()) {
    if (child.type() == pugi::node_pcdata) text += std::string(child.value());
    if (std::string(child.name()) != "style") text += all_text(child);
  }
  const std::string name = node.name();
  return name == "td" || name == "th" || name == "p" || name == "dd" || name == "dt" || name == "tr" ? text + " "
                                                                                                     : text;
}

pugi::xml_document parsed(const std::string& html) {
  pugi::xml_document page;
  const auto result =
      page.load_buffer(html.data(), html.size(), pugi::parse_default | pugi::parse_ws_pcdata | pugi::parse_doctype);
  INFO(result.description() << " at " << html.substr(static_cast<std::size_t>(result.offset), 60));
  REQUIRE(result);
  return page;
}

// Everything in the cells of tables that has a digit, but not what only fills up a column.
std::multiset<std::string> cells(const pugi::xml_document& page) {
  std::multiset<std::string> all;
  for (const auto& found : page.select_nodes("//td")) {
    std::string text;
    for (const pugi::xml_node& child : found.node().children())
      if (child.type() == pugi::node_pcdata) text += child.value();
    for (std::size_t at = 0; at < text.size();) {
      const std::size_t end = std::min(text.find(' ', at), text.size());
      const std::string word = text.substr(at, end - at);
      if (word.find_first_of("0123456789") != std::string::npos) all.insert(word);
      at = end + 1;
    }
  }
  return all;
}

std::multiset<std::string> words(const std::string& text) {
  std::multiset<std::string> all;
  std::string word;
  for (const char c : text + " ") {
    if (c != ' ' && c != '\n' && c != '\f') {
      word += c;
      continue;
    }
    if (!word.empty()) all.insert(word);
    word.clear();
  }
  return all;
}

std::string pdf_text(const Folder& folder, const std::string& name) {
  const std::string to = (folder.path() / "pdf.txt").string();
  REQUIRE(std::system(("pdftotext -layout '" + (folder.path() / name).string() + "' '" + to + "'").c_str()) == 0);
  return folder.content("pdf.txt");
}

}  // namespace

TEST_CASE("A report has every chapter in every form, and only those that are asked for") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  for (const char* name : {"r.html", "r.md", "r.pdf"}) {
    const Outcome o = folder.run("report m.yaml -o " + std::string(name));
    INFO(name << o.err);
    CHECK(o.status == 0);
    CHECK(o.out.empty());
    const std::string text = std::string(name) == "r.pdf" ? pdf_text(folder, name) : folder.content(name);
    std::size_t at = 0;
    for (const char* chapter : {"Summary", "Model", "Materials and sections", "Supports", "Loads", "Findings",
                                "Results", "Limits", "Hand calculation", "Variants", "Theory and accuracy"}) {
      // Behind the one before, as a heading; in the contents they stand earlier.
      const std::string heading = std::string(name) == "r.md" ? "\n## " + std::string(chapter) + "\n" : chapter;
      const std::size_t found = text.find(heading, at);
      INFO(chapter);
      REQUIRE(found != std::string::npos);
      at = found;
    }
    for (const char* head : {"Trestle", "Cider works", "CW-7", "E. Russet"}) CHECK_THAT(text, Contains(head));
    CHECK_THAT(text, Contains("the push comes alone"));

    const std::string parts = std::string("p") + (name + 1);
    REQUIRE(folder.run("report m.yaml --parts hand,loads -o " + parts).status == 0);
    const std::string some = std::string(name) == "r.pdf" ? pdf_text(folder, parts) : folder.content(parts);
    CHECK_THAT(some,
               Contains("Loads") && Contains("Hand calculation") && !Contains("Materials") && !Contains("Theory"));
  }
}

TEST_CASE("Every figure of the tables stands in the PDF, whole") {
  std::size_t number = 0;
  for (const NamedModel& model : shipped_models()) {
    if (!whole() && number++ % 4 != 0) continue;
    const Folder folder;
    folder.write("m.yaml", model.text);
    INFO(model.name);
    const Outcome html = folder.run("report m.yaml -o r.html"), pdf = folder.run("report m.yaml -o r.pdf");
    INFO(html.err);
    REQUIRE(html.status != 2);
    CHECK(pdf.status == html.status);
    const std::multiset<std::string> in_html = cells(parsed(folder.content("r.html")));
    const std::multiset<std::string> in_pdf = words(pdf_text(folder, "r.pdf"));
    CHECK(in_html.size() > 20);
    for (const std::string& figure : in_html) {
      INFO(figure);
      CHECK(in_pdf.count(figure) >= 1);
    }
  }
}

TEST_CASE("A report has the figures of solve") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  REQUIRE(folder.run("report m.yaml --all -o r.html").status == 0);
  const auto solved = folder.run("solve m.yaml --all --units \"mm, kN\"");
  const std::string text = solved.out;
  const std::multiset<std::string> there = cells(parsed(folder.content("r.html")));
  std::size_t seen = 0;
  const std::regex figure(R"( (-?\d+\.\d{2,}) )");
  for (std::sregex_iterator it(text.begin(), text.end(), figure), end; it != end; ++it, ++seen) {
    INFO((*it)[1].str());
    CHECK((there.count((*it)[1].str()) > 0 || folder.content("r.html").find((*it)[1].str()) != std::string::npos));
  }
  CHECK(seen > 40);
}

TEST_CASE("Contents name the pages on which chapters stand, and each page says how many there are") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  REQUIRE(folder.run("report m.yaml -o r.pdf").status == 0);
  const std::string text = pdf_text(folder, "r.pdf");
  std::vector<std::string> pages(1);
  for (const char c : text) c == '\f' ? (void)pages.emplace_back() : (void)(pages.back() += c);
  pages.pop_back();
  REQUIRE(pages.size() > 5);
  const std::string first = pages.front();
  for (std::size_t p = 0; p < pages.size(); ++p) {
    CHECK_THAT(pages[p], Contains("page " + std::to_string(p + 1) + " of " + std::to_string(pages.size())));
    // None is empty.
    CHECK(words(pages[p]).size() > 12);
  }
  const std::regex entry(R"(\n *(\d+) +([A-Z][a-z ]+?) +(\d+) *(?=\n))");
  std::size_t entries = 0;
  for (std::sregex_iterator it(first.begin(), first.end(), entry), end; it != end; ++it, ++entries) {
    const std::string title = (*it)[2].str();
    INFO(title);
    const std::size_t page = std::stoul((*it)[3].str());
    REQUIRE(page <= pages.size());
    CHECK(std::regex_search(pages[page - 1], std::regex("(^|\n) *" + (*it)[1].str() + " +" + title + " *\n")));
  }
  CHECK(entries == 11);
}

TEST_CASE("Formulas are typeset") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  REQUIRE(folder.run("report m.yaml --parts hand -o r.html").status == 0);
  const auto page = parsed(folder.content("r.html"));
  const auto formulas = page.select_nodes("//math");
  REQUIRE(formulas.size() == 3);  // L = span, and two that were worked out
  const pugi::xml_node bent = formulas[1].node();
  // -P·L³ over 48·E·Iz, once with names and once with numbers.
  CHECK(bent.select_nodes(".//mfrac").size() == 2);
  const pugi::xml_node fraction = bent.select_node(".//mfrac").node();
  CHECK(all_text(fraction.first_child()) == "P·L3");
  CHECK(all_text(fraction.last_child()) == "48·ES235·Izrail");
  CHECK(all_text(fraction.select_node(".//msup").node().last_child()) == "3");
  CHECK(all_text(bent.select_nodes(".//mfrac")[1].node().first_child()) == "3.2kN·(2400mm)3");
  // And so in Markdown, in one line.
  REQUIRE(folder.run("report m.yaml --parts hand -o r.md").status == 0);
  CHECK_THAT(folder.content("r.md"), Contains("`-P*L^3/(48*E(S235)*Iz(rail)) = -3.2 kN*(2400 mm)^3/(48*210000 MPa*"));
}

namespace {

// Without what typesetting does away with: blanks, brackets, the signs of products, quotients, powers and roots.
std::string bare(std::string text) {
  for (const auto& [from, to] : {std::pair<std::string, std::string>{"\u2212", "-"},
                                 {"\u00b7", ""},
                                 {"*", ""},
                                 {"/", ""},
                                 {"^", ""},
                                 {"(", ""},
                                 {")", ""},
                                 {" ", ""},
                                 {"sqrt", ""},
                                 {"pi", "\u03c0"}})
    for (std::size_t at; (at = text.find(from)) != std::string::npos;) text.replace(at, from.size(), to);
  return text;
}

}  // namespace

TEST_CASE("What a formula says is not changed by setting it") {
  for (const char* formula :
       {"P/2 + Q*L/2", "-P*H*k/L", "sqrt((L/4)^2 + H^2)", "2*pi*sqrt(P/k)", "2.5*L/(2.5 + 3)", "min(P, Q)*L^2/8",
        "(1/4) kN*P", "0.8 kN/m*L^2", "P*sin(k)", "-(P - Q)^-2*H^2", "P/Q/L", "(P + Q)/(L - H)*k"}) {
    const Folder folder;
    folder.write("m.yaml", trestle + "hand:\n  let: {P: 1, Q: 2, L: 4, H: 7, k: 8, x: \"" + std::string(formula) +
                               "\"}\n  expect: [{mass: total, is: 31 kg, within: 90 %}]\n");
    const Outcome o = folder.run("report m.yaml --parts hand -o r.html");
    INFO(formula << o.err);
    REQUIRE(o.status == 0);
    const std::string text = all_text(parsed(folder.content("r.html")).select_node("//math").node());
    CHECK_THAT(bare(text), Catch::Matchers::StartsWith("x=" + bare(formula) + "="));
    CHECK(text.find_first_of("*^") == std::string::npos);
  }
}

TEST_CASE("Names with markup are text in a report, and it runs nothing") {
  const Folder folder;
  std::string model = trestle;
  model.replace(model.find("Trestle"), 7, "\"<script>alert(1)</script> & `co`\"");
  for (std::size_t at; (at = model.find("left leg")) != std::string::npos;) model.replace(at, 8, "\"<img src=x>|*b*\"");
  folder.write("m.yaml", model);
  const Outcome o = folder.run("report m.yaml -o r.html");
  INFO(o.err);
  REQUIRE(o.status == 0);
  const std::string html = folder.content("r.html");
  const auto page = parsed(html);
  CHECK(page.select_nodes("//script").empty());
  CHECK(page.select_nodes("//img").empty());
  CHECK(all_text(page.select_node("//h1").node()) == "<script>alert(1)</script> & `co`");
  CHECK(html.find("http-equiv=\"Content-Security-Policy\"") != std::string::npos);
  // Nothing is fetched.
  CHECK(html.find("src=\"") == std::string::npos);
  CHECK(html.find("url(") == std::string::npos);
  REQUIRE(folder.run("report m.yaml -o r.md").status == 0);
  CHECK_THAT(folder.content("r.md"), Contains("\\<script>alert") && !Contains(" <script>") && !Contains(" <img src"));
}

TEST_CASE("The same model gives the same bytes, and Markdown names pictures that are there") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  for (const char* name : {"r.html", "r.pdf", "r.md"}) {
    REQUIRE(folder.run("report m.yaml -o " + std::string(name)).status == 0);
    const std::string first = folder.content(name);
    REQUIRE(folder.run("report m.yaml -o " + std::string(name)).status == 0);
    CHECK(folder.content(name) == first);
  }
  const std::string text = folder.content("r.md");
  const std::regex picture(R"(!\[[^\n]*\]\(<([^>]+)>\))");
  std::size_t pictures = 0;
  for (std::sregex_iterator it(text.begin(), text.end(), picture), end; it != end; ++it, ++pictures) {
    INFO((*it)[1].str());
    CHECK(folder.has((*it)[1].str()));
  }
  CHECK(pictures > 8);
}

TEST_CASE("Of many cases a report has pictures of the envelope and the governing case, and with --all of each") {
  std::string model = trestle + "combinations:\n";
  for (int i = 0; i < 12; ++i)
    model += "  k" + std::to_string(i) + ": {product: " + std::to_string(1 + 0.1 * i) + ", push: 1}\n";
  const Folder folder;
  folder.write("m.yaml", model);
  REQUIRE(folder.run("report m.yaml --parts results -o r.md").status == 0);
  CHECK_THAT(folder.content("r.md"), Contains("Envelope of 12 combinations") && Contains("\n### k11\n") &&
                                         Contains("\n### k3\n") && Contains("r-moment-k11.svg") &&
                                         !Contains("r-moment-k3.svg"));
  REQUIRE(folder.run("report m.yaml --parts results --case k3,k5 -o c.md").status == 0);
  CHECK_THAT(folder.content("c.md"), !Contains("Envelope of") && !Contains("### k11") && Contains("c-moment-k3.svg") &&
                                         Contains("c-moment-k5.svg"));
  CHECK_THAT(folder.run("report m.yaml --case k33 -o c.md").err,
             Contains("there is no load case or combination 'k33'"));
  REQUIRE(folder.run("report m.yaml --parts results --all -o a.md").status == 0);
  for (int i = 0; i < 12; ++i) CHECK_THAT(folder.content("a.md"), Contains("a-moment-k" + std::to_string(i) + ".svg"));
}

TEST_CASE("A verdict decides the exit status of a report") {
  const Folder folder;
  folder.write("m.yaml", trestle + "limits: [{safety: 100}]\n");
  const Outcome o = folder.run("report m.yaml -o r.html");
  CHECK(o.status == 1);
  CHECK_THAT(o.err, Contains("limit exceeded"));
  CHECK(folder.has("r.html"));
}

TEST_CASE("A report that cannot be written says why, and nothing is written") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  folder.write("loose.yaml", std::regex_replace(trestle, std::regex("supports: .*"), "supports: {A: pinned}"));
  folder.write("head.yaml", trestle + "document: {projekt: x}\n");
  folder.write("list.yaml", trestle + "document: [x]\n");
  const std::pair<const char*, const char*> calls[] = {{"report m.yaml", "-o FILE"},
                                                       {"report m.yaml -o r.docx", "ends with .html, .pdf or .md"},
                                                       {"report m.yaml -o m.yaml", "ends with .html"},
                                                       {"report m.yaml --parts hnd -o r.html", "hand"},
                                                       {"report m.yaml --variant no -o r.html", "no"},
                                                       {"report m.yaml --digits 40 -o r.html", "digits"},
                                                       {"report loose.yaml -o r.html", "move"},
                                                       {"report head.yaml -o r.html", "did you mean 'project'"},
                                                       {"report list.yaml -o r.html", "document"},
                                                       {"report none.yaml -o r.html", "none.yaml"},
                                                       {"report m.yaml -o no/r.html", "no/r.html"}};
  for (const auto& [call, said] : calls) {
    const Outcome o = folder.run(call);
    INFO(call << ": " << o.err);
    CHECK(o.status == 2);
    CHECK_THAT(o.err, Contains(said));
    CHECK(!folder.has("r.html"));
    CHECK(!folder.has("r.docx"));
  }
  CHECK(folder.content("m.yaml") == judged_trestle);
}

TEST_CASE("A report of a variant says so, and has its figures") {
  const Folder folder;
  folder.write("m.yaml", judged_trestle);
  REQUIRE(folder.run("report m.yaml --variant heavy --set span='2.2 m' -o r.html").status == 0);
  const std::string html = folder.content("r.html");
  CHECK_THAT(html, Contains("variant heavy, span=2.2 m") && Contains("1100") && !Contains(">Variants<"));
}

}  // namespace tests_of_program_report
