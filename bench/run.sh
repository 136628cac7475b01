#!/bin/sh
# Measures vlei as whole processes, as ratios against the sqlite3 program on the same records in the same run.
#
#   bench/run.sh [DOCUMENTS]   (about 4.5 lines each; 225000 make the book of 1,000,000 lines)
set -eu
documents=${1:-225000}
cd "$(dirname "$0")/.."
command -v hyperfine > /dev/null || { echo "This measures with hyperfine, which is not installed." >&2; exit 1; }
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
vlei=$VLEI
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

"$vlei" demo set --record-set --documents "$documents" --years 2 --seed 7 2> /dev/null
"$vlei" demo demo > /dev/null 2>&1
echo "lines: $(($(wc -l < set/lines.csv) - 1)), documents: $(($(wc -l < set/documents.csv) - 1))"

# seconds FILE COMMAND…: wall seconds and peak kilobytes go to FILE.
seconds() { file=$1; shift; /usr/bin/time -f '%e %M' -o "$file" "$@" > /dev/null 2>&1; }
ratio() { awk -v a="$1" -v b="$2" 'BEGIN { printf "%.2f", a / b }'; }

{ echo .mode csv; for file in set/*.csv; do echo ".import $file $(basename "$file" .csv)"; done; } > import.sql
cat > bare-import.sh <<'X'
rm -f bare.db && sqlite3 bare.db < import.sql
X
for run in 1 2 3; do
    rm -rf book
    "$vlei" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
    seconds ours.$run "$vlei" import set --book book
    seconds bare.$run sh bare-import.sh
done
median() { sort -n "$1".[123] | sed -n 2p; }
read -r ours peak <<X
$(median ours)
X
read -r bare _ <<X
$(median bare)
X
echo "import: vlei $ours s, $((peak / 1024)) MiB; sqlite3 .import $bare s; ratio $(ratio "$ours" "$bare")"
seconds again "$vlei" import set --book book
echo "the same import again: $(cut -d' ' -f1 again) s"

sqlite3 bare.db "
    CREATE TABLE posted(account TEXT, date TEXT, amount INTEGER);
    INSERT INTO posted SELECT l.account, d.date, CAST(round(l.amount * 100) AS INTEGER)
        FROM lines l JOIN documents d ON d.id = l.document ORDER BY d.date;
    CREATE INDEX posted_by_date ON posted(date, account, amount);
    ANALYZE"
sum="SELECT account, substr(date, 1, 7) AS month, sum(amount) FROM posted
     WHERE date BETWEEN '2024-07-01' AND '2026-06-30' GROUP BY account, month"
show="$vlei show profit-loss --period 2024-07-01/2026-06-30"
hyperfine -N --warmup 3 --runs 20 --export-csv times.csv \
    "sqlite3 bare.db \"$(echo "$sum" | tr '\n' ' ')\"" \
    "$show --by month --book book" "$show --by month --basis cash --book book" "$show --by year --book book" \
    "$show --by week --book book" "$vlei show balance-sheet --period 2024-07-01/2026-06-30 --by month --book book" \
    "$vlei show trial-balance --period 2024-07-01/2026-06-30 --by month --book book" \
    "$vlei show general-ledger --period 2026-05 --only account=1020 --book book" \
    "$show --by department --book book" "$show --only tag.season=high --basis cash --book book" \
    "$vlei trace profit-loss --period 2026-05 --row 4010 --book book" \
    "$vlei trace profit-loss --period 2026-05 --row 4010 --basis cash --book book" "$vlei --version" "$vlei show profit-loss --book demo" true > /dev/null 2>&1
tail -n +2 times.csv | awk -F, '
    BEGIN { split("sqlite3 sums by account and month|by month, accrual|by month, cash|by year|by week|balance sheet by month|trial balance by month|general ledger, an account, a month|by department|narrowed by a tag, cash|trace of an account, a month|the same on the cash basis|--version|profit-loss of the demo|a program that does nothing", name, "|") }
    { median[NR] = $(NF - 4) * 1000
      printf "%-36s %8.1f ms   %7.4f of sqlite3\n", name[NR], median[NR], median[NR] / median[1] }'
seconds shown sh -c "exec $show --by month --book book"
echo "peak of a report: $(($(cut -d' ' -f2 shown) / 1024)) MiB"
