# Fails the build where the program's own code calls what hears the desktop's locale: a decimal comma in a file is data lost.
# Numbers are read by quantity/number.hpp and std::from_chars, written by fmt.
#   cmake -DTOP=<project> -P forbidden.cmake
set(words "std::sto(i|l|ll|ul|ull|f|d|ld)\\(" "[^a-z_:](strto(d|f|l|ul|ld|ll|ull)|ato(f|i|l|ll))\\(" "[^a-z_]v?s?n?printf\\(" "[^a-z_]v?[sf]?scanf\\("
    "setlocale\\(" "std::locale" "std::[io]?stringstream" "[^a-z_](isalpha|isdigit|isalnum|isspace|tolower|toupper)\\(" "umask\\(" "localtime\\(" "QLocale\\(\\)\\.to(Double|Float|Int)")
file(GLOB_RECURSE sources ${TOP}/src/*.cpp ${TOP}/src/*.hpp)
set(found "")
foreach(source ${sources})
    foreach(word ${words})
        file(STRINGS ${source} lines REGEX "${word}")
        foreach(line ${lines})
            # The language of sentences is asked for in one place, and nothing else of the locale.
            if(NOT line MATCHES "^ *//" AND NOT line MATCHES "std::fprintf\\(stderr" AND NOT line MATCHES "setlocale\\(LC_MESSAGES")
                file(RELATIVE_PATH name ${TOP} ${source})
                string(APPEND found "${name}: ${line}\n")
            endif()
        endforeach()
    endforeach()
endforeach()
if(found)
    message(FATAL_ERROR "These hear the locale or the whole process; use quantity/number.hpp, fmt or std::from_chars:\n${found}")
endif()
