"""The quick line: several symbols typed in a row, left to right, and several rows below each other.

Grammar: items are parted by commas, rows by semicolons. An item after a stroke | lies beside the one before it, on the
line below, wired in parallel; as a contact it belongs to the coil of its row. An item is a word or nickname, then in
any order a description in double quotes, a device after @ (its tag; @ alone is the coil placed last) and a part number
after #. Examples: nc "Stop", no "Start" | no, coil "Auger run"; no @, lamp "Running" #TW-L22-G.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from jolly_core.drawing import UPRIGHT, Point, SheetDraft, rails_at
from jolly_core.library import Definition, definition, find_symbols
from jolly_core.model import RuleError, Sheet, Symbol
from jolly_core.tagging import full_tag, likely_devices, product_tag

from ..base.edit import Grid, Id, Payload, TextLine, Work, edit
from ..devices.parts import part_for
from .place import caret_after, orientation, put_symbol
from .railends import RailEnds

PITCH = 13
LEAD_IN = 6
ROW_STEP = 9  # between rows on a sheet without ladder lines
_ITEM = re.compile(r'\s*(?:"(?P<text>[^"]*)"|@(?P<device>[^\s"#@]*)|#(?P<part>[^\s"@]+)|(?P<word>[^\s"@#]+))\s*')
LAST = "@"  # the coil placed last
BESIDE = 2  # steps between the pins of an item and the corners of what lies beside it


@dataclass(slots=True)
class TypedItem:
    """One item of a quick line as it was typed; `row` counts from 0, `beside` is parallel to the item before."""

    words: str
    text: str = ""
    device: str = ""
    part: str = ""
    row: int = 0
    beside: bool = False


def parse(line: str) -> list[TypedItem]:
    """Return the items of a quick line.

    Raises:
        RuleError: naming the item that cannot be read.

    Example:
        >>> [i.text for i in parse('nc "Stop", no "Start"')]
        ['Stop', 'Start']
    """
    items: list[TypedItem] = []
    row = 0
    for number, (mark, piece) in enumerate(_pieces(line), start=1):
        row += mark == ";" and number > 1
        item = TypedItem("", row=row, beside=mark == "|")
        if item.beside and (not items or items[-1].row != row or items[-1].beside):
            raise RuleError(f"Item {number} lies beside nothing: type | after an item of the row.", field="line")
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
            item.device = item.device if match["device"] is None else match["device"] or LAST
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


def _pieces(line: str) -> list[tuple[str, str]]:
    """Return the pieces of a line, each with the mark before it."""
    pieces: list[tuple[str, str]] = []
    mark, current, quoted = ",", "", False
    for char in line:
        quoted = quoted != (char == '"')
        if char in ",;|" and not quoted:
            pieces.append((mark, current))
            # A row that begins keeps its mark, though nothing stands before its first comma.
            mark = ";" if mark == ";" and not current.strip() else char
            current = ""
        else:
            current += char
    if quoted:
        raise RuleError('A description is not closed: add the second " mark.', field="line")
    return [(m, p) for m, p in (*pieces, (mark, current)) if p.strip()]


class PlaceRow(Payload):
    """Put the symbols of a quick line down in rows, with each rung's wire where there is none yet.

    On a ladder line the rung runs from rail to rail and a load stands before the right rail. A symbol with pins beside
    each other (motor, transformer, supply) stands by itself, or turned at the end of a row, its first pin on the line.
    """

    kind: Literal["place-row"] = "place-row"
    sheet_id: Id
    x: Grid
    y: Grid
    line: TextLine
    wire_type_id: Id


@edit(PlaceRow, {"sheet_id": "s1", "x": 20, "y": 16, "line": 'nc "Stop", no "Start"', "wire_type_id": "t1"})
def place_row(work: Work, payload: PlaceRow) -> str:
    """Work out PlaceRow."""
    project = work.project
    sheet: Sheet = project.get("sheet", payload.sheet_id)
    project.get("wire_type", payload.wire_type_id)
    items = parse(payload.line)
    step = sheet.line_spacing if sheet.frame == "ladder" else ROW_STEP
    y = payload.y
    for number in range(items[-1].row + 1):
        row = [i for i in items if i.row == number]
        _row(work, payload, sheet, row, y, step, items.index(row[0]) + 1)
        y += step * (2 if any(i.beside for i in row) else 1)
    if _railed(payload, sheet) or items[-1].row:
        work.outcome.caret = (payload.x, y)
    return f"place a row of {len(items)}" if not items[-1].row else f"place {items[-1].row + 1} rows"


def _railed(payload: PlaceRow, sheet: Sheet) -> bool:
    left, right = rails_at(sheet, payload.x)
    return sheet.frame == "ladder" and left <= payload.x <= right


def _row(work: Work, payload: PlaceRow, sheet: Sheet, items: list[TypedItem], y: int, step: int, first: int) -> None:
    """Put one row down: its line of symbols, then what lies beside them."""
    line = [i for i in items if not i.beside]
    shapes = [_shape(work, item, number, sheet) for number, item in enumerate(line, start=first)]
    if shapes[0].axis == "v" and len(shapes) == 1:
        symbol = _put(work, sheet, line[0], shapes[0], (payload.x, y))
        work.outcome.caret = caret_after(symbol, sheet)
        return
    for number, shape in enumerate(shapes[:-1], start=first):
        if shape.axis == "v":
            words = f"Item {number}: a {shape.name.lower()} stands at the end of a row, or on a line of its own"
            raise RuleError(f"{words} (;).", field="line")
    draft = work.draft(sheet.id)
    lines = (y, y + step) if any(i.beside for i in items) else (y,)
    ends = RailEnds(draft, sheet, lines, payload.wire_type_id)
    on_wire = next((w for w in draft.wires.values() if w.y1 == w.y2 == y and w.x1 <= payload.x <= w.x2), None)
    left, right = rails_at(sheet, payload.x)
    rails = on_wire is None and _railed(payload, sheet)
    start = max(payload.x, left + LEAD_IN) if rails else payload.x
    limit = on_wire.x2 if on_wire else right
    places = _places(shapes, start, limit, rails or on_wire is not None)
    if on_wire is None:
        low = left if rails else start
        high = right if rails else places[-1] + _length(shapes[-1])
        draft.stroke((low, y), (high, y), payload.wire_type_id)
        work.close(draft)
    coil = ""
    for item, shape, x in zip(line, shapes, places, strict=True):
        symbol = _put(work, sheet, item, shape, (x, y))
        if shape.unit == "coil":
            coil = symbol.device_id
        work.outcome.caret = caret_after(symbol, sheet)
    gap = min((b - a - _length(s) for a, b, s in zip(places, places[1:], shapes, strict=False)), default=2 * BESIDE)
    for n, item in enumerate(items):
        if item.beside:
            before = line.index(items[n - 1])
            number = first + n
            _beside(work, payload, sheet, item, number, coil, (places[before], y), _length(shapes[before]), step, gap)
    draft = work.draft(sheet.id)
    if ends.settle(draft):
        work.close(draft)


def _put(work: Work, sheet: Sheet, item: TypedItem, shape: Definition, at: Point, device_id: str = "") -> Symbol:
    draft = work.draft(sheet.id)
    device_id = device_id or (_device_named(work, item.device) if item.device else "")
    symbol = put_symbol(work, draft, shape, at, _turn(draft, shape, at), None, device_id, item.text)
    work.close(draft)
    if item.part:
        part_for(work, symbol, _part_named(work, item.part))
    work.outcome.placed.append(symbol.id)
    return symbol


def _beside(
    work: Work,
    payload: PlaceRow,
    sheet: Sheet,
    item: TypedItem,
    number: int,
    coil: str,
    at: Point,
    length: int,
    step: int,
    gap: int,
) -> None:
    """Put an item parallel to the one at a point, on the line below it; a contact belongs to the row's coil."""
    x, y = at
    out = max(1, min(BESIDE, gap // 2))
    draft = work.draft(sheet.id)
    corners = [(x - out, y), (x - out, y + step), (x + length + out, y + step), (x + length + out, y)]
    for a, b in zip(corners, corners[1:], strict=False):
        draft.stroke(a, b, payload.wire_type_id)
    work.close(draft)
    of_coil = coil if not item.device else ""
    shape = _shape(work, item, number, sheet, of_coil)
    _put(work, sheet, item, shape, (x, y + step), of_coil if shape.lead >= 9 else "")


def _shape(work: Work, item: TypedItem, number: int, sheet: Sheet, device_id: str = "") -> Definition:
    """Return the symbol an item means: a unit of the device it names, else one that leads a device of its own."""
    project = work.project
    found = find_symbols(item.words)
    if item.device or device_id:
        device_id = device_id or _device_named(work, item.device)
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
    if shape.axis == "v" and any(w.y1 == w.y2 == at[1] and w.x1 <= at[0] <= w.x2 for w in draft.wires.values()):
        return UPRIGHT
    return orientation(draft, shape, *at) if not shape.upright else (0, False)


def _length(shape: Definition) -> int:
    return max(x for x, _ in shape.pins) if shape.axis == "h" else 0


def _places(shapes: list[Definition], start: int, limit: int, bounded: bool) -> list[int]:
    pitch = PITCH
    last_load = bounded and (shapes[-1].load or shapes[-1].axis == "v")
    room = limit - start - 2 * (_length(shapes[-1]) if last_load else 0)
    if bounded and len(shapes) > 1:
        pitch = max(6, min(PITCH, room // len(shapes)))
    places = [start + pitch * i for i in range(len(shapes))]
    if last_load and limit - 2 * _length(shapes[-1]) >= places[-1]:
        places[-1] = limit - 2 * _length(shapes[-1])
    if bounded and places[-1] + _length(shapes[-1]) > limit:
        if len(shapes) == 1:
            raise RuleError(f"“{shapes[0].name}” has no room right of the caret. Move it left.", field="line")
        raise RuleError(f"There is no room for {len(shapes)} symbols right of the caret. Move it left.", field="line")
    return places


def _device_named(work: Work, name: str) -> str:
    """Return the device of a tag; LAST is that of the coil placed last."""
    project = work.project
    if name == LAST:
        placed = [
            s for s in sorted(project.symbols.values(), key=lambda s: s.id) if definition(s.definition).unit == "coil"
        ]
        if not placed:
            raise RuleError("There is no coil yet that @ could mean. Type its tag after the @.", field="line")
        return placed[-1].device_id
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
