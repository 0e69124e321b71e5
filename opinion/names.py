"""What is written on things: reference designations, pin names, terminal numbers."""

from __future__ import annotations

import json

from .book import Book, Pin, Record, is_block, shape_of

_BY_ORDER: Record = {"numbering": "order", "start": 1, "step": 1, "backward": False}  # of a strip that nobody set up
_MAKING = "4"  # a making contact of a changeover ends so, a breaking one in 2: EN 50005


def tag(book: Book, device: Record) -> str:
    """Return the whole reference designation: =function+location-letters and number.

    A fixed tag stands for letters and number. In the line habit the marks are left
    out; there the number depends on the place on the sheets, and only fixed tags are known here ("" for others).
    """
    if book.settings["tag_habit"] == "line":
        return str(device["fixed_tag"])
    product = device["fixed_tag"] or f"{device['letters']}{device['number']}"
    function = _path(book, "function", device["function_id"], "=")
    return f"{function}{_path(book, 'location', device['location_id'], '+')}-{product}"


def _path(book: Book, kind: str, id: str, mark: str) -> str:
    codes: list[str] = []
    while id:
        record = book.kinds[kind][id]
        codes.insert(0, record["code"])
        id = record["parent_id"]
    return mark + ".".join(codes) if codes else ""


def pin_names(book: Book, symbol: Record) -> list[str] | None:
    """Return the names of a symbol's pins: those its part gives the unit, else the usual ones.

    Of a terminal all have its number.

    Returns:
        None for a terminal whose number this book does not know.
    """
    key = symbol["definition"]
    if is_block(key):
        return [name for _, _, name in json.loads(key.removeprefix("block:"))[3]]
    shape = shape_of(key)
    if shape["unit"] == "terminal":
        return _numbered(book, symbol)
    device = book.find("device", symbol["device_id"])
    part = book.find("part", device["part_id"]) if device else None
    names: list[str] = []
    for number in symbol["units"]:
        given: list[str] = []
        if number and part is not None:
            given = _of_part(part, shape["unit"], number)
        elif number:
            letter = chr(ord("A") + min(max(number, 1), 26) - 1)
            words = {"n": number, "odd": 2 * number - 1, "even": 2 * number, "letter": letter}
            given = [name.format(**words) for name in shape["generic"]]
        names += [given[n] if n < len(given) else "" for n in range(len(shape["pins"]))]
    return names


def _numbered(book: Book, symbol: Record) -> list[str] | None:
    """Return the number of a terminal for each of its pins; None in a strip that takes those of its wires."""
    unit = symbol["units"][0]
    strip = symbol["device_id"]
    if not strip or not unit:
        return None
    drawn = {
        s["units"][0]
        for s in book.all("symbol")
        if s["device_id"] == strip and not is_block(s["definition"]) and shape_of(s["definition"])["unit"] == "terminal"
    }
    found = _numbers(book, strip, drawn)
    return None if found is None else [found[unit]] * len(shape_of(symbol["definition"])["pins"])


def _numbers(book: Book, strip_id: str, drawn: set[int]) -> dict[int, str] | None:
    """Return the number of each terminal: fixed, else by its place from the first number on, else behind all others."""
    items = [i for i in book.all("strip_item") if i["strip_id"] == strip_id and i["kind"] == "terminal"]
    items = sorted((i for i in items if i["planned"] or i["unit"] in drawn), key=lambda i: (i["order"], i["unit"]))
    row = [i["unit"] for i in items]
    row += [unit for unit in sorted(drawn) if unit not in row]
    facts = next((s for s in book.all("strip") if s["device_id"] == strip_id), None) or _BY_ORDER
    if facts["numbering"] == "wire":
        return None
    if facts["backward"]:
        row = row[::-1]
    if facts["numbering"] == "level":
        level = {i["unit"]: i["level"] for i in items}
        row = [unit for n in sorted({level.get(u, 1) for u in row}) for unit in row if level.get(unit, 1) == n]
    first, step = facts["start"], facts["step"]
    found = {i["unit"]: i["number"] for i in items if i["number"]}
    taken = set(found.values())
    behind = first + step * len(row)
    for place, unit in enumerate(row):
        if unit in found:
            continue
        number = first + step * place
        if str(number) in taken:
            number = behind
            while str(number) in taken:
                number += step
        found[unit] = str(number)
        taken.add(str(number))
    return found


def _of_part(part: Record, kind: str, number: int) -> list[str]:
    """Return the pins of a part's unit of a kind; contacts beyond its own are those of its changeovers."""
    own = [pins for unit, pins in part["units"] if unit == kind]
    if number <= len(own):
        return list(own[number - 1])
    changeovers = [pins for unit, pins in part["units"] if unit == "co"]
    if kind not in ("no", "nc") or number - len(own) > len(changeovers):
        return []
    common, *others = changeovers[number - len(own) - 1]
    making = next((pin for pin in others if pin[-1:] == _MAKING), others[0])
    breaking = next(pin for pin in others if pin != making)
    return [common, making if kind == "no" else breaking]


def end(book: Book, pin: Pin) -> str:
    """Return what a wire list writes for an end, "=K2+KP2-QA1:13", "" where this book does not know it."""
    symbol = book.kinds["symbol"][pin[0]]
    device = book.find("device", symbol["device_id"])
    names = pin_names(book, symbol)
    if device is None or names is None or not names[pin[1]] or not tag(book, device):
        return ""
    return f"{tag(book, device)}:{names[pin[1]]}"
