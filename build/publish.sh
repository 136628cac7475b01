#!/bin/sh
# Publishes vlei as a native program into artifacts/publish, and beside it the one that draws its charts, the one that walks
# through reports on the full screen, and the mail server to try sending with; any warning of the compiler to native code is an
# error. What it is given, as --no-restore, is handed on.
set -eu
cd "$(dirname "$0")/.."
. build/require.sh
published=artifacts/publish
for project in Vlei Vlei.Browse Vlei.Charts Vlei.Postbox; do
    dotnet publish "src/$project" -c Release -r linux-x64 --nologo -v quiet -p:RunAnalyzers=false "$@"
done
for file in vlei-charts libSkiaSharp.so libHarfBuzzSharp.so; do
    cp "$published/Vlei.Charts/release_linux-x64/$file" "$published/Vlei/release_linux-x64/"
done
for program in Browse/release_linux-x64/vlei-browse Postbox/release_linux-x64/vlei-postbox; do
    cp "$published/Vlei.$program" "$published/Vlei/release_linux-x64/"
done
