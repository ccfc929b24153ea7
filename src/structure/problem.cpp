#include "corvex/problem.hpp"

#include <fmt/format.h>

namespace corvex {
namespace {

std::string subject_text(const Subject& s) {
  using Kind = Subject::Kind;
  switch (s.kind) {
    case Kind::structure: return "structure";
    case Kind::point: return "point " + s.name;
    case Kind::member: return "member " + s.name;
    case Kind::section: return "section " + s.name;
    case Kind::material: return "material " + s.name;
    case Kind::support: return "support " + s.name;
    case Kind::mass: return "mass at " + s.name;
    case Kind::load_case: return "load case " + s.name;
    case Kind::combination: return "combination " + s.name;
    case Kind::load: return fmt::format("load {} of case {}", s.entry + 1, s.name);
    case Kind::limit: return fmt::format("limit {}", s.entry + 1);
    case Kind::hand_value: return "hand value " + s.name;
    case Kind::expectation: return fmt::format("expectation {}", s.entry + 1);
    case Kind::parameter: return "parameter " + s.name;
    case Kind::acceptance: return fmt::format("acceptance {}", s.entry + 1);
    case Kind::bracing: return fmt::format("bracing {}", s.entry + 1);
  }
  return {};
}

}  // namespace

Problem as_finding(const char* identifier, Problem problem) {
  problem.finding = identifier;
  return problem;
}

Problem problem_at(Place place, std::string text) {
  Problem p;
  p.text = std::move(text);
  p.place = std::move(place);
  return p;
}

std::string describe(const Problem& p) {
  static constexpr const char* severities[] = {"error", "warning", "note"};
  const char* severity = severities[static_cast<int>(p.severity)];
  const std::string where = p.place.line > 0 ? fmt::format("{}:{}:{}", p.place.file, p.place.line, p.place.column)
                            : !p.place.file.empty() ? p.place.file
                                                    : subject_text(p.subject);
  const std::string finding = p.finding.empty() ? "" : fmt::format(" [{}]", p.finding);
  return fmt::format("{}: {}: {}{}", where, severity, p.text, finding);
}

}  // namespace corvex
