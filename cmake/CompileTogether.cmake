# dryground_compile_together(TARGET MOST)
#
# Compiles the files of a target up to MOST at a time, only files of one folder together: headers are read and templates
# instantiated once for all of them, which is most of what compiling costs. Each file still includes all that it uses:
# scripts/lint looks at every file alone. Files with compiler options of their own stay alone. DRYGROUND_TOGETHER=OFF
# compiles every file alone.
function(dryground_compile_together target most)
  if(NOT DRYGROUND_TOGETHER)
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
  # A gigabyte before GCC looks for what it could give back: a tenth of the time.
  target_compile_options(${target} PRIVATE $<$<CXX_COMPILER_ID:GNU>:--param=ggc-min-heapsize=1000000>)
  get_target_property(sources ${target} SOURCES)
  foreach(source IN LISTS sources)
    get_filename_component(folder "${source}" DIRECTORY)
    string(MAKE_C_IDENTIFIER "folder_${folder}" folder)
    list(APPEND folders ${folder})
    list(APPEND sources_of_${folder} ${source})
  endforeach()
  list(REMOVE_DUPLICATES folders)
  foreach(folder IN LISTS folders)
    list(LENGTH sources_of_${folder} files)
    math(EXPR units "(${files} + ${most} - 1) / ${most}")
    math(EXPR size "(${files} + ${units} - 1) / ${units}")   # alike, so that the last is not done long after the others
    set(number 0)
    foreach(source IN LISTS sources_of_${folder})
      math(EXPR unit "${number} / ${size} + 1")
      math(EXPR number "${number} + 1")
      set_source_files_properties(${source} PROPERTIES UNITY_GROUP ${folder}_${unit})
    endforeach()
  endforeach()
endfunction()
