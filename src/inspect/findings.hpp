// Collects findings about a structure; each check of this room is one small class or function.
#pragma once

#include <fmt/format.h>

#include "corvex/finding.hpp"
#include "structure/words.hpp"

namespace corvex::inspection {

// The severity that a kind of finding usually has.
Problem::Severity severity_of(std::string_view finding);

class Findings {
 public:
  using Kind = Subject::Kind;

  explicit Findings(const Structure& s) : s_(s) {}

  // `text` says what was found, `remedy` what to do; each is one sentence without a full stop.
  Problem& add(const char* finding, Subject subject, std::string text, std::string remedy);
  Problems take() { return std::move(all_); }

  const Structure& structure() const { return s_; }
  Subject point(PointId p) const { return {Kind::point, s_[p].name}; }
  Subject member(std::size_t i) const { return {Kind::member, s_.members()[i].name}; }
  // The name of a point in running text.
  std::string name(PointId p) const { return quoted(s_[p].name); }

 private:
  const Structure& s_;
  Problems all_;
};

// A length as messages have it: "2400 mm".
std::string in_mm(double metres);
// A force: "3.2 kN".
std::string in_kN(double newtons);

void check_joints(Findings& f);
void check_ends(Findings& f);
void check_loads(Findings& f);
void check_gravity(Findings& f);
void check_cases(Findings& f);
void check_coordinates(Findings& f);
void check_materials(Findings& f);
void check_load_sizes(Findings& f);
void check_slips(Findings& f);
void check_sections(Findings& f);

}  // namespace corvex::inspection
