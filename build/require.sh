# Sourced: makes sure that what the build needs is there, and installs it where it may.
install_packages() {
    if ! command -v apt-get > /dev/null; then
        echo "Please install: $*" >&2
        exit 1
    fi
    sudo=""
    [ "$(id -u)" = 0 ] || sudo=sudo
    $sudo apt-get update -qq
    DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq "$@" > /dev/null
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
