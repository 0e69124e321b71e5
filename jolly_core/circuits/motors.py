"""The motor that a pole feeds, and its current."""

from __future__ import annotations

from jolly_core.library import definition, number_in
from jolly_core.model import Project, RuleError, Symbol
from jolly_core.sizing import motor_current_a
from jolly_core.wiring import net_of, sheet_groups

from .labels import mains_of

THROUGH = ("pole", "heater")  # units that current passes on its way to a motor
THREE_PHASES = 4  # pins of the symbol, with its PE
FARTHEST = 200  # symbols looked at


def motor_beyond_a(project: Project, symbol_id: str) -> float:
    """Return the rated current in A of a motor that a pole feeds through other poles, 0 while none is known."""
    waiting, seen = [symbol_id], {symbol_id}
    for _ in range(FARTHEST):
        if not waiting:
            break
        symbol = project.symbols[waiting.pop(0)]
        of_pin = sheet_groups(project, symbol.sheet_id).of_pin
        for pin in range(len(definition(symbol.definition).pins) * len(symbol.units)):
            for group in net_of(project, (symbol.sheet_id, of_pin[symbol.id, pin]), potential=True):
                for other_id, _ in group.pins:
                    other = project.symbols[other_id]
                    unit = definition(other.definition).unit
                    if unit == "motor":
                        return _current_of(project, other)
                    if unit in THROUGH and other_id not in seen:
                        seen.add(other_id)
                        waiting.append(other_id)
    return 0.0


def _current_of(project: Project, symbol: Symbol) -> float:
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    if part is None:
        return 0.0
    rated = number_in(part.ratings.get("rated_a", ""))
    power = number_in(part.ratings.get("power_kw", ""))
    if rated is not None or power is None or len(definition(symbol.definition).pins) < THREE_PHASES:
        return rated or 0.0  # of a motor on one phase the table says nothing
    try:
        return motor_current_a(power, mains_of(project))
    except RuleError:
        return 0.0  # the table knows no motor of that power: its part has to say the current
