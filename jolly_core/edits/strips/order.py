"""The order of a strip and the numbers of its terminals."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cables import cable_cores
from jolly_core.model import Project, RuleError, StripItem
from jolly_core.model.entities.habits import FirstNumber
from jolly_core.tagging import natural, short_tag, terminal_number
from jolly_core.terminals import TERMINAL, StripRow, blocks_of, place_key, strip_record, strip_rows, wire_numbers_at

from ..base.edit import Id, Payload, Text, Work, edit
from .items import ItemKey, TerminalUnit, keyed, put_in_order, stored, strip_named, terminals_named


class MoveStripItems(Payload):
    """Put places of a strip together at another position; a block moves with its levels, bridges with their terminals.

    `to` counts the places that are left when the moved ones are lifted off; `by` moves on from where the first stands.
    """

    kind: Literal["move-strip-items"] = "move-strip-items"
    strip_id: Id
    keys: list[ItemKey] = Field(min_length=1, max_length=5000)
    to: int = Field(default=0, ge=0, le=5000)
    by: int = Field(default=0, ge=-5000, le=5000)


@edit(MoveStripItems, {"strip_id": "d1", "keys": ["u4"], "to": 0})
def move_strip_items(work: Work, payload: MoveStripItems) -> str:
    """Work out MoveStripItems."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    records = stored(work, device.id)
    wanted = {place_key(r) for r in keyed(project, device.id, payload.keys)}
    for block in blocks_of(records):
        if place_key(block[0]) in wanted:
            wanted.update(place_key(r) for r in block)
        elif any(place_key(r) in wanted for r in block):
            first = terminal_number(project, device.id, block[0].unit)
            raise RuleError(f"It stands on the block of {first}. Move that with all its levels.", field="keys")
    moved = [r for r in records if place_key(r) in wanted]
    left = [r for r in records if place_key(r) not in wanted]
    before = records.index(moved[0])
    to = min(max(before + payload.by, 0) if payload.by else payload.to, len(left))
    while payload.by < 0 and to and left[to : to + 1] and left[to].kind == TERMINAL and left[to].level > 1:
        to -= 1  # on past the whole block before
    while to < len(left) and left[to].kind == TERMINAL and left[to].level > 1:
        to += 1
    put_in_order(work, [*left[:to], *moved, *left[to:]])
    return f"order of {short_tag(project, device)}"


SortBy = Literal["number", "wire", "cable", "sheet", "place"]


class SortStrip(Payload):
    """Sort the terminals of a strip, or some of them among their own places; accessories stay where they stand."""

    kind: Literal["sort-strip"] = "sort-strip"
    strip_id: Id
    by: SortBy
    units: list[TerminalUnit] = Field(default_factory=list, max_length=5000)


@edit(SortStrip, {"strip_id": "d1", "by": "cable"})
def sort_strip(work: Work, payload: SortStrip) -> str:
    """Work out SortStrip."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    terminals_named(project, device.id, payload.units)
    records = stored(work, device.id)
    rows = {row.unit: row for row in strip_rows(project, device.id) if row.kind == TERMINAL}
    blocks = blocks_of(records)
    chosen = [b for b in blocks if not payload.units or b[0].unit in payload.units]
    ranked = iter(sorted(chosen, key=lambda b: sort_key(project, rows[b[0].unit], payload.by)))
    order = {id(b): next(ranked) for b in chosen}
    queue = iter([r for b in blocks for r in order.get(id(b), b)])
    put_in_order(work, [next(queue) if r.kind == TERMINAL else r for r in records])
    return f"sort {short_tag(project, device)} by {payload.by}"


def sort_key(project: Project, row: StripRow, by: str) -> tuple[object, ...]:
    """Return what a terminal is sorted by; what has nothing to say stands behind, in the order it has."""
    if by == "number":
        said = row.number
    elif by == "wire":
        said = next(iter(wire_numbers_at(row)), "")
    elif by == "cable":
        first = next((t for t in row.field if t.cable), None)
        said = f"{first.cable} {first.core}" if first else ""
        return not said, natural(first.cable if first else ""), _core_place(project, row), row.record.order
    elif by == "sheet":
        symbol = project.symbols.get(row.symbol_ids[0]) if row.symbol_ids else None
        if symbol is None:
            return True, 0, 0, row.record.order
        return False, project.sheets[symbol.sheet_id].order, (symbol.y, symbol.x), row.record.order
    else:
        said = next((t.name for t in (*row.field, *row.unknown, *row.panel)), "")
    return not said, natural(said), 0, row.record.order


def _core_place(project: Project, row: StripRow) -> int:
    target = next((t for t in row.field if t.cable_id), None)
    if target is None:
        return 0
    rows = cable_cores(project, target.cable_id)
    return next((c.ordinal for c in rows if c.conductor and c.conductor.key == target.conductor.key), 0)


class NumberTerminal(Payload):
    """Fix the number of a terminal by hand, or let it be its own again with an empty one."""

    kind: Literal["number-terminal"] = "number-terminal"
    strip_id: Id
    unit: TerminalUnit
    number: Text = Field(max_length=12)


@edit(NumberTerminal, {"strip_id": "d1", "unit": 3, "number": "3a"})
def number_terminal(work: Work, payload: NumberTerminal) -> str:
    """Work out NumberTerminal."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    terminals_named(project, device.id, [payload.unit])
    number = payload.number.strip()
    tag = short_tag(project, device)
    records = stored(work, device.id)
    refuse_taken(project, device.id, {payload.unit: number}, tag)
    mine = next(r for r in records if r.kind == TERMINAL and r.unit == payload.unit)
    work.put("strip_item", replace(mine, number=number))
    return f"number of {tag}:{number or terminal_number(project, device.id, payload.unit)}"


def refuse_taken(project: Project, strip_id: str, wanted: dict[int, str], tag: str) -> None:
    """Refuse numbers that other terminals of the strip have as it stands.

    Args:
        wanted: the number each terminal shall have, by unit; "" for its own.

    Raises:
        RuleError: with the first that is taken.
    """
    numbers = {number for number in wanted.values() if number}
    for row in strip_rows(project, strip_id):
        if row.kind == TERMINAL and row.unit not in wanted and row.number in numbers:
            raise RuleError(f"{tag} has a terminal {row.number} already. Choose another number.", field="number")


class NumberTerminals(Payload):
    """Number the terminals of a strip again, or some of them; the table lists each number, now and then.

    Of the whole strip it says how they are numbered from now on; numbers fixed by hand go unless they are kept. Of some
    it fixes the numbers, from the start in the order of the strip; `wire` lets these follow their wire.
    """

    kind: Literal["number-terminals"] = "number-terminals"
    strip_id: Id
    units: list[TerminalUnit] = Field(default_factory=list, max_length=5000)
    way: Literal["order", "wire", "level"] = "order"
    start: FirstNumber = 1
    step: Literal[1, 2] = 1
    backward: bool = False
    keep_fixed: bool = True


@edit(NumberTerminals, {"strip_id": "d1", "way": "order", "start": 1})
def number_terminals(work: Work, payload: NumberTerminals) -> str:
    """Work out NumberTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    terminals_named(project, device.id, payload.units)
    before = {row.unit: row.number for row in strip_rows(project, device.id) if row.kind == TERMINAL}
    records = [r for r in stored(work, device.id) if r.kind == TERMINAL]
    if payload.units:
        _number_some(work, payload, [r for r in records if r.unit in payload.units], tag)
    else:
        record = strip_record(project, device.id)
        record = replace(record, id=record.id or work.ids.new(), numbering=payload.way, backward=payload.backward)
        work.put("strip", replace(record, start=payload.start, step=payload.step))
        for item in records:
            if item.number and not payload.keep_fixed:
                work.put("strip_item", replace(item, number=""))
    rows = [row for row in strip_rows(project, device.id) if row.kind == TERMINAL]
    work.outcome.table = [[before[r.unit], r.number] for r in rows if before[r.unit] != r.number]
    return f"number {tag} again"


def _number_some(work: Work, payload: NumberTerminals, records: list[StripItem], tag: str) -> None:
    project, strip_id = work.project, payload.strip_id
    rows = {row.unit: row for row in strip_rows(project, strip_id)}
    numbers: dict[int, str] = {}
    order = sorted(records, key=lambda r: r.level) if payload.way == "level" else list(records)
    if payload.backward:
        order.reverse()
    count = payload.start
    for record in order:
        if record.number and payload.keep_fixed:
            continue
        if payload.way == "wire":
            numbers[record.unit] = next(iter(wire_numbers_at(rows[record.unit])), "")
        else:
            numbers[record.unit] = str(count)
            count += payload.step
    given = [n for n in numbers.values() if n]
    twice = next((n for n in given if given.count(n) > 1), "")
    if twice:
        raise RuleError(f"Two of the chosen terminals would be {twice}. Number them by order.", field="way")
    refuse_taken(project, strip_id, numbers, tag)
    for record in records:
        work.put("strip_item", replace(record, number=numbers.get(record.unit, record.number)))
