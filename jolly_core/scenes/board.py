"""The form board of a harness at true scale: trunk, branches, lengths and bundles, a table beside each connector."""

from __future__ import annotations

from jolly_core.harness import bundles, cavity_rows, laid, tree_of, trunk
from jolly_core.model import Project
from jolly_core.tagging import full_tag, pin_name

from .lettering import fit
from .primitives import Anchor, Circle, Facts, Item, Line, Poly, Prim, Rect, Scene, text

MARGIN_MM = 30.0
TABLE_ROW_MM = 9.0
TABLE_SIZE_MM = 5.5
COLUMNS = (("Cav", 16.0), ("Wire", 32.0), ("Col", 20.0), ("To", 72.0))
TABLE_WIDTH_MM = sum(w for _, w in COLUMNS)
LABEL_MM = 14.0
BUNDLE_MM = 10.0
FOOT_MM = 22.0
HIT_MM = 12.0


def board_scene(project: Project, harness_id: str, number: str) -> Scene:
    """Return the form board of a harness; 1 mm of the scene is 1 mm of the harness."""
    harness = project.get("harness", harness_id)
    tree = tree_of(project, harness.id)
    lies = laid(tree)
    places = lies.places
    main = set(trunk(tree))
    tables = {n.id: _table_height(project, n.device_id) for n in tree.nodes if n.device_id and n.id in places}
    tallest = max(tables.values(), default=0.0)
    left = MARGIN_MM + TABLE_WIDTH_MM
    top = MARGIN_MM + tallest
    width = max((x for x, _ in places.values()), default=0.0) + 2 * left
    height = max((y for _, y in places.values()), default=0.0) + 2 * top + FOOT_MM
    at = {id: (x + left, y + top) for id, (x, y) in places.items()}
    level = at[next(iter(trunk(tree)))][1] if main else top
    items: dict[str, Item] = {}
    words = f"{number}   {harness.code}   {harness.text}   scale 1:1"
    frame: list[Prim] = [
        Rect(5.0, 5.0, width - 10, height - 10, "frame"),
        text(12, height - 12, 12.0, f"{project.settings.number}  {words}", role="title"),
    ]
    items["frame"] = Item("frame", "frame", frame, (0, 0, width, height))
    sizes = bundles(project, harness.id)
    for segment in tree.segments:
        if segment.a_id in at and segment.b_id in at:
            inside, diameter = sizes[segment.id]
            a, b = at[segment.a_id], at[segment.b_id]
            words = f"{len(inside)} wires, ⌀ {diameter:.1f}{', turned' if segment.id in lies.turned else ''}"
            items[segment.id] = _segment_item(segment.id, a, b, segment.length_mm, words, diameter)
    for node in tree.nodes:
        if node.id in at:
            x, y = at[node.id]
            prims: list[Prim] = [Circle(x, y, 2.5, "edge")]
            if not node.device_id and node.name:
                prims.append(text(x + 4, y - 4, LABEL_MM, node.name, role="label"))
            reach = (x - HIT_MM, y - HIT_MM, x + HIT_MM, y + HIT_MM)
            facts: Facts = {"device": node.device_id, "body": reach}
            items[node.id] = Item(node.id, "node", prims, (x - 4, y - 4, x + 4, y + 4), facts)
    for id, tall in tables.items():
        device_id = project.nodes[id].device_id
        x, y = at[id]
        if id not in main:
            corner = (x - TABLE_WIDTH_MM / 2, y - tall - 8 if y < level else y + 8)
        elif x <= left + 0.01:
            corner = (x - TABLE_WIDTH_MM - 8, y - tall / 2)
        elif x >= width - left - 0.01:
            corner = (x + 8, y - tall / 2)
        else:
            corner = (x - TABLE_WIDTH_MM / 2, y + 8)
        items[f"table:{device_id}"] = _table(project, device_id, *corner)
    return Scene(round(width, 2), round(height, 2), items)


def _segment_item(
    id: str, a: tuple[float, float], b: tuple[float, float], length: float, words: str, diameter: float
) -> Item:
    thick = max(diameter, 1.0) / 2
    dx, dy = b[0] - a[0], b[1] - a[1]
    run = (dx * dx + dy * dy) ** 0.5 or 1.0
    nx, ny = -dy / run * thick, dx / run * thick
    corners = [(a[0] + nx, a[1] + ny), (b[0] + nx, b[1] + ny), (b[0] - nx, b[1] - ny), (a[0] - nx, a[1] - ny)]
    points = tuple(round(v, 2) for p in (*corners, corners[0]) for v in p)
    mx, my = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    upright = abs(dy) > abs(dx)
    where = (mx + thick + 2, my) if upright else (mx, my - thick - 2)
    anchor: Anchor = "start" if upright else "middle"
    prims: list[Prim] = [Poly(points, "edge")]
    prims.append(text(*where, LABEL_MM, f"{length:g} mm", anchor=anchor, role="tag"))
    below = where[1] + (BUNDLE_MM + 2 if upright else thick * 2 + BUNDLE_MM + 5)
    prims.append(text(where[0], below, BUNDLE_MM, words, anchor=anchor, role="label"))
    box = (min(a[0], b[0]) - 4, min(a[1], b[1]) - 4, max(a[0], b[0]) + 4, max(a[1], b[1]) + 4)
    # A bundle is thin on the screen: what takes the pointer is wider, and at a slant only about its middle.
    wide = HIT_MM * 0.7
    level = min(abs(dx), abs(dy)) < 1
    reach = (min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])) if level else (mx, my, mx, my)
    body = (reach[0] - wide, reach[1] - wide, reach[2] + wide, reach[3] + wide)
    facts: Facts = {"length": length, "from": a, "to": b, "body": body}
    return Item(id, "segment", prims, box, facts)


def _table_height(project: Project, device_id: str) -> float:
    lines = sum(max(1, len(r.conductors)) for r in cavity_rows(project, device_id))
    return TABLE_ROW_MM * (lines + 2)


def _table(project: Project, device_id: str, x: float, y: float) -> Item:
    device = project.devices[device_id]
    part = project.part_of(device)
    lefts = [x + sum(w for _, w in COLUMNS[:n]) for n in range(len(COLUMNS))]
    head = f"{full_tag(project, device)} {device.text}".strip() + (f"  {part.number}" if part else "")
    shown, size = fit(head, TABLE_WIDTH_MM - 2, TABLE_SIZE_MM + 0.6, 3.0)
    prims: list[Prim] = [text(x + 1, y + TABLE_ROW_MM - 2.4, size, shown, role="tag")]
    line = y + 2 * TABLE_ROW_MM
    for left, (name, _) in zip(lefts, COLUMNS, strict=True):
        prims.append(text(left + 1, line - 2.4, TABLE_SIZE_MM, name, role="heading"))
    for row in cavity_rows(project, device_id):
        for c, far in zip(row.conductors, row.far, strict=True) if row.conductors else ((None, None),):
            line += TABLE_ROW_MM
            values = [row.cavity, "", "", "empty"]
            if c is not None and far is not None:
                wire_type = c.wire_type(project)
                values = [row.cavity, c.number, wire_type.colour if wire_type else "", pin_name(project, far)]
            for left, value, (_, width) in zip(lefts, values, COLUMNS, strict=True):
                shown, size = fit(value, width - 2, TABLE_SIZE_MM, 3.0)
                prims.append(text(left + 1, line - 2.4, size, shown, role="label"))
    height = line - y
    prims.append(Rect(x, y, TABLE_WIDTH_MM, height, "fine"))
    for n in range(1, round(height / TABLE_ROW_MM)):
        prims.append(Line(x, y + n * TABLE_ROW_MM, x + TABLE_WIDTH_MM, y + n * TABLE_ROW_MM, "thin"))
    box = (x, y, x + TABLE_WIDTH_MM, y + height)
    return Item(f"table:{device_id}", "table", prims, box, {"device": device_id})
