"""What a name says of a potential: a phase, volts."""

from __future__ import annotations

import re

from jolly_core.model import WireType

_PHASE = re.compile(r"\b(L[123]|N|PE)\b")
_VOLTS = re.compile(r"([+-]?\d+(?:[.,]\d+)?)\s*V(?=[AD]C\b|\b)")
_DIRECT = re.compile(r"DC\b|=")
_ALTERNATING = re.compile(r"(?:\b|V)AC\b|~")


def potential_in(name: str) -> tuple[str, str]:
    """Return the phase and the volts a name says, "" for each it does not; several phases are none.

    Example:
        >>> potential_in("400 V L1"), potential_in("24 V door"), potential_in("Motors L1 L2 L3")
        (('L1', '400'), ('', '24'), ('', ''))
    """
    phases = set(_PHASE.findall(name))
    volts = _VOLTS.search(name)
    return phases.pop() if len(phases) == 1 else "", volts[1].lstrip("+").replace(",", ".") if volts else ""


def potential_of_type(wire_type: WireType) -> tuple[str, str]:
    """Return the phase and the volts that wires of a type are on, "" for each that its name does not say.

    Volts count where the name begins with them: wires of "24 V DC" are on 24 V, those of "Control 24 V DC" belong to
    such a circuit, on whichever side. Of alternating current ("230 V AC", or a type of power or AC control) they name
    the circuit, too, but for 0 V.
    """
    phase, volts = potential_in(wire_type.name)
    begins = _VOLTS.match(wire_type.name.strip()) is not None
    direct = wire_type.category not in ("power", "control-ac") or _DIRECT.search(wire_type.name) is not None
    direct = direct and _ALTERNATING.search(wire_type.name) is None
    return phase, volts if begins and (phase or direct or float(volts) == 0) else ""
