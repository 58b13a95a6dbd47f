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


def mirrored(document):
    """A half moon in a plane that is seen from behind: left and right change."""
    model = document.modelspace()
    behind = {"extrusion": (0, 0, -1)}
    moon = model.add_lwpolyline([(0, 0, 0.4), (60, 0, 0), (70, 90, -0.2)], format="xyb", close=True, dxfattribs=behind)
    return [moon]


write("mirrored", mirrored)


def coloured():
    """Several colours, some of it not to be read; prints each colour with its area as shapely has it."""
    from shapely.geometry import Point, Polygon, box

    document = ezdxf.new("R2010")
    document.units = units.MM
    document.layers.add("SEEN", color=3)
    document.layers.add("HIDDEN", color=1).off()
    document.layers.add("FROZEN", color=1).freeze()
    model = document.modelspace()
    square = lambda x, y, w: [(x, y), (x + w, y), (x + w, y + w), (x, y + w)]
    # Red: a square with a hole, and ink in the hole; drawn twice.
    for _ in range(2):
        for inset in (0, 10, 20):
            model.add_lwpolyline(square(inset, inset, 60 - 2 * inset), close=True, dxfattribs={"color": 1})
    # By its layer, green: two circles that cross are one shape.
    model.add_circle((100, 30), 20, dxfattribs={"layer": "SEEN"})
    model.add_circle((120, 30), 20, dxfattribs={"layer": "SEEN"})
    # A true colour, by its insert.
    leaf = document.blocks.new("LEAF")
    leaf.add_lwpolyline(square(0, 0, 8), close=True, dxfattribs={"color": 0})
    insert = model.add_blockref("LEAF", (0, 80))
    insert.rgb = (18, 52, 86)
    for layer in ("HIDDEN", "FROZEN"):
        model.add_circle((500, 500), 90, dxfattribs={"layer": layer})
    document.layout("Layout1").add_circle((900, 900), 5)
    model.add_circle((700, 0), 30, dxfattribs={"extrusion": (0, 1, 0)})
    model.add_text("OARS", dxfattribs={"height": 5})
    model.add_mtext("second line")
    model.add_hatch(color=2).paths.add_polyline_path(square(300, 300, 20), is_closed=True)
    model.add_point((1, 1))
    model.add_spline([(0, 120), (30, 150), (60, 120), (30, 100), (0, 120)], dxfattribs={"color": 5})
    document.saveas(f"{folder}/coloured.dxf")
    red = box(0, 0, 60, 60).difference(box(10, 10, 50, 50)).union(box(20, 20, 40, 40))
    green = Point(100, 30).buffer(20, 512).union(Point(120, 30).buffer(20, 512))
    for rgb, shape in (("#ff0000", red), ("#00ff00", green), ("#123456", Polygon(square(0, 80, 8)))):
        print("colour", rgb, shape.area)


coloured()
