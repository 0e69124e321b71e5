"""Symbol definitions as data: graphics in grid steps, pins, names to type, and the unit each stands for.

Terms: a *definition* is drawn with its first pin at the origin. `poles` says how often it may be
repeated; pole n is the same graphics `POLE_PITCH` steps further down. A *through pair* is two pins in line: a wire
under it is cut out.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files
from math import cos, radians, sin
from typing import Any

from jolly_core.model import FileError

from .added import added

POLE_PITCH = 4
Primitive = tuple[Any, ...]  # ("line", x1, y1, x2, y2) and its kin; the painters know the kinds in PRIMITIVES
PRIMITIVES = frozenset({"line", "dash", "poly", "circle", "arc", "rect", "solid", "text"})


@dataclass(slots=True, frozen=True)
class Definition:
    """A symbol definition.

    Attributes:
        key: its name in files.
        part_class: class a new device of it gets its letters from.
        unit: kind of device unit one pole stands for.
        lead: 0 always leads its device, 1 leads when nothing better is there, 9 never leads.
        swap: key of the definition with NO and NC exchanged, "".
        pins: pin offsets from the origin, grid steps.
        through: pairs of pin indexes a wire is cut between.
        carries: pairs of pin indexes that are one potential though two nets.
        generic: pin names while no part is chosen; {n} is the unit number, {odd} and {even} the pole terminals,
            {letter} A for the first unit, B for the second.
        max_poles: how often the pole may be repeated.
        upright: drawn on vertical wires by habit.
        axis: "h" or "v", the direction of the wires it sits on when not turned.
        load: the last thing in a rung.
        places: where its texts stand instead of their usual places, "tag", "text" or "reference" to an offset.
    """

    key: str
    name: str
    part_class: str
    unit: str
    lead: int
    nicknames: tuple[str, ...]
    pins: tuple[tuple[int, int], ...]
    through: tuple[tuple[int, int], ...]
    carries: tuple[tuple[int, int], ...]
    generic: tuple[str, ...]
    graphics: dict[str, tuple[Primitive, ...]]
    swap: str = ""
    max_poles: int = 1
    upright: bool = False
    axis: str = "h"
    load: bool = False
    places: tuple[tuple[str, tuple[float, float]], ...] = ()

    def art(self, standard: str) -> tuple[Primitive, ...]:
        """Return the graphics for a standard; what has no North American variant is drawn as IEC."""
        return self.graphics.get(standard) or self.graphics["iec"]

    @property
    def inputs(self) -> int:
        """How many of the pins of a source are its input: those in line with the first, two where all are."""
        across = 1 if self.axis == "v" else 0
        count = sum(pin[across] == self.pins[0][across] for pin in self.pins)
        return count if count < len(self.pins) else 2

    def extent(self, poles: int, standard: str = "iec") -> tuple[float, float, float, float]:
        """Return (left, top, right, bottom) of the drawn symbol in grid steps, untransformed."""
        return _extent(self.key, poles, standard)

    def pin_offsets(self, poles: int) -> list[tuple[int, int]]:
        """Return the pin offsets of `poles` poles, pole by pole."""
        return [(x, y + POLE_PITCH * pole) for pole in range(poles) for x, y in self.pins]

    def generic_pins(self, unit: int) -> tuple[str, ...]:
        """Return pin names of the `unit`-th unit of a device without a part (contacts after EN 50005)."""
        if self.unit == "block":
            return self.generic
        return _numbered(self.generic, unit)


@lru_cache(maxsize=4096)
def _numbered(names: tuple[str, ...], unit: int) -> tuple[str, ...]:
    letter = chr(64 + min(max(unit, 1), 26))  # a second coil is B1-B2
    return tuple(name.format(n=unit, odd=2 * unit - 1, even=2 * unit, letter=letter) for name in names)


@cache
def definitions() -> dict[str, Definition]:
    """Return all symbol definitions by key.

    Raises:
        FileError: a data file claims a key twice, or a definition is malformed.
    """
    found: dict[str, Definition] = {}
    for path in sorted(files("jolly_core.library").joinpath("data", "symbols").iterdir(), key=lambda p: p.name):
        for raw in json.loads(path.read_text(encoding="utf-8")):
            definition = _read(raw)
            if definition.key in found:
                raise FileError(f"The symbol “{definition.key}” is defined twice, the second time in {path.name}.")
            found[definition.key] = definition
    for _, record in added.symbols:
        definition = _read(record)
        found[definition.key] = definition
    return found


added.clear.append(definitions.cache_clear)


def check_symbol(record: Mapping[str, Any]) -> str:
    """Return the key of a symbol's record that could be added.

    Raises:
        FileError: there is a symbol of that key, or the definition is malformed.
    """
    try:
        definition = _read(record)
    except (KeyError, TypeError, ValueError, AttributeError, IndexError) as error:
        raise FileError(f"The symbol cannot be read: {type(error).__name__} {error}.") from error
    if definition.key in definitions():
        raise FileError(f"There is already a symbol “{definition.key}”.")
    return definition.key


_made: dict[str, Callable[[str], Definition]] = {}


def register_made(prefix: str, make: Callable[[str], Definition]) -> None:
    """Say how symbols whose keys begin so are made; they are not in the data."""
    _made[prefix] = make


def is_known(key: str) -> bool:
    """Return whether a key is that of a symbol in the data, or begins as those of made symbols do."""
    return key in definitions() or key.partition(":")[0] + ":" in _made


def definition(key: str) -> Definition:
    """Return a symbol definition.

    Raises:
        FileError: there is no symbol of that key.
    """
    known = definitions().get(key)
    if known is None:
        prefix, mark, _ = key.partition(":")
        if prefix + mark in _made:
            return _made[prefix + mark](key)
        raise FileError(f"There is no symbol “{key}”. Choose one from the symbol list.", field="definition")
    return known


def _read(raw: Mapping[str, Any]) -> Definition:
    pins = tuple((int(x), int(y)) for x, y in raw["pins"])
    through = raw.get("through", [[0, 1]] if len(pins) == 2 else [])
    graphics: dict[str, tuple[Primitive, ...]] = {
        str(s): tuple(tuple(p) for p in raw[s]) for s in ("iec", "na") if s in raw
    }
    if len(raw["generic"]) != len(pins) or any(p[0] not in PRIMITIVES for art in graphics.values() for p in art):
        raise FileError(f"The symbol “{raw['key']}” is malformed: check its pins, their names and its graphics.")
    return Definition(
        key=raw["key"],
        name=raw["name"],
        part_class=raw["class"],
        unit=raw["unit"],
        lead=raw["lead"],
        nicknames=tuple(raw["nicknames"]),
        pins=pins,
        through=tuple((a, b) for a, b in through),
        carries=tuple((a, b) for a, b in raw.get("carries", [])),
        generic=tuple(raw["generic"]),
        graphics=graphics,
        swap=raw.get("swap", ""),
        max_poles=raw.get("poles", 1),
        upright=raw.get("upright", False),
        axis=raw.get("axis", "h"),
        load=raw.get("load", False),
    )


@cache
def _extent(key: str, poles: int, standard: str) -> tuple[float, float, float, float]:
    shape = definition(key)
    xs: list[float] = []
    ys: list[float] = []
    for kind, *v in shape.art(standard):
        if kind == "circle":
            xs += [v[0] - v[2], v[0] + v[2]]
            ys += [v[1] - v[2], v[1] + v[2]]
        elif kind == "arc":
            # Its ends, and where it crosses the axes through its middle.
            turns = [v[3], v[4], *(n for n in range(-720, 1081, 90) if v[3] < n < v[4])]
            xs += [v[0] + v[2] * cos(radians(a)) for a in turns]
            ys += [v[1] + v[2] * sin(radians(a)) for a in turns]
        elif kind == "poly":
            xs += v[0][0::2]
            ys += v[0][1::2]
        elif kind != "text":
            xs += [v[0], v[2]]
            ys += [v[1], v[3]]
    return min(xs), min(ys), max(xs), max(ys) + POLE_PITCH * (poles - 1)


def article(name: str) -> str:
    """Return the article that stands before the name of a symbol or class, as it is spoken.

    Example:
        >>> [article(name) for name in ("NC contact", "overload relay", "coil", "unit")]
        ['an', 'an', 'a', 'a']
    """
    spelled = name.startswith(("NC ", "NO "))  # letter by letter, and these letters begin with a vowel
    return "an" if spelled or (name[:1].lower() in {*"aeiou"} and not name.lower().startswith("uni")) else "a"
