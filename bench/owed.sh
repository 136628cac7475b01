#!/bin/sh
# Measures who owes and who is owed on the book of a million lines with 20,000 more customers and 150,000 more open
# invoices, as ratios against the sqlite3 program on the same records in the same run.
set -eu
cd "$(dirname "$0")/.."
command -v hyperfine > /dev/null || { echo "This measures with hyperfine, which is not installed." >&2; exit 1; }
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
vlei=$VLEI
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

"$vlei" demo set --record-set --documents 250000 --years 2 --seed 7 2> /dev/null
mkdir owed
awk 'BEGIN {
    srand(3); customers = 20000; invoices = 150000
    print "id,name,kind" > "owed/contacts.csv"
    for (i = 1; i <= customers; i++) printf "X%05d,Owner %d of the lake,customer\n", i, (i * 7919) % customers > "owed/contacts.csv"
    print "id,kind,date,due,number,contact" > "owed/documents.csv"; print "document,account,amount" > "owed/lines.csv"
    for (i = 1; i <= invoices; i++) {
        month = 6 + int(rand() * 21); day = 1 + int(rand() * 28)
        date = sprintf("%04d-%02d-%02d", 2024 + int(month / 12), month % 12 + 1, day)
        due = sprintf("%04d-%02d-%02d", 2024 + int((month + 1) / 12), (month + 1) % 12 + 1, day)
        printf "O%06d,invoice,%s,%s,O%06d,X%05d\n", i, date, due, i, 1 + int(rand() * customers) > "owed/documents.csv"
        amount = int(rand() * 500000) / 100 + 1
        printf "O%06d,1100,%.2f\nO%06d,4010,%.2f\n", i, amount, i, -amount > "owed/lines.csv"
    }
}'
"$vlei" init book --name Large --currency ZAR --fiscal-year-start 3 2> /dev/null
"$vlei" import set --book book > /dev/null
/usr/bin/time -f 'importing 150,000 invoices into it: %e s, %M KB' "$vlei" import owed --book book > /dev/null

# The same question in SQL: what documents put on the control account, less what was settled of them, by customer and class.
{ echo .mode csv; for folder in set owed; do for table in documents lines; do
    [ "$folder" = set ] && echo ".import $folder/$table.csv $table" || echo ".import $folder/$table.csv owed_$table"
done; done; echo ".import set/settlements.csv settlements"; } | sqlite3 bare.db
sqlite3 bare.db "
    CREATE TABLE items(document TEXT PRIMARY KEY, contact TEXT, date TEXT, due TEXT, total INTEGER) WITHOUT ROWID;
    INSERT INTO items SELECT d.id, d.contact, d.date, d.due, CAST(round(sum(l.amount) * 100) AS INTEGER) FROM documents d
        JOIN lines l ON l.document = d.id AND l.account = '1100' GROUP BY d.id;
    INSERT INTO items SELECT d.id, d.contact, d.date, d.due, CAST(round(l.amount * 100) AS INTEGER) FROM owed_documents d
        JOIN owed_lines l ON l.document = d.id AND l.account = '1100';
    CREATE TABLE settled(document TEXT, date TEXT, amount INTEGER);
    INSERT INTO settled SELECT \"from\", date, CAST(round(amount * 100) AS INTEGER) FROM settlements
        UNION ALL SELECT \"to\", date, CAST(round(amount * 100) AS INTEGER) FROM settlements;
    CREATE INDEX settled_by_document ON settled(document, date, amount);
    ANALYZE"
ask="SELECT contact, min(3, max(0, (julianday('2026-03-31') - julianday(due)) / 30)) AS class, sum(open) FROM (
    SELECT contact, coalesce(nullif(due, ''), date) AS due, total - sign(total) * coalesce((SELECT sum(amount) FROM settled s
        WHERE s.document = i.document AND s.date <= '2026-03-31'), 0) AS open FROM items i WHERE i.date <= '2026-03-31')
    WHERE open <> 0 GROUP BY contact, class"
as_of='--as-of 2026-03-31 --book book'
hyperfine -N --warmup 3 --runs 15 --export-csv times.csv \
    "sqlite3 bare.db \"$(echo "$ask" | tr '\n' ' ')\"" \
    "$vlei show receivables-aging --summary $as_of" "$vlei show receivables-aging --top 20 $as_of" \
    "$vlei show receivables-aging $as_of --format csv" "$vlei show customer-balances --period 2026-03 --top 20 --book book" \
    "$vlei show money-to-come --as-usual $as_of" > /dev/null 2>&1
tail -n +2 times.csv | awk -F, '
    BEGIN { split("sqlite3, open by customer and class|aging, summary|aging, the 20 largest|aging, every customer, CSV|balances of a month|money to come, as usual", name, "|") }
    { median[NR] = $(NF - 4) * 1000
      printf "%-36s %8.1f ms   %7.4f of sqlite3\n", name[NR], median[NR], median[NR] / median[1] }'
for format in csv json text; do
    /usr/bin/time -f "every open document, $format: %e s, %M KB" "$vlei" show receivables-aging --detail $as_of --format $format > /dev/null
done
