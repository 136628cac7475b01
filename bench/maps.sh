#!/bin/sh
# Measures files of other programs, on this machine: mapping a journal, importing it against the same records as a record set, and a
# workbook of it against sqlite3 .import of the same rows. ROWS=50000 makes it smaller. Needs sqlite3, time and libreoffice-calc.
set -eu
cd "$(dirname "$0")/.."
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
vlei=$VLEI
rows=${ROWS:-200000}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
export HOME="$work/home"
mkdir home
of() { /usr/bin/time -f "%e %U %M" -o time "$@" > /dev/null 2> /dev/null; cat time; }
word() { echo "$2" | cut -d' ' -f"$1"; }
ratio() { awk -v a="$1" -v b="$2" 'BEGIN { printf "%.2f", b / a }'; }

"$vlei" demo all --record-set --documents 60000 --years 3 --seed 5 2> /dev/null
mkdir set
for table in accounts contacts documents lines; do echo ".import all/$table.csv $table"; done > load
sqlite3 -csv records.db < load
sqlite3 records.db "CREATE TABLE taken AS SELECT rowid AS place, document FROM lines ORDER BY rowid LIMIT $rows;
    DELETE FROM taken WHERE document = (SELECT document FROM taken ORDER BY place DESC LIMIT 1);
    CREATE INDEX documents_id ON documents (id); CREATE INDEX taken_document ON taken (document)"
cp all/accounts.csv all/contacts.csv set
sqlite3 -csv -header records.db "SELECT id, kind, date, contact, memo FROM documents WHERE id IN (SELECT document FROM taken)" > set/documents.csv
sqlite3 -csv -header records.db "SELECT l.document, account, amount, contact FROM lines l JOIN taken t ON t.place = l.rowid" > set/lines.csv
sqlite3 -csv -header -separator ';' records.db "SELECT substr(d.date, 9, 2) || '.' || substr(d.date, 6, 2) || '.' || substr(d.date, 1, 4) AS Datum,
    d.id AS Belegnr, l.account || ' ' || a.name AS Konto, coalesce(c.name, '') AS Kunde, d.memo AS Text,
    CASE WHEN l.amount > 0 THEN replace(printf('%.2f', l.amount), '.', ',') END AS Soll,
    CASE WHEN l.amount <= 0 THEN replace(printf('%.2f', -l.amount), '.', ',') END AS Haben
    FROM lines l JOIN taken t ON t.place = l.rowid JOIN documents d ON d.id = l.document JOIN accounts a ON a.code = l.account
    LEFT JOIN contacts c ON c.id = CASE WHEN l.contact = '' THEN d.contact ELSE l.contact END" > journal.csv
echo "$(wc -l < journal.csv) rows"
for book in set map sheet; do "$vlei" init "of-$book" --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null; done
mapped=$(of "$vlei" map journal.csv --book of-map)
echo "map: $(word 1 "$mapped") s, $(word 2 "$mapped") s of the processor, $(($(word 3 "$mapped") / 1024)) MiB"
set=$(of "$vlei" import set --book of-set)
map=$(of "$vlei" import journal.csv --book of-map --new take)
echo "import: record set $(word 1 "$set") s, map $(word 1 "$map") s, $(ratio "$(word 1 "$set")" "$(word 1 "$map")") times;" \
    "processor $(word 2 "$set") and $(word 2 "$map") s; $(($(word 3 "$map") / 1024)) MiB"
soffice --headless --convert-to "xlsx:Calc MS Excel 2007 XML" --infilter="CSV:59,34,76,1" journal.csv > /dev/null 2>&1
"$vlei" map journal.xlsx --book of-sheet > /dev/null 2>&1
sheet=$(of "$vlei" import journal.xlsx --book of-sheet --new take)
sqlite=$(of sqlite3 -csv -separator ';' fresh.db ".import journal.csv journal")
echo "workbook: sqlite3 .import of its rows $(word 1 "$sqlite") s, import $(word 1 "$sheet") s, $(($(word 3 "$sheet") / 1024)) MiB"
