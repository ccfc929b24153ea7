// A structure taken apart, so that a test can change anything in it, and put together again.
#pragma once

#include <corvex/corvex.hpp>
#include <string>
#include <vector>

namespace corvex::test {

struct DraftMember {
  std::string name;
  std::vector<std::size_t> through;
  MemberOptions options;  // the section by its number
};
struct DraftSupport {
  std::size_t at = 0;
  Support support;
};

struct Draft {
  std::string title;
  bool plane = true;
  Up up = Up::z;
  AnalysisOptions analysis{};
  std::vector<Point> points{};
  std::vector<NamedSection> sections{};
  std::vector<DraftMember> members{};
  std::vector<DraftSupport> supports{};
  std::vector<PointMass> masses{};
  std::vector<std::pair<std::string, std::vector<Load>>> cases{};
  std::vector<std::pair<std::string, std::vector<std::pair<std::string, double>>>> combinations{};
  Limits limits{};

  static Draft of(const Structure& structure, const Limits& limits = {});
  Structure build() const;

  // The diagonal of the box around all points.
  double size() const;
  // How many members name a point.
  std::size_t members_at(std::size_t point) const;
};

}  // namespace corvex::test
