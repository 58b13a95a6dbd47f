#!/usr/bin/env bash
# The main path in a real window under Xvfb, with real mouse and key events: starts the program, types the word, picks
# paint-through, exports, and looks for the right files. Usage: PROGRAM SOURCE
program=$1
. "$(dirname "$0")/real.sh"
start --at 2026-05-04T17:40
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
xdotool mousemove 1120 185 click 1
xdotool type --delay 15 "BOATHOUSE"
until_kept '"words": "BOATHOUSE"'
# Sections by a click on the ticket, then decal and back to paint-through by clicks.
xdotool mousemove 120 345 click 1
sleep 0.4
xdotool mousemove 1052 153 click 1
until_kept '"way": "decal"'
xdotool mousemove 1186 153 click 1
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
until_kept '"1/saw"'
sleep 1.2
xdotool key space
sleep 2.2
picture bench
kill -9 "$running"
grep -q '"1/sand"' "$folder"/data/unsaved/*.unsaved || fail "the last tick was lost"
echo "typed, clicked, exported: $(ls "$folder/out" | tr '\n' ' ')"
