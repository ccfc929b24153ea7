// The parts of the page, as they are in src/view/page/ and, bundled, in src/view/page/built/.
#pragma once

#include <string_view>

namespace corvex::view {

std::string_view asset_page();     // HTML with marks
std::string_view asset_style();    // CSS
std::string_view asset_program();  // JavaScript, bundled

}  // namespace corvex::view
