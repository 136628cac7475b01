# Sourced: makes sure that what the build needs is there, and installs it where it may.
install_packages() {
    if ! command -v apt-get > /dev/null; then
        echo "Please install: $*" >&2
        exit 1
    fi
    sudo=""
    [ "$(id -u)" = 0 ] || sudo=sudo
    # A mirror that is busy, or another installation that is not done, is often over a moment later: once more, and then why not.
    try_install "$@" && return
    echo "Installing $* failed; once more in a quarter of a minute:" >&2
    sed 's/^/    /' "$install_log" >&2
    sleep 15
    try_install "$@" && return
    echo "Installing $* failed again:" >&2
    sed 's/^/    /' "$install_log" >&2
    echo "Please install them and start again." >&2
    exit 1
}

try_install() {
    install_log=$(mktemp)
    { $sudo apt-get update -qq \
        && DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq "$@"; } > "$install_log" 2>&1
}

if ! command -v dotnet > /dev/null; then
    echo "The .NET SDK 10 is needed: https://dotnet.microsoft.com/download" >&2
    exit 1
fi

missing=""
command -v clang > /dev/null || missing="$missing clang"
[ -e /usr/include/zlib.h ] || missing="$missing zlib1g-dev"
# shellcheck disable=SC2086
[ -z "$missing" ] || install_packages $missing
