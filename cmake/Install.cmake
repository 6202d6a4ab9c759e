# What is installed: libraries with headers, a CMake package, files for pkg-config, the tool with its man page and
# completion, schemas, and the demo world.
include(CMakePackageConfigHelpers)
set(package ${CMAKE_INSTALL_LIBDIR}/cmake/DryGround)

foreach(part core files draw)
  string(SUBSTRING ${part} 0 1 first)
  string(SUBSTRING ${part} 1 -1 rest)
  string(TOUPPER ${first} first)
  set(Part ${first}${rest})
  install(TARGETS dryground_${part} EXPORT DryGround${Part}Targets ARCHIVE DESTINATION ${CMAKE_INSTALL_LIBDIR})
  install(EXPORT DryGround${Part}Targets NAMESPACE DryGround:: DESTINATION ${package})
endforeach()
install(TARGETS dryground EXPORT DryGroundToolTargets RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
install(EXPORT DryGroundToolTargets NAMESPACE DryGround:: DESTINATION ${package})
install(DIRECTORY include/dryground bridges/dryground ${PROJECT_BINARY_DIR}/generated/dryground
  DESTINATION ${CMAKE_INSTALL_INCLUDEDIR} FILES_MATCHING PATTERN "*.hpp")
configure_package_config_file(cmake/DryGroundConfig.cmake.in ${PROJECT_BINARY_DIR}/DryGroundConfig.cmake
  INSTALL_DESTINATION ${package})
write_basic_package_version_file(${PROJECT_BINARY_DIR}/DryGroundConfigVersion.cmake COMPATIBILITY SameMinorVersion)
install(FILES ${PROJECT_BINARY_DIR}/DryGroundConfig.cmake ${PROJECT_BINARY_DIR}/DryGroundConfigVersion.cmake
  cmake/DryGroundWorld.cmake DESTINATION ${package})

# For pkg-config, relative to where the file lies: an installation can be moved. The libraries are static, so what they
# need is needed by whoever links them.
set(pkgconfig ${CMAKE_INSTALL_LIBDIR}/pkgconfig)
file(RELATIVE_PATH PC_UP /${pkgconfig} /)
string(REGEX REPLACE "/$" "" PC_UP "${PC_UP}")
function(dryground_pkgconfig name library requires description)
  set(PC_NAME ${name})
  set(PC_LIBRARY ${library})
  set(PC_REQUIRES ${requires})
  set(PC_DESCRIPTION ${description})
  configure_file(cmake/package.pc.in ${PROJECT_BINARY_DIR}/${name}.pc @ONLY)
  install(FILES ${PROJECT_BINARY_DIR}/${name}.pc DESTINATION ${pkgconfig})
endfunction()
dryground_pkgconfig(dryground-core dryground_core "fmt" "Merges and checks tile maps for physics, without files")
dryground_pkgconfig(dryground dryground_files "dryground-core, libpng, pugixml" "${PROJECT_DESCRIPTION}")
dryground_pkgconfig(dryground-draw dryground_draw "dryground, librsvg-2.0, cairo, glib-2.0" "Pictures of tile maps and their physics")

set(documents ${CMAKE_INSTALL_DATADIR}/doc/dryground)
install(FILES ${PROJECT_BINARY_DIR}/dryground.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${PROJECT_BINARY_DIR}/dryground.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME dryground)
install(DIRECTORY schema demo DESTINATION ${CMAKE_INSTALL_DATADIR}/dryground)
install(FILES NOTICE DESTINATION ${documents})
install(FILES ${PROJECT_BINARY_DIR}/copyright ${PROJECT_BINARY_DIR}/changelog.gz ${PROJECT_BINARY_DIR}/CHANGELOG.md.gz
  DESTINATION ${documents})
configure_file(cmake/changelog.in ${PROJECT_BINARY_DIR}/changelog @ONLY)

# ---- a Debian package: cpack -G DEB ----
set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME dryground)
set(CPACK_PACKAGE_VENDOR "Dry Ground")
set(CPACK_PACKAGE_CONTACT "Dry Ground maintainers <maintainers@dryground.example>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "${PROJECT_DESCRIPTION}")
set(CPACK_PACKAGE_DESCRIPTION "Dry Ground turns the tile maps of a game into physics geometry: it
merges collision shapes into outlines, chains and convex pieces, checks a
world for mistakes before anyone plays it, draws it, and packs all that a
game loads into one file. This package holds the command-line tool with a
demo world, and the C++ library with its headers.")
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION libdevel)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_DEPENDS librsvg2-2)   # loaded when it is needed, so that it is not seen
set(CPACK_DEBIAN_PACKAGE_RECOMMENDS fonts-dejavu-core)
set(CPACK_DEBIAN_PACKAGE_SUGGESTS "libfmt-dev, libpng-dev, libpugixml-dev, librsvg2-dev, libchipmunk-dev, libbullet-dev, libtbb-dev")
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
include(CPack)
