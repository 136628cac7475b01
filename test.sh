#!/bin/sh
# Builds everything, checks its format, and runs all tests on the published program.
set -eu
cd "$(dirname "$0")"
. build/require.sh

# What opens what vlei writes: the tests hold its documents against these.
missing=""
for needed in sqlite3:sqlite3 pdftotext:poppler-utils qpdf:qpdf soffice:libreoffice-calc-nogui chromium:chromium; do
    command -v "${needed%%:*}" > /dev/null || missing="$missing ${needed#*:}"
done
# shellcheck disable=SC2086
[ -z "$missing" ] || install_packages $missing
./build/publish.sh
dotnet build Vlei.slnx --nologo -v quiet
dotnet format Vlei.slnx --verify-no-changes --no-restore
dotnet test --solution Vlei.slnx --no-build
