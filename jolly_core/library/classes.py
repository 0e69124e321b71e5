"""Part classes as data: their letters, the units and ratings their parts have.

A class of a house's own is like one of the data with another name, and letters of its own where they are given. Its key
says all of it, "own:NAME|LIKE|IEC|NA", so that a part brings its class along.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any

from jolly_core.model import FileError

from .added import added


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
    """Return all part classes by key, in the order of the data file, then those that packages added."""
    text = files("jolly_core.library").joinpath("data", "part_classes.json").read_text(encoding="utf-8")
    return {raw["key"]: read_class(raw) for raw in [*json.loads(text), *(record for _, record in added.classes)]}


added.clear.append(part_classes.cache_clear)


def read_class(raw: Mapping[str, Any]) -> PartClass:
    """Return the class a record says."""
    return PartClass(
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


OWN = "own:"
LONGEST_NAME, LONGEST_LETTERS = 40, 4
_LETTERS = re.compile(r"[A-Z]{0,4}")


def own_class_key(name: str, like: str, iec: str = "", na: str = "") -> str:
    """Return the key of a class of one's own: like one of the data, with a name and letters of its own.

    Args:
        like: key of the class it is like.
        iec, na: class letters of its tags, "" for those of the class it is like.

    Raises:
        FileError: it has no name or one that cannot be, letters that are none, or the class it is like is not there.

    Example:
        >>> part_class(own_class_key("Air curtain", "fan", "GQ", "AC")).letters("na")
        'AC'
    """
    words = " ".join(name.split())
    if not words or len(words) > LONGEST_NAME or "|" in words:
        raise FileError(f"Give the class a name of at most {LONGEST_NAME} letters, without “|”.", field="class_name")
    if like not in part_classes():
        raise FileError("Say which class it is like.", field="like")
    twin = next((c for c in part_classes().values() if c.name.lower() == words.lower()), None)
    if twin is not None:
        raise FileError(f"There is a class “{twin.name}” already.", field="class_name")
    for letters in (iec, na):
        if not _LETTERS.fullmatch(letters):
            raise FileError(f"“{letters}” should be up to {LONGEST_LETTERS} capital letters.", field="letters")
    return OWN + "|".join((words, like, iec, na)).rstrip("|")


def base_of(key: str) -> str:
    """Return the class of the data that a class is like; the class itself when it is one of the data."""
    return key.removeprefix(OWN).split("|")[1] if key.startswith(OWN) and "|" in key else key


def is_like(key: str, other: str) -> bool:
    """Return whether a class is another one or like it; of two own classes only the same is.

    Example:
        >>> is_like(own_class_key("Beacon", "lamp"), "lamp"), is_like("lamp", own_class_key("Beacon", "lamp"))
        (True, False)
    """
    return key == other or base_of(key) == other


def is_class(key: str) -> bool:
    """Return whether a key is that of a class, of the data or of one's own."""
    return key in part_classes() or (key.startswith(OWN) and _own(key) is not None)


@lru_cache(maxsize=512)
def _own(key: str) -> PartClass | None:
    name, like, iec, na = [*key.removeprefix(OWN).split("|"), "", "", ""][:4]
    try:
        if own_class_key(name, like, iec, na) != key:
            return None
    except FileError:
        return None
    base = part_classes()[like]
    return replace(base, key=key, name=name, iec=iec or base.iec, na=na or base.na)


def part_class(key: str) -> PartClass:
    """Return a part class.

    Raises:
        FileError: there is no class of that key.
    """
    known = part_classes().get(key) or (_own(key) if key.startswith(OWN) else None)
    if known is None:
        raise FileError(f"There is no part class “{key}”.", field="part_class")
    return known
