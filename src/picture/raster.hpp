#pragma once

#include <cairo.h>

#include "picture/drawing.hpp"

namespace corvex::picture {

// Onto any surface of Cairo, whose units are the drawing's pixels.
void draw_upon(cairo_t* cairo, const Drawing& drawing);

}  // namespace corvex::picture
