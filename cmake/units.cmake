# Units of up to eight files of one folder are compiled as one: a clean build takes half the time. Files of another folder never
# share a unit, so that a new file meets only its neighbours' names. CHISPA_UNIT=1000 makes each folder one unit, which finds names
# that stand twice in a folder.
set(CHISPA_UNIT 8 CACHE STRING "files of a folder that are compiled as one, where CMAKE_UNITY_BUILD is on")

# chispa_units(TARGET): groups the sources of TARGET; those that are set apart (SKIP_UNITY_BUILD_INCLUSION) stay so.
function(chispa_units target)
  get_target_property(sources ${target} SOURCES)
  foreach(source IN LISTS sources)
    get_filename_component(folder ${source} DIRECTORY)
    string(MAKE_C_IDENTIFIER "${folder}" folder)
    if(NOT DEFINED count_${folder})
      set(count_${folder} 0)
    endif()
    math(EXPR unit "${count_${folder}} / ${CHISPA_UNIT}")
    math(EXPR count_${folder} "${count_${folder}} + 1")
    set_property(SOURCE ${source} PROPERTY UNITY_GROUP "${folder}_${unit}")
  endforeach()
  set_target_properties(${target} PROPERTIES UNITY_BUILD_MODE GROUP)
endfunction()
