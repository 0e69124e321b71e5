"""Part classes as data: their letters, the units and ratings their parts have."""

from __future__ import annotations

import json
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files

from jolly_core.model import FileError


@dataclass(slots=True, frozen=True)
class PartClass:
    """A class of parts.

    Attributes:
        iec, na: class letters of a tag (IEC 81346-2; North American device letters).
        units: kinds of unit a part of it may have.
        ratings: names of the ratings a part of it has, unit in the name.
        usual: units a new part of it begins with.
        wants: ratings without which the part is half-filled.
        markings: usual markings of a kind of unit, where they are not the kind's.
        add_on: it goes onto a device that has a part already.
        per_unit: one piece is needed for each unit drawn (terminals), not one for the whole device.
    """

    key: str
    name: str
    iec: str
    na: str
    units: tuple[str, ...]
    ratings: tuple[str, ...]
    per_unit: bool = False
    usual: tuple[tuple[str, tuple[str, ...]], ...] = ()
    wants: tuple[str, ...] = ()
    markings: dict[str, tuple[str, ...]] = field(default_factory=dict)
    add_on: bool = False

    def letters(self, standard: str) -> str:
        """Return the class letters for a standard."""
        return self.na if standard == "na" else self.iec


@cache
def part_classes() -> dict[str, PartClass]:
    """Return all part classes by key, in the order of the data file."""
    text = files("jolly_core.library").joinpath("data", "part_classes.json").read_text(encoding="utf-8")
    return {
        raw["key"]: PartClass(
            raw["key"],
            raw["name"],
            raw["iec"],
            raw["na"],
            tuple(raw["units"]),
            tuple(raw["ratings"]),
            raw.get("per_unit", False),
            tuple((kind, tuple(pins)) for kind, pins in raw.get("usual", ())),
            tuple(raw.get("wants", ())),
            {kind: tuple(pins) for kind, pins in raw.get("markings", {}).items()},
            raw.get("add_on", False),
        )
        for raw in json.loads(text)
    }


def part_class(key: str) -> PartClass:
    """Return a part class.

    Raises:
        FileError: there is no class of that key.
    """
    known = part_classes().get(key)
    if known is None:
        raise FileError(f"There is no part class “{key}”.", field="part_class")
    return known
