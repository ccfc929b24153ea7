#include "judge/steadiness.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "corvex/findings.hpp"
#include "structure/words.hpp"

namespace corvex {
namespace judging {

Problems motions(const Structure& structure) {
  Structure bare = structure;
  while (!bare.combinations().empty()) bare.remove_combination(std::string(bare.combinations().back().name));
  while (!bare.load_cases().empty()) bare.remove_load_case(std::string(bare.load_cases().back().name()));
  bare.load_case("nothing");
  Problems all = solve(bare).problems();
  std::erase_if(all, [](const Problem& p) { return p.finding != "free-to-move" && p.finding != "ill-conditioned"; });
  return all;
}

namespace {

// One thing that could be changed so that the structure holds.
struct Change {
  enum class Of { support, hinge, link } of;
  std::string words;
  std::size_t at = 0;       // the point of a support, else the member
  std::vector<int> dofs{};  // that a support restrains in addition
};

Structure changed(const Structure& s, const Change& c) {
  Structure other = s;
  if (c.of == Change::Of::support) {
    const PointId point{c.at};
    const Support before = s.support_of(point).value_or(Support());
    std::vector<Dof> dofs;
    // A restrained direction needs no spring.
    std::array<double, 6> k = before.springs();
    for (std::size_t i = 0; i < 6; ++i) {
      const bool added = std::find(c.dofs.begin(), c.dofs.end(), static_cast<int>(i)) != c.dofs.end();
      if (added) k[i] = 0;
      if (added || before.held()[i]) dofs.push_back(static_cast<Dof>(i));
    }
    Support support = Support::hold(dofs);
    for (const Vector& v : before.directions()) support = support.along(v);
    other.replace_support(
        point, support.spring({Stiffness::si(k[0]), Stiffness::si(k[1]), Stiffness::si(k[2]),
                               TurningStiffness::si(k[3]), TurningStiffness::si(k[4]), TurningStiffness::si(k[5])}));
    return other;
  }
  const MemberId m{c.at};
  MemberOptions options = s.options_of(m);
  if (c.of == Change::Of::link) {
    options.kind = MemberKind::beam;
  } else {
    options.hinge = Hinge::none;
    options.release = {};
  }
  other.change(m, options);
  return other;
}

std::vector<Change> possible_changes(const Structure& s) {
  static constexpr const char* names[] = {"x", "y", "z", "rx", "ry", "rz"};
  const std::vector<int> dofs = s.is_plane() ? std::vector<int>{0, 1, 5} : std::vector<int>{0, 1, 2, 3, 4, 5};
  std::vector<Change> all;
  std::vector<bool> supported(s.points().size());
  for (const PointSupport& p : s.supports()) {
    supported[p.at.index] = true;
    for (const int k : dofs)
      if (!p.held[static_cast<std::size_t>(k)])
        all.push_back(
            {Change::Of::support, fmt::format("restrain {} of '{}'", names[k], s[p.at].name), p.at.index, {k}});
  }
  for (std::size_t i = 0; i < s.members().size(); ++i) {
    const Member& m = s.members()[i];
    const auto frees = [](const std::array<bool, 6>& end) {
      return std::find(end.begin(), end.end(), true) != end.end();
    };
    if (m.kind == MemberKind::link)
      all.push_back({Change::Of::link, fmt::format("make the link '{}' a beam", m.name), i});
    else if (frees(m.freed_start) || frees(m.freed_end))
      all.push_back(
          {Change::Of::hinge,
           fmt::format("join '{}' rigidly, without its {}", m.name, m.hinge != Hinge::none ? "hinge" : "release"), i});
  }
  // New supports, the lowest points first.
  std::vector<std::size_t> points;
  for (std::size_t p = 0; p < s.points().size(); ++p)
    if (!supported[p]) points.push_back(p);
  const auto height = [&](std::size_t p) { return dot(s.up_direction(), s.points()[p].position); };
  std::stable_sort(points.begin(), points.end(), [&](std::size_t a, std::size_t b) { return height(a) < height(b); });
  for (const std::size_t p : points) {
    const std::string& name = s.points()[p].name;
    for (const int k : dofs)
      if (k < 3) all.push_back({Change::Of::support, fmt::format("restrain {} of '{}'", names[k], name), p, {k}});
    const std::vector<int> pinned = s.is_plane() ? std::vector<int>{0, 1} : std::vector<int>{0, 1, 2};
    all.push_back({Change::Of::support, fmt::format("add a pinned support at '{}'", name), p, pinned});
    all.push_back({Change::Of::support, fmt::format("add a fixed support at '{}'", name), p, dofs});
  }
  return all;
}

// The changes each of which is enough; supports where there are none yet only if nothing else is.
std::vector<Change> single_changes(const Structure& s, const std::vector<Change>& possible) {
  std::vector<Change> enough;
  std::vector<bool> supported(s.points().size());
  for (const PointSupport& p : s.supports()) supported[p.at.index] = true;
  bool only_new = false;
  constexpr std::size_t few = 3;
  for (const Change& c : possible) {
    const bool new_support = c.of == Change::Of::support && !supported[c.at];
    if (new_support && enough.size() >= (only_new ? few : 1)) break;
    if (new_support) only_new = only_new || enough.empty();
    if (motions(changed(s, c)).empty()) enough.push_back(c);
  }
  return enough;
}

// Two changes that are enough together.
std::vector<Change> pair_of_changes(const Structure& s, const std::vector<Change>& possible) {
  for (std::size_t i = 0; i < possible.size(); ++i) {
    const Structure one = changed(s, possible[i]);
    for (std::size_t k = i + 1; k < possible.size(); ++k) {
      const bool same_member =
          possible[i].of != Change::Of::support && possible[k].of == possible[i].of && possible[i].at == possible[k].at;
      if (!same_member && motions(changed(one, possible[k])).empty()) return {possible[i], possible[k]};
    }
  }
  return {};
}

std::string remedy(const Structure& s) {
  constexpr std::size_t small = 300, very_small = 40, most_tried = 30, most_told = 6;
  if (s.members().size() > small) return "support the part that moves, or join it to a supported part";
  if (s.supports().empty()) return "the structure has no support: add supports";
  std::vector<Change> possible = possible_changes(s);
  std::vector<Change> enough = single_changes(s, possible);
  const auto words = [&](const char* between) {
    std::string text;
    for (std::size_t i = 0; i < enough.size() && i < most_told; ++i)
      text += (i == 0 ? "" : i + 1 == std::min(enough.size(), most_told) ? between : ", ") + enough[i].words;
    return text;
  };
  if (enough.size() == 1) return words("") + "; this alone is enough";
  if (!enough.empty()) {
    const std::size_t more = enough.size() > most_told ? enough.size() - most_told : 0;
    return words(" or ") +
           (more > 0 ? fmt::format("; {} other single changes are possible", more) : "; each alone is enough");
  }
  if (s.members().size() <= very_small) {
    if (possible.size() > most_tried) possible.resize(most_tried);
    enough = pair_of_changes(s, possible);
    if (!enough.empty()) return words(" and ") + "; no single change is enough";
  }
  return "no single change is enough: the structure has several mechanisms";
}

}  // namespace
}  // namespace judging

Problems with_remedies(const Structure& structure, Problems problems) {
  const auto moves = [](const Problem& p) { return p.finding == "free-to-move" && p.remedy.empty(); };
  if (std::none_of(problems.begin(), problems.end(), moves)) return problems;
  const bool sound = std::none_of(problems.begin(), problems.end(), [](const Problem& p) {
    return p.severity == Problem::Severity::error && p.finding.empty();
  });
  if (!sound) return problems;
  const std::string remedy = judging::remedy(structure);
  for (Problem& p : problems)
    if (moves(p)) p.remedy = remedy;
  return problems;
}

}  // namespace corvex
