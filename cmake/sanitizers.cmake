# CHISPA_SANITIZE=address,undefined or thread: every target is built with it.
set(CHISPA_SANITIZE "" CACHE STRING "sanitisers, comma separated")
if(CHISPA_SANITIZE)
  add_compile_options(-fsanitize=${CHISPA_SANITIZE} -fno-omit-frame-pointer -fno-sanitize-recover=all)
  # The sanitisers' own code confuses this warning of GCC 12.
  add_compile_options($<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
  add_link_options(-fsanitize=${CHISPA_SANITIZE})
endif()
