#!/bin/sh
# The speed of everyday work on two large books, in one table: seconds, peak memory, the floor, and the same asked of the sqlite3
# program in the same run. The floor is the start of the program, and copying what it wrote; of an import, what it read and wrote. The
# first book is a workshop's; the second has many small documents in no order, most of them settled. Then a group, over many books.
#
#   bench/table.sh [DOCUMENTS [BOOKS]]   (225000 make two books of about 1,000,000 lines; with 200 books, some ten minutes)
#
# VLEI names a published program, else one is published first.
set -eu
documents=${1:-225000}
books=${2:-200}
cd "$(dirname "$0")/.."
here=$PWD
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

# The middle of three: seconds, with the two or three milliseconds that measuring takes, and kilobytes.
middle() {
    for run in 1 2 3; do
        began=$(date +%s%N)
        /usr/bin/time -f %M -o peak "$@" > out 2> err || [ $? -le 1 ] || { cat err >&2; exit 1; }
        echo "$(($(date +%s%N) - began)) $(cat peak)" > time.$run
    done
    sort -n time.[1-3] | sed -n 2p | awk '{ printf "%.3f %d\n", $1 / 1e9, $2 }'
}
# line WHAT BASELINE COMMAND…: the baseline in seconds, or - where there is none; "wrote" names what was written, where it is not printed.
line() {
    what=$1; theirs=$2; shift 2
    ours=$(middle "$@")
    cat ${wrote:-out} > written
    echo "$ours $theirs $(seconds cp written copied) $start" | awk -v what="$what" '{ printf "| %-44s | %7.3f | %5d | %7.3f | %7s | %6s |\n", what, $1, $2 / 1024, $4 + $5, $3, $3 == "-" || $3 == 0 ? "-" : sprintf("%.2f", $1 / $3) }'
}
seconds() { middle "$@" | cut -d' ' -f1; }
sql() { seconds sqlite3 -csv "$book/records.db" "$1"; }
header() {
    echo
    echo "$1: $(($(wc -l < "$2/lines.csv") - 1)) lines, $(($(wc -l < "$2/documents.csv") - 1)) documents, $(($(wc -l < "$2/settlements.csv") - 1)) settlements"
    echo "| what                                         |       s |   MiB |   floor | sqlite3 |  ratio |"
    echo "| -------------------------------------------- | ------: | ----: | ------: | ------: | -----: |"
}
joined="FROM lines l JOIN documents d ON d.key = l.document AND d.added = l.added JOIN documents_keys k ON k.key = d.key LEFT JOIN contacts c ON c.key = l.contact LEFT JOIN contacts_keys ck ON ck.key = l.contact LEFT JOIN accounts a ON a.key = l.account"

import() {
    set=$1; book=$2
    { echo .mode csv; for file in "$set"/*.csv; do echo ".import $file $(basename "$file" .csv)"; done; } > import.sql
    echo "rm -f bare.db && sqlite3 bare.db < import.sql" > bare-import.sh
    echo "rm -rf $book && '$VLEI' init $book --name Large --currency ZAR --fiscal-year-start 3 && '$VLEI' import $set --book $book" > import.sh
    theirs=$(seconds sh bare-import.sh)
    wrote="$set/*.csv $book/records.db"
    line "import, beside .import" "$theirs" sh import.sh
    wrote=
    export VLEI_BOOK="$book"
    line "the same import again" - "$VLEI" import "$set"
}

"$VLEI" demo set --record-set --documents "$documents" --years 2 --seed 7 2> /dev/null
start=$(seconds "$VLEI" --version)
header "A workshop" set
line "--version, beside a program that does nothing" "$(seconds true)" "$VLEI" --version
import set book
contact=$(sqlite3 book/records.db "SELECT k.id FROM documents d JOIN contacts_keys k ON k.key = d.contact GROUP BY k.id ORDER BY count(*) LIMIT 1 OFFSET (SELECT count(DISTINCT contact) / 2 FROM documents)")
line "a statement by month, two years" "$(sql "SELECT a.name, substr(d.date, 1, 7), sum(l.amount) $joined GROUP BY 1, 2")" \
    "$VLEI" show profit-loss --period 2024-07-01/2026-06-30 --by month
csv=$(sql "SELECT k.id, l.line, d.date, d.kind, c.name, a.name, l.quantity, l.unit_price, l.amount $joined ORDER BY d.date, d.key, l.line")
line "all lines as CSV" "$csv" "$VLEI" show lines --period all --format csv
line "all lines as JSON, beside the CSV" "$csv" "$VLEI" show lines --period all --format json
line "all lines as text, beside the CSV" "$csv" "$VLEI" show lines --period all --format text
line "the general ledger of a year as CSV" "$(sql "SELECT a.name, d.date, k.id, l.amount $joined WHERE d.date BETWEEN '2025-03-01' AND '2026-02-28' ORDER BY a.key, d.date, d.key, l.line")" \
    "$VLEI" show general-ledger --period fy2026 --format csv
line "one customer, one year" "$(sql "SELECT k.id, d.date, d.kind, c.name, a.name, l.amount $joined WHERE ck.id = '$contact' AND d.date BETWEEN '2025-03-01' AND '2026-02-28' ORDER BY d.date")" \
    "$VLEI" show postings --period fy2026 --only "contact=$contact" --format csv
line "all lines by contact and month" "$(sql "SELECT c.name, substr(d.date, 1, 7), sum(l.amount) $joined GROUP BY 1, 2")" \
    "$VLEI" show lines --period all --group-by contact,month --summary --columns natural --format csv
line "narrowed by a tag, two years, cash" - "$VLEI" show profit-loss --period 2024-07-01/2026-06-30 --only tag.season=high --basis cash
line "the review of a month" "$(sql "SELECT d.contact, d.kind, sum(max(l.amount, 0)), count(*) $joined GROUP BY d.key")" \
    "$VLEI" check --review 2026-05 --format csv
wrote=lines.xlsx
line "a workbook of 200,000 rows" - "$VLEI" show lines --period all --top 200000 --to lines.xlsx --overwrite
wrote=ledger.pdf
line "a PDF of the ledger of four months" - "$VLEI" show general-ledger --period 2025-09/2025-12 --to ledger.pdf --overwrite
wrote=

mkdir scattered
awk -v folder=scattered -v invoices=$((documents * 5 / 7)) -v contacts=$((documents * 4 / 45 + 1)) -f "$here/bench/scattered.awk"
header "Many small documents" scattered
import scattered small
line "all lines as six columns of CSV" "$(sql "SELECT k.id, d.date, d.kind, c.name, a.name, l.amount $joined ORDER BY d.date, d.key, l.line")" \
    "$VLEI" show lines --period all --columns date,kind,contact,account,amount --format csv
line "the general ledger of a year as CSV" "$(sql "SELECT a.name, d.date, k.id, l.amount $joined WHERE d.date BETWEEN '2025-03-01' AND '2026-02-28' ORDER BY a.key, d.date, d.key, l.line")" \
    "$VLEI" show general-ledger --period fy2026 --format csv
line "who owes, by age" - "$VLEI" show receivables-aging --as-of 2026-02 --summary
line "who owes, every customer as CSV" - "$VLEI" show receivables-aging --as-of 2026-02 --format csv
line "collection by month, a year" - "$VLEI" show collection --period fy2026 --by month

echo
unset VLEI_BOOK
VLEI="$VLEI" BOOKS="$books" sh "$here/bench/clients.sh"
