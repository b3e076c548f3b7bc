# CHISPA_SANITIZE=address,undefined or thread: every target is built with it.
set(CHISPA_SANITIZE "" CACHE STRING "sanitisers, comma separated")
if(CHISPA_SANITIZE)
  add_compile_options(-fsanitize=${CHISPA_SANITIZE} -fno-omit-frame-pointer -fno-sanitize-recover=all)
  # The sanitisers' own code confuses this warning of GCC 12.
  add_compile_options($<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
  # A wild or a null pointer, and an object that is too small for its type, are found by the address sanitizer too; asked at every
  # access of a member they double the time GCC takes. The fuzz targets (clang) are built with all of it.
  add_compile_options($<$<CXX_COMPILER_ID:GNU>:-fno-sanitize=null,alignment,vptr,object-size,nonnull-attribute,returns-nonnull-attribute>)
  add_link_options(-fsanitize=${CHISPA_SANITIZE})
endif()
