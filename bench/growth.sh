#!/bin/sh
# How import and reports grow with the lines of the book: a table for docs/performance.md.
set -eu
cd "$(dirname "$0")/.."
./build/publish.sh
vlei=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
echo "| lines | import | peak | by month | by month, cash | by year | by week |"
echo "|---:|---:|---:|---:|---:|---:|---:|"
for documents in 15000 60000 250000 1000000; do
    rm -rf set book
    "$vlei" demo set --record-set --documents "$documents" --years 2 --seed 7 2> /dev/null
    "$vlei" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
    /usr/bin/time -f '%e %M' -o import.txt "$vlei" import set --book book > /dev/null
    read -r took peak < import.txt
    show="$vlei show profit-loss --period 2024-07-01/2026-06-30 --book book"
    hyperfine -N --warmup 3 --runs 15 --export-csv times.csv \
        "$show --by month" "$show --by month --basis cash" "$show --by year" "$show --by week" > /dev/null 2>&1
    printf '| %s | %s s | %s MiB |' "$(($(wc -l < set/lines.csv) - 1))" "$took" "$((peak / 1024))"
    tail -n +2 times.csv | awk -F, '{ printf " %.0f ms |", $(NF - 4) * 1000 } END { print "" }'
done
