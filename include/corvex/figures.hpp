// Corvex: the figures that vary along a member, one row each: their names, units, and where to get them.
//
//     std::string symbols;
//     for (const corvex::MemberFigure& f : corvex::member_figures())
//       if (f.diagram && f.exists_in(solution.structure(), rail)) symbols += f.symbol + std::string("; ");
//     fmt::print("{}\n", symbols);   // N; Vy; Mz; defl. y; rot. z;
//
// Signs are those of solution.hpp and diagram.hpp. The table is constant and may be read from several threads.
#pragma once

#include <string_view>
#include <vector>

#include "corvex/envelope.hpp"

#pragma GCC visibility push(default)

namespace corvex {

struct MemberFigure {
  enum class Kind { force, moment, movement, rotation };
  // Condition that a member must satisfy for the figure to exist.
  enum class Needs { nothing, space, beam_in_space, bending_about_y, bending_about_z, beam_about_y, beam_about_z };

  const char* name;    // in results and in C++: "moment_z"
  const char* word;    // in the model file: "moment-z"; null where a model file does not ask for it
  const char* symbol;  // in tables: "Mz"
  Kind kind;
  Needs needs;
  Quantity (*at)(const SectionState&);
  Diagram (*diagram)(const MemberResult&) = nullptr;  // along the whole member
  Range MemberEnvelope::*envelope = nullptr;          // of the whole member
  Range SectionEnvelope::*envelope_at = nullptr;      // at one place

  Dimension dimension() const;
  // A plane structure has no torsion; a link has an axial force only.
  bool exists_in(const Structure& structure, const MemberRef& member) const;
};

// Internal forces first, then movements and rotations, each in the order x, y, z.
const std::vector<MemberFigure>& member_figures();
// The figure of this name ("moment_z"); null if there is none.
const MemberFigure* find_member_figure(std::string_view name);

}  // namespace corvex

#pragma GCC visibility pop
