"""Wire types that projects of a standard usually begin with, as data (colours after IEC 60204-1 and NFPA 79)."""

from __future__ import annotations

import json
from functools import cache
from importlib.resources import files
from typing import Any

# IEC 60757: black, brown, red, orange, yellow, green, blue, violet, grey, white, pink, gold, turquoise, silver.
WIRE_COLOURS = ("BK", "BN", "RD", "OG", "YE", "GN", "BU", "VT", "GY", "WH", "PK", "GD", "TQ", "SR")


@cache
def _all() -> dict[str, list[dict[str, Any]]]:
    text = files("jolly_core.library").joinpath("data", "wire_types.json").read_text(encoding="utf-8")
    found: dict[str, list[dict[str, Any]]] = json.loads(text)
    return found


def usual_wire_types(standard: str) -> list[dict[str, Any]]:
    """Return the wire types of a standard ("iec" or "na") as payloads without kind, the usual ones first."""
    return [dict(t) for t in _all()[standard]]


def is_colour(code: str) -> bool:
    """Return whether a text is one or two colour codes of IEC 60757.

    Example:
        >>> is_colour("GNYE"), is_colour("ZZ")
        (True, False)
    """
    return len(code) in (2, 4) and all(code[i : i + 2] in WIRE_COLOURS for i in range(0, len(code), 2))
