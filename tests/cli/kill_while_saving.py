#!/usr/bin/python3
"""Kills a saving program at random moments; each time a whole job must be there. Usage: SAVER CLI KILLS"""
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
