"""Cables: the conductors that a band gathers are those that fall apart where it cuts the strokes."""

from __future__ import annotations

from .book import Book, Pin, Record
from .nets import drawn

Conductor = tuple[Pin, Pin]
_GREEN_YELLOW = "GNYE"


def _crossed(book: Book, band: Record) -> list[tuple[str, int, int, int, int]]:
    """Return the strokes that a band crosses at a right angle."""
    found = []
    x1, x2 = sorted((band["x1"], band["x2"]))
    y1, y2 = sorted((band["y1"], band["y2"]))
    for w in book.all("wire"):
        if w["sheet_id"] != band["sheet_id"]:
            continue
        wx, wy = sorted((w["x1"], w["x2"])), sorted((w["y1"], w["y2"]))
        across = y1 == y2 and wx[0] == wx[1] and x1 <= wx[0] <= x2 and wy[0] <= y1 <= wy[1]
        along = x1 == x2 and wy[0] == wy[1] and y1 <= wy[0] <= y2 and wx[0] <= x1 <= wx[1]
        if across or along:
            found.append((w["sheet_id"], w["x1"], w["y1"], w["x2"], w["y2"]))
    return found


def gathered(book: Book, conductors: list[Conductor]) -> dict[str, tuple[set[Conductor], set[Conductor]]]:
    """Return for each cable, by its device's id, the conductors that are in it for certain, and those that may be.

    A conductor is in it for certain where its ends fall apart when a stroke that a band crosses is taken away; where
    strokes form a ring, it may be any of the net's.
    """
    joined = drawn(book)
    by_pin: dict[Pin, list[Conductor]] = {}
    for c in conductors:
        by_pin.setdefault(c[0], []).append(c)
    found: dict[str, tuple[set[Conductor], set[Conductor]]] = {}
    for cable in book.all("cable"):
        sure, maybe = found.setdefault(cable["device_id"], (set(), set()))
        for band in book.all("band"):
            if band["device_id"] != cable["device_id"]:
                continue
            for stroke in _crossed(book, band):
                net = joined.reached(("stroke", stroke))
                ours = {c for thing in net if thing[0] == "pin" for c in by_pin.get(thing[1], ())}
                maybe |= ours
                for c in ours:
                    if ("pin", c[1]) not in joined.reached(("pin", c[0]), without=("stroke", stroke)):
                        sure.add(c)
    return found


def plan_wrongs(book: Book, device_id: str, rows: list[tuple[int, Conductor | None]]) -> list[str]:
    """Return what is wrong with the cores of a cable by the part alone.

    Args:
        rows: of its plan: place of the core in the part, 0 for a conductor without one, and what it serves.
    """
    part = book.find("part", book.kinds["device"][device_id]["part_id"])
    cores = [(kind, pins[:1]) for kind, pins in part["units"]] if part else []
    found = []
    places = sorted(place for place, _ in rows if place)
    if places != list(range(1, len(cores) + 1)):
        return [f"the cores {places} stand in the plan, the part has {len(cores)}"]
    served = [c for _, c in rows if c is not None]
    if len(set(served)) != len(served):
        found.append("a conductor has two cores")
    if any(c is not None and place and cores[place - 1][0] != "core" for place, c in rows):
        found.append("a shield serves as a core")
    usable = [n for n, (kind, name) in enumerate(cores, 1) if kind == "core" and name != [_GREEN_YELLOW]]
    spare = [place for place, c in rows if c is None and place in usable]
    left = sum(not place for place, _ in rows)
    if left and spare:
        found.append(f"{left} conductors have no core, while the core {spare[0]} is spare")
    return found
