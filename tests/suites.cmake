# One test of ctest a suite of GoogleTest: a process each, so that suites do not disturb each other, and no more than that, since a
# process takes longer to start than most tests take. Included by tests/CMakeLists.txt, and run as a script after each link.

# chispa_suites(TARGET): the suites of TARGET are known to ctest once it is linked.
function(chispa_suites target)
  set(list "${CMAKE_CURRENT_BINARY_DIR}/${target}_suites.cmake")
  add_custom_command(TARGET ${target} POST_BUILD VERBATIM BYPRODUCTS "${list}"
    COMMAND ${CMAKE_COMMAND} -D "PROGRAM=$<TARGET_FILE:${target}>" -D "LIST=${list}" -D "STATE=${CMAKE_BINARY_DIR}/test-state"
            -P "${CMAKE_CURRENT_FUNCTION_LIST_FILE}")
  # Before it is linked for the first time there is nothing to run.
  set(reader "${CMAKE_CURRENT_BINARY_DIR}/${target}_tests.cmake")
  file(WRITE "${reader}" "if(EXISTS \"${list}\")\n  include(\"${list}\")\nelse()\n  add_test(${target}_is_not_built ${target})\nendif()\n")
  set_property(DIRECTORY APPEND PROPERTY TEST_INCLUDE_FILES "${reader}")
endfunction()

if(NOT CMAKE_SCRIPT_MODE_FILE)
  return()
endif()

execute_process(COMMAND "${PROGRAM}" --gtest_list_tests OUTPUT_VARIABLE listed TIMEOUT 60 COMMAND_ERROR_IS_FATAL ANY)
get_filename_component(program "${PROGRAM}" NAME)
string(REPLACE "test_" "" layer "${program}")
string(REGEX MATCHALL "[^\n]+" lines "${listed}")
set(suites "")
foreach(line IN LISTS lines)
  # A suite begins its line and ends in a point; its tests stand below it, indented.
  if(line MATCHES "^([A-Za-z0-9_/]+)\\.")
    set(suite "${CMAKE_MATCH_1}")
    list(APPEND suites "${suite}")
    set("count_${suite}" 0)
  elseif(line MATCHES "^  ")
    math(EXPR "count_${suite}" "${count_${suite}} + 1")
  endif()
endforeach()
list(REMOVE_DUPLICATES suites)
# About how many tenths of a second a test takes: what takes long begins first.
set(tenths_core 2)
set(tenths_board 50)
set(tenths_cli 25)
set(tenths_desk 25)
if(NOT DEFINED "tenths_${layer}")
  set("tenths_${layer}" 10)
endif()
set(content "")
foreach(suite IN LISTS suites)
  set(name "${layer}.${suite}")
  set(properties "ENVIRONMENT [==[XDG_STATE_HOME=${STATE}]==]")
  # What looks through the camera, or at time stamps, needs the machine to itself: it works in real time.
  if(suite MATCHES "^(Camera|InStep)")
    string(APPEND properties " RUN_SERIAL ON")
  endif()
  math(EXPR cost "${count_${suite}} * ${tenths_${layer}}")
  # These take minutes.
  if(suite MATCHES "^(MannersTest|CliNight|Disk/Faults)$")
    set(cost 9999)
  endif()
  string(APPEND properties " COST ${cost}")
  string(APPEND content "add_test([==[${name}]==] [==[${PROGRAM}]==] [==[--gtest_filter=${suite}.*]==])\n"
    "set_tests_properties([==[${name}]==] PROPERTIES ${properties})\n")
endforeach()
file(WRITE "${LIST}" "${content}")
