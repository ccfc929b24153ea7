#include "view/assets.hpp"

// The files become part of the library as they are.
#define CORVEX_ASSET(name, file)    \
  __asm__(                          \
      ".section .rodata\n"          \
      ".global corvex_asset_" #name \
      "\n"                          \
      ".global corvex_asset_" #name \
      "_end\n"                      \
      ".hidden corvex_asset_" #name \
      "\n"                          \
      ".hidden corvex_asset_" #name \
      "_end\n"                      \
      "corvex_asset_" #name         \
      ":\n"                         \
      ".incbin \"" file             \
      "\"\n"                        \
      "corvex_asset_" #name         \
      "_end:\n"                     \
      ".byte 0\n"                   \
      ".previous\n");               \
  extern "C" [[gnu::visibility("hidden")]] const char corvex_asset_##name[], corvex_asset_##name##_end[]

CORVEX_ASSET(page, CORVEX_PAGE "/page.html");
CORVEX_ASSET(style, CORVEX_PAGE "/page.css");
CORVEX_ASSET(program, CORVEX_PAGE "/built/page.js");

namespace corvex::view {

std::string_view asset_page() {
  return {corvex_asset_page, static_cast<std::size_t>(corvex_asset_page_end - corvex_asset_page)};
}
std::string_view asset_style() {
  return {corvex_asset_style, static_cast<std::size_t>(corvex_asset_style_end - corvex_asset_style)};
}
std::string_view asset_program() {
  return {corvex_asset_program, static_cast<std::size_t>(corvex_asset_program_end - corvex_asset_program)};
}

}  // namespace corvex::view
