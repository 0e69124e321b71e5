"""Symbols that people draw, and outline drawings for plate and door.

A drawn symbol's key is the text "drawn:" and a JSON object that says all of it, so that a project keeps its symbols
when no library is at hand. An outline's key is "outline:" and a JSON list of graphics in mm from the upper left corner
of the part's outline. docs/formats/symbol.md describes both.
"""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Any

from jolly_core.model import FileError, check_text

from .classes import PartClass, part_class
from .symbols import POLE_PITCH, PRIMITIVES, Definition, Primitive, register_made
from .unitkinds import unit_kind

PREFIX, OUTLINE = "drawn:", "outline:"
MOST_PINS, MOST_PRIMITIVES, MOST_POLES, LONGEST_KEY = 48, 400, 4, 16_000
FARTHEST_STEPS, FARTHEST_MM = 120.0, 4000.0
LONGEST_TEXT = 40
TEXT_PLACES = ("tag", "text", "reference")
BLOCK = "block"  # a unit kind of symbols whose pins are named as the part's pins are
_LOADS = ("coil", "lamp", "load")
_NUMBERS = {"line": 4, "dash": 4, "rect": 4, "solid": 4, "circle": 3, "arc": 5}


def is_drawn(key: str) -> bool:
    """Return whether a symbol key is that of a symbol somebody drew."""
    return key.startswith(PREFIX)


def drawn_key(sketch: Mapping[str, Any]) -> str:
    """Return the key of a drawn symbol, its first pin moved to the origin.

    Args:
        sketch: name, class, unit, leads (whether it may begin a device), nicknames, poles (how many at most), pins as
            [x, y, name] in whole grid steps, through (pairs of pin indexes that part a wire), iec and na (graphics in
            grid steps; na may be left out), places (where tag, text and reference stand, [x, y] in grid steps; those
            left out stand where they usually do). A pin without a name takes the marking of its kind of unit.

    Raises:
        FileError: something of it cannot be; the message names it.

    Example:
        >>> lamp = {"name": "Beacon", "class": "lamp", "unit": "lamp", "leads": True,
        ...         "pins": [[2, 0, ""], [6, 0, ""]], "through": [[0, 1]], "iec": [["circle", 4, 0, 2]]}
        >>> definition = drawn_definition(drawn_key(lamp))
        >>> definition.pins, definition.generic, definition.graphics["iec"]
        (((0, 0), (4, 0)), ('X1', 'X2'), (('circle', 2, 0, 2),))
    """
    name = _words(sketch.get("name"), "name")
    if not name:
        raise FileError("Give the symbol a name.", field="name")
    kind = part_class(str(sketch.get("class", "")))
    unit, pins = _unit_and_pins(sketch, kind, name)
    dx, dy = pins[0][0], pins[0][1]
    poles = sketch.get("poles", 1)
    if type(poles) is not int or not 1 <= poles <= MOST_POLES:
        raise FileError(f"{name} should have 1 to {MOST_POLES} poles.", field="poles")
    body: dict[str, Any] = {
        "name": name,
        "class": kind.key,
        "unit": unit,
        "leads": bool(sketch.get("leads", False)),
        "nicknames": [w.lower() for w in (_words(n, "nicknames") for n in _list(sketch, "nicknames")) if w][:8],
        "poles": poles,
        "pins": [[x - dx, y - dy, pin] for x, y, pin in pins],
        "through": _through(sketch, pins, name),
    }
    for standard in ("iec", "na"):
        art = [_moved(p, -dx, -dy) for p in checked_art(_list(sketch, standard), FARTHEST_STEPS, name)]
        if any(p[0] != "text" for p in art) or standard == "iec":
            body[standard] = art
    places = _places(sketch, name)
    if places:
        body["places"] = {k: [_whole(x - dx), _whole(y - dy)] for k, (x, y) in places.items()}
    if not any(p[0] != "text" for p in body["iec"]):
        raise FileError(f"{name}: draw something beside its pins.", field="iec")
    _refuse_shared_pins(body, name)
    key = PREFIX + json.dumps(body, ensure_ascii=False, separators=(",", ":"))
    if len(key) > LONGEST_KEY:
        raise FileError(f"{name} has too much in it. Take lines away, or bring in a simpler drawing.", field="iec")
    return key


def _unit_and_pins(sketch: Mapping[str, Any], kind: PartClass, name: str) -> tuple[str, list[tuple[int, int, str]]]:
    """Return the kind of unit a sketch draws and its pins, as many and as named as that asks for."""
    unit = str(sketch.get("unit", ""))
    if unit != BLOCK and unit not in kind.units:
        what = unit_kind(unit).name if unit else "no unit"
        raise FileError(f"{name}: the class {kind.name} has no unit {what}.", field="unit")
    pins = _pins(sketch.get("pins"), name)
    if unit != BLOCK and len(pins) != len(unit_kind(unit).pins):
        marked = "-".join(unit_kind(unit).pins)
        count = f"{len(unit_kind(unit).pins)} pins, as {unit_kind(unit).many} have"
        raise FileError(f"{name} should have {count} ({marked}); it has {len(pins)}.", field="pins")
    if unit == BLOCK and not all(pin[2] for pin in pins):
        raise FileError(f"{name}: give each pin the name it has on the part.", field="pins")
    return unit, pins


def sketch_of(key: str) -> dict[str, Any]:
    """Return what a drawn symbol's key says, as `drawn_key` takes it.

    Raises:
        FileError: it is no such key, or what it says cannot be.
    """
    try:
        sketch = json.loads(key.removeprefix(PREFIX))
    except (ValueError, RecursionError):
        sketch = None
    if not is_drawn(key) or not isinstance(sketch, dict):
        raise FileError("This is no drawn symbol that can be read.", field="definition")
    if drawn_key(sketch) != key:
        raise FileError(f"The drawn symbol “{sketch.get('name')}” is not as it should be kept.", field="definition")
    return sketch


def sketch_from(shape: Definition) -> dict[str, Any]:
    """Return a symbol as a sketch to begin another one with; a drawn one is given as it was drawn.

    Example:
        >>> from jolly_core.library import definition
        >>> sketch_from(definition("lamp"))["pins"]
        [[0, 0, ''], [4, 0, '']]
    """
    if is_drawn(shape.key):
        return sketch_of(shape.key)
    usual = len(unit_kind(shape.unit).pins) == len(shape.pins) if shape.unit != BLOCK else False
    return {
        "name": shape.name,
        "class": shape.part_class,
        "unit": shape.unit,
        "leads": shape.lead < 9,
        "nicknames": [],
        "poles": shape.max_poles,
        "pins": [[x, y, "" if usual else name] for (x, y), name in zip(shape.pins, shape.generic, strict=True)],
        "through": [list(pair) for pair in shape.through],
        **{s: [[list(v) if isinstance(v, tuple) else v for v in p] for p in art] for s, art in shape.graphics.items()},
    }


@lru_cache(maxsize=1024)
def drawn_definition(key: str) -> Definition:
    """Return the definition a drawn symbol's key says.

    Raises:
        FileError: the key is not one of a drawn symbol.
    """
    sketch = sketch_of(key)
    unit, pins = sketch["unit"], sketch["pins"]
    usual = ("",) * len(pins) if unit == BLOCK else unit_kind(unit).pins
    points = tuple((x, y) for x, y, _ in pins)
    upright = [points[a][0] == points[b][0] for a, b in sketch["through"]] or [
        len({x for x, _ in points}) == 1 < len(pins)
    ]
    return Definition(
        key=key,
        name=sketch["name"],
        part_class=sketch["class"],
        unit=unit,
        lead=0 if sketch["leads"] else 9,
        nicknames=tuple(sketch["nicknames"]),
        pins=points,
        through=tuple((a, b) for a, b in sketch["through"]),
        carries=tuple((a, b) for a, b in sketch["through"]) if unit == "terminal" else (),
        generic=tuple(_pattern(name, mark) for (_, _, name), mark in zip(pins, usual, strict=True)),
        graphics={s: tuple(_frozen(p) for p in sketch[s]) for s in ("iec", "na") if s in sketch},
        max_poles=sketch["poles"],
        axis="v" if upright[0] else "h",
        load=unit in _LOADS,
        places=tuple((k, (x, y)) for k, (x, y) in sketch.get("places", {}).items()),
    )


def outline_key(art: Sequence[Any]) -> str:
    """Return the key of an outline drawing: graphics in mm from the upper left corner of the part's outline.

    Raises:
        FileError: something of it cannot be.

    Example:
        >>> outline_key([["circle", 11, 11, 9]])
        'outline:[["circle",11,11,9]]'
    """
    checked = checked_art(art, FARTHEST_MM, "The outline")
    if not checked:
        raise FileError("Draw something for the outline.", field="outline")
    key = OUTLINE + json.dumps(checked, ensure_ascii=False, separators=(",", ":"))
    if len(key) > LONGEST_KEY:
        raise FileError("The outline has too much in it. Bring in a simpler drawing.", field="outline")
    return key


@lru_cache(maxsize=256)
def outline_art(key: str) -> tuple[Primitive, ...]:
    """Return the graphics of an outline's key, mm.

    Raises:
        FileError: it is no outline's key.
    """
    try:
        raw = json.loads(key.removeprefix(OUTLINE))
    except (ValueError, RecursionError):
        raw = None
    if not key.startswith(OUTLINE) or not isinstance(raw, list):
        raise FileError("This is no outline drawing that can be read.", field="symbols")
    return tuple(_frozen(p) for p in checked_art(raw, FARTHEST_MM, "The outline"))


def checked_art(raw: Sequence[Any], farthest: float, name: str) -> list[list[Any]]:
    """Return graphics as they are kept, numbers to three places, things without a size left out.

    Raises:
        FileError: one is not of a known kind, has not the numbers it should have, or lies too far away.
    """
    if len(raw) > MOST_PRIMITIVES:
        raise FileError(f"{name} has {len(raw)} things in it; at most {MOST_PRIMITIVES} can be kept.", field="iec")
    found: list[list[Any]] = []
    for prim in raw:
        kind = prim[0] if isinstance(prim, list | tuple) and prim else None
        if kind not in PRIMITIVES:
            raise FileError(f"{name}: “{kind}” is nothing that can be drawn.", field="iec")
        values = list(prim[1:])
        if kind == "poly":
            points = values[0] if len(values) == 1 and isinstance(values[0], list | tuple) else []
            numbers = [_number(v, farthest, name) for v in points]
            if len(numbers) < 4 or len(numbers) % 2:
                raise FileError(f"{name}: a line of several points needs two points at least.", field="iec")
            found.append(["poly", numbers])
        elif kind == "text":
            if len(values) != 4 or not isinstance(values[2], str) or not values[2].strip():
                raise FileError(f"{name}: a text needs a place, its words and a size.", field="iec")
            words = _words(values[2], "iec")
            found.append(
                ["text", *(_number(v, farthest, name) for v in values[:2]), words, _number(values[3], 100, name)]
            )
        else:
            if len(values) != _NUMBERS[kind]:
                raise FileError(f"{name}: a {kind} has {_NUMBERS[kind]} numbers.", field="iec")
            numbers = [_number(v, max(farthest, 360.0), name) for v in values]
            if any(abs(n) > farthest for n in numbers[:3]):
                raise FileError(f"{name} reaches too far out.", field="iec")
            if _has_size(kind, numbers):
                found.append([kind, *numbers])
    return found


def _has_size(kind: str, n: list[float]) -> bool:
    if kind == "circle":
        return n[2] > 0
    if kind == "arc":
        return n[2] > 0 and n[3] != n[4]
    return (n[0], n[1]) != (n[2], n[3])


def _number(value: Any, farthest: float, name: str) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not abs(value) <= farthest:
        raise FileError(f"{name}: {value!r} is no length that can be drawn.", field="iec")
    short = round(float(value), 3)
    return int(short) if short == int(short) else short


def _pins(raw: Any, name: str) -> list[tuple[int, int, str]]:
    rows = raw if isinstance(raw, list | tuple) else []
    if not 1 <= len(rows) <= MOST_PINS:
        raise FileError(f"{name} should have 1 to {MOST_PINS} pins.", field="pins")
    found = []
    for row in rows:
        if not isinstance(row, list | tuple) or len(row) != 3 or any(type(v) is not int for v in row[:2]):
            raise FileError(f"{name}: a pin stands on a whole grid step and has a name.", field="pins")
        if max(abs(row[0]), abs(row[1])) > FARTHEST_STEPS:
            raise FileError(f"{name}: a pin lies too far out.", field="pins")
        found.append((row[0], row[1], _words(row[2], "pins")))
    return found


def _through(sketch: Mapping[str, Any], pins: list[tuple[int, int, str]], name: str) -> list[list[int]]:
    found: list[list[int]] = []
    for pair in _list(sketch, "through"):
        good = isinstance(pair, list | tuple) and len(pair) == 2 and all(type(i) is int for i in pair)
        if not good or not all(0 <= i < len(pins) for i in pair) or pair[0] == pair[1]:
            raise FileError(f"{name}: a wire is parted between two of its pins.", field="through")
        a, b = (pins[i] for i in pair)
        if a[0] != b[0] and a[1] != b[1]:
            raise FileError(f"{name}: a wire is parted between two pins in line with each other.", field="through")
        found.append(list(pair))
    return found


def _places(sketch: Mapping[str, Any], name: str) -> dict[str, tuple[float, float]]:
    raw = sketch.get("places") or {}
    if not isinstance(raw, Mapping) or any(k not in TEXT_PLACES for k in raw):
        raise FileError(f"{name}: places are of {', '.join(TEXT_PLACES)}.", field="places")
    found = {}
    for key in TEXT_PLACES:
        place = raw.get(key)
        if place is not None:
            if not isinstance(place, list | tuple) or len(place) != 2:
                raise FileError(f"{name}: the place of its {key} is two numbers.", field="places")
            found[key] = (_number(place[0], FARTHEST_STEPS, name), _number(place[1], FARTHEST_STEPS, name))
    return found


def _refuse_shared_pins(body: Mapping[str, Any], name: str) -> None:
    points = [(x, y + POLE_PITCH * pole) for pole in range(body["poles"]) for x, y, _ in body["pins"]]
    if len(set(points)) < len(points):
        why = f" when its poles are repeated {POLE_PITCH} steps apart" if body["poles"] > 1 else ""
        raise FileError(f"{name}: two pins stand on one point{why}.", field="pins")


def _list(sketch: Mapping[str, Any], field: str) -> Sequence[Any]:
    value = sketch.get(field) or []
    if not isinstance(value, list | tuple):
        raise FileError(f"A drawn symbol's {field} should be a list.", field=field)
    return value


def _words(value: Any, field: str) -> str:
    if not isinstance(value, str):
        raise FileError(f"A drawn symbol's {field} should be words.", field=field)
    check_text(value, field, "symbol")
    return " ".join(value.split())[:LONGEST_TEXT]


def _pattern(name: str, usual: str) -> str:
    """Return a pin's name as a pattern of the unit's number; the usual marking where it has none."""
    return name.replace("{", "{{").replace("}", "}}") if name else usual.replace("{i}", "{n}")


def _moved(prim: list[Any], dx: int, dy: int) -> list[Any]:
    kind, *v = prim
    if kind == "poly":
        return [kind, [_whole(n + (dy if i % 2 else dx)) for i, n in enumerate(v[0])]]
    lengths = 2 if kind in ("circle", "arc", "text") else 4
    return [kind, *(_whole(n + (dy if i % 2 else dx)) for i, n in enumerate(v[:lengths])), *v[lengths:]]


def _whole(value: float) -> float:
    short = round(value, 3)
    return int(short) if short == int(short) else short


def _frozen(prim: Sequence[Any]) -> Primitive:
    return tuple(tuple(v) if isinstance(v, list) else v for v in prim)


register_made(PREFIX, drawn_definition)
