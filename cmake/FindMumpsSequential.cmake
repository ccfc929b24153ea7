# The sequential MUMPS ships neither a pkg-config nor a CMake file.
find_path(MumpsSequential_INCLUDE_DIR dmumps_c.h)
find_library(MumpsSequential_LIBRARY dmumps_seq)
include(FindPackageHandleStandardArgs)
find_package_handle_standard_args(MumpsSequential REQUIRED_VARS MumpsSequential_LIBRARY MumpsSequential_INCLUDE_DIR)
if(MumpsSequential_FOUND AND NOT TARGET MumpsSequential::dmumps)
  add_library(MumpsSequential::dmumps UNKNOWN IMPORTED)
  set_target_properties(MumpsSequential::dmumps PROPERTIES
    IMPORTED_LOCATION "${MumpsSequential_LIBRARY}"
    INTERFACE_INCLUDE_DIRECTORIES "${MumpsSequential_INCLUDE_DIR}")
endif()
