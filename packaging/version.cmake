# Writes what the programs say to --version: version, the commit they were built from, and the day of that commit. Without git (a package
# built from a copy of the tree) SOURCE and DATE are given from outside.
if(NOT SOURCE)
    execute_process(COMMAND git -C ${TOP} describe --always --dirty --abbrev=10 OUTPUT_VARIABLE SOURCE OUTPUT_STRIP_TRAILING_WHITESPACE ERROR_QUIET)
endif()
if(NOT DATE)
    execute_process(COMMAND git -C ${TOP} log -1 --format=%cs OUTPUT_VARIABLE DATE OUTPUT_STRIP_TRAILING_WHITESPACE ERROR_QUIET)
endif()
if(NOT SOURCE)
    set(SOURCE "a copy of the tree")
endif()
if(NOT DATE)
    set(DATE "2026-01-01")
endif()
set(text "#pragma once
/// Written by packaging/version.cmake.
inline constexpr auto versionNumber = \"${VERSION}\";
inline constexpr auto versionText = \"${VERSION}, built from ${SOURCE} of ${DATE}\";
inline constexpr auto versionDate = \"${DATE}\";
")
set(old "")
if(EXISTS ${OUT})
    file(READ ${OUT} old)
endif()
if(NOT old STREQUAL text)
    file(WRITE ${OUT} "${text}")
endif()
