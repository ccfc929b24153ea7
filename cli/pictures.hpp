// The library of pictures, loaded when something is drawn: with all that it stands on it would double the time that
// every other verb takes to start.
#pragma once

#include "corvex/picture.hpp"

namespace corvex::cli {

// As corvex::draw does.
Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format);

}  // namespace corvex::cli
