"""Stamps for the browser: those of the project, the library and the application, with questions and a picture."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

from typing_extensions import TypedDict

from jolly_core.edits import compute, parse_edit
from jolly_core.edits.pieces.pieces import piece_to_json
from jolly_core.edits.pieces.stampbody import StampBody, body_from_text, is_layout
from jolly_core.edits.pieces.stamps import GAP
from jolly_core.library import KeptStamp, built_in_stamps, definition, part_class
from jolly_core.model import CoreError, GoneError, Project
from jolly_core.scenes import Item, sheet_scene
from jolly_core.tagging import natural
from jolly_server.library.services import kept_stamps
from jolly_server.shapes.sceneshapes import SceneItem, item_value

MARGIN_MM = 4.0


Origin = Literal["project", "library", "application"]


class QuestionValue(TypedDict):
    """A question a stamp asks."""

    name: str
    kind: str
    targets: list[str]
    suggestion: str


class ThingValue(TypedDict):
    """What a question may concern."""

    id: str
    kind: str
    name: str
    text: str


class StampLine(TypedDict):
    """A stamp one can put down: where it is from, its least pitch, the point on the caret, and what it asks."""

    id: str
    name: str
    text: str
    origin: Origin
    pitch: int
    anchor: tuple[int, int]
    questions: list[QuestionValue]
    things: list[ThingValue]


class StampPicture(TypedDict):
    """A stamp alone, cut to what is drawn."""

    x: float
    y: float
    width: float
    height: float
    items: list[SceneItem]


def stamps_of(project: Project) -> list[StampLine]:
    """Return the stamps one can put down: where each is from, its name and what it asks."""
    own = [KeptStamp(s.id, s.name, s.text, s.body) for s in project.stamps.values()]
    groups: tuple[tuple[Origin, list[KeptStamp]], ...] = (
        ("project", sorted(own, key=lambda s: (natural(s.name), s.id))),
        ("library", kept_stamps()),
        ("application", list(built_in_stamps().values())),
    )
    return [_line(origin, stamp) for origin, stamps in groups for stamp in stamps if not is_layout(stamp.body)]


def _line(origin: Origin, stamp: KeptStamp) -> StampLine:
    body = body_from_text(stamp.body)
    left, _, right, _ = body.piece.box()
    return {
        "id": stamp.id,
        "name": stamp.name,
        "text": stamp.text,
        "origin": origin,
        "pitch": right - left + GAP,
        "anchor": body.anchor,
        "questions": [
            {"name": q.name, "kind": q.kind, "targets": list(q.targets), "suggestion": q.suggestion}
            for q in body.questions
        ],
        "things": things_in(body),
    }


def things_in(body: StampBody) -> list[ThingValue]:
    """Return what questions of a stamp may concern: devices, notes, continuations and wire types, with names."""
    piece = body.piece
    found: list[ThingValue] = []
    for device in piece.of("device"):
        own = [definition(s.definition) for s in piece.of("symbol") if s.device_id == device.id]
        part = piece.tables["part"].get(device.part_id)
        what = part_class(part.part_class).name if part else min(own, key=lambda d: d.lead).name if own else "Cable"
        name = f"{what} {device.text}".strip()
        found.append({"id": device.id, "kind": "device", "name": name, "text": device.text})
    for note in piece.of("note"):
        found.append({"id": note.id, "kind": "note", "name": f"Note “{note.text}”", "text": note.text})
    for mark in piece.of("continuation"):
        found.append({"id": mark.id, "kind": "continuation", "name": f"Continuation {mark.name}", "text": mark.name})
    for wire_type in piece.of("wire_type"):
        found.append({"id": wire_type.id, "kind": "wire-type", "name": f"Wire type {wire_type.name}", "text": ""})
    return found


def body_of(project: Project, id: str) -> str:
    """Return the body of a stamp one can put down.

    Raises:
        GoneError: there is none of that id.
    """
    own = project.stamps.get(id)
    if own is not None:
        return own.body
    kept = built_in_stamps().get(id) or next((s for s in kept_stamps() if s.id == id), None)
    if kept is None:
        raise GoneError("This stamp is no longer there.", ids=(id,))
    return kept.body


@lru_cache(maxsize=200)
def picture(body: str, standard: str) -> StampPicture:
    """Return the scene of a stamp alone, cut to what is drawn."""
    parsed = body_from_text(body)
    left, top, right, bottom = parsed.piece.box()
    project = Project()

    def do(kind: str, **values: object) -> None:
        project.apply(compute(project, parse_edit({"kind": kind, **values})).changes)

    if standard != project.settings.standard:
        do("change-settings", standard=standard)
    size = "A3" if right - left < 140 and bottom - top < 90 else "A0"
    do("add-sheet", number="1", frame="zones", size=size)
    sheet_id = next(iter(project.sheets))
    try:
        do("paste-piece", sheet_id=sheet_id, x=12, y=12, piece=piece_to_json(parsed.piece))
    except CoreError:
        return {"x": 0, "y": 0, "width": 10, "height": 10, "items": []}
    items = [i for i in sheet_scene(project, sheet_id).items.values() if i.kind not in ("frame", "table")]
    return _cropped(items)


def _cropped(items: list[Item]) -> StampPicture:
    boxes = [i.box for i in items]
    x, y = min(b[0] for b in boxes) - MARGIN_MM, min(b[1] for b in boxes) - MARGIN_MM
    right, bottom = max(b[2] for b in boxes) + MARGIN_MM, max(b[3] for b in boxes) + MARGIN_MM
    return {"x": x, "y": y, "width": right - x, "height": bottom - y, "items": list(map(item_value, items))}
