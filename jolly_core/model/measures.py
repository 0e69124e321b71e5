"""Lengths in the unit in which a project shows them: the model has mm, and m of what is bought by the metre."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .project import Project

# Unit of the model -> the unit shown in its place, and that unit's length in it (exact, by definition).
INCHES = {"mm": ("in", 25.4), "m": ("ft", 0.3048)}
_NUMBER = re.compile(r"(?<![A-Za-z0-9.])\d+(?:\.\d+)?")


def shown_in(unit: str, length_mm: float) -> str:
    """Return a length in a unit of length of a project: millimetres as they are, inches to two places.

    Example:
        >>> shown_in("mm", 350.5), shown_in("in", 254)
        ('350.5', '10.00')
    """
    return f"{length_mm / INCHES['mm'][1]:.2f}" if unit == "in" else f"{length_mm:g}"


def length_in(unit: str, length_mm: float) -> str:
    """Return a length with its unit, see `shown_in`.

    Example:
        >>> length_in("in", 254)
        '10.00 in'
    """
    return f"{shown_in(unit, length_mm)} {unit}"


def length_words(project: Project, length_mm: float) -> str:
    """Return a length with its unit as a project shows lengths, see `length_in`."""
    return length_in(project.settings.length_unit, length_mm)


def bare_length(project: Project, length_mm: float) -> str:
    """Return a length without its unit as a project shows lengths, see `shown_in`."""
    return shown_in(project.settings.length_unit, length_mm)


def metres_in(unit: str, length_m: float) -> str:
    """Return a length of what is counted in metres with its unit: metres, or feet where a project has inches.

    Example:
        >>> metres_in("mm", 21.234), metres_in("in", 0.3048)
        ('21.23 m', '1.00 ft')
    """
    return f"{length_m / INCHES['m'][1]:.2f} ft" if unit == "in" else f"{length_m:.2f} m"


def sides_words(project: Project, *sides_mm: float) -> str:
    """Return the sides of something with their unit as a project shows lengths: "600 × 800 mm"."""
    return f"{' × '.join(bare_length(project, side) for side in sides_mm)} {project.settings.length_unit}"


def long_words(project: Project, length_m: float) -> str:
    """Return a length of what is counted in metres as it was typed, or in feet to two places, with its unit."""
    unit = project.settings.length_unit
    return metres_in(unit, length_m) if unit == "in" else f"{length_m:g} m"


def sizes_in(unit: str, words_mm: str) -> str:
    """Return the words of a size in mm with each of its numbers in a unit of length of a project.

    Example:
        >>> sizes_in("in", "slot 12.7 × 5.08"), sizes_in("mm", "⌀ 22.5")
        ('slot 0.50 × 0.20', '⌀ 22.5')
    """
    return _NUMBER.sub(lambda m: shown_in(unit, float(m[0])), words_mm) if unit == "in" else words_mm
