#include "inspect/findings.hpp"

#include <algorithm>
#include <cmath>

#include "corvex/number.hpp"

namespace corvex {

// Long: it is a table.
const std::vector<FindingKind>& finding_kinds() {
  constexpr auto error = Problem::Severity::error, warning = Problem::Severity::warning, note = Problem::Severity::note;
  static const std::vector<FindingKind> kinds = {
      {"unjoined-point", error, false, "a point lies on a member that does not include it"},
      {"near-points", error, false, "two points are very close to each other"},
      {"coincident-points", error, false, "two points coincide"},
      {"duplicate-member", error, false, "two members join the same two points"},
      {"overlapping-members", error, false, "two members overlap"},
      {"free-to-move", error, false, "the structure or a part of it can move"},
      {"unheld-load", error, false, "a load that no member carries"},
      {"buckles", error, false, "loads above the critical load, at second order"},
      {"ill-conditioned", error, false, "few reliable digits"},
      {"no-density", error, false, "gravity acts on a member without density"},
      {"no-strength", error, false, "a safety limit without a known strength"},
      {"unused-point", warning, false, "no member goes through a point"},
      {"idle-support", warning, false, "a support on a point through which no member goes"},
      {"unheld-foot", warning, false, "a foot at the level of the supports without a support"},
      {"loose-end", warning, false, "a member that is joined at one end only and has no load"},
      {"empty-case", warning, false, "a load case without loads"},
      {"zero-load", warning, false, "a load of zero size"},
      {"double-load", warning, false, "the same load twice in one case"},
      {"load-on-support", warning, false, "a load at a supported point"},
      {"uncombined-case", warning, false, "a load case in no combination, although the model has combinations"},
      {"gravity-direction", warning, false, "gravity that does not act downwards"},
      {"gravity-size", warning, false, "gravity other than 9.81 m/s²"},
      {"gravity-twice", warning, false, "gravity twice in one case or combination"},
      {"unit-suspect", warning, false, "a value far from its neighbours, or unusual for a material"},
      {"section-suspect", warning, false, "a section of unusual proportions"},
      {"limit-suspect", warning, false, "a limit of unusual size"},
      {"factor-suspect", warning, false, "a factor of a combination that omits or reverses a load"},
      {"load-suspect", warning, false, "a load upwards, or small compared with the weight or the other loads"},
      {"strength-suspect", warning, false, "an allowable stress above the yield strength"},
      {"imperfection-suspect", warning, false, "an imperfection of unusual size"},
      {"no-imperfection", warning, false, "second order without an imperfection"},
      {"weightless-mass", warning, false, "masses without a load case with gravity"},
      {"uneven-supports", warning, false, "a support slightly above or below the others"},
      {"unmatched-acceptance", warning, false, "an acceptance that matches no finding"},
      {"crossing", note, false, "two members cross without a joint"},
      {"weak-axis-up", note, false, "a horizontal member that bends about the weak axis of its section"},
      {"no-combination", note, false, "several load cases without combinations"},
      {"unused-section", note, false, "a section that no member uses"},
      {"unused-material", note, false, "a material that no member uses"},
      {"unused-parameter", note, false, "a parameter that no formula uses"},
      {"over-strength", warning, true, "stress above the strength, without a limit that reports it"},
      {"over-buckling", warning, true, "compression above the Euler force"},
      {"low-critical-load", warning, false, "a critical load factor below 10"},
      {"lateral-buckling", warning, true, "a member near its torsional or lateral torsional buckling load"},
      {"ambiguous-slack", warning, false, "one-way members without force: which of them act is arbitrary"},
      {"favourable-imperfection", warning, false, "an imperfection that acts against the loads"},
      {"slender", warning, true, "a member in compression with a slenderness over 250"},
      {"limit-exceeded", warning, true, "a limit that is not met"},
      {"large-displacement", warning, true, "a displacement over 1/50 of the structure's size"},
      {"large-rotation", warning, true, "a rotation over 0.1 rad"},
      {"uplift", warning, true, "a compression-only support is in tension"},
      {"slack", warning, true, "a one-way member that is slack in all cases"},
      {"digits", note, false, "results with few reliable digits"},
      {"hand-factor", note, true, "a hand value that differs by a usual slip"},
      {"hand-shear", note, true, "a hand value that differs by shear deformation"},
      {"unsymmetric-answer", note, true, "unsymmetric results of a symmetric structure under symmetric loads"},
      {"link-load", note, false, "a transverse load on a link, which goes to its ends"},
      {"unloaded-arm", note, false, "line loads or weight on a member with rigid arms, which carry none of them"},
      {"shear-centre", note, false, "a section whose shear centre is not its centroid"},
      {"held-in-plane", warning, false, "a section that would bend out of the plane"},
      {"welded-aluminium", note, false, "a material with lower strength in heat-affected zones"},
      {"warping", warning, false, "torsion whose warping stress is not computed"},
      {"thin-wall", warning, false, "an open wall so thin that its torsion constant is uncertain"},
      {"sharp-corner", note, false, "torsion in a section with sharp re-entrant corners"},
      {"unlisted-size", note, false, "a section of a size that its standard does not list"},
  };
  return kinds;
}

bool asks_for_attention(const Problems& findings) {
  return std::any_of(findings.begin(), findings.end(),
                     [](const Problem& p) { return p.severity != Problem::Severity::note && !p.is_accepted(); });
}

Problems warnings_of(const Problems& findings) {
  Problems some;
  for (const Problem& p : findings)
    if (p.severity != Problem::Severity::note && !p.is_accepted() && p.finding != "limit-exceeded") some.push_back(p);
  return some;
}

std::vector<std::string> objects_of(const Problem& finding) {
  std::vector<std::string> names;
  const auto enter = [&](const Subject& s) {
    if (!s.name.empty() && std::find(names.begin(), names.end(), s.name) == names.end()) names.push_back(s.name);
  };
  enter(finding.subject);
  for (const Subject& s : finding.others) enter(s);
  return names;
}

namespace {

bool matches(const Acceptance& a, const Problem& finding) {
  if (a.finding != finding.finding) return false;
  const std::vector<std::string> objects = objects_of(finding);
  return std::all_of(a.on.begin(), a.on.end(), [&](const std::string& name) {
    return std::find(objects.begin(), objects.end(), name) != objects.end();
  });
}

}  // namespace

void accept(Problems& findings, const std::vector<Acceptance>& acceptances, bool results) {
  Problems unmatched;
  for (std::size_t i = 0; i < acceptances.size(); ++i) {
    const Acceptance& a = acceptances[i];
    bool found = false;
    for (Problem& p : findings)
      if (matches(a, p)) p.because = a.because, found = true;
    const auto& kinds = finding_kinds();
    const auto kind =
        std::find_if(kinds.begin(), kinds.end(), [&](const FindingKind& k) { return k.name == a.finding; });
    if (found || (!results && kind != kinds.end() && kind->of_results)) continue;
    const std::string about = a.on.empty() ? "" : " about " + list(a.on);
    Problem p{fmt::format("there is no finding {}{} to accept", a.finding, about),
              {Subject::Kind::acceptance, "", i},
              {},
              {},
              Problem::Severity::warning};
    p.finding = "unmatched-acceptance";
    p.remedy = "remove it, or correct the names in it";
    unmatched.push_back(std::move(p));
  }
  findings.insert(findings.end(), unmatched.begin(), unmatched.end());
}

namespace inspection {

Problem::Severity severity_of(std::string_view finding) {
  for (const FindingKind& k : finding_kinds())
    if (finding == k.name) return k.severity;
  return Problem::Severity::warning;
}

Problem& Findings::add(const char* finding, Subject subject, std::string text, std::string remedy) {
  Problem p{std::move(text), std::move(subject), {}, {}, severity_of(finding)};
  p.finding = finding;
  p.remedy = std::move(remedy);
  all_.push_back(std::move(p));
  return all_.back();
}

std::string in_mm(double metres) {
  return fmt::format("{} mm", short_number(metres * 1e3, 4));
}

std::string in_kN(double newtons) {
  return fmt::format("{} kN", short_number(newtons / 1e3, 4));
}

}  // namespace inspection
}  // namespace corvex
