"""Writes DXF drawings with ezdxf into a folder and prints, for each, its name, area and extent as ezdxf has them."""
import math
import sys

import ezdxf
from ezdxf import path, units

folder = sys.argv[1]


def polygon_area(points):
    return abs(sum(a.x * b.y - b.x * a.y for a, b in zip(points, points[1:] + points[:1]))) / 2


def outline_of(entities):
    points = []
    for entity in entities:
        exact = entity if hasattr(entity, "flattening") else path.make_path(entity)
        points.extend(list(exact.flattening(1e-4))[:-1])
    return points


def write(name, draw, unit=units.MM, mm=1):
    document = ezdxf.new("R2010")
    document.units = unit
    entities = draw(document)
    document.saveas(f"{folder}/{name}.dxf")
    points = outline_of(entities)
    xs, ys = [p.x for p in points], [p.y for p in points]
    print(name, polygon_area(points) * mm * mm, (max(xs) - min(xs)) * mm, (max(ys) - min(ys)) * mm)


def spline(document):
    s = document.modelspace().add_open_spline([(0, 0), (40, 90), (120, 70), (160, 20), (110, -60), (30, -40), (0, 0)])
    return [s]


def rational(document):
    points = [(50, 0), (50, 50), (0, 50), (-50, 50), (-50, 0), (-50, -50), (0, -50), (50, -50), (50, 0)]
    half = math.sqrt(0.5)
    weights = [1, half, 1, half, 1, half, 1, half, 1]
    s = document.modelspace().add_rational_spline(points, weights, degree=2)
    s.knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4]
    return [s]


def ellipse(document):
    return [document.modelspace().add_ellipse((30, 20), major_axis=(60, 25), ratio=0.4)]


def half_ellipse(document):
    model = document.modelspace()
    arc = model.add_ellipse((0, 0), major_axis=(50, 0), ratio=0.6, start_param=0, end_param=math.pi)
    return [arc, model.add_line((-50, 0), (50, 0))]


def bulges(document):
    points = [(0, 0, 0.5), (80, 0, -0.3), (80, 60, 0), (0, 60, 1)]
    return [document.modelspace().add_lwpolyline(points, format="xyb", close=True)]


def block(document):
    made = document.blocks.new("LEAF", base_point=(10, 0))
    made.add_lwpolyline([(0, 0), (30, 0), (20, 40)], close=True)
    insert = document.modelspace().add_blockref("LEAF", (100, 50), dxfattribs={"xscale": 2, "yscale": 1.5, "rotation": 30})
    return list(insert.virtual_entities())


for each in (spline, rational, ellipse, half_ellipse, bulges, block):
    write(each.__name__, each)


def small(document):
    return [document.modelspace().add_circle((1, 1), 2.5)]


write("small", small, units.IN, 25.4)
