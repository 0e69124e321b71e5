"""Check of texts that leave the free room of a sheet, wherever they come from; notes have a check of their own.

Texts that may find their place by themselves stay inside as long as there is room. So only sheets are painted for this
on which a hand has moved texts, or which are crowded.
"""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.checks import Snag, check
from jolly_core.drawing import GRID_MM, where_amiss
from jolly_core.model import Project, assembled

from ..base.primitives import Item, texts_in
from ..room.crowding import text_box
from .whole import sheet_scene

CROWDED = 70  # symbols and continuations on one sheet
KINDS = ("symbol", "continuation", "band", "number", "table")


@check("text-outside", "A text outside the frame, or under the title block.")
def texts_outside(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each thing on a sheet with a text that is not wholly in the free room, naming the text."""
    symbols = project.symbols_on(sheet_id)
    crowded = len(symbols) + len(project.continuations_on(sheet_id)) > CROWDED
    if not crowded and not any(wish and wish != "off" for s in symbols for wish in s.texts.values()):
        return
    sheet = project.sheets[sheet_id]
    for item in sheet_scene(project, sheet_id).items.values():
        if item.kind not in KINDS:
            continue
        for prim in texts_in(item):
            where = where_amiss(project, sheet, text_box(prim))
            if where:
                x, y = int(prim.x / GRID_MM), int(prim.y / GRID_MM)
                message = f"“{prim.words}” lies {where}. Move it in, or let it find its place."
                yield Snag("text-outside", "warning", message, (_entity(item),), sheet_id, x, y)
                break


assembled("texts are looked for outside of sheets")


def _entity(item: Item) -> str:
    """Return the id of what is to be selected: a table's lead symbol, a number's wire."""
    if item.kind == "number":
        return texts_in(item)[0].link
    return item.id.removeprefix("table:")
