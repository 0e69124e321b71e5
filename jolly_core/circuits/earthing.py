"""Pins for the protective conductor, and whether they come to an earth: one answer for checks and traces."""

from __future__ import annotations

import re

from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import pins_of
from jolly_core.wiring import EARTH_TERMINAL, PinKey, site_of

from .ways import Potential, links_at, potential_of

# Where a conductor may go on that no drawing shows.
GOES_ON = ("cavity", "connector", "splice")
BLOCKS = ("block", "pins")
_SCREEN = re.compile(r"(^|[^A-Z])(FE|SH|SCR|SHIELD|SCREEN|CASE|HOUSING|EARTH|GROUND|E)\d*([^A-Z]|$)", re.IGNORECASE)
_EARTH_PIN = re.compile(r"^(PE|GND|⏚|⏛|PE\d+|GNYE)$", re.IGNORECASE)
_EARTH_MARK = re.compile(r"\b(PE|earth|ground)\b", re.IGNORECASE)


def is_earth_pin(name: str) -> bool:
    """Return whether a pin is for the protective conductor, by its marking (IEC 60445, 6.3)."""
    return bool(_EARTH_PIN.match(name))


def takes_earth(name: str) -> bool:
    """Return whether a pin of a block may be on a protective conductor: for it, for a screen or functional earth."""
    return not name or is_earth_pin(name) or bool(_SCREEN.search(name))


def misses_earth(project: Project, symbol: Symbol, pin: int) -> bool:
    """Return whether a pin is for the protective conductor and joined with nothing, while others of its symbol are."""
    names = pins_of(project, symbol)
    if not is_earth_pin(names[pin]) or definition(symbol.definition).unit in ("earth", "terminal", "cavity"):
        return False
    if not _alone(project, (symbol.id, pin)):
        return False
    return any(not _alone(project, (symbol.id, n)) for n in range(len(names)) if n != pin)


def _alone(project: Project, pin: PinKey) -> bool:
    (first, *rest) = potential_of(project, pin).groups
    return not rest and len(first.pins) == 1 and not first.continuations


def earths_on(project: Project, potential: Potential) -> list[PinKey]:
    """Return the pins of earths and earth terminals on a potential."""
    return [p for p in potential.pins if site_of(project, p).hub or project.symbols[p[0]].definition == EARTH_TERMINAL]


def earth_marks(project: Project, potential: Potential) -> list[str]:
    """Return the names of continuations on a potential that name the earth, each once."""
    marks = (project.continuations[id].name for group in potential.groups for id in group.continuations)
    return [mark for mark in dict.fromkeys(marks) if _EARTH_MARK.search(mark)]


def comes_to_earth(project: Project, potential: Potential) -> bool:
    """Return whether a potential comes to an earth, or to something beyond which it may (IEC 60204-1, 8.2.1)."""
    if earths_on(project, potential) or earth_marks(project, potential) or links_at(project, potential):
        return True
    for id, pin in potential.pins:
        symbol = project.symbols[id]
        if definition(symbol.definition).unit in GOES_ON and not is_earth_pin(pins_of(project, symbol)[pin]):
            return True
    return False
