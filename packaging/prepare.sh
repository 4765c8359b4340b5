# Sourced by ./run, ./check, ./screenshots and ./benchmark: the packages they need, and how to build.

build_packages=(
    g++ cmake ninja-build pkg-config gettext
    qt6-base-dev qt6-svg-dev qt6-serialport-dev libqt6opengl6-dev libgl-dev libopengl-dev qt6-qpa-plugins libqt6svg6
    libboost-dev libeigen3-dev libfmt-dev nlohmann-json3-dev libvalijson-dev libcli11-dev libcairo2-dev libraqm-dev libdxflib-dev libexpat1-dev libssl-dev
    libocct-foundation-dev libocct-modeling-data-dev libocct-modeling-algorithms-dev libocct-data-exchange-dev
    libocct-visualization-dev libtbb-dev librsvg2-bin # the first for one header of the foundation that Debian puts there
)
test_packages=(
    poppler-utils units calculix-ccx python3 python3-scipy python3-jsonschema python3-ezdxf
    gpsd-clients gpsbabel tidy python3-icalendar xvfb xauth xdotool locales
    mandoc desktop-file-utils appstream shared-mime-info fish zsh strace
    at-spi2-core gir1.2-atspi-2.0 python3-gi dbus-daemon
)
picture_packages=(xvfb xauth xdotool imagemagick)
bench_packages=(libbenchmark-dev)

say() { printf '%s\n' "$*" >&2; }

need_packages() {
    local missing=() package
    for package in "$@"; do
        [ "$(dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null || true)" = installed ] || missing+=("$package")
    done
    [ ${#missing[@]} -eq 0 ] && return 0
    say "Installing: ${missing[*]}"
    local sudo=()
    if [ "$(id -u)" -ne 0 ]; then
        command -v sudo >/dev/null || { say "Installing needs root or sudo. As root: apt-get install ${missing[*]}"; return 1; }
        sudo=(sudo)
    fi
    local log
    log=$(mktemp)
    if ! { "${sudo[@]}" apt-get update -q && "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -qy --no-install-recommends "${missing[@]}"; } >"$log" 2>&1; then
        tail -n 20 "$log" >&2
        say "The packages could not be installed; the lines above say why."
        return 1
    fi
    rm -f "$log"
}

# Locales with a decimal comma for the tests, in a folder of the build: nothing of the machine is changed.
make_locales() {
    local folder=$1 language
    mkdir -p "$folder"
    for language in de_DE fr_FR tr_TR; do
        [ -d "$folder/$language.UTF-8" ] || localedef -i "$language" -f UTF-8 "$folder/$language.UTF-8" 2>/dev/null || [ -d "$folder/$language.UTF-8" ] || { say "The locale $language could not be made."; return 1; }
    done
}

# build PRESET [cmake -D options] [--target NAMES…]: quiet when nothing changed, the compiler's own words when something fails.
build() {
    local preset=$1
    shift
    local options=() targets=()
    while [ "$#" -gt 0 ] && [ "$1" != --target ]; do options+=("$1"); shift; done
    if [ "${1:-}" = --target ]; then shift; targets=(--target "$@"); fi
    local folder="$top/build/$preset" log
    log=$(mktemp)
    say "Building (the first time takes a few minutes) …"
    if ! (cd "$top" && cmake --preset "$preset" "${options[@]}" && cmake --build "$folder" "${targets[@]}") >"$log" 2>&1; then
        grep -vE '^\[[0-9]+/[0-9]+\]|^-- ' "$log" | tail -n 60 >&2
        say "The build failed; the lines above say where."
        return 1
    fi
    rm -f "$log"
}
