"""A form board on a sheet of the set: the harness at a usual scale, and what is in its cavities as a table.

The board itself is drawn at true size, on a page of its own; its tables would be too small here.
"""

from __future__ import annotations

from dataclasses import replace

from jolly_core.harness import nodes_of
from jolly_core.model import Project, Sheet, counted, derived_few
from jolly_core.tagging import full_tag

from ..base.primitives import Item, Scene, replace_words
from ..layout.leaves import fitted_leaf, numbered
from ..lists.leaves import Columns, Given, LeafRow, table_leaves
from ..room.papertags import words_apart
from .board import board_scene
from .tables import table_of

# What of a board stands beside the harness; "lead" joins a table to its connector.
BESIDE = ("frame", "table", "lead", "scale")
EDGE_MM = 10.0
COLUMNS: Columns = (
    *(("Connector", 44), ("Part", 34), ("Cav", 14), ("Wire", 22), ("Col", 16), ("Size", 18)),
    *(("Contact", 34), ("Strip", 14), ("Length", 30), ("Seal", 28), ("To", 56)),
)


def board_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the leaves of a harness: its picture, then the cavities of its connectors and the legs of its splices.

    Raises:
        GoneError: the harness is not in the project.
    """
    leaf = fitted_leaf(project, sheet, given, _harness_alone(project, sheet), (1, 1))
    items, lost = words_apart(leaf.items, "words")
    if lost:
        words = f", {counted(lost, 'name')} without room: see the table"
        items["scale"] = replace(items["scale"], prims=[replace_words(items["scale"].prims[0], words)])
    rows = _rows(project, sheet.harness_id)
    used = {name for row in rows for (words, _), (name, _) in zip(row, COLUMNS, strict=True) if words}
    columns = tuple(c for c in COLUMNS if c[0] in used)
    shown: list[LeafRow] = [[v for v, c in zip(row, COLUMNS, strict=True) if c in columns] for row in rows]
    title = f"{sheet.title}: connectors and splices"
    tables = table_leaves(project, sheet, given, title, columns, shown) if rows else []
    return numbered(project, sheet, given, [replace(leaf, items=items, lost=lost), *tables])


@derived_few(8)
def sheet_places(project: Project, sheet_id: str) -> dict[str, tuple[float, float]]:
    """Return where connectors and splices are on the first leaf of a sheet that shows a harness, by device, mm.

    Raises:
        GoneError: the sheet is not in the project.
    """
    sheet: Sheet = project.get("sheet", sheet_id)
    leaf, nodes = board_leaves(project, sheet, None)[0], project.nodes
    return {nodes[id].device_id: item.box[:2] for id, item in leaf.items.items() if id in nodes}


def _harness_alone(project: Project, sheet: Sheet) -> Scene:
    """Return the board without what stands about the harness, as large as that is."""
    board = board_scene(project, sheet.harness_id, sheet.number)
    items = [item for item in board.items.values() if item.kind not in BESIDE]
    if not items:
        return Scene(2 * EDGE_MM, 2 * EDGE_MM, {})
    left, top = (min(i.box[n] for i in items) - EDGE_MM for n in (0, 1))
    right, low = (max(i.box[n] for i in items) + EDGE_MM for n in (2, 3))
    moved = {
        i.id: Item(
            i.id,
            i.kind,
            [p.moved(-left, -top) for p in i.placed()],
            (i.box[0] - left, i.box[1] - top, i.box[2] - left, i.box[3] - top),
        )
        for i in items
    }
    return Scene(right - left, low - top, moved)


def _rows(project: Project, harness_id: str) -> list[LeafRow]:
    """Return a row for each cavity and each leg, of all connectors and splices in order; see COLUMNS."""
    rows: list[LeafRow] = []
    for node in nodes_of(project, harness_id):
        if not node.device_id:
            continue
        device = project.devices[node.device_id]
        part = project.part_of(device)
        table = table_of(project, node.id, "")
        for n, line in enumerate(table.rows):
            said = dict(zip((name for name, _ in table.columns), line, strict=True))
            said |= {"Connector": full_tag(project, device), "Part": part.number if part else ""}
            way = table.ways[n] if n < len(table.ways) else ""
            rows.append([(said.get(name, ""), way if name == "To" else "") for name, _ in COLUMNS])
    return rows
