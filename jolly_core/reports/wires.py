"""The wire list: every conductor once, with its ends, number and type."""

from __future__ import annotations

import re
from dataclasses import dataclass

from jolly_core.drawing import place_in
from jolly_core.model import Project, WireType
from jolly_core.tagging import full_tag, pins_of, tag_on
from jolly_core.wiring import (
    Connection,
    Group,
    PinKey,
    all_nets,
    connections,
    nets_of_sheet,
    sheet_groups,
    wire_numbers,
)

from .registry import Cell, Column, report


@dataclass(slots=True, frozen=True)
class Conductor:
    """A connection as lists show it."""

    number: str
    start: str
    end: str
    start_symbol: str
    end_symbol: str
    colour: str
    cross_section: str
    type_name: str
    place: str
    wire_id: str
    wires: tuple[str, ...]


def pin_name(project: Project, pin: PinKey, sheet_id: str = "") -> str:
    """Return designation:pin; short when a sheet is given to see it from."""
    symbol = project.symbols[pin[0]]
    device = project.devices.get(symbol.device_id)
    name = pins_of(project, symbol)[pin[1]] or "?"
    if device is None:
        return f"?:{name}"
    tag = tag_on(project, device, project.sheets[sheet_id]) if sheet_id else full_tag(project, device)
    return f"{tag}:{name}"


def cross_section(wire_type: WireType | None) -> str:
    """Return the size of a conductor with its unit, "" when it has none."""
    if wire_type is None:
        return ""
    return (
        f"{wire_type.cross_section_mm2:g} mm²"
        if wire_type.cross_section_mm2
        else wire_type.awg and f"AWG {wire_type.awg}"
    )


def conductors_of(
    project: Project, net: list[Group], numbers: dict[str, dict[int, str]], sheet_id: str = ""
) -> list[Conductor]:
    """Return the conductors of a net.

    Args:
        numbers: wire numbers by sheet, filled in as needed.
        sheet_id: name the ends as seen from this sheet; "" names them in full.
    """
    rows = []
    for c in connections(project, net):
        rows.append(_conductor(project, c, net, numbers, sheet_id))
    return rows


def _conductor(
    project: Project, c: Connection, net: list[Group], numbers: dict[str, dict[int, str]], sheet_id: str
) -> Conductor:
    symbol = project.symbols[c.start[0]]
    home = symbol.sheet_id
    if home not in numbers:
        numbers[home] = wire_numbers(project, home)
    groups = sheet_groups(project, home)
    x, y = groups.points[c.start]
    wire = project.wires.get(c.wire_id)
    wire_type = project.wire_types.get(wire.type_id) if wire else None
    return Conductor(
        numbers[home].get(groups.of_pin[c.start], ""),
        pin_name(project, c.start, sheet_id),
        pin_name(project, c.end, sheet_id),
        c.start[0],
        c.end[0],
        wire_type.colour if wire_type else "",
        cross_section(wire_type),
        wire_type.name if wire_type else "",
        place_in(project.sheets[home], x, y),
        c.wire_id,
        tuple(w for g in net for w in g.wires),
    )


def sheet_conductors(project: Project, sheet_id: str) -> list[Conductor]:
    """Return the conductors of the nets that touch a sheet, named as seen from it, in reading order."""
    numbers: dict[str, dict[int, str]] = {}
    rows = []
    for net in nets_of_sheet(project, sheet_id):
        rows += conductors_of(project, net, numbers, sheet_id)
    return sorted(rows, key=lambda r: (r.number.zfill(12), r.start, r.end))


@report(
    "wires",
    "Wire list",
    "Every conductor with its ends, number, type and place.",
    (
        Column("number", "Number", 9),
        Column("from", "From", 22),
        Column("to", "To", 22),
        Column("type", "Type", 16),
        Column("colour", "Colour", 8),
        Column("cross_section", "Cross-section", 13),
        Column("place", "Sheet.line", 11),
    ),
)
def wire_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the wire list, by number as a person counts, then in reading order."""
    numbers: dict[str, dict[int, str]] = {}
    rows: list[tuple[Cell, ...]] = []
    for net in all_nets(project):
        for c in conductors_of(project, net, numbers):
            rows.append((c.number, c.start, c.end, c.type_name, c.colour, c.cross_section, c.place))
    return sorted(rows, key=lambda row: _counted(str(row[0])))


def _counted(number: str) -> list[tuple[int, str]]:
    """Return a sort key by which 10-9 stands before 10-10, and what has no number last."""
    pieces = re.findall(r"\d+|\D+", number)
    return [(int(p), "") if p.isdigit() else (-1, p) for p in pieces] or [(10**9, "")]
