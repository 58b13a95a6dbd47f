# What the tests in a real window share: a display of their own, the program on it, and how to see what it did.
# Sourced with `program` set; `start` takes the program's further arguments.
set -euo pipefail
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

# A window that was found may not be ready for the focus yet.
focus() {
    for _ in $(seq 30); do
        timeout 5 xdotool windowfocus --sync "$1" 2>/dev/null && return
        sleep 0.2
    done
    echo "no window takes the focus"
    exit 1
}
start() {
    "$program" --data "$folder/data" --size 1280x800 "$@" > "$folder/program.log" 2>&1 &
    running=$!
    window=""
    for _ in $(seq 150); do
        window=$(xdotool search --onlyvisible --name "Skarvel" 2>/dev/null | head -n 1) && [ -n "$window" ] && break
        sleep 0.1
    done
    [ -n "$window" ] || { echo "no window was shown"; cat "$folder/program.log" "$folder/xvfb.log"; exit 1; }
    xdotool windowmove "$window" 0 0 || true
    focus "$window"
    sleep 0.5
}

picture() { import -window root "$folder/$1.png" 2>/dev/null || true; }
fail() { picture trouble; echo "$1"; [ -z "${KEEP_PICTURES:-}" ] || cp "$folder"/*.png "$KEEP_PICTURES"/; exit 1; }

# Waits for what the program keeps against a crash to say so: no guess how fast this machine is.
kept() { cat "$folder"/data/unsaved/*.unsaved 2>/dev/null; }
until_kept() {
    for _ in $(seq 100); do
        kept | grep -q -- "$1" && return
        sleep 0.1
    done
    fail "the job never said $1"
}
until_gone() {
    for _ in $(seq 100); do
        kept | grep -q -- "$1" || return 0
        sleep 0.1
    done
    fail "the job still says $1"
}
