# CHISPA_SANITIZE=address,undefined or thread: every target is built with it.
set(CHISPA_SANITIZE "" CACHE STRING "sanitisers, comma separated")
if(CHISPA_SANITIZE)
  add_compile_options(-fsanitize=${CHISPA_SANITIZE} -fno-omit-frame-pointer -fno-sanitize-recover=all)
  add_link_options(-fsanitize=${CHISPA_SANITIZE})
endif()
