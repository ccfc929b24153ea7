// Colours of words on paper.
#pragma once

#include "corvex/page.hpp"
#include "picture/drawing.hpp"

namespace corvex::reporting {

inline constexpr picture::Colour ink{28, 38, 48}, quiet{81, 96, 109}, rule{119, 131, 142}, pale_rule{188, 196, 204},
    faint{228, 232, 236}, link_blue{23, 82, 127};

inline picture::Colour colour_of(document::Tone tone) {
  switch (tone) {
    case document::Tone::good: return {29, 107, 52};
    case document::Tone::warning: return {138, 90, 0};
    case document::Tone::bad: return {168, 32, 26};
    default: return ink;
  }
}

}  // namespace corvex::reporting
