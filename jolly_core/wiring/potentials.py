"""What a name says of a potential: a phase, volts."""

from __future__ import annotations

import re

_PHASE = re.compile(r"\b(L[123]|N|PE)\b")
_VOLTS = re.compile(r"([+-]?\d+(?:[.,]\d+)?)\s*V\b")


def potential_in(name: str) -> tuple[str, str]:
    """Return the phase and the volts a name says, "" for each it does not.

    Example:
        >>> potential_in("400 V L1"), potential_in("24 V door")
        (('L1', '400'), ('', '24'))
    """
    phase = _PHASE.search(name)
    volts = _VOLTS.search(name)
    return phase[1] if phase else "", volts[1].lstrip("+").replace(",", ".") if volts else ""
