"""Contact tables: beside a ladder's right rail, or at the foot of a sheet with zones, never one upon another."""

from __future__ import annotations

from jolly_core.drawing import ADVANCE, FRAME_MM, GRID_MM, rails_at, size_mm
from jolly_core.library import block_of
from jolly_core.model import Project, Sheet, Symbol, derived_few
from jolly_core.tagging import ContactRow, contact_table, positions_of, tag_on

from ..base.primitives import Item, Line, Prim, Rect, RoleName, text
from .layers import layered

ROW_MM = 3.6
SIZE_MM = 2.3
GAP_MM = 2.0
REFERENCE: RoleName = "reference"
FREE: RoleName = "line"
CLOSED = "×"  # in a switch's position
KEPT = 1000  # tables that are kept


def table_items(project: Project, sheet: Sheet) -> list[Item]:
    """Return one item for each lead symbol of the sheet that has a contact table, laid out without overlap."""
    wanted: list[tuple[Symbol, list[ContactRow]]] = []
    for symbol in project.symbols_on(sheet.id):
        rows = contact_table(project, symbol)
        if rows:
            wanted.append((symbol, rows))
    if sheet.frame == "ladder":
        return _in_margin(project, sheet, wanted)
    return _at_foot(project, sheet, wanted)


def _in_margin(project: Project, sheet: Sheet, wanted: list[tuple[Symbol, list[ContactRow]]]) -> list[Item]:
    items = []
    free: dict[float, float] = {}
    for symbol, _ in sorted(wanted, key=lambda w: (w[0].y, w[0].x)):
        x = (rails_at(sheet, symbol.x)[1] + 3) * GRID_MM
        y = max(symbol.y * GRID_MM - ROW_MM * 1.5, free.get(x, 0.0))
        item = _table(project, symbol.id, x, y)
        free[x] = item.box[3] + GAP_MM
        items.append(item)
    return items


def _at_foot(project: Project, sheet: Sheet, wanted: list[tuple[Symbol, list[ContactRow]]]) -> list[Item]:
    items = []
    bottom = size_mm(sheet)[1] - FRAME_MM - block_of(project, sheet).block.height_mm - 6
    free = FRAME_MM + 8
    for symbol, rows in sorted(wanted, key=lambda w: (w[0].x, w[0].y)):
        x = max(symbol.x * GRID_MM, free)
        item = _table(project, symbol.id, x, bottom - ROW_MM * (len(rows) + 1))
        free = item.box[2] + 2 * GAP_MM
        items.append(item)
    return items


@derived_few(KEPT)
def _table(project: Project, symbol_id: str, x: float, y: float) -> Item:
    symbol = project.symbols[symbol_id]
    rows = contact_table(project, symbol)
    tag = tag_on(project, project.devices[symbol.device_id], project.sheets[symbol.sheet_id])
    # What asks for the table finds out after it has been brought up to date that there are no rows any more.
    kinds = max((len(r.kind) for r in rows), default=0) * SIZE_MM * ADVANCE + 2.5
    pins = max((len(r.pins) for r in rows), default=0) * SIZE_MM * ADVANCE + 2.5
    places = max((4, *(len(r.place) for r in rows))) * SIZE_MM * ADVANCE + 2
    positions = positions_of(project, project.devices[symbol.device_id])
    column = max((len(p) for p in positions), default=0) * SIZE_MM * ADVANCE + 2
    if positions:
        pins = max(pins, (len(tag) + 1) * SIZE_MM * ADVANCE + 2 - kinds)
    width, height = kinds + pins + column * len(positions) + places, ROW_MM * (len(rows) + 1)
    prims: list[Prim] = [
        Rect(round(x, 2), round(y, 2), round(width, 2), round(height, 2), "thin"),
        Line(round(x, 2), round(y + ROW_MM, 2), round(x + width, 2), round(y + ROW_MM, 2), "thin"),
        text(x + 1, y + ROW_MM - 0.9, SIZE_MM, tag, role="tag", link=symbol.id),
    ]
    middles = [x + kinds + pins + column * (n + 0.5) for n in range(len(positions))]
    for middle, position in zip(middles, positions, strict=True):
        left = round(middle - column / 2, 2)
        prims.append(Line(left, round(y, 2), left, round(y + height, 2), "thin"))
        prims.append(text(middle, y + ROW_MM - 0.9, SIZE_MM, position, anchor="middle", role="label"))
    for number, row in enumerate(rows, start=1):
        for middle, mark in zip(middles, row.marks, strict=False):
            if mark:
                prims.append(
                    text(middle, y + ROW_MM * (number + 1) - 1, SIZE_MM, CLOSED, anchor="middle", role="label")
                )
        base = y + ROW_MM * (number + 1) - 1
        prims.append(text(x + 1, base, SIZE_MM, row.kind, role="label"))
        prims.append(text(x + kinds, base, SIZE_MM, row.pins, role="label"))
        place, role = row.place or "free", REFERENCE if row.place else FREE
        end = x + width - 1
        prims.append(text(end, base, SIZE_MM, place, anchor="end", role=role, link=row.symbol_id))
    box = (round(x, 2), round(y, 2), round(x + width, 2), round(y + height, 2))
    return Item(f"table:{symbol.id}", "table", prims, box, {"device": symbol.device_id, **layered(symbol.layer_id)})
