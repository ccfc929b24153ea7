# Takes the examples out of the public headers' comments, so that the tests compile the very lines that a reader sees.
# Lines that begin with "//     " are code. One file a header, in OUTPUT.
file(GLOB headers ${INCLUDE}/*.hpp)
foreach(header ${headers})
  get_filename_component(name ${header} NAME_WE)
  file(READ ${header} text)
  # Lists of CMake split at semicolons; keep them from it.
  string(REPLACE ";" "\\;" text "${text}")
  string(REGEX REPLACE "\n" ";" lines "${text}")
  set(code "")
  foreach(line IN LISTS lines)
    if(line MATCHES "^//     (.*)$")
      string(APPEND code "${CMAKE_MATCH_1}\n")
    endif()
  endforeach()
  if(NOT code STREQUAL "")
    file(WRITE ${OUTPUT}/${name}.inc "${code}")
  endif()
endforeach()
