"""Prints for each cut file given: its extents, the length of its knife lines in mm, and how many of them close, as
ezdxf reads a DXF and hp2xx a plotter file."""
import math
import re
import subprocess
import sys

import ezdxf


def tell(name, lines):
    points = [p for line in lines for p in line]
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    length = sum(math.dist(a, b) for line in lines for a, b in zip(line, line[1:]))
    print(name, max(xs) - min(xs), max(ys) - min(ys), length)


for path in sys.argv[1:]:
    if path.endswith(".dxf"):
        lines = []
        closed = 0
        for entity in ezdxf.readfile(path).modelspace():
            if entity.dxftype() == "POLYLINE":
                points = [(v.dxf.location.x, v.dxf.location.y) for v in entity.vertices]
                closed += entity.is_closed
                lines.append(points + points[:1] if entity.is_closed else points)
            elif entity.dxftype() == "LINE":
                lines.append([entity.dxf.start.vec2, entity.dxf.end.vec2])
                lines[-1] = [(p.x, p.y) for p in lines[-1]]
        tell(f"dxf {closed}", lines)
    else:
        subprocess.run(["hp2xx", "-q", "-t", "-m", "svg", "-f", path + ".svg", path], check=True, capture_output=True)
        mm = 25.4 / 72
        lines = []
        for data in re.findall(r'<path d="([^"]*)"', open(path + ".svg").read()):
            numbers = [float(n) * mm for n in re.findall(r"-?[0-9.]+", data)]
            lines.append(list(zip(numbers[::2], numbers[1::2])))
        tell("plt 0", [line for line in lines if len(line) > 1])
