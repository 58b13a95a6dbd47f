"""Reads the cut files of a job back with tools of its own (ezdxf, shapely, a few lines for SVG and plotter language), lays
the sections by the manifest, and compares with the design. Usage: FOLDER. Prints what is wrong, a line each, for every job in
a folder of its own within.

Each holds the exported files and design.json: for each colour its way, its ink and the face (rings in mm, filled
where an odd number lies round), the gap on the mat, the lap, and the margin."""
import json
import pathlib
import re
import sys

import ezdxf
from shapely.affinity import affine_transform
from shapely.geometry import LineString, Polygon, box
from shapely.ops import unary_union

def even_odd(rings):
    whole = Polygon()
    for ring in rings:
        if len(ring) > 2:
            whole = whole.symmetric_difference(Polygon(ring).buffer(0))
    return whole


def from_svg(text):
    height = float(re.search(r'viewBox="0 0 \S+ ([\d.]+)"', text).group(1))
    found = []
    for tag, kind, body in re.findall(r'<(path|line) class="(ink|film|line)" ([^>]*)/>', text):
        if tag == "line":
            x1, y1, x2, y2 = (float(v) for v in re.findall(r'="([-\d.]+)"', body))
            found.append((kind, [(x1, height - y1), (x2, height - y2)]))
            continue
        for part in re.findall(r"M([^MZ]*)Z", body):
            points = [tuple(float(v) for v in p.split()) for p in part.split("L")]
            found.append((kind, [(x, height - y) for x, y in points]))
    return found


def from_dxf(path):
    found = []
    for e in ezdxf.readfile(path).modelspace():
        kind = {"ink": "ink", "film": "film", "lines": "line"}[e.dxf.layer.rsplit("-", 1)[1]]
        if e.dxftype() == "LINE":
            found.append((kind, [(e.dxf.start.x, e.dxf.start.y), (e.dxf.end.x, e.dxf.end.y)]))
        else:
            found.append((kind, [(v.dxf.location.x, v.dxf.location.y) for v in e.vertices]))
    return found


def from_hpgl(text):
    found, kind, points = [], None, []
    for order in text.replace("\n", "").split(";"):
        numbers = [int(n) / 40 for n in order[2:].split(",") if n]
        at = list(zip(numbers[::2], numbers[1::2]))
        if order.startswith("SP"):
            kind = {"1": "ink", "2": "film", "3": "line"}.get(order[2:])
        elif order.startswith("PU"):
            points = at
        elif order.startswith("PD"):
            points = points + at
            found.append((kind, points[:-1] if kind != "line" and points[0] == points[-1] else points))
    return found


def apart(a, b):
    return LineString(a + a[:1]).hausdorff_distance(LineString(b + b[:1]))


def check(folder):
    manifest = json.loads((folder / "manifest.json").read_text())
    design = json.loads((folder / "design.json").read_text())
    wrong = []
    covered = {}
    films = {}
    for load in manifest["loads"]:
        name = load["files"]
        svg = from_svg((folder / f"{name}.svg").read_text())
        dxf = from_dxf(folder / f"{name}.dxf")
        plt = from_hpgl((folder / f"{name}.plt").read_text())
        if not len(svg) == len(dxf) == len(plt):
            wrong.append(f"{name}: {len(svg)}, {len(dxf)} and {len(plt)} paths")
            continue
        for a, b, c in zip(svg, dxf, plt):
            if a[0] != b[0] or a[0] != c[0] or apart(a[1], b[1]) > 1e-5 or apart(a[1], c[1]) > 0.0178:
                wrong.append(f"{name}: formats differ by {apart(a[1], b[1]):.4f} and {apart(a[1], c[1]):.4f} mm")
                break
        across, along = (float(load["usable"][k]) for k in ("across", "along"))
        beyond = unary_union([Polygon(p) for k, p in svg if k != "line"]).difference(box(0, 0, across, along)).area
        if beyond > 1e-6:
            wrong.append(f"{name}: {beyond} sq mm beyond the usable area")
        pieces = unary_union([Polygon(p).buffer(0) for k, p in svg if k != "line"])
        pieces = list(pieces.geoms) if hasattr(pieces, "geoms") else [pieces]
        for i, a in enumerate(pieces):
            for b in pieces[i + 1:]:
                if a.distance(b) < design["gap"] - 1e-3:
                    wrong.append(f"{name}: two sections {a.distance(b):.3f} mm apart")
        stays = even_odd([p for k, p in svg if k != "line"])
        for section in load["sections"]:
            x, y = float(section["mat"]["x"]), float(section["mat"]["y"])
            here = [p for p in pieces if abs(p.bounds[0] - x) < 1e-3 and abs(p.bounds[1] - y) < 1e-3]
            if len(here) != 1:
                wrong.append(f"{name}: {section['letters']} is not where the manifest says")
                continue
            # Inside before outside: what lies within a path is cut before it.
            order = [(k, Polygon(p).buffer(0)) for k, p in svg if k != "line" and here[0].contains(Polygon(p).representative_point())]
            for i, (_, outer) in enumerate(order):
                if any(outer.buffer(-1e-4).contains(inner) for _, inner in order[i + 1:]):
                    wrong.append(f"{name}: {section['letters']}: an outside is cut before what lies in it")
                    break
            mx, my = float(section["moved"]["x"]), float(section["moved"]["y"])
            back = [0, 1, -1, 0, -my, mx] if section["turned"] else [1, 0, 0, 1, -mx, -my]
            film = affine_transform(here[0], back)
            out = affine_transform(here[0].difference(stays), back)
            covered.setdefault(section["of"], []).append(out)
            films.setdefault(section["of"], []).append(film)

    for colour in design["colours"]:
        of = colour["of"]
        ink = even_odd(colour["ink"])
        if of not in covered:
            if ink.area > 0.01:
                wrong.append(f"{of}: nothing is cut")
            continue
        if colour["mask"]:
            # Painted where a mask is open and no other lies over it.
            closed = [f.difference(o) for f, o in zip(films[of], covered[of])]
            painted = unary_union(covered[of]).difference(unary_union(closed))
            bare = ink.buffer(colour["margin"] - 0.2).intersection(box(*colour["face"])).difference(unary_union(films[of]))
            if bare.area > colour["bare"] + 1:
                wrong.append(f"{of}: {bare.area:.1f} sq mm of margin bare, {colour['bare']:.1f} told")
        else:
            painted = unary_union(covered[of])
        off = painted.symmetric_difference(ink).buffer(-0.002).area
        if off > 1e-3:
            wrong.append(f"{of}: ink is off by {off:.4f} sq mm")
        # Ink that two sections hold lies in a lap: nowhere wider than one.
        each = covered[of]
        twice = unary_union([a.intersection(b) for i, a in enumerate(each) for b in each[i + 1:] if a.intersects(b)])
        if twice.buffer(-colour["lap"] / 2 - 0.01).area > 0.01:
            wrong.append(f"{of}: {twice.area:.2f} sq mm of ink twice, wider than a lap")
    return wrong


for job in sorted(pathlib.Path(sys.argv[1]).iterdir()):
    for what in check(job):
        print(job.name, what)
