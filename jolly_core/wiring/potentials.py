"""What a name says of a potential: a phase, volts."""

from __future__ import annotations

import re

from jolly_core.model import Project, derived

_PHASE = re.compile(r"\b(L[123]|N|PE)\b")
_VOLTS = re.compile(r"([+-]?\d+(?:[.,]\d+)?)\s*V(?=[AD]C\b|\b)")
_ONLY_VOLTS = re.compile(r"\s*[+-]?\d+(?:[.,]\d+)?\s*V\s*(DC|AC|=|~)?\s*")


def potential_in(name: str) -> tuple[str, str]:
    """Return the phase and the volts a name says, "" for each it does not; several phases are none.

    Example:
        >>> potential_in("400 V L1"), potential_in("24 V door"), potential_in("Motors L1 L2 L3")
        (('L1', '400'), ('', '24'), ('', ''))
    """
    phases = set(_PHASE.findall(name))
    volts = _VOLTS.search(name)
    return phases.pop() if len(phases) == 1 else "", volts[1].lstrip("+").replace(",", ".") if volts else ""


@derived
def potentials_of_types(project: Project) -> dict[str, tuple[str, str]]:
    """Return the phase and the volts that wires of each type are on, by its id, "" for what its name does not say.

    Volts alone ("24 V DC") are a potential where another type is 0 V. Else, in a longer name ("Control 24 V DC"), or
    for alternating current ("230 V AC", types of power and AC control), they name a circuit, both sides of its loads.
    """
    said = {t.id: (t, *potential_in(t.name)) for t in project.wire_types.values()}
    zero = {id for id, (t, _, volts) in said.items() if volts and not float(volts) and _ONLY_VOLTS.fullmatch(t.name)}
    found: dict[str, tuple[str, str]] = {}
    for id, (wire_type, phase, volts) in said.items():
        only = _ONLY_VOLTS.fullmatch(wire_type.name)
        direct = only is not None and (
            only[1] in ("DC", "=") or (not only[1] and wire_type.category not in ("power", "control-ac"))
        )
        found[id] = phase, volts if phase or id in zero or (direct and zero) else ""
    return found
