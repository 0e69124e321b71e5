"""Making a part quickly: from its class, from a like one, units added with usual markings, cores filled at once."""

from __future__ import annotations

import json
from dataclasses import replace
from functools import cache
from importlib.resources import files

from jolly_core.model import Part, RuleError

from .classes import base_of, part_class
from .unitkinds import next_pins, unit_kind
from .wiretypes import is_colour

PROTECTIVE = "GNYE"
MOST_UNITS = 400
_IN_CABLE = ("cable", "wire", "connector", "contact", "ring-lug", "seal", "cavity-plug", "backshell")
_FREE = (
    "motor",
    "limit-switch",
    "valve",
    "enclosure",
    "label",
    "proximity-sensor",
    "moisture-probe",
    "level-switch",
    "pressure-switch",
    "flow-switch",
)
_ON_DOOR = ("push-button", "emergency-stop", "selector", "lamp", "horn")
_ON_PLATE = ("rail", "duct", "drive", "soft-starter", "transformer")


@cache
def core_orders() -> dict[str, tuple[str, ...]]:
    """Return the common orders of core colours by name (DIN 47100 pattern; HD 308 S2)."""
    text = files("jolly_core.library").joinpath("data", "core_orders.json").read_text(encoding="utf-8")
    return {name: tuple(codes) for name, codes in json.loads(text).items()}


def new_part(class_key: str) -> Part:
    """Return a part of a class with the units and the mounting such parts usually have.

    Raises:
        FileError: there is no such class.
    """
    kind = part_class(class_key)
    places = (("cable", _IN_CABLE), ("free", _FREE), ("door hole", _ON_DOOR), ("plate", _ON_PLATE))
    mounting = next((place for place, keys in places if base_of(class_key) in keys), "rail")
    return Part("", "", "", kind.key, units=kind.usual, mounting=mounting)


def like(part: Part) -> Part:
    """Return a part like another, without what only that one has: number, order number, link and data sheet."""
    return replace(part, id="", number="", order_number="", link="", datasheet="", version=1)


def with_units(part: Part, kind: str, count: int) -> Part:
    """Return a part with more units of a kind at its end, with the usual markings that are still free.

    Raises:
        RuleError: the class has no such units, or there would be too many.
    """
    of_class = part_class(part.part_class)
    if kind not in of_class.units:
        raise RuleError(f"The class {of_class.name} has no {unit_kind(kind).many}.", field="units")
    if not 1 <= count <= MOST_UNITS - len(part.units):
        raise RuleError(f"A part has at most {MOST_UNITS} units.", field="units")
    units = list(part.units)
    for _ in range(count):
        units.append((kind, next_pins(units, kind, part.part_class)))
    return replace(part, units=tuple(units))


def with_cores(part: Part, count: int, order: str, *, protective: bool, section: str = "", shields: int = 0) -> Part:
    """Return a cable with its cores anew: `count` conductors, coloured by an order or numbered, then shields.

    Args:
        order: name of a colour order, or "numbered". Cores beyond the order's end are numbered on.
        protective: the last conductor is green-yellow; an order that has one already is left as it is.
        section: cross-section of each core in mm², "" to leave it to the cable's own.
        shields: how many shields come after the cores.

    Raises:
        RuleError: the order is not known, or there would be too many or too few cores.

    Example:
        A signal cable of 3 cores numbered, with a shield: cores 1, 2, 3, then SH.
    """
    orders = core_orders()
    if order != "numbered" and order not in orders:
        raise RuleError(f"There is no order of colours “{order}”.", field="order")
    if not 1 <= count <= MOST_UNITS or not 0 <= shields <= count:
        raise RuleError(f"A cable has 1 to {MOST_UNITS} cores, and no more shields than cores.", field="count")
    names = [str(n) for n in range(1, count + 1)]
    if order != "numbered":
        names = [*orders[order], *names[len(orders[order]) :]][:count]
    if protective and PROTECTIVE not in names:
        names[-1] = PROTECTIVE
    units: list[tuple[str, tuple[str, ...]]] = [("core", (name,)) for name in names]
    units += [("shield", ("SH" if shields == 1 else f"SH{n}",)) for n in range(1, shields + 1)]
    details: list[dict[str, str]] = []
    for name in names:
        facts = {"role": "protective" if name == PROTECTIVE else "conductor"}
        if is_colour(name):
            facts["colour"] = name
        if section:
            facts["section"] = section
        details.append(facts)
    return replace(part, units=tuple(units), details=tuple(details))


def conductor_count(part: Part) -> int:
    """Return how many conductors a cable has: its cores, without shields and drain wires."""
    return sum(1 for i, (kind, _) in enumerate(part.units) if kind == "core" and part.detail(i).get("role") != "drain")
