#!/bin/sh
# Measures documents: the start of the program against an earlier one, small documents of the demo, a list of some 200,000 rows
# as a workbook against the least that a general library needs for the same rows, and a PDF of 2,000 pages.
#
#   bench/documents.sh [EARLIER]   (the path of an earlier vlei, to compare the start with)
set -eu
cd "$(dirname "$0")/.."
command -v hyperfine > /dev/null || { echo "This measures with hyperfine, which is not installed." >&2; exit 1; }
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
dotnet publish bench/minimal-workbook -c Release -r linux-x64 --nologo -v quiet
vlei=$VLEI
minimal=$PWD/artifacts/publish/minimal-workbook/release_linux-x64/minimal-workbook
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
export XDG_STATE_HOME="$work/state"

"$vlei" demo demo > /dev/null 2>&1
show="$vlei show balance-sheet --book demo"
set -- "$vlei --version" "$show" "$show --to b.html" "$show --to b.xlsx" "$show --to b.pdf" "$show --chart --to c.html" ${1:+"$1 --version"}
hyperfine -N --warmup 5 --runs 30 --export-csv times.csv "$@" > /dev/null 2>&1
tail -n +2 times.csv | awk -F, '{ split($1, word, "/"); printf "%-60s %6.1f ms\n", word[length(word)], $(NF - 4) * 1000 }'

"$vlei" demo set --record-set --documents 48000 --years 2 --seed 7 2> /dev/null
"$vlei" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
"$vlei" import set --book book > /dev/null 2>&1
lines="show lines --period all --columns date,kind,contact,account,item,quantity,unit-price,memo,amount --book book"
# shellcheck disable=SC2086
"$vlei" $lines --to rows.csv
echo "rows: $(wc -l < rows.csv)"
for run in 1 2 3; do
    # shellcheck disable=SC2086
    /usr/bin/time -f '%e %M' -o ours.$run "$vlei" $lines --to rows.xlsx
    /usr/bin/time -f '%e %M' -o theirs.$run "$minimal" rows.csv minimal.xlsx
done
read -r ours peak <<X
$(sort -n ours.? | sed -n 2p)
X
read -r theirs other <<X
$(sort -n theirs.? | sed -n 2p)
X
echo "as a workbook: vlei $ours s, $((peak / 1024)) MiB; the library's least $theirs s, $((other / 1024)) MiB; ratio $(awk -v a="$ours" -v b="$theirs" 'BEGIN { printf "%.2f", a / b }')"
/usr/bin/time -f 'as PDF: %e s, %M KB' "$vlei" show lines --period 2024-07-01/2025-04-30 --columns date,kind,contact,account,item,quantity,unit-price,memo,amount --book book --to rows.pdf
grep -ac '/Type */Page[^s]' rows.pdf | sed 's/$/ pages/'
