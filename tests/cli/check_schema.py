#!/usr/bin/python3
"""Job and shop files against their JSON Schemas in docs/, and those against what the program says of itself: what it
writes, and what the demo ships. Usage: SOURCE SAVER CLI"""
import copy
import json
import pathlib
import subprocess
import sys
import tempfile

import jsonschema

source, saver, cli = pathlib.Path(sys.argv[1]), sys.argv[2], sys.argv[3]


def check(kind, files):
    path = source / f"docs/{kind}-format.schema.json"
    if path.read_text() != subprocess.run([cli, "schema", kind], check=True, capture_output=True, text=True).stdout:
        sys.exit(f"{path.name} is not as the program describes its files: skarvel-cli schema {kind} > docs/{path.name}")
    schema = json.loads(path.read_text())
    jsonschema.Draft7Validator.check_schema(schema)
    validator = jsonschema.Draft7Validator(schema)
    for path in files:
        good = json.loads(path.read_text())
        for error in validator.iter_errors(good):
            sys.exit(f"{path.name}: {list(error.path)}: {error.message}")
        # A schema that accepts anything proves nothing.
        for key in good:
            bad = copy.deepcopy(good)
            bad[key] = {"surprise": 1}
            if validator.is_valid(bad):
                sys.exit(f"{path.name}: {key} may be anything")
    print(f"{len(files)} {kind} files agree with the schema")


with tempfile.TemporaryDirectory() as folder:
    written = pathlib.Path(folder) / "job.skarvel"
    subprocess.run([saver, str(written), "--once"], check=True)
    check("job", [written, *sorted((source / "demo").glob("*.skarvel"))])
check("shop", [source / "demo/shop.json"])
