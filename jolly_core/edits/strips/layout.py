"""Laying a strip out as a table says: what is there by its number stays, the rest is planned."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import MOST_LEVELS, Bridge, Device, RuleError, StripItem
from jolly_core.tagging import short_tag
from jolly_core.terminals import TERMINAL, bridges_of, next_unit, strip_rows, terminal_symbols

from ..base.edit import Id, Payload, Text, TextLine, Work, edit
from ..base.upkeep import drop_part, tidy_strip
from ..devices.parts import take_part
from .items import ACCESSORIES, Accessory, SetTerminals, TerminalKind, put_in_order, set_terminals, stored, strip_named


class LaidLine(BaseModel):
    """A line of a layout: a terminal by its number, or an accessory, of which number and bridge say nothing."""

    model_config = ConfigDict(extra="forbid")
    number: Text = Field(default="", max_length=12)
    kind: TerminalKind | Accessory = "feed-through"
    level: int = Field(default=1, ge=1, le=MOST_LEVELS)
    bridge: TextLine = ""
    part: TextLine = ""
    spare: bool = False
    remark: TextLine = ""


class LayOutStrip(Payload):
    """Lay a strip out in the order of a table; the table of the answer lists what is added, changed and taken off.

    Terminals that are drawn and not in the table stay behind the others. Bridges become those of the table.
    """

    kind: Literal["lay-out-strip"] = "lay-out-strip"
    strip_id: Id
    lines: list[LaidLine] = Field(min_length=1, max_length=5000)


@edit(LayOutStrip, {"strip_id": "d1", "lines": [{"number": "1", "bridge": "A"}, {"number": "2", "bridge": "A"}]})
def lay_out_strip(work: Work, payload: LayOutStrip) -> str:
    """Work out LayOutStrip."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    table = work.outcome.table
    records = {r.unit: r for r in stored(work, device.id) if r.kind == TERMINAL}
    accessories = [r for r in stored(work, device.id) if r.kind != TERMINAL]
    by_number = {row.number: row.unit for row in strip_rows(project, device.id) if row.kind == TERMINAL}
    laid: list[StripItem] = []
    units: dict[str, int] = {}
    free = next_unit(project, device.id)
    for line in payload.lines:
        if line.kind in ACCESSORIES:
            laid.append(_accessory(work, device, line, accessories))
            continue
        if not line.number or line.number in units:
            raise RuleError(f"A terminal of {tag} needs a number of its own.", field="lines")
        unit = by_number.get(line.number)
        if unit is None:
            unit, free = free, free + 1
            table.append([line.number, "added"])
            made = StripItem(work.ids.new(), device.id, TERMINAL, 0, unit, "", "", line.kind, line.spare)
            records[unit] = made
        units[line.number] = unit
        laid.append(replace(records[unit], level=line.level, remark=line.remark.strip()))
    _drop(work, device, laid, records, accessories)
    put_in_order(work, laid + [r for r in records.values() if r.unit not in units.values() and _stays(work, r)])
    _numbers(work, device, {unit: number for number, unit in units.items()})
    terminals = [line for line in payload.lines if line.kind not in ACCESSORIES]
    for line in terminals:
        _facts(work, device, line, units[line.number])
    _bridges(work, device, terminals, units)
    tidy_strip(work, device.id)
    return f"lay out {tag} as a table says"


def _numbers(work: Work, device: Device, wanted: dict[int, str]) -> None:
    """Fix the numbers that are not by themselves what the table says; fixing one may shift others, so look again."""
    for _ in range(len(wanted)):
        rows = {row.unit: row for row in strip_rows(work.project, device.id) if row.unit in wanted}
        other = [row for unit, row in rows.items() if row.number != wanted[unit]]
        if not other:
            return
        for row in other:
            work.put("strip_item", replace(row.record, number=wanted[row.unit]))


def _stays(work: Work, record: StripItem) -> bool:
    return bool(terminal_symbols(work.project, record.strip_id).get(record.unit))


def _accessory(work: Work, device: Device, line: LaidLine, there: list[StripItem]) -> StripItem:
    """Return the next accessory of a kind that stands on the strip, else a new one, with the part of its line."""
    part = take_part(work, line.part, "strip-accessory") if line.part else None
    same = next((r for r in there if r.kind == line.kind), None)
    if same is not None:
        there.remove(same)
        return replace(same, part_id=part.id if part else same.part_id)
    work.outcome.table.append([line.kind, "added"])
    return StripItem(work.ids.new(), device.id, line.kind, 0, part_id=part.id if part else "")


def _drop(
    work: Work, device: Device, laid: list[StripItem], records: dict[int, StripItem], accessories: list[StripItem]
) -> None:
    """Take off what the table does not have and no sheet shows."""
    kept = {r.id for r in laid}
    names = {row.unit: row.number for row in strip_rows(work.project, device.id)}
    for record in [*records.values(), *accessories]:
        if record.id in kept or record.id not in work.project.strip_items:
            continue
        name = names.get(record.unit, "") if record.kind == TERMINAL else record.kind
        if record.kind == TERMINAL and _stays(work, record):
            work.outcome.table.append([name, "not in the table, but drawn: it stays at the end"])
            continue
        work.remove("strip_item", record.id)
        drop_part(work, record.part_id)
        work.outcome.table.append([name, "taken off"])


def _facts(work: Work, device: Device, line: LaidLine, unit: int) -> None:
    """Make kind, part and use of a terminal what its line says, and note what changed."""
    rows = {row.unit: row for row in strip_rows(work.project, device.id)}
    before = rows[unit]
    changes: list[str] = []
    if line.kind != before.terminal_kind:
        changes.append(f"{before.terminal_kind} becomes {line.kind}")
        set_terminals(work, SetTerminals(strip_id=device.id, units=[unit], terminal_kind=line.kind))  # type: ignore[arg-type]
    now = next(row for row in strip_rows(work.project, device.id) if row.unit == unit)
    if line.part and (now.part is None or line.part not in (now.part.id, now.part.number)):
        changes.append(f"part {now.part.number if now.part else 'none'} becomes {line.part}")
        set_terminals(work, SetTerminals(strip_id=device.id, units=[unit], part_id=line.part))
    if line.spare != now.record.spare and not now.drawn:
        set_terminals(work, SetTerminals(strip_id=device.id, units=[unit], spare=line.spare))
        changes.append("spare" if line.spare else "no longer spare")
    if changes and [line.number, "added"] not in work.outcome.table:
        work.outcome.table.append([line.number, ", ".join(changes)])


def _bridges(work: Work, device: Device, lines: list[LaidLine], units: dict[str, int]) -> None:
    """Make the bridges those of the table: terminals with one word are joined; one that is so already stays."""
    wanted: dict[str, list[int]] = {}
    for line in lines:
        for word in line.bridge.split():
            wanted.setdefault(word, []).append(units[line.number])
    joined = {tuple(group) for group in wanted.values() if len(group) > 1}
    for bridge in bridges_of(work.project, device.id):
        if bridge.units in joined:
            joined.discard(bridge.units)
            continue
        work.remove("bridge", bridge.id)
        drop_part(work, bridge.part_id)
        work.outcome.table.append(["bridge", "taken off"])
    for group in sorted(joined):
        work.put("bridge", Bridge(work.ids.new(), device.id, group))
        work.outcome.table.append(["bridge", "added"])
