"""Notes on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import Note

from ..base.edit import Grid, Id, Payload, Text, Work, edit


class PlaceNote(Payload):
    """Put a free text on a sheet."""

    kind: Literal["place-note"] = "place-note"
    sheet_id: Id
    x: Grid
    y: Grid
    text: Text = Field(min_length=1)


@edit(PlaceNote, {"sheet_id": "s1", "x": 20, "y": 90, "text": "Auger to be locked out for cleaning"})
def place_note(work: Work, payload: PlaceNote) -> str:
    """Work out PlaceNote."""
    work.drawable(payload.sheet_id)
    note = Note(work.ids.new(), payload.sheet_id, payload.x, payload.y, payload.text)
    work.put("note", note)
    work.outcome.placed = [note.id]
    return "place a note"


class ChangeNote(Payload):
    """Write a free text anew."""

    kind: Literal["change-note"] = "change-note"
    note_id: Id
    text: Text = Field(min_length=1)


@edit(ChangeNote, {"note_id": "n1", "text": "Auger to be locked out for cleaning"})
def change_note(work: Work, payload: ChangeNote) -> str:
    """Work out ChangeNote."""
    note: Note = work.project.get("note", payload.note_id)
    work.put("note", replace(note, text=payload.text))
    work.outcome.placed = [note.id]
    return "change a note"
