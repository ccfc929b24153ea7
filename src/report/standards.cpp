// Standards that the materials and profiles of a structure refer to.
#include <fmt/format.h>

#include <map>
#include <set>
#include <string>

#include "corvex/catalogue.hpp"
#include "report/book.hpp"

namespace corvex::reporting {
namespace {

struct Standard {
  const char *name, *edition, *what;
};
// Editions are for information: the catalogue names standards without a year.
constexpr Standard standards[] = {
    {"EN 10025-2", "2004", "hot rolled products of structural steels, non-alloy"},
    {"EN 10025-3", "2004", "hot rolled products of structural steels, normalized fine grain"},
    {"EN 10088-4", "2009", "stainless steels, sheet, plate and strip"},
    {"EN 1999-1-1", "2007", "design of aluminium structures"},
    {"EN 1561", "2011", "grey cast irons"},
    {"EN 1563", "2011", "spheroidal graphite cast irons"},
    {"EN 338", "2016", "structural timber, strength classes"},
    {"EN 10210-2", "2006", "hot finished structural hollow sections, dimensions"},
    {"EN 10219-2", "2006", "cold formed structural hollow sections, dimensions"},
    {"EN 10365", "2017", "hot rolled steel channels, I and H sections, dimensions"},
    {"EN 10056-1", "2017", "structural steel angles, dimensions"},
    {"EN 10058", "2003", "hot rolled flat steel bars, dimensions"},
    {"EN 10059", "2003", "hot rolled square steel bars, dimensions"},
    {"EN 10060", "2003", "hot rolled round steel bars, dimensions"},
    {"EN 10255", "2004", "steel tubes suitable for welding and threading"},
    {"ASTM A36", "", "carbon structural steel"},
    {"ASTM A500", "", "cold formed structural tubing"},
    {"ASTM A992", "", "structural steel shapes"}};

}  // namespace

Table standards_table(const Structure& s) {
  std::map<std::string, std::set<std::string>> used;  // text that names standards, and what refers to it
  const auto refer = [&](const std::string& text, const std::string& by) { used[text].insert(by); };
  for (const Member& m : s.members()) {
    const Material& material = s.material_of(m);
    refer(material.source, "material " + material.name);
    const NamedSection& section = s.sections()[m.section.index];
    if (const auto p =
            section.designation.empty() ? Expected<Profile, std::string>(std::string()) : profile(section.designation))
      refer(p->standard, "section " + section.name);
  }
  Table t{.name = "standards", .title = "Standards"};
  t.columns = {document::words_column("standard", true), document::words_column("edition"),
               document::words_column("subject"), document::words_column("used for")};
  for (const Standard& standard : standards) {
    std::set<std::string> by;
    for (const auto& [text, what] : used)
      if (text.find(standard.name) != std::string::npos) by.insert(what.begin(), what.end());
    if (!by.empty()) t.row({standard.name, standard.edition, standard.what, fmt::format("{}", fmt::join(by, "; "))});
  }
  if (!t.rows.empty()) t.after = "Editions are for information. Check that they are the ones agreed for the project.";
  return t;
}

}  // namespace corvex::reporting
