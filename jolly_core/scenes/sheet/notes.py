"""How notes look."""

from __future__ import annotations

from jolly_core.drawing import GRID_MM, LEADING, note_box, note_lines
from jolly_core.model import Note

from ..base.primitives import Anchor, Facts, Item, Prim, text
from .layers import layered


def note_item(note: Note) -> Item:
    """Return the item of a note: its lines below each other, or, turned, from left to right."""
    x, y, step = note.x * GRID_MM, note.y * GRID_MM, note.size_mm * LEADING
    upward = note.rotation != 0
    prims: list[Prim] = []
    for n, line in enumerate(note_lines(note)):
        at = (x + n * step, y) if upward else (x, y + n * step)
        prims.append(text(*at, note.size_mm, line, anchor=_anchor(note), role="label", upward=upward))
    facts: Facts = {
        "text": note.text,
        "locked": note.locked,
        "size": note.size_mm,
        "turned": upward,
        "align": _anchor(note),
        **layered(note.layer_id, note.together),
    }
    return Item(note.id, "note", prims, note_box(note), facts)


def _anchor(note: Note) -> Anchor:
    found: Anchor = "middle" if note.align == "middle" else "end" if note.align == "end" else "start"
    return found
