#!/bin/sh
# Measures a firm's server against folders, on this machine: a statement of a book of a million lines, an import by COPY, eight
# readers beside an import, and a statement of each of many books. Everything is a ratio against the same in a folder.
# DOCUMENTS=30000 and BOOKS=20 make it smaller. PostgreSQL is started with a data folder of its own.
set -eu
cd "$(dirname "$0")/.."
command -v hyperfine > /dev/null || { echo "This measures with hyperfine, which is not installed." >&2; exit 1; }
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
vlei=$VLEI
documents=${DOCUMENTS:-250000}
books=${BOOKS:-1000}
programs=$(ls -d /usr/lib/postgresql/*/bin | tail -n 1)
work=$(mktemp -d)
port=54831
as_owner() { if [ "$(id -u)" = 0 ]; then runuser -u postgres -- "$@"; else "$@"; fi; }
stop() {
    as_owner "$programs/pg_ctl" -D "$work/data" -m immediate stop > /dev/null 2>&1 || true
    rm -rf "$work"
}
trap stop EXIT
[ "$(id -u)" != 0 ] || chown postgres "$work"
as_owner "$programs/initdb" -D "$work/data" -U owner --auth=trust -E UTF8 --locale=C > /dev/null
as_owner "$programs/pg_ctl" -D "$work/data" -l "$work/log" -w \
    -o "-p $port -k $work -c listen_addresses=127.0.0.1 -c shared_buffers=1GB -c max_wal_size=4GB" start > /dev/null
chmod 755 "$work"
export PGHOST=127.0.0.1 PGPORT=$port PGUSER=owner HOME="$work/home"
mkdir -p "$work/run" "$HOME"
cd "$work/run"
createdb firm
"$vlei" store init postgresql:///firm 2> /dev/null
of() { /usr/bin/time -f "%e %M" -o time "$@" > /dev/null 2> /dev/null; cut -d' ' -f1 time; }
ratio() { awk -v a="$1" -v b="$2" 'BEGIN { printf "%.2f", b / a }'; }

"$vlei" demo set --record-set --documents "$documents" --years 5 --seed 7 2> /dev/null
echo "$(wc -l < set/lines.csv) lines"
"$vlei" init here --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
"$vlei" init there --name Large --currency ZAR --fiscal-year-start 3 --store 'postgresql:///firm?book=large' 2> /dev/null
here=$(of "$vlei" import set --book here)
there=$(of "$vlei" import set --book there)
echo "import: folder $here s, server $there s, $(ratio "$here" "$there") times"
here=$(of "$vlei" import set --book here)
there=$(of "$vlei" import set --book there)
echo "the same again: folder $here s, server $there s, $(ratio "$here" "$there") times"

for show in "show balance-sheet --as-of 2026-06-30" "show profit-loss --period 2021/2026 --by month" \
    "show profit-loss --period 2021/2026 --by department" "show receivables-aging --as-of 2026-06-30 --top 20"; do
    hyperfine -N --warmup 3 --runs 15 --export-csv times.csv "$vlei $show --book here" "$vlei $show --book there" > /dev/null 2>&1
    tail -n +2 times.csv | awk -F, -v show="$show" '{ t[NR] = $(NF - 4) * 1000 }
        END { printf "%-50s folder %6.1f ms, server %6.1f ms, %.2f times\n", show, t[1], t[2], t[2] / t[1] }'
done

for book in alone beside; do
    "$vlei" init "$book" --name Large --currency ZAR --fiscal-year-start 3 --store "postgresql:///firm?book=$book" 2> /dev/null
done
alone=$(of "$vlei" import set --book alone)
for reader in 1 2 3 4 5 6 7 8; do
    while [ ! -e taken ]; do
        "$vlei" show balance-sheet --as-of 2026-06-30 --book there > /dev/null && echo >> "read$reader"
    done &
done
beside=$(of "$vlei" import set --book beside)
touch taken
wait
echo "eight readers beside an import: $(cat read? | wc -l) reports in $beside s; the import alone $alone s, $(ratio "$alone" "$beside") times"

"$vlei" demo small --record-set --documents 5000 --years 3 --seed 9 2> /dev/null
"$vlei" init one --name Small --currency ZAR --fiscal-year-start 3 2> /dev/null
"$vlei" import small --book one > /dev/null 2>&1
start=$(date +%s)
seq "$books" | xargs -P 2 -I N "$vlei" store copy one 'postgresql:///firm?book=client-N' 2> /dev/null
echo "$books books of 5,000 documents copied in $(($(date +%s) - start)) s, $(psql -At -c "SELECT pg_size_pretty(pg_database_size('firm'))" firm)"
hyperfine -N --warmup 3 --runs 15 --export-csv times.csv "$vlei show balance-sheet --as-of 2026-06-30 --book one" \
    "$vlei show balance-sheet --as-of 2026-06-30 --book postgresql:///firm?book=client-7" > /dev/null 2>&1
tail -n +2 times.csv | awk -F, '{ t[NR] = $(NF - 4) * 1000 }
    END { printf "a balance sheet among many books: folder %.1f ms, server %.1f ms, %.2f times\n", t[1], t[2], t[2] / t[1] }'
echo "a balance sheet of every book side by side: $(of "$vlei" show profit-loss --period 2026-05 --clock 2026-06-30 \
    --books postgresql:///firm --by book --format csv) s"
