"""What is bought of each part for devices, and the contacts that a contact table has to name."""

from __future__ import annotations

from collections import Counter, defaultdict

from .book import Book, Record, is_block, shape_of
from .names import pin_names

_COUNTED_OTHERWISE = ("terminal", "cable", "connector", "backshell", "covering", "wire")  # by piece, metre, seat
_CONTACTS = ("no", "nc", "tno", "tnc")


def pieces(book: Book) -> Counter[str]:
    """Return how many of each part, by its id, devices are: one each.

    Parts that are counted otherwise (terminals by their places, cables by length, connectors with what belongs to them)
    are left out.
    """
    found: Counter[str] = Counter()
    for device in book.all("device"):
        part = book.find("part", device["part_id"])
        if part is not None and part["part_class"] not in _COUNTED_OTHERWISE:
            found[part["id"]] += 1
    return found


def contacts(book: Book) -> dict[str, Counter[str]]:
    """Return for each device with a coil, by its id, the pins of all its contacts, "13-14", drawn or free.

    Devices whose part has changeovers are left out: half of one may be drawn.
    """
    units: dict[str, list[Record]] = defaultdict(list)
    for symbol in book.all("symbol"):
        if symbol["device_id"] and not is_block(symbol["definition"]):
            units[symbol["device_id"]].append(symbol)
    found: dict[str, Counter[str]] = {}
    for device_id, symbols in units.items():
        kinds = Counter(shape_of(s["definition"])["unit"] for s in symbols)
        device = book.kinds["device"][device_id]
        part = book.find("part", device["part_id"])
        of_part = [(kind, pins) for kind, pins in part["units"]] if part else []
        if kinds["coil"] != 1 or any(kind == "co" for kind, _ in of_part):
            continue
        drawn = [
            "-".join(pin_names(book, s) or [])
            for s in symbols
            if shape_of(s["definition"])["unit"] in _CONTACTS and s["units"] != [0]
        ]
        free = ["-".join(pins) for kind, pins in of_part if kind in _CONTACTS]
        found[device_id] = Counter(set(drawn) | set(free))
    return found
