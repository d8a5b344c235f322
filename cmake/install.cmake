# What is installed, and the package for Debian. Programs lie beside the libraries that they load when they are needed;
# those of the path are links to them.
include(GNUInstallDirs)
set(CMAKE_SKIP_INSTALL_ALL_DEPENDENCY ON)
set(BRIGHT_PILE_PICTURES_URL "" CACHE STRING
    "Where docs/screenshots is published, for software centres; without it they show no pictures")

set(room ${CMAKE_INSTALL_LIBEXECDIR}/bright-pile)
install(TARGETS bright-pile bright-pile-cli RUNTIME DESTINATION ${room})
set(loaded bright-pile-clips bright-pile-clip-maker bright-pile-exr)
install(TARGETS ${loaded} LIBRARY DESTINATION ${room})
file(MAKE_DIRECTORY ${PROJECT_BINARY_DIR}/links)
foreach(program bright-pile bright-pile-cli)
  file(CREATE_LINK ../${room}/${program} ${PROJECT_BINARY_DIR}/links/${program} SYMBOLIC)
  install(FILES ${PROJECT_BINARY_DIR}/links/${program} DESTINATION ${CMAKE_INSTALL_BINDIR})
endforeach()

set(share ${CMAKE_INSTALL_DATAROOTDIR})
set(from ${PROJECT_SOURCE_DIR}/packaging)
set(made ${PROJECT_BINARY_DIR}/packaging)
install(FILES ${from}/bright-pile.desktop DESTINATION ${share}/applications)
install(FILES ${from}/bright-pile.xml DESTINATION ${share}/mime/packages)
install(FILES ${from}/bright-pile.svg DESTINATION ${share}/icons/hicolor/scalable/apps)
install(FILES ${from}/application-x-bright-pile.svg DESTINATION ${share}/icons/hicolor/scalable/mimetypes)
install(FILES ${from}/bright-pile-cli.bash DESTINATION ${share}/bash-completion/completions RENAME bright-pile-cli)

install(DIRECTORY ${PROJECT_BINARY_DIR}/translations DESTINATION ${share}/bright-pile FILES_MATCHING PATTERN "*.qm")
install(DIRECTORY ${PROJECT_BINARY_DIR}/locale DESTINATION ${share} FILES_MATCHING PATTERN "*.mo")
# The guide, from the same files that are read here.
install(DIRECTORY ${PROJECT_SOURCE_DIR}/docs/guide ${PROJECT_SOURCE_DIR}/docs/pictures ${PROJECT_SOURCE_DIR}/docs/screenshots
        DESTINATION ${share}/bright-pile)
# Its pictures in other languages, where scripts/screenshots has taken them.
install(DIRECTORY ${PROJECT_BINARY_DIR}/screenshots DESTINATION ${share}/bright-pile OPTIONAL)

set(BRIGHT_PILE_PICTURES "")
if(BRIGHT_PILE_PICTURES_URL)
  string(APPEND BRIGHT_PILE_PICTURES "  <screenshots>\n")
  set(type " type=\"default\"")
  foreach(picture "merge-trails|A night of trails, their breaks knitted" "sequence|One subject in many places"
                  "finish|Tone, colour and places of the picture")
    string(REPLACE "|" ";" picture "${picture}")
    list(GET picture 0 name)
    list(GET picture 1 caption)
    string(APPEND BRIGHT_PILE_PICTURES "    <screenshot${type}>\n      <caption>${caption}</caption>\n"
           "      <image type=\"source\">${BRIGHT_PILE_PICTURES_URL}/${name}.png</image>\n    </screenshot>\n")
    set(type "")
  endforeach()
  string(APPEND BRIGHT_PILE_PICTURES "  </screenshots>\n")
endif()
configure_file(${from}/bright-pile.metainfo.xml.in ${made}/bright-pile.metainfo.xml @ONLY)
install(FILES ${made}/bright-pile.metainfo.xml DESTINATION ${share}/metainfo)

# Icons in the sizes that desktops ask for, and pressed pages: made by scripts/package, which has what they take.
foreach(size 16 22 24 32 48 64 128 256 512)
  foreach(kind apps mimetypes)
    install(DIRECTORY ${made}/${size}/${kind} DESTINATION ${share}/icons/hicolor/${size}x${size} OPTIONAL)
  endforeach()
endforeach()
install(DIRECTORY ${made}/man1 DESTINATION ${CMAKE_INSTALL_MANDIR} OPTIONAL)
install(FILES ${from}/copyright DESTINATION ${share}/doc/bright-pile)
install(FILES ${made}/changelog.gz DESTINATION ${share}/doc/bright-pile OPTIONAL)

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME bright-pile)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "merges a run of frames of one scene into one picture")
set(CPACK_DEBIAN_PACKAGE_MAINTAINER "Bright Pile maintainers <maintainers@bright-pile.example>")
set(CPACK_DEBIAN_PACKAGE_SECTION graphics)
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION
    "Bright Pile turns a run of frames of one scene, shot from a tripod or in
a quick burst, into the one picture that no single exposure could hold:
star trails, a square with nobody in it, a shelf without noise. It aligns
the frames, merges them per pixel, lets one say which frame shows where,
and writes a 16-bit picture. The originals are never written to.")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
# What is loaded when it is needed, which no linker sees.
set(CPACK_DEBIAN_PACKAGE_DEPENDS "libvips42, libqt6svg6")
set(CPACK_DEBIAN_PACKAGE_RECOMMENDS "qt6-wayland, qt6-translations-l10n")
set(CPACK_STRIP_FILES ON)
include(CPack)
