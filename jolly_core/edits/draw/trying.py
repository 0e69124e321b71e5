"""A symbol as it would stand on a sheet: a small project in which it is put on wires, to be looked at."""

from __future__ import annotations

from typing import Literal

from jolly_core.library import POLE_PITCH, definition
from jolly_core.model import Project

from ..base.edit import Payload, compute
from ..project.settings import ChangeSettings
from ..project.wiretypes import AddWireType
from ..sheets.adding import AddSheet
from .place import PlaceSymbol
from .wires import DrawWire

STUB = 8  # grid steps of wire beyond the pins
AT = (24, 16)


def symbol_on_wires(key: str, standard: str, poles: int = 1) -> tuple[Project, str]:
    """Return a project and its one sheet, on which a symbol stands level on wires, and upright beside.

    Args:
        poles: how many of its poles are shown.

    Raises:
        FileError: the key is not one of a symbol.
    """
    shape = definition(key)
    count = max(1, min(poles, shape.max_poles))
    project = Project()

    def do(payload: Payload) -> list[str]:
        outcome = compute(project, payload)
        project.apply(outcome.changes)
        return outcome.placed

    if standard != project.settings.standard:
        do(ChangeSettings(standard="na"))
    wire_type = do(AddWireType(name="Control", colour="BU", cross_section_mm2=1.0))[0]
    sheet = do(AddSheet(number="1", frame="zones"))[0]
    right = shape.extent(count)[2]
    upright_x = AT[0] + int(max(right, *(x for x, _ in shape.pins))) + STUB + 20
    for rotation, mirror, (x0, y0) in ((0, False, AT), (90, True, (upright_x, AT[1]))):
        for pole in range(count):
            for x, y in shape.pins:
                dx, dy = _outward(x, y, shape.pins, shape.axis)
                a = (x, y + POLE_PITCH * pole)
                b = (a[0] + dx * STUB, a[1] + dy * STUB)
                points = [[x0 + (py if rotation else px), y0 + (px if rotation else py)] for px, py in (a, b)]
                do(DrawWire(sheet_id=sheet, points=points, wire_type_id=wire_type))
        turned: Literal[0, 90] = 90 if rotation else 0
        symbol = PlaceSymbol(sheet_id=sheet, definition=key, x=x0, y=y0, rotation=turned, mirror=mirror, poles=count)
        do(symbol)
    return project, sheet


def _outward(x: int, y: int, pins: tuple[tuple[int, int], ...], axis: str) -> tuple[int, int]:
    """Return the direction in which a wire leaves a pin: away from the other pins, along the symbol's axis."""
    if axis == "v":
        last = y == max(py for _, py in pins) and y > min(py for _, py in pins)
        return 0, 1 if last else -1
    last = x == max(px for px, _ in pins) and x > min(px for px, _ in pins)
    return 1 if last else -1, 0
