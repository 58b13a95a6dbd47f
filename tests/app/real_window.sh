#!/usr/bin/env bash
# The main path in a real window under Xvfb, with real mouse and key events: starts the program, types the word, picks
# paint-through, exports, and looks for the right files. Usage: PROGRAM SOURCE
set -euo pipefail
program=$1
folder=$(mktemp -d)
trap 'kill $(jobs -p) 2>/dev/null || true; rm -rf "$folder"' EXIT

# Xvfb picks a free display and writes its number to the pipe. Without -noreset it starts afresh, and turns callers away
# meanwhile, whenever the last of them leaves: xdotool comes and goes before the program has come.
mkfifo "$folder/display"
Xvfb -displayfd 6 -screen 0 1280x800x24 -nolisten tcp -noreset -ac 6> "$folder/display" 2> "$folder/xvfb.log" &
read -r -t 30 number < "$folder/display"
export DISPLAY=":$number" QT_QPA_PLATFORM=xcb
unset XAUTHORITY WAYLAND_DISPLAY
mkdir "$folder/out"
for _ in $(seq 100); do
    timeout 5 xdotool getdisplaygeometry > /dev/null 2>&1 && break
    sleep 0.1
done
timeout 5 xdotool getdisplaygeometry > /dev/null || { echo "Xvfb does not answer"; cat "$folder/xvfb.log"; exit 1; }

"$program" --data "$folder/data" --at 2026-05-04T17:40 --size 1280x800 > "$folder/program.log" 2>&1 &
window=""
for _ in $(seq 150); do
    window=$(xdotool search --onlyvisible --name "Skarvel" 2>/dev/null | head -n 1) && [ -n "$window" ] && break
    sleep 0.1
done
[ -n "$window" ] || { echo "no window was shown"; cat "$folder/program.log" "$folder/xvfb.log"; exit 1; }
# A window that was found may not be ready for the focus yet.
focus() {
    for _ in $(seq 30); do
        timeout 5 xdotool windowfocus --sync "$1" 2>/dev/null && return
        sleep 0.2
    done
    echo "no window takes the focus"
    exit 1
}
xdotool windowmove "$window" 0 0 || true
focus "$window"
sleep 0.5

picture() { import -window root "$folder/$1.png" 2>/dev/null || true; }
fail() { echo "$1"; [ -z "${KEEP_PICTURES:-}" ] || cp "$folder"/*.png "$KEEP_PICTURES"/; exit 1; }

# Waits for what the program keeps against a crash to say so: no guess how fast this machine is.
until_kept() {
    for _ in $(seq 100); do
        cat "$folder"/data/unsaved/*.unsaved 2>/dev/null | grep -q "$1" && return
        sleep 0.1
    done
    picture trouble
    fail "the job never said $1"
}

# The very first start asks its two questions; the board is a press of the space bar away.
xdotool key space
for _ in $(seq 100); do
    [ -f "$folder/data/shop.json" ] && break
    sleep 0.1
done
[ -f "$folder/data/shop.json" ] || { picture first; fail "the first start was not left"; }
sleep 0.3
# Lettering by its key, the words by a click into their field and the keys of a keyboard.
xdotool key ctrl+2
sleep 0.4
xdotool mousemove 1120 125 click 1
xdotool type --delay 15 "BOATHOUSE"
until_kept '"words": "BOATHOUSE"'
# Sections by a click on the ticket, then decal and back to paint-through by clicks.
xdotool mousemove 120 345 click 1
sleep 0.4
xdotool mousemove 1052 100 click 1
until_kept '"way": "decal"'
xdotool mousemove 1186 100 click 1
until_kept '"way": "paint-through"'
# Export: the folder is typed into the dialog.
xdotool key ctrl+e
for _ in $(seq 100); do
    dialog=$(xdotool search --onlyvisible --name "Where the cut files" 2>/dev/null | head -n 1) && [ -n "$dialog" ] && break
    sleep 0.1
done
[ -n "${dialog:-}" ] || fail "no dialog asks for the folder"
focus "$dialog"
sleep 0.5
picture dialog
xdotool key ctrl+a
xdotool type --delay 10 "$folder/out"
xdotool key Return
sleep 0.5
xdotool key Return
for _ in $(seq 100); do
    [ -f "$folder/out/sheets.pdf" ] && break
    sleep 0.1
done
picture exported
[ -f "$folder/out/01-BOAT+HOUS.svg" ] || fail "no cut file for BOAT and HOUS: $(ls "$folder/out")"
[ -f "$folder/out/02-E.svg" ] || fail "no cut file for E: $(ls "$folder/out")"
[ -f "$folder/out/sheets.pdf" ] || fail "no sheets: $(ls "$folder/out")"
grep -q "paint-through" "$folder/out/01-BOAT+HOUS.svg" || fail "the cut file is no mask"
# What was typed and never saved is kept against a crash.
ls "$folder"/data/unsaved/*.unsaved > /dev/null || fail "no copy of the unsaved job"
# At the bench, by the space bar alone; then the program is killed, and no more than two seconds are lost.
window=$(xdotool search --onlyvisible --name "Skarvel" 2>/dev/null | head -n 1)
focus "$window"
xdotool key ctrl+6
sleep 1.5
xdotool key space
until_kept '"1/sand"'
sleep 1.2
xdotool key space
sleep 2.2
picture bench
kill -9 "$(jobs -p | tail -n 1)"
grep -q '"1/ground/1"' "$folder"/data/unsaved/*.unsaved || fail "the last tick was lost"
echo "typed, clicked, exported: $(ls "$folder/out" | tr '\n' ' ')"
