"""Checks of what a circuit would do: potentials joined, numbers twice, coils at a wrong voltage or without contacts."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.drawing import counts_lines, lines_of, sheets_with_line
from jolly_core.library import definition, is_block, part_class
from jolly_core.model import Project, Wire
from jolly_core.tagging import lead_of, tag_on
from jolly_core.wiring import (
    Group,
    holders_of_numbers,
    named_parts,
    nets_of_sheet,
    wire_numbers,
)

from .registry import Act, Snag, check, project_check

_COILS = ("relay", "contactor", "timer")


@check("number-twice", "One wire number on two potentials.")
def number_twice(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each potential of a sheet whose number another one has too, here or fixed elsewhere.

    Notes:
        Running numbers of the project's own pattern differ by the way they are counted, so that only fixed ones are
        looked for on other sheets; what rules of numbers make alike on two sheets is told by another check.
    """
    numbers = wire_numbers(project, sheet_id)
    first: dict[str, Group] = {}
    for potential in nets_of_sheet(project, sheet_id, potential=True):
        shown = {numbers[g.point]: g for g in potential if g.sheet_id == sheet_id and g.point in numbers}
        own = {id for g in potential for id in g.wires} if any(map(project.numbered_wires.has, shown)) else set()
        for number, here in shown.items():
            elsewhere = [i for i in project.numbered_wires.get(number) if i not in own]
            if number in first or elsewhere:
                other = project.wires[elsewhere[0]].sheet_id if elsewhere else sheet_id
                yield _twice(project, number, here, other)
            first.setdefault(number, here)


def _twice(project: Project, number: str, here: Group, other_id: str) -> Snag:
    y, x = here.first
    other = project.sheets[other_id].number
    message = f"The number {number} is on two potentials, the other on sheet {other}. Give one another."
    return Snag("number-twice", "error", message, tuple(here.wires[:1]), here.sheet_id, x, y)


@project_check("number-twice-by-rules", "One wire number that rules of numbers make on two potentials.")
def number_twice_by_rules(project: Project) -> Iterator[Snag]:
    """Yield a snag for each potential whose running number rules make on another sheet, too."""
    if not project.number_rules:
        return
    for number, at in holders_of_numbers(project).items():
        if len(at) > 1 and not project.numbered_wires.has(number):
            groups = list(at.values())
            for group in groups:
                other = next((g for g in groups if g.sheet_id != group.sheet_id), None)
                if other is not None:
                    yield _twice(project, number, group, other.sheet_id)


@check("lines-shared", "A sheet with line numbers that a sheet before it has too.")
def lines_shared(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for a sheet one of whose lines has the number of one on a sheet before it."""
    sheet = project.sheets[sheet_id]
    if not counts_lines(project, sheet):
        return
    table = sheets_with_line(project)
    twice = [line for line in lines_of(sheet) if table[line][0].id != sheet_id]
    if twice:
        other = table[twice[0]][0].number
        words = f"line {twice[0]}" if len(twice) == 1 else f"lines {twice[0]} to {twice[-1]}"
        message = f"Sheet {sheet.number} has {words} of sheet {other} again. Let lines run on."
        act = Act("Let lines run on", "run-lines-on")
        yield Snag("lines-shared", "error", message, (), sheet_id, sheet.rail_left, sheet.line_top, act=act)


@check("number-given-up", "A fixed number that is not shown, because its potential has another fixed one.")
def numbers_given_up(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each fixed number on a sheet that lost against another one of its potential."""
    for potential in nets_of_sheet(project, sheet_id, potential=True):
        if len({w.number for w in _fixed_in(project, potential)}) > 1:
            for groups, _ in named_parts(project, potential):
                yield from _given_up(_fixed_in(project, groups), sheet_id)


def _fixed_in(project: Project, groups: list[Group]) -> list[Wire]:
    return [w for g in groups for i in g.wires if (w := project.wires[i]).number]


def _given_up(fixed: list[Wire], sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each wire on a sheet that has another fixed number than the one shown of its number's part."""
    winner = min((w.number for w in fixed), default="")
    for w in fixed:
        if w.number != winner and w.sheet_id == sheet_id:
            message = f"The fixed number {w.number} is not shown: {winner} of the same potential won."
            act = Act("Let it go", "fix-numbers", (("ids", [w.id]), ("fixed", False)))
            yield Snag("number-given-up", "warning", message, (w.id,), sheet_id, w.x1, w.y1, act=act)


@check("dead-end", "A net that leads from one pin to nowhere.")
def dead_ends(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each net with continuations that reaches one pin only, or none."""
    for net in nets_of_sheet(project, sheet_id):
        marks = [id for g in net for id in g.continuations]
        if len(marks) < 2 or sum(len(g.pins) for g in net) > 1:
            continue
        here = next(g for g in net if g.sheet_id == sheet_id)
        y, x = here.first
        name = project.continuations[marks[0]].name
        message = f"The net of {name} reaches one pin only. Draw what it leads to, or take it away."
        yield Snag("dead-end", "warning", message, (*here.continuations[:1], *here.wires[:1]), sheet_id, x, y)


@check("coil-unused", "A coil of which no contact is used.")
def unused_coils(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each coil of a relay, timer or contactor of which neither contact nor pole is drawn."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        shape = definition(symbol.definition)
        device = project.devices.get(symbol.device_id)
        if shape.unit != "coil" or shape.part_class not in _COILS or device is None:
            continue
        if len(project.units_of(device.id)) == 1 and lead_of(project, device.id) == symbol:
            message = f"No contact of {tag_on(project, device, sheet)} is used."
            yield Snag("coil-unused", "warning", message, (symbol.id,), sheet_id, symbol.x, symbol.y, "", device.id)


@check("external-numbered", "A wire laid outside the panel that gets a wire number.")
def external_numbered(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield one snag for each wire type for outside of which numbered wires are on a sheet."""
    told: set[str] = set()
    for wire in project.wires_on(sheet_id):
        wire_type = project.wire_types.get(wire.type_id)
        if wire_type is None or wire_type.id in told or not wire_type.numbered:
            continue
        if wire_type.outside or wire_type.category == "external":
            told.add(wire_type.id)
            message = (
                f"Wires of the type {wire_type.name} are outside the panel, but get numbers. Say so in the wire types."
            )
            yield Snag("external-numbered", "warning", message, (wire.id,), sheet_id, wire.x1, wire.y1)


@check("block-pins", "A block with pins its part does not have.")
def block_pins(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each block that shows a pin the chosen part does not have."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        part = project.part_of(device) if device else None
        if device is None or part is None or not is_block(symbol.definition):
            continue
        known = {p for kind, pins in part.units if kind == "pins" for p in pins}
        lost = [p for p in definition(symbol.definition).generic if p not in known]
        if lost and "pins" in part_class(part.part_class).units:
            tag = tag_on(project, device, sheet)
            message = (
                f"{part.number} of {tag} has no pin {', '.join(lost[:4])}. Arrange the block, or choose another part."
            )
            yield Snag(
                "block-pins", "error", message, (symbol.id,), sheet_id, symbol.x, symbol.y, "choose-part", device.id
            )
