"""Blocks: symbols made from the pins of a device of many pins (drives, soft starters, safety relays, converters).

A block is not in the symbol data; its key says all of it, so that a symbol carries its own block: part class, size of
the body, and for each side the pins with their places along it. Pins stand LEAD steps off the body. The key is the text
"block:" and a JSON list [class, width, height, [[side, place, name], ...]], sides being l, r, t and b.
"""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any

from jolly_core.model import FileError

from .classes import is_class
from .classes import part_class as class_of_key
from .symbols import Definition, Primitive, register_made

PREFIX = "block:"
SIDES = {"left": "l", "right": "r", "top": "t", "bottom": "b"}
PITCH = 4
LEAD = 2
LEAST_WIDTH, LEAST_HEIGHT = 10, 6
MOST_PINS = 64
NAME_SIZE = 0.9  # grid steps
TEXT_STEPS = 0.55  # of a step for each letter of a pin's name


def is_block(key: str) -> bool:
    """Return whether a symbol key is that of a block."""
    return key.startswith(PREFIX)


def block_key(part_class: str, sides: Mapping[str, Sequence[str]], width: int = 0) -> str:
    """Return the key of a block with pins on its sides, in order from the left or top; "" leaves a place free.

    Args:
        part_class: class a device of it gets its letters from.
        sides: pin names by side: left, right, top, bottom.
        width: least width of the body, grid steps.

    Raises:
        FileError: no pin, too many, or one twice.

    Example:
        >>> block_key("drive", {"left": ["1", "2"], "top": ["L1"]})
        'block:["drive",10,8,[["l",2,"1"],["l",6,"2"],["t",2,"L1"]]]'
    """
    names = [n for side in SIDES for n in sides.get(side, ()) if n]
    if not names or len(names) > MOST_PINS:
        raise FileError(f"A block has 1 to {MOST_PINS} pins.", field="pins")
    doubled = sorted({n for n in names if names.count(n) > 1})
    if doubled:
        raise FileError(f"The pin {doubled[0]} is on the block twice.", field="pins")
    down = max(len(sides.get("left", ())), len(sides.get("right", ())))
    across = max(len(sides.get("top", ())), len(sides.get("bottom", ())))
    words = sum(max((len(n) for n in sides.get(s, ())), default=0) for s in ("left", "right"))
    wide = max(LEAST_WIDTH, width, PITCH * across, int(words * TEXT_STEPS) + 4)
    high = max(LEAST_HEIGHT, PITCH * down)
    pins = [
        [letter, 2 + PITCH * n, name]
        for side, letter in SIDES.items()
        for n, name in enumerate(sides.get(side, ()))
        if name
    ]
    return PREFIX + json.dumps([part_class, wide, high, pins], ensure_ascii=False, separators=(",", ":"))


def sides_of(key: str) -> dict[str, list[str]]:
    """Return the pin names of a block by side, "" for a place that is free.

    Example:
        >>> sides_of(block_key("drive", {"left": ["1", "", "2"]}))["left"]
        ['1', '', '2']
    """
    found: dict[str, list[str]] = {side: [] for side in SIDES}
    names = {letter: side for side, letter in SIDES.items()}
    for letter, place, name in _parse(key)[3]:
        row = found[names[letter]]
        row += [""] * ((place - 2) // PITCH - len(row))
        row.append(name)
    return found


def width_of(key: str) -> int:
    """Return the width of a block's body in grid steps."""
    return int(_parse(key)[1])


def _parse(key: str) -> list[Any]:
    """Return the parts of a block's key.

    Raises:
        FileError: it is no block key.
    """
    fault = FileError("A symbol is no block that can be read.", field="definition")
    try:
        raw = json.loads(key[len(PREFIX) :])
        part_class, width, height, pins = raw
        places = [(letter, place) for letter, place, _ in pins]
        good = is_class(part_class) and all(type(v) is int and 2 <= v <= 400 for v in (width, height))
        good = good and all(s in ("l", "r", "t", "b") and type(p) is int and 0 <= p <= 400 for s, p in places)
        good = good and all(isinstance(n, str) and n for _, _, n in pins) and 0 < len(pins) <= MOST_PINS
    except (ValueError, TypeError, RecursionError):
        raise fault from None
    if not good or len(set(places)) != len(places):
        raise fault
    return list(raw)


@lru_cache(maxsize=1024)
def block_definition(key: str) -> Definition:
    """Return the definition a block's key says.

    Raises:
        FileError: the key is not one of a block.
    """
    part_class, width, height, pins = _parse(key)
    points: list[tuple[int, int]] = []
    art: list[Primitive] = [("rect", 0, 0, width, height)]
    for letter, place, name in pins:
        half = len(name) * TEXT_STEPS * 0.45
        if letter == "l":
            points.append((-LEAD, place))
            art += [("line", -LEAD, place, 0, place), ("text", 0.5 + half, place + 0.3, name, NAME_SIZE)]
        elif letter == "r":
            points.append((width + LEAD, place))
            art += [
                ("line", width, place, width + LEAD, place),
                ("text", width - 0.5 - half, place + 0.3, name, NAME_SIZE),
            ]
        elif letter == "t":
            points.append((place, -LEAD))
            art += [("line", place, -LEAD, place, 0), ("text", place, 1.3, name, NAME_SIZE)]
        else:
            points.append((place, height + LEAD))
            art += [("line", place, height, place, height + LEAD), ("text", place, height - 0.5, name, NAME_SIZE)]
    return Definition(
        key=key,
        name=class_of_key(part_class).name,
        part_class=part_class,
        unit="block",
        lead=0,
        nicknames=(),
        pins=tuple(points),
        through=(),
        carries=(),
        generic=tuple(name for _, _, name in pins),
        graphics={"iec": tuple(art)},
    )


@cache
def usual_blocks() -> tuple[Definition, ...]:
    """Return the blocks that are offered by name before a part is chosen, with the pins that are usual on their kind.

    Notes:
        What stands on the sheet is an ordinary block: its pins follow its part once that is assigned.
    """
    raw = json.loads(files("jolly_core.library").joinpath("data", "usual_blocks.json").read_text(encoding="utf-8"))
    found = []
    for row in raw:
        key = block_key(row["class"], {side: row.get(side, ()) for side in SIDES})
        found.append(replace(block_definition(key), name=row["name"], nicknames=tuple(row["nicknames"])))
    return tuple(found)


@lru_cache(maxsize=1024)
def block_spans(key: str) -> tuple[tuple[tuple[int, int], tuple[int, int]], ...]:
    """Return for each pin of a block the stretch from it to as far beyond the other side of the body.

    A wire that lies there is cut: it ends at the pin, and at the pin across where there is one.

    Shapes:
        pairs of points in grid steps about the block's origin, the left or upper one first.
    """
    _, width, height, pins = _parse(key)
    found: dict[tuple[tuple[int, int], tuple[int, int]], None] = {}
    for letter, place, _ in pins:
        across = ((-LEAD, place), (width + LEAD, place))
        down = ((place, -LEAD), (place, height + LEAD))
        found[across if letter in "lr" else down] = None
    return tuple(found)


def block_body(key: str) -> tuple[int, int]:
    """Return the width and height of a block's body in grid steps."""
    _, width, height, _ = _parse(key)
    return int(width), int(height)


register_made(PREFIX, block_definition)
