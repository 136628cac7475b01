#!/bin/sh
# Builds everything, checks its format, and runs all tests on the published program.
#
#   ./test.sh          all of it
#   ./test.sh quick    builds it without publishing, and tests the core and a few runs: for while one works
set -eu
cd "$(dirname "$0")"
. build/require.sh
mkdir -p artifacts

if [ "${1:-}" = quick ]; then
    dotnet build tests/Vlei.Core.Tests --nologo -v quiet -p:RunAnalyzers=false
    dotnet build src/Vlei --nologo -v quiet -p:RunAnalyzers=false
    CsCheck_Iter=20 artifacts/bin/Vlei.Core.Tests/debug/Vlei.Core.Tests -trait- Speed=slow
    exec ./build/smoke.sh artifacts/bin/Vlei/debug/vlei
fi

# What opens what vlei writes, and what takes what it sends: the tests hold it against these.
missing=""
for needed in sqlite3:sqlite3 openssl:openssl pdftotext:poppler-utils qpdf:qpdf soffice:libreoffice-calc-nogui chromium:chromium \
    exim4:exim4-daemon-light cupsd:cups lp:cups-client tmux:tmux time:time nm:binutils; do
    command -v "${needed%%:*}" > /dev/null || missing="$missing ${needed#*:}"
done
ls /usr/lib/postgresql/*/bin/initdb > /dev/null 2>&1 || missing="$missing postgresql"
# shellcheck disable=SC2086
[ -z "$missing" ] || install_packages $missing

# The program is published while the tests are built and everything is looked at: the one for speed, the other with every
# warning as an error.
dotnet restore Vlei.slnx -v quiet
./build/publish.sh --no-restore > artifacts/publish.log 2>&1 &
publishing=$!
dotnet build Vlei.slnx --no-restore --nologo -v quiet
wait $publishing || { cat artifacts/publish.log >&2; exit 1; }

# The format is looked at while the tests run, which leave the processors idle for half of their time. What the analyzers of
# `dotnet format` say the build has said as errors; the order of usings is known to its style part alone.
{ dotnet format whitespace Vlei.slnx --verify-no-changes --no-restore \
    && dotnet format style Vlei.slnx --verify-no-changes --no-restore; } > artifacts/format.log 2>&1 &
formatting=$!
dotnet test --solution Vlei.slnx --no-build
wait $formatting || { cat artifacts/format.log >&2; exit 1; }
