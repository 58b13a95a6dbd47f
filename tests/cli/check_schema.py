#!/usr/bin/python3
"""Job files against docs/job-format.schema.json: what the program writes, and what the demo ships. Usage: SOURCE SAVER"""
import json
import pathlib
import subprocess
import sys
import tempfile

import jsonschema

source, saver = pathlib.Path(sys.argv[1]), sys.argv[2]
schema = json.loads((source / "docs/job-format.schema.json").read_text())
jsonschema.Draft7Validator.check_schema(schema)
validator = jsonschema.Draft7Validator(schema)
with tempfile.TemporaryDirectory() as folder:
    written = pathlib.Path(folder) / "job.skarvel"
    subprocess.run([saver, str(written), "--once"], check=True)
    files = [written, *sorted((source / "demo").glob("*.skarvel"))]
    for path in files:
        job = json.loads(path.read_text())
        for error in validator.iter_errors(job):
            sys.exit(f"{path.name}: {list(error.path)}: {error.message}")
        # A schema that accepts anything proves nothing.
        job["surprise"] = 1
        if validator.is_valid(job):
            sys.exit(f"{path.name}: an unknown key was accepted")
print(f"{len(files)} job files agree with the schema")
