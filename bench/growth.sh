#!/bin/sh
# How import and reports grow with the lines of the book: seconds, and how large the import was, as a table for docs/performance.md.
#
#   bench/growth.sh [DOCUMENTS…]   (250000 make about 1,000,000 lines; without any, up to some 16,000,000)
#
# VLEI names a published program, else one is published first.
set -eu
[ $# -gt 0 ] || set -- 15000 60000 250000 1000000 4000000
cd "$(dirname "$0")/.."
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

# The middle of three.
seconds() {
    for run in 1 2 3; do /usr/bin/time -f %e -o time.$run "$@" > out 2> err || [ $? -le 1 ] || { cat err >&2; exit 1; }; done
    sort -n time.[1-3] | sed -n 2p
}
echo "| lines | import | its MiB | by month | one customer | contacts by month | who owes | ledger of a year | all lines |"
echo "| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |"
for documents in "$@"; do
    rm -rf set book
    "$VLEI" demo set --record-set --documents "$documents" --years 2 --seed 7 2> /dev/null
    "$VLEI" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
    export VLEI_BOOK=book
    /usr/bin/time -f '%e %M' -o import.txt "$VLEI" import set > /dev/null
    read -r took peak < import.txt
    contact=$(sed -n 10p set/contacts.csv | cut -d, -f1)
    echo "| $(($(wc -l < set/lines.csv) - 1)) | $took | $((peak / 1024)) \
| $(seconds "$VLEI" show profit-loss --period 2024-07-01/2026-06-30 --by month) \
| $(seconds "$VLEI" show postings --period fy2026 --only "contact=$contact" --format csv) \
| $(seconds "$VLEI" show lines --period all --group-by contact,month --summary --columns natural --format csv) \
| $(seconds "$VLEI" show receivables-aging --as-of 2026-02 --format csv) \
| $(seconds "$VLEI" show general-ledger --period fy2026 --format csv) \
| $(seconds "$VLEI" show lines --period all --format csv) |"
done
