#include "file/synonyms.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "corvex/formula.hpp"
#include "quantity/ascii.hpp"

namespace corvex::file {
namespace {

struct Synonym {
  std::string_view word;
  std::vector<std::string> meant;  // the words that are valid there
};

// Small letters; sorted by what they are about.
// Long: it is a table.
const std::vector<Synonym>& synonyms() {
  static const std::vector<Synonym> all = {// parts of a model
                                           {"node", {"points", "at"}},
                                           {"nodes", {"points"}},
                                           {"joint", {"points", "at"}},
                                           {"joints", {"points"}},
                                           {"vertices", {"points"}},
                                           {"coordinates", {"points"}},
                                           {"element", {"members", "on"}},
                                           {"elements", {"members"}},
                                           {"bars", {"members"}},
                                           {"beams", {"members"}},
                                           {"lines", {"members"}},
                                           {"restraint", {"supports", "hold"}},
                                           {"restraints", {"supports"}},
                                           {"constraints", {"supports"}},
                                           {"boundary", {"supports"}},
                                           {"bearings", {"supports"}},
                                           {"profile", {"sections", "section"}},
                                           {"profiles", {"sections"}},
                                           {"properties", {"sections"}},
                                           {"cross-section", {"section", "sections"}},
                                           {"cross_section", {"section", "sections"}},
                                           {"actions", {"loads"}},
                                           {"forces", {"loads", "force"}},
                                           {"load cases", {"loads"}},
                                           {"combos", {"combinations"}},
                                           {"variables", {"parameters"}},
                                           {"constants", {"parameters"}},
                                           {"name", {"title"}},
                                           {"checks", {"limits"}},
                                           // members
                                           {"nodes_between", {"through"}},
                                           {"from", {"through"}},
                                           {"connects", {"through"}},
                                           {"grade", {"material"}},
                                           {"type", {"kind", "shape"}},
                                           {"orientation", {"roll"}},
                                           {"rotation", {"roll"}},
                                           {"beta", {"roll"}},
                                           {"releases", {"release"}},
                                           {"eccentricity", {"offset"}},
                                           {"truss", {"link"}},
                                           {"bar", {"link"}},
                                           {"rod", {"link", "round bar"}},
                                           {"tie", {"link"}},
                                           {"frame", {"beam"}},
                                           {"girder", {"beam"}},
                                           // loads
                                           {"udl", {"line"}},
                                           {"distributed", {"line"}},
                                           {"uniform", {"line"}},
                                           {"q", {"line"}},
                                           {"w", {"line"}},
                                           {"temperature", {"heat"}},
                                           {"thermal", {"heat"}},
                                           {"dt", {"heat"}},
                                           {"pretension", {"shorten"}},
                                           {"prestress", {"shorten"}},
                                           {"settlement", {"settle"}},
                                           {"displacement", {"settle"}},
                                           {"weight", {"gravity"}},
                                           {"self-weight", {"gravity"}},
                                           {"selfweight", {"gravity"}},
                                           {"point", {"force", "at"}},
                                           {"nodal", {"force"}},
                                           {"concentrated", {"force"}},
                                           {"torque", {"moment"}},
                                           {"total", {"spread"}},
                                           {"member", {"on"}},
                                           {"projected", {"per"}},
                                           // shapes and their dimensions
                                           {"pipe", {"round tube"}},
                                           {"tube", {"round tube", "square tube", "rectangular tube"}},
                                           {"chs", {"round tube"}},
                                           {"shs", {"square tube"}},
                                           {"rhs", {"rectangular tube"}},
                                           {"box", {"rectangular tube", "square tube"}},
                                           {"round", {"round bar", "round tube"}},
                                           {"circle", {"round bar"}},
                                           {"solid", {"round bar", "rectangular bar"}},
                                           {"flat", {"rectangular bar"}},
                                           {"plate", {"rectangular bar"}},
                                           {"rectangle", {"rectangular bar"}},
                                           {"i", {"i profile"}},
                                           {"i-beam", {"i profile"}},
                                           {"h", {"i profile", "height"}},
                                           {"u", {"channel"}},
                                           {"c", {"channel"}},
                                           {"l", {"angle"}},
                                           {"t", {"tee", "wall"}},
                                           {"polygon", {"outline"}},
                                           {"thickness", {"wall", "web", "flange"}},
                                           {"b", {"width"}},
                                           {"d", {"diameter"}},
                                           {"dia", {"diameter"}},
                                           {"outer", {"diameter", "width"}},
                                           {"tw", {"web"}},
                                           {"tf", {"flange"}},
                                           {"radius", {"corner", "root", "diameter"}},
                                           {"r", {"corner", "root", "diameter"}},
                                           {"fillet", {"root", "corner"}},
                                           {"depth", {"height"}},
                                           // materials
                                           {"nu", {"poisson"}},
                                           {"rho", {"density"}},
                                           {"fy", {"yield"}},
                                           {"re", {"yield"}},
                                           {"rp02", {"yield"}},
                                           {"alpha", {"expansion"}},
                                           {"young", {"E"}},
                                           {"modulus", {"E"}},
                                           {"based on", {"like"}},
                                           {"steel", {"S235", "S275", "S355"}},
                                           {"st37", {"S235"}},
                                           {"st44", {"S275"}},
                                           {"st52", {"S355"}},
                                           {"a500", {"A500 B", "A500 C"}},
                                           {"stainless", {"1.4301", "1.4404"}},
                                           {"304", {"1.4301"}},
                                           {"316", {"1.4404"}},
                                           {"aluminium", {"6082-T6", "6060-T66"}},
                                           {"aluminum", {"6061-T6", "6082-T6"}},
                                           {"timber", {"C24"}},
                                           {"wood", {"C24"}},
                                           {"cast iron", {"EN-GJL-250", "EN-GJS-400-15"}},
                                           // supports
                                           {"clamped", {"fixed"}},
                                           {"built-in", {"fixed"}},
                                           {"encastre", {"fixed"}},
                                           {"rigid", {"fixed"}},
                                           {"hinge", {"pinned"}},
                                           {"hinged", {"pinned"}},
                                           {"simple", {"pinned", "roller"}},
                                           {"slider", {"roller"}},
                                           {"sliding", {"roller"}},
                                           {"stiffness", {"spring"}},
                                           {"springs", {"spring"}},
                                           {"held", {"hold"}},
                                           {"fix", {"hold", "fixed"}},
                                           // limits and expectations
                                           {"deflection", {"sag"}},
                                           {"utilisation", {"safety"}},
                                           {"utilization", {"safety"}},
                                           {"value", {"is"}},
                                           {"expected", {"is"}},
                                           {"tolerance", {"within"}},
                                           {"component", {"part"}},
                                           {"direction", {"part"}},
                                           {"position", {"at"}},
                                           {"place", {"at"}},
                                           {"comment", {"note", "notes"}},
                                           {"combination", {"case"}}};
  return all;
}

}  // namespace

std::vector<std::string> meant_by(std::string_view word, const std::vector<std::string>& known) {
  std::string small(word);
  for (char& c : small) c = ascii::lower(c);
  std::vector<std::string> meant;
  for (const Synonym& s : synonyms())
    if (s.word == small)
      for (const std::string& m : s.meant)
        if (std::find(known.begin(), known.end(), m) != known.end()) meant.push_back(m);
  return meant;
}

std::string meaning(std::string_view word, const std::vector<std::string>& known) {
  const std::vector<std::string> meant = meant_by(word, known);
  if (meant.empty()) return did_you_mean(word, known);
  return fmt::format("; did you mean '{}'?", fmt::join(meant, "' or '"));
}

}  // namespace corvex::file
