"""Pins for the protective conductor, and whether they come to an earth: one answer for checks and traces."""

from __future__ import annotations

import re

from jolly_core.library import definition
from jolly_core.model import Project
from jolly_core.tagging import pins_of
from jolly_core.wiring import EARTH_TERMINAL, PinKey, site_of

from .ways import Potential, links_at

# Where a conductor may go on that no drawing shows.
GOES_ON = ("cavity", "connector", "splice", "block", "pins")
_EARTH_PIN = re.compile(r"^(PE|GND|⏚|⏛|PE\d+|GNYE)$", re.IGNORECASE)
_EARTH_MARK = re.compile(r"\b(PE|earth|ground)\b", re.IGNORECASE)


def is_earth_pin(name: str) -> bool:
    """Return whether a pin is for the protective conductor, by its marking (IEC 60445, 6.3)."""
    return bool(_EARTH_PIN.match(name))


def earths_on(project: Project, potential: Potential) -> list[PinKey]:
    """Return the pins of earths and earth terminals on a potential."""
    return [p for p in potential.pins if site_of(project, p).hub or project.symbols[p[0]].definition == EARTH_TERMINAL]


def is_marked_earth(project: Project, potential: Potential) -> bool:
    """Return whether a continuation on a potential names the earth."""
    marks = (project.continuations[id].name for group in potential.groups for id in group.continuations)
    return any(_EARTH_MARK.search(mark) for mark in marks)


def comes_to_earth(project: Project, potential: Potential) -> bool:
    """Return whether a potential comes to an earth, or to something beyond which it may (IEC 60204-1, 8.2.1)."""
    if earths_on(project, potential) or is_marked_earth(project, potential) or links_at(project, potential):
        return True
    for id, pin in potential.pins:
        symbol = project.symbols[id]
        if definition(symbol.definition).unit in GOES_ON and not is_earth_pin(pins_of(project, symbol)[pin]):
            return True
    return False
