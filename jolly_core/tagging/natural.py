"""The order in which people read names: WD2 before WD10, 9 before 10a."""

from __future__ import annotations

import re

_PIECES = re.compile(r"(\d+)")
NaturalKey = tuple[tuple[int, int, str], ...]


def natural(text: str) -> NaturalKey:
    """Return a key that sorts texts by their letters and, where both have digits, by the numbers these make.

    Example:
        >>> sorted(["WD10", "WD2", "-WD1"], key=natural)
        ['-WD1', 'WD2', 'WD10']
    """
    pieces = (piece for piece in _PIECES.split(text) if piece)
    return tuple((0, int(p[:18]), p) if p.isdecimal() else (1, 0, p.casefold()) for p in pieces)
