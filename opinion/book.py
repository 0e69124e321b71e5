"""The project file, opened: its records kind by kind, and where the pins of its symbols lie."""

from __future__ import annotations

import json
from functools import cache
from pathlib import Path
from typing import Any

Record = dict[str, Any]
Point = tuple[str, int, int]  # sheet id, x, y in grid steps
Pin = tuple[str, int]  # symbol id and which of its pins, from 0
POLE_PITCH = 4  # grid steps from pole to pole of one symbol
_DRAWN = "drawn:"
LEAD = 2  # grid steps from the body of a block to its pins
_SYMBOLS = Path(__file__).resolve().parent.parent / "jolly_core" / "library" / "data" / "symbols"


def _shapes() -> dict[str, Record]:
    return {shape["key"]: shape for path in sorted(_SYMBOLS.iterdir()) for shape in json.loads(path.read_text("utf-8"))}


SHAPES = _shapes()


@cache
def shape_of(key: str) -> Record:
    """Return a symbol's data: one of those that come with the program, or one that a person drew, which its key holds.

    What the pins of a drawn one are called is known where it says so.
    """
    if not key.startswith(_DRAWN):
        return SHAPES[key]
    drawn = json.loads(key.removeprefix(_DRAWN))
    pins, names = [pin[:2] for pin in drawn["pins"]], [pin[2] for pin in drawn["pins"]]
    carries = drawn["through"] if drawn["unit"] == "terminal" else []
    return {**drawn, "pins": pins, "generic": names if all(names) else [], "carries": carries}


class Book:
    """A project file.

    Attributes:
        kinds: kind -> id -> record.
    """

    def __init__(self, text: str) -> None:
        """Read the text of a project file."""
        entities = json.loads(text)["entities"]
        self.kinds: dict[str, dict[str, Record]] = {
            kind: {record["id"]: record for record in records} for kind, records in entities.items()
        }

    def all(self, kind: str) -> list[Record]:
        """Return the records of a kind."""
        return list(self.kinds.get(kind, {}).values())

    def find(self, kind: str, id: str) -> Record | None:
        """Return a record by its id, None where it is not there."""
        return self.kinds.get(kind, {}).get(id)

    @property
    def settings(self) -> Record:
        """The project's settings."""
        return self.all("settings")[0]

    def pins(self, symbol: Record) -> list[Point]:
        """Return where the pins of a symbol are: mirrored, turned clockwise, then moved; y grows downwards."""
        found = []
        for pole in range(len(symbol["units"])):
            for x, y in offsets(symbol["definition"]):
                dx, dy = x, y + pole * POLE_PITCH
                if symbol["mirror"]:
                    dy = -dy
                for _ in range(symbol["rotation"] // 90):
                    dx, dy = -dy, dx
                found.append((symbol["sheet_id"], symbol["x"] + dx, symbol["y"] + dy))
        return found


def is_block(key: str) -> bool:
    """Return whether a symbol is a block of pins, which says itself where they are."""
    return key.startswith("block:")


def offsets(key: str) -> list[tuple[int, int]]:
    """Return where the pins of one pole of a symbol lie from its place, in grid steps."""
    if not is_block(key):
        return [(int(x), int(y)) for x, y in shape_of(key)["pins"]]
    _, width, height, pins = json.loads(key.removeprefix("block:"))
    left, right, top, bottom = -LEAD, width + LEAD, -LEAD, height + LEAD
    at = {"l": (left, None), "r": (right, None), "t": (None, top), "b": (None, bottom)}
    return [
        (n if at[side][0] is None else at[side][0], n if at[side][1] is None else at[side][1]) for side, n, _ in pins
    ]
