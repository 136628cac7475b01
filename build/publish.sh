#!/bin/sh
# Publishes vlei as a native program into artifacts/publish, and beside it the one that draws its charts; any warning of the
# compiler to native code is an error. What it is given, as --no-restore, is handed on.
set -eu
cd "$(dirname "$0")/.."
. build/require.sh
published=artifacts/publish
for project in Vlei Vlei.Charts; do
    dotnet publish "src/$project" -c Release -r linux-x64 --nologo -v quiet -p:RunAnalyzers=false "$@"
done
for file in vlei-charts libSkiaSharp.so libHarfBuzzSharp.so; do
    cp "$published/Vlei.Charts/release_linux-x64/$file" "$published/Vlei/release_linux-x64/"
done
