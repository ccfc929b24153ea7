# Debian's Scotch ships neither a pkg-config nor a CMake file.
find_path(Scotch_INCLUDE_DIR scotch.h PATH_SUFFIXES scotch)
find_library(Scotch_LIBRARY scotch)
find_library(Scotch_ERROR_LIBRARY scotcherr)
include(FindPackageHandleStandardArgs)
find_package_handle_standard_args(Scotch REQUIRED_VARS Scotch_LIBRARY Scotch_ERROR_LIBRARY Scotch_INCLUDE_DIR)
if(Scotch_FOUND AND NOT TARGET Scotch::scotch)
  add_library(Scotch::scotch UNKNOWN IMPORTED)
  set_target_properties(Scotch::scotch PROPERTIES
    IMPORTED_LOCATION "${Scotch_LIBRARY}"
    INTERFACE_LINK_LIBRARIES "${Scotch_ERROR_LIBRARY}"
    INTERFACE_INCLUDE_DIRECTORIES "${Scotch_INCLUDE_DIR}")
endif()
