"""The quick line: several symbols typed in a row, left to right.

Grammar: items are parted by commas. An item is a word or nickname, then in any order a description in double quotes, a
device after @ (its tag without the mark, or with it) and a part number after #. Examples: nc "Stop", no "Start",
coil "Auger run"; no @QA1, lamp "Running" #TW-L22-G.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft, rails_at
from jolly_core.library import Definition, find_symbols
from jolly_core.model import Project, RuleError, Sheet
from jolly_core.tagging import full_tag, likely_devices, product_tag

from .base import Grid, Id, Payload, Text, Work, edit
from .parts import part_for
from .place import caret_after, orientation, put_symbol

PITCH = 13
LEAD_IN = 6
_ITEM = re.compile(r'\s*(?:"(?P<text>[^"]*)"|@(?P<device>[^\s,"#@]+)|#(?P<part>[^\s,"@]+)|(?P<word>[^\s,"@#]+))\s*')


@dataclass(slots=True)
class Item:
    """One item of a quick line as it was typed."""

    words: str
    text: str = ""
    device: str = ""
    part: str = ""


def parse(line: str) -> list[Item]:
    """Return the items of a quick line.

    Raises:
        RuleError: naming the item that cannot be read.

    Example:
        >>> [i.text for i in parse('nc "Stop", no "Start"')]
        ['Stop', 'Start']
    """
    items = []
    for number, piece in enumerate(_pieces(line), start=1):
        item = Item("")
        words: list[str] = []
        position = 0
        while position < len(piece):
            match = _ITEM.match(piece, position)
            if match is None or match.end() == position:
                if piece[position:].strip():
                    raise RuleError(f"Item {number}: “{piece[position:].strip()}” is not closed.", field="line")
                break
            position = match.end()
            item.text = match["text"] if match["text"] is not None else item.text
            item.device = match["device"] or item.device
            item.part = match["part"] or item.part
            if match["word"]:
                words.append(match["word"])
        item.words = " ".join(words)
        if not item.words:
            raise RuleError(f"Item {number} names no symbol. Start it with a word such as no, nc, coil.", field="line")
        items.append(item)
    if not items:
        raise RuleError('Type symbols parted by commas, for example: nc "Stop", no "Start".', field="line")
    return items


def _pieces(line: str) -> list[str]:
    pieces, current, quoted = [], "", False
    for char in line:
        quoted = quoted != (char == '"')
        if char == "," and not quoted:
            pieces.append(current)
            current = ""
        else:
            current += char
    if quoted:
        raise RuleError('A description is not closed: add the second " mark.', field="line")
    return [p for p in (*pieces, current) if p.strip()]


class PlaceRow(Payload):
    """Put the symbols of a quick line down in a row, with the rung's wire where there is none yet.

    On a ladder line the rung runs from rail to rail and a load stands before the right rail.
    """

    kind: Literal["place-row"] = "place-row"
    sheet_id: Id
    x: Grid
    y: Grid
    line: Text = Field(max_length=400)
    wire_type_id: Id


@edit(PlaceRow, {"sheet_id": "s1", "x": 20, "y": 16, "line": 'nc "Stop", no "Start"', "wire_type_id": "t1"})
def place_row(work: Work, payload: PlaceRow) -> str:
    """Work out PlaceRow."""
    project = work.project
    sheet: Sheet = project.get("sheet", payload.sheet_id)
    project.get("wire_type", payload.wire_type_id)
    items = parse(payload.line)
    shapes = [_shape(project, item, number, sheet) for number, item in enumerate(items, start=1)]
    draft = work.draft(sheet.id)
    y = payload.y
    on_wire = next((w for w in draft.wires.values() if w.y1 == w.y2 == y and w.x1 <= payload.x <= w.x2), None)
    left, right = rails_at(sheet, payload.x)
    rails = sheet.frame == "ladder" and on_wire is None and left <= payload.x <= right
    start = max(payload.x, left + LEAD_IN) if rails else payload.x
    limit = on_wire.x2 if on_wire else right
    places = _places(shapes, start, limit, rails or on_wire is not None)
    if on_wire is None:
        low = left if rails else start
        high = right if rails else places[-1] + _length(shapes[-1])
        draft.stroke((low, y), (high, y), payload.wire_type_id)
        draft.tidy()
    for item, shape, x in zip(items, shapes, places, strict=True):
        at: Point = (x, y)
        device_id = _device_named(project, item.device) if item.device else ""
        symbol = put_symbol(work, draft, shape, at, _turn(draft, shape, at), None, device_id, item.text)
        work.close(draft)
        if item.part:
            part_for(work, symbol, _part_named(work, item.part))
        work.outcome.placed.append(symbol.id)
        draft = work.draft(sheet.id)
        work.outcome.caret = caret_after(symbol, sheet)
    if rails:
        work.outcome.caret = (payload.x, y + sheet.line_spacing)
    return f"place a row of {len(items)}"


def _shape(project: Project, item: Item, number: int, sheet: Sheet) -> Definition:
    found = [s for s in find_symbols(item.words) if s.axis == "h"]
    if item.device:
        device_id = _device_named(project, item.device)
        fitting = [
            s
            for s in found
            if s.lead == 9 and any(d.id == device_id for d, _, _ in likely_devices(project, s.key, sheet.id))
        ]
        found = fitting or found
    else:
        found = [s for s in found if s.lead < 9] or found
    if not found:
        raise RuleError(f"Item {number}: no symbol is called “{item.words}”.", field="line")
    return found[0]


def _turn(draft: SheetDraft, shape: Definition, at: Point) -> tuple[int, bool]:
    return orientation(draft, shape, *at) if not shape.upright else (0, False)


def _length(shape: Definition) -> int:
    return max(x for x, _ in shape.pins)


def _places(shapes: list[Definition], start: int, limit: int, bounded: bool) -> list[int]:
    pitch = PITCH
    last_load = bounded and shapes[-1].load
    room = limit - start - 2 * (_length(shapes[-1]) if last_load else 0)
    if bounded and len(shapes) > 1:
        pitch = max(6, min(PITCH, room // len(shapes)))
    places = [start + pitch * i for i in range(len(shapes))]
    if last_load and limit - 2 * _length(shapes[-1]) >= places[-1]:
        places[-1] = limit - 2 * _length(shapes[-1])
    if bounded and places[-1] + _length(shapes[-1]) > limit:
        raise RuleError("There is no room for so many symbols on this line.", field="line")
    return places


def _device_named(project: Project, name: str) -> str:
    wanted = name.lstrip("-").lower()
    for device in project.devices.values():
        if wanted in (product_tag(project, device).lower(), full_tag(project, device).lower()):
            return device.id
    raise RuleError(f"There is no device @{name} in this project.", field="line")


def _part_named(work: Work, number: str) -> str:
    for part in work.project.parts.values():
        if part.number.lower() == number.lower():
            return part.id
    found = work.library.part(number)
    if found is None:
        raise RuleError(f"There is no part #{number} in the library. Type its whole number.", field="line")
    return found.id
