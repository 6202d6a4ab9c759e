# dryground_compile_together(TARGET COUNT)
#
# Compiles the files of a target COUNT at a time, only files of one folder together: headers are read and templates
# instantiated once for all of them, which is most of what compiling costs. Each file still includes all that it uses:
# scripts/lint looks at every file alone. Files with compiler options of their own stay alone. DRYGROUND_TOGETHER=OFF
# compiles every file alone.
function(dryground_compile_together target count)
  if(NOT DRYGROUND_TOGETHER)
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
  # A gigabyte before GCC looks for what it could give back: a tenth of the time.
  target_compile_options(${target} PRIVATE $<$<CXX_COMPILER_ID:GNU>:--param=ggc-min-heapsize=1000000>)
  get_target_property(sources ${target} SOURCES)
  set(last_folder "")
  set(number 0)
  foreach(source IN LISTS sources)
    get_filename_component(folder ${source} DIRECTORY)
    if(NOT folder STREQUAL last_folder)
      set(number 0)
      set(last_folder ${folder})
    endif()
    math(EXPR unit "${number} / ${count} + 1")
    math(EXPR number "${number} + 1")
    string(MAKE_C_IDENTIFIER "${folder}" name)
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP ${name}_${unit})
  endforeach()
endfunction()
