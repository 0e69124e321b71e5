"""What a conductor carries all the time, by how it is laid, how warm it is around it, and what lies beside it.

Source: PVC-insulated copper conductors at 70 degrees, IEC 60204-1:2016 table 6, with the factors of its annex D.
"""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from jolly_core.model import RuleError


@dataclass(slots=True, frozen=True)
class Laying:
    """How conductors are laid.

    Attributes:
        method: B1 single wires in conduit or trunking, B2 a cable in them, C a cable on a wall, E on a tray in air.
        ambient_c: air around them, °C.
        grouped: loaded circuits that lie together, this one with them.
    """

    method: str = "B2"
    ambient_c: float = 40.0
    grouped: int = 1

    @property
    def words(self) -> str:
        """How they are laid, for reading."""
        beside = f", {self.grouped} circuits together" if self.grouped > 1 else ""
        return f"laid as {self.method} at {self.ambient_c:g} °C{beside}"


USUAL_LAYING = Laying()


@cache
def _data() -> dict[str, Any]:
    text = files("jolly_core.sizing").joinpath("data", "ampacity.json").read_text(encoding="utf-8")
    found: dict[str, Any] = json.loads(text)
    return found


def laying_factor(laying: Laying) -> float:
    """Return the share of the table's current that conductors carry at their ambient temperature and in their group.

    A temperature or a number between two of the tables takes the next one on the safe side; below the coolest listed
    no more is gained than there.

    Raises:
        RuleError: it is warmer, or the group larger, than the tables go.

    Example:
        >>> laying_factor(Laying("B2", 40, 1)), laying_factor(Laying("B2", 43, 1)), laying_factor(Laying("E", 40, 3))
        (1.0, 0.91, 0.77)
    """
    data = _data()
    warm = [float(f) for c, f in data["ambient_c"].items() if float(c) >= laying.ambient_c - 1e-9]
    if not warm:
        top = max(float(c) for c in data["ambient_c"])
        raise RuleError(f"Capacities are known up to {top:g} °C, not at {laying.ambient_c:g} °C.", field="ambient_c")
    if laying.grouped <= 1:
        return warm[0]
    beside = [f[laying.method] for count, f in data["grouped"].items() if int(count) >= laying.grouped]
    if not beside:
        most = max(int(count) for count in data["grouped"])
        raise RuleError(f"Capacities are known for up to {most} circuits together.", field="grouped")
    return float(warm[0] * beside[0])


def conductor_for_mm2(current_a: float, laying: Laying = USUAL_LAYING) -> float:
    """Return the smallest cross-section in mm² that carries a current in A.

    Raises:
        RuleError: no size of the table does.

    Example:
        >>> conductor_for_mm2(11.5), conductor_for_mm2(17.0), conductor_for_mm2(11.5, Laying("B2", 50))
        (1.5, 2.5, 2.5)
    """
    factor = laying_factor(laying)
    for size, carried in sorted((float(s), c[laying.method]) for s, c in _data()["carried_a"].items()):
        if carried * factor >= current_a:
            return size
    raise RuleError(f"No cross-section of the table carries {current_a:g} A {laying.words}.", field="kw")


def carried_a(area_mm2: float, laying: Laying = USUAL_LAYING) -> float:
    """Return the current in A that an area carries all the time.

    Between two sizes of the table it is read in proportion, which is on the safe side (the table's curve bends down).

    Args:
        area_mm2: area of a core, mm².

    Returns:
        A, 0 for an area outside the table.

    Raises:
        RuleError: it is warmer, or the group larger, than the tables go.

    Example:
        >>> carried_a(1.5), carried_a(2.0), carried_a(0.34), carried_a(2.5, Laying("E", 45, 4))
        (13.1, 15.25, 0.0, 15.42)
    """
    table = sorted((float(size), c[laying.method]) for size, c in _data()["carried_a"].items())
    for (low, amp), (high, more) in zip(table, table[1:], strict=False):
        if low <= area_mm2 <= high:
            usual = amp + (more - amp) * (area_mm2 - low) / (high - low)
            return float(round(usual * laying_factor(laying), 2))
    return 0.0
