#!/bin/sh
# A few runs of a built program, as a person would: the demo, a report of each kind, a trace, a document.
#
#   build/smoke.sh VLEI
set -eu
vlei=$(cd "$(dirname "$1")" && pwd)/$(basename "$1")
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
export HOME="$work" XDG_STATE_HOME="$work/state" XDG_CONFIG_HOME="$work/config" LANG=C.UTF-8
"$vlei" demo > /dev/null 2>&1
export VLEI_BOOK=reedwater
for report in profit-loss balance-sheet general-ledger receivables-aging customer-ledger money-to-come sales-by-item documents; do
    "$vlei" show "$report" --to "$report.xlsx" --to "$report.json" > /dev/null
    echo "ok  $report"
done
"$vlei" trace profit-loss --period 2026-05 --row 4010 > /dev/null && echo "ok  trace"
"$vlei" run month-end > /dev/null && echo "ok  run"
"$vlei" check > /dev/null && echo "ok  check"
