#include "pictures.hpp"

#ifdef CORVEX_PICTURES_LIBRARY
#include <dlfcn.h>
#endif

namespace corvex::cli {

#ifdef CORVEX_PICTURES_LIBRARY

Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  // Found where the program finds its other libraries; never closed.
  static void* const library = dlopen(CORVEX_PICTURES_LIBRARY, RTLD_NOW | RTLD_LOCAL);
  static void* const entry = library ? dlsym(library, picture_entry) : nullptr;
  if (!entry) return Problem{std::string("the library of pictures cannot be loaded: ") + dlerror()};
  Expected<std::string, Problem> bytes = Problem{};
  reinterpret_cast<PictureEntry>(entry)(solution, options, format, bytes);
  return bytes;
}

#else

Expected<std::string, Problem> drawn(const Solution& solution, const PictureOptions& options, ImageFormat format) {
  return draw(solution, options, format);
}

#endif

}  // namespace corvex::cli
