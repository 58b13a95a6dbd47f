#!/usr/bin/python3
"""Kills a saving program at random moments; each time a whole job must be there. The same for an export: where there is
a manifest, all that it names is there, and whole. Usage: SAVER CLI KILLS"""
import json
import pathlib
import random
import subprocess
import sys
import tempfile
import time

saver, cli, kills = sys.argv[1], sys.argv[2], int(sys.argv[3])
random.seed(11)
with tempfile.TemporaryDirectory() as folder:
    job = pathlib.Path(folder) / "job.skarvel"
    whole = 0
    for n in range(kills):
        process = subprocess.Popen([saver, str(job)])
        deadline = time.monotonic() + 20
        while not job.exists() and time.monotonic() < deadline:
            time.sleep(0.002)
        time.sleep(random.uniform(0.0, 0.05))
        process.kill()
        process.wait()
        read = subprocess.run([cli, "plan", str(job), "--at", "2026-05-04T18:00"], capture_output=True, text=True)
        if read.returncode not in (0, 3) or "BOAT" not in read.stdout:
            sys.exit(f"kill {n + 1}: {read.stderr}")
        whole += 1
        if n % 10 == 9:
            job.unlink()
    print(f"{whole} kills, a whole job each time")

    # Exports into one folder, broken off at any moment.
    job = pathlib.Path(__file__).resolve().parents[2] / "demo" / "boathouse-porch-board.skarvel"
    out = pathlib.Path(folder) / "out"
    subprocess.run([cli, "export", str(job), "--to", str(out)], capture_output=True)
    usual = {p.name: p.stat().st_size for p in out.iterdir()}
    if "manifest.json" not in usual:
        sys.exit("nothing was exported")
    kept = 0
    for n in range(kills // 2):
        process = subprocess.Popen([cli, "export", str(job), "--to", str(out)], stdout=subprocess.DEVNULL,
                                   stderr=subprocess.DEVNULL)
        time.sleep(random.uniform(0.0, 1.0))
        process.kill()
        process.wait()
        manifest = out / "manifest.json"
        if not manifest.exists():
            continue
        kept += 1
        json.loads(manifest.read_text())
        for name, size in usual.items():
            file = out / name
            if not file.exists() or (name.endswith((".svg", ".dxf", ".plt")) and file.stat().st_size != size):
                sys.exit(f"export {n + 1}: {name} is not whole beside a manifest")
    print(f"{kills // 2} kills while exporting, {kept} of them with a whole export")
