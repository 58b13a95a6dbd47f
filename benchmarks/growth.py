"""Draws how sections and loads grow with the length of the ink, from the benchmark's JSON: growth.py IN.json OUT.svg"""
import json
import math
import sys

rows = [b for b in json.load(open(sys.argv[1]))["benchmarks"]
        if b["name"].startswith("sections and loads by length of ink/") and b.get("run_type") == "iteration"]
points = sorted((b["ink_mm"] / 1000, b["real_time"]) for b in rows)
first_length, first_time = points[0]


def nlogn(length):
    """The line n log n (n in millimetres) through the shortest one."""
    n, n0 = length * 1000, first_length * 1000
    return first_time * n * math.log(n) / (n0 * math.log(n0))


width, height, edge = 640, 400, 80
most_x = points[-1][0] * 1.05
most_y = max(max(t for _, t in points), nlogn(points[-1][0])) * 1.1


def at(length, time):
    return edge + length / most_x * (width - 2 * edge), height - edge - time / most_y * (height - 2 * edge)


out = [f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}" font-family="sans-serif" font-size="13">',
       f'<rect width="{width}" height="{height}" fill="#fdfbf6"/>']
for share in (0, 0.25, 0.5, 0.75, 1):
    x, y = at(most_x * share, 0)
    out.append(f'<text x="{x:.0f}" y="{y + 20:.0f}" text-anchor="middle" fill="#6b655b">{most_x * share:.0f} m</text>')
    x, y = at(0, most_y * share)
    out.append(f'<line x1="{edge}" y1="{y:.0f}" x2="{width - edge}" y2="{y:.0f}" stroke="#d8cfbe"/>'
               f'<text x="{edge - 8}" y="{y + 4:.0f}" text-anchor="end" fill="#6b655b">{most_y * share:.0f} ms</text>')
line = " ".join("%.1f,%.1f" % at(most_x * i / 100, nlogn(most_x * i / 100)) for i in range(5, 101))
out.append(f'<polyline points="{line}" fill="none" stroke="#6b655b" stroke-dasharray="6 4"/>')
out.append('<polyline points="%s" fill="none" stroke="#1d5f7a" stroke-width="2"/>' % " ".join("%.1f,%.1f" % at(*p) for p in points))
for p in points:
    x, y = at(*p)
    out.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="4" fill="#1d5f7a"/>')
out.append(f'<text x="{edge}" y="30" fill="#2b2925">Sections and loads by length of ink; dashed: n log n from the first</text></svg>')
open(sys.argv[2], "w").write("\n".join(out) + "\n")
