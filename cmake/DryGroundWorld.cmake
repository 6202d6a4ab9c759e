# dryground_add_world(TARGET WORLD FILE
#   [FORMAT json | cbor] [UNIT px | m] [Y down | up] [PLANE screen | ground] [CHUNK_CELLS N] [VARIANTS N] [ART DIR]
#   [OUT FILE])
#
# Builds a world's pack with whatever builds the project: one rule for each map, which depends on the world's file, the
# tile sets and that map's own files alone, and one that checks the world and joins the parts. So a build engine makes
# maps side by side, on as many machines as it has, and redoes only what changed. A finding of severity error fails the
# build at its file and line. The same inputs give the same bytes, however many parts were made at once.
#
# TARGET is made with `all`; its property DRYGROUND_PACK is the pack's path, by default TARGET.pack.json (or .cbor) in
# the current binary folder. DRYGROUND_COMMAND names the tool where it is not the installed one. The names of the maps
# are read when CMake runs, which it does again whenever the world's file changes.

function(dryground_add_world target)
  cmake_parse_arguments(PARSE_ARGV 1 arg "" "WORLD;FORMAT;UNIT;Y;PLANE;CHUNK_CELLS;VARIANTS;ART;OUT" "")
  if(NOT arg_WORLD OR arg_UNPARSED_ARGUMENTS OR arg_KEYWORDS_MISSING_VALUES)
    message(FATAL_ERROR "dryground_add_world(TARGET WORLD FILE [FORMAT …] [UNIT …] [Y …] [PLANE …] [CHUNK_CELLS N] [VARIANTS N] [ART DIR] [OUT FILE]):"
      " WORLD is required; not understood: '${arg_UNPARSED_ARGUMENTS}${arg_KEYWORDS_MISSING_VALUES}'")
  endif()
  set(tool ${DRYGROUND_COMMAND})
  if(NOT tool AND TARGET DryGround::command)
    get_target_property(tool DryGround::command LOCATION)
  endif()
  if(NOT tool)
    message(FATAL_ERROR "dryground_add_world: no dryground command; set DRYGROUND_COMMAND to its path")
  endif()
  get_filename_component(world ${arg_WORLD} ABSOLUTE)
  if(NOT arg_FORMAT)
    set(arg_FORMAT json)
  endif()
  if(NOT arg_OUT)
    set(arg_OUT ${target}.pack.${arg_FORMAT})
  endif()
  get_filename_component(pack ${arg_OUT} ABSOLUTE BASE_DIR ${CMAKE_CURRENT_BINARY_DIR})
  set(options "")
  foreach(option UNIT Y PLANE CHUNK_CELLS VARIANTS)
    if(arg_${option})
      string(TOLOWER ${option} word)
      string(REPLACE "_" "-" word ${word})
      list(APPEND options --${word} ${arg_${option}})
    endif()
  endforeach()

  set_property(DIRECTORY APPEND PROPERTY CMAKE_CONFIGURE_DEPENDS ${world})
  execute_process(COMMAND ${tool} pack ${world} --list-maps
    OUTPUT_VARIABLE maps ERROR_VARIABLE fault RESULT_VARIABLE code OUTPUT_STRIP_TRAILING_WHITESPACE)
  if(NOT code EQUAL 0)
    message(FATAL_ERROR "dryground_add_world: the maps of ${world} cannot be listed\n${fault}")
  endif()
  string(REPLACE "\n" ";" maps "${maps}")
  list(REMOVE_DUPLICATES maps)   # a name given twice, or a bad one, is reported when the world is checked

  set(folder ${CMAKE_CURRENT_BINARY_DIR}/${target}.parts)
  file(MAKE_DIRECTORY ${folder})
  set(parts "")
  foreach(map IN LISTS maps)
    string(MAKE_C_IDENTIFIER "${map}" file)
    set(part ${folder}/${file}.part)
    list(APPEND parts ${part})
    add_custom_command(OUTPUT ${part} DEPFILE ${part}.d DEPENDS ${world} ${tool} VERBATIM
      COMMAND ${tool} pack ${world} --map ${map} ${options} --out ${part} --depfile ${part}.d
      COMMENT "Packing map ${map}")
  endforeach()
  set(art "")
  if(arg_ART)
    get_filename_component(art ${arg_ART} ABSOLUTE BASE_DIR ${CMAKE_CURRENT_BINARY_DIR})
    set(art --art ${art})
  endif()
  add_custom_command(OUTPUT ${pack} DEPFILE ${pack}.d DEPENDS ${parts} ${world} ${tool} VERBATIM
    COMMAND ${tool} pack ${world} --format ${arg_FORMAT} ${options} ${art} --out ${pack} --depfile ${pack}.d --join ${parts}
    COMMENT "Checking the world and joining ${target}")
  add_custom_target(${target} ALL DEPENDS ${pack})
  set_target_properties(${target} PROPERTIES DRYGROUND_PACK ${pack})
endfunction()
