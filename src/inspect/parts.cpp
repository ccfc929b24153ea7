// The list of parts.
#include <map>

#include "corvex/finding.hpp"
#include "structure/checks.hpp"

namespace corvex {

std::vector<PartsOfOneKind> bill_of_materials(const Structure& s) {
  if (!errors_of(s).empty()) return {};
  std::map<std::pair<std::size_t, std::string>, PartsOfOneKind> parts;
  for (const Member& m : s.members()) {
    const Material& material = s.material_of(m);
    const auto [it, fresh] = parts.try_emplace({m.section.index, material.name});
    PartsOfOneKind& p = it->second;
    if (fresh) {
      p = {s.sections()[m.section.index].name, material.name, 0, {}, {}};
      if (material.density) p.mass = Mass();
    }
    const Length length = Length::si(s.length_of(m));
    ++p.pieces;
    p.length = p.length + length;
    if (p.mass && material.density) p.mass = *p.mass + length * s.section_of(m).area() * *material.density;
  }
  std::vector<PartsOfOneKind> all;
  for (auto& [key, p] : parts) all.push_back(std::move(p));
  return all;
}

}  // namespace corvex
