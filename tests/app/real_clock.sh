#!/usr/bin/env bash
# The clock in a real window under Xvfb, with real mouse and key events: work is dragged and pinned, taken back, a
# deadline is typed that cannot be met, what would help is taken, and undone. Usage: PROGRAM SOURCE
program=$1
. "$(dirname "$0")/real.sh"
cp "$2/demo/boathouse-porch-board.skarvel" "$folder/porch.skarvel"
cp "$2/demo/shop.json" "$folder/shop.json"
mkdir -p "$folder/data"
cp "$folder/shop.json" "$folder/data/shop.json"
start --at 2026-05-04T17:40 "$folder/porch.skarvel"
xdotool key ctrl+5
sleep 1.5
picture clock
# The second ground coat, from Tuesday to Thursday.
xdotool mousemove 475 222 mousedown 1
for x in 490 530 590 640 662; do
    xdotool mousemove "$x" 222
    sleep 0.05
done
xdotool mouseup 1
until_kept '"1/ground/2"'
kept | grep -q '"pinned"' || fail "it was moved, but is not pinned"
picture dragged
xdotool key ctrl+z
until_gone '"pinned"'
# A deadline that the hours cannot meet; then what would help.
xdotool mousemove 1090 181 click 1
xdotool key ctrl+a
xdotool type --delay 15 "7 May 12:00"
xdotool key Return
until_kept '"deadline": "2026-05-07T12:00"'
xdotool mousemove 1069 430 click 1
sleep 0.5
xdotool mousemove 1119 466 click 1
kept > "$folder/late"
taken=""
for _ in $(seq 60); do
    sleep 0.5
    xdotool mousemove 1100 515 click 1
    sleep 0.5
    kept > "$folder/now"
    cmp -s "$folder/late" "$folder/now" || { taken=job; break; }
    cmp -s "$folder/shop.json" "$folder/data/shop.json" || { taken=shop; break; }
done
picture helped
[ -n "$taken" ] || fail "nothing that would help was taken"
[ "$taken" = job ] || fail "the shop was changed, which is no undo step of the job"
xdotool key ctrl+z
for _ in $(seq 50); do
    kept > "$folder/now"
    cmp -s "$folder/late" "$folder/now" && break
    sleep 0.1
done
cmp -s "$folder/late" "$folder/now" || fail "what was taken is not undone"
echo "dragged, pinned, taken back; late, helped ($taken), undone"
