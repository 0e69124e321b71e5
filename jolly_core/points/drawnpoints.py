"""Inputs and outputs drawn before any card was chosen: they are points, too, said by what they are wired to."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.library import definition
from jolly_core.model import IoPoint, Project, Symbol, derived
from jolly_core.plc import TYPES_OF_UNITS
from jolly_core.tagging import full_tag, product_tag
from jolly_core.wiring import group_of, net_of


@dataclass(slots=True, frozen=True)
class DrawnPoint:
    """What a drawn input or output says of its point: its type, and the device that it is wired to.

    Attributes:
        tag: what the point would be called, "" when it is wired to nothing that has a tag.
        device, function_id, location_id, text: of the device that it is wired to.
        connected: what that is, in a word.
    """

    symbol_id: str
    io_type: str
    tag: str = ""
    device: str = ""
    text: str = ""
    connected: str = ""
    function_id: str = ""
    location_id: str = ""


@derived
def points_of_symbols(project: Project) -> dict[str, str]:
    """Return the ids of the points that symbols were drawn for, by symbol."""
    return {p.drawn: p.id for p in project.io_points.values() if p.drawn in project.symbols}


def drawn_point(project: Project, symbol_id: str) -> str:
    """Return tag and text of the point that an input or output without a card was drawn for, "" for none."""
    point = project.io_points.get(points_of_symbols(project).get(symbol_id, ""))
    return f"{point.tag} {point.text}".strip() if point else ""


def place_drawn(project: Project, point: IoPoint) -> tuple[bool, int, int, int]:
    """Return a sort key by where the symbol of a point is drawn: sheets in order, column by column; none comes last."""
    symbol = project.symbols.get(point.drawn)
    if symbol is None:
        return True, 0, 0, 0
    return False, project.sheets[symbol.sheet_id].order, symbol.x, symbol.y


def without_point(project: Project) -> list[Symbol]:
    """Return the inputs and outputs that have neither card nor point, by sheet and place."""
    known = points_of_symbols(project)
    found = [
        s
        for s in project.symbols.values()
        if not s.device_id and s.id not in known and definition(s.definition).unit in TYPES_OF_UNITS
    ]
    return sorted(found, key=lambda s: (project.sheets[s.sheet_id].order, s.y, s.x, s.id))


def drawn_as(project: Project, symbol: Symbol) -> DrawnPoint:
    """Return what a drawn input or output says of its point, by what its wires lead to past terminals."""
    io_type = TYPES_OF_UNITS[definition(symbol.definition).unit]
    for group in net_of(project, group_of(project, (symbol.id, 0)), potential=True):
        for id, _ in group.pins:
            other = project.symbols[id]
            device = project.devices.get(other.device_id)
            if id == symbol.id or device is None or definition(other.definition).unit == "terminal":
                continue
            words = definition(other.definition).name.lower()
            return DrawnPoint(
                symbol.id,
                io_type,
                product_tag(project, device),
                full_tag(project, device),
                device.text,
                words,
                device.function_id,
                device.location_id,
            )
    return DrawnPoint(symbol.id, io_type)


def meeting(project: Project, drawn: DrawnPoint) -> IoPoint | None:
    """Return the point of the list that a drawn one is: of its type, for its device or called as it; None for none."""
    names = {drawn.device, f"-{drawn.tag}", drawn.tag} - {"", "-"}
    alike = (p for p in project.io_points.values() if p.io_type == drawn.io_type)
    waiting = [p for p in alike if not p.channel and p.drawn not in project.symbols]
    return next((p for p in sorted(waiting, key=lambda p: p.order) if p.device in names or p.tag in names), None)
