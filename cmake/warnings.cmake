# What our own code must compile under, without a word.
add_library(chispa_warnings INTERFACE)
target_compile_options(chispa_warnings INTERFACE
  -Wall -Wextra -Wshadow -Wconversion -Wnon-virtual-dtor -Wold-style-cast -Werror)
add_library(chispa::warnings ALIAS chispa_warnings)
