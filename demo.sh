#!/bin/sh
# Builds and installs vlei, then makes the demo book in the folder "reedwater" here and shows what to try.
set -eu
here=$PWD
cd "$(dirname "$0")"
./install.sh "$@"
prefix="$HOME/.local"
case "${1:-}" in --prefix) prefix=$2 ;; --prefix=*) prefix=${1#--prefix=} ;; esac
case "$prefix" in /*) ;; *) prefix="$PWD/$prefix" ;; esac
cd "$here"
exec "$prefix/bin/vlei" demo
