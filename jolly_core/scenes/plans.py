"""Generated pages as scenes: terminal plan, core plan."""

from __future__ import annotations

from collections.abc import Sequence

from jolly_core.cables import cable_cores, source_first
from jolly_core.drawing import FRAME_MM, place_in, size_mm
from jolly_core.model import Project, Sheet
from jolly_core.tagging import full_tag, pin_name
from jolly_core.terminals import StripRow, Target, strip_rows
from jolly_core.wiring import sheet_groups

from .board import board_scene
from .frames import frame_item
from .pages import Page, page_of, split, strip_height
from .primitives import Item, Prim, Scene, fit, moved, text

ROW_MM = 5.6
HEAD_MM = 7.0
TOP_MM = 26.0
SIZE_MM = 2.6
WIDTH_MM = 277.0
LEAF_GAP_MM = 8.0
Columns = Sequence[tuple[str, float]]

STRIP_COLUMNS: Columns = (
    ("Field side", 48),
    ("Cable", 26),
    ("Core", 14),
    ("Bridge", 14),
    ("Terminal", 22),
    ("Panel side", 48),
    ("Wire", 20),
    ("Type", 30),
    ("Sheet", 26),
)
CORE_COLUMNS: Columns = (
    ("No", 12),
    ("Core", 22),
    ("From", 62),
    ("To", 62),
    ("Wire", 26),
    ("Type", 44),
    ("Sheet", 34),
)


def page_leaves(project: Project, page_id: str) -> list[Scene]:
    """Return the leaves of a generated page, each a scene of its own.

    Raises:
        GoneError: the page is gone.
    """
    page = page_of(project, page_id)
    if page.kind == "board":
        return [board_scene(project, page)]
    terminals = page.kind == "terminals"
    count = len(cable_cores(project, page.subject)) if not terminals else 0
    heights = strip_height(project, page.subject) if terminals else [1] * count
    leaves = split(heights)
    make = _strip_leaf if terminals else _cable_leaf
    return [make(project, page, leaf, n, len(leaves)) for n, leaf in enumerate(leaves, start=1)]


def page_scene(project: Project, page_id: str) -> Scene:
    """Return a generated page as one scene, its leaves below each other.

    Raises:
        GoneError: the page is gone.
    """
    leaves = page_leaves(project, page_id)
    if len(leaves) == 1:
        return leaves[0]
    items: dict[str, Item] = {}
    down = 0.0
    for n, leaf in enumerate(leaves):
        for item in leaf.items.values():
            left, top, right, bottom = item.box
            id = f"{item.id}@{n}" if item.id in items else item.id
            prims = [moved(p, 0, down) for p in item.prims]
            items[id] = Item(id, item.kind, prims, (left, top + down, right, bottom + down), item.facts)
        down += leaf.height + LEAF_GAP_MM
    return Scene(max(leaf.width for leaf in leaves), down - LEAF_GAP_MM, items)


def _start(project: Project, page: Page, leaf: int, leaves: int) -> Scene:
    device = project.devices[page.subject]
    sheet = Sheet(
        page.id,
        page.number if leaves == 1 else f"{page.number}.{leaf}",
        page.title,
        size="A4",
        frame="plan",
        function_id=device.function_id,
        location_id=device.location_id,
    )
    frame = frame_item(project, sheet)
    return Scene(*size_mm(sheet), {"frame": frame})


def _cell(x: float, width: float, y: float, content: str, *, link: str = "", role: str = "label") -> Prim:
    shown, size = fit(content, width - 2, SIZE_MM)
    return text(x + 1, y, size, shown, role=role, link=link)


def _head(title: str, columns: Columns) -> list[Prim]:
    prims: list[Prim] = [text(FRAME_MM + 2, TOP_MM - 5, 5.0, title, role="title")]
    prims.append(["line", FRAME_MM, TOP_MM, FRAME_MM + WIDTH_MM, TOP_MM, "ink"])
    prims.append(["line", FRAME_MM, TOP_MM + HEAD_MM, FRAME_MM + WIDTH_MM, TOP_MM + HEAD_MM, "ink"])
    x = FRAME_MM
    for name, width in columns:
        prims.append(text(x + 1, TOP_MM + HEAD_MM - 2.2, 2.6, name, role="heading"))
        x += width
    return prims


def _strip_leaf(project: Project, page: Page, rows_on: tuple[int, int], leaf: int, leaves: int) -> Scene:
    scene = _start(project, page, leaf, leaves)
    device = project.devices[page.subject]
    rows = strip_rows(project, device.id)
    heights = strip_height(project, device.id)
    first, last = rows_on
    part = project.part_of(device)
    title = f"{full_tag(project, device)}  {device.text}".strip() + (f"   {part.number}" if part else "")
    scene.items["head"] = Item("head", "frame", _head(title, STRIP_COLUMNS), (0, 0, scene.width, TOP_MM))
    y = TOP_MM + HEAD_MM
    middles: dict[int, float] = {}
    for row, height in zip(rows[first:last], heights[first:last], strict=True):
        item = _strip_row(project, row, y, height)
        scene.items[item.id] = item
        middles[row.unit] = y + ROW_MM / 2
        y += height * ROW_MM
    prims = _bridge_prims(project, device.id, {u: m for u, m in middles.items() if u})
    if prims:
        scene.items["bridges"] = Item("bridges", "table", prims, (0, TOP_MM, scene.width, y))
    return scene


def _bridge_prims(project: Project, strip_id: str, middles: dict[int, float]) -> list[Prim]:
    left = FRAME_MM + sum(width for _, width in STRIP_COLUMNS[:3])
    bridges = sorted((b for b in project.bridges.values() if b.strip_id == strip_id), key=lambda b: b.id)
    prims: list[Prim] = []
    for n, bridge in enumerate(bridges):
        x = left + 3 + (n % 4) * 2.6
        there = sorted(middles[u] for u in bridge.units if u in middles)
        prims += [["dot", x, y, 0.9] for y in there]
        if len(there) > 1:
            prims.append(["line", x, there[0], x, there[-1], "frame"])
    return prims


def _strip_row(project: Project, row: StripRow, y: float, height: int) -> Item:
    id = f"terminal:{row.unit}" if row.unit else f"item:{row.item_id}"
    bottom = y + height * ROW_MM
    prims: list[Prim] = [["line", FRAME_MM, bottom, FRAME_MM + WIDTH_MM, bottom, "thin"]]
    lefts = [FRAME_MM + sum(w for _, w in STRIP_COLUMNS[:n]) for n in range(len(STRIP_COLUMNS))]
    widths = [w for _, w in STRIP_COLUMNS]
    box = (FRAME_MM, y, FRAME_MM + WIDTH_MM, bottom)
    if row.kind != "terminal":
        prims.append(_cell(lefts[4], widths[4] + widths[5], y + ROW_MM - 1.8, row.number, role="text"))
        return Item(id, "table", prims, box)
    link = row.symbol_ids[0] if row.symbol_ids else ""
    prims.append(["rect", lefts[4] + 2, y + 0.6, widths[4] - 4, height * ROW_MM - 1.2, "ink"])
    middle = lefts[4] + widths[4] / 2
    prims.append(text(middle, y + ROW_MM - 1.8, SIZE_MM, row.number, anchor="middle", role="tag", link=link))
    panel = [(t, t.name) for t in row.panel] + [(t, f"{t.name} ?") for t in row.unknown]
    for n in range(height):
        base = y + (n + 1) * ROW_MM - 1.8
        field = row.field[n] if n < len(row.field) else None
        if field is not None:
            prims.append(_cell(lefts[0], widths[0], base, field.name, link=field.pin[0]))
            prims.append(_cell(lefts[1], widths[1], base, field.cable))
            prims.append(_cell(lefts[2], widths[2], base, field.core))
        target, name = panel[n] if n < len(panel) else (None, "")
        if target is not None:
            prims.append(_cell(lefts[5], widths[5], base, name, link=target.pin[0]))
        prims += _wire_cells(project, target or field, lefts, widths, base)
    if row.symbol_ids:
        symbol = project.symbols[row.symbol_ids[0]]
        place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)
        prims.append(_cell(lefts[8], widths[8], y + ROW_MM - 1.8, place, link=symbol.id, role="reference"))
    return Item(id, "table", prims, box)


def _wire_cells(
    project: Project, target: Target | None, lefts: list[float], widths: list[float], base: float
) -> list[Prim]:
    if target is None:
        return []
    wire_type = target.conductor.wire_type(project)
    words = f"{wire_type.colour} {wire_type.size()}" if wire_type else ""
    return [
        _cell(lefts[6], widths[6], base, target.conductor.number),
        _cell(lefts[7], widths[7], base, words),
    ]


def _cable_leaf(project: Project, page: Page, rows_on: tuple[int, int], leaf: int, leaves: int) -> Scene:
    scene = _start(project, page, leaf, leaves)
    device = project.devices[page.subject]
    part = project.part_of(device)
    cores = cable_cores(project, device.id)
    first, last = rows_on
    words = f"{part.number}  {part.text}" if part else "no cable part yet"
    title = f"{full_tag(project, device)}   {words}"
    scene.items["head"] = Item("head", "frame", _head(title, CORE_COLUMNS), (0, 0, scene.width, TOP_MM))
    lefts = [FRAME_MM + sum(w for _, w in CORE_COLUMNS[:n]) for n in range(len(CORE_COLUMNS))]
    widths = [w for _, w in CORE_COLUMNS]
    y = TOP_MM + HEAD_MM
    for n, row in enumerate(cores[first:last]):
        bottom = y + ROW_MM
        prims: list[Prim] = [["line", FRAME_MM, bottom, FRAME_MM + WIDTH_MM, bottom, "thin"]]
        values = [str(row.ordinal) if row.ordinal else "", row.name or "none left"]
        links = ["", ""]
        c = row.conductor
        if c is None:
            values.append("shield" if row.kind == "shield" else "spare")
        else:
            ends = source_first(project, c)
            wire_type = c.wire_type(project)
            place = place_in(project.sheets[c.sheet_id], *sheet_groups(project, c.sheet_id).points[c.start])
            values += [*(pin_name(project, e) for e in ends), c.number, wire_type.name if wire_type else "", place]
            links += [ends[0][0], ends[1][0], "", "", c.start[0]]
        for left, width, value, link in zip(lefts, widths, values, links + [""] * len(values), strict=False):
            prims.append(_cell(left, width, bottom - 1.8, value, link=link))
        scene.items[f"core:{first + n}"] = Item(
            f"core:{first + n}", "table", prims, (FRAME_MM, y, FRAME_MM + WIDTH_MM, bottom)
        )
        y = bottom
    return scene
