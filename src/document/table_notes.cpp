#include "document/table_notes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "corvex/document.hpp"

namespace corvex::document {
namespace {

bool has_beams(const Structure& s) {
  return std::any_of(s.members().begin(), s.members().end(),
                     [](const Member& m) { return m.kind == MemberKind::beam; });
}

std::string reactions_note(const Structure& s) {
  return fmt::format("Forces and moments of the supports on the structure; moments are {}. Reactions and loads cancel.",
                     s.is_plane() ? "counter-clockwise" : "right-handed");
}

std::string displacements_note(const Structure& s) {
  return fmt::format("Rotations are {}.", s.is_plane() ? "counter-clockwise" : "right-handed");
}

std::string internal_forces_note(const Structure& s) {
  const char* const signs =
      !has_beams(s) ? "N + is tension. "
      : s.is_plane()
          ? "N + is tension. Mz + causes tension on the local -y side (below, if y points up). Vy = dMz/dx. "
          : "N + is tension. Mz + causes tension on the local -y side, My + on the local -z side. Vy = dMz/dx, "
            "Vz = dMy/dx. T + is right-handed about x on the face towards the end of the member. ";
  return std::string(signs) + "Places are distances from the first point of the member.";
}

std::string stress_note(const Structure& s) {
  return fmt::format(
      "Safety factor: {} over von Mises stress. Deflection: the largest ratio to the length, of the distance from the "
      "chord between two points, the difference of the ends, or the displacement of a free end.",
      strength_in_words(s));
}

using Note = std::string (*)(const Structure&);
struct Kind {
  const char* title;  // the first words of the title
  Note note;
};
const std::vector<Kind> kinds = {{"Reactions", reactions_note},
                                 {"Displacements", displacements_note},
                                 {"Internal forces", internal_forces_note},
                                 {"Stress, safety factor", stress_note}};

}  // namespace

const char* strength_in_words(const Structure& s) {
  bool yield = false, allowable = false;
  for (const Member& m : s.members()) {
    const Material& material = s.material_of(m);
    (material.allowable ? allowable : yield) = true;
  }
  return allowable && yield ? "allowable stress, or else yield strength,"
         : allowable        ? "allowable stress"
                            : "yield strength";
}

void add_table_notes(Page& page, const Structure& s) {
  std::vector<bool> done(kinds.size());
  for (auto& item : page) {
    Table* const t = std::get_if<Table>(&item);
    if (!t || t->use == For::data || t->rows.empty()) continue;
    for (std::size_t k = 0; k < kinds.size(); ++k) {
      if (done[k] || t->title.rfind(kinds[k].title, 0) != 0) continue;
      t->after += (t->after.empty() ? "" : ". ") + kinds[k].note(s);
      done[k] = true;
    }
  }
}

Words sign_rules(const Structure& s) {
  return {{{"Internal forces", internal_forces_note(s)},
           {"Reactions", reactions_note(s)},
           {"Displacements", displacements_note(s)},
           {"Stress", stress_note(s)}}};
}

}  // namespace corvex::document
