# Foreign headers that most files include, compiled once for all targets that are built alike: a clean build takes half the time.
# Not in dev and fuzz, so that a file that forgets an include of its own is noticed there.
option(CHISPA_PCH "precompile the standard library's, Qt's and other foreign headers" OFF)

# -fpch-preprocess: without it ccache cannot tell what a precompiled header was made of. The warnings are GCC 12's false ones about
# the standard library's own strings, which it forgets to be a system header's then; the other presets still give them.
set(chispa_pch_options
  $<$<CXX_COMPILER_ID:GNU>:-fpch-preprocess -Wno-array-bounds -Wno-restrict -Wno-stringop-overflow -Wno-stringop-overread>)
# Some libraries' users must define this, and a precompiled header is for those alone that define the same.
set(chispa_pch_definitions _REENTRANT)

# chispa_headers(NAME [LIBRARIES …] [OPTIONS …] [HEADERS …]): a target that compiles the standard library's headers and HEADERS, which
# chispa_precompile() shares out. LIBRARIES and OPTIONS are those that its users are compiled with.
function(chispa_headers name)
  if(NOT CHISPA_PCH)
    return()
  endif()
  cmake_parse_arguments(with "" "" "LIBRARIES;OPTIONS;HEADERS" ${ARGN})
  file(CONFIGURE OUTPUT ${name}.cpp CONTENT "// The headers are all.\n")
  add_library(chispa_${name} OBJECT ${CMAKE_CURRENT_BINARY_DIR}/${name}.cpp)
  target_link_libraries(chispa_${name} PRIVATE chispa::warnings ${with_LIBRARIES})
  target_compile_options(chispa_${name} PRIVATE ${chispa_pch_options} ${with_OPTIONS})
  target_compile_definitions(chispa_${name} PRIVATE ${chispa_pch_definitions})
  target_precompile_headers(chispa_${name} PRIVATE <algorithm> <array> <atomic> <chrono> <cmath> <cstdint> <cstring> <filesystem>
    <fstream> <functional> <map> <memory> <mutex> <numeric> <optional> <set> <span> <sstream> <string> <thread> <unordered_map>
    <unordered_set> <variant> <vector> ${with_HEADERS})
endfunction()

# chispa_precompile(TARGET NAME): TARGET takes the headers of chispa_headers(NAME).
function(chispa_precompile target name)
  if(CHISPA_PCH)
    target_precompile_headers(${target} REUSE_FROM chispa_${name})
    target_compile_options(${target} PRIVATE ${chispa_pch_options})
    target_compile_definitions(${target} PRIVATE ${chispa_pch_definitions})
  endif()
endfunction()
