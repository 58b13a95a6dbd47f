#!/usr/bin/python3
"""Start to first painted window against an empty window, and memory of the running demo. Usage: BUILD"""
import os
import pathlib
import shutil
import statistics
import subprocess
import sys
import tempfile
import time

build = pathlib.Path(sys.argv[1])
source = pathlib.Path(__file__).resolve().parent.parent
job = source / "demo/boathouse-porch-board.skarvel"
environment = dict(os.environ, QT_QPA_PLATFORM="offscreen")


def seconds(command, surroundings):
    began = time.monotonic()
    subprocess.run(command, env=surroundings, check=True, stderr=subprocess.DEVNULL)
    return time.monotonic() - began


def measure(data, surroundings, where):
    empty, full = [], []
    for _ in range(11):
        empty.append(seconds([build / "benchmarks/empty-window"], surroundings))
        shutil.rmtree(data, ignore_errors=True)
        program = [build / "src/skarvel", "--data", data, "--at", "2026-05-04T17:40", "--end-when-painted", job]
        full.append(seconds(program, surroundings))
    a, b = statistics.median(empty), statistics.median(full)
    print(f"start to first painted window, {where}: {b * 1000:.0f} ms; an empty window: {a * 1000:.0f} ms; ratio {b / a:.2f}")


with tempfile.TemporaryDirectory() as folder:
    data = pathlib.Path(folder) / "data"
    measure(data, environment, "offscreen")
    # With a window system, as makers have one, the empty window costs what any window costs.
    if shutil.which("Xvfb"):
        display = ":97"
        server = subprocess.Popen(["Xvfb", display, "-screen", "0", "1280x800x24", "-noreset"], stderr=subprocess.DEVNULL)
        time.sleep(2)
        measure(data, dict(os.environ, QT_QPA_PLATFORM="xcb", DISPLAY=display), "under Xvfb")
        server.terminate()
    demo = [build / "src/skarvel", "--data", data, "--at", "2026-05-04T17:40", job]
    process = subprocess.Popen(demo, env=environment, stderr=subprocess.DEVNULL)
    time.sleep(3)
    status = pathlib.Path(f"/proc/{process.pid}/status").read_text()
    process.kill()
    rss = next(line for line in status.splitlines() if line.startswith("VmRSS"))
    print(f"memory of the running demo: {int(rss.split()[1]) / 1024:.0f} MiB")
