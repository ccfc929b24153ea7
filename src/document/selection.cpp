#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "corvex/document.hpp"
#include "corvex/formula.hpp"

namespace corvex::document {
namespace {

// "posts.3" is of the family "posts".
bool is_of(const std::string& name, const std::string& wanted) {
  if (name == wanted) return true;
  return name.size() > wanted.size() + 1 && name.compare(0, wanted.size(), wanted) == 0 && name[wanted.size()] == '.' &&
         name.find_first_not_of("0123456789", wanted.size() + 1) == std::string::npos;
}

std::string no_such(const char* what, const std::string& name, const std::vector<std::string>& known) {
  std::string text = did_you_mean(name, known);
  if (text.empty() && known.size() <= 8) text = fmt::format("; there are: {}", fmt::join(known, ", "));
  return fmt::format("there is no {} '{}'{}", what, name, text);
}

// Which of these names are wanted; the reason where one of the wanted is none of them.
std::string mark(const char* what, const std::vector<std::string>& names, const std::vector<std::string>& wanted,
                 std::vector<bool>& marked) {
  marked.assign(names.size(), wanted.empty());
  for (const std::string& w : wanted) {
    bool any = false;
    for (std::size_t i = 0; i < names.size(); ++i)
      if (is_of(names[i], w)) marked[i] = any = true;
    if (!any) return no_such(what, w, names);
  }
  return {};
}

}  // namespace

Expected<Selection, std::string> select(const Solution& solution, const Choice& choice) {
  const Structure& s = solution.structure();
  Selection shown;
  std::vector<std::string> cases, members, points;
  for (std::size_t i = 0; i < solution.size(); ++i) cases.push_back(solution[i].name());
  for (const Member& m : s.members()) members.push_back(m.name);
  for (const Point& p : s.points()) points.push_back(p.name);
  shown.only_envelope = choice.cases == std::vector<std::string>{"envelope"} &&
                        std::find(cases.begin(), cases.end(), "envelope") == cases.end();
  shown.model = choice.model, shown.ends = choice.ends, shown.faces = choice.faces;
  for (const std::string& w : choice.cases) {
    if (shown.only_envelope) break;
    const auto it = std::find(cases.begin(), cases.end(), w);
    if (it == cases.end()) return no_such("load case or combination", w, cases);
    shown.cases.push_back(static_cast<std::size_t>(it - cases.begin()));
  }
  shown.all = choice.all;
  shown.requests = choice.requests;
  if (choice.cases.empty() || shown.only_envelope) {
    shown.cases = solution.assessed();
    // Other directions of an imperfection are shown where they are asked for.
    std::erase_if(shown.cases, [&](std::size_t c) { return solution.base_of(c) != c; });
  }
  if (const std::string why = mark("member", members, choice.members, shown.members); !why.empty()) return why;
  if (const std::string why = mark("point", points, choice.points, shown.points); !why.empty()) return why;
  shown.whole = choice.members.empty() && choice.points.empty();
  shown.some_members = !choice.members.empty() || choice.points.empty();
  shown.some_points = !choice.points.empty() || choice.members.empty();
  return shown;
}

}  // namespace corvex::document
