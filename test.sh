#!/bin/sh
# Builds everything, checks its format, and runs all tests on the published program.
set -eu
cd "$(dirname "$0")"
. build/require.sh
command -v sqlite3 > /dev/null || install_packages sqlite3
./build/publish.sh
dotnet build Vlei.slnx --nologo -v quiet
dotnet format Vlei.slnx --verify-no-changes --no-restore
dotnet test --solution Vlei.slnx --no-build
