"""What is drawn on a form board beside tables: bundles with their wires, dimensions, connectors, splices, clips."""

from __future__ import annotations

from math import hypot

from jolly_core.drawing import BoxMm
from jolly_core.harness import Bundle, Covered, cavity_rows, is_splice, node_name, rows_in
from jolly_core.model import Node, Project, derived, length_in

from ..base.primitives import Circle, Facts, Item, Line, Poly, Prim, Rect, Strand, ToneName, text

Spot = tuple[float, float]
NAME_MM = 14.0
WORDS_MM = 9.0
HIT_MM = 12.0
CELL_MM = 9.0
MOST_STRANDS = 12
TICK_MM = 4.0


def words_width(words: str, size: float) -> float:
    """Return about how wide a text is, mm."""
    return len(words) * size * 0.62 + 2


def bundle_item(id: str, a: Spot, b: Spot, bundle: Bundle, colours: list[str], length: float) -> Item:
    """Return a segment at true scale: the outline of its bundle, with its wires where they are few."""
    half = max(bundle.diameter_mm, 1.0) / 2
    dx, dy = b[0] - a[0], b[1] - a[1]
    run = hypot(dx, dy) or 1.0
    nx, ny = -dy / run, dx / run
    corners = [(p[0] + s * nx * half, p[1] + s * ny * half) for p, s in ((a, 1), (b, 1), (b, -1), (a, -1), (a, 1))]
    prims: list[Prim] = [Poly(tuple(round(v, 2) for p in corners for v in p), "edge")]
    if 0 < len(colours) <= MOST_STRANDS:
        for n, colour in enumerate(colours):
            off = half * (2 * (n + 0.5) / len(colours) - 1) * 0.9
            ends = (a[0] + nx * off, a[1] + ny * off, b[0] + nx * off, b[1] + ny * off)
            x1, y1, x2, y2 = (round(v, 2) for v in ends)
            prims.append(Strand(x1, y1, x2, y2, colour))
    mx, my = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    # A bundle is thin on the screen: what takes the pointer is wider, and at a slant only about its middle.
    wide = HIT_MM * 0.7
    level = min(abs(dx), abs(dy)) < 1
    reach = (min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])) if level else (mx, my, mx, my)
    body = (reach[0] - wide, reach[1] - wide, reach[2] + wide, reach[3] + wide)
    box = (min(a[0], b[0]) - half, min(a[1], b[1]) - half, max(a[0], b[0]) + half, max(a[1], b[1]) + half)
    facts: Facts = {"length": length, "from": a, "to": b, "body": body}
    return Item(id, "segment", prims, box, facts)


def dimension(a: Spot, b: Spot, away: float) -> list[Prim]:
    """Return a dimension line between two points, so far to the right of the way from one to the other, with ticks."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    run = hypot(dx, dy) or 1.0
    nx, ny = -dy / run, dx / run
    ends = [(p[0] + nx * away, p[1] + ny * away) for p in (a, b)]
    found: list[Prim] = [_line(*ends)]
    for x, y in ends:
        found.append(_line((x - nx * TICK_MM, y - ny * TICK_MM), (x + nx * TICK_MM, y + ny * TICK_MM)))
    return found


def _line(a: Spot, b: Spot) -> Line:
    return Line(round(a[0], 2), round(a[1], 2), round(b[0], 2), round(b[1], 2), "thin")


def covering_item(c: Covered, a: Spot, b: Spot, length: float, half: float) -> Item:
    """Return what lies over a stretch of a segment, hatched across it."""
    dx, dy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    nx, ny = -dy * (half + 1.5), dx * (half + 1.5)
    count = max(2, min(60, round(c.length_mm / 6)))
    prims: list[Prim] = []
    for n in range(count + 1):
        at = c.from_mm + c.length_mm * n / count
        x, y = a[0] + dx * at, a[1] + dy * at
        prims.append(_line((x - nx - dx * 2, y - ny - dy * 2), (x + nx + dx * 2, y + ny + dy * 2)))
    one = (a[0] + dx * c.from_mm, a[1] + dy * c.from_mm)
    other = (a[0] + dx * c.to_mm, a[1] + dy * c.to_mm)
    edge = half + 2
    box = (
        min(one[0], other[0]) - edge,
        min(one[1], other[1]) - edge,
        max(one[0], other[0]) + edge,
        max(one[1], other[1]) + edge,
    )
    return Item(f"hatch:{c.covering.id}", "hatch", prims, box)


def covering_words(project: Project, c: Covered) -> str:
    """Return what a covering is called beside it: its part or kind, and its length."""
    what = f"{c.part.ratings.get('covering', '')} {c.part.number}".strip() if c.part else "covering"
    unit = project.settings.length_unit
    return f"{what}, {length_in(unit, c.length_mm)}"


def face_size(project: Project, device_id: str) -> tuple[float, float, int]:
    """Return width and height of a connector's front face as it is drawn, mm, and its columns of cavities."""
    count = max(1, len(cavity_rows(project, device_id)))
    columns = 1 if count < 4 else 2 if count < 25 else 4
    rows = -(-count // columns)
    return columns * CELL_MM + 4, rows * CELL_MM + 4, columns


@derived
def face_prims(project: Project, node_id: str, variant_id: str) -> list[Prim]:
    """Return a connector's front face, its upper left corner at (0, 0), cavities numbered; empty ones are pale.

    From the wire side cavities follow each other to the right; from the mating side it is mirrored. Not to be changed.
    """
    node = project.nodes[node_id]
    width, height, columns = face_size(project, node.device_id)
    prims: list[Prim] = [Rect(0, 0, width, height, "ink", "case-dark")]
    for n, row in enumerate(rows_in(project, node.harness_id, node.device_id, variant_id)):
        column = columns - 1 - n % columns if node.from_mating else n % columns
        x = 2 + column * CELL_MM + 0.8
        y = 2 + (n // columns) * CELL_MM + 0.8
        side = CELL_MM - 1.6
        tone: ToneName = "paper" if row.conductors else "case-shade"
        size = 4.6 if len(row.cavity) < 3 else 3.0
        prims.append(Rect(x, y, side, side, "fine", tone))
        prims.append(text(x + side / 2, y + side / 2 + size / 3, size, row.cavity, anchor="middle", role="pin"))
    return prims


def node_item(project: Project, node: Node, at: Spot, box: BoxMm | None, variant_id: str = "") -> Item:
    """Return a node: the face of a connector in its box, a splice, a clip or a branching."""
    x, y = at
    prims: list[Prim]
    corner = (0.0, 0.0)
    if node.device_id and is_splice(project, node.device_id):
        prims = [Poly((x - 6, y, x, y - 8, x + 6, y, x, y + 8, x - 6, y), "ink"), Circle(x, y, 2.0, "ink", "orange")]
        box = (x - 6, y - 8, x + 6, y + 8)
    elif node.device_id and box is not None:
        prims, corner = face_prims(project, node.id, variant_id), (box[0], box[1])
    elif node.sort == "clip":
        prims = [Rect(x - 6, y - 5, 12, 10, "ink", "bracket")]
        box = (x - 6, y - 5, x + 6, y + 5)
    else:
        prims = [Circle(x, y, 3.0, "edge", "paper")]
        box = (x - 4, y - 4, x + 4, y + 4)
    facts: Facts = {
        "device": node.device_id,
        "body": (min(box[0], x - HIT_MM), min(box[1], y - HIT_MM), max(box[2], x + HIT_MM), max(box[3], y + HIT_MM)),
    }
    return Item(node.id, "node", prims, box, facts, corner)


def name_of(project: Project, node: Node) -> str:
    """Return what is written beside a node."""
    return node_name(project, node) if node.device_id else f"{'clip ' if node.sort else ''}{node.name}".strip()


def scale_item(x: float, y: float) -> Item:
    """Return a scale of 100 mm and a square of 10 mm by which a print is checked."""
    prims: list[Prim] = [Line(x, y, x + 100, y, "ink")]
    for n in range(11):
        prims.append(Line(x + 10 * n, y, x + 10 * n, y - (6 if n % 5 == 0 else 3), "fine"))
    prims.append(text(x, y - 8, 6.0, "0", role="label"))
    prims.append(text(x + 100, y - 8, 6.0, "100 mm", anchor="middle", role="label"))
    prims.append(Rect(x + 130, y - 10, 10, 10, "fine"))
    prims.append(text(x + 143, y - 2, 6.0, "10 × 10 mm to check a print by", role="label"))
    return Item("scale", "scale", prims, (x, y - 16, x + 260, y))
