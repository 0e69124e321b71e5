"""Terminal plans and core plans: tables of which a leaf holds as many lines as its sheet has room for."""

from __future__ import annotations

from jolly_core.cables import cable_cores, copper_of, ends_of, pair_names
from jolly_core.drawing import place_in
from jolly_core.library import text_in
from jolly_core.model import Device, Project, Sheet
from jolly_core.tagging import full_tag, pin_name
from jolly_core.terminals import StripRow, Target, laid_bridges, placed_sides, strip_record, strip_rows
from jolly_core.wiring import sheet_groups

from ..base.lettering import fit
from ..base.primitives import Dot, Item, Line, Prim, Rect, Scene, pin_link, text
from ..lists.leaves import (
    HEAD_MM,
    ROW_MM,
    SIZE_MM,
    TOP_MM,
    Columns,
    Given,
    TableGrid,
    cell,
    leaf_of,
    rows_on,
    table_leaves,
)
from ..lists.pages import split, strip_height
from .strips import drawn_leaves

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


PAIRED_COLUMNS: Columns = (*CORE_COLUMNS[:2], ("Pair", 14), *CORE_COLUMNS[2:5], ("Type", 30), ("Sheet", 34))


def strip_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the leaves of the terminal plan of a sheet's strip, in the style that the strip says."""
    device = project.devices[sheet.device_id]
    if strip_record(project, device.id).plan_style == "drawn":
        return drawn_leaves(project, sheet, given)
    heights = strip_height(project, device.id)
    spans = split(heights, rows_on(project, sheet))
    return [
        _strip_leaf(project, sheet, given, device, heights, span, (n, len(spans)))
        for n, span in enumerate(spans, start=1)
    ]


def cable_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the leaves of the core plan of a sheet's cable."""
    device = project.devices[sheet.device_id]
    part = project.part_of(device)
    words = f"{part.number}  {text_in(part, project.settings.part_language)}" if part else "no cable part yet"
    rows = []
    pairs = pair_names(part)
    for row in cable_cores(project, device.id):
        values: list[tuple[str, str]] = [(str(row.ordinal) if row.ordinal else "", ""), (row.name or "none left", "")]
        if pairs:
            values.append((pairs.get(row.ordinal, ""), ""))
        c = row.conductor
        if c is None:
            values.append(("shield" if row.kind == "shield" else "spare", ""))
        else:
            ends = ends_of(project, device.id, c)
            wire_type = c.wire_type(project)
            place = place_in(project.sheets[c.sheet_id], *sheet_groups(project, c.sheet_id).points[c.start])
            values += [(pin_name(project, e), pin_link(e)) for e in ends]
            values += [(c.number, ""), (wire_type.name if wire_type else "", ""), (place, pin_link(c.start))]
        rows.append(values)
    columns = PAIRED_COLUMNS if pairs else CORE_COLUMNS
    return table_leaves(project, sheet, given, f"{full_tag(project, device)}   {words}", columns, rows, "core")


def _strip_leaf(
    project: Project,
    sheet: Sheet,
    given: Given,
    device: Device,
    heights: list[int],
    span: tuple[int, int],
    count: tuple[int, int],
) -> Scene:
    rows = strip_rows(project, device.id)
    first, last = span
    part = project.part_of(device)
    title = f"{full_tag(project, device)}  {device.text}".strip() + (f"   {part.number}" if part else "")
    scene, grid = leaf_of(project, sheet, given, title, _columns(project, device.id), count)
    y = TOP_MM + HEAD_MM
    middles: dict[int, float] = {}
    for row, height in zip(rows[first:last], heights[first:last], strict=True):
        item = _strip_row(project, row, y, height, grid)
        scene.items[item.id] = item
        middles[row.unit] = y + ROW_MM / 2
        y += height * ROW_MM
    prims = _bridge_prims(project, device.id, {u: m for u, m in middles.items() if u}, grid)
    if prims:
        scene.items["bridges"] = Item("bridges", "table", prims, (0, TOP_MM, scene.width, y))
    return scene


def _columns(project: Project, strip_id: str) -> Columns:
    """Return the columns of a terminal plan; the two sides are called as the strip says."""
    record = strip_record(project, strip_id)
    own = {"Field side": record.field_heading, "Panel side": record.panel_heading}
    return [(own.get(name) or name, width) for name, width in STRIP_COLUMNS]


def _bridge_prims(project: Project, strip_id: str, middles: dict[int, float], grid: TableGrid) -> list[Prim]:
    """Return the bridges as strokes, each in the column of its slot; levels of one block at the column's right edge."""
    left, width = grid.lefts[3], grid.widths[3]
    prims: list[Prim] = []
    for laid in laid_bridges(project, strip_id):
        x = left + 2.5 + (laid.lane % 4) * 2.6 if laid.level else left + width - 2
        there = sorted(middles[u] for u in laid.bridge.units if u in middles)
        prims += [Dot(x, y, 0.9) for y in there]
        if len(there) > 1:
            prims.append(Line(x, there[0], x, there[-1], "frame"))
    return prims


def _strip_row(project: Project, row: StripRow, y: float, height: int, grid: TableGrid) -> Item:
    id = f"terminal:{row.unit}" if row.unit else f"item:{row.item_id}"
    bottom = y + height * ROW_MM
    lefts, widths = grid.lefts, grid.widths
    prims: list[Prim] = [Line(lefts[0], bottom, grid.right, bottom, "thin")]
    box = (lefts[0], y, grid.right, bottom)
    if row.kind != "terminal":
        prims += cell(lefts[4], widths[4] + widths[5], y + ROW_MM - 1.8, row.number, role="text")
        return Item(id, "table", prims, box)
    link = row.symbol_ids[0] if row.symbol_ids else ""
    prims.append(Rect(lefts[4] + 2, y + 0.6, widths[4] - 4, height * ROW_MM - 1.2, "ink"))
    middle = lefts[4] + widths[4] / 2
    number, size = fit(row.number, widths[4] - 5, SIZE_MM)
    prims.append(text(middle, y + ROW_MM - 1.8, size, number, anchor="middle", role="tag", link=link))
    if not row.drawn:
        words = "spare" if row.record.spare else "planned, on no sheet"
        prims += cell(lefts[5], widths[5], y + ROW_MM - 1.8, words, role="line")
    fields, panels = placed_sides(row)
    for n in range(height):
        base = y + (n + 1) * ROW_MM - 1.8
        field, field_name = fields[n] if n < len(fields) else (None, "")
        if field is not None:
            prims += cell(lefts[0], widths[0], base, field_name, link=pin_link(field.pin))
            prims += cell(lefts[1], widths[1], base, field.cable)
            prims += cell(lefts[2], widths[2], base, field.core)
        target, name = panels[n] if n < len(panels) else (None, "")
        if target is not None:
            prims += cell(lefts[5], widths[5], base, name, link=pin_link(target.pin))
        prims += _wire_cells(project, target, field, lefts, widths, base)
    if row.record.remark and not row.symbol_ids:
        prims += cell(lefts[8], widths[8], y + ROW_MM - 1.8, row.record.remark, role="line")
    if row.symbol_ids:
        symbol = project.symbols[row.symbol_ids[0]]
        place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)
        prims += cell(lefts[8], widths[8], y + ROW_MM - 1.8, place, link=symbol.id, role="reference")
    return Item(id, "table", prims, box)


def _wire_cells(
    project: Project,
    target: Target | None,
    field: Target | None,
    lefts: list[float],
    widths: list[float],
    base: float,
) -> list[Prim]:
    """Return number and type of what lands; both numbers where the terminal parts two potentials."""
    shown = target or field
    if shown is None:
        return []
    copper = copper_of(project, shown.conductor)
    words = f"{copper.colour} {copper.size}".strip()
    numbers = dict.fromkeys(t.conductor.number for t in (field, target) if t is not None and t.conductor.number)
    return [
        *cell(lefts[6], widths[6], base, " / ".join(numbers)),
        *cell(lefts[7], widths[7], base, words),
    ]
