#!/bin/sh
# Publishes vlei as a native program into artifacts/publish; any warning is an error.
set -eu
cd "$(dirname "$0")/.."
. build/require.sh
dotnet publish src/Vlei -c Release -r linux-x64 --nologo -v quiet
