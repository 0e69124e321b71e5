"""Notes on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.model import Note, RuleError
from jolly_core.model.entities.circuit import NoteSize

from ..base.edit import Grid, Id, LinedText, Payload, Work, edit


class PlaceNote(Payload):
    """Put a free text on a sheet."""

    kind: Literal["place-note"] = "place-note"
    sheet_id: Id
    x: Grid
    y: Grid
    text: LinedText = Field(min_length=1)
    size_mm: NoteSize = 3.0
    turned: bool = False
    align: Literal["start", "middle", "end"] = "start"


@edit(PlaceNote, {"sheet_id": "s1", "x": 20, "y": 90, "text": "Auger to be locked out for cleaning"})
def place_note(work: Work, payload: PlaceNote) -> str:
    """Work out PlaceNote."""
    work.drawable(payload.sheet_id)
    note = Note(
        work.ids.new(),
        payload.sheet_id,
        payload.x,
        payload.y,
        _words(payload.text),
        size_mm=payload.size_mm,
        rotation=90 if payload.turned else 0,
        align=payload.align,
    )
    work.put("note", note)
    work.outcome.placed = [note.id]
    return "place a note"


class ChangeNote(Payload):
    """Write a free text anew, or change how it stands; what is left out stays."""

    kind: Literal["change-note"] = "change-note"
    note_id: Id
    text: LinedText | None = Field(default=None, min_length=1)
    size_mm: NoteSize | None = None
    turned: bool | None = None
    align: Literal["start", "middle", "end"] | None = None


@edit(ChangeNote, {"note_id": "n1", "text": "Auger to be locked out for cleaning"})
def change_note(work: Work, payload: ChangeNote) -> str:
    """Work out ChangeNote."""
    note: Note = work.project.get("note", payload.note_id)
    values: dict[str, Any] = payload.model_dump(exclude={"kind", "note_id", "turned"}, exclude_none=True)
    if "text" in values:
        values["text"] = _words(payload.text or "")
    if payload.turned is not None:
        values["rotation"] = 90 if payload.turned else 0
    work.put("note", replace(note, **values))
    work.outcome.placed = [note.id]
    return "change a note"


def _words(typed: str) -> str:
    """Return a note's words without blanks at the ends of its lines, and without empty lines at its end.

    Raises:
        RuleError: nothing is left.
    """
    words = "\n".join(line.rstrip() for line in typed.split("\n")).strip("\n")
    if not words.strip():
        raise RuleError("The note has no words. Write some, or delete it.", field="text")
    return words
