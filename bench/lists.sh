#!/bin/sh
# Measures lists on a large book, as ratios against the sqlite3 program on the same records in the same run.
#
#   bench/lists.sh [DOCUMENTS]   (about 4.5 lines each; 225000 make the book of 1,000,000 lines)
set -eu
documents=${1:-225000}
cd "$(dirname "$0")/.."
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
vlei=$VLEI
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

"$vlei" demo set --record-set --documents "$documents" --years 2 --seed 7 2> /dev/null
"$vlei" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
"$vlei" import set --book book > /dev/null 2>&1
export VLEI_BOOK=book
echo "lines: $(sqlite3 book/records.db 'SELECT count(*) FROM lines')"

# The middle of five: wall seconds and peak kilobytes.
middle() { for run in 1 2 3 4 5; do /usr/bin/time -f '%e %M' -o time.$run "$@" > /dev/null 2>&1; done; sort -n time.[1-5] | sed -n 3p; }
report() {
    what=$1; read -r ours peak <<X
$2
X
    read -r theirs _ <<X
$3
X
    echo "$what: vlei $ours s, $((peak / 1024)) MiB; sqlite3 $theirs s; ratio $(awk -v a="$ours" -v b="$theirs" 'BEGIN { printf "%.2f", a / b }')"
}

# A customer with as many documents as half of them have more.
contact=$(sqlite3 book/records.db "SELECT k.id FROM documents d JOIN contacts_keys k ON k.key = d.contact GROUP BY k.id ORDER BY count(*) LIMIT 1 OFFSET (SELECT count(DISTINCT contact) / 2 FROM documents)")
joined="FROM lines l JOIN documents d ON d.key = l.document AND d.added = l.added JOIN documents_keys k ON k.key = d.key LEFT JOIN contacts c ON c.key = l.contact LEFT JOIN contacts_keys ck ON ck.key = l.contact LEFT JOIN accounts a ON a.key = l.account LEFT JOIN items i ON i.key = l.item"
report "one customer, one year" \
    "$(middle "$vlei" show postings --period fy2026 --only "contact=$contact" --format csv)" \
    "$(middle sqlite3 -csv book/records.db "SELECT k.id, d.date, d.kind, d.number, c.name, a.name, l.memo, l.amount $joined WHERE ck.id = '$contact' AND d.date BETWEEN '2025-03-01' AND '2026-02-28' ORDER BY d.date")"
report "all lines by contact and month" \
    "$(middle "$vlei" show lines --period all --group-by contact,month --summary --columns natural --format csv)" \
    "$(middle sqlite3 -csv book/records.db "SELECT c.name, substr(d.date, 1, 7), sum(l.amount) $joined GROUP BY 1, 2")"
report "all lines as CSV" \
    "$(middle "$vlei" show lines --period all --format csv)" \
    "$(middle sqlite3 -csv book/records.db "SELECT k.id, l.line, d.date, d.kind, c.name, a.name, i.name, l.quantity, l.unit_price, l.amount $joined ORDER BY d.date, d.key, l.line")"
report "the review of a month" \
    "$(middle "$vlei" check --review 2026-05 --format csv)" \
    "$(middle sqlite3 -csv book/records.db "SELECT d.contact, d.kind, sum(max(l.amount, 0)), count(*) $joined GROUP BY d.key")"
