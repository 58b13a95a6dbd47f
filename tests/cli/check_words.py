#!/usr/bin/python3
"""One way to speak: every sentence that a maker reads stands in assets/text/, under a key that is used. Usage: SOURCE

Refused: words in the code of window, sheets and command line; a key in the code that has no sentence; a sentence that
nothing says."""
import json
import pathlib
import re
import sys

source = pathlib.Path(sys.argv[1])
troubles = []


def each_once(pairs):
    keys = [key for key, _ in pairs]
    troubles.extend(f"assets/text/en.json: {key} stands twice" for key in set(keys) if keys.count(key) > 1)
    return dict(pairs)


sentences = json.loads((source / "assets/text/en.json").read_text(), object_pairs_hook=each_once)
LITERAL = re.compile(r'"((?:[^"\\\n]|\\.)*)"')
KEY = re.compile(r"[a-z0-9-]+(\.[a-z0-9-]+)+$")
FILE = re.compile(r"\.(json|sqlite|ini|svg|dxf|plt|csv|ics|pdf|png|ttf|otf|skarvel|log|h|txt)$")
# What stands in code and is read by no maker: names of widgets, styles, formats, SQL, answers of machines, paths.
UNREAD = re.compile(r"setObjectName|setProperty|setStyleSheet|findChild|objectName|QFont|#include|static_assert|"
                    r"assert|throw |regex|session|<< \"(SELECT|INSERT|CREATE)|fromUtf8\(R|getenv|QSettings")
# Names of files, styles, the program itself and what a desktop is asked for, and how a date is shown.
UNSAID = {"Regular", "Medium", "Bold", "Fusion", "Skarvel", "ddd d MMM yyyy  HH:mm", "from memory", "Notify", "Inhibit"}
WORDS = re.compile(r"[A-Za-z]{2,} [A-Za-z]{2,}|^[A-Z][a-z]{2,}[.…:!?]?$")
groups = {key.split(".")[0] for key in sentences} - {"file"}
used, prefixes, suffixes = set(), set(), set()


def code_of(path):
    """Lines without their comments."""
    text = re.sub(r"/\*.*?\*/", "", path.read_text(), flags=re.S)
    for number, line in enumerate(text.splitlines(), 1):
        line = re.sub(r"(^|\s)//.*$", "", line)
        yield number, line


for path in sorted((source / "src").rglob("*.[ch]*")):
    name = path.relative_to(source)
    speaks = name.parts[1] in ("app", "cli") or name.parts[1:3] == ("core", "sheets")
    for number, line in code_of(path):
        if re.search(r"(?<![A-Za-z_])(tr|QT_TR_NOOP)\(", line):
            troubles.append(f"{name}:{number}: speaks past the catalogue")
        for match in LITERAL.finditer(line):
            text = match.group(1)
            if KEY.match(text) and not FILE.search(text) and not text[0].isdigit():
                used.add(text)
                known = text in sentences or any(key.startswith(text) for key in sentences)
                if not known and text.split(".")[0] in groups and f'["{text}"]' not in line:
                    troubles.append(f"{name}:{number}: no sentence for {text}")
            elif re.match(r"-[a-z-]+$", text):
                suffixes.add(text)
            elif re.match(r"[a-z0-9-]+\.([a-z0-9-]+[.-])?$", text) or (text.endswith("-") and "." in text):
                prefixes.add(text)
            elif speaks and text not in UNSAID and WORDS.search(text) and not UNREAD.search(line):
                troubles.append(f"{name}:{number}: words in the code: {text!r}")

prefixes |= {key for key in used if key not in sentences}
trade = " ".join(path.read_text() for path in (source / "assets/trade").glob("*.json"))
for key in sentences:
    spoken = key in used or any(key.endswith(s) and key.removesuffix(s) in used for s in suffixes) or f'"{key}"' in trade or any(key.startswith(prefix) for prefix in prefixes)
    if not spoken:
        troubles.append(f"assets/text/en.json: nothing says {key}")

print("\n".join(troubles))
if troubles:
    sys.exit(f"{len(troubles)} troubles")
print(f"{len(sentences)} sentences, each of them used")
