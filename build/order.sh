#!/bin/sh
# Writes src/Vlei/methods.order anew: the methods that everyday commands call, in the order of their first calls. The compiler
# lays them out side by side, so that a command reads 2 MB of the program rather than 11. Once in a while will do: methods that
# are not named come after those that are, and names that are gone are passed over.
#
#   build/order.sh      (needs gcc and binutils; a minute, and publishing)
#
# VLEI_BINARY names a published program with its vlei.dbg beside it, else one is published first.
set -eu
root=$(cd "$(dirname "$0")/.." && pwd)
[ -n "${VLEI_BINARY:-}" ] || { "$root/build/publish.sh"; VLEI_BINARY=$root/artifacts/publish/Vlei/release_linux-x64/vlei; }
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
export HOME="$work" XDG_STATE_HOME="$work/state" XDG_CONFIG_HOME="$work/config" LANG=C.UTF-8

gcc -O2 -o first-calls "$root/build/first-calls.c"
readelf -SW "$VLEI_BINARY" | sed -n 's/^.* __managedcode  *PROGBITS  *\([0-9a-f]*\) [0-9a-f]* \([0-9a-f]*\) .*/\1 \2/p' > section
begin=$(cut -d' ' -f1 section)
end=$(printf %016x $((0x$begin + 0x$(cut -d' ' -f2 section))))
nm -n "$VLEI_BINARY.dbg" | awk -v begin="$begin" -v end="$end" '$1 >= begin && $1 < end && tolower($2) == "t"' > symbols

# Up to 66 vlei says that it found something, or that it was asked wrongly, which is wanted, too.
calls() { ./first-calls symbols "$VLEI_BINARY" "$@" >> called || [ $? -le 66 ] || { echo "failed: vlei $*" >&2; exit 1; }; }

"$VLEI_BINARY" demo book > made 2>&1 || { cat made >&2; exit 1; }
calls --version
export VLEI_BOOK=book
calls show profit-loss --period 2025-01/2025-12 --by month
calls show profit-loss --period fiscal-year-to-date --compare prior-year --change --share income --basis cash
for report in balance-sheet receivables-aging general-ledger lines; do calls show $report; done
calls show postings --period fy2026 --only contact=C0080 --format csv
calls show lines --period all --group-by contact,month --summary --format csv
calls show profit-loss --period fy2026 --only tag.season=high --by quarter
calls trace profit-loss --period 2026-05 --row 4010
calls check
calls check --review 2026-05
"$VLEI_BINARY" reports | sed -n 's/^    \([a-z][a-z-]*\)  .*/\1/p' > reports
[ -s reports ] || { echo "vlei reports lists none" >&2; exit 1; }
while read -r report; do
    calls show "$report" < /dev/null
    for format in csv json; do calls show "$report" --format $format < /dev/null; done
done < reports
for ending in xlsx pdf html md ods; do
    calls show general-ledger --to "ledger.$ending"
    calls show profit-loss --to "profit.$ending"
done
calls explain profit-loss --period last-month --compare prior-year
calls run month-end
for command in overview changes group reports fields export; do calls $command; done
calls show overview
calls help periods
calls --help
calls show --help
calls show profit-los
calls demo set --record-set --documents 20000 --years 2 --seed 7
calls init large --name Large --currency ZAR --fiscal-year-start 3
export VLEI_BOOK=large
calls import set
calls import set
for report in profit-loss lines general-ledger receivables-aging customer-balances collection; do
    calls show $report --period all --format csv
done
calls show lines --period all --format text
calls show receivables-aging --summary
calls check

awk '!met[$0]++' called > "$root/src/Vlei/methods.order"
echo "$(wc -l < "$root/src/Vlei/methods.order") of $(wc -l < symbols) methods"
