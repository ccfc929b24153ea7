// What a section keeps of what was worked out.
#pragma once

#include <mutex>

#include "corvex/section.hpp"
#include "section/stress_map.hpp"

namespace corvex::section {

struct Solved {
  SectionProperties properties;
  StressMap stress_map;
  StressField field;  // empty where the stress map is of another kind
  Fibres fibres;
};

struct Worked {
  [[gnu::visibility("hidden")]] Worked(const Shape& shape, double fineness,
                                       std::optional<SecondMoment> given_J = std::nullopt);

  const Shape shape;
  const double fineness;
  const std::optional<SecondMoment> given_J;
  AreaProperties area;

  [[gnu::visibility("hidden")]] const Solved& solved() const;
  [[gnu::visibility("hidden")]] const SectionDetails& details() const;

 private:
  mutable std::once_flag once_solved_, once_details_;
  mutable Solved solved_;
  mutable SectionDetails details_;
};

// What is kept of a section.
const Solved& solved(const Section& section);

}  // namespace corvex::section
