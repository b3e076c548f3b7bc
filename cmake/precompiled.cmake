# Foreign headers that most files of a target include, compiled once a target: a clean build takes half the time.
# Not in dev and fuzz, so that a file that forgets an include of its own is noticed there.
option(CHISPA_PCH "precompile the standard library's, Qt's and other foreign headers" OFF)

# chispa_precompile(TARGET [HEADER …]): the standard library, and what else is named.
function(chispa_precompile target)
  if(NOT CHISPA_PCH)
    return()
  endif()
  target_precompile_headers(${target} PRIVATE <algorithm> <array> <atomic> <chrono> <cmath> <cstdint> <cstring> <filesystem> <fstream>
    <functional> <map> <memory> <mutex> <numeric> <optional> <set> <span> <sstream> <string> <thread> <unordered_map> <unordered_set> <variant>
    <vector> ${ARGN})
  # -fpch-preprocess: without it ccache cannot tell what a precompiled header was made of. The warnings are GCC 12's false ones about
  # the standard library's own strings, which it forgets to be a system header's then; the other presets still give them.
  target_compile_options(${target} PRIVATE $<$<CXX_COMPILER_ID:GNU>:-fpch-preprocess -Wno-array-bounds -Wno-restrict -Wno-stringop-overflow -Wno-stringop-overread>)
endfunction()
