# METIS ships neither a pkg-config nor a CMake file.
find_path(Metis_INCLUDE_DIR metis.h)
find_library(Metis_LIBRARY metis)
include(FindPackageHandleStandardArgs)
find_package_handle_standard_args(Metis REQUIRED_VARS Metis_LIBRARY Metis_INCLUDE_DIR)
if(Metis_FOUND AND NOT TARGET Metis::metis)
  add_library(Metis::metis UNKNOWN IMPORTED)
  set_target_properties(Metis::metis PROPERTIES
    IMPORTED_LOCATION "${Metis_LIBRARY}"
    INTERFACE_INCLUDE_DIRECTORIES "${Metis_INCLUDE_DIR}")
endif()
