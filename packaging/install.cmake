# Where everything goes: `cmake --install build/release --prefix …`, with DESTDIR before it for a package.
include(GNUInstallDirs)

install(TARGETS deepstop deepstop-cli deepstop-bench RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
foreach(folder demo library schema)
    install(DIRECTORY ${PROJECT_SOURCE_DIR}/data/${folder} DESTINATION ${CMAKE_INSTALL_DATADIR}/deepstop)
endforeach()
# The fonts of papers; those of the window are inside it.
install(DIRECTORY ${PROJECT_SOURCE_DIR}/data/fonts DESTINATION ${CMAKE_INSTALL_DATADIR}/deepstop)
install(FILES ${PROJECT_SOURCE_DIR}/docs/handbook.md ${PROJECT_SOURCE_DIR}/docs/handbook.de.md ${PROJECT_SOURCE_DIR}/docs/format.md ${PROJECT_SOURCE_DIR}/docs/instruments.md
    DESTINATION ${CMAKE_INSTALL_DOCDIR})

set(desktop ${PROJECT_SOURCE_DIR}/packaging/desktop)
install(FILES ${desktop}/deepstop.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES ${desktop}/deepstop.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages)
install(FILES ${desktop}/example.deepstop.DeepStop.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)

# Icons: the drawing itself, and painted in the sizes that desktops ask for.
set(icons ${CMAKE_INSTALL_DATADIR}/icons/hicolor)
install(FILES ${PROJECT_SOURCE_DIR}/data/icons/deepstop.svg DESTINATION ${icons}/scalable/apps)
install(FILES ${PROJECT_SOURCE_DIR}/data/icons/deepstop.svg DESTINATION ${icons}/scalable/mimetypes RENAME application-x-deepstop.svg)
find_program(RSVG rsvg-convert)
if(RSVG)
    set(painted "")
    foreach(size 16 22 24 32 48 64 128 256 512)
        set(icon ${PROJECT_BINARY_DIR}/icons/${size}.png)
        add_custom_command(OUTPUT ${icon} DEPENDS ${PROJECT_SOURCE_DIR}/data/icons/deepstop.svg
            COMMAND ${CMAKE_COMMAND} -E make_directory ${PROJECT_BINARY_DIR}/icons
            COMMAND ${RSVG} -w ${size} -h ${size} -o ${icon} ${PROJECT_SOURCE_DIR}/data/icons/deepstop.svg)
        list(APPEND painted ${icon})
        install(FILES ${icon} DESTINATION ${icons}/${size}x${size}/apps RENAME deepstop.png)
        install(FILES ${icon} DESTINATION ${icons}/${size}x${size}/mimetypes RENAME application-x-deepstop.png)
    endforeach()
    add_custom_target(icons ALL DEPENDS ${painted})
endif()

# Catalogues of the languages it speaks, in the build's folder as where they are installed.
find_program(MSGFMT msgfmt REQUIRED)
file(GLOB translations CONFIGURE_DEPENDS ${PROJECT_SOURCE_DIR}/po/*.po)
set(catalogues "")
foreach(translation ${translations})
    get_filename_component(language ${translation} NAME_WE)
    set(catalogue ${PROJECT_BINARY_DIR}/locale/${language}/LC_MESSAGES/deepstop.mo)
    add_custom_command(OUTPUT ${catalogue} DEPENDS ${translation}
        COMMAND ${CMAKE_COMMAND} -E make_directory ${PROJECT_BINARY_DIR}/locale/${language}/LC_MESSAGES
        COMMAND ${MSGFMT} --check --output-file ${catalogue} ${translation})
    list(APPEND catalogues ${catalogue})
    install(FILES ${catalogue} DESTINATION ${CMAKE_INSTALL_LOCALEDIR}/${language}/LC_MESSAGES)
endforeach()
add_custom_target(catalogues ALL DEPENDS ${catalogues})

# Man pages and completion, printed by the programs from their own tables of options.
set(manual "")
foreach(program deepstop deepstop-cli deepstop-bench)
    foreach(kind man bash zsh fish)
        set(page ${PROJECT_BINARY_DIR}/manual/${program}.${kind})
        add_custom_command(OUTPUT ${page} DEPENDS ${program} VERBATIM
            COMMAND ${CMAKE_COMMAND} -E make_directory ${PROJECT_BINARY_DIR}/manual
            COMMAND sh -c "\"$0\" --manual ${kind} > \"$1\"" $<TARGET_FILE:${program}> ${page})
        list(APPEND manual ${page})
    endforeach()
    set(made ${PROJECT_BINARY_DIR}/manual/${program})
    install(FILES ${made}.man DESTINATION ${CMAKE_INSTALL_MANDIR}/man1 RENAME ${program}.1)
    install(FILES ${made}.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME ${program})
    install(FILES ${made}.zsh DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions RENAME _${program})
    install(FILES ${made}.fish DESTINATION ${CMAKE_INSTALL_DATADIR}/fish/vendor_completions.d RENAME ${program}.fish)
endforeach()
add_custom_target(manual ALL DEPENDS ${manual})
