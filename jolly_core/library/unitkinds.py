"""Kinds of unit as data: their names, usual markings of their pins, and the symbol each is drawn with."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from jolly_core.model import FileError, Part

from .classes import base_of, part_class
from .symbols import definitions

Unit = tuple[str, tuple[str, ...]]


@dataclass(slots=True, frozen=True)
class UnitKind:
    """A kind of unit.

    Attributes:
        name, many: what one and several are called.
        pins: pattern of the usual markings; {n} counts the units of the same row, {i} those of the kind, {odd} and
            {even} are the two ends of the i-th pole (EN 50005, EN 50011, EN 50012).
        row: kinds of one row are counted together: 13-14 is followed by 21-22.
        details: keys of the facts that may be said of such a unit.
    """

    key: str
    name: str
    many: str
    pins: tuple[str, ...]
    row: str
    details: tuple[str, ...]


@cache
def unit_kinds() -> dict[str, UnitKind]:
    """Return every kind of unit by key."""
    text = files("jolly_core.library").joinpath("data", "unit_kinds.json").read_text(encoding="utf-8")
    return {
        raw["key"]: UnitKind(
            raw["key"],
            raw["name"],
            raw["many"],
            tuple(raw["pins"]),
            raw["row"],
            tuple(raw["details"]),
        )
        for raw in json.loads(text)
    }


def unit_kind(key: str) -> UnitKind:
    """Return a kind of unit.

    Raises:
        FileError: there is no such kind.
    """
    found = unit_kinds().get(key)
    if found is None:
        raise FileError(f"There is no kind of unit “{key}”.", field="units")
    return found


def next_pins(units: Iterable[Unit], kind: str, class_key: str = "") -> tuple[str, ...]:
    """Return the usual markings of one more unit of a kind on a part that has some already.

    Markings that are taken are passed over; a class may have its own (95-96 on an overload relay).

    Raises:
        FileError: there is no such kind.

    Example:
        >>> next_pins([("coil", ("A1", "A2")), ("no", ("13", "14"))], "nc")
        ('21', '22')
    """
    there = list(units)
    spec = unit_kind(kind)
    own = part_class(class_key).markings.get(kind) if class_key else None
    taken = {pins for _, pins in there}
    if own is not None and own not in taken:
        return own
    same = sum(1 for k, _ in there if k == kind)
    row = sum(1 for k, _ in there if unit_kinds()[k].row == spec.row) if spec.row != kind else same
    for step in range(1, len(there) + 2):
        i, n = same + step, row + step
        pins = tuple(p.format(n=n, i=i, odd=2 * i - 1, even=2 * i) for p in spec.pins)
        if pins not in taken or not any(pins) or "{" not in "".join(spec.pins):
            return pins
    return spec.pins


def own_symbol(part: Part | None, kind: str, standard: str) -> str:
    """Return the symbol a part itself names for its units of a kind, "" when it names none."""
    return (part.symbols.get(f"{kind}@{standard}") or part.symbols.get(kind, "")) if part else ""


def symbol_for(kind: str, class_key: str, part: Part | None = None, standard: str = "iec") -> str:
    """Return the symbol that draws a unit of a kind of a device of a class, "" when there is none.

    A part's own choice comes first, that for the standard before that for all; then the symbol of class and kind;
    then the kind's usual one, or any that follows a lead.

    Example:
        >>> symbol_for("nc", "contactor"), symbol_for("nc", "overload")
        ('contact-nc', 'overload-nc')
    """
    own = own_symbol(part, kind, standard)
    if own:
        return own
    fitting = [d for d in definitions().values() if d.unit == kind]
    of_class = [d for d in fitting if base_of(d.part_class) == base_of(class_key)]
    followers = [d for d in fitting if d.lead == 9]
    found = of_class or followers or fitting
    return found[0].key if found else ""
