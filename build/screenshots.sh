#!/bin/sh
# Draws the screenshots from what the program really prints on a terminal of 110 columns.
# Needs imagemagick, python3, fonts-dejavu-core, script (util-linux), tmux, chromium, libreoffice-calc and poppler-utils.
set -eu
root=$(cd "$(dirname "$0")/.." && pwd)
here=$root/docs/screenshots
vlei=${VLEI_BINARY:-$root/artifacts/publish/Vlei/release_linux-x64/vlei}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cd "$work"
mkdir bin && ln -s "$vlei" bin/vlei
PATH=$work/bin:$PATH
export PATH LANG=C.UTF-8 TERM=xterm-256color XDG_STATE_HOME="$work/state" XDG_CONFIG_HOME="$work/config"

# draw NAME LINES COMMAND [SHOWN]: the first LINES lines, with the command, or what is shown in its place, above them.
draw() {
    script -qec "stty cols 110 rows 50; VLEI_PAGER= $3" /dev/null | tr -d '\r' | head -n "$2" |
        sed -e 's/\x1b\[?1h\x1b=//' -e 's/&/\&#38;/g' -e 's/</\&#60;/g' -e 's/\x1b\[0m/<\/span>/g' \
            -e 's/\x1b\[1m/<span weight="bold">/g' -e 's/\x1b\[1;31m/<span weight="bold" foreground="#f09a90">/g' \
            -e 's/\x1b\[31m/<span foreground="#f09a90">/g' -e 's/\x1b\[36m/<span foreground="#86c5c5">/g' \
            -e 's/\x1b\[2m/<span foreground="#98a3ad">/g' -e 's/\x1b\[1;36m/<span weight="bold" foreground="#86c5c5">/g' -e 's/\x1b\[7m/<span foreground="#1d2126" background="#e8e6df">/g' -e 's/\x1b\[34m/<span foreground="#86b6ea">/g' -e 's/%/%%/g' > body
    markup=$(printf '<span font="DejaVu Sans Mono 11" foreground="#e8e6df"><span foreground="#8fb8a8">$ %s</span>\n\n' "${4:-$3}"; cat body; printf '</span>')
    convert -background '#1d2126' -bordercolor '#1d2126' "pango:$markup" -border 20x16 \
        -gravity northwest -background '#1d2126' -extent 1280x800\< -strip -define png:exclude-chunks=date,time "$here/$1.png"
}

vlei demo > /dev/null 2>&1
export VLEI_BOOK=reedwater
draw overview 60 'vlei show overview'
draw explain 46 'vlei explain profit-loss --period last-month --compare prior-year --row net-profit --most 3'
draw show-compared 44 'vlei show profit-loss --period fiscal-year-to-date --compare prior-year --change --share income --depth 1'
draw general-ledger 44 'vlei show general-ledger --period 2026-05 --only account=1020,1030'
draw aging 44 'vlei show receivables-aging --as-of last-month'
# walk NAME REPORT KEYS…: a walk on a terminal of 110 columns, as it stands after some keys.
walk() {
    name=$1 shown="vlei browse $2"
    shift
    tmux -L shots -f /dev/null new-session -d -x 110 -y 34 "vlei browse $1"
    shift
    sleep 1
    for key in "$@"; do tmux -L shots send-keys -- "$key"; sleep 0.3; done
    tmux -L shots capture-pane -p -e > raw
    tmux -L shots kill-server

    # tmux changes colours one by one; what draws knows those that the program writes, each ended.
    python3 - > seen <<'EOF'
import re
state = {}
for part in re.split(r"(\x1b\[[0-9;]*m|\n)", open("raw").read()):
    if part.startswith("\x1b["):
        for code in part[2:-1].split(";"):
            kind = "weight" if code in ("1", "2", "22") else "turned" if code in ("7", "27") else "colour"
            state = {} if code in ("", "0") else state if code == "49" else {**state, kind: "" if code in ("22", "27", "39") else code}
    elif part.strip(" \n") or (part != "\n" and state.get("turned")):
        code = state["turned"] if state.get("turned") else ";".join(filter(None, (state.get("weight"), state.get("colour"))))
        print(f"\x1b[{code}m{part}\x1b[0m" if code else part, end="")
    else:
        print(part, end="")
EOF
    draw "$name" 40 'cat seen' "$shown"
}
walk browse 'profit-loss --period last-month --compare prior-year --change' Down Down Right
draw money-to-come 34 'vlei show money-to-come --money 20000 --as-usual'
draw review 52 'vlei check --review last-3-months'
draw reports 44 'vlei reports'
draw trace 34 'vlei trace profit-loss --period 2026-05 --basis cash --compare prior-year --change --row 4010 --column Change'
cp -r reedwater/records late && sed -i '/^BILL-00585,/s/8102.00/8420.00/' late/lines.csv
vlei close 2026-05 2> /dev/null && vlei import late > /dev/null 2>&1
draw changes 44 'vlei changes --since 1 profit-loss --period 2026-05'
vlei run month-end > /dev/null && sed -i '/^BILL-00585,/s/8420.00/8500.00/' late/lines.csv && vlei import late > /dev/null 2>&1
draw run 44 'vlei run month-end'
# A letter as a mail program shows it: its head, and its page below.
vlei demo letters-book > /dev/null 2>&1
printf 'server = "localhost"\nfrom = "Reedwater Books <books@reedwater.example>"\n' > letters-book/mail.toml
vlei send month-end --formats pdf,xlsx --dry-run letters --book letters-book > /dev/null 2>&1
python3 - > letter.html <<'EOF'
import email, email.policy, html
letter = email.message_from_binary_file(open("letters/001.eml", "rb"), policy=email.policy.default)
head = "".join(f"<tr><td>{name}</td><td>{html.escape(str(letter[name]))}</td></tr>" for name in ("From", "To", "Date", "Subject"))
style = "body{margin:0;background:#e4e7ea}table{width:100%;background:#f6f7f8;border-bottom:1px solid #cfd4d9;padding:14px 26px;" \
    "font:15px system-ui,sans-serif;color:#1d2126}td:first-child{color:#5b6570;width:5em}iframe{border:0;width:100%;height:680px;background:#fff}"
page = html.escape(letter.get_body(("html",)).get_content().replace("<body style=\"", "<body style=\"padding:26px;"))
print(f"<!doctype html><meta charset=utf-8><style>{style}</style><table>{head}</table><iframe srcdoc=\"{page}\"></iframe>")
EOF
chromium --headless --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,800 --screenshot=letter.png letter.html > /dev/null 2>&1
convert letter.png -strip -define png:exclude-chunks=date,time "$here/letter.png"
# A document as the program that opens it shows it, at most 1280 by 800.
page() { convert "$1" -resize 1280x800\> -background '#8a9299' -gravity north -extent 1280x800 -strip -define png:exclude-chunks=date,time "$here/$2.png"; }
vlei show balance-sheet --as-of 2026-05-31 --compare prior-year --change --depth 0 --accent '#1f5f8b' --chart --to workbook.xlsx
HOME=$work soffice --headless --convert-to pdf workbook.xlsx > /dev/null 2>&1
pdftoppm -r 110 -png -singlefile workbook.pdf workbook && page workbook.png workbook
vlei show profit-loss --period 2025-07/2026-06 --by quarter --compare prior-year --change --chart --accent '#1f5f8b' --to page.pdf --overwrite
pdftoppm -r 110 -png -singlefile page.pdf pdf && page pdf.png pdf
vlei show statement-of-account --period last-3-months --only "contact.name=Heron*" --to statement.pdf
pdftoppm -r 110 -png -singlefile statement.pdf statement && page statement.png statement-of-account
vlei show profit-loss --period last-12-months --by month --chart --with-detail --lang en --to page.html
chromium --headless --no-sandbox --disable-gpu --no-first-run --disable-background-networking --disable-component-update --disable-sync \
    --user-data-dir="$work/browser" --hide-scrollbars --window-size=1280,800 --screenshot="$work/web.png" "file://$work/page.html" > /dev/null 2>&1
page web.png page
vlei init hollow --name 'Hollow Creek Canoes' --currency ZAR --fiscal-year-start 3 > /dev/null 2>&1
export VLEI_BOOK=hollow
cp reedwater/foreign/* .
vlei map chart.csv > /dev/null 2>&1 && vlei import chart.csv --new take > /dev/null 2>&1
draw map 44 'vlei map joernaal-2026-03.csv'
vlei map invoices-2026.csv > /dev/null 2>&1
sed -i -e 's/HC-507,.*/HC-507,22\/04\/2026,22\/05\/2026,Alder School,"9,100.00","1,365.00","10,456.00"/' -e 's/03\/04\/2026/31\/04\/2026/' invoices-2026.csv
draw proof 20 'vlei import invoices-2026.csv --new take'
