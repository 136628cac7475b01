#!/bin/sh
# Measures a group over many books: 200 client books of 5,000 documents each, all at once against one after the other.
# BOOKS=20 makes fewer; VLEI names a published program, else one is published first.
set -eu
cd "$(dirname "$0")/.."
[ -n "${VLEI:-}" ] || { ./build/publish.sh; VLEI=$PWD/artifacts/publish/Vlei/release_linux-x64/vlei; }
books=${BOOKS:-200}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"

"$VLEI" demo firm > /dev/null 2>&1
rm -rf firm/clients firm/records firm/records.db*
for number in $(seq "$books"); do
    book=$(printf 'clients/c%03d' "$number")
    "$VLEI" demo set --record-set --documents 5000 --years 3 --seed "$number" 2> /dev/null
    "$VLEI" init "$book" --name "Client $number" --currency ZAR --fiscal-year-start 3 2> /dev/null
    printf 'library = "../../firm"\nclock = 2026-06-30\n' >> "$book/book.toml"
    "$VLEI" import set --book "$book" > /dev/null 2>&1
    rm -rf set
done
mkdir made
echo "$books books, $(du -sh clients | cut -f1), $(nproc) processors"
for round in 1 2; do
    for jobs in 1 2 4; do
        # Moved away: where many files were just deleted, some file systems are slow to make others.
        for book in clients/*; do
            [ ! -d "$book/out" ] || mv "$book/out" "made/$(basename "$book")-$round-$jobs"
        done
        /usr/bin/time -f "%e %M" -o "time$jobs" "$VLEI" run month-end --books 'clients/*' --jobs "$jobs" > /dev/null 2> /dev/null
        awk -v jobs="$jobs" -v round="$round" '{ printf "round %d, %d at once: %6.2f s, %4.0f MiB\n", round, jobs, $1, $2 / 1024 }' "time$jobs"
    done
    awk '{ t[FILENAME] = $1 } END { printf "two at once take %.2f of one after the other\n", t["time2"] / t["time1"] }' time1 time2
done
/usr/bin/time -f "again, with nothing to write but the same: %e s, %M KB" "$VLEI" run month-end --books 'clients/*' > /dev/null 2> again
tail -1 again
/usr/bin/time -f "profit and loss of all of them side by side: %e s, %M KB" -o again "$VLEI" show profit-loss --period last-month --clock 2026-06-30 --books 'clients/*' --by book --format csv > /dev/null
cat again
